import type { Refusal } from '@true-ledger/contract';
import { DataSource, type EntityTarget, type FindOptionsWhere, type ObjectLiteral } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import { ProblemError } from '../http/problem.js';

/** A row of a book of the shop: one version of it. */
export interface BookVersion extends ObjectLiteral {
  version: number;
  byName: string;
  time: Date;
}

/**
 * A book of the shop of which every version is kept and none is changed; the newest stands. Of two people who keep the next version of the same one, the second is
 * refused: the version is part of the primary key, so the database itself decides.
 */
export class VersionedBook<Row extends BookVersion> {
  constructor(
    private readonly db: DataSource,
    private readonly row: EntityTarget<Row>,
    /** Which of the books that share the table; nothing where there is one. */
    private readonly at: FindOptionsWhere<Row> = {},
  ) {}

  /** Newest first. */
  versions(): Promise<Row[]> {
    return this.db.getRepository<Row>(this.row).find({ where: this.at, order: { version: 'DESC' } as never });
  }

  async newest(): Promise<Row | null> {
    const [row] = await this.db.getRepository<Row>(this.row).find({ where: this.at, order: { version: 'DESC' } as never, take: 1 });
    return row ?? null;
  }

  /** Keeps the version after `basedOn` (0: the first). `refused` says what a person is told who comes second. */
  async keep(
    basedOn: number,
    byName: string,
    content: (version: number, time: Date) => Partial<Row>,
    refused: (newest: Row | null) => Refusal,
  ): Promise<Row> {
    const newest = await this.newest();
    if ((newest?.version ?? 0) !== basedOn) throw new ProblemError(refused(newest));
    const version = basedOn + 1;
    const time = new Date();
    const row = { ...this.at, ...content(version, time), version, byName, time } as unknown as Row;
    const inserted = await this.db
      .getRepository<Row>(this.row)
      .createQueryBuilder()
      .insert()
      .values(row as QueryDeepPartialEntity<Row>)
      .orIgnore()
      .returning('version')
      .execute();
    if ((inserted.raw as unknown[]).length === 0) throw new ProblemError(refused(await this.newest()));
    return row;
  }
}
