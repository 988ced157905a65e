import { Injectable } from '@nestjs/common';
import type { CaseParties, ShopRecord } from '@true-ledger/contract';
import { NO_PARTIES, type Letterhead, type Parties } from '@true-ledger/core';
import { DataSource } from 'typeorm';
import { PartiesRow, ShopRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

const NO_LETTERHEAD: Letterhead = { name: '', address: '', contact: '', register: '' };

const changedMeanwhile = (byName: string | undefined): ProblemError =>
  new ProblemError({
    code: 'book-conflict',
    sentence: `${byName ?? 'Someone'} changed this meanwhile. Nothing was written over: look at it as it stands and make your change there.`,
  });

/** Who the shop is, and for whom each case is: what stands on its papers and not in the ledger. */
@Injectable()
export class ShopService {
  constructor(private readonly db: DataSource) {}

  async shop(): Promise<ShopRecord> {
    const row = await this.db.getRepository(ShopRow).findOneBy({ id: 1 });
    return { letterhead: row?.letterhead ?? NO_LETTERHEAD, version: row?.version ?? 0 };
  }

  /** Head of the papers; null while no name was entered. */
  async letterhead(): Promise<Letterhead | null> {
    const { letterhead } = await this.shop();
    return letterhead.name === '' ? null : letterhead;
  }

  async saveShop({ basedOn, letterhead }: { basedOn: number; letterhead: Letterhead }, byName: string): Promise<ShopRecord> {
    const rows = this.db.getRepository(ShopRow);
    const next = { letterhead: letterhead as never, version: basedOn + 1, byName, time: new Date() };
    const done =
      basedOn === 0
        ? await rows
            .createQueryBuilder()
            .insert()
            .values({ id: 1, ...next })
            .orIgnore()
            .returning('id')
            .execute()
        : await rows.createQueryBuilder().update(next).where({ id: 1, version: basedOn }).returning('id').execute();
    if ((done.raw as unknown[]).length === 0) throw changedMeanwhile((await rows.findOneBy({ id: 1 }))?.byName);
    return this.shop();
  }

  async parties(caseId: string): Promise<CaseParties> {
    const row = await this.db.getRepository(PartiesRow).findOneBy({ caseId });
    return { parties: row?.parties ?? NO_PARTIES, version: row?.version ?? 0 };
  }

  async saveParties(caseId: string, { basedOn, parties }: { basedOn: number; parties: Parties }, byName: string): Promise<CaseParties> {
    const rows = this.db.getRepository(PartiesRow);
    const next = { parties: parties as never, version: basedOn + 1, byName, time: new Date() };
    const done =
      basedOn === 0
        ? await rows
            .createQueryBuilder()
            .insert()
            .values({ caseId, ...next })
            .orIgnore()
            .returning('"caseId"')
            .execute()
        : await rows.createQueryBuilder().update(next).where({ caseId, version: basedOn }).returning('"caseId"').execute();
    if ((done.raw as unknown[]).length === 0) throw changedMeanwhile((await rows.findOneBy({ caseId }))?.byName);
    return this.parties(caseId);
  }
}
