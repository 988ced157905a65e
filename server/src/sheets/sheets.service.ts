import { Injectable } from '@nestjs/common';
import type { SheetRequest } from '@true-ledger/contract';
import { validateLayout } from '@true-ledger/core/engine';
import { LIMIT_QUANTITIES, type SpecSheet } from '@true-ledger/core/measure';
import { DataSource } from 'typeorm';
import { VersionedBook } from '../books/versionedBook.js';
import { SpecSheetRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

function sheetOf(row: SpecSheetRow): SpecSheet {
  return { ...row.body, id: row.id, version: row.version, by: row.byName, time: row.time.toISOString() };
}

@Injectable()
export class SheetsService {
  constructor(private readonly db: DataSource) {}

  /** Newest version of every sheet. */
  async latest(): Promise<SpecSheet[]> {
    const rows = await this.db
      .getRepository(SpecSheetRow)
      .createQueryBuilder('s')
      .distinctOn(['s.id'])
      .orderBy('s.id')
      .addOrderBy('s.version', 'DESC')
      .getMany();
    return rows.map(sheetOf).sort((a, b) => a.name.localeCompare(b.name));
  }

  async versions(id: string): Promise<SpecSheet[]> {
    return (await this.book(id).versions()).map(sheetOf);
  }

  async one(id: string, version: number): Promise<SpecSheet> {
    const row = await this.db.getRepository(SpecSheetRow).findOneBy({ id, version });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such spec sheet, or not in this version.' });
    return sheetOf(row);
  }

  /** Writes the next version; refused when somebody wrote one since the version this was edited from. */
  async save(request: SheetRequest, by: string): Promise<SpecSheet> {
    const fault = validateLayout(request.layout)[0];
    if (fault) throw ProblemError.of(fault);
    for (const l of request.limits) {
      const known = LIMIT_QUANTITIES.find((q) => q.id === l.quantity);
      if (!known)
        throw new ProblemError({
          code: 'sheet-limit',
          sentence: `"${l.quantity}" is not a limit known here. Nothing was kept.`,
          field: 'limits',
        });
      if (l.lower !== null && l.upper !== null && l.lower > l.upper)
        throw new ProblemError({
          code: 'sheet-limit',
          sentence: `The lower limit of "${known.name}" is above the upper. Nothing was kept.`,
          field: 'limits',
        });
    }
    const { id, basedOn, ...body } = request;
    const kept = await this.book(id).keep(
      basedOn,
      by,
      () => ({ body }),
      (newest) => ({
        code: 'sheet-conflict',
        sentence: newest
          ? `${newest.byName} kept version ${newest.version} of this sheet meanwhile. Look at it and edit from there; nothing was overwritten.`
          : 'This sheet is not there any more. Keep it under a new name.',
        field: 'basedOn',
      }),
    );
    return sheetOf(kept);
  }

  private book(id: string): VersionedBook<SpecSheetRow> {
    return new VersionedBook(this.db, SpecSheetRow, { id });
  }
}
