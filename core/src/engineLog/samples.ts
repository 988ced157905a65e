import { median } from 'simple-statistics';
import { individualsChart, signalsAt, type ChartSignal } from '../statistics/controlChart.js';
import { linesOf, type EngineRecord, type LineOf, type LogLine } from './lines.js';
import { species, SPECIES } from './species.js';
import { dayNumber, TOLD_FOR } from './trends.js';

/** A result with the sample it belongs to and what the oil had been through. */
export interface Sample {
  readonly line: LineOf<'sample'>;
  readonly result: LineOf<'result'> | null;
  /** Service the oil had seen, in the counter of the engine; null where a counter or a change of oil is missing. */
  readonly inOil: number | null;
  /** Topped up since that change, litres. */
  readonly topUpL: number;
  readonly oil: string | null;
}

/** Samples in their order, each with the last result that came for its reference. */
export function samplesOf(lines: readonly LogLine[]): Sample[] {
  const results = linesOf(lines, 'result');
  return linesOf(lines, 'sample').map((line) => {
    const before = lines.slice(0, lines.indexOf(line));
    const change = linesOf(before, 'oil-change').at(-1);
    const since = change ? before.slice(before.indexOf(change)) : before;
    return {
      line,
      result: results.filter((r) => r.body.reference === line.body.reference).at(-1) ?? null,
      inOil: change && line.counter !== null && change.counter !== null ? line.counter - change.counter : null,
      topUpL: linesOf(since, 'top-up').reduce((sum, t) => sum + t.body.litres, 0),
      oil: change?.body.oil ?? null,
    };
  });
}

/**
 * Wear metal given off in 100 h or 1000 km, mg to the kg of oil, made good for what was topped up meanwhile: with a share x of the filling made up evenly, the concentration c follows dc/dt = r − x c / t, so
 * r = c / t · x / (1 − e⁻ˣ) (mass balance; fresh oil brings none). Null where the service in the oil is not known, or is too short to divide by.
 */
export function wearRate(engine: EngineRecord, { inOil, topUpL }: Pick<Sample, 'inOil' | 'topUpL'>, concentration: number): number | null {
  const told = TOLD_FOR[engine.counter];
  if (inOil === null || inOil < told / 10) return null;
  const x = topUpL / engine.sumpL;
  return (concentration / (inOil / told)) * (x < 1e-9 ? 1 : x / (1 - Math.exp(-x)));
}

/** How a figure of a result stands. `from`: whose limit it is. */
interface Verdict {
  readonly species: string;
  /** As it is judged: mg/kg in 100 h or 1000 km for wear metals, else as the laboratory gave it. */
  readonly value: number;
  readonly perService: boolean;
  readonly word: 'within' | 'watch' | 'beyond';
  readonly watch: number;
  readonly limit: number;
  readonly from: 'own history' | 'its kind';
  readonly signals: readonly ChartSignal[];
}

/** Limits of engines in general, beyond which a result is beyond; `watch` at 60 % of it. Wear metals in 100 h. Judgement, from what such oils commonly hold; an engine's own history counts before it. */
const KIND_LIMITS: Readonly<Record<string, number>> = {
  Fe: 25,
  Cu: 10,
  Pb: 8,
  Sn: 4,
  Al: 8,
  Cr: 4,
  Ni: 3,
  Ag: 2,
  Si: 25,
  Na: 40,
  K: 15,
  water: 0.2,
  fuel: 3,
  soot: 2.5,
};
/** Of a kind's limit. */
const WATCHED = 0.6;
/** Hours that 1000 km take, to bring limits to an engine that counts km. Judgement: 50 km/h. */
const HOURS_OF_1000_KM = 20;
/** Earlier results of its own an engine must have before its own limits count. */
const OWN = 5;
/** What laboratory and drawing stray by at least, as the logarithm of a figure: an eighth. */
const LEAST_SPREAD = 0.12;
/** Less than this tells nothing, mg/kg: laboratories stray by it. */
const TRACE = 1;

const isRate = (id: string): boolean => species(id)!.group === 'wear';

