import {
  cause,
  feature,
  gradeText,
  holdName,
  openingCheck,
  OPERATION_NAMES,
  pattern,
  school,
  SPEC_KINDS,
  type EntryBodies,
  type EntryBody,
  type EntryKind,
} from '@true-ledger/core';
import { specWords } from '../../sheets/SpecFields.js';

export const KIND_WORDS: Readonly<Record<EntryKind, string>> = {
  'case-opened': 'Case opened',
  'layout-set': 'Layout',
  'intake-set': 'Intake',
  'history-line': 'History',
  'evidence-set': 'Looked for',
  'photo-added': 'Picture',
  'corners-set': 'Corners',
  'mark-made': 'Mark',
  'surface-read': 'Read',
  'grade-confirmed': 'Grade',
  'second-opinion': 'Second opinion',
  'grade-book-set': 'Grade book',
  'state-set': 'State',
  'pattern-set': 'Pattern',
  remark: 'Remark',
  'spec-set': 'Specification',
  'reading-taken': 'Reading',
  'cause-decided': 'Cause',
  'sequence-link': 'Sequence',
  'sequence-event': 'Event',
  'sequence-place': 'Sequence',
  'answer-set': 'Answer',
  'unexplained-set': 'Unexplained',
  'answerable-set': 'Answerable',
  'case-released': 'Released',
  'case-shelved': 'Put away',
  'school-set': 'School',
  'disposition-set': 'Disposition',
  'price-book-set': 'Prices',
  'plan-set': 'Plan',
  'task-moved': 'Plan',
  'quote-sent': 'Quote',
  'report-set': 'Report',
  'account-laid-out': 'Report',
  'sentence-set': 'Sentence',
  'account-signed': 'Signed',
  redacted: 'Struck',
  'received-item': 'Received',
  'build-mark': 'Build mark',
  'open-question': 'Question',
  'check-set': 'Check',
  'limits-set': 'Limits',
  'step-set': 'Step',
  'step-order': 'Order',
  'hold-set': 'Hold',
  'bolt-torque': 'Break-loose',
  'bag-set': 'Bag',
  'cap-checked': 'Cap',
  'ease-torque': 'Easing',
  expectation: 'Expectation',
  'tag-read': 'Part tag',
  'blur-set': 'Blurred',
  'clip-added': 'Clip',
  retracted: 'Taken back',
};

