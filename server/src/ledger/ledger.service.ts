import { Injectable } from '@nestjs/common';
import {
  currentVersion,
  emptyCase,
  FIRST_PREV,
  sealEntry,
  type Author,
  type CaseState,
  type EntryDraft,
  type KeptEntry,
  type LedgerEntry,
} from '@true-ledger/core/ledger';
import { applyEntry, draftConflict, foldEntries, entryDefinition, type EntryBody } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { checkEntry } from '@true-ledger/core/gate';
import { randomBytes } from 'node:crypto';
import { Subject } from 'rxjs';
import { DataSource, In, MoreThan, type EntityManager } from 'typeorm';
import { CaseClipRow, CasePhotoRow, CaseRow, EntryRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { turns } from '../threads/turn.js';
import { StateCache } from './stateCache.js';
import { blankSummary } from './summary.js';

export const CHANNEL = 'true_ledger_case';
export function entryOf(row: EntryRow): KeptEntry {
  const { id, caseId, seq, kind, station, authorId, authorName, time, supersedes, body, salt, bodyHash, prev, hash, origin } = row;
  const line = {
    id,
    caseId,
    seq,
    kind,
    station,
    author: { id: authorId, name: authorName },
    time,
    supersedes,
    body,
    salt,
    bodyHash,
    prev,
    hash,
  };
  return origin === null ? line : { ...line, origin };
}

export function rowOf(entry: LedgerEntry): EntryRow {
  const { author, ...rest } = entry;
  return { ...rest, authorId: author.id, authorName: author.name, origin: null };
}

type CaseHead = Pick<CaseRow, 'id' | 'seq' | 'head' | 'stateSeq'>;
const HEAD = { id: true, seq: true, head: true, stateSeq: true } as const;

/** Refuses entries that would stand for something which is not there: a second opening of the case, a picture the case does not hold. */
export async function refuseHollow(tx: EntityManager, caseId: string, draft: EntryDraft): Promise<void> {
  if (entryDefinition(draft.kind)?.byServer)
    throw new ProblemError({
      code: 'entry-kind',
      sentence:
        'Signatures, redactions and what belongs to a practice engine are written by the server with what they stand for, not sent as entries. Nothing was recorded.',
      field: 'kind',
    });
  if (draft.kind === 'retracted' && /^(signed|redacted):/.test((draft.body as { slot?: string }).slot ?? ''))
    throw new ProblemError({
      code: 'entry-kind',
      sentence: 'What is signed or struck stays so. Sign another version that amends it; nothing was recorded.',
      field: 'slot',
    });
  const stored = draft.kind === 'photo-added' ? CasePhotoRow : draft.kind === 'clip-added' ? CaseClipRow : null;
  const { sha256 } = draft.body as { sha256?: unknown };
  const held = stored !== null && typeof sha256 === 'string' && (await tx.getRepository(stored).existsBy({ caseId, sha256 }));
  if (draft.kind === 'case-opened' || (stored && !held))
    throw new ProblemError({
      code: 'entry-kind',
      sentence:
        draft.kind === 'case-opened'
          ? 'The case is open already; its number stays. Nothing was recorded.'
          : `This case holds no such ${draft.kind === 'clip-added' ? 'clip' : 'picture'}. Send the file first; nothing was recorded.`,
      field: 'kind',
    });
}

@Injectable()
export class LedgerService {
  private readonly cache = new StateCache();
  /** Cases that have grown in this process. */
  readonly grown = new Subject<string>();

  constructor(private readonly db: DataSource) {}

  /** Opens a case with its first entries, in one transaction. Repeating the call with the same ids changes nothing. */
  async open(
    caseId: string,
    number: string | null,
    drafts: readonly EntryDraft[],
    author: Author,
    inTransaction?: (tx: EntityManager) => Promise<void>,
  ): Promise<LedgerEntry[]> {
    return this.db.transaction(async (tx) => {
      const existing = await tx.getRepository(CaseRow).findOneBy({ id: caseId });
      if (existing) return (await tx.getRepository(EntryRow).find({ where: { caseId }, order: { seq: 'ASC' } })).map(entryOf);
      const given = number ?? (await this.nextNumber(tx));
      const first = drafts.map((d) => (d.kind === 'case-opened' ? { ...d, body: { ...d.body, number: given } as EntryBody } : d));
      await tx.getRepository(CaseRow).insert({
        id: caseId,
        number: given,
        title: '',
        reference: '',
        seq: 0,
        head: FIRST_PREV,
        state: emptyCase(caseId),
        stateSeq: 0,
        summary: blankSummary(first) as object,
        updated: new Date(),
      });
      await inTransaction?.(tx);
      return this.appendIn(tx, caseId, first, author);
    });
  }

  private async nextNumber(tx: EntityManager): Promise<string> {
    for (;;) {
      const [{ n }] = (await tx.query(`SELECT nextval('case_numbers')::int AS n`)) as [{ n: number }];
      const number = `${new Date().getFullYear()}-${String(n).padStart(3, '0')}`;
      if (!(await tx.getRepository(CaseRow).existsBy({ number }))) return number;
    }
  }

  /** Appends entries atomically: all or none. Entries already recorded under the same id are returned as they are. */
  append(caseId: string, drafts: readonly EntryDraft[], author: Author): Promise<LedgerEntry[]> {
    return this.db.transaction(async (tx) => {
      for (const draft of drafts) await refuseHollow(tx, caseId, draft);
      return this.appendIn(tx, caseId, drafts, author);
    });
  }

  async appendIn(
    tx: EntityManager,
    caseId: string,
    drafts: readonly EntryDraft[],
    author: Author,
    time = new Date(),
  ): Promise<LedgerEntry[]> {
    const row = await this.lockedRow(tx, caseId);
    if (new Set(drafts.map((d) => d.id)).size !== drafts.length)
      throw new ProblemError({
        code: 'entry-id',
        sentence: 'Two entries of this request have one id. Nothing was recorded.',
        field: 'entries',
      });
    const known = new Map((await tx.getRepository(EntryRow).findBy({ id: In(drafts.map((d) => d.id)) })).map((r) => [r.id, entryOf(r)]));
    for (const entry of known.values())
      if (entry.caseId !== caseId)
        throw new ProblemError({ code: 'entry-id', sentence: 'An entry with this id belongs to another case. Nothing was recorded.' });
    let state = await this.stateIn(tx, row);
    const sealed: LedgerEntry[] = [];
    const fresh: LedgerEntry[] = [];
    const turn = turns();
    for (const draft of drafts) {
      await turn();
      const already = known.get(draft.id);
      if (already) {
        sealed.push(already);
        continue;
      }
      const checked = checkEntry(draft.kind, draft.station, draft.body, state, author);
      if (!checked.ok) throw ProblemError.of(checked.problem);
      const conflict = draftConflict(state, { ...draft, body: checked.value });
      if (conflict)
        throw new ProblemError({
          code: 'entry-conflict',
          sentence: conflict.current
            ? `${conflict.current.author.name} wrote this field meanwhile. Both versions are kept here; choose which one stands.`
            : 'This was taken back meanwhile. Choose whether to write it again.',
          conflict,
        });
      const supersedes = draft.kind === 'retracted' ? (draft.body as { target: string }).target : draft.basedOn;
      const entry = sealEntry(
        { ...draft, body: checked.value },
        {
          caseId,
          seq: state.seq + 1,
          prev: state.head,
          time: time.toISOString(),
          salt: randomBytes(16).toString('hex'),
          author,
          supersedes,
        },
      );
      state = applyEntry(state, entry);
      sealed.push(entry);
      fresh.push(entry);
    }
    if (fresh.length === 0) return sealed;
    for (let i = 0; i < fresh.length; i += 200) await tx.getRepository(EntryRow).insert(fresh.slice(i, i + 200).map(rowOf) as never);
    await tx.getRepository(CaseRow).update(caseId, { seq: state.seq, head: state.head, updated: time, ...shelfWords(state) });
    this.cache.keep(state);
    await tx.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify({ caseId, seq: state.seq })]);
    this.grown.next(caseId);
    return sealed;
  }

  private async lockedRow(tx: EntityManager, caseId: string): Promise<CaseHead> {
    const row = await tx.getRepository(CaseRow).findOne({ where: { id: caseId }, select: HEAD, lock: { mode: 'pessimistic_write' } });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such case.' });
    return row;
  }

  /** State of a case that nobody else can append to until the transaction ends. */
  async lockedState(tx: EntityManager, caseId: string): Promise<CaseState> {
    return this.stateIn(tx, await this.lockedRow(tx, caseId));
  }

  private async stateIn(tx: EntityManager, row: CaseHead): Promise<CaseState> {
    const tailOf = async (seq: number): Promise<KeptEntry[]> =>
      seq === row.seq
        ? []
        : (await tx.getRepository(EntryRow).find({ where: { caseId: row.id, seq: MoreThan(seq) }, order: { seq: 'ASC' } })).map(entryOf);
    const held = this.cache.at(row.id, row.seq);
    const followed = held ? StateCache.follow(held, await tailOf(held.seq), row.head) : null;
    if (followed) {
      this.cache.keep(followed);
      return followed;
    }
    const { state } = await tx.getRepository(CaseRow).findOneOrFail({ where: { id: row.id }, select: { id: true, state: true } });
    const folded = foldEntries(state, await tailOf(state.seq));
    this.cache.keep(folded);
    return folded;
  }

  async state(caseId: string): Promise<CaseState> {
    const row = await this.db.getRepository(CaseRow).findOne({ where: { id: caseId }, select: HEAD });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such case.' });
    return this.stateIn(this.db.manager, row);
  }

  async view(caseId: string): Promise<{ state: CaseState; view: NonNullable<ReturnType<typeof caseView>> }> {
    const state = await this.state(caseId);
    const view = caseView(state);
    if (!view) throw new ProblemError({ code: 'no-layout', sentence: 'This case has no engine yet. Set its layout first.' });
    return { state, view };
  }

  async entries(caseId: string, after = 0): Promise<KeptEntry[]> {
    if (!(await this.db.getRepository(CaseRow).existsBy({ id: caseId })))
      throw new ProblemError({ code: 'not-found', sentence: 'There is no such case.' });
    return (await this.db.getRepository(EntryRow).find({ where: { caseId, seq: MoreThan(after) }, order: { seq: 'ASC' } })).map(entryOf);
  }

  /** Folds the whole ledger of a locked case again and writes the state beside it. */
  async refold(tx: EntityManager, caseId: string): Promise<CaseState> {
    const all = (await tx.getRepository(EntryRow).find({ where: { caseId }, order: { seq: 'ASC' } })).map(entryOf);
    const folded = foldEntries(emptyCase(caseId), all);
    await tx.getRepository(CaseRow).update(caseId, {
      state: folded as never,
      stateSeq: folded.seq,
      seq: folded.seq,
      head: folded.head,
      // Words that were struck may stand in the figures kept beside the case: they are computed anew.
      summary: blankSummary([]) as object,
      summarySeq: 0,
      ...shelfWords(folded),
    });
    this.cache.keep(folded);
    this.grown.next(caseId);
    return folded;
  }

  /** Folds the whole ledger again and writes the state beside the case; returns whether the kept state was the same. */
  async rebuild(caseId: string): Promise<{ entries: number; same: boolean }> {
    return this.db.transaction(async (tx) => {
      const row = await this.lockedRow(tx, caseId);
      this.cache.drop(caseId);
      const kept = await this.stateIn(tx, row);
      const folded = await this.refold(tx, caseId);
      return { entries: folded.seq, same: JSON.stringify(sorted(kept)) === JSON.stringify(sorted(folded)) };
    });
  }
}

/** What the shelf is searched by. */
function shelfWords(state: CaseState): Pick<CaseRow, 'title' | 'reference'> {
  const intake = (field: string): string =>
    (currentVersion(state, null, `intake:${field}`)?.body as { value?: string } | undefined)?.value ?? '';
  const opened = currentVersion(state, null, 'case')?.body as { title?: string } | undefined;
  return { title: intake('title') || (opened?.title ?? ''), reference: intake('reference') };
}

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (value && typeof value === 'object')
    return Object.fromEntries(
      Object.entries(value)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([k, v]) => [k, sorted(v)]),
    );
  return value;
}