/** Verdicts on the figures of a sample, against what its engine showed in the results before it that count, else against its kind. */
function verdictsOf(engine: EngineRecord, sample: Sample, earlier: readonly ReadSample[]): Verdict[] {
  const valueOf = (s: Sample, id: string): number | null => {
    const figure = s.result?.body.figures[id];
    if (figure === undefined) return null;
    return isRate(id) ? wearRate(engine, s, figure) : figure;
  };
  return SPECIES.flatMap(({ id }): Verdict[] => {
    const general = KIND_LIMITS[id];
    const value = valueOf(sample, id);
    if (general === undefined || value === null) return [];
    const perService = isRate(id);
    const kind = general * (perService && engine.counter === 'km' ? HOURS_OF_1000_KM / 100 : 1);
    // What was beyond once is no part of what is usual: else limits would rise with the wear they are to show.
    const usual = earlier.filter((s) => s.verdicts.find((v) => v.species === id)?.word !== 'beyond');
    const before = usual.flatMap((s) => valueOf(s, id) ?? []);
    const least = perService ? TRACE * 0.4 : id.length > 2 ? general * 0.05 : TRACE;
    const log = (v: number): number => Math.log(Math.max(least, v));
    const chart = before.length >= OWN ? individualsChart(before.map(log), LEAST_SPREAD) : null;
    // What an engine always gave off is no reason to go on so: twice the limit of its kind is beyond for any.
    const limit = chart ? Math.min(Math.exp(chart.upper), 2 * kind) : kind;
    const watch = chart ? Math.min(Math.exp(chart.centre + 2 * chart.sigma), limit) : WATCHED * kind;
    const trace = (sample.result!.body.figures[id] ?? 0) <= (perService ? 3 * TRACE : least);
    const signals = chart ? signalsAt([...before, value].map(log), chart).filter((s) => s.side === 'above') : [];
    const word = trace ? 'within' : value > limit ? 'beyond' : value > watch || signals.length > 0 ? 'watch' : 'within';
    return [{ species: id, value, perService, word, watch, limit, from: chart ? 'own history' : 'its kind', signals }];
  });
}

/** Where metals that rise together come from. */
interface OilSource {
  readonly id: 'shells' | 'piston' | 'rings' | 'coolant' | 'dirt' | 'sealant' | 'copper-alone' | 'iron' | 'fuel' | 'water';
  readonly name: string;
  readonly from: readonly string[];
}

/** Element pairs read as sources: one alone has many, two together few. What one pair explains is not told once more by itself. */
function sourcesOf(verdicts: readonly Verdict[]): OilSource[] {
  const up = new Set(verdicts.filter((v) => v.word !== 'within').map((v) => v.species));
  const beyond = new Set(verdicts.filter((v) => v.word === 'beyond').map((v) => v.species));
  const both = (...ids: string[]): boolean => ids.every((e) => up.has(e)) && ids.some((e) => beyond.has(e));
  const found: OilSource[] = [];
  const shells = ['Cu', 'Pb', 'Sn'].filter((e) => up.has(e));
  if (shells.length >= 2 && shells.some((e) => beyond.has(e))) found.push({ id: 'shells', name: 'bearing shells', from: shells });
  if (both('Na', 'K')) found.push({ id: 'coolant', name: 'coolant', from: ['Na', 'K'] });
  const dirt = both('Si', 'Al');
  if (dirt) found.push({ id: 'dirt', name: 'dirt drawn in with the air', from: ['Si', 'Al'] });
  if (both('Cr', 'Fe')) found.push({ id: 'rings', name: 'rings and bores', from: ['Cr', 'Fe'] });
  if (!dirt && beyond.has('Al')) found.push({ id: 'piston', name: 'pistons', from: ['Al'] });
  const told = new Set(found.flatMap((f) => f.from));
  if (beyond.has('Si') && !told.has('Si') && !up.has('Fe')) found.push({ id: 'sealant', name: 'sealant, by itself', from: ['Si'] });
  if (beyond.has('Cu') && !told.has('Cu')) found.push({ id: 'copper-alone', name: 'an oil cooler or a bush, by itself', from: ['Cu'] });
  if (beyond.has('Fe') && !told.has('Fe')) found.push({ id: 'iron', name: 'bores, shafts or gears', from: ['Fe'] });
  if (beyond.has('fuel')) found.push({ id: 'fuel', name: 'fuel in the oil', from: ['fuel'] });
  if (beyond.has('water') && !told.has('Na')) found.push({ id: 'water', name: 'water, by itself', from: ['water'] });
  return found;
}

