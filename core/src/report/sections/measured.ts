import { measuredPlaces, placeReadings, specOfPlace } from '../../measured/caseMeasure.js';
import type { PlaceOutcome } from '../../measure/program/outcome.js';
import { roundOf } from '../../measure/program/rounds.js';
import { lineText, type SheetLine } from '../../measure/sheets/line.js';
import type { Verdict } from '../../units/gauge.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { gaugeTable } from '../parties.js';
import type { Detail } from '../../entries/account.js';
import { readingTable, standInWords } from './appendix.js';

/** How a verdict stands behind its figure. */
const MARK: Readonly<Record<Verdict['word'], string>> = { within: '✓', outside: '✗', 'too close to call': '≈' };
const MARKS_SAY =
  '✓ within its limits; ✗ beyond them; ≈ nearer to a limit than its uncertainty, so too close to call; in brackets: held against a target, a typical value or a rule of thumb, not against a limit; no mark: held against nothing.';

/** Results of one kind side by side at most. */
const MOST_COLUMNS = 6;

/**
 * What was measured: for each kind of sheet one table, a place a line, a result a column, its limits and its uncertainty once; then why anything is not within its limits. In short, where no sheets in full follow, every result has
 * its column, what follows from the readings is said here, and readings nothing was computed from are given.
 */
export function measured(view: CaseView, detail: Detail): ReportSection {
  const places = measuredPlaces(view);
  const blocks: ReportBlock[] = [];
  // Places of one round have one sheet, those of one specification one set of limits.
  const groups = new Map<string, PlaceOutcome[]>();
  for (const m of places) {
    if (!m.outcome || m.outcome.lines.length === 0) continue;
    const id = `${roundOf(view.layout, m.place).id} ${m.place.spec}`;
    groups.set(id, [...(groups.get(id) ?? []), m]);
  }
  for (const own of groups.values()) {
    const { name } = roundOf(view.layout, own[0]!.place);
    blocks.push({ kind: 'text', text: name, strong: true }, ...columnsOf(own, detail).map((ids) => matrix(view, own, ids)));
  }
  if (places.length > 0) blocks.push({ kind: 'text', key: 'measured.marks', text: MARKS_SAY });
  if (detail === 'full' && [...groups.values()].some((own) => resultsOf(own).size > MOST_COLUMNS))
    blocks.push({ kind: 'text', key: 'measured.more', text: 'Further results stand in the appendix.' });
  const list = (name: string, items: readonly string[]): void => {
    if (items.length > 0) blocks.push({ kind: 'text', text: name, strong: true }, { kind: 'list', items });
  };
  list(
    'Not within its limits, and why',
    places.flatMap((m) =>
      (m.outcome?.lines ?? []).flatMap((l) =>
        l.verdict && l.verdict.word !== 'within'
          ? [`${m.place.name}, ${l.name.toLowerCase()}: ${l.verdict.word} (${l.verdict.reference}); ${l.verdict.reason}`]
          : [],
      ),
    ),
  );
  if (detail === 'short') {
    list(
      'What follows',
      places.flatMap((m) => (m.outcome?.says ?? []).map((says) => `${m.place.name}: ${says}`)),
    );
    for (const m of places.filter((x) => !x.outcome || x.outcome.lines.length === 0))
      blocks.push({ kind: 'text', text: m.place.name, strong: true }, readingTable(m));
  }
  const missing = places.flatMap((m) => {
    const open = [...m.waiting, ...(m.outcome?.missing ?? [])];
    return open.length > 0 ? [`${m.place.name}: ${open.join('; ')}`] : [];
  });
  list('Not read', missing);
  const readings = places.flatMap((m) => placeReadings(view, m.place).map((r) => r.value));
  const simulated = standInWords(readings, 'readings');
  if (simulated) blocks.push({ kind: 'text', text: simulated });
  const gauges = gaugeTable(view);
  if (gauges) blocks.push({ kind: 'text', text: 'Gauges', strong: true }, gauges);
  if (blocks.length === 0) blocks.push({ kind: 'text', key: 'sheets.none', text: 'Nothing was measured.' });
  return { id: 'sheets', heading: 'Measurements', blocks };
}

