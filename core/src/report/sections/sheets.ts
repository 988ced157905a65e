import { measuredPlaces, placeReadings, specOfPlace } from '../../measured/caseMeasure.js';
import type { Cell } from '../../measure/sheets/cells.js';
import type { PlaceOutcome } from '../../measure/program/outcome.js';
import { cellText } from '../../measure/program/readCell.js';
import { lineText } from '../../measure/sheets/line.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { gaugeTable } from '../parties.js';
import type { Detail } from '../../entries/account.js';

/** Readings of a sheet as a table: rows and columns where the cells make one, else name and figure. */
function readingTable(m: PlaceOutcome): ReportBlock {
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

/** Data sheets; in short, only what came of the readings. */
export function sheets(view: CaseView, detail: Detail): ReportSection {
  const blocks: ReportBlock[] = [];
  for (const m of measuredPlaces(view)) {
    blocks.push({ kind: 'text', text: m.place.name, strong: true });
    if (detail === 'full' || !m.outcome || m.outcome.lines.length === 0) blocks.push(readingTable(m));
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
    const simulated = readings.filter((r) => r.simulated).length;
    if (simulated > 0)
      blocks.push({
        kind: 'text',
        text: `${simulated === readings.length ? 'All' : `${simulated} of ${readings.length}`} readings of this place come from a gauge stand-in: they were not taken on the part.`,
      });
    if (detail === 'short') continue;
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
  const gauges = gaugeTable(view);
  if (gauges) blocks.push({ kind: 'text', text: 'Gauges', strong: true }, gauges);
  if (blocks.length === 0) blocks.push({ kind: 'text', key: 'sheets.none', text: 'Nothing was measured.' });
  return { id: 'sheets', heading: 'Measurements', blocks };
}
