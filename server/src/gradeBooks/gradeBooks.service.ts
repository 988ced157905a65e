import { Injectable } from '@nestjs/common';
import type { GradeBookRequest, GradeBookVersion, Refusal } from '@true-ledger/contract';
import { GRADE_BOOK, type GradeBook } from '@true-ledger/core/damage';
import { DataSource } from 'typeorm';
import { VersionedBook } from '../books/versionedBook.js';
import { GradeBookRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

const nameOf = (row: Pick<GradeBookRow, 'version'> | null): string => (row ? `shop ${row.version}` : GRADE_BOOK.version);

/** The shop's own grade book. Its versions go by name: `shop 3`, or the name of the one that is shipped. */
@Injectable()
export class GradeBooksService {
  private readonly book: VersionedBook<GradeBookRow>;

  constructor(db: DataSource) {
    this.book = new VersionedBook(db, GradeBookRow);
  }

  /** Newest first; the shipped book is the last. */
  async all(): Promise<GradeBookVersion[]> {
    const rows = await this.book.versions();
    return [
      ...rows.map((r) => ({ book: { version: nameOf(r), rules: r.rules }, note: r.note, by: r.byName, time: r.time.toISOString() })),
      { book: GRADE_BOOK, note: 'As it comes', by: '', time: '' },
    ];
  }

  /** The newest of the shop's own; null while it goes by the shipped one. */
  async current(): Promise<GradeBook | null> {
    const row = await this.book.newest();
    return row ? { version: nameOf(row), rules: row.rules } : null;
  }

  async save({ basedOn, rules, note }: GradeBookRequest, byName: string): Promise<GradeBookVersion[]> {
    const refused = (newest: GradeBookRow | null): Refusal => ({
      code: 'book-conflict',
      sentence: `${newest?.byName ?? 'Someone'} kept version "${nameOf(newest)}" meanwhile; your changes were made on "${basedOn}". Nothing was written over: look at the newer one and make them there.`,
    });
    const newest = await this.book.newest();
    if (nameOf(newest) !== basedOn) throw new ProblemError(refused(newest));
    await this.book.keep(newest?.version ?? 0, byName, () => ({ rules, note }), refused);
    return this.all();
  }
}
