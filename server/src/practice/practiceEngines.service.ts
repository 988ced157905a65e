import { Injectable } from '@nestjs/common';
import type { Account, PracticeAnswerRequest, PracticeEngineRequest, PracticeEngines, PracticeShown } from '@true-ledger/contract';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { cause, isListed } from '@true-ledger/core/cause';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { CaseState, EntryDraft } from '@true-ledger/core/ledger';
import {
  drawEngine,
  lookStands,
  practiceLevel,
  practiceLook,
  PRACTICE_ENGINE_VERSION,
  shownBy,
  storyOf,
  type HiddenEngine,
} from '@true-ledger/core/practiceEngine';
import { randomInt, randomUUID } from 'node:crypto';
import { DataSource, type EntityManager } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { ComputeService } from '../compute/compute.service.js';
import { PracticeEngineRow } from '../database/entities.js';
import { standInJpeg } from '../photos/standInJpeg.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';

/** Engines that are listed, the newest. */
const LISTED = 200;
/** Of engines the seed is drawn from so many. */
const SEEDS = 1_000_000;

/** Practice engines: makes them, lets them be looked at for minutes, and opens the truth. The seed leaves the server when it is opened, not before. */
@Injectable()
export class PracticeEnginesService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly compute: ComputeService,
    private readonly accounts: AccountsService,
  ) {}

  async list(account: Account): Promise<PracticeEngines> {
    const seen = await this.accounts.casesOf(account);
    const rows = (await this.db.query(
      `SELECT p."caseId", c.number, p.level, p.seed, p.sealed, p."byName", p.time, p.opened FROM practice_engines p JOIN cases c ON c.id = p."caseId"
        WHERE $1::uuid[] IS NULL OR p."caseId" = ANY($1) ORDER BY p.time DESC LIMIT ${LISTED}`,
      [seen && [...seen]],
    )) as Array<Pick<PracticeEngineRow, 'caseId' | 'level' | 'seed' | 'sealed' | 'byName' | 'time' | 'opened'> & { number: string }>;
    return rows.map((r) => ({
      caseId: r.caseId,
      number: r.number,
      level: r.level,
      seed: r.sealed && !r.opened ? null : r.seed,
      by: r.byName,
      time: r.time.toISOString(),
      opened: r.opened?.toISOString() ?? null,
    }));
  }

  /** Makes an engine and opens its case. The same request sent twice makes one. */
  async make(request: PracticeEngineRequest, account: Pick<Account, 'id' | 'name'>): Promise<CaseState> {
    // Sent once more it takes no number of its own.
    if (await this.db.getRepository(PracticeEngineRow).existsBy({ caseId: request.id })) return this.ledger.state(request.id);
    const level = practiceLevel(request.level)!;
    const sealed = request.seed === null;
    const seed = request.seed ?? randomInt(SEEDS);
    const hidden = drawEngine(level.level, seed);
    const story = storyOf(hidden);
    const [{ n }] = (await this.db.query(`SELECT nextval('practice_numbers')::int AS n`)) as [{ n: number }];
    const draft = (kind: EntryDraft['kind'], body: object, station: string | null = null): EntryDraft => ({
      id: randomUUID(),
      kind,
      station,
      basedOn: null,
      body: body as never,
    });
    await this.ledger.open(
      request.id,
      `T-${String(n).padStart(4, '0')}`,
      [
        draft('case-opened', { number: '', title: `Practice engine, level ${level.level}: ${level.name}` }),
        draft('layout-set', { layout: hidden.layout }),
        draft('practice-set', { level: level.level, version: PRACTICE_ENGINE_VERSION, sealed }),
        ...Object.entries(story.intake!).map(([field, value]) => draft('intake-set', { field, value })),
        ...story.history!.map((h, i) =>
          draft('history-line', { line: `told-${i}`, text: h.text, feature: h.feature ?? null, reliability: 'told', date: null }),
        ),
        ...hidden.goneBefore.map((station) => draft('state-set', { state: 'before-us' }, station)),
      ],
      { id: account.id, name: account.name },
      async (tx) => {
        await tx.getRepository(PracticeEngineRow).insert({
          caseId: request.id,
          n,
          level: level.level,
          seed,
          version: PRACTICE_ENGINE_VERSION,
          sealed,
          accountId: account.id,
          byName: account.name,
          time: new Date(),
          opened: null,
        });
      },
    );
    return this.ledger.state(request.id);
  }

  /** The hidden engine of a case, for those who know its truth: stand-ins of gauges. Null where the case is none. */
  async hiddenOf(caseId: string): Promise<HiddenEngine | null> {
    const row = await this.db.getRepository(PracticeEngineRow).findOneBy({ caseId });
    return row && drawEngine(row.level, row.seed);
  }

  private async row(caseId: string): Promise<PracticeEngineRow> {
    const row = await this.db.getRepository(PracticeEngineRow).findOneBy({ caseId });
    if (!row)
      throw new ProblemError({
        code: 'practice-none',
        sentence: 'This case is no practice engine of this shop: there is nothing hidden in it. Nothing was changed.',
      });
    return row;
  }

  /** Looks at something, for its minutes. Looked at again it costs nothing and shows the same. */
  async look(caseId: string, lookId: string, account: Account): Promise<PracticeShown> {
    const row = await this.row(caseId);
    const hidden = drawEngine(row.level, row.seed);
    const look = practiceLook(hidden.layout, lookId);
    if (!look)
      throw new ProblemError({
        code: 'practice-none',
        sentence: 'This engine has nothing of the kind to look at. Nothing was paid.',
        field: 'look',
      });
    return this.db.transaction(async (tx): Promise<PracticeShown> => {
      const view = caseView(await this.ledger.lockedState(tx, caseId))!;
      const had = view.practiceLooks.find((l) => l.value.look === lookId)?.value;
      if (had) return { look: lookId, minutes: 0, words: [...had.words], picture: had.picture };
      refuseOpened(view);
      const stands = lookStands(view, look, await everDone(tx, caseId));
      if (!stands.open) throw new ProblemError({ code: 'practice-not-yet', sentence: `${stands.why} Nothing was paid.`, field: 'look' });
      const shown = shownBy(hidden, look);
      const body: EntryBodies['practice-looked'] = {
        look: lookId,
        name: look.name,
        minutes: look.minutes,
        words: shown.words,
        picture: shown.picture,
      };
      await this.ledger.appendIn(
        tx,
        caseId,
        [{ id: randomUUID(), kind: 'practice-looked', station: null, basedOn: null, body: body as never }],
        { id: account.id, name: account.name },
      );
      return { look: lookId, minutes: look.minutes, words: [...shown.words], picture: shown.picture };
    });
  }

  /** The picture of a part that was looked at. */
  async picture(caseId: string, lookId: string): Promise<Buffer> {
    const row = await this.row(caseId);
    const { view } = await this.ledger.view(caseId);
    const had = view.practiceLooks.find((l) => l.value.look === lookId)?.value;
    if (!had?.picture)
      throw new ProblemError({
        code: 'practice-none',
        sentence: 'There is no picture of this: look at it first, or it is a part the studio has not.',
        field: 'look',
      });
    const pixels = await this.compute.run<'practice-picture'>({
      kind: 'practice-picture',
      level: row.level,
      seed: row.seed,
      station: lookId.slice('part:'.length),
    });
    if (!pixels) throw new ProblemError({ code: 'practice-none', sentence: 'The studio has no such part.', field: 'look' });
    return standInJpeg(pixels);
  }

  /** Opens the truth beside what was answered; it is written down once and for all. */
  async open(caseId: string, { answer }: PracticeAnswerRequest, account: Account): Promise<CaseState> {
    const row = await this.row(caseId);
    answer.forEach((a, i) => {
      if (!cause(a.cause) || !isListed(a.cause) || answer.findIndex((b) => b.cause === a.cause) !== i)
        throw new ProblemError({
          code: 'outcome-cause',
          sentence: 'Name causes of the table, each once. The truth stays closed; nothing was recorded.',
          field: `answer.${i}.cause`,
        });
    });
    const before = await this.ledger.state(caseId);
    refuseOpened(caseView(before)!);
    // Reckoned before the case is locked: it takes a moment, and others may write meanwhile.
    const score = await this.compute.run<'practice-score'>({
      kind: 'practice-score',
      level: row.level,
      seed: row.seed,
      state: before,
      answer,
      done: [...(await everDone(this.db.manager, caseId))],
    });
    await this.db.transaction(async (tx) => {
      refuseOpened(caseView(await this.ledger.lockedState(tx, caseId))!);
      const body: EntryBodies['practice-scored'] = { level: row.level, seed: row.seed, version: row.version, answer, score };
      await this.ledger.appendIn(
        tx,
        caseId,
        [{ id: randomUUID(), kind: 'practice-scored', station: null, basedOn: null, body: body as never }],
        { id: account.id, name: account.name },
      );
      await tx.getRepository(PracticeEngineRow).update({ caseId }, { opened: new Date() });
    });
    return this.ledger.state(caseId);
  }
}

/** Steps of the strip that were done once, though they may be open again. */
async function everDone(db: EntityManager, caseId: string): Promise<ReadonlySet<string>> {
  const rows = (await db.query(
    `SELECT DISTINCT body->>'step' AS step FROM entries WHERE "caseId" = $1 AND kind = 'step-set' AND body->>'state' = 'done'`,
    [caseId],
  )) as Array<{ step: string }>;
  return new Set(rows.map((r) => r.step));
}

function refuseOpened(view: CaseView): void {
  if (view.practiceScored)
    throw new ProblemError({
      code: 'practice-opened',
      sentence: 'The truth of this engine is open: its score stands, and nothing more is looked at. Make another engine.',
    });
}
