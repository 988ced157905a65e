import { formatCounter } from './words.js';
import { linesOf, standingLines, type EngineRecord, type LineOf, type LogLine } from './lines.js';
import { readSamples, type OtherOil, type ReadSample } from './samples.js';
import { species } from './species.js';
import { consumptions, levelSpans, pressureTrend, TOLD_FOR, type Consumption, type LevelSpan, type PressureTrend } from './trends.js';
import { individualsChart } from '../statistics/controlChart.js';

/** Something the log says, in a sentence. */
export interface LogFinding {
  readonly id: string;
  /** `now`: do something before it runs on; `watch`: look again soon; `note`: good to know. */
  readonly weight: 'now' | 'watch' | 'note';
  readonly words: string;
  /** Line it is read from. */
  readonly line: string | null;
  /** What it says of a feature of the table of causes, when the engine is stripped. */
  readonly feature?: { readonly id: string; readonly present: boolean; readonly trend: boolean };
}

/** A line that cannot be right beside the others. */
interface LineDoubt {
  readonly line: string;
  readonly words: string;
}

/** A log as it is read. */
export interface LogReading {
  readonly lines: readonly LogLine[];
  readonly levels: readonly LevelSpan[];
  readonly consumption: readonly Consumption[];
  readonly pressures: readonly PressureTrend[];
  readonly samples: readonly ReadSample[];
  readonly doubts: readonly LineDoubt[];
  readonly findings: readonly LogFinding[];
}

/** Spans that must have been before a consumption is held against them. */
const SPANS = 4;
/** A consumption strays by a tenth at least. */
const CONSUMPTION_SPREAD = 0.1;
/** Results that make a trend. */
const TREND = 3;

/** Reads a log: its trends, what they say, and what in it cannot be right. `others`: the oil of the shop's other engines, to tell swapped samples. */
export function readLog(engine: EngineRecord, all: readonly LogLine[], others: readonly OtherOil[] = []): LogReading {
  const lines = standingLines(all);
  const levels = levelSpans(engine, lines);
  const consumption = consumptions(engine, lines);
  const pressures = (['hot-idle', 'hot-rated'] as const).map((state) => pressureTrend(lines, state));
  const samples = readSamples(engine, lines, others);
  return {
    lines,
    levels,
    consumption,
    pressures,
    samples,
    doubts: lineDoubts(engine, lines, others),
    findings: [
      ...levelFindings(engine, lines, levels, consumption),
      ...linesOf(lines, 'filter-cut').slice(-1).flatMap(filterFinding),
      ...pressures.flatMap(pressureFindings),
      ...sampleFindings(samples),
    ],
  };
}

/** Counters that run back, references used twice, results without a sample. */
function lineDoubts(engine: EngineRecord, lines: readonly LogLine[], others: readonly OtherOil[]): LineDoubt[] {
  const doubts: LineDoubt[] = [];
  let highest: LogLine | null = null;
  for (const l of lines) {
    if (l.counter === null) continue;
    if (highest && l.counter < highest.counter!)
      doubts.push({
        line: l.id,
        words: `The counter runs back: ${formatCounter(l.counter, engine.counter)} on ${l.day}, after ${formatCounter(highest.counter!, engine.counter)} on ${highest.day}. One of the two is mistyped, or the counter was changed.`,
      });
    else highest = l;
  }
  const seen = new Map<string, string>();
  for (const s of linesOf(lines, 'sample')) {
    if (seen.has(s.body.reference))
      doubts.push({
        line: s.id,
        words: `The reference ${s.body.reference} was given to a sample of ${seen.get(s.body.reference)} already.`,
      });
    seen.set(s.body.reference, s.day);
  }
  for (const r of linesOf(lines, 'result'))
    if (!seen.has(r.body.reference)) {
      const whose = others.find((o) => o.references.includes(r.body.reference));
      const words = `A result came for ${r.body.reference}, and no sample of this engine has that reference`;
      doubts.push({
        line: r.id,
        words: whose ? `${words}: it is a sample of ${whose.mark}. Take it back here and write it there.` : `${words}.`,
      });
    }
  return doubts;
}

