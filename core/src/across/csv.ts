import Papa from 'papaparse';
import { cause } from '../cause/data/causes.js';
import type { AcrossStatistics, CountedCase } from './statistics.js';
import type { TwoStrips } from './twoStrips.js';

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

/** The cases themselves as an open table, a row a case, so that a shop can ask its own questions. */
export function casesCsv(cases: readonly CountedCase[]): string {
  const rows = cases.map(({ number, engine, facts: f }) => ({
    number,
    engine: engine ?? '',
    kind: f.family,
    confirmed: f.confirmed.join(' '),
    proven: f.proven?.join(' ') ?? '',
    program_first: f.program[0]?.[0] ?? '',
    program_share: f.program[0]?.[1] ?? '',
    outcome: f.outcome?.outcome ?? '',
    outcome_on: f.outcome?.on ?? '',
    outcome_by: f.outcome?.by ?? '',
    worst_grade: f.places.reduce((worst, [, , grade]) => Math.max(worst, grade), 0),
    places_of_grade_2: f.places.map(([station]) => station).join(' '),
    patterns: f.patterns.join(' '),
    cost_promised: f.cost?.[0] ?? '',
    cost_came: f.cost?.[1] ?? '',
    days_promised: f.days?.[0] ?? '',
    days_took: f.days?.[1] ?? '',
    given_back: f.givenBack ?? '',
  }));
  return Papa.unparse(rows, { escapeFormulae: true });
}

/** Two strips of one engine as an open table: a row a figure, what was seen at places first, then what was measured. */
export function stripsCsv({ places, measured }: TwoStrips): string {
  const seen = places.flatMap(({ station, before, after }) =>
    (['grade', 'damage'] as const).map((figure) => {
      const [was, is] = [before?.[figure] ?? null, after?.[figure] ?? null];
      const change = was === null || is === null ? '' : tidy(is - was);
      const unit = figure === 'damage' ? '%' : '';
      return { place: station.id, name: station.name, figure, at: '', unit, before: tidy(was), after: tidy(is), change, expanded_k2: '' };
    }),
  );
  const read = measured.map((m) => ({
    place: m.station ?? '',
    name: m.place,
    figure: m.after.name,
    at: m.after.at,
    unit: m.after.unit,
    before: tidy(m.before.value),
    after: tidy(m.after.value),
    change: tidy(m.change),
    expanded_k2: tidy(m.expanded),
  }));
  return Papa.unparse([...seen, ...read], { escapeFormulae: true });
}

const tidy = (value: number | null): string => (value === null ? '' : String(Number(value.toPrecision(6))));
