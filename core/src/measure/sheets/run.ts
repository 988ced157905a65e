import Joi from 'joi';
import { engineTemplate } from '../../engine/templates.js';
import { compressionResult, turningResult } from '../../opening/results.js';
import { fail, ok, type Problem, type Result } from '../../result.js';
import { fastenerResult } from '../../strip/fasteners.js';
import { parseQuantity, type Quantity } from '../../units/quantity.js';
import { checkDoubt, type Gauge, type LimitBand } from '../gauge.js';
import { AXES, barrelText, doubtReading, journalSheet, PLANES, type JournalReading } from '../journal.js';
import { crushedStripLines, housingLines, shellClearanceLines, shellFitLines, travelLines } from './bearing.js';
import { boreLines, nextOversize, pistonLines, ringLines } from './cylinder.js';
import { at20, judge, lengthOf, takeRepeats, type Material, type Reference, type SheetLine, type SheetOutcome } from './line.js';
import { camLines, crankRunout, flatness, ratioAfterCut, rodLines } from './shape.js';

/** What `true-ledger measure` reads (`docs/formats/measure.md`). */
export interface SheetFile {
  readonly sheet: string;
  /** Day of the readings, `YYYY-MM-DD`; with it, gauges whose check was overdue are told. */
  readonly takenOn?: string;
  readonly readings: unknown;
  readonly spec?: Readonly<Record<string, unknown>>;
  /** Gauge records by role; `default` stands for every role without its own. */
  readonly gauges?: Readonly<Record<string, Partial<Gauge>>>;
}

const ROLE: Gauge = {
  id: 'default',
  name: 'not named',
  kind: 'other',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};
const figure = Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.valid(null));
const temperature = { temperatureC: Joi.number().min(-30).max(120), material: Joi.string().valid('steel', 'grey-iron', 'aluminium') };
const list = (fields: Record<string, Joi.Schema>, min = 1): Joi.ArraySchema =>
  Joi.array().items(Joi.object(fields)).min(min).max(2000).required();

/** Reads figures as typed; the first that cannot be one ends the sheet with its place. */
class Reader {
  problem: Problem | null = null;

  length(raw: unknown, field: string): number | null {
    const read = lengthOf(raw, field);
    if (read.ok) return read.value;
    this.problem ??= read.problem;
    return null;
  }

  /** A size of a part: more than nothing. */
  size(raw: unknown, field: string): number | null {
    const value = this.length(raw, field);
    if (value === null || value > 0) return value;
    this.problem ??= { code: 'reading-impossible', sentence: `${value} mm cannot be the size of a part. Nothing was computed.`, field };
    return null;
  }

  need(raw: unknown, field: string): number {
    const value = this.length(raw, field);
    if (value === null) this.problem ??= { code: 'reading-missing', sentence: `"${field}" is needed and was not read.`, field };
    return value ?? 0;
  }

  quantity(raw: unknown, quantity: Quantity, field: string): number | null {
    if (raw === null || raw === undefined || raw === '-') return null;
    if (typeof raw === 'number') return raw;
    const read = parseQuantity(String(raw), quantity);
    if (read.ok) return read.value.value;
    this.problem ??= { ...read.problem, field };
    return null;
  }
}

interface Run {
  readonly lines: readonly SheetLine[];
  readonly says?: readonly string[];
  readonly missing?: readonly string[];
  readonly questions?: readonly string[];
  readonly thumbs?: Readonly<Record<string, LimitBand>>;
  /** Limits that follow from the sizes of the specification. */
  readonly references?: Readonly<Record<string, Reference>>;
}

interface SheetKind {
  readonly name: string;
  readonly schema: Joi.Schema;
  readonly run: (r: never, read: Reader, gauge: (role: string) => Gauge, spec: Readonly<Record<string, unknown>>) => Run;
}

type Raw = number | string | null | undefined;

function kind<T>(
  name: string,
  schema: Joi.Schema,
  run: (r: T, read: Reader, gauge: (role: string) => Gauge, spec: Readonly<Record<string, unknown>>) => Run,
): SheetKind {
  return { name, schema, run: run as unknown as SheetKind['run'] };
}

const steps = (raw: unknown): number[] => (Array.isArray(raw) ? raw.filter((x): x is number => typeof x === 'number' && x > 0) : []);
const size = (spec: Readonly<Record<string, unknown>>, key: string): number | undefined =>
  typeof spec[key] === 'number' ? (spec[key] as number) : undefined;

