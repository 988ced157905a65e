import { Injectable } from '@nestjs/common';
import type { PolicyChange } from '@true-ledger/contract';
import { school } from '@true-ledger/core/damage';
import { DataSource } from 'typeorm';
import { PolicyRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';

/** Where builders disagree: the shop's positions. Every change is kept; the newest of a question stands. */
@Injectable()
export class PolicyService {
  constructor(private readonly db: DataSource) {}

  /** Every change, newest first. */
  async all(): Promise<PolicyChange[]> {
    const rows = await this.db.getRepository(PolicyRow).find({ order: { id: 'DESC' } });
    return rows.map((r) => ({ question: r.question, position: r.position, reason: r.reason, by: r.byName, time: r.time.toISOString() }));
  }

  /** The positions that stand and differ from the standard, for a case that is opened now. */
  async standing(): Promise<PolicyChange[]> {
    const newest = new Map<string, PolicyChange>();
    for (const change of await this.all()) if (!newest.has(change.question)) newest.set(change.question, change);
    return [...newest.values()].filter((c) => school(c.question) && school(c.question)!.standard !== c.position);
  }

  async save(question: string, position: string, reason: string, byName: string): Promise<PolicyChange[]> {
    if (!school(question)?.positions.some((p) => p.id === position))
      throw new ProblemError({
        code: 'policy-position',
        sentence: `There is no position "${position}" on "${question}". Nothing was changed; choose one of those listed.`,
      });
    await this.db.getRepository(PolicyRow).insert({ question, position, reason, byName, time: new Date() });
    return this.all();
  }
}
