import type { AcrossAnswer, Outcome } from '@true-ledger/contract';
import '../platform.js';
import { fail, ok } from '@true-ledger/core/kit';
import type { Station } from '@true-ledger/core/engine';
import { runSheet, sheetJson } from '@true-ledger/core/measure';
import { answerRunning, type RunningQuestion } from '@true-ledger/core/running';
import type { CaseState } from '@true-ledger/core/ledger';
import { caseView } from '@true-ledger/core/case';
import { readingsCsv } from '@true-ledger/core/measured';
import { diagnose, diagnosisJson, type DiagnosisJson } from '@true-ledger/core/diagnosis';
import { acrossStatistics, casesCsv, outcomesAsked, type AcrossStatistics, type AskedOutcome } from '@true-ledger/core/across';
import { countedCases, type CasesText } from '../across/countedCases.js';
import { caseFileOf, findingsCsv, readCaseFile } from '@true-ledger/core/bundle';
import { figuresOf, type CaseFigures } from '../ledger/summary.js';
import { drawEngine, practicePicture, scoreOf, type NamedCause } from '@true-ledger/core/practiceEngine';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { Pixels } from '@true-ledger/core/photo';
import { tagSheet } from '../tags/tagSheet.js';
import { answerTasks } from '../threads/taskThread.js';

/** Computation that a request can make long, away from the thread that answers. */
export type ComputeTask =
  | { readonly kind: 'summary'; readonly state: CaseState }
  | { readonly kind: 'differential'; readonly state: CaseState }
  | { readonly kind: 'diagnose'; readonly file: unknown }
  | { readonly kind: 'measure'; readonly sheet: unknown }
  | { readonly kind: 'running'; readonly question: RunningQuestion; readonly file: unknown }
  | { readonly kind: 'files'; readonly state: CaseState }
  | { readonly kind: 'across'; readonly cases: CasesText; readonly today: string }
  | { readonly kind: 'across-asked'; readonly cases: CasesText; readonly today: string }
  | { readonly kind: 'across-table'; readonly cases: CasesText }
  | { readonly kind: 'practice-picture'; readonly level: number; readonly seed: number; readonly station: string }
  | {
      readonly kind: 'practice-score';
      readonly level: number;
      readonly seed: number;
      readonly state: CaseState;
      readonly answer: readonly NamedCause[];
      readonly done: readonly string[];
    }
  | {
      readonly kind: 'tags';
      readonly number: string;
      readonly caseId: string;
      readonly stations: readonly Station[];
      readonly root: string;
    };

/** A case in the files others read. */
export interface DerivedFiles {
  readonly caseFile: string;
  readonly readings: string;
  readonly findings: string;
}

/** What many cases say, with their names and the engines they are of. */
export interface AcrossCounted {
  readonly statistics: AcrossStatistics;
  readonly asked: AskedOutcome[];
  readonly names: AcrossAnswer['cases'];
  readonly among: string[];
}

export interface ComputeAnswers {
  readonly summary: CaseFigures;
  readonly differential: DiagnosisJson;
  readonly diagnose: DiagnosisJson;
  readonly measure: object;
  readonly running: object;
  readonly files: DerivedFiles;
  readonly tags: Uint8Array;
  readonly across: AcrossCounted;
  readonly 'across-asked': AskedOutcome[];
  readonly 'across-table': string;
  readonly 'practice-picture': Pixels | null;
  readonly 'practice-score': EntryBodies['practice-scored']['score'];
}

async function compute(task: ComputeTask): Promise<Outcome<ComputeAnswers[ComputeTask['kind']]>> {
  switch (task.kind) {
    case 'summary':
      return ok(figuresOf(task.state));
    case 'differential': {
      const view = caseView(task.state);
      return view ? ok(diagnosisJson(view, diagnose(view))) : fail('no-layout', 'This case has no engine yet. Set its layout first.');
    }
    case 'diagnose': {
      const read = readCaseFile(task.file);
      return read.ok ? ok(diagnosisJson(read.value.view, diagnose(read.value.view), read.value.doubts)) : read;
    }
    case 'measure': {
      const outcome = runSheet(task.sheet);
      return outcome.ok ? ok(sheetJson(outcome.value)) : outcome;
    }
    case 'running':
      return answerRunning(task.question, task.file);
    case 'files': {
      const view = caseView(task.state);
      if (!view) return fail('no-layout', 'This case has no engine yet. Set its layout first.');
      return ok({
        caseFile: JSON.stringify(caseFileOf(task.state, view), null, 2),
        readings: readingsCsv(view),
        findings: findingsCsv(view),
      });
    }
    case 'practice-picture':
      return ok(practicePicture(drawEngine(task.level, task.seed), task.station)?.pixels ?? null);
    case 'practice-score':
      return ok(scoreOf(drawEngine(task.level, task.seed), caseView(task.state)!, task.answer, new Set(task.done)));
    case 'across': {
      const cases = countedCases(task.cases);
      return ok({
        statistics: acrossStatistics(cases),
        asked: outcomesAsked(cases, task.today),
        names: Object.fromEntries(cases.map((c) => [c.id, { number: c.number, title: c.title }])),
        among: [...new Set(cases.flatMap((c) => c.engine ?? []))],
      });
    }
    case 'across-asked':
      return ok(outcomesAsked(countedCases(task.cases), task.today));
    case 'across-table':
      return ok(casesCsv(countedCases(task.cases)));
    case 'tags':
      return ok(await tagSheet(task.number, task.caseId, task.stations, task.root));
  }
}

answerTasks(compute, { code: 'not-computed', sentence: 'This could not be computed. Nothing was changed; what was recorded is safe.' });
