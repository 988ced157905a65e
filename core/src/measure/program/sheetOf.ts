import type { Sheet } from '../sheets/define.js';
import { SHEET_DEFINITIONS } from '../sheets/registry.js';

/** Every sheet by its id. */
export const SHEETS: Readonly<Record<string, Sheet>> = Object.fromEntries(
  SHEET_DEFINITIONS.map((s): [string, Sheet] => [s.id, s as Sheet]),
);

/** A sheet that is read at the bench. */
export type BenchSheet = Sheet & Required<Pick<Sheet, 'bench'>>;

/** The sheets a bench reads, in the order of their groups' hands. */
export const BENCH_SHEETS: readonly BenchSheet[] = Object.values(SHEETS)
  .filter((s): s is BenchSheet => s.bench !== undefined)
  .sort((a, b) => a.bench.rank - b.bench.rank);

/** How a sheet of the program stands at the bench. */
export function benchOf(kind: string): BenchSheet['bench'] {
  const bench = SHEETS[kind]?.bench;
  if (!bench) throw new Error(`No sheet of the bench is called ${kind}.`);
  return bench;
}
