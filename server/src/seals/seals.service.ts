import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { DAILY_SEAL, statementHash, type DailySeal, type DailyStatement } from '@true-ledger/core';
import { DataSource } from 'typeorm';
import { DailySealRow } from '../database/entities.js';
import { isConnectionFault, ProblemError } from '../http/problem.js';
import { KeysService } from '../keys/keys.service.js';

const LOOK_MS = 30 * 60_000;
const today = (): string => new Date().toISOString().slice(0, 10);

/** Once a day the heads of all ledgers are written down under the shop's key, each seal naming the one before. */
@Injectable()
export class SealsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('seals');
  private looking: NodeJS.Timeout | null = null;

  constructor(
    private readonly db: DataSource,
    private readonly keys: KeysService,
  ) {}

  onApplicationBootstrap(): void {
    const look = (): void =>
      void this.ofToday().catch((error: unknown) => {
        if (!isConnectionFault(error)) this.log.warn(error instanceof Error ? error.message : String(error));
      });
    this.looking = setInterval(look, LOOK_MS).unref();
  }

  async all(): Promise<DailySeal[]> {
    return (await this.db.getRepository(DailySealRow).find({ order: { day: 'DESC' }, take: 400 })).map(sealOf);
  }

  async of(day: string): Promise<DailySeal> {
    const row = /^\d{4}-\d\d-\d\d$/.test(day) ? await this.db.getRepository(DailySealRow).findOneBy({ day }) : null;
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'No seal was made on that day.' });
    return sealOf(row);
  }

  /** The seal of today; made when there is none. Of servers that look at once, one makes it. */
  async ofToday(): Promise<DailySeal> {
    return this.db.transaction(async (tx) => {
      await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', ['daily seal']);
      const rows = tx.getRepository(DailySealRow);
      const [last] = await rows.find({ order: { day: 'DESC' }, take: 1 });
      if (last && last.day >= today()) return sealOf(last);
      const cases = (await tx.query('SELECT id, seq, head FROM cases WHERE seq > 0 ORDER BY id')) as DailyStatement['cases'];
      const statement: DailyStatement = { day: today(), key: this.keys.key, before: last ? statementHash(last.statement) : null, cases };
      const { signature } = this.keys.sign(DAILY_SEAL, statement);
      await rows.insert({ day: statement.day, statement: statement as never, signature });
      return { statement, signature };
    });
  }

  onApplicationShutdown(): void {
    if (this.looking) clearInterval(this.looking);
  }
}

const sealOf = ({ statement, signature }: DailySealRow): DailySeal => ({ statement, signature });
