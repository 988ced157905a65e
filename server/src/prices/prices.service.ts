import { Injectable } from '@nestjs/common';
import type { PriceBookRequest, PriceBookVersion } from '@true-ledger/contract';
import { STARTING_PRICES, type PriceBook } from '@true-ledger/core/workshop';
import { DataSource } from 'typeorm';
import { VersionedBook } from '../books/versionedBook.js';
import { PriceBookRow } from '../database/entities.js';

/** The shop's own prices, dated by the day they were kept; cases take a copy. */
@Injectable()
export class PricesService {
  private readonly book: VersionedBook<PriceBookRow>;

  constructor(db: DataSource) {
    this.book = new VersionedBook(db, PriceBookRow);
  }

  /** Newest first; the prices the application starts with are the last. */
  async all(): Promise<PriceBookVersion[]> {
    const rows = await this.book.versions();
    return [
      ...rows.map((r) => ({ version: r.version, book: r.book, note: r.note, by: r.byName, time: r.time.toISOString() })),
      { version: 0, book: STARTING_PRICES, note: 'As it comes', by: '', time: '' },
    ];
  }

  /** The newest of the shop's own; null while it goes by the starting ones. */
  async current(): Promise<PriceBook | null> {
    return (await this.book.newest())?.book ?? null;
  }

  async save({ basedOn, currency, lines, note }: PriceBookRequest, byName: string): Promise<PriceBookVersion[]> {
    await this.book.keep(
      basedOn,
      byName,
      (version, time) => ({ book: { version: `shop ${version}`, currency, date: time.toISOString().slice(0, 10), lines }, note }),
      (newest) => ({
        code: 'book-conflict',
        sentence: `${newest?.byName ?? 'Someone'} kept other prices meanwhile (version ${newest?.version ?? 0}). Nothing was written over: look at them and make your changes there.`,
      }),
    );
    return this.all();
  }
}
