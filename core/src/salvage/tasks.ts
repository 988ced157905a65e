import type { MachineLine, PartLine } from './machineSheet.js';
import type { Route } from './routes.js';
import type { PriceBook } from './prices.js';
import { pertMean } from './monteCarlo.js';
import type { Task } from './schedule.js';

/** Tasks of a route with what each waits for: client's word, then strip to the end, wash, machine work and parts side by side, measuring, assembly, first start. */
export function tasksOf(route: Route, machine: readonly MachineLine[], parts: readonly PartLine[], book: PriceBook): Task[] {
  const mean = pertMean(route.hours);
  const bench = (id: string, name: string, share: number, after: readonly string[]): Task => ({
    id,
    name,
    where: 'bench',
    hours: Math.round(mean * share * 2) / 2,
    days: 0,
    after,
  });
  const lead = (key: string): number => {
    const l = book.lines.find((x) => x.key === key);
    return l ? pertMean(l.leadDays) : 0;
  };
  const whole = route.id === 'short-engine' || route.id === 'used-engine' || route.id === 'new-engine';
  if (route.id === 'run-on') return [bench('close', 'Close and refill', 0.7, []), bench('start', 'First start and watch', 0.3, ['close'])];
  if (whole)
    return [
      { id: 'order', name: route.name, where: 'parts', hours: 0, days: lead(route.id), after: [] },
      bench('prepare', 'Prepare what is carried over', 0.4, []),
      bench('fit', 'Fit', 0.5, ['order', 'prepare']),
      bench('start', 'Prime, first start, re-torque', 0.1, ['fit']),
    ];
  const days = (words: string): number => {
    const key = Object.entries(WORK_KEYS).find(([name]) => words.startsWith(name))?.[1];
    return key ? lead(key) : 5;
  };
  return [
    bench('strip', 'Strip to the end', 0.15, []),
    bench('wash', 'Wash, galleries with plugs out', 0.2, ['strip']),
    ...machine.map((m, i): Task => ({
      id: `machine-${i}`,
      name: `${m.part}: ${m.operation.toLowerCase()}`,
      where: 'machine shop',
      hours: 0,
      days: Math.round(days(m.operation) * 10) / 10,
      after: ['wash'],
    })),
    ...parts.map((p): Task => ({
      id: `part-${p.key}`,
      name: `${p.part}${p.quantity > 1 ? ` × ${p.quantity}` : ''}`,
      where: 'parts',
      hours: 0,
      days: Math.round(lead(p.key) * 10) / 10,
      after: [],
    })),
    bench('measure', 'Measure every fit', 0.15, ['wash', ...machine.map((_, i) => `machine-${i}`), ...parts.map((p) => `part-${p.key}`)]),
    bench('assemble', 'Assemble', 0.4, ['measure']),
    bench('start', 'Prime, first start, re-torque', 0.1, ['assemble']),
  ];
}

const WORK_KEYS: Readonly<Record<string, string>> = {
  Grind: 'grind',
  Polish: 'polish',
  Rebore: 'rebore',
  Hone: 'hone',
  Resize: 'resize',
  Sleeve: 'sleeve',
  Weld: 'weld',
  'Line-bore': 'line-bore',
  Face: 'face',
  'Send for test': 'test',
};
