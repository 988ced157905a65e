import { measuredPlaces, placeReadings, specOfPlace } from '../../measured/caseMeasure.js';
import type { Cell } from '../../measure/sheets/cells.js';
import type { PlaceOutcome } from '../../measure/program/outcome.js';
import { cellText } from '../../measure/program/readCell.js';
import { lineText } from '../../measure/sheets/line.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** Readings of a sheet as a table: rows and columns where the cells make one, else name and figure. */
export function readingTable(m: PlaceOutcome): ReportBlock {
  const cells = m.place.cells.filter((c) => m.values.has(c.key));
  const text = (c: Cell): string => cellText(c, m.values.get(c.key)!);
  const rows = [...new Set(cells.map((c) => c.row))];
  if (rows.length < 2 && rows[0] === '')
    return { kind: 'table', head: ['Place', 'Reading'], rows: cells.map((c) => [c.name, text(c)]), figures: [1] };
  const columns = [...new Set(cells.map((c) => c.column))];
  return {
    kind: 'table',
    head: ['', ...columns],
    rows: rows.map((row) => [
      row,
      ...columns.map((column) => {
        const c = cells.find((x) => x.row === row && x.column === column);
        return c ? text(c) : '';
      }),
    ]),
    figures: columns.map((_, k) => k + 1),
  };
}

/** Says which readings were sent by a gauge stand-in; null where none was. */
export function standInWords(readings: ReadonlyArray<{ readonly simulated?: boolean | undefined }>, what: string): string | null {
  const simulated = readings.filter((r) => r.simulated).length;
  if (simulated === 0) return null;
  const how = simulated === readings.length ? 'All' : `${simulated} of ${readings.length}`;
  return `${how} ${what} come from a gauge stand-in: they were not taken on the part.`;
}

/** Every sheet in full: readings, results with their reasons, gauges and limits. None where nothing was measured. */
export function appendix(view: CaseView): ReportSection[] {
  const blocks: ReportBlock[] = [];
  for (const m of measuredPlaces(view)) {
    blocks.push({ kind: 'text', text: m.place.name, strong: true });
    blocks.push(readingTable(m));
    if (m.outcome && m.outcome.lines.length > 0)
      blocks.push({
        kind: 'table',
        head: ['Result', 'Value ± U (k = 2)', 'Where', 'Verdict', 'Reason'],
        rows: m.outcome.lines.map((l) => [
          l.name,
          lineText(l),
          l.at,
          l.verdict ? `${l.verdict.word} (${l.verdict.reference})` : '–',
          l.verdict?.reason ?? '',
        ]),
        figures: [1],
      });
    for (const says of m.outcome?.says ?? []) blocks.push({ kind: 'text', text: says });
    const missing = [...m.waiting, ...(m.outcome?.missing ?? [])];
    if (missing.length > 0)
      blocks.push({
        kind: 'text',
        key: `sheets.${m.place.station ?? 'engine'}.${m.place.sheet}`,
        text: `Not read: ${missing.join('; ')}.`,
      });
    const readings = placeReadings(view, m.place).map((r) => r.value);
    const simulated = standInWords(readings, 'readings of this place');
    if (simulated) blocks.push({ kind: 'text', text: simulated });
    const gauges = [...new Map(readings.map((r) => [r.gauge.id, r.gauge])).values()];
    const spec = specOfPlace(view, m.place);
    const typed = readings.filter((r) => !['mm', 'N', 'bar', '°', '°C', 's', 'kPa'].includes(r.unit));
    blocks.push({
      kind: 'text',
      text: [
        `Gauges: ${gauges.map((g) => `${g.name}, resolution ${g.resolutionMm} mm, U ${g.expandedUncertaintyMm} mm`).join('; ')}.`,
        spec ? `Limits: ${spec.source || 'source not stated'}.` : 'No specification was entered: only rules of thumb are held against it.',
        ...(typed.length > 0 ? [`Typed in other units: ${typed.map((r) => r.text).join(', ')}.`] : []),
        ...m.questions,
      ].join(' '),
    });
  }
  return blocks.length > 0 ? [{ id: 'appendix', heading: 'Appendix: measuring sheets', blocks }] : [];
}
