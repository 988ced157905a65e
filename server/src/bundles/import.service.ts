import { Injectable } from '@nestjs/common';
import type { ImportAnswer } from '@true-ledger/contract';
import { emptyCase, type Author, type EntryDraft, type LedgerEntry } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import { fileOf, type SealVerdict } from '@true-ledger/core/bundle';
import { createReadStream } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { DataSource, In, type EntityManager } from 'typeorm';
import { CaseClipRow, CasePhotoRow, CaseRow, ClipRow, EntryRow, PhotoRow, SignedAccountRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { LAID_OUT } from '../intake/leftovers.js';
import { IntakeService } from '../intake/intake.service.js';
import type { AcceptedBundle } from '../intake/intakeWorker.js';
import { KeysService } from '../keys/keys.service.js';
import { CHANNEL, LedgerService, refuseHollow, rowOf } from '../ledger/ledger.service.js';

/** What an import does besides adding observations is done here by hand or not at all. */
const NEVER_TAKEN_OVER: ReadonlySet<string> = new Set(['case-released', 'case-shelved', 'account-signed', 'redacted']);

const OVERSTEPS: Readonly<Record<string, string>> = {
  'case-released': 'release',
  'case-shelved': 'put away',
  'account-signed': 'sign',
};

interface Laid {
  readonly bundle: AcceptedBundle;
  /** Folder of the checked bundle. */
  readonly folder: string;
  /** Shop its entries stand for; absent: this one. */
  readonly origin: string | undefined;
}

/**
 * Takes a bundle in: everything is checked before a row is written, and then written in one transaction.
 *
 * A case that is new here stands as what another shop wrote, under that shop's key, unless the bundle is sealed with a key of our own. Into a case that is
 * here already only what its importer might have written himself is added, through the same gate and under his own name.
 */
@Injectable()
export class ImportService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly intake: IntakeService,
    private readonly keys: KeysService,
  ) {}

  /** `standing: 'ours'` is for what the application itself ships; nothing that comes over a wire has it. */
  async take(path: string, importer: Author, standing: 'by-seal' | 'ours' = 'by-seal'): Promise<ImportAnswer> {
    const folder = await mkdtemp(join(tmpdir(), LAID_OUT));
    try {
      const bundle = await this.intake.bundle(path, join(folder, 'bundle'));
      const laid: Laid = { bundle, folder: join(folder, 'bundle'), origin: standing === 'ours' ? undefined : this.originOf(bundle.seal) };
      return await this.db.transaction((tx) => this.store(tx, laid, importer));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  private originOf(seal: SealVerdict): string | undefined {
    if (seal.state !== 'holds') return 'another shop, unsigned';
    if (this.keys.isOurs(seal.key)) return undefined;
    return `${seal.shop || 'another shop'}, key ${seal.fingerprint}`;
  }

  private async store(tx: EntityManager, laid: Laid, importer: Author): Promise<ImportAnswer> {
    const { caseId, lines, head, number } = laid.bundle;
    const cases = tx.getRepository(CaseRow);
    const rows = tx.getRepository(EntryRow);
    await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', [caseId]);
    const here = await cases.findOne({
      where: { id: caseId },
      select: { id: true, number: true, head: true },
      lock: { mode: 'pessimistic_write' },
    });
    const held = here
      ? await rows.find({ where: { caseId }, order: { seq: 'ASC' }, select: { id: true, seq: true, hash: true, origin: true } })
      : [];
    let same = 0;
    while (same < held.length && same < lines.length && held[same]!.hash === lines[same]!.hash) same++;
    const known = new Set(held.map((e) => e.id));
    const offered = new Set(lines.map((l) => l.id));
    const parted = held.slice(same).find((e) => !offered.has(e.id));
    if (parted && same < lines.length)
      throw new ProblemError({
        code: 'bundle-parted',
        sentence: `This case is here already and went another way from entry ${parted.seq} on. Nothing was changed: settle which of the two is to stand, and keep the other as its bundle.`,
      });
    const answer = { caseId, number: here?.number ?? number, entries: Math.max(lines.length, held.length) };
    const fresh = lines.slice(same).filter((l) => !known.has(l.id));
    if (here && fresh.length === 0) return { ...answer, outcome: 'same', head: here.head };
    if (await rows.existsBy({ id: In(fresh.map((l) => l.id)) }))
      throw new ProblemError({
        code: 'bundle-refused',
        sentence: 'The bundle was refused: one of its entries has the id of an entry of another case. Nothing was changed.',
      });
    // Goes on as it is where the whole case is of one hand: written under our own key, or all of it by the shop that sends the rest.
    const goesOn = same === held.length && (laid.origin === undefined || held.every((e) => e.origin === laid.origin));
    if (!here)
      await cases.insert({
        id: caseId,
        number: await freeNumber(tx, number),
        title: '',
        reference: '',
        seq: 0,
        head: '',
        state: emptyCase(caseId),
        stateSeq: 0,
        summary: {},
        updated: new Date(),
      });
    if (!here || goesOn) await this.copy(tx, laid, held.length);
    else await this.addAsOwn(tx, laid, new Set(fresh.map((l) => l.id)), importer);
    const state = await this.ledger.refold(tx, caseId);
    // On the shelf it stands by when it was last written, not by when it came.
    await tx.query('UPDATE cases SET updated = (SELECT time::timestamptz FROM entries WHERE "caseId" = $1 AND seq = $2) WHERE id = $1', [
      caseId,
      state.seq,
    ]);
    await tx.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify({ caseId, seq: state.seq })]);
    const taken = here?.number ?? (await cases.findOneOrFail({ where: { id: caseId }, select: { id: true, number: true } })).number;
    return { ...answer, number: taken, entries: state.seq, outcome: here ? 'continued' : 'new', head: here && !goesOn ? state.head : head };
  }

  /** Entries after `after` as they are in the bundle, standing for the shop that sealed it. */
  private async copy(tx: EntityManager, laid: Laid, after: number): Promise<void> {
    let batch: EntryRow[] = [];
    const flush = async (): Promise<void> => {
      if (batch.length > 0) await tx.getRepository(EntryRow).insert(batch as never);
      batch = [];
    };
    for await (const entry of linesOf(laid)) {
      if (entry.seq <= after) continue;
      batch.push({ ...rowOf(entry), origin: laid.origin ?? null });
      if (batch.length >= 200) await flush();
      await storeFile(tx, laid, entry);
    }
    await flush();
  }

  /** What the importer might have written, as his own: checked like anything he sends, under his name and now. */
  private async addAsOwn(tx: EntityManager, laid: Laid, wanted: ReadonlySet<string>, importer: Author): Promise<void> {
    const drafts: EntryDraft[] = [];
    for await (const entry of linesOf(laid)) {
      if (!wanted.has(entry.id)) continue;
      const { id, seq, kind, station, body } = entry;
      if (NEVER_TAKEN_OVER.has(kind) || body === null)
        throw new ProblemError({
          code: 'bundle-oversteps',
          sentence: `The bundle was refused: its entry ${seq} would ${OVERSTEPS[kind] ?? 'strike'} in a case of this shop. That is done here, by who answers for it. Nothing was changed.`,
        });
      drafts.push({ id, kind, station, body, basedOn: kind === 'retracted' ? null : entry.supersedes });
      await storeFile(tx, laid, entry);
    }
    for (const draft of drafts) await refuseHollow(tx, laid.bundle.caseId, draft);
    await this.ledger.appendIn(tx, laid.bundle.caseId, drafts, importer);
  }
}

