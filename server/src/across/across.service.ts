import type { Account, AcrossAnswer, FoundCases, LikeCases, ShopPriors } from '@true-ledger/contract';
import {
  likeCases,
  partsShelf,
  shopPriors,
  type AskedOutcome,
  type ComparedFacts,
  type PartsShelf,
  type ShelfCase,
} from '@true-ledger/core/across';
import { Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { ComputeService } from '../compute/compute.service.js';
import { EngineRow, ShopSwitchRow } from '../database/entities.js';
import { countedCases, type CasesText } from './countedCases.js';

const OWN_PRIORS = 'own-priors';
/** Cases one is laid beside. */
const LIKE_AMONG = 400;

interface ComparedRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly facts: ComparedFacts;
}

/** What many cases say together. */
@Injectable()
export class AcrossService {
  constructor(
    private readonly db: DataSource,
    private readonly accounts: AccountsService,
    private readonly compute: ComputeService,
  ) {}

  /** Cases that are counted: not the withdrawn ones; words stay in the database. */
  private async counted(seen: ReadonlySet<string> | null, provenOnly = false): Promise<CasesText> {
    const [{ rows }] = (await this.db.query(
      `SELECT coalesce(json_agg(json_build_object('id', c.id, 'number', c.number, 'title', c.title, 'facts', c.facts - 'words', 'engineId', e."engineId")), '[]')::text AS rows
         FROM cases c
         LEFT JOIN LATERAL (SELECT "engineId" FROM case_engines WHERE "caseId" = c.id ORDER BY id DESC LIMIT 1) e ON true
        WHERE c.facts IS NOT NULL AND coalesce(c.summary->>'shelved', '') <> 'withdrawn'
          AND (NOT $2 OR jsonb_typeof(c.facts->'proven') = 'array') AND ($1::uuid[] IS NULL OR c.id = ANY($1))`,
      [seen && [...seen], provenOnly],
    )) as [{ rows: string }];
    const engines = await this.db.getRepository(EngineRow).find({ select: { id: true, mergedInto: true } });
    return { rows, merged: engines.flatMap((e) => (e.mergedInto ? [[e.id, e.mergedInto] as const] : [])) };
  }

  /** Every case that is counted, as an open table. */
  async table(account: Account): Promise<string> {
    return this.compute.run<'across-table'>({ kind: 'across-table', cases: await this.counted(await this.accounts.casesOf(account)) });
  }

  /** What lies on the parts shelf and what is wanted, of the cases somebody may see. */
  async parts(account: Account): Promise<PartsShelf> {
    const seen = await this.accounts.casesOf(account);
    const rows = (await this.db.query(
      `SELECT id, number, jsonb_build_object('family', facts->'family', 'familyName', facts->'familyName', 'kept', facts->'kept', 'wanted', facts->'wanted') AS facts
         FROM cases
        WHERE (facts->'kept' <> '[]' OR facts->'wanted' <> '[]') AND coalesce(summary->>'shelved', '') <> 'withdrawn' AND ($1::uuid[] IS NULL OR id = ANY($1))
        ORDER BY number`,
      [seen && [...seen]],
    )) as ShelfCase[];
    return partsShelf(rows);
  }

  /** Cases whose outcome is to be asked for. */
  async asked(account: Account, today: string): Promise<AskedOutcome[]> {
    const cases = await this.counted(await this.accounts.casesOf(account));
    return this.compute.run<'across-asked'>({ kind: 'across-asked', cases, today });
  }

  async statistics(account: Account, today: string): Promise<AcrossAnswer> {
    const cases = await this.counted(await this.accounts.casesOf(account));
    const { statistics, asked, names, among } = await this.compute.run<'across'>({ kind: 'across', cases, today });
    const engines = await this.db.getRepository(EngineRow).findBy({ id: In(among) });
    return {
      statistics,
      cases: names,
      engines: Object.fromEntries(engines.map(({ id, record: { mark, name } }) => [id, { mark, name }])),
      asked,
      ownPriors: await this.ownPriors(),
    };
  }

