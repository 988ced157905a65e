import { Injectable } from '@nestjs/common';
import type { ImportAnswer } from '@true-ledger/contract';
import { acceptEntries, emptyCase, fileOf, readableVersion, readBundle, type EntryBodies, type LedgerEntry } from '@true-ledger/core';
import { DataSource, In, type EntityManager } from 'typeorm';
import { clipMime } from '../clips/clips.service.js';
import { CaseClipRow, CasePhotoRow, CaseRow, ClipRow, EntryRow, PhotoRow, SignedAccountRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { CHANNEL, entryOf, LedgerService, rowOf } from '../ledger/ledger.service.js';
import { dropFile } from '../ledger/redactions.service.js';
import { readPicture } from '../photos/readPicture.js';
import { OpenZip } from './openZip.js';

const TEXTS = ['ledger.jsonl', 'case.json', 'measurements.csv', 'findings.csv'] as const;
type Picture = Awaited<ReturnType<typeof readPicture>>;

interface CheckedBundle {
  readonly caseId: string;
  readonly number: string;
  readonly entries: readonly LedgerEntry[];
  readonly head: string;
  /** Renditions made while checking, by SHA-256. */
  readonly pictures: ReadonlyMap<string, Picture>;
}

/** Takes a bundle in: everything is checked before a row is written, and then written in one transaction. */
@Injectable()
export class ImportService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  async take(path: string): Promise<ImportAnswer> {
    const zip = await OpenZip.open(path);
    try {
      const bundle = await check(zip);
      return await this.db.transaction((tx) => this.store(tx, zip, bundle));
    } finally {
      zip.close();
    }
  }

  private async store(tx: EntityManager, zip: OpenZip, bundle: CheckedBundle): Promise<ImportAnswer> {
    const { caseId, entries, head } = bundle;
    const cases = tx.getRepository(CaseRow);
    const rows = tx.getRepository(EntryRow);
    await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', [caseId]);
    const here = await cases.findOne({ where: { id: caseId }, lock: { mode: 'pessimistic_write' } });
    const held = here ? (await rows.find({ where: { caseId }, order: { seq: 'ASC' } })).map(entryOf) : [];
    const parted = held.slice(0, entries.length).find((e, i) => e.hash !== entries[i]!.hash);
    if (parted)
      throw new ProblemError({
        code: 'bundle-parted',
        sentence: `This case is here already and went another way from entry ${parted.seq} on. Nothing was changed: settle which of the two is to stand, and keep the other as its bundle.`,
      });
    const answer = { caseId, number: here?.number ?? bundle.number, entries: Math.max(entries.length, held.length) };
    if (here && held.length >= entries.length) return { ...answer, outcome: 'same', head: here.head };
    const fresh = entries.slice(held.length);
    if (await rows.existsBy({ id: In(fresh.map((e) => e.id)) }))
      throw new ProblemError({
        code: 'bundle-refused',
        sentence: 'The bundle was refused: one of its entries has the id of an entry of another case. Nothing was changed.',
      });
    if (!here)
      await cases.insert({
        id: caseId,
        number: await freeNumber(tx, bundle.number),
        title: '',
        reference: '',
        seq: 0,
        head: '',
        state: emptyCase(caseId),
        stateSeq: 0,
        summary: {},
        updated: new Date(),
      });
    for (let i = 0; i < fresh.length; i += 200) await rows.insert(fresh.slice(i, i + 200).map(rowOf) as never);
    // What was struck there since is struck here as well.
    const struck = entries.slice(0, held.length).filter((e, i) => e.body === null && held[i]!.body !== null);
    for (const e of struck) {
      const file = fileOf(held[e.seq - 1]!);
      await rows.update(e.id, { body: null, salt: '' });
      if (file && (e.kind === 'photo-added' || e.kind === 'clip-added')) await dropFile(tx, caseId, e.kind, file.sha256);
    }
    for (const entry of fresh) await storeFile(tx, zip, bundle, entry);
    const state = await this.ledger.refold(tx, caseId);
    await tx.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify({ caseId, seq: state.seq })]);
    const number = here?.number ?? (await cases.findOneByOrFail({ id: caseId })).number;
    return { ...answer, number, outcome: here ? 'continued' : 'new', head };
  }
}