function levelFindings(
  engine: EngineRecord,
  lines: readonly LogLine[],
  spans: readonly LevelSpan[],
  consumption: readonly Consumption[],
): LogFinding[] {
  const found: LogFinding[] = [];
  const sticks = new Set(spans.map((s) => s.stick));
  if (sticks.size > 1)
    found.push({
      id: 'two-sticks',
      weight: 'note',
      words: `Levels were read on ${sticks.size} sticks (${[...sticks].map((s) => s || 'without a name').join(', ')}); what one shows is not held against the other.`,
      line: null,
    });
  const last = linesOf(lines, 'level').at(-1);
  if (!last) return found;
  const span = spans.find((s) => s.points.at(-1)!.line.id === last.id);
  if (span?.risen) {
    const { litres, since } = span.risen;
    const from = span.points.find((p) => p.line.id === since.id)!;
    const time = span.points.at(-1)!.at - from.at;
    const rate = time > 0 ? `, ${rateWords(litres / time, engine, span.unit)}` : '';
    const maybe =
      last.body.look === 'milky' || last.body.look === 'grey'
        ? 'Its look says water or coolant'
        : last.body.look === 'thin' || last.body.look === 'fuel-smell'
          ? 'Its look says fuel'
          : engine.cooling === 'liquid'
            ? 'It is coolant or fuel until it is shown to be neither: look, smell, look at the coolant, and have a sample tested'
            : 'It is fuel until it is shown to be something else: smell it, and have a sample tested';
    found.push({
      id: 'level-rising',
      weight: 'now',
      words: `The level is rising: ${litres.toFixed(1)} l more than on ${since.day}, with what was topped up taken off${rate}. ${maybe}. It should not run on like that.`,
      line: last.id,
      feature: { id: 'fluid.level-high', present: true, trend: span.points.length >= TREND },
    });
  }
  if (last.body.share < 0)
    found.push({
      id: 'level-low',
      weight: 'now',
      words: `The level stood under the lower mark on ${last.day}.`,
      line: last.id,
      feature: { id: 'fluid.level-low', present: true, trend: true },
    });
  const looks: Partial<Record<string, string>> = {
    milky: 'Milky oil holds water: find out whose before it runs.',
    'fuel-smell': 'Oil that smells of fuel is thin under load: find out why before it runs long.',
    glitter: 'Glitter in the oil is metal: cut the filter open.',
  };
  const look = last.body.look ? looks[last.body.look] : undefined;
  if (look && !(span?.risen && last.body.look !== 'glitter')) found.push({ id: 'look', weight: 'now', words: look, line: last.id });
  const current = consumption.at(-1);
  const before = consumption.slice(0, -1).map((c) => c.rate);
  const chart =
    before.length >= SPANS
      ? individualsChart(before, CONSUMPTION_SPREAD * Math.abs(before.reduce((a, b) => a + b, 0) / before.length))
      : null;
  if (current && chart && current.rate > chart.upper)
    found.push({
      id: 'consumption',
      weight: 'watch',
      words: `It uses more oil than it did: ${current.rate.toFixed(2)} l in ${formatCounter(TOLD_FOR[engine.counter], engine.counter)}, against ${chart.centre.toFixed(2)} as a rule and ${chart.upper.toFixed(2)} at most by chance.`,
      line: last.id,
    });
  return found;
}

const rateWords = (perUnit: number, engine: EngineRecord, unit: LevelSpan['unit']): string =>
  unit === 'day'
    ? `${(perUnit * 7).toFixed(2)} l a week`
    : `${(perUnit * TOLD_FOR[engine.counter]).toFixed(2)} l in ${formatCounter(TOLD_FOR[engine.counter], engine.counter)}`;

function filterFinding(cut: LineOf<'filter-cut'>): LogFinding[] {
  const told: Partial<Record<LineOf<'filter-cut'>['body']['found'], { words: string; weight: LogFinding['weight']; feature: string }>> = {
    'bearing-metal': { words: 'bearing metal', weight: 'now', feature: 'debris.copper' },
    aluminium: { words: 'aluminium', weight: 'now', feature: 'debris.aluminium' },
    iron: { words: 'iron', weight: 'watch', feature: 'debris.steel' },
    much: { words: 'much metal', weight: 'now', feature: 'debris.copper' },
  };
  const found = told[cut.body.found];
  if (!found) return [];
  return [
    {
      id: 'filter',
      weight: found.weight,
      words: `The filter cut open on ${cut.day} held ${found.words}.`,
      line: cut.id,
      ...(cut.body.found === 'much' ? {} : { feature: { id: found.feature, present: true, trend: true } }),
    },
  ];
}

const STATE_WORDS = { 'hot-idle': 'at hot idle', 'hot-rated': 'hot, at rated speed' } as const;

