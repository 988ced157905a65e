import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { sha256Hex } from '@true-ledger/core/kit';
import type { Author, CaseState, LedgerEntry } from '@true-ledger/core/ledger';
import type { CaseView } from '@true-ledger/core/case';
import { assemblyPictures, layoutOf, pictureNumbers, type LetterTo } from '@true-ledger/core/report';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { DataSource, In } from 'typeorm';
import type { Letter, PdfProgress, Refusal } from '@true-ledger/contract';
import { CONFIG, type ServerConfig } from '../config.js';
import { CasePhotoRow, EntryRow, SignedAccountRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { entryOf, LedgerService } from '../ledger/ledger.service.js';
import { KeysService } from '../keys/keys.service.js';
import { ShopService } from '../shop/shop.service.js';
import { PhotosService, type Rendition } from '../photos/photos.service.js';
import { TaskThread } from '../threads/taskThread.js';
import { pictureKey, type Shown } from './accountPicture.js';
import type { AccountAnswer, AccountTask, Sheet } from './accountWorker.js';

/** The first account should not wait for its threads to be loaded, nor the first page for the threads: they are started when the server has answered a while, ms. */
const WARM_AFTER_MS = 4000;
/** Pictures drawn in one go by a thread. */
const AT_ONCE = 15;

/** What an account is made of, whatever it is made as. */
type Given = Omit<Extract<AccountTask, { kind: 'html' }>, 'kind'>;

/** Accounts of cases: pictures as they show them, drafts, signed versions. */
@Injectable()
export class ReportsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly threads: ReadonlyArray<TaskThread<AccountTask, AccountAnswer>>;
  private warming: NodeJS.Timeout | undefined;
  /** How far the PDFs are that are being made, by case and the run the asker named. */
  private readonly under = new Map<string, PdfProgress>();

  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
    private readonly keys: KeysService,
    private readonly shop: ShopService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {
    const file = join(config.root, 'server', 'dist', 'reports', 'accountWorker.js');
    const stopped: Refusal = {
      code: 'account-failed',
      sentence: 'The account was not made: its thread ended. Nothing was signed or lost; try again.',
    };
    const bounds = { timeMs: 120_000, memoryMb: 1536 };
    this.threads = [new TaskThread(file, stopped, bounds), new TaskThread(file, stopped, bounds)];
  }

  onApplicationBootstrap(): void {
    this.warming = setTimeout(() => this.threads.forEach((t) => t.warm()), WARM_AFTER_MS).unref();
  }

  private async run<K extends AccountTask['kind']>(task: Extract<AccountTask, { kind: K }>): Promise<Extract<AccountAnswer, { kind: K }>> {
    const thread = this.threads.reduce((a, b) => (b.load < a.load ? b : a));
    const result = await thread.run(task);
    if (!result.ok) throw ProblemError.of(result.problem);
    return result.value as Extract<AccountAnswer, { kind: K }>;
  }

  /** One picture as accounts show it, personal things blurred. */
  async picture(caseId: string, station: string, sha256: string, shown: Shown): Promise<Buffer> {
    const { state, view } = await this.ledger.view(caseId);
    const drawn = await this.pictures(caseId, state, view, [{ station, sha256 }], shown);
    const jpeg = drawn.get(pictureKey(station, sha256));
    if (!jpeg) throw new ProblemError({ code: 'not-found', sentence: 'This place holds no such picture.' });
    return Buffer.from(jpeg);
  }

  /** Pictures as accounts show them, by `pictureKey`; drawn again only where picture, corners, marks or blur changed, and kept unless told not to. */
  private async pictures(
    caseId: string,
    state: CaseState,
    view: CaseView,
    wanted: ReadonlyArray<{ station: string; sha256: string }>,
    shown: Shown,
    told: (done: number, total: number) => void = () => undefined,
    keep = true,
  ): Promise<Map<string, Uint8Array>> {
    const links = this.db.getRepository(CasePhotoRow);
    const held = new Map(
      (
        await links.find({
          where: { caseId, sha256: In(wanted.map((w) => w.sha256)) },
          select: { caseId: true, sha256: true, accountKey: true, accountPicture: true },
        })
      ).map((row) => [row.sha256, row]),
    );
    const drawn = new Map<string, Uint8Array>();
    const missing: Array<{ station: string; sha256: string; key: string; originalWidth: number; rendition: Rendition }> = [];
    for (const { station, sha256 } of wanted) {
      const place = view.byId.get(station);
      const photo = place?.photos.find((p) => p.value.sha256 === sha256)?.value;
      if (!place || !photo || !held.has(sha256)) continue;
      const regions = await this.photos.regionsOf(sha256);
      const last = (of: ReadonlyArray<{ readonly version: { readonly seq: number } }>): number =>
        of.reduce((n, x) => Math.max(n, x.version.seq), 0);
      const key = [
        station,
        place.corners[sha256]?.version.seq ?? 0,
        last(place.marks),
        place.marks.length,
        last(place.reads),
        regions.length === 0 ? 0 : sha256Hex(JSON.stringify(regions)),
        shown.marks,
        shown.inset,
      ].join('|');
      const row = held.get(sha256)!;
      if (row.accountKey === key && row.accountPicture) drawn.set(pictureKey(station, sha256), row.accountPicture);
      else {
        const rendition = regions.length > 0 ? 'shared-work' : 'work';
        missing.push({ station, sha256, key, originalWidth: photo.width, rendition });
      }
    }
    const portions = Array.from({ length: Math.ceil(missing.length / AT_ONCE) }, (_, i) => missing.slice(i * AT_ONCE, (i + 1) * AT_ONCE));
    told(drawn.size, wanted.length);
    const draw = async (portion: typeof missing): Promise<void> => {
      const files = [];
      for (const { rendition, ...m } of portion) files.push({ ...m, work: (await this.photos.bytes(caseId, m.sha256, rendition)).bytes });
      const { jpegs } = await this.run<'pictures'>({ kind: 'pictures', state, wanted: files, shown });
      for (const [i, m] of portion.entries()) {
        drawn.set(pictureKey(m.station, m.sha256), jpegs[i]!);
        if (keep) await links.update({ caseId, sha256: m.sha256 }, { accountKey: m.key, accountPicture: Buffer.from(jpegs[i]!) });
      }
      told(drawn.size, wanted.length);
    };
    // As many portions under way as there are threads.
    const hand = async (): Promise<void> => {
      for (let portion = portions.shift(); portion; portion = portions.shift()) await draw(portion);
    };
    await Promise.all(this.threads.map(hand));
    return drawn;
  }

  /** The account made one way or another, with its pictures drawn; how far that is can be asked by the run. */
  private async make<K extends 'pdf' | 'html'>(
    taskOf: (given: Given) => Extract<AccountTask, { kind: K }>,
    caseId: string,
    state: CaseState,
    view: CaseView,
    { signing, run }: { signing?: { by: string; time: string; reason: string } | undefined; run?: string | undefined } = {},
  ): Promise<Extract<AccountAnswer, { kind: K }>> {
    const paper = { letterhead: await this.shop.letterhead(), key: this.keys.publicKeys().fingerprint, ...(signing ? { signing } : {}) };
    const layout = layoutOf(view);
    const numbers = pictureNumbers(view, layout);
    const wanted = view.stations
      .filter((s) => s.state === 'findings')
      .flatMap((s) => s.photos.map((p) => ({ station: s.station.id, sha256: p.value.sha256 })))
      .filter((p) => numbers.has(p.sha256));
    const key = run ? `${caseId} ${run}` : null;
    const told = (stage: PdfProgress['stage']) => (done: number, total: number) =>
      void (key && this.under.set(key, { stage, done, total }));
    try {
      const pictures = await this.pictures(caseId, state, view, wanted, { marks: layout.marks, inset: layout.insets }, told('pictures'));
      told('pages')(0, 1);
      return await this.run<K>(taskOf({ state, pictures, paper }));
    } finally {
      if (key) this.under.delete(key);
    }
  }

  private readonly asPdf = (given: Given): Extract<AccountTask, { kind: 'pdf' }> => ({
    kind: 'pdf',
    of: 'account',
    root: this.config.root,
    ...given,
  });

  /** How far a run is; null when it is over, or was never begun here. */
  progress(caseId: string, run: string): PdfProgress | null {
    return this.under.get(`${caseId} ${run}`) ?? null;
  }

  /** The account as it stands, marked as a draft. */
  async draft(caseId: string, run?: string): Promise<{ bytes: Buffer; number: string }> {
    const { state, view } = await this.ledger.view(caseId);
    return { bytes: Buffer.from((await this.make(this.asPdf, caseId, state, view, { run })).pdf), number: view.number };
  }

  /** The same as one HTML file. */
  async html(caseId: string, run?: string): Promise<{ html: string; number: string }> {
    const { state, view } = await this.ledger.view(caseId);
    return { html: (await this.make((given) => ({ kind: 'html', ...given }), caseId, state, view, { run })).html, number: view.number };
  }

  /** The sheet that goes to the machine shop, with the parts to buy. */
  machineShop(caseId: string): Promise<{ bytes: Buffer; number: string }> {
    return this.sheet(caseId, 'machine-shop');
  }

  /** The assembly book: the strip backwards with its pictures. */
  assembly(caseId: string): Promise<{ bytes: Buffer; number: string }> {
    return this.sheet(caseId, 'assembly');
  }

  private async sheet(caseId: string, of: Sheet): Promise<{ bytes: Buffer; number: string }> {
    const { state, view } = await this.ledger.view(caseId);
    const wanted = of === 'assembly' ? assemblyPictures(view) : [];
    // Drawn as they were taken, and not kept: what is kept is drawn for the account.
    const pictures = await this.pictures(caseId, state, view, wanted, { marks: false, inset: false }, undefined, false);
    const paper = { letterhead: await this.shop.letterhead() };
    const made = await this.run<'pdf'>({ kind: 'pdf', of, state, pictures, paper, root: this.config.root });
    return { bytes: Buffer.from(made.pdf), number: view.number };
  }

  /** A letter made ready from the case and the shop's template, to be read over. */
  async letter(caseId: string, to: LetterTo): Promise<Letter> {
    const { state } = await this.ledger.view(caseId);
    const { parties } = await this.shop.parties(caseId);
    const { letters } = await this.shop.shop();
    const { subject, body } = await this.run<'letter-words'>({
      kind: 'letter-words',
      state,
      parties,
      letterhead: await this.shop.letterhead(),
      template: letters[to],
    });
    const { name, address } = parties.client;
    return { addressee: to === 'client' ? [name, address].filter(Boolean).join('\n') : '', subject, body };
  }

  /** A letter as it was worded, on the paper of the shop. */
  async letterPdf(caseId: string, letter: Letter): Promise<{ bytes: Buffer; number: string }> {
    const { view } = await this.ledger.view(caseId);
    const { pdf } = await this.run<'letter'>({
      kind: 'letter',
      letter,
      letterhead: await this.shop.letterhead(),
      day: new Date().toISOString().slice(0, 10),
      root: this.config.root,
    });
    return { bytes: Buffer.from(pdf), number: view.number };
  }

  /** Signs the account as the next version: the PDF is made, stored, and entered by its hash, unless somebody wrote meanwhile. */
  async sign(
    caseId: string,
    { id = randomUUID(), head, reason, acceptFlags }: { id?: string; head: string; reason: string; acceptFlags: boolean },
    author: Author,
  ): Promise<LedgerEntry> {
    const before = await this.db.getRepository(EntryRow).findOneBy({ id });
    if (before) {
      // Asked again because the answer was lost on the way: it is signed.
      if (before.caseId === caseId && before.kind === 'account-signed' && before.authorId === author.id) return entryOf(before);
      throw new ProblemError({ code: 'entry-id', sentence: 'An entry with this id is something else. Nothing was signed.' });
    }
    const { state, view } = await this.ledger.view(caseId);
    if (state.head !== head) throw movedOn();
    if (view.signed.length > 0 && reason.length < 3)
      throw new ProblemError({
        code: 'amendment-reason',
        sentence: `Version ${view.signed.length} is signed. Say what this version amends and why; nothing was signed.`,
        field: 'reason',
      });
    const time = new Date();
    const made = await this.make(this.asPdf, caseId, state, view, {
      signing: { by: author.name, time: time.toISOString(), reason },
      run: id,
    });
    if (made.flags > 0 && !acceptFlags)
      throw new ProblemError({
        code: 'account-flags',
        sentence: `${made.flags} passage${made.flags === 1 ? ' says' : 's say'} what the figures do not. Put them right, or sign over them; the account will say so. Nothing was signed.`,
        field: 'acceptFlags',
      });
    const pdf = Buffer.from(made.pdf);
    return this.db.transaction(async (tx) => {
      if ((await this.ledger.lockedState(tx, caseId)).head !== head) throw movedOn();
      const [entry] = await this.ledger.appendIn(
        tx,
        caseId,
        [
          {
            id,
            kind: 'account-signed',
            station: null,
            basedOn: null,
            body: {
              version: made.version,
              reason,
              template: made.template,
              sha256: sha256Hex(pdf),
              bytes: pdf.length,
              head: state.head,
              entries: state.seq,
              sections: made.sections,
              flags: made.flags,
            },
          },
        ],
        author,
        time,
      );
      await tx.getRepository(SignedAccountRow).insert({ caseId, version: made.version, sha256: sha256Hex(pdf), pdf });
      return entry!;
    });
  }

  /** The PDF of a signed version, as it was signed. */
  async signed(caseId: string, version: number): Promise<Buffer> {
    const row = await this.db
      .getRepository(SignedAccountRow)
      .findOne({ where: { caseId, version }, select: { caseId: true, version: true, pdf: true } });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: `Version ${version} of this account was not signed.` });
    return row.pdf;
  }

  /** An account with the sheet before it that names client and engine; `version` null: the draft. */
  async covered(caseId: string, version: number | null, run?: string): Promise<{ bytes: Buffer; number: string }> {
    const { state, view } = await this.ledger.view(caseId);
    const account = version === null ? (await this.draft(caseId, run)).bytes : await this.signed(caseId, version);
    const { pdf } = await this.run<'cover'>({
      kind: 'cover',
      state,
      parties: (await this.shop.parties(caseId)).parties,
      of: { signed: version === null ? null : { version, sha256: sha256Hex(account) }, letterhead: await this.shop.letterhead() },
      account,
      root: this.config.root,
    });
    return { bytes: Buffer.from(pdf), number: view.number };
  }

  async onApplicationShutdown(): Promise<void> {
    clearTimeout(this.warming);
    await Promise.all(this.threads.map((t) => t.end()));
  }
}

const movedOn = (): ProblemError =>
  new ProblemError({
    code: 'account-moved',
    sentence: 'Something was recorded since you looked at this account. Nothing was signed; look at it as it stands now and sign again.',
  });
