import { Injectable } from '@nestjs/common';
import type { CaseParties, ShopRecord } from '@true-ledger/contract';
import { LETTER_TEMPLATES, LETTERS, NO_PARTIES, type Letterhead, type LetterTemplates, type Parties } from '@true-ledger/core/report';
import { isDeepStrictEqual } from 'node:util';
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
    return { letterhead: row?.letterhead ?? NO_LETTERHEAD, letters: { ...LETTER_TEMPLATES, ...row?.letters }, version: row?.version ?? 0 };
  }

  /** Head of the papers; null while no name was entered. */
  async letterhead(): Promise<Letterhead | null> {
    const { letterhead } = await this.shop();
    return letterhead.name === '' ? null : letterhead;
  }

  async saveShop({ basedOn, letterhead }: { basedOn: number; letterhead: Letterhead }, byName: string): Promise<ShopRecord> {
    await this.keep(ShopRow, { id: 1 }, basedOn, { letterhead, byName });
    return this.shop();
  }

  /** Keeps the letters that read otherwise than they ship; one put back to that follows what ships from then on. */
  async saveLetters({ basedOn, letters }: { basedOn: number; letters: LetterTemplates }, byName: string): Promise<ShopRecord> {
    const own = LETTERS.filter((to) => !isDeepStrictEqual(letters[to], LETTER_TEMPLATES[to])).map((to) => [to, letters[to]]);
    await this.keep(ShopRow, { id: 1 }, basedOn, { letters: Object.fromEntries(own) as Partial<LetterTemplates>, byName });
    return this.shop();
  }

  async parties(caseId: string): Promise<CaseParties> {
    const row = await this.db.getRepository(PartiesRow).findOneBy({ caseId });
    return { parties: row?.parties ?? NO_PARTIES, version: row?.version ?? 0 };
  }

  async saveParties(caseId: string, { basedOn, parties }: { basedOn: number; parties: Parties }, byName: string): Promise<CaseParties> {
    await this.keep(PartiesRow, { caseId }, basedOn, { parties, byName });
    return this.parties(caseId);
  }

  /** Keeps the next version of a row, unless somebody did so meanwhile. */
  private async keep<Row extends ShopRow | PartiesRow>(
    of: new () => Row,
    at: Partial<Row>,
    basedOn: number,
    what: Partial<Row> & { byName: string },
  ): Promise<void> {
    const rows = this.db.getRepository<ShopRow | PartiesRow>(of);
    const next = { ...what, version: basedOn + 1, time: new Date() } as object;
    const query = rows.createQueryBuilder();
    const done = await (
      basedOn === 0
        ? query
            .insert()
            .values({ ...at, ...next })
            .orIgnore()
            .returning('version')
        : query
            .update(next)
            .where({ ...at, version: basedOn })
            .returning('version')
    ).execute();
    if ((done.raw as unknown[]).length === 0) throw changedMeanwhile((await rows.findOneBy(at))?.byName);
  }
}