/** What an oil is known by, whatever wore in it. */
const FINGERPRINT = ['Ca', 'Mg', 'Zn', 'P', 'Mo', 'B', 'visc100'] as const;

/** Medians of what an oil is known by, over results that count; null under two of them. */
export type OilProfile = Readonly<Partial<Record<(typeof FINGERPRINT)[number], number>>>;

export function profileOf(results: ReadonlyArray<LineOf<'result'>>): OilProfile | null {
  if (results.length < 2) return null;
  return Object.fromEntries(
    FINGERPRINT.flatMap((id) => {
      const values = results.flatMap((r) => r.body.figures[id] ?? []);
      return values.length < 2 ? [] : [[id, median(values)]];
    }),
  );
}

/** Root mean square of the logarithms by which a result differs from a profile; null where fewer than three figures can be held together. */
function apart(result: LineOf<'result'>, profile: OilProfile): number | null {
  const squares = FINGERPRINT.flatMap((id) => {
    const [own, known] = [result.body.figures[id], profile[id]];
    // Below 20 mg/kg an additive is none: it came along with the rest.
    return own === undefined || known === undefined || (id !== 'visc100' && Math.max(own, known) < 20)
      ? []
      : [Math.log(Math.max(own, 1) / Math.max(known, 1)) ** 2];
  });
  return squares.length < 3 ? null : Math.sqrt(squares.reduce((a, b) => a + b, 0) / squares.length);
}

/** Two results of one oil differ by less (root mean square of logarithms): laboratories repeat additives within a tenth, and they deplete by a fifth. */
const SAME_OIL = 0.35;
/** A figure nobody touched strays by less, as its logarithm. */
const UNTOUCHED = 0.22;
/** Times what it was, or as small a share of it: about ten. */
const SLIPPED = { least: 6, most: 16 } as const;

/** Why a result is held back until somebody has looked at it. */
export interface ResultDoubt {
  readonly kind: 'before-sample' | 'twice' | 'impossible' | 'slipped' | 'other-units' | 'another-engine' | 'another-oil';
  readonly words: string;
  /** What would put it right. */
  readonly offer?: { readonly figures: Readonly<Record<string, number>> } | { readonly engine: string };
}

/** Another engine's oil, to tell whose sample a result is. */
export interface OtherOil {
  readonly mark: string;
  /** What its oil is known by; null while too few results tell. */
  readonly profile: OilProfile | null;
  /** References of its samples for which a result stands in the log that is read. */
  readonly references: readonly string[];
}