/** Each reading against the others and the middle of the specification: slips of the decimal point and strangers. */
function questionsOf(
  readings: ReadonlyArray<{ readonly mm: number; readonly place: string }>,
  spec: Readonly<Record<string, unknown>>,
): string[] {
  const min = size(spec, 'minMm');
  const max = size(spec, 'maxMm');
  const expected = min !== undefined && max !== undefined ? (min + max) / 2 : undefined;
  return readings.flatMap((r, i) => {
    const doubt = doubtReading(
      r.mm,
      readings.filter((_, j) => j !== i).map((o) => o.mm),
      expected,
    );
    return doubt ? [`${r.place}: ${doubt.reason}`] : [];
  });
}

/** Limits of a journal from the sizes its specification gives. */
function journalReferences(spec: Readonly<Record<string, unknown>>): Record<string, Reference> {
  const source = typeof spec['source'] === 'string' ? spec['source'] : 'specification';
  const out: Record<string, Reference> = {};
  const put = (id: string, key: string, side: 'lower' | 'upper'): void => {
    const mm = size(spec, key);
    if (mm !== undefined) out[id] = { [side]: mm, source };
  };
  put('least', 'minMm', 'lower');
  put('greatest', 'maxMm', 'upper');
  put('outOfRound', 'outOfRoundMaxMm', 'upper');
  put('taper', 'taperMaxMm', 'upper');
  return out;
}

