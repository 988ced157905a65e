import { GRADE_BOOK } from '../../damage/gradeBook.js';
import { pattern } from '../../damage/patterns.js';
import { neutralSight } from '../../damage/sights.js';
import { markOfWords, SHARES } from '../../damage/wordMark.js';
import { isNamedBy, type Station } from '../../engine/stations.js';
import type { EntryBodies, EntryKind } from '../../entries/entries.js';
import type { Problem } from '../../kit/result.js';
import type { CaseFile, FindingWords, SightWords, WearWords } from './format.js';

/** Adds an entry to the case that is being read; `field` is where in the file it came from. */
export type Add = <K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K], field: string) => void;

/** Stations a finding speaks of: a bearing with `half` stands for its shell halves. */
export function stationsOfFinding(f: FindingWords): string[] {
  if (!f.half) return [f.station];
  return (f.half === 'both' ? ['upper', 'lower'] : [f.half]).map((half) => `${f.station}.shell.${half}`);
}

/** A case that says a thing and its contrary: which of the two was meant cannot be guessed. */
export function contradiction(file: CaseFile): Problem | null {
  const refuse = (field: string, sentence: string): Problem => ({ code: 'case-file-contradiction', sentence, field });
  const said = new Map<string, boolean>();
  for (const [i, e] of (file.evidence ?? []).entries()) {
    if (said.has(e.feature) && said.get(e.feature) !== e.present)
      return refuse(`evidence.${i}`, `"${e.feature}" is given as found and as not there. Keep the one that was seen; nothing was read.`);
    said.set(e.feature, e.present);
  }
  const shown = new Map<string, boolean>();
  const grades = new Map<string, number>();
  for (const [i, f] of (file.findings ?? []).entries()) {
    for (const station of stationsOfFinding(f)) {
      for (const [ids, present] of [
        [f.patterns ?? [], true],
        [f.absent ?? [], false],
      ] as const)
        for (const id of ids) {
          const key = `${station} ${id}`;
          if (shown.has(key) && shown.get(key) !== present)
            return refuse(
              `findings.${i}`,
              `${station} is given as showing "${id}" and as not showing it. Keep the one that was seen; nothing was read.`,
            );
          shown.set(key, present);
        }
      if (f.grade === undefined) continue;
      if (grades.has(station) && grades.get(station) !== f.grade)
        return refuse(`findings.${i}.grade`, `${station} is graded ${grades.get(station)} and ${f.grade}. Keep one; nothing was read.`);
      grades.set(station, f.grade);
      if (f.grade >= 2 && (file.sound ?? []).includes(station))
        return refuse(`findings.${i}.grade`, `${station} is listed as sound and graded ${f.grade}. Keep one; nothing was read.`);
    }
  }
  return null;
}

/** What a place that is none may have been meant for: a bearing without its half, or the places of the same kind. */
function placeHint(id: string, stations: readonly Station[]): string {
  if (stations.some((s) => s.id === `${id}.shell.upper`)) return 'a bearing takes "half": "upper", "lower" or "both"';
  const kind = id.split('.')[0]!;
  const alike = stations.filter((s) => s.id.split('.')[0] === kind).map((s) => s.id);
  return alike.length > 0
    ? `of its kind there are ${alike.slice(0, 6).join(', ')}${alike.length > 6 ? ' …' : ''}`
    : 'run "true-ledger stations" for the list';
}

/** A share as one figure: a word stands for its middle, and so do the least and the most; null where they are the wrong way about. */
function percentSaid(said: WearWords['percent']): number | null {
  if (typeof said === 'number') return said;
  if (said === undefined) return SHARES.patch;
  if (typeof said === 'string') return SHARES[said];
  const [least, most] = said;
  return least > most ? null : (least + most) / 2;
}

