import type { CaseView } from '../case/views.js';
import { machineSheet, partsList } from './machineSheet.js';
import { pertMean } from './monteCarlo.js';
import type { Estimate, PriceBook } from '../workshop/prices.js';
import { QUEUE_DAYS, type Route } from './routes.js';
import type { Task } from './schedule.js';

const tenths = (days: number): number => Math.round(days * 10) / 10;
const UNKNOWN_LEAD: Estimate = { low: 2, likely: 5, high: 12 };

/** Tasks of a route with what each waits for: strip to the end, wash, the queue of the machine shop, machine work and parts side by side, measuring, assembly, first start. */
export function tasksOf(view: CaseView, route: Route, book: PriceBook): Task[] {
  const mean = pertMean(route.hours);
  const bench = (id: string, name: string, share: number, after: readonly string[]): Task => ({
    id,
    name,
    where: 'bench',
    hours: Math.round(mean * share * 2) / 2,
    days: 0,
    after,
    share,
  });
  const lead = (key: string): Estimate => book.lines.find((x) => x.key === key)?.leadDays ?? UNKNOWN_LEAD;
  const away = (id: string, name: string, where: Task['where'], range: Estimate, after: readonly string[]): Task => ({
    id,
    name,
    where,
    hours: 0,
    days: tenths(pertMean(range)),
    after,
    range,
  });
  if (route.id === 'run-on') return [bench('close', 'Close and refill', 0.7, []), bench('start', 'First start and watch', 0.3, ['close'])];
  if (route.dispositions.length === 0)
    return [
      away('order', route.name, 'parts', lead(route.id), []),
      bench('prepare', 'Prepare what is carried over', 0.4, []),
      bench('fit', 'Fit', 0.5, ['order', 'prepare']),
      bench('start', 'Prime, first start, re-torque', 0.1, ['fit']),
    ];
  const machine = machineSheet(view, route.dispositions);
  const parts = partsList(view.layout, route.dispositions);
  return [
    bench('strip', 'Strip to the end', 0.15, []),
    bench('wash', 'Wash, galleries with plugs out', 0.2, ['strip']),
    ...(machine.length > 0 ? [away('queue', 'Machine shop: waiting for its turn', 'machine shop', QUEUE_DAYS, ['wash'])] : []),
    ...machine.map((m, i) => away(`machine-${i}`, `${m.part}: ${m.operation.toLowerCase()}`, 'machine shop', lead(m.work), ['queue'])),
    ...parts.map((p) => away(`part-${p.key}`, `${p.part}${p.quantity > 1 ? ` × ${p.quantity}` : ''}`, 'parts', lead(p.key), [])),
    bench('measure', 'Measure every fit', 0.15, ['wash', ...machine.map((_, i) => `machine-${i}`), ...parts.map((p) => `part-${p.key}`)]),
    bench('assemble', 'Assemble', 0.4, ['measure']),
    bench('start', 'Prime, first start, re-torque', 0.1, ['assemble']),
  ];
}
