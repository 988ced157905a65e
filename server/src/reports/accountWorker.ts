import {
  caseView,
  diagnose,
  fail,
  layoutOf,
  machineShopModel,
  ok,
  reportModel,
  sectionHashes,
  simulatedRoutes,
  type CaseState,
  type EntryBodies,
  type ReportOptions,
  type Result,
} from '@true-ledger/core';
import { answerTasks } from '../threads/taskThread.js';
import { accountPicture, type Shown } from './accountPicture.js';
import { reportPdf } from './pdf.js';

export interface WantedPicture {
  readonly station: string;
  readonly sha256: string;
  readonly originalWidth: number;
  readonly work: Uint8Array;
}

export type AccountTask =
  | { readonly kind: 'pictures'; readonly state: CaseState; readonly wanted: readonly WantedPicture[]; readonly shown: Shown }
  | {
      readonly kind: 'pdf';
      readonly state: CaseState;
      readonly pictures: ReadonlyMap<string, Uint8Array>;
      readonly of: 'account' | 'machine-shop';
      readonly signing?: NonNullable<ReportOptions['signing']>;
      readonly root: string;
    };

export interface MadePdf {
  readonly pdf: Uint8Array;
  readonly template: EntryBodies['account-signed']['template'];
  readonly sections: EntryBodies['account-signed']['sections'];
  readonly flags: number;
  readonly version: number;
}

export type AccountAnswer = { readonly kind: 'pictures'; readonly jpegs: readonly Uint8Array[] } | ({ readonly kind: 'pdf' } & MadePdf);

/** Pictures and pages of accounts, made in a thread: a long account takes seconds. */
async function make(task: AccountTask): Promise<Result<AccountAnswer>> {
  const view = caseView(task.state);
  if (!view) return fail('no-layout', 'This case has no engine yet. Set its layout first.');
  if (task.kind === 'pictures') {
    const jpegs: Uint8Array[] = [];
    for (const p of task.wanted) {
      const station = view.byId.get(p.station);
      jpegs.push(station ? await accountPicture(Buffer.from(p.work), p.originalWidth, station, p.sha256, task.shown) : p.work);
    }
    return ok({ kind: 'pictures', jpegs });
  }
  const today = new Date();
  if (task.of === 'machine-shop') {
    const sheet = machineShopModel(view, task.state.head, task.state.seq);
    return ok({
      kind: 'pdf',
      pdf: await reportPdf(sheet, view, task.pictures, task.root),
      template: layoutOf(view).template,
      sections: {},
      flags: 0,
      version: 0,
    });
  }
  const model = reportModel(view, task.state.head, task.state.seq, {
    routes: simulatedRoutes(view, diagnose(view), today),
    ...(task.signing ? { signing: task.signing } : {}),
  });
  const pdf = await reportPdf(model, view, task.pictures, task.root);
  return ok({
    kind: 'pdf',
    pdf,
    template: layoutOf(view).template,
    sections: sectionHashes(model),
    flags: model.flags.length,
    version: model.signing?.version ?? 0,
  });
}

answerTasks(make, {
  code: 'account-failed',
  sentence: 'The account could not be made. Nothing was signed or lost; try again, and leave out the picture added last if it fails again.',
});
