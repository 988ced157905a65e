import { lineDraftSchema, type EngineRecord, type LineBodies, type LineKind, type LogLine, type TakenLog } from '../engineLog/lines.js';
import { readLog, type LogReading } from '../engineLog/readLog.js';
import { readResultsCsv } from '../engineLog/resultsCsv.js';
import { healthyOil, simulatedReport, type LaboratoryFault, type TrueOil } from '../engineLog/standInLaboratory.js';

export const ENGINE: EngineRecord = {
  mark: 'E-7',
  name: 'Launch, four cylinders',
  counter: 'h',
  fuel: 'diesel',
  cooling: 'liquid',
  sumpL: 9,
  marksL: 2,
  changeEvery: 250,
};

/** A log made line by line. */
export class Log {
  readonly lines: LogLine[] = [];
  constructor(readonly engine: EngineRecord = ENGINE) {}

  add<K extends LineKind>(kind: K, day: string, counter: number | null, body: LineBodies[K], supersedes: string | null = null): this {
    const draft = { id: `l${this.lines.length + 1}`, kind, day, counter, supersedes, body };
    const { error } = lineDraftSchema.validate(draft);
    if (error) throw error;
    this.lines.push({ ...draft, by: 'Mara', time: `${day}T08:00:00Z` } as LogLine);
    return this;
  }

  level(day: string, counter: number, share: number, look: LineBodies['level']['look'] = 'dark', stick = ''): this {
    return this.add('level', day, counter, { share, look, stick, note: '' });
  }

  change(day: string, counter: number, oil = 'Harbour 15W-40'): this {
    return this.add('oil-change', day, counter, { litres: 9, oil, filter: true });
  }

  /** A sample and what the stand-in finds in it. */
  sample(
    n: number,
    day: string,
    counter: number,
    inOil: number,
    oil: TrueOil = healthyOil(this.engine),
    fault: LaboratoryFault = 'none',
  ): this {
    const reference = `S-${1000 + n}`;
    this.add('sample', day, counter, { reference, drawn: 'mid-stream', laboratory: 'Stand-in' });
    const read = readResultsCsv(simulatedReport(this.engine, { reference, reported: day, inOil }, oil, fault, n));
    if (!read.ok) throw new Error(read.problem.sentence);
    return this.add('result', day, null, { ...read.value[0]!, insisted: false });
  }

  /** So many oil changes of 250 h, each with a sample before it. */
  years(n: number): this {
    for (let i = 0; i < n; i++) {
      const day = (k: number): string => `20${20 + Math.floor(i / 2)}-${i % 2 === 0 ? '0' : '1'}${k}-01`;
      this.change(day(1 - (i % 2)), 250 * i);
      this.sample(i, day(2), 250 * i + 245, 245);
    }
    return this;
  }

  read(others: Parameters<typeof readLog>[2] = []): LogReading {
    return readLog(this.engine, this.lines, others);
  }

  finding(id: string): string | undefined {
    return this.read().findings.find((f) => f.id === id)?.words;
  }

  taken(): TakenLog {
    return { engine: this.engine, lines: this.lines };
  }
}
