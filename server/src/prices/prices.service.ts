import { Injectable } from '@nestjs/common';
import type { PriceBookVersion } from '@true-ledger/contract';
import { STARTING_PRICES, type PriceBook } from '@true-ledger/core';
import { DataSource } from 'typeorm';
import { PriceBookRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

/** The shop's own prices: every version is kept, dated by the day it was kept; cases take a copy. */
@Injectable()
export class PricesService {
  constructor(private readonly db: DataSource) {}

  /** Newest first; the prices the application starts with are the last. */
  async all(): Promise<PriceBookVersion[]> {
    const rows = await this.db.getRepository(PriceBookRow).find({ order: { version: 'DESC' } });
    return [
      ...rows.map((r) => ({ version: r.version, book: r.book, note: r.note, by: r.byName, time: r.time.toISOString() })),
      { version: 0, book: STARTING_PRICES, note: 'As it comes', by: '', time: '' },
    ];
  }

  /** The newest of the shop's own; null while it goes by the starting ones. */
  async current(): Promise<PriceBook | null> {
    const [row] = await this.db.getRepository(PriceBookRow).find({ order: { version: 'DESC' }, take: 1 });
    return row?.book ?? null;
  }

  async save(
    { basedOn, currency, lines, note }: { basedOn: number; currency: string; lines: PriceBook['lines']; note: string },
    byName: string,
  ): Promise<PriceBookVersion[]> {
    await this.db.transaction(async (tx) => {
      await tx.query('LOCK TABLE price_books IN SHARE ROW EXCLUSIVE MODE');
      const [newest] = await tx.getRepository(PriceBookRow).find({ order: { version: 'DESC' }, take: 1 });
      if ((newest?.version ?? 0) !== basedOn)
        throw new ProblemError({
          code: 'book-conflict',
          sentence: `${newest?.byName ?? 'Someone'} kept other prices meanwhile (version ${newest?.version}). Nothing was written over: look at them and make your changes there.`,
        });
      const version = basedOn + 1;
      const time = new Date();
      const book = { version: `shop ${version}`, currency, date: time.toISOString().slice(0, 10), lines };
      await tx.getRepository(PriceBookRow).insert({ version, book: book as never, note, byName, time });
    });
    return this.all();
  }
}