/** One finding as entries at its station. */
export function addFinding(f: FindingWords, stations: readonly Station[], index: number, add: Add, report: (p: Problem) => void): void {
  const at = `findings.${index}`;
  const station = stations.find((s) => s.id === f.station);
  if (!station)
    return report({
      code: 'case-file-station',
      sentence: `"${f.station}" is not a place of this engine; ${placeHint(f.station, stations)}.`,
      field: `${at}.station`,
    });
  const worn = f.edge ? EDGE_PATTERN[f.edge] : undefined;
  for (const [list, present] of [
    [[...(f.patterns ?? []), ...(worn ? [worn] : [])], true],
    [f.absent ?? [], false],
  ] as const) {
    for (const id of list) {
      if (!pattern(id) && !neutralSight(id))
        return report({
          code: 'case-file-pattern',
          sentence: `"${id}" is not a pattern known here; run "true-ledger patterns" for the list.`,
          field: `${at}.${present ? 'patterns' : 'absent'}`,
        });
      add('pattern-set', station.id, { pattern: id, present }, at);
    }
  }
  const edge: WearWords[] =
    (f.edge === 'front' || f.edge === 'rear') && !f.wear ? [{ class: 'lining', percent: 5, where: `${f.edge}-edge` }] : [];
  [...(f.wear ?? []), ...edge].forEach((w, i) => {
    const percent = percentSaid(w.percent);
    if (percent === null)
      return report({
        code: 'case-file',
        sentence: 'The least of a share is more than its most. Give the lesser figure first.',
        field: `${at}.wear.${i}.percent`,
      });
    const mark = markOfWords(station, { ...w, percent }, `${index}-${i}`);
    if (mark) add('mark-made', station.id, { mark }, `${at}.wear.${i}`);
  });
  (f.reads ?? []).forEach((read, i) => add('surface-read', station.id, read, `${at}.reads.${i}`));
  (f.marks ?? []).forEach((mark, i) => add('mark-made', station.id, { mark }, `${at}.marks.${i}`));
  if (f.grade !== undefined)
    add('grade-confirmed', station.id, { grade: f.grade as 0, proposed: null, reason: '', book: GRADE_BOOK.version }, `${at}.grade`);
  if (f.note) add('remark', station.id, { remark: `n${index}`, text: f.note }, `${at}.note`);
}

/** A sight at one or several of some places, or one that was told. */
export function addSight(x: SightWords, stations: readonly Station[], index: number, add: Add, report: (p: Problem) => void): void {
  const at = `sights.${index}`;
  if (!pattern(x.sight) && !neutralSight(x.sight))
    return report({
      code: 'case-file-pattern',
      sentence: `"${x.sight}" is neither a pattern nor a neutral sight known here; run "true-ledger patterns" for the list.`,
      field: `${at}.sight`,
    });
  const among = [...new Set(x.among.flatMap((glob) => stations.filter((s) => isNamedBy(glob, s)).map((s) => s.id)))];
  const lost = x.among.find((glob) => !stations.some((s) => isNamedBy(glob, s)));
  if (lost !== undefined)
    return report({
      code: 'case-file-station',
      sentence: `"${lost}" is not a place of this engine; ${placeHint(lost, stations)}.`,
      field: `${at}.among`,
    });
  if ((x.of ?? 0) > among.length)
    return report({
      code: 'case-file-sight',
      sentence: `It is said to be at ${x.of} of ${among.length} places. Name more places, or fewer of them.`,
      field: `${at}.of`,
    });
  add(
    'sight-set',
    null,
    {
      note: `s${index}`,
      sight: x.sight,
      present: x.present ?? true,
      among,
      of: x.of ?? null,
      grade: x.grade ?? null,
      reliability: x.reliability ?? 'seen',
      words: x.words ?? '',
    },
    at,
  );
}

const EDGE_PATTERN: Readonly<Partial<Record<string, string>>> = {
  front: 'edge-loading',
  rear: 'edge-loading',
  both: 'both-edges',
  centre: 'centre-band',
  diagonal: 'diagonal-edge',
};