/** What speaks against the result of a sample. `lines`: the whole log, standing; `counted`: its earlier results that count. */
function resultDoubts(
  { line: sample, oil }: Sample,
  result: LineOf<'result'>,
  lines: readonly LogLine[],
  counted: readonly Sample[],
  others: readonly OtherOil[],
): ResultDoubt[] {
  const { body } = result;
  const doubts: ResultDoubt[] = [];
  if (dayNumber(body.reported) < dayNumber(sample.day))
    doubts.push({ kind: 'before-sample', words: `It was reported on ${body.reported}, before the sample was drawn on ${sample.day}.` });
  const same = linesOf(lines, 'result').filter((r) => r.body.reference === body.reference && r.id !== result.id);
  if (same.length > 0) doubts.push({ kind: 'twice', words: `Another result for ${body.reference} is in the log already.` });
  for (const [id, value] of Object.entries(body.figures)) {
    const s = species(id);
    if (s && value > s.most)
      doubts.push({
        kind: 'impossible',
        words: `${s.name} ${value} ${Object.keys(s.units)[0]} is more than used oil holds: another unit, or a slip.`,
      });
  }
  // An oil is known by what was filled in; metals by what the engine always gave off.
  const ofOil = counted.filter((s) => s.oil === oil);
  const known = (id: string): number | null => {
    const values = (isPut(id) ? ofOil : counted).flatMap((s) => s.result?.body.figures[id] ?? []);
    return values.length < 3 ? null : median(values);
  };
  const times = Object.entries(body.figures).flatMap(([id, value]) => {
    const before = known(id);
    return before === null || before <= TRACE || value === 0 ? [] : [{ id, factor: value / before }];
  });
  const slipped = times.filter(({ factor }) => isSlip(factor) || isSlip(1 / factor));
  const mended = (all: typeof times): ResultDoubt['offer'] => ({
    figures: Object.fromEntries(all.map(({ id, factor }) => [id, Number((body.figures[id]! * (factor > 1 ? 0.1 : 10)).toPrecision(6))])),
  });
  const elements = times.filter(({ id }) => 'mg/kg' in species(id)!.units && species(id)!.units['mg/kg'] === 1);
  const off = slipped.filter((t) => elements.includes(t));
  if (elements.length >= 4 && off.length >= 0.8 * elements.length) {
    doubts.push({
      kind: 'other-units',
      words: 'Nearly every element is ten times what this engine shows, or a tenth: it was reported in other units.',
      offer: mended(off),
    });
    return doubts;
  }
  // Metals do rise tenfold, but seldom one of them by just ten while the others stay; what is put into an oil does not.
  const alone = times.filter(({ factor }) => factor > 2 || factor < 0.5).length === 1;
  const slips = slipped.filter(({ id, factor }) => isTenfold(factor < 1 ? 1 / factor : factor) && (isPut(id) || alone));
  const own = profileOf(ofOil.flatMap((s) => s.result ?? []));
  // A slip leaves every other figure as it was; another oil leaves hardly one.
  const untouched = FINGERPRINT.flatMap((id) => (slips.some((t) => t.id === id) ? [] : (times.find((t) => t.id === id)?.factor ?? [])));
  const isSameElse = untouched.every((factor) => Math.abs(Math.log(factor)) < UNTOUCHED);
  if (slips.length <= 2 && isSameElse)
    for (const t of slips)
      doubts.push({
        kind: 'slipped',
        words: `${species(t.id)!.name} is ${t.factor > 1 ? 'about ten times' : 'about a tenth of'} what it was in the results before: a slipped decimal point?`,
        offer: mended([t]),
      });
  const whole = own && apart(result, own);
  if (whole !== null && whole > SAME_OIL && doubts.length === 0) {
    const nearer = others
      .flatMap((o) => {
        const d = o.profile && apart(result, o.profile);
        return d === null || d > whole / 2 ? [] : [{ mark: o.mark, d }];
      })
      .sort((x, y) => x.d - y.d)[0];
    doubts.push(
      nearer
        ? {
            kind: 'another-engine',
            words: `What was put into this oil is not what this log shows, and is what ${nearer.mark} has in it: the references were swapped?`,
            offer: { engine: nearer.mark },
          }
        : {
            kind: 'another-oil',
            words:
              'What was put into this oil is not what the results before show, and no other oil was filled in: another engine’s sample?',
          },
    );
  }
  return doubts;
}

/** Put into the oil by its maker, and so the same from result to result. */
const isPut = (id: string): boolean => species(id)!.group === 'additive' || species(id)!.group === 'property';

/** Tenfold but for what laboratories stray by: another oil may hold a dozen times as much of one additive. */
const isTenfold = (factor: number): boolean => factor > 8 && factor < 12.4;
const isSlip = (factor: number): boolean => factor >= SLIPPED.least && factor <= SLIPPED.most;

/** A sample as it is read: what speaks against its result, and, where nothing does or somebody insisted, its verdicts and sources. */
export interface ReadSample extends Sample {
  readonly doubts: readonly ResultDoubt[];
  readonly counts: boolean;
  readonly verdicts: readonly Verdict[];
  readonly sources: readonly OilSource[];
}

/** Reads the samples of a log in their order; each is judged by those before it alone. */
export function readSamples(engine: EngineRecord, lines: readonly LogLine[], others: readonly OtherOil[]): ReadSample[] {
  const read: ReadSample[] = [];
  for (const sample of samplesOf(lines)) {
    const counted = read.filter((s) => s.counts);
    const doubts = sample.result ? resultDoubts(sample, sample.result, lines, counted, others) : [];
    const counts = sample.result !== null && (doubts.length === 0 || sample.result.body.insisted);
    const verdicts = counts ? verdictsOf(engine, sample, counted) : [];
    read.push({ ...sample, doubts, counts, verdicts, sources: sourcesOf(verdicts) });
  }
  return read;
}
