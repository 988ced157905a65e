import { mean } from 'simple-statistics';
import type { CaseView } from '../case/views.js';
import type { LineOf } from '../engineLog/lines.js';
import type { Station } from '../engine/stations.js';
import {
  dividedByChance,
  groupShift,
  MOST_FIGURES,
  pairedShift,
  signedByChance,
  type ByChance,
  type GroupShift,
} from '../statistics/twoGroups.js';
import type { PlaceStood, TwoStrips } from './twoStrips.js';

/** A place with the figure a test looks at. */
interface PlaceFigure {
  readonly station: Station;
  readonly value: number;
}

/** What came of a test at the next strip. */
export interface TestEffect {
  /** `beside`: the changed places against the others of their kind, half and bearing in one strip. `before`: every place against itself in the strip before. */
  readonly how: 'beside' | 'before';
  /** Figures of the changed places; `before`: after less before. */
  readonly changed: readonly PlaceFigure[];
  readonly others: readonly PlaceFigure[];
  readonly shift: GroupShift | null;
  readonly chance: ByChance | null;
  readonly came: 'as expected' | 'against what was expected' | 'not shown' | 'cannot be told';
  /** One sentence: the size, how sure, what it shows. */
  readonly words: string;
  /** What else may have made it. */
  readonly mind: readonly string[];
}

type EngineTest = LineOf<'test'>;

/** What an interval must hold before anything is said to be shown. */
const SHOWS = 0.9;

/** Unit of a figure, as it stands after a number. */
export const TEST_UNIT: Readonly<Record<EngineTest['body']['figure'], string>> = { damage: '% of the face', grade: 'grades' };

/** What came of a test, from the strip after it and, where the whole engine was changed, the one before. */
export function testEffect(test: EngineTest, strips: TwoStrips, after: CaseView): TestEffect {
  const { body } = test;
  const of = (stood: PlaceStood | null): number | null => stood?.[body.figure] ?? null;
  const kind = strips.places.filter((p) => p.station.part === body.part).slice(0, 2 * MOST_FIGURES);
  const isChanged = new Set(body.places);
  /** Halves carry different loads, and so do mains and big ends: a place is held against its like only. */
  const like = (s: Station): string => `${s.half} ${s.carries}`;
  const liked = new Set(kind.flatMap((p) => (isChanged.has(p.station.id) ? [like(p.station)] : [])));
  const figures = (places: typeof kind, value: (p: (typeof kind)[number]) => number | null): PlaceFigure[] =>
    places.flatMap((p) => {
      const v = value(p);
      return v === null ? [] : [{ station: p.station, value: v }];
    });
  const how = isChanged.size > 0 ? 'beside' : 'before';
  const [changed, others] =
    how === 'beside'
      ? [
          figures(
            kind.filter((p) => isChanged.has(p.station.id)),
            (p) => of(p.after),
          ),
          figures(
            kind.filter((p) => !isChanged.has(p.station.id) && liked.has(like(p.station))),
            (p) => of(p.after),
          ),
        ]
      : [
          figures(kind, (p) => {
            const [was, is] = [of(p.before), of(p.after)];
            return was === null || is === null ? null : is - was;
          }),
          [],
        ];
  const values = (all: readonly PlaceFigure[]): number[] => all.slice(0, MOST_FIGURES).map((f) => f.value);
  const [a, b] = [values(changed), values(others)];
  const shift = how === 'beside' ? groupShift(a, b) : pairedShift(a);
  const chance = shift === null ? null : how === 'beside' ? dividedByChance(a, b) : signedByChance(a);
  const came = cameOf(body, shift);
  return {
    how,
    changed,
    others,
    shift,
    chance,
    came,
    words: wordsOf(body, how, a, b, shift, chance, came),
    mind: mindOf(test, how, changed, after),
  };
}

function cameOf({ expected, by }: EngineTest['body'], shift: GroupShift | null): TestEffect['came'] {
  if (!shift || shift.level < SHOWS) return 'cannot be told';
  if (expected === 'same') {
    if (by === null) return shift.low > 0 || shift.high < 0 ? 'against what was expected' : 'not shown';
    if (shift.low > -by && shift.high < by) return 'as expected';
    return shift.low > by || shift.high < -by ? 'against what was expected' : 'not shown';
  }
  const [least, most] = expected === 'less' ? [-shift.high, -shift.low] : [shift.low, shift.high];
  return least > 0 ? 'as expected' : most < 0 ? 'against what was expected' : 'not shown';
}

function wordsOf(
  body: EngineTest['body'],
  how: TestEffect['how'],
  a: readonly number[],
  b: readonly number[],
  shift: GroupShift | null,
  chance: ByChance | null,
  came: TestEffect['came'],
): string {
  const unit = TEST_UNIT[body.figure];
  const figure = (x: number): string => (Math.abs(x) < 0.05 ? '0' : x.toFixed(1)).replace('-', '−');
  if (!shift || !chance)
    return how === 'beside'
      ? `Nothing can be said: ${a.length} changed places and ${b.length} others like them have this figure.`
      : 'Nothing can be said: no place has this figure in both strips.';
  const size =
    how === 'beside'
      ? `${figure(mean([...a]))} at the ${a.length} changed places, ${figure(mean([...b]))} at ${b.length} others like them (${unit}). The shift is ${figure(shift.shift)}`
      : `From the strip before to this one ${a.length} places changed by ${figure(mean([...a]))} ${unit} on average. The shift is ${figure(shift.shift)}`;
  const between = `, between ${figure(shift.low)} and ${figure(shift.high)} at ${Math.round(100 * shift.level)} %`;
  const ways = `chance alone gives as much in ${chance.exact ? `${chance.asMuch} of ${chance.of}` : `about ${Math.max(1, Math.round((100 * chance.asMuch) / chance.of))} of 100`} ways to ${how === 'beside' ? 'divide these places' : 'turn these changes round'}`;
  const verdict = {
    'as expected': 'As expected.',
    'against what was expected': 'Against what was expected.',
    'not shown': 'Not shown either way: the interval holds both.',
    'cannot be told': `So few places cannot tell: even the widest interval holds no more than ${Math.round(100 * shift.level)} %.`,
  }[came];
  return `${size}${between}; ${ways}. ${verdict}`;
}

/** What else may have made the difference. */
function mindOf(test: EngineTest, how: TestEffect['how'], changed: readonly PlaceFigure[], after: CaseView): string[] {
  const mind: string[] = [];
  if (how === 'before')
    mind.push('Everything else that changed between the two strips is in this figure too: hours, oil, load, other new parts.');
  else {
    const unseen = test.body.places.filter((id) => !changed.some((f) => f.station.id === id)).length;
    if (unseen > 0)
      mind.push(
        `${unseen} changed ${unseen === 1 ? 'place was' : 'places were'} not looked at in this strip, or ${unseen === 1 ? 'has' : 'have'} no figure: what is missing is seldom missing by chance.`,
      );
  }
  const began = firstLook(after);
  if (began !== null && test.time !== '' && test.time > began)
    mind.push(`What was expected was written down on ${test.time.slice(0, 10)}, after the second strip had begun: it counts for less.`);
  return mind;
}

/** When the first place of a case was looked at, ISO 8601; null: none was. */
function firstLook(view: CaseView): string | null {
  const times = view.stations.flatMap((s) =>
    [...s.photos, ...s.reads, ...s.marks, ...(s.grade ? [s.grade] : [])].map((x) => x.version.time),
  );
  return times.filter(Boolean).sort()[0] ?? null;
}
