import type { LogLinesRequest } from '@true-ledger/contract';
import {
  healthyOil,
  readResultsCsv,
  simulatedReport,
  type EngineRecord,
  type LineBodies,
  type LineKind,
  type TrueOil,
} from '@true-ledger/core/engineLog';
import { seeded } from '@true-ledger/core/specimen';
import { createHash } from 'node:crypto';

export interface DemoEngine {
  readonly id: string;
  readonly record: EngineRecord;
  readonly lines: LogLinesRequest['lines'];
  /** Demo cases that are strips of it. */
  readonly cases: readonly string[];
}

/** The same id for the same name at every start. */
function idOf(name: string): string {
  const hex = createHash('sha256').update(`true-ledger demo ${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

const dayOf = (from: string, days: number): string =>
  new Date(Date.parse(`${from}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

class LogScript {
  readonly lines: Array<LogLinesRequest['lines'][number]> = [];
  private samples = 0;

  constructor(readonly record: EngineRecord) {}

  add<K extends LineKind>(kind: K, day: string, counter: number | null, body: LineBodies[K]): this {
    this.lines.push({
      id: idOf(`${this.record.mark} ${this.lines.length}`),
      kind,
      day,
      counter: counter === null ? null : Math.round(counter),
      supersedes: null,
      body,
    });
    return this;
  }

  level(day: string, counter: number, share: number, look: LineBodies['level']['look'] = 'dark', note = ''): this {
    return this.add('level', day, counter, { share: Math.round(share * 20) / 20, look, stick: '', note });
  }

  /** A sample and, unless it is still away, what came back. `whose`: what was really in the bottle that was reported. */
  sample(day: string, counter: number, inOil: number, oil: TrueOil | null, reportedAfter = 9): this {
    this.samples++;
    const reference = `${this.record.mark}-${String(this.samples).padStart(3, '0')}`;
    this.add('sample', day, counter, { reference, drawn: 'mid-stream', laboratory: 'Stand-in laboratory' });
    if (!oil) return this;
    const reported = dayOf(day, reportedAfter);
    const read = readResultsCsv(simulatedReport(this.record, { reference, reported, inOil }, oil, 'none', this.samples / 97));
    if (!read.ok) throw new Error(read.problem.sentence);
    return this.add('result', reported, null, { ...read.value[0]!, insisted: false, simulated: true });
  }
}

const DIESEL = { counter: 'h', fuel: 'diesel', cooling: 'liquid', changeEvery: 250 } as const;

/** Five years of a ferry's engine: even for long, then its rings go and it drinks oil. */
function ferryStarboard(): DemoEngine {
  const script = new LogScript({ ...DIESEL, mark: 'E-03', name: 'Ferry, starboard, four cylinders', sumpL: 14, marksL: 3 });
  const random = seeded(31);
  const stray = (by: number): number => (random() - 0.5) * 2 * by;
  const healthy = healthyOil(script.record);
  const from = '2021-11-15';
  const oil = 'Harbour 15W-40';
  script.add('owner', from, 8000, { reference: 'Ferry “Marsh Harrier”' });
  script.add('test', '2022-03-18', 8400, {
    name: 'Coated big ends',
    changed: 'coating',
    what: 'Shells of big ends 1 and 2 with a printed layer, 3 and 4 plain as before, same clearance.',
    part: 'shell',
    places: ['rod.1.shell.upper', 'rod.1.shell.lower', 'rod.2.shell.upper', 'rod.2.shell.lower'],
    figure: 'damage',
    expected: 'less',
    by: null,
  });

  for (let k = 0; k < 24; k++) {
    const start = 8000 + 250 * k;
    const day = dayOf(from, Math.round(75.5 * k));
    // From the second strip on all was well for a year; then wear of rings and bores sets in.
    const worn = Math.max(0, (start - 12_600) / 1400);
    script.add('oil-change', day, start, { litres: 14, oil, filter: true });
    script.level(day, start, 1, 'clear');
    const perHour = 0.006 + 0.09 * worn ** 2;
    let share = 1;
    let topped = 0;
    for (const part of [0.35, 0.7, 0.97]) {
      share -= (perHour * 250 * (part === 0.35 ? 0.35 : part === 0.7 ? 0.35 : 0.27)) / 3;
      const at = dayOf(day, Math.round(75 * part));
      const hours = start + 250 * part;
      if (share < 0.25) {
        const litres = Math.max(1, Math.round((1 - share) * 3));
        script.level(at, hours, share).add('top-up', at, hours, { litres, oil });
        share += litres / 3;
        topped += litres;
      }
      script.level(at, hours, share + stray(0.03));
    }
    if (k % 2 === 1) {
      const wear = { ...healthy.wear, Fe: healthy.wear['Fe']! * (1 + 4.5 * worn), Cr: healthy.wear['Cr']! * (1 + 6 * worn) };
      const told: TrueOil = { wear, other: { ...healthy.other, soot: healthy.other['soot']! * (1 + worn) } };
      // What was topped up thins what the oil holds of it.
      const x = Math.max(1e-6, topped / script.record.sumpL);
      script.sample(dayOf(day, 74), start + 247, (247 * (1 - Math.exp(-x))) / x, told);
    }
    if (k % 2 === 0)
      script
        .add('pressure', dayOf(day, 40), start + 130, { state: 'hot-idle', bar: Math.round(10 * (1.5 - 0.25 * worn + stray(0.06))) / 10 })
        .add('pressure', dayOf(day, 40), start + 131, { state: 'hot-rated', bar: Math.round(10 * (4.1 - 0.2 * worn + stray(0.08))) / 10 });
    if (k % 6 === 5) script.add('filter-cut', dayOf(day, 75), start + 249, { found: worn > 0.5 ? 'few-flakes' : 'clean', note: '' });
  }
  return { id: idOf('E-03'), record: script.record, lines: script.lines, cases: ['2022-D01', '2024-D01', '2026-D09'] };
}

/** A pilot cutter whose oil rises: said at once, and its sample is still away. */
function pilotCutter(): DemoEngine {
  const script = new LogScript({
    ...DIESEL,
    mark: 'E-07',
    name: 'Pilot cutter, six cylinders',
    fuel: 'petrol',
    sumpL: 6.5,
    marksL: 1.4,
    changeEvery: 100,
  });
  script.add('oil-change', '2026-08-20', 1410, { litres: 6.5, oil: 'Quay 10W-40', filter: true });
  script.level('2026-08-20', 1410, 1, 'clear').level('2026-09-18', 1428, 0.95).level('2026-10-16', 1447, 1.05);
  script.level('2026-11-09', 1462, 1.3, 'dark').level('2026-11-19', 1468, 1.5, 'grey', 'a grey rim at the filler');
  script.sample('2026-11-19', 1468, 58, null);
  return { id: idOf('E-07'), record: script.record, lines: script.lines, cases: ['2026-D10'] };
}

/** A workboat with good oil, and a result that was not its own. */
function workboat(): DemoEngine {
  const script = new LogScript({ ...DIESEL, mark: 'E-11', name: 'Workboat, main engine', sumpL: 11, marksL: 2.5 });
  const healthy = healthyOil(script.record);
  const petrol = healthyOil({ fuel: 'petrol', counter: 'h' });
  for (let k = 0; k < 5; k++) {
    const [day, start] = [dayOf('2025-02-10', 120 * k), 3200 + 250 * k];
    script.add('oil-change', day, start, { litres: 11, oil: 'Harbour 15W-40', filter: true }).level(day, start, 1, 'clear');
    script.level(dayOf(day, 60), start + 120, 0.8).level(dayOf(day, 116), start + 240, 0.6);
    script.sample(dayOf(day, 118), start + 245, 245, k === 4 ? petrol : healthy);
  }
  return { id: idOf('E-11'), record: script.record, lines: script.lines, cases: ['2026-D02'] };
}

export const demoEngines = (): DemoEngine[] => [ferryStarboard(), pilotCutter(), workboat()];