/** Every result of places of one kind, by id: its name, and whether any place judges it. */
function resultsOf(places: readonly PlaceOutcome[]): ReadonlyMap<string, { readonly name: string; readonly judged: boolean }> {
  const found = new Map<string, { name: string; judged: boolean }>();
  for (const { outcome } of places)
    for (const l of outcome!.lines) found.set(l.id, { name: l.name, judged: found.get(l.id)?.judged === true || l.verdict !== undefined });
  return found;
}

/** Results as columns of one table or, in short, of as many as it takes; with the appendix behind it what is judged comes first. */
function columnsOf(places: readonly PlaceOutcome[], detail: Detail): string[][] {
  const results = resultsOf(places);
  const ids = [...results.keys()];
  if (detail === 'full' && ids.length > MOST_COLUMNS) {
    const first = [...ids.filter((id) => results.get(id)!.judged), ...ids.filter((id) => !results.get(id)!.judged)].slice(0, MOST_COLUMNS);
    return [ids.filter((id) => first.includes(id))];
  }
  return Array.from({ length: Math.ceil(ids.length / MOST_COLUMNS) }, (_, k) => ids.slice(k * MOST_COLUMNS, (k + 1) * MOST_COLUMNS));
}

/** Some results of places of one kind as a table. */
function matrix(view: CaseView, places: readonly PlaceOutcome[], shown: readonly string[]): ReportBlock {
  const results = resultsOf(places);
  const lines = (id: string): SheetLine[] => places.flatMap(({ outcome }) => outcome!.lines.filter((l) => l.id === id));
  const limits = shown.map((id) => limitsText(view, places, id));
  return {
    kind: 'table',
    head: ['Place', ...shown.map((id) => `${results.get(id)!.name}${unitOf(lines(id))}`)],
    rows: [
      ...places.map(({ place, outcome }) => [place.name, ...shown.map((id) => figure(outcome!.lines.find((l) => l.id === id)))]),
      ...(limits.some((l) => l !== '') ? [['Limits', ...limits]] : []),
      ['U (k = 2)', ...shown.map((id) => uncertainty(lines(id)))],
    ],
    figures: shown.map((_, k) => k + 1),
  };
}

const unitOf = (lines: readonly SheetLine[]): string => (lines[0] ? `, ${lines[0].unit}` : '');

/** The value without its unit, which the head of the column says, and the mark of its verdict. */
const bare = (line: SheetLine, value = line.value): string => lineText({ ...line, value, expanded: null }).replace(` ${line.unit}`, '');

function figure(line: SheetLine | undefined): string {
  if (!line) return '–';
  if (!line.verdict) return bare(line);
  const mark = MARK[line.verdict.word];
  return `${bare(line)} ${line.verdict.reference === 'limit' ? mark : `(${mark})`}`;
}

/** Uncertainty of a column: one figure, or from the least to the largest. */
function uncertainty(lines: readonly SheetLine[]): string {
  const known = lines.flatMap((l) => (l.expanded === null ? [] : [l.expanded])).sort((a, b) => a - b);
  const [least, most] = [known[0], known.at(-1)];
  if (least === undefined || most === undefined) return '–';
  const digits = lines[0]!.unit === 'mm' ? 3 : 1;
  const [a, b] = [least.toFixed(digits), most.toFixed(digits)];
  return a === b ? `±${a}` : `±${a} to ${b}`;
}

/** Limits of a column where all its places have the same. */
function limitsText(view: CaseView, places: readonly PlaceOutcome[], id: string): string {
  const all = places.map(({ place, outcome }) => {
    const limit = specOfPlace(view, place)?.limits?.[id];
    const line = outcome!.lines.find((l) => l.id === id);
    if (!limit || !line) return '';
    const [low, high] = [limit.lower, limit.upper].map((v) => (v === undefined ? null : bare(line, v)));
    return low && high ? `${low} to ${high}` : high ? `≤ ${high}` : low ? `≥ ${low}` : '';
  });
  const said = [...new Set(all.filter(Boolean))];
  return said.length === 1 ? said[0]! : said.length > 1 ? 'differ' : '';
}
