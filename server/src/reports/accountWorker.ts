import type { Letter, Outcome } from '@true-ledger/contract';
import { fail, ok } from '@true-ledger/core/kit';
import type { CaseState } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { diagnose } from '@true-ledger/core/diagnosis';
import { simulatedRoutes } from '@true-ledger/core/salvage';
import {
  assemblyModel,
  coverModel,
  filledLetter,
  layoutOf,
  machineShopModel,
  reportModel,
  sectionHashes,
  type CoverOf,
  type Letterhead,
  type LetterTemplate,
  type Parties,
  type ReportModel,
  type ReportOptions,
} from '@true-ledger/core/report';
import { PDFDocument } from 'pdf-lib';
import { answerTasks } from '../threads/taskThread.js';
import { accountPicture, type Shown } from './accountPicture.js';
import { reportHtml } from './html.js';
import { letterPdf } from './letterPdf.js';
import { reportPdf } from './pdf.js';

export interface WantedPicture {
  readonly station: string;
  readonly sha256: string;
  readonly originalWidth: number;
  readonly work: Uint8Array;
}

/** Sheets handed on beside the account. */
export type Sheet = 'machine-shop' | 'assembly';

const SHEETS = { 'machine-shop': machineShopModel, assembly: assemblyModel } as const satisfies Readonly<Record<Sheet, unknown>>;

export type AccountTask =
  | { readonly kind: 'pictures'; readonly state: CaseState; readonly wanted: readonly WantedPicture[]; readonly shown: Shown }
  | {
      readonly kind: 'pdf';
      readonly state: CaseState;
      readonly pictures: ReadonlyMap<string, Uint8Array>;
      readonly of: 'account' | Sheet;
      readonly paper: Pick<ReportOptions, 'letterhead' | 'key' | 'signing'>;
      readonly root: string;
    }
  /** The account as one HTML file. */
  | {
      readonly kind: 'html';
      readonly state: CaseState;
      readonly pictures: ReadonlyMap<string, Uint8Array>;
      readonly paper: Pick<ReportOptions, 'letterhead' | 'key' | 'signing'>;
    }
  /** A letter of the case, as the template has it. */
  | {
      readonly kind: 'letter-words';
      readonly state: CaseState;
      readonly parties: Parties;
      readonly letterhead: Letterhead | null;
      readonly template: LetterTemplate;
    }
  /** Sets a letter as it was worded. */
  | {
      readonly kind: 'letter';
      readonly letter: Letter;
      readonly letterhead: Letterhead | null;
      readonly day: string;
      readonly root: string;
    }
  /** Sets the cover sheet before an account. */
  | {
      readonly kind: 'cover';
      readonly state: CaseState;
      readonly parties: Parties;
      readonly of: CoverOf;
      readonly account: Uint8Array;
      readonly root: string;
    };

export interface MadePdf {
  readonly pdf: Uint8Array;
  readonly template: EntryBodies['account-signed']['template'];
  readonly sections: EntryBodies['account-signed']['sections'];
  readonly flags: number;
  readonly version: number;
}

export type AccountAnswer =
  | { readonly kind: 'cover' | 'letter'; readonly pdf: Uint8Array }
  | ({ readonly kind: 'letter-words' } & LetterTemplate)
  | { readonly kind: 'html'; readonly html: string }
  | { readonly kind: 'pictures'; readonly jpegs: readonly Uint8Array[] }
  | ({ readonly kind: 'pdf' } & MadePdf);

/** Pictures and pages of accounts, made in a thread: a long account takes seconds. */
async function make(task: AccountTask): Promise<Outcome<AccountAnswer>> {
  if (task.kind === 'letter') return ok({ kind: 'letter', pdf: await letterPdf(task.letter, task.letterhead, task.day, task.root) });
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
  if (task.kind === 'cover') {
    const cover = await reportPdf(coverModel(view, task.parties, task.state.head, task.state.seq, task.of), view, new Map(), task.root);
    return ok({ kind: 'cover', pdf: await before(cover, task.account) });
  }
  const routes = () => simulatedRoutes(view, diagnose(view), new Date());
  if (task.kind === 'letter-words')
    return ok({ kind: 'letter-words', ...filledLetter(view, task.template, { ...task, routes: routes() }) });
  const account = (): ReportModel => reportModel(view, task.state.head, task.state.seq, { routes: routes(), ...task.paper });
  if (task.kind === 'html') return ok({ kind: 'html', html: reportHtml(account(), view, task.pictures) });
  if (task.of !== 'account') {
    const sheet = SHEETS[task.of](view, task.state.head, task.state.seq, task.paper.letterhead);
    return ok({
      kind: 'pdf',
      pdf: await reportPdf(sheet, view, task.pictures, task.root),
      template: layoutOf(view).template,
      sections: {},
      flags: 0,
      version: 0,
    });
  }
  const model = account();
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

/** A PDF with the pages of another set before its own; its outline stays. */
async function before(cover: Uint8Array, account: Uint8Array): Promise<Uint8Array> {
  const whole = await PDFDocument.load(account);
  const first = await PDFDocument.load(cover);
  const pages = await whole.copyPages(first, first.getPageIndices());
  pages.forEach((page, i) => whole.insertPage(i, page));
  return whole.save();
}

answerTasks(make, {
  code: 'account-failed',
  sentence: 'The account could not be made. Nothing was signed or lost; try again, and leave out the picture added last if it fails again.',
});
