import Papa from 'papaparse';
import { gradeText } from '../damage/classes.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';

const csv = (fields: string[], data: unknown[][]): string => Papa.unparse({ fields, data }, { newline: '\n', escapeFormulae: true }) + '\n';

/** Every station of a case with its state, grade, patterns and shares. */
export function findingsCsv(view: CaseView): string {
  const pct = (v: number | undefined): number | string => (v === undefined ? '' : Number(v.toFixed(2)));
  return csv(
    [
      'station',
      'name',
      'state',
      'grade',
      'grade_word',
      'confirmed',
      'patterns',
      'absent',
      'lining_percent',
      'heat_percent',
      'rust_percent',
      'embedded_percent',
      'lines_felt',
      'seen_percent',
      'remarks',
    ],
    view.stations.map((s) => {
      const grade = standingGrade(s);
      const w = isExamined(s) ? s.summary : null;
      return [
        s.station.id,
        s.station.name,
        s.state,
        grade ?? '',
        grade === null ? '' : gradeText(grade),
        s.grade ? 'yes' : 'no',
        s.patterns
          .filter((p) => p.value.present)
          .map((p) => p.value.pattern)
          .join(' '),
        s.patterns
          .filter((p) => !p.value.present)
          .map((p) => p.value.pattern)
          .join(' '),
        pct(w?.percent.lining),
        pct(w?.percent.heat),
        pct(w?.percent.rust),
        pct(w?.percent.embedded),
        w ? w.lines.probe + w.lines.nail + w.lines.through : '',
        pct(w?.seenPercent),
        s.remarks.map((r) => r.value.text).join(' / '),
      ];
    }),
  );
}