async function* linesOf({ folder }: Laid): AsyncGenerator<LedgerEntry> {
  for await (const line of createInterface({ input: createReadStream(join(folder, 'entries.jsonl')), crlfDelay: Infinity }))
    if (line !== '') yield JSON.parse(line) as LedgerEntry;
}

/** The bundle's number, or with /2, /3 … where another case of this shop has it. */
async function freeNumber(tx: EntityManager, wanted: string): Promise<string> {
  for (let n = 1; ; n++) {
    const number = n === 1 ? wanted : `${wanted}/${n}`;
    if (!(await tx.getRepository(CaseRow).existsBy({ number }))) return number;
  }
}

async function storeFile(tx: EntityManager, { bundle, folder }: Laid, entry: LedgerEntry): Promise<void> {
  const file = fileOf(entry);
  if (!file) return;
  const { caseId } = bundle;
  const { sha256 } = file;
  const read = (name: string): Promise<Buffer> => readFile(join(folder, name));
  const keep = (row: Parameters<EntityManager['getRepository']>[0], values: object): Promise<unknown> =>
    tx.createQueryBuilder().insert().into(row).values(values).orIgnore().execute();
  if (entry.kind === 'photo-added') {
    const { mime, width, height } = bundle.pictures.find((p) => p.sha256 === sha256)!;
    await keep(PhotoRow, {
      sha256,
      mime,
      width,
      height,
      original: await read(sha256),
      work: await read(`${sha256}.work`),
      thumb: await read(`${sha256}.thumb`),
    });
    await keep(CasePhotoRow, { caseId, sha256 });
  } else if (entry.kind === 'clip-added') {
    await keep(ClipRow, { sha256, mime: (entry.body as EntryBodies['clip-added']).mime, bytes: await read(sha256) });
    await keep(CaseClipRow, { caseId, sha256 });
  } else
    await keep(SignedAccountRow, {
      caseId,
      version: (entry.body as EntryBodies['account-signed']).version,
      sha256,
      pdf: await read(sha256),
    });
}