/** Every sheet of the bench by its id. */
export const SHEETS: Readonly<Record<string, SheetKind>> = {
  journal: kind<ReadonlyArray<{ plane: 'front'; axis: 'A'; value: Raw }>>(
    'Journal or crankpin',
    list({
      plane: Joi.string()
        .valid(...PLANES)
        .required(),
      axis: Joi.string()
        .valid(...AXES)
        .required(),
      value: figure.required(),
    }),
    (r, read, gauge, spec) => {
      const list: JournalReading[] = r.flatMap((x, i) => {
        const mm = read.size(x.value, `readings.${i}.value`);
        return mm === null ? [] : [{ plane: x.plane, axis: x.axis, mm }];
      });
      const min = size(spec, 'minMm');
      const max = size(spec, 'maxMm');
      const known =
        min !== undefined && max !== undefined
          ? {
              minMm: min,
              maxMm: max,
              undersizesMm: steps(spec['undersizesMm']).length > 0 ? steps(spec['undersizesMm']) : [0.25, 0.5, 0.75, 1],
              source: String(spec['source'] ?? ''),
            }
          : null;
      const taken = takeRepeats(list, (x) => `${x.plane} ${x.axis}`, gauge('micrometer'));
      const s = journalSheet(taken.readings, taken.gauge, known, size(spec, 'deepestMarkMm') ?? 0);
      const line = (id: string, name: string, v: typeof s.max): SheetLine[] =>
        v
          ? [
              {
                id,
                name,
                value: v.value,
                unit: 'mm',
                expanded: v.expanded,
                at: v.at,
                ...(id === 'taper' || id.startsWith('barrel') ? { signed: true } : {}),
              },
            ]
          : [];
      return {
        lines: [
          ...line('greatest', 'Largest', s.max),
          ...line('least', 'Least', s.min),
          ...line('outOfRound', 'Out-of-round', s.outOfRound),
          ...line('taper', 'Taper', s.taper),
          ...s.barrel.flatMap((b) => line(`barrel.${b.axis}`, `Barrel or hourglass, ${b.axis}`, b)),
          ...line('wear', 'Wear', s.wear),
        ],
        says: [...(s.barrel.length > 0 ? [`${s.barrel.map((b) => barrelText(b)).join('; ')}.`] : []), ...(s.size ? [s.size.reason] : [])],
        missing: [
          ...(s.outOfRound ? [] : ['a second axis, so no out-of-round']),
          ...(s.taper ? [] : ['front and rear, so no taper']),
          ...(s.barrel.length > 0 ? [] : ['the middle plane, so no barrel or hourglass']),
        ],
        questions: questionsOf(
          list.map((x) => ({ mm: x.mm, place: `${x.plane}, axis ${x.axis}` })),
          spec,
        ),
        references: journalReferences(spec),
      };
    },
  ),
  bore: kind<{
    at: ReadonlyArray<{ depthMm: number; axis: string; value: Raw }>;
    unworn?: Raw;
    temperatureC?: number;
    material?: Material;
  }>(
    'Bore',
    Joi.object({
      at: list({ depthMm: Joi.number().min(0).max(3000).required(), axis: Joi.string().max(20).required(), value: figure.required() }),
      unworn: figure,
      ...temperature,
    }),
    (r, read, gauge, spec) => {
      const warm = (mm: number): number => (r.temperatureC === undefined ? mm : at20(mm, r.temperatureC, r.material ?? 'grey-iron'));
      const at = r.at.flatMap((x, i) => {
        const mm = read.size(x.value, `readings.at.${i}.value`);
        return mm === null ? [] : [{ depthMm: x.depthMm, axis: x.axis, mm: warm(mm) }];
      });
      const unworn = read.length(r.unworn, 'readings.unworn');
      const taken = takeRepeats(at, (x) => `${x.depthMm} ${x.axis}`, gauge('bore'));
      const { lines, missing } = boreLines(taken.readings, unworn === null ? null : warm(unworn), taken.gauge);
      const min = size(spec, 'minMm');
      const max = size(spec, 'maxMm');
      const greatest = lines.find((l) => l.id === 'greatest');
      const over =
        min !== undefined && max !== undefined && greatest
          ? [
              nextOversize(
                greatest.value,
                { min, max },
                steps(spec['oversizesMm']).length > 0 ? steps(spec['oversizesMm']) : [0.25, 0.5, 0.75, 1],
                size(spec, 'deepestMarkMm') ?? 0,
              ).words,
            ]
          : [];
      const questions = questionsOf(
        at.map((x) => ({ mm: x.mm, place: `${x.depthMm} mm, axis ${x.axis}` })),
        spec,
      );
      return { lines, missing, says: over, questions };
    },
  ),
  piston: kind<{ piston: Raw; bore?: Raw; new?: Raw; temperatureC?: number; boreMaterial?: Material }>(
    'Piston',
    Joi.object({
      piston: figure.required(),
      bore: figure,
      new: figure,
      temperatureC: Joi.number().min(-30).max(120),
      boreMaterial: temperature.material,
    }),
    (r, read, gauge) => {
      const warm = (mm: number | null, m: Material): number | null =>
        mm === null || r.temperatureC === undefined ? mm : at20(mm, r.temperatureC, m);
      const piston = warm(read.need(r.piston, 'readings.piston'), 'aluminium') ?? 0;
      const bore = warm(read.length(r.bore, 'readings.bore'), r.boreMaterial ?? 'grey-iron');
      const shift = r.temperatureC === undefined ? 0 : piston * (23e-6 - 10.5e-6) * Math.abs(r.temperatureC - 20);
      return {
        lines: pistonLines(piston, bore, read.length(r.new, 'readings.new'), gauge('micrometer'), gauge('bore')),
        missing: bore === null ? ['the bore at that height, so no clearance'] : [],
        says:
          shift > 0.005 ? [`At ${r.temperatureC} °C the clearance reads ${shift.toFixed(3)} mm off what it is at 20 °C; corrected.`] : [],
      };
    },
  ),
  ring: kind<Record<'gapUnworn' | 'gapWorn' | 'groove' | 'ring' | 'grooveDepth' | 'ringDepth', Raw> & { boreMm?: number }>(
    'Ring',
    Joi.object({
      gapUnworn: figure,
      gapWorn: figure,
      groove: figure,
      ring: figure,
      grooveDepth: figure,
      ringDepth: figure,
      boreMm: Joi.number().positive(),
    }),
    (r, read, gauge) => ({
      lines: ringLines(
        {
          gapUnwornMm: read.length(r.gapUnworn, 'readings.gapUnworn'),
          gapWornMm: read.length(r.gapWorn, 'readings.gapWorn'),
          grooveMm: read.length(r.groove, 'readings.groove'),
          ringMm: read.length(r.ring, 'readings.ring'),
          grooveDepthMm: read.length(r.grooveDepth, 'readings.grooveDepth'),
          ringDepthMm: read.length(r.ringDepth, 'readings.ringDepth'),
        },
        gauge('feeler'),
      ),
      thumbs: { ...(r.boreMm ? { gap: { lower: 0.003 * r.boreMm, upper: 0.01 * r.boreMm } } : {}), side: { lower: 0.02, upper: 0.15 } },
    }),
  ),
  'shell-clearance': kind<{
    housing: { vertical: Raw; left?: Raw; right?: Raw };
    upper: Raw;
    lower: Raw;
    upperSide?: Raw;
    lowerSide?: Raw;
    journal: Raw;
    newWall?: Raw;
  }>(
    'Shell clearance by gauges',
    Joi.object({
      housing: Joi.object({ vertical: figure.required(), left: figure, right: figure }).required(),
      upper: figure.required(),
      lower: figure.required(),
      upperSide: figure,
      lowerSide: figure,
      journal: figure.required(),
      newWall: figure,
    }),
    (r, read, gauge) =>
      shellClearanceLines(
        {
          housingMm: {
            vertical: read.need(r.housing.vertical, 'readings.housing.vertical'),
            left: read.length(r.housing.left, 'readings.housing.left'),
            right: read.length(r.housing.right, 'readings.housing.right'),
          },
          upperMm: read.need(r.upper, 'readings.upper'),
          lowerMm: read.need(r.lower, 'readings.lower'),
          upperSideMm: read.length(r.upperSide, 'readings.upperSide'),
          lowerSideMm: read.length(r.lowerSide, 'readings.lowerSide'),
          journalMm: read.need(r.journal, 'readings.journal'),
          newWallMm: read.length(r.newWall, 'readings.newWall'),
        },
        gauge('bore'),
        gauge('wall'),
        gauge('micrometer'),
      ),
  ),
  'shell-fit': kind<{ protrusion?: Raw; freeSpread?: Raw; housing?: Raw }>(
    'Shell fit',
    Joi.object({ protrusion: figure, freeSpread: figure, housing: figure }).min(1),
    (r, read, gauge) => ({
      lines: shellFitLines(
        {
          protrusionMm: read.length(r.protrusion, 'readings.protrusion'),
          freeSpreadMm: read.length(r.freeSpread, 'readings.freeSpread'),
          housingMm: read.length(r.housing, 'readings.housing'),
        },
        gauge('caliper'),
      ),
      thumbs: { crush: { lower: 0.02 }, spread: { lower: 0.1 } },
      says: ['Crush holds a shell; the tab only places it.'],
    }),
  ),
  'crushed-strip': kind<{ thread: Raw; widths: ReadonlyArray<{ at: string; value: Raw }> }>(
    'Shell clearance by crushed strip',
    Joi.object({ thread: figure.required(), widths: list({ at: Joi.string().max(30).required(), value: figure.required() }).unique('at') }),
    (r, read, gauge) => {
      const widths = r.widths.flatMap((w, i) => {
        const widthMm = read.length(w.value, `readings.widths.${i}.value`);
        if (widthMm !== null && widthMm <= 0)
          read.problem ??= { code: 'reading', sentence: 'A flattened width is more than nothing.', field: `readings.widths.${i}.value` };
        return widthMm === null ? [] : [{ at: w.at, widthMm }];
      });
      return { lines: crushedStripLines(read.need(r.thread, 'readings.thread'), widths, gauge('scale')) };
    },
  ),
  'end-float': kind<{ towards: Raw; away: Raw }>(
    'Crank end float',
    Joi.object({ towards: figure.required(), away: figure.required() }),
    (r, read, gauge) => ({
      lines: travelLines(
        'endFloat',
        'End float',
        read.need(r.towards, 'readings.towards'),
        read.need(r.away, 'readings.away'),
        gauge('indicator'),
      ),
      thumbs: { endFloat: { upper: 0.3 } },
    }),
  ),
  'side-clearance': kind<{ towards: Raw; away: Raw }>(
    'Rod side clearance',
    Joi.object({ towards: figure.required(), away: figure.required() }),
    (r, read, gauge) => ({
      lines: travelLines(
        'sideClearance',
        'Side clearance',
        read.need(r.towards, 'readings.towards'),
        read.need(r.away, 'readings.away'),
        gauge('indicator'),
      ),
      thumbs: { sideClearance: { lower: 0.1, upper: 0.5 } },
    }),
  ),
  housing: kind<ReadonlyArray<{ direction: string; value: Raw }>>(
    'Housing bore',
    list({ direction: Joi.string().max(30).required(), value: figure.required() }, 2),
    (r, read, gauge) => {
      const directions = r.flatMap((d, i) => {
        const mm = read.size(d.value, `readings.${i}.value`);
        return mm === null ? [] : [{ direction: d.direction, mm }];
      });
      const taken = takeRepeats(directions, (d) => d.direction, gauge('bore'));
      return {
        lines: housingLines(taken.readings, taken.gauge),
        missing: new Set(directions.map((d) => d.direction)).size < 2 ? ['a second direction, so no out-of-round'] : [],
      };
    },
  ),
  rod: kind<{ bend?: Raw; twist?: Raw; overMm: number; centres?: Raw }>(
    'Rod',
    Joi.object({ bend: figure, twist: figure, overMm: Joi.number().positive().max(1000).required(), centres: figure }),
    (r, read, gauge) => ({
      lines: rodLines(
        {
          bendMm: read.length(r.bend, 'readings.bend'),
          twistMm: read.length(r.twist, 'readings.twist'),
          overMm: r.overMm,
          centresMm: read.length(r.centres, 'readings.centres'),
        },
        gauge('indicator'),
      ),
      thumbs: { bend: { lower: -0.05, upper: 0.05 }, twist: { lower: -0.08, upper: 0.08 } },
      says: ['A bent rod leaves diagonal wear on its skirt and opposite edges on its two halves.'],
    }),
  ),
  'crank-runout': kind<ReadonlyArray<{ main: number; alongMm: number; tir: Raw; highDeg: number }>>(
    'Crank runout',
    list(
      {
        main: Joi.number().integer().min(1).required(),
        alongMm: Joi.number().required(),
        tir: figure.required(),
        highDeg: Joi.number().min(-360).max(360).required(),
      },
      3,
    )
      .unique('main')
      .unique('alongMm'),
    (r, read, gauge) => {
      const result = crankRunout(
        r.map((x, i) => ({ main: x.main, alongMm: x.alongMm, tirMm: read.need(x.tir, `readings.${i}.tir`), highDeg: x.highDeg })),
        gauge('indicator'),
      );
      return { ...result, thumbs: { runout: { upper: 0.05 } } };
    },
  ),
  flatness: kind<{
    points: ReadonlyArray<{ xMm: number; yMm: number; value: Raw }>;
    cut?: { boreMm: number; strokeMm: number; compressionRatio: number; cutMm: number };
  }>(
    'Deck or head flatness',
    Joi.object({
      points: list({ xMm: Joi.number().required(), yMm: Joi.number().required(), value: figure.required() }, 4),
      cut: Joi.object({
        boreMm: Joi.number().positive().required(),
        strokeMm: Joi.number().positive().required(),
        compressionRatio: Joi.number().min(2).max(40).required(),
        cutMm: Joi.number().min(0).max(20).required(),
      }),
    }),
    (r, read, gauge) => {
      const points = r.points.flatMap((p, i) => {
        const heightMm = read.length(p.value, `readings.points.${i}.value`);
        return heightMm === null ? [] : [{ xMm: p.xMm, yMm: p.yMm, heightMm }];
      });
      const flat = flatness(points, gauge('indicator'));
      if (!flat)
        read.problem ??= {
          code: 'flatness-points',
          sentence: 'Four points at least, not all on one line, are needed for a plane.',
          field: 'readings.points',
        };
      const after = r.cut ? ratioAfterCut(r.cut.compressionRatio, r.cut.boreMm, r.cut.strokeMm, r.cut.cutMm) : null;
      return {
        lines: flat?.lines ?? [],
        says: r.cut
          ? [
              after === null
                ? 'That cut takes more than the chamber holds.'
                : `A cut of ${r.cut.cutMm} mm takes the compression ratio from ${r.cut.compressionRatio} to ${after.toFixed(2)}.`,
            ]
          : [],
        thumbs: { flatness: { upper: 0.1 } },
      };
    },
  ),
  cam: kind<{ lobes: ReadonlyArray<{ lobe: string | number; kind: string; height: Raw; base: Raw }>; newLift?: Record<string, number> }>(
    'Camshaft',
    Joi.object({
      lobes: list({
        lobe: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        kind: Joi.string().max(20).required(),
        height: figure.required(),
        base: figure.required(),
      }).unique('lobe'),
      newLift: Joi.object().pattern(Joi.string(), Joi.number().positive()),
    }),
    (r, read, gauge) => {
      const lines = camLines(
        r.lobes.map((l, i) => ({
          lobe: String(l.lobe),
          kind: l.kind,
          heightMm: read.need(l.height, `readings.lobes.${i}.height`),
          baseMm: read.need(l.base, `readings.lobes.${i}.base`),
        })),
        r.newLift ?? {},
        gauge('micrometer'),
      );
      return { lines, thumbs: Object.fromEntries(lines.filter((l) => l.id.startsWith('loss.')).map((l) => [l.id, { upper: 0.15 }])) };
    },
  ),
  'oil-pump': kind<{ end?: Raw; tip?: Raw; side?: Raw; springLength?: Raw; popPressure?: Raw }>(
    'Oil pump',
    Joi.object({ end: figure, tip: figure, side: figure, springLength: figure, popPressure: figure }).min(1),
    (r, read, gauge) => {
      const u =
        2 *
        Math.hypot(
          gauge('feeler').resolutionMm / Math.sqrt(12),
          gauge('feeler').repeatabilityMm,
          gauge('feeler').expandedUncertaintyMm / 2,
        );
      const line = (id: string, name: string, raw: Raw, at: string): SheetLine[] => {
        const value = read.length(raw, `readings.${id}`);
        return value === null ? [] : [{ id, name, value, unit: 'mm', expanded: u, at }];
      };
      const pop = read.quantity(r.popPressure, 'pressure', 'readings.popPressure');
      return {
        lines: [
          ...line('end', 'End clearance', r.end, 'gears to cover'),
          ...line('tip', 'Tip clearance', r.tip, 'gear to gear'),
          ...line('side', 'Side clearance', r.side, 'gear to body'),
          ...line('springLength', 'Relief spring, free', r.springLength, 'unloaded'),
          ...(pop === null
            ? []
            : [{ id: 'popPressure', name: 'Relief opens', value: pop, unit: 'bar' as const, expanded: 0.1, at: 'on the tester' }]),
        ],
        thumbs: { end: { upper: 0.1 }, tip: { upper: 0.2 }, side: { upper: 0.2 } },
      };
    },
  ),
  compression: kind<{ template?: string; dry: readonly Raw[]; wet?: readonly Raw[] }>(
    'Compression',
    Joi.object({
      template: Joi.string().max(60),
      dry: Joi.array().items(figure).min(1).max(16).required(),
      wet: Joi.array().items(figure).max(16),
    }),
    (r, read, _gauge, spec) => {
      const base = engineTemplate(r.template ?? 'inline-4-petrol')?.layout;
      if (!base) {
        read.problem ??= { code: 'template', sentence: `"${r.template}" is not an engine template.`, field: 'readings.template' };
        return { lines: [] };
      }
      const layout = r.template ? base : { ...base, cylinders: r.dry.length, arrangement: 'inline' as const };
      const values = (raw: readonly Raw[] | undefined, what: string): Array<number | null> =>
        Array.from({ length: layout.cylinders }, (_, i) => read.quantity(raw?.[i], 'pressure', `readings.${what}.${i}`));
      const c = compressionResult(layout, values(r.dry, 'dry'), values(r.wet, 'wet'), size(spec, 'leastBar'));
      if (!c) return { lines: [], missing: ['every reading'] };
      return {
        lines: [
          { id: 'highest', name: 'Highest', value: c.highest, unit: 'bar', expanded: 0.2, at: '' },
          {
            id: 'lowest',
            name: 'Lowest',
            value: c.lowest,
            unit: 'bar',
            expanded: 0.2,
            at: c.low.length > 0 ? `cylinder ${c.low.join(', ')}` : '',
          },
          { id: 'spread', name: 'Spread', value: c.spreadPercent, unit: '%', expanded: (100 * 0.28) / c.highest, at: 'of the highest' },
        ],
        says: [`${c.words[0]?.toUpperCase()}${c.words.slice(1)}.`],
        thumbs: { spread: { upper: 15 } },
      };
    },
  ),
  'oil-pressure': kind<Record<string, Raw>>(
    'Oil pressure',
    Joi.object()
      .pattern(Joi.string().valid('coldIdle', 'coldRated', 'hotIdle', 'hotRated'), figure)
      .min(1),
    (r, read) => ({
      lines: Object.entries(r).flatMap(([id, raw]): SheetLine[] => {
        const value = read.quantity(raw, 'pressure', `readings.${id}`);
        return value === null
          ? []
          : [{ id, name: id.replace(/([A-Z])/, ', $1').toLowerCase(), value, unit: 'bar', expanded: 0.1, at: 'own gauge in the gallery' }];
      }),
      thumbs: { hotIdle: { lower: 0.7 } },
    }),
  ),
  fasteners: kind<ReadonlyArray<{ position: string | number; pair: string | number; value: Raw }>>(
    'Break-loose torque',
    list(
      {
        position: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        pair: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        value: figure.required(),
      },
      2,
    ).unique('position'),
    (r, read) => {
      const torques = r.flatMap((t, i) => {
        const newtonMetre = read.quantity(t.value, 'torque', `readings.${i}.value`);
        return newtonMetre === null ? [] : [{ position: String(t.position), newtonMetre }];
      });
      const pattern = {
        id: 'file',
        name: '',
        widthMm: 0,
        heightMm: 0,
        easing: [],
        positions: r.map((t) => ({ id: String(t.position), pair: String(t.pair), x: 0, y: 0 })),
      };
      const f = fastenerResult(pattern, torques);
      if (!f) return { lines: [], missing: ['two torques at least'] };
      return {
        lines: [
          { id: 'least', name: 'Least', value: f.least, unit: 'N·m', expanded: null, at: '' },
          { id: 'greatest', name: 'Greatest', value: f.most, unit: 'N·m', expanded: null, at: '' },
          { id: 'spread', name: 'Spread', value: f.spreadPercent, unit: '%', expanded: null, at: 'of the mean' },
        ],
        says:
          f.uneven.length > 0
            ? f.uneven.map((u) => `${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart (rule of thumb: 30 %).`)
            : ['No pair is more than 30 % apart (rule of thumb).'],
      };
    },
  ),
  turning: kind<{ ahead: readonly Raw[]; back?: readonly Raw[] }>(
    'Turning torque',
    Joi.object({ ahead: Joi.array().items(figure).min(3).max(72).required(), back: Joi.array().items(figure).max(72) }),
    (r, read) => {
      const values = (raw: readonly Raw[] | undefined, what: string): Array<number | null> =>
        (raw ?? []).map((v, i) => read.quantity(v, 'torque', `readings.${what}.${i}`));
      const t = turningResult(values(r.ahead, 'ahead'), values(r.back, 'back'));
      return {
        lines: [
          ...(t && t.medianAhead !== null
            ? [{ id: 'ahead', name: 'Median ahead', value: t.medianAhead, unit: 'N·m' as const, expanded: null, at: '' }]
            : []),
          ...(t && t.medianBack !== null
            ? [{ id: 'back', name: 'Median back', value: t.medianBack, unit: 'N·m' as const, expanded: null, at: '' }]
            : []),
        ],
        says: t ? [`${t.words}.`] : [],
      };
    },
  ),
  'valve-seat': kind<{ startKpa: number; endKpa: number; seconds: number }>(
    'Valve seat by vacuum',
    Joi.object({
      startKpa: Joi.number().positive().max(101).required(),
      endKpa: Joi.number().min(0).max(101).required(),
      seconds: Joi.number().positive().max(600).required(),
    }),
    (r) => {
      const loss = ((r.startKpa - r.endKpa) / r.startKpa) * 100 * (10 / r.seconds);
      return {
        lines: [
          {
            id: 'loss',
            name: 'Vacuum lost in 10 s',
            value: loss,
            unit: '%',
            expanded: 2,
            at: `from ${r.startKpa} to ${r.endKpa} kPa in ${r.seconds} s`,
          },
        ],
        says: [`${loss < 10 ? 'Tight' : loss < 40 ? 'Weeps' : 'Leaks'} (rule of thumb: under 10 % tight, under 40 % weeps).`],
        thumbs: { loss: { upper: 10 } },
      };
    },
  ),
};