function pressureFindings({ state, points, change, chart, low, slope }: PressureTrend): LogFinding[] {
  const found: LogFinding[] = [];
  const last = points.at(-1);
  if (!last) return found;
  if (low && chart)
    found.push({
      id: `pressure-${state}`,
      weight: 'now',
      words: `Pressure ${STATE_WORDS[state]} is down: ${last.body.bar.toFixed(1)} bar on ${last.day}, against ${chart.centre.toFixed(1)} in the ${points.length - 1} readings before.`,
      line: last.id,
      feature: { id: 'told.pressure-low-hot', present: true, trend: true },
    });
  if (change) {
    const first = points[change.after]!;
    const mean = (part: typeof points): number => part.reduce((sum, p) => sum + p.body.bar, 0) / part.length;
    const [was, is] = [mean(points.slice(0, change.after)), mean(points.slice(change.after))];
    found.push({
      id: `pressure-change-${state}`,
      weight: is < was ? 'watch' : 'note',
      words: `Pressure ${STATE_WORDS[state]} changed by ${first.day}: ${was.toFixed(1)} bar before, ${is.toFixed(1)} since (chance ${change.p < 0.001 ? 'under 0.001' : change.p.toFixed(3)}).`,
      line: first.id,
    });
  } else if (slope && slope.upper < 0 && !low)
    found.push({
      id: `pressure-slope-${state}`,
      weight: 'watch',
      words: `Pressure ${STATE_WORDS[state]} goes down year by year.`,
      line: last.id,
    });

  return found;
}

function sampleFindings(samples: readonly ReadSample[]): LogFinding[] {
  const found: LogFinding[] = [];
  for (const s of samples)
    if (s.result && !s.counts)
      found.push({
        id: `held-${s.result.id}`,
        weight: 'now',
        words: `The result for ${s.line.body.reference} is held back. ${s.doubts.map((d) => d.words).join(' ')}`,
        line: s.result.id,
      });
  const counted = samples.filter((s) => s.counts);
  const last = counted.at(-1);
  if (!last) return found;
  const trend = counted.length >= TREND;
  const line = last.result!.id;
  const put = (id: string, present: boolean): LogFinding['feature'] => ({ id, present, trend });
  const features: Partial<Record<string, string>> = {
    dirt: 'measured.silicon-high',
    coolant: 'measured.glycol',
    iron: 'measured.iron-high',
    rings: 'measured.iron-high',
    fuel: 'fluid.fuel-smell',
  };
  for (const source of last.sources) {
    const figures = last.verdicts
      .filter((v) => source.from.includes(v.species))
      .map(
        (v) =>
          `${species(v.species)!.name} ${figureWords(v.value)} (${v.from === 'own history' ? 'its own limit' : 'limit of its kind'} ${figureWords(v.limit)})`,
      );
    const feature = features[source.id];
    found.push({
      id: `source-${source.id}`,
      weight: source.id === 'sealant' ? 'watch' : 'now',
      words: `The sample of ${last.line.day} points to ${source.name}: ${figures.join(', ')}.${trend ? '' : ' It is one of few: draw another before much is built on it.'}`,
      line,
      ...(feature ? { feature: put(feature, true)! } : {}),
    });
  }
  const watched = last.verdicts.filter((v) => v.word !== 'within' && !last.sources.some((s) => s.from.includes(v.species)));
  if (watched.length > 0)
    found.push({
      id: 'watched',
      weight: 'watch',
      words: `In the sample of ${last.line.day} ${watched.map((v) => species(v.species)!.name).join(', ')} ${watched.length === 1 ? 'lies' : 'lie'} above what is usual.`,
      line,
    });
  if (last.verdicts.length > 0 && last.verdicts.every((v) => v.word === 'within')) {
    const clean = counted.slice(-TREND).filter((s) => s.verdicts.every((v) => v.word === 'within')).length;
    found.push({
      id: 'clean',
      weight: 'note',
      words:
        clean < TREND
          ? `The sample of ${last.line.day} is clean. One clean sample cannot clear the bearings: large flakes stay in filter and pan, and fresh oil tells nothing.`
          : `The last ${clean} samples are clean. They speak for even wear, and still not for a bearing that lets go in large flakes.`,
      line,
      feature: put('measured.sample-clean', true)!,
    });
  }
  for (const [id, feature] of [
    ['Si', 'measured.silicon-high'],
    ['Na', 'measured.glycol'],
    ['Fe', 'measured.iron-high'],
  ] as const)
    if (last.verdicts.find((v) => v.species === id)?.word === 'within')
      found.push({
        id: `within-${id}`,
        weight: 'note',
        words: `${species(id)!.name[0]!.toUpperCase()}${species(id)!.name.slice(1)} was within its limit in the sample of ${last.line.day}.`,
        line,
        feature: put(feature, false)!,
      });
  return found;
}

const figureWords = (value: number): string => (value >= 10 ? value.toFixed(0) : value >= 1 ? value.toFixed(1) : value.toFixed(2));