/** A node of the sequence in words: `cause:surge`, `find:wiping@rod.2`, `event:…`. */
function nodeWords(id: string): string {
  const [kind, rest = ''] = id.split(/:(.*)/s);
  if (kind === 'cause') return cause(rest)?.name ?? rest;
  if (kind !== 'find') return 'own event';
  const [what = '', where = ''] = rest.split('@');
  return `${pattern(what)?.name ?? what} (${where})`;
}

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
  'surface-read': (b) =>
    `${b.sha256.slice(0, 8)} read: ${Object.keys(b.shares).join(', ') || 'nothing but sound'}, ${b.lines.length} line${b.lines.length === 1 ? '' : 's'}, confidence ${b.confidence}`,
  'second-opinion': (b) => `${gradeText(b.grade)}${b.note ? `: ${b.note}` : ''}`,
  'grade-book-set': (b) => `version ${b.book.version}, ${b.book.rules.length} rules`,
  'grade-confirmed': (b) =>
    `${gradeText(b.grade)}${b.proposed !== null && b.proposed !== b.grade ? `, ${gradeText(b.proposed)} was proposed` : ''}${b.reason ? `: ${b.reason}` : ''}`,
  'state-set': (b) => b.state.replace('-', ' '),
  'pattern-set': (b) => `${pattern(b.pattern)?.name ?? b.pattern}: ${b.present ? 'there' : 'not there'}`,
  remark: (b) => b.text || '(emptied)',
  'spec-set': (b) => `${SPEC_KINDS[b.quantity].name}: ${specWords(b.quantity, b.spec)}`,
  'reading-taken': (b) =>
    `${b.sheet}, ${b.cell}${b.take > 1 ? `, take ${b.take}` : ''}: ${b.text}${/[a-z"″µ°]/i.test(b.text) || b.value === null ? '' : ` ${b.unit}`}${b.insisted ? ' (insisted)' : ''}${b.simulated ? ' (simulated)' : ''}`,
  'cause-decided': (b) => `${cause(b.cause)?.name ?? b.cause} ${b.decision}${b.reason ? `: ${b.reason}` : ''}`,
  'sequence-link': (b) => `${nodeWords(b.from)} → ${nodeWords(b.to)} ${b.state}${b.reason ? `: ${b.reason}` : ''}`,
  'sequence-event': (b) => b.text || '(emptied)',
  'sequence-place': (b) => `${nodeWords(b.node)} moved`,
  'answer-set': (b) => `${cause(b.cause)?.name ?? b.cause}: ${b.item} ${b.state.replace('-', ' ')}${b.note ? `; ${b.note}` : ''}`,
  'unexplained-set': (b) => `${b.place} ${b.accepted ? 'accepted as unexplained' : 'not accepted'}: ${b.reason}`,
  'answerable-set': (b) => `${b.who}${b.reason ? `: ${b.reason}` : ''}`,
  'case-released': (b) => b.note || 'released',
  'case-shelved': (b) => `${b.as.replace('-', ' ')}${b.reason ? `: ${b.reason}` : ''}`,
  'school-set': (b) => `${school(b.question)?.question ?? b.question}: ${b.position}${b.reason ? `; ${b.reason}` : ''}`,
  'disposition-set': (b) => `${OPERATION_NAMES[b.operation]}${b.size ? ` ${b.size}` : ''}${b.reason ? `: ${b.reason}` : ''}`,
  'price-book-set': (b) => `version ${b.book.version} of ${b.book.date}, ${b.book.lines.length} lines in ${b.book.currency}`,
  'plan-set': (b) => `${b.route ?? 'no route'}, from ${b.from}${b.deadline ? `, deadline ${b.deadline}` : ''}, ${b.hoursPerDay} h a day`,
  'task-moved': (b) => `${b.task} not before hour ${b.notBeforeHours}`,
  'quote-sent': (b) =>
    `${b.route}: ${b.cost.toFixed(0)} to ${b.costHigh.toFixed(0)} ${b.currency}, ${b.days.toFixed(0)} to ${b.daysHigh.toFixed(0)} days`,
  'account-laid-out': (b) => `laid out for ${b.template}, ${b.detail}${b.left.length > 0 ? `, without ${b.left.join(', ')}` : ''}`,
  'sentence-set': (b) => `${b.sentence}: ${b.text === '' ? 'as generated' : b.text.slice(0, 120)}`,
  'account-signed': (b) => `version ${b.version}${b.reason ? `: ${b.reason}` : ''}, PDF ${b.sha256.slice(0, 8)}`,
  redacted: (b) => `${KIND_WORDS[b.kind as EntryKind]?.toLowerCase() ?? b.kind} struck: ${b.reason}`,
  'report-set': (b) => `${b.field}: ${b.value.slice(0, 120)}`,
  'received-item': (b) => `${b.text}: ${b.state.replace('-', ' ')}`,
  'build-mark': (b) => `${b.text} – ${b.pointsTo.replace('-', ' ')}`,
  'open-question': (b) => `${b.text}${b.answer === null ? ' (open)' : ` – ${b.answer}`}`,
  'check-set': (b) =>
    `${openingCheck(b.check)?.name ?? b.check}, ${b.field}: ${b.text || '(emptied)'}${b.value !== null && b.unit && !/[a-z%"″]/i.test(b.text) ? ` ${b.unit}` : ''}`,
  'limits-set': (b) => `${b.limits.length} limits${b.sheet ? ` from ${b.sheet.name}, version ${b.sheet.version}` : ''}`,
  'step-set': (b) => `${b.step} ${b.state}${b.note ? `: ${b.note}` : ''}`,
  'step-order': (b) => `${b.order.length} steps in their own order`,
  'hold-set': (b) => `${holdName(b.item)} ${b.outcome}${b.note ? `: ${b.note}` : ''}`,
  'bolt-torque': (b) => `${b.pattern} ${b.position}: ${b.text} ${b.unit}`,
  'bag-set': (b) => `${b.bag}: ${b.counted} counted${b.note ? `; ${b.note}` : ''}`,
  'cap-checked': (b) => `${b.cap}: ${b.number || 'no number'}, ${b.agrees ? 'agrees' : 'does not agree'}, joint ${b.joint}`,
  'ease-torque': (b) => `${b.cap === '' ? 'as it came' : `${b.cap} eased`}: ${b.text} ${b.unit}`,
  expectation: (b) => `${b.text}${b.held === null ? '' : b.held ? ' – held' : ' – did not hold'}`,
  'tag-read': (b) => `tag of ${b.station} in ${b.sha256.slice(0, 8)}`,
  'blur-set': (b) => `${b.regions.length} regions of ${b.sha256.slice(0, 8)}`,
  'clip-added': (b) => `${b.name}${b.seconds === null ? '' : `, ${b.seconds.toFixed(0)} s`}`,
  retracted: (b) => `${b.slot} (${b.reason})`,
};

/** An entry in one line of words. */
export function entryWords(kind: EntryKind, body: EntryBody | null): string {
  return body === null ? '(struck)' : (WORDS[kind] as (b: EntryBody) => string)(body);
}