const fileSchema = Joi.object({
  $schema: Joi.string(),
  sheet: Joi.string().required(),
  takenOn: Joi.string().isoDate(),
  readings: Joi.any().required(),
  spec: Joi.object().unknown(true),
  gauges: Joi.object().pattern(
    Joi.string().max(40),
    Joi.object({
      id: Joi.string().max(80),
      name: Joi.string().max(80),
      kind: Joi.string().valid('outside-micrometer', 'bore-gauge', 'indicator', 'caliper', 'other'),
      resolutionMm: Joi.number().positive().max(1),
      expandedUncertaintyMm: Joi.number().min(0).max(1),
      repeatabilityMm: Joi.number().min(0).max(1),
      masterMm: Joi.number().positive(),
      checkedOn: Joi.string().max(20),
    }),
  ),
});

const reference = Joi.object({
  lower: Joi.number(),
  upper: Joi.number(),
  kind: Joi.string().valid('limit', 'target', 'typical'),
  source: Joi.string().max(200).allow(''),
});

/** What a specification may hold beside limits by result: sizes in mm, step lists, and where it comes from. */
const SIZE_KEYS = ['minMm', 'maxMm', 'outOfRoundMaxMm', 'taperMaxMm', 'deepestMarkMm'];
const STEP_KEYS = ['undersizesMm', 'oversizesMm'];
const OTHER_KEYS = ['source', 'leastBar'];

