import type { Account, AcrossAnswer, FoundCases, LikeCases, ShopPriors } from '@true-ledger/contract';
import {
  acrossStatistics,
  casesCsv,
  likeCases,
  outcomesAsked,
  partsShelf,
  shopPriors,
  type CaseFacts,
  type ComparedFacts,
  type CountedCase,
  type PartsShelf,
  type ShelfCase,
} from '@true-ledger/core/across';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { EngineRow, ShopSwitchRow } from '../database/entities.js';

const OWN_PRIORS = 'own-priors';
/** Cases one is laid beside. */
const LIKE_AMONG = 400;

interface ComparedRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly facts: ComparedFacts;
}

interface CountedRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly facts: CaseFacts;
  readonly engineId: string | null;
}

/** What many cases say together. */
@Injectable()
export class AcrossService {
  constructor(
    private readonly db: DataSource,
    private readonly accounts: AccountsService,
  ) {}

  /** Cases that are counted: not the withdrawn ones; words stay in the database. */
  private async counted(seen: ReadonlySet<string> | null, provenOnly = false): Promise<CountedCase[]> {
    const rows = (await this.db.query(
      `SELECT c.id, c.number, c.title, c.facts - 'words' AS facts, e."engineId"
         FROM cases c
         LEFT JOIN LATERAL (SELECT "engineId" FROM case_engines WHERE "caseId" = c.id ORDER BY id DESC LIMIT 1) e ON true
        WHERE c.facts IS NOT NULL AND coalesce(c.summary->>'shelved', '') <> 'withdrawn'
          AND (NOT $2 OR jsonb_typeof(c.facts->'proven') = 'array') AND ($1::uuid[] IS NULL OR c.id = ANY($1))`,
      [seen && [...seen], provenOnly],
    )) as CountedRow[];
    const root = await this.rootsOfEngines();
    return rows.map((r) => ({
      id: r.id,
      number: r.number,
      title: r.title,
      engine: r.engineId && (root.get(r.engineId) ?? r.engineId),
      facts: r.facts,
    }));
  }

  /** The record every merged engine became part of. */
  private async rootsOfEngines(): Promise<ReadonlyMap<string, string>> {
    const into = new Map((await this.db.getRepository(EngineRow).find()).map((e) => [e.id, e.mergedInto]));
    const rootOf = (id: string): string => {
      const next = into.get(id);
      return next ? rootOf(next) : id;
    };
    return new Map([...into.keys()].map((id) => [id, rootOf(id)]));
  }

  /** Every case that is counted, as an open table. */
  async table(account: Account): Promise<string> {
    return casesCsv(await this.counted(await this.accounts.casesOf(account)));
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
  async asked(account: Account, today: string): Promise<ReturnType<typeof outcomesAsked>> {
    return outcomesAsked(await this.counted(await this.accounts.casesOf(account)), today);
  }

  async statistics(account: Account, today: string): Promise<AcrossAnswer> {
    const cases = await this.counted(await this.accounts.casesOf(account));
    const engines = new Map((await this.db.getRepository(EngineRow).find()).map((e) => [e.id, e.record]));
    const among = [...new Set(cases.flatMap((c) => c.engine ?? []))];
    return {
      statistics: acrossStatistics(cases),
      cases: Object.fromEntries(cases.map((c) => [c.id, { number: c.number, title: c.title }])),
      engines: Object.fromEntries(
        among.flatMap((id) => (engines.has(id) ? [[id, { mark: engines.get(id)!.mark, name: engines.get(id)!.name }]] : [])),
      ),
      asked: outcomesAsked(cases, today),
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
    const cases = (await this.counted(null, true)).filter((c) => c.id !== without);
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