  /** Whether the shop's own frequencies move the priors of new cases; until somebody switches it off, they do. */
  private async ownPriors(): Promise<boolean> {
    return (await this.db.getRepository(ShopSwitchRow).findOneBy({ name: OWN_PRIORS }))?.on ?? true;
  }

  async switchPriors(on: boolean, byName: string): Promise<void> {
    await this.db.getRepository(ShopSwitchRow).upsert({ name: OWN_PRIORS, on, byName, time: new Date() }, ['name']);
  }

  /** The shop's own frequencies for a kind of engine; the case itself is left out, so that no case is judged by itself. */
  async priors(family: string, without: string | null, today: string): Promise<ShopPriors> {
    const cases = countedCases(await this.counted(null, true)).filter((c) => c.id !== without);
    return { on: await this.ownPriors(), priors: shopPriors(cases, family, today) };
  }

  /** Cases that found much the same as one; of its figures as they were last computed. */
  async like(account: Account, caseId: string): Promise<LikeCases> {
    const fields = `id, number, title, jsonb_build_object('family', facts->'family', 'patterns', facts->'patterns', 'places', facts->'places', 'confirmed', facts->'confirmed', 'proven', facts->'proven') AS facts`;
    const [own] = (await this.db.query(`SELECT ${fields} FROM cases WHERE id = $1 AND facts IS NOT NULL`, [caseId])) as ComparedRow[];
    if (!own) return { cases: [], among: 0 };
    const seen = await this.accounts.casesOf(account);
    // Those that share most patterns; one that shares none cannot be much alike.
    const others = (await this.db.query(
      `SELECT ${fields} FROM cases
        WHERE id <> $1 AND facts->'patterns' ?| $2 AND coalesce(summary->>'shelved', '') <> 'withdrawn' AND ($3::uuid[] IS NULL OR id = ANY($3))
        ORDER BY (SELECT count(*) FROM jsonb_array_elements_text(facts->'patterns') p WHERE p = ANY($2)) DESC, updated DESC
        LIMIT ${LIKE_AMONG}`,
      [caseId, own.facts.patterns, seen && [...seen]],
    )) as ComparedRow[];
    return {
      among: others.length,
      cases: likeCases(own.facts, others).map(({ of, ...like }) => ({ caseId: of.id, number: of.number, title: of.title, ...like })),
    };
  }

  /** Cases that hold all words, the last as its beginning; PostgreSQL's own full text. */
  async search(account: Account, words: string): Promise<FoundCases> {
    const terms =
      words
        .toLowerCase()
        .match(/[\p{L}\p{N}]+(?:[.-][\p{L}\p{N}]+)*/gu)
        ?.slice(0, 8) ?? [];
    if (terms.length === 0) return { total: 0, cases: [] };
    const query = terms.map((t) => `'${t}':*`).join(' & ');
    const seen = await this.accounts.casesOf(account);
    const where = `found @@ to_tsquery('simple', $1) AND ($2::uuid[] IS NULL OR id = ANY($2))`;
    const of = [query, seen && [...seen]];
    const [{ n }] = (await this.db.query(`SELECT count(*)::int AS n FROM cases WHERE ${where}`, of)) as [{ n: number }];
    const rows = (await this.db.query(
      `SELECT id, number, title, summary->>'engine' AS engine,
              ts_headline('simple', facts->>'words', to_tsquery('simple', $1), 'MaxFragments=3, MaxWords=11, MinWords=4, FragmentDelimiter=" … ", StartSel="", StopSel=""') AS "where"
         FROM (SELECT * FROM cases WHERE ${where} ORDER BY updated DESC LIMIT 50) c ORDER BY updated DESC`,
      of,
    )) as FoundCases['cases'][number][];
    return { total: n, cases: rows.map((r) => ({ ...r, engine: r.engine ?? '', where: r.where.replace(/\s+/g, ' ') })) };
  }
}
