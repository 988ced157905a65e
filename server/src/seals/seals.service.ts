import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import {
  DAILY_SEAL,
  dailySealText,
  stampWords,
  statementHash,
  type DailySeal,
  type DailyStatement,
  type StampVerdict,
} from '@true-ledger/core/bundle';
import type { SealLine } from '@true-ledger/contract';
import { DataSource, IsNull, MoreThan, type Repository } from 'typeorm';
import { DailySealRow } from '../database/entities.js';
import { isConnectionFault, ProblemError } from '../http/problem.js';
import { IntakeService } from '../intake/intake.service.js';
import { KeysService } from '../keys/keys.service.js';
import { STAND_IN_NAME } from './standInAuthority.js';
import { WitnessService } from './witness.service.js';

const FIRST_LOOK_MS = 60_000;
const LOOK_MS = 30 * 60_000;
/** Days that are still given to the witness when it could not be reached on their own. */
const CATCH_UP_DAYS = 30;
const isoDay = (time: number): string => new Date(time).toISOString().slice(0, 10);

/** Once a day the heads of all ledgers are written down under the shop's key, each seal naming the one before, and stamped by a witness outside. */
@Injectable()
export class SealsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('seals');
  private looking: NodeJS.Timeout | null = null;

  constructor(
    private readonly db: DataSource,
    private readonly keys: KeysService,
    private readonly witness: WitnessService,
    private readonly intake: IntakeService,
  ) {}

  private get rows(): Repository<DailySealRow> {
    return this.db.getRepository(DailySealRow);
  }

  onApplicationBootstrap(): void {
    const look = (): void => {
      this.looking = setTimeout(look, LOOK_MS).unref();
      void this.look().catch((error: unknown) => {
        if (!isConnectionFault(error)) this.log.warn(error instanceof Error ? error.message : String(error));
      });
    };
    this.looking = setTimeout(look, FIRST_LOOK_MS).unref();
  }

  /** Seals the day and has every seal of late stamped that is not. */
  private async look(): Promise<void> {
    await this.ofToday();
    const bare = await this.rows.find({
      where: { stamp: IsNull(), day: MoreThan(isoDay(Date.now() - CATCH_UP_DAYS * 86_400_000)) },
      order: { day: 'ASC' },
    });
    for (const { day } of bare) {
      const verdict = await this.stamp(day);
      if (verdict.state !== 'holds') this.log.warn(`Seal of ${day}: ${stampWords(verdict)}`);
    }
  }

  /** Days that are sealed, without the lists of heads, which are long in a shop of many cases. */
  async all(): Promise<SealLine[]> {
    return (await this.db.query(
      `SELECT day, jsonb_array_length(statement->'cases') AS cases, statement->>'key' AS key, stamp IS NOT NULL AS stamped,
              coalesce(position($1::bytea IN stamp) > 0, false) AS simulated
       FROM daily_seals ORDER BY day DESC LIMIT 400`,
      [Buffer.from(STAND_IN_NAME)],
    )) as SealLine[];
  }

  private async row(day: string): Promise<DailySealRow> {
    const row = /^\d{4}-\d\d-\d\d$/.test(day) ? await this.rows.findOneBy({ day }) : null;
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'No seal was made on that day.' });
    return row;
  }

  /** The text of a day's seal, which is what the witness stamps; `today` makes the one of today when there is none yet. */
  async text(day: string): Promise<{ day: string; text: string }> {
    const seal = day === 'today' ? await this.ofToday() : await this.row(day);
    return { day: seal.statement.day, text: dailySealText(seal) };
  }

  /** The seal of today; made when there is none. Of servers that look at once, one makes it. */
  async ofToday(): Promise<DailySeal> {
    return this.db.transaction(async (tx) => {
      await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', ['daily seal']);
      const rows = tx.getRepository(DailySealRow);
      const [last] = await rows.find({ order: { day: 'DESC' }, take: 1 });
      const today = isoDay(Date.now());
      if (last && last.day >= today) return last;
      const cases = (await tx.query('SELECT id, seq, head FROM cases WHERE seq > 0 ORDER BY id')) as DailyStatement['cases'];
      const statement: DailyStatement = { day: today, key: this.keys.key, before: last ? statementHash(last.statement) : null, cases };
      const { signature } = this.keys.sign(DAILY_SEAL, statement);
      await rows.insert({ day: statement.day, statement: statement as never, signature, stamp: null });
      return { statement, signature };
    });
  }

  /** The witness's answer for a day's seal, as it came. */
  async stampOf(day: string): Promise<Buffer> {
    const { stamp } = await this.row(day);
    if (!stamp) throw new ProblemError({ code: 'not-found', sentence: 'The seal of that day carries no stamp yet.' });
    return stamp;
  }

  /** What the stamp of a day's seal proves now. */
  async verdict(day: string): Promise<StampVerdict> {
    const row = await this.row(day);
    return row.stamp ? this.judge(row, row.stamp) : { state: 'missing' };
  }

  /** Has a day's seal stamped, unless it carries a stamp that holds; keeps the answer only when it holds. */
  async stamp(day: string): Promise<StampVerdict> {
    const row = await this.row(day);
    const kept = row.stamp ? await this.judge(row, row.stamp) : null;
    if (kept?.state === 'holds') return kept;
    const { reply, nonce } = await this.witness.ask(textBytes(row));
    const verdict = await this.judge(row, reply, nonce);
    if (verdict.state === 'holds') await this.rows.update({ day }, { stamp: Buffer.from(reply) });
    return verdict;
  }

  private async judge(row: DailySealRow, reply: Uint8Array, nonce?: Uint8Array): Promise<StampVerdict> {
    const others = (await this.rows.find({ order: { day: 'DESC' }, take: CATCH_UP_DAYS }))
      .filter((o) => o.day !== row.day)
      .map((o) => ({ name: `the seal of ${o.day}`, bytes: textBytes(o) }));
    return this.intake.stamp(reply, textBytes(row), { trusted: await this.witness.trusted(), others, ...(nonce ? { nonce } : {}) });
  }

  onApplicationShutdown(): void {
    if (this.looking) clearTimeout(this.looking);
  }
}

const textBytes = (seal: DailySeal): Buffer => Buffer.from(dailySealText(seal));
