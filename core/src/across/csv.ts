import Papa from 'papaparse';
import { cause } from '../cause/data/causes.js';
import type { AcrossStatistics } from './statistics.js';

/** Causes and parts by kind of engine as an open table: a row a share, with its interval and the numbers of its cases. */
export function acrossCsv(statistics: AcrossStatistics, numberOf: (id: string) => string): string {
  const rows = statistics.families.flatMap((f) =>
    (['causes', 'parts'] as const).flatMap((what) =>
      f[what].map((s) => ({
        engine: f.name,
        counted: what,
        id: s.key,
        name: what === 'causes' ? (cause(s.key)?.name ?? s.key) : s.key,
        k: s.k,
        n: s.n,
        share: s.share.toFixed(4),
        low_90: s.low.toFixed(4),
        high_90: s.high.toFixed(4),
        cases: s.cases.map(numberOf).join(' '),
      })),
    ),
  );
  return Papa.unparse(rows, { escapeFormulae: true });
}