/** The bundle's number, or with /2, /3 … where another case of this shop has it. */
async function freeNumber(tx: EntityManager, wanted: string): Promise<string> {
  for (let n = 1; ; n++) {
    const number = n === 1 ? wanted : `${wanted}/${n}`;
    if (!(await tx.getRepository(CaseRow).existsBy({ number }))) return number;
  }
}

async function check(zip: OpenZip): Promise<CheckedBundle> {
  const texts = new Map<string, string | null>();
  for (const name of TEXTS) texts.set(name, (await zip.read(name))?.toString('utf8') ?? null);
  const version = readableVersion(texts.get('case.json') ?? null);
  if (!version.ok) throw ProblemError.of(version.problem);
  const hashes = new Map<string, string | null>();
  for (const name of zip.names) if (!texts.has(name)) hashes.set(name, await zip.sha256(name));
  const { verdict, entries } = readBundle({ text: (name) => texts.get(name) ?? null, sha256: (name) => hashes.get(name) ?? null });
  if (verdict.broken)
    throw new ProblemError({
      code: verdict.broken.newer ? 'bundle-newer' : 'bundle-broken',
      sentence: `The bundle was refused: ${verdict.broken.newer ? 'it comes from a newer version; bring this one up to date first. It stops' : 'it does not hold'} at entry ${verdict.broken.seq}${verdict.broken.id ? ` (${verdict.broken.id})` : ''}: ${verdict.broken.reason}. Nothing was changed.`,
    });
  const accepted = acceptEntries(entries);
  if (!accepted.ok) throw ProblemError.of(accepted.problem);
  if (!verdict.ok)
    throw new ProblemError({
      code: 'bundle-broken',
      sentence: `The bundle was refused: ${verdict.disagreements.join('; ')}. Nothing was changed.`,
    });
  const pictures = new Map<string, Picture>();
  for (const entry of entries) {
    const file = fileOf(entry);
    if (!file || pictures.has(file.sha256)) continue;
    const bytes = (await zip.read(file.name))!;
    try {
      if (entry.kind === 'photo-added') pictures.set(file.sha256, await readPicture(bytes));
      else if (entry.kind === 'clip-added') await clipMime(bytes, (entry.body as EntryBodies['clip-added']).mime);
      else if (bytes.subarray(0, 5).toString('latin1') !== '%PDF-') throw new Error('not a PDF');
    } catch {
      throw new ProblemError({
        code: 'bundle-refused',
        sentence: `The bundle was refused: the ${file.what} of entry ${entry.seq} is not a ${file.what} that is taken here. Nothing was changed.`,
      });
    }
  }
  return { ...accepted.value, entries, head: verdict.head, pictures };
}

async function storeFile(tx: EntityManager, zip: OpenZip, bundle: CheckedBundle, entry: LedgerEntry): Promise<void> {
  const file = fileOf(entry);
  if (!file) return;
  const { caseId } = bundle;
  const { sha256 } = file;
  const bytes = (await zip.read(file.name))!;
  const keep = (row: Parameters<EntityManager['getRepository']>[0], values: object): Promise<unknown> =>
    tx.createQueryBuilder().insert().into(row).values(values).orIgnore().execute();
  if (entry.kind === 'photo-added') {
    const { mime, width, height, work, thumb } = bundle.pictures.get(sha256)!;
    await keep(PhotoRow, { sha256, mime, width, height, original: bytes, work, thumb });
    await keep(CasePhotoRow, { caseId, sha256 });
  } else if (entry.kind === 'clip-added') {
    await keep(ClipRow, { sha256, mime: (entry.body as EntryBodies['clip-added']).mime, bytes });
    await keep(CaseClipRow, { caseId, sha256 });
  } else await keep(SignedAccountRow, { caseId, version: (entry.body as EntryBodies['account-signed']).version, sha256, pdf: bytes });
}
