import { memo } from '../kit/memo.js';
import { readLog, type LogReading } from '../engineLog/readLog.js';
import type { TakenLog } from '../engineLog/lines.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { bearingsOf } from '../engine/bearings.js';
import type { Put } from './evidenceItem.js';

const readingOf = memo('reading of a log', (log: TakenLog): LogReading => readLog(log.engine, log.lines));

/** The log a case took over as it is read; null where none was. */
export const caseOilLog = (view: CaseView): LogReading | null => (view.oilLog?.value.log ? readingOf(view.oilLog.value.log) : null);

/** What the log of the engine says of features. A trend weighs as what was seen, a single reading as what was told; a clean sample as the shop holds it. */
export function oilLogEvidence(view: CaseView, put: Put): void {
  const reading = caseOilLog(view);
  if (!reading) return;
  const clears = view.schools.get('one-sample')?.value.position === 'clears';
  for (const f of reading.findings)
    if (f.feature) {
      const trusted = f.feature.id === 'measured.sample-clean' ? clears : f.feature.trend;
      put(f.feature.id, f.feature.present, trusted ? 'seen' : 'told', {
        station: null,
        entry: view.oilLog!.version.entry,
        words: `Oil log: ${f.words}`,
      });
    }
}

/** Metals of which shells are made. */
const SHELL_METALS = ['Cu', 'Pb', 'Sn'] as const;

/** Where the oil says another thing than the metal. Both stand: neither is averaged away. */
export function oilAgainstMetal(view: CaseView): string[] {
  const last = caseOilLog(view)?.samples.findLast((s) => s.counts);
  if (!last) return [];
  const halves = bearingsOf(view.layout).flatMap((b) => ['upper', 'lower'].flatMap((h) => view.byId.get(`${b}.shell.${h}`) ?? []));
  const looked = halves.filter(isExamined);
  const grades = looked.map((s) => ({ s, grade: standingGrade(s) ?? 0 }));
  const worst = grades.reduce<(typeof grades)[number] | null>((w, g) => (w && w.grade >= g.grade ? w : g), null);
  const metals = last.verdicts.filter((v) => SHELL_METALS.some((m) => m === v.species));
  const said: string[] = [];
  if (worst && worst.grade >= 3 && metals.length > 0 && metals.every((v) => v.word === 'within'))
    said.push(
      `The sample of ${last.line.day} shows no bearing metal, and ${worst.s.station.name} is worn to grade ${worst.grade}. Either it went after the sample, or in flakes that no sample holds; the metal was seen.`,
    );
  if (worst && worst.grade <= 1 && looked.length === halves.length && last.sources.some((s) => s.id === 'shells'))
    said.push(
      `The sample of ${last.line.day} points to bearing shells, and every shell was looked at and none is past grade ${worst.grade}. Bushes, thrust rings, the cam and the oil pump hold the same metals: look there, and whose sample it was.`,
    );
  return said;
}
