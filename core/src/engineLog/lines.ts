import {
  day,
  figure,
  flag,
  id,
  line,
  list,
  matching,
  name,
  nullable,
  object,
  oneOf,
  optional,
  positive,
  text,
  typed,
  type Held,
} from '../kit/schema.js';
import Joi from 'joi';
import type { PartClass } from '../engine/stations.js';
import { SPECIES } from './species.js';

/** What an engine counts its service in. */
export const COUNTERS = ['h', 'km'] as const;
export type Counter = (typeof COUNTERS)[number];

/** An engine as a record of its own: cases hang on it, and its log runs through its years. Who owns it stands nowhere here but as a reference. */
export const engineRecordSchema = object({
  /** The shop's own mark for it. */
  mark: matching(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/),
  name: name(120),
  counter: oneOf(COUNTERS),
  fuel: oneOf(['petrol', 'diesel', 'gas', 'alcohol', 'premix']),
  cooling: oneOf(['liquid', 'air']),
  /** Oil in it at the upper mark of the stick, and between the marks, litres. */
  sumpL: positive(2000),
  marksL: positive(500),
  /** Service between two oil changes, in its counter; null: not kept to any. */
  changeEvery: nullable(positive(1_000_000)),
});
export type EngineRecord = Held<typeof engineRecordSchema>;

export const OIL_LOOKS = ['clear', 'dark', 'thin', 'fuel-smell', 'milky', 'grey', 'glitter'] as const;
export type OilLook = (typeof OIL_LOOKS)[number];
export const FILTER_FINDS = ['clean', 'few-flakes', 'bearing-metal', 'aluminium', 'iron', 'much'] as const;
export const PRESSURE_STATES = ['hot-idle', 'hot-rated'] as const;
export type PressureState = (typeof PRESSURE_STATES)[number];
export const DRAWN_FROM = ['mid-stream', 'tube', 'pan', 'filter'] as const;
/** What a test changes, where it looks, by which figure, and which way it is expected to go. */
export const TEST_CHANGES = ['coating', 'clearance', 'material', 'oil', 'filter', 'load', 'other'] as const;
export const TESTED_PARTS = [
  'shell',
  'journal',
  'thrust',
  'bore',
  'skirt',
  'crown',
  'rings',
  'cam',
] as const satisfies readonly PartClass[];
export const TEST_FIGURES = ['damage', 'grade'] as const;
export const EXPECTED = ['less', 'same', 'more'] as const;
const reference = matching(/^[A-Z0-9][A-Z0-9-]{3,23}$/);
const note = text(1000);

const figures = typed<Readonly<Record<string, number>>>(
  Joi.object(Object.fromEntries(SPECIES.map((s) => [s.id, Joi.number().min(0).max(1e6)]))),
);

/** What a line of the log says, by its kind. Figures of a result are in the first unit of each species. */
export const LINE_BODIES = {
  /** `share`: 0 the lower mark of the stick, 1 the upper. `stick`: which, where there are two. */
  level: object({ share: figure(-2, 4), look: nullable(oneOf(OIL_LOOKS)), stick: line(40), note }),
  'top-up': object({ litres: positive(500), oil: line(60) }),
  'oil-change': object({ litres: positive(2000), oil: line(60), filter: flag }),
  pressure: object({ state: oneOf(PRESSURE_STATES), bar: figure(0, 30) }),
  'filter-cut': object({ found: oneOf(FILTER_FINDS), note }),
  sample: object({ reference, drawn: oneOf(DRAWN_FROM), laboratory: line(80) }),
  /** `insisted`: it stands though something about it looked wrong. `simulated`: it came from the stand-in. */
  result: object({ reference, reported: day, laboratory: line(80), figures, insisted: flag, simulated: optional(flag) }),
  owner: object({ reference: line(80) }),
  /**
   * Something changed on purpose, with what is expected of it, written before the next strip. `places`: stations that were changed; none: the whole engine.
   * `by`: how much, in the unit of the figure; of `same` the most that still counts as such.
   */
  test: object({
    name: name(80),
    changed: oneOf(TEST_CHANGES),
    what: text(600),
    part: oneOf(TESTED_PARTS),
    places: list(id, 200),
    figure: oneOf(TEST_FIGURES),
    expected: oneOf(EXPECTED),
    by: nullable(positive(100)),
  }),
  note: object({ words: text(2000) }),
  /** Takes back the line it supersedes. */
  struck: object({ why: text(500) }),
} as const;
export type LineKind = keyof typeof LINE_BODIES;
export type LineBodies = { readonly [K in LineKind]: Held<(typeof LINE_BODIES)[K]> };
export const LINE_KINDS = Object.keys(LINE_BODIES) as LineKind[];

export const LINE_NAMES: Readonly<Record<LineKind, string>> = {
  level: 'Level and look',
  'top-up': 'Topped up',
  'oil-change': 'Oil changed',
  pressure: 'Pressure',
  'filter-cut': 'Filter cut open',
  sample: 'Sample drawn',
  result: 'Result of a sample',
  owner: 'Owner',
  test: 'Test',
  note: 'Remark',
  struck: 'Taken back',
};

/** A line as it is written: on a day, with the counter where it was read. A later one may stand in its place (`supersedes`); nothing is written over. */
type Line<K extends LineKind> = {
  readonly id: string;
  readonly kind: K;
  readonly day: string;
  /** Hours or km on the counter; null: not read. */
  readonly counter: number | null;
  readonly supersedes: string | null;
  readonly by: string;
  /** When it was written, ISO 8601. */
  readonly time: string;
  readonly body: LineBodies[K];
};
export type LogLine = { [K in LineKind]: Line<K> }[LineKind];
export type LineOf<K extends LineKind> = Extract<LogLine, { kind: K }>;

/** A line before it is written. */
export const lineDraftSchema = object({
  id,
  kind: oneOf(LINE_KINDS),
  day,
  counter: nullable(figure(0, 10_000_000)),
  supersedes: nullable(id),
  body: typed<LineBodies[LineKind]>(
    Joi.when('kind', { switch: LINE_KINDS.map((kind) => ({ is: kind, then: LINE_BODIES[kind].required() })), otherwise: Joi.forbidden() }),
  ),
});
export type LineDraft = Held<typeof lineDraftSchema>;

/** A log as a case takes it over: the engine and its lines as they stood. */
export const takenLogSchema = object({
  engine: engineRecordSchema,
  lines: typed<readonly LogLine[]>(
    Joi.array()
      .max(3000)
      .items(lineDraftSchema.keys({ by: Joi.string().max(200).allow('').required(), time: Joi.string().max(40).allow('').required() })),
  ),
});
export type TakenLog = Held<typeof takenLogSchema>;

/** The lines that stand, by day: what a later one stands in place of is left out, and what was taken back. Of one day the counter decides, then the order of writing. */
export function standingLines(lines: readonly LogLine[]): LogLine[] {
  const replaced = new Set(lines.map((l) => l.supersedes));
  return lines
    .filter((l) => !replaced.has(l.id) && l.kind !== 'struck')
    .map((l, i) => ({ l, i }))
    .sort((a, b) => a.l.day.localeCompare(b.l.day) || (a.l.counter ?? 0) - (b.l.counter ?? 0) || a.i - b.i)
    .map(({ l }) => l);
}

/** Standing lines of a kind. */
export const linesOf = <K extends LineKind>(lines: readonly LogLine[], kind: K): Array<LineOf<K>> =>
  lines.filter((l): l is LineOf<K> => l.kind === kind);
