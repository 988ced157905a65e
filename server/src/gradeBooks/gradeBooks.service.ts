import { Injectable } from '@nestjs/common';
import type { GradeBookVersion } from '@true-ledger/contract';
import { GRADE_BOOK, type GradeBook, type GradeRule } from '@true-ledger/core';
import { DataSource } from 'typeorm';
import { GradeBookRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

const versionOf = (row: Pick<GradeBookRow, 'version'>): string => `shop ${row.version}`;

/** The shop's own grade book: every version is kept, none is changed. */
@Injectable()
export class GradeBooksService {
  constructor(private readonly db: DataSource) {}

  /** Newest first; the shipped book is the last. */
  async all(): Promise<GradeBookVersion[]> {
    const rows = await this.db.getRepository(GradeBookRow).find({ order: { version: 'DESC' } });
    return [
      ...rows.map((r) => ({ book: { version: versionOf(r), rules: r.rules }, note: r.note, by: r.byName, time: r.time.toISOString() })),
      { book: GRADE_BOOK, note: 'As it comes', by: '', time: '' },
    ];
  }

  /** The newest of the shop's own; null while it goes by the shipped one. */
  async current(): Promise<GradeBook | null> {
    const [row] = await this.db.getRepository(GradeBookRow).find({ order: { version: 'DESC' }, take: 1 });
    return row ? { version: versionOf(row), rules: row.rules } : null;
  }

  async save(basedOn: string, rules: readonly GradeRule[], note: string, byName: string): Promise<GradeBookVersion[]> {
    await this.db.transaction(async (tx) => {
      await tx.query('LOCK TABLE grade_books IN SHARE ROW EXCLUSIVE MODE');
      const [newest] = await tx.getRepository(GradeBookRow).find({ order: { version: 'DESC' }, take: 1 });
      const standing = newest ? versionOf(newest) : GRADE_BOOK.version;
      if (standing !== basedOn)
        throw new ProblemError({
          code: 'book-conflict',
          sentence: `${newest?.byName ?? 'Someone'} kept version "${standing}" meanwhile; your changes were made on "${basedOn}". Nothing was written over: look at the newer one and make them there.`,
        });
      await tx
        .getRepository(GradeBookRow)
        .insert({ version: (newest?.version ?? 0) + 1, rules: rules as never, note, byName, time: new Date() });
    });
    return this.all();
  }
}
