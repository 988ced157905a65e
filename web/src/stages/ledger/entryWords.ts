import { cause, feature, gradeText, pattern, type EntryBodies, type EntryBody, type EntryKind } from '@true-ledger/core';

export const KIND_WORDS: Readonly<Record<EntryKind, string>> = {
  'case-opened': 'Case opened',
  'layout-set': 'Layout',
  'intake-set': 'Intake',
  'history-line': 'History',
  'evidence-set': 'Looked for',
  'photo-added': 'Picture',
  'corners-set': 'Corners',
  'mark-made': 'Mark',
  'grade-confirmed': 'Grade',
  'state-set': 'State',
  'pattern-set': 'Pattern',
  remark: 'Remark',
  'spec-set': 'Specification',
  'reading-taken': 'Reading',
  'cause-decided': 'Cause',
  'report-set': 'Report',
  retracted: 'Taken back',
};

type Words = { [K in EntryKind]: (body: EntryBodies[K]) => string };

const WORDS: Words = {
  'case-opened': (b) => `${b.number} ${b.title}`,
  'layout-set': (b) =>
    `${b.layout.cylinders} cylinders ${b.layout.arrangement}, ${b.layout.boreMm} × ${b.layout.strokeMm} mm, ${b.layout.mains} mains`,
  'intake-set': (b) => `${b.field}: ${b.value || '(emptied)'}`,
  'history-line': (b) => `${b.text || '(emptied)'} – ${b.reliability}`,
  'evidence-set': (b) => `${feature(b.feature)?.name ?? b.feature}: ${b.present ? 'found' : 'not there'}${b.note ? `; ${b.note}` : ''}`,
  'photo-added': (b) => `${b.name}, ${b.width} × ${b.height}`,
  'corners-set': (b) => `four corners on ${b.sha256.slice(0, 8)}`,
  'mark-made': (b) => `${b.mark.class}${b.mark.shape === 'line' ? ` line, ${b.mark.depth ?? 'hair'}` : ''}`,
  'grade-confirmed': (b) =>
    `${gradeText(b.grade)}${b.proposed !== null && b.proposed !== b.grade ? `, ${gradeText(b.proposed)} was proposed` : ''}${b.reason ? `: ${b.reason}` : ''}`,
  'state-set': (b) => b.state.replace('-', ' '),
  'pattern-set': (b) => `${pattern(b.pattern)?.name ?? b.pattern}: ${b.present ? 'there' : 'not there'}`,
  remark: (b) => b.text || '(emptied)',
  'spec-set': (b) => `${b.quantity} ${b.spec.minMm}–${b.spec.maxMm} mm`,
  'reading-taken': (b) => `${b.plane}, axis ${b.axis}: ${b.text}${b.insisted ? ' (insisted)' : ''}`,
  'cause-decided': (b) => `${cause(b.cause)?.name ?? b.cause} ${b.decision}${b.reason ? `: ${b.reason}` : ''}`,
  'report-set': (b) => `${b.field}: ${b.value.slice(0, 120)}`,
  retracted: (b) => `${b.slot} (${b.reason})`,
};

/** An entry in one line of words. */
export function entryWords(kind: EntryKind, body: EntryBody | null): string {
  return body === null ? '(redacted)' : (WORDS[kind] as (b: EntryBody) => string)(body);
}