interface Spec {
  readonly sizes: Readonly<Record<string, unknown>>;
  readonly bands: Readonly<Record<string, Reference>>;
  readonly unused: readonly string[];
}

/** Sorts a specification into sizes and limits. A figure that cannot be one ends the sheet; a key that no sheet knows is told, not passed over. */
function readSpec(raw: Readonly<Record<string, unknown>>): Result<Spec> {
  const sizes: Record<string, unknown> = {};
  const bands: Record<string, Reference> = {};
  const unused: string[] = [];
  for (const [key, value] of Object.entries(raw)) {
    const field = `spec.${key}`;
    if (SIZE_KEYS.includes(key)) {
      const mm = lengthOf(value, field);
      if (!mm.ok) return mm;
      if (mm.value !== null) sizes[key] = mm.value;
    } else if (STEP_KEYS.includes(key)) {
      const list = Joi.array().items(Joi.number().positive()).max(40).validate(value, { convert: false });
      if (list.error) return fail('spec', `${key} is a list of steps in mm, each more than nothing. Nothing was computed.`, field);
      sizes[key] = list.value;
    } else if (OTHER_KEYS.includes(key)) sizes[key] = value;
    else if (typeof value === 'object' && value !== null && !Array.isArray(value)) {
      const band = reference.validate(value, { convert: false });
      const detail = band.error?.details[0];
      if (detail) return fail('sheet-file', `The limit "${key}" cannot be read: ${detail.message}.`, [field, ...detail.path].join('.'));
      const known = band.value as Reference;
      if (known.lower !== undefined && known.upper !== undefined && known.lower > known.upper)
        return fail('spec-upside-down', `The lower limit of "${key}" is above the upper. Nothing was computed.`, field);
      bands[key] = known;
    } else unused.push(key);
  }
  const [min, max] = [sizes['minMm'], sizes['maxMm']];
  if (typeof min === 'number' && typeof max === 'number' && min > max)
    return fail('spec-upside-down', 'The least size new is above the largest. Nothing was computed.', 'spec.minMm');
  return ok({ sizes, bands, unused });
}

/** Reads a sheet file, computes and judges. Every fault names its place; nothing is guessed. */
export function runSheet(json: unknown): Result<SheetOutcome> {
  const checked = fileSchema.validate(json, { abortEarly: true, convert: false });
  const first = (e: Joi.ValidationError, under = ''): Result<never> => {
    const detail = e.details[0];
    return fail(
      'sheet-file',
      `The sheet was not computed: ${detail?.message ?? 'it has the wrong shape'}. See docs/formats/measure.md.`,
      [under, detail?.path.join('.')].filter(Boolean).join('.'),
    );
  };
  if (checked.error) return first(checked.error);
  const file = checked.value as SheetFile;
  const sheet = SHEETS[file.sheet];
  if (!sheet)
    return fail(
      'sheet-unknown',
      `"${file.sheet.slice(0, 40)}" is not a sheet known here. Known: ${Object.keys(SHEETS).join(', ')}.`,
      'sheet',
    );
  const readings = sheet.schema.validate(file.readings, { abortEarly: true, convert: false });
  if (readings.error) return first(readings.error, 'readings');
  const spec = readSpec(file.spec ?? {});
  if (!spec.ok) return spec;
  const { sizes, bands, unused } = spec.value;
  const assumed = new Set<string>();
  const overdue = new Set<string>();
  const gauge = (role: string): Gauge => {
    if (!file.gauges?.[role] && !file.gauges?.['default']) assumed.add(role);
    const record: Gauge = { ...ROLE, id: role, ...file.gauges?.['default'], ...file.gauges?.[role] };
    const doubt = file.takenOn ? checkDoubt(record, file.takenOn) : null;
    if (doubt) overdue.add(doubt);
    return record;
  };
  const reader = new Reader();
  const run = sheet.run(readings.value as never, reader, gauge, sizes);
  if (reader.problem) return { ok: false, problem: reader.problem };
  return ok({
    sheet: file.sheet,
    lines: judge(run.lines, { ...run.references, ...bands }, run.thumbs ?? {}),
    says: run.says ?? [],
    missing: run.missing ?? [],
    questions: [
      ...(run.questions ?? []),
      ...overdue,
      ...[...unused, ...Object.keys(bands).filter((id) => !run.lines.some((l) => l.id === id))].map(
        (key) => `"${key}" of the specification was not used: this sheet has no such result or size.`,
      ),
      ...[...assumed].map(
        (role) =>
          `No gauge is recorded for "${role}": resolution ${ROLE.resolutionMm} mm, U ${ROLE.expandedUncertaintyMm} mm and repeatability ${ROLE.repeatabilityMm} mm were assumed.`,
      ),
    ],
  });
}

/** The answer as a file (`docs/formats/measure.md`). */
export function sheetJson(outcome: SheetOutcome): object {
  return { format: 'true-ledger/measure', version: 1, ...outcome };
}
