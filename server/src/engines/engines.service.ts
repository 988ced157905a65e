import type { Account, CaseEngine, EngineLine, EngineLogAnswer, EngineRequest, LogLinesRequest } from '@true-ledger/contract';
import {
  dueOf,
  linesOf,
  profileOf,
  readLog,
  standingLines,
  type DueThing,
  type EngineRecord,
  type LogLine,
  type OtherOil,
} from '@true-ledger/core/engineLog';
import { Injectable } from '@nestjs/common';
import { isDeepStrictEqual } from 'node:util';
import { DataSource, In, IsNull } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { CaseEngineRow, CaseRow, EngineLineRow, EngineRow, LaboratoryOrderRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import type { StoredSummary } from '../ledger/summary.js';

const NO_ENGINE = { code: 'not-found', sentence: 'There is no such engine.' } as const;

const lineOf = (r: EngineLineRow): LogLine =>
  ({
    id: r.id,
    kind: r.kind,
    day: r.day,
    counter: r.counter,
    supersedes: r.supersedes,
    body: r.body,
    by: r.byName,
    time: r.time.toISOString(),
  }) as LogLine;

/** Every engine with the records that were merged into it, itself first. */
function familiesOf(rows: readonly EngineRow[]): ReadonlyMap<string, readonly EngineRow[]> {
  const into = new Map<string, EngineRow[]>();
  for (const r of rows) if (r.mergedInto) into.set(r.mergedInto, [...(into.get(r.mergedInto) ?? []), r]);
  const all = (r: EngineRow): EngineRow[] => [r, ...(into.get(r.id) ?? []).flatMap(all)];
  return new Map(rows.map((r) => [r.id, all(r)]));
}

/** Engines as records of their own: what is written in a log stays, a record that is another's is merged into it and can be parted again. */
@Injectable()
export class EnginesService {
  constructor(
    private readonly db: DataSource,
    private readonly accounts: AccountsService,
  ) {}

  /** Engines that stand by themselves, each with its standing lines and the cases that hang on it. Who sees chosen cases sees the engines of these. */
  private async shown(account: Account): Promise<Array<{ readonly row: EngineRow; readonly cases: number; readonly standing: LogLine[] }>> {
    const [rows, lines, { chosen, byEngine }] = await Promise.all([
      this.db.getRepository(EngineRow).find(),
      this.db.getRepository(EngineLineRow).find({ order: { n: 'ASC' } }),
      this.casesByEngine(account),
    ]);
    const families = familiesOf(rows);
    const logs = new Map<string, EngineLineRow[]>();
    for (const l of lines) logs.set(l.engineId, [...(logs.get(l.engineId) ?? []), l]);
    return rows.flatMap((row) => {
      if (row.mergedInto !== null) return [];
      const own = families.get(row.id)!;
      const cases = own.reduce((n, m) => n + (byEngine.get(m.id)?.length ?? 0), 0);
      if (chosen && cases === 0) return [];
      const log = own.flatMap((m) => logs.get(m.id) ?? []).sort((a, b) => a.n - b.n);
      return [{ row, cases, standing: standingLines(log.map(lineOf)) }];
    });
  }

  /** Engines that stand by themselves, the one written in last first. */
  async all(account: Account, today: string): Promise<EngineLine[]> {
    return (await this.shown(account))
      .map(({ row, cases, standing }): EngineLine => ({
        id: row.id,
        record: row.record,
        version: row.version,
        cases,
        lines: standing.length,
        newest: standing.at(-1)?.day ?? null,
        counter: standing.findLast((l) => l.counter !== null)?.counter ?? null,
        urgent: readLog(row.record, standing)
          .findings.filter((f) => f.weight === 'now')
          .map((f) => f.words),
        due: dueOf(row.record, standing, today)[0] ?? null,
      }))
      .sort((a, b) => (b.newest ?? '').localeCompare(a.newest ?? '') || a.record.mark.localeCompare(b.record.mark));
  }

  /** Everything due of every engine, with whose it is. */
  async due(account: Account, today: string): Promise<Array<{ readonly record: EngineRecord; readonly due: readonly DueThing[] }>> {
    return (await this.shown(account)).map(({ row, standing }) => ({ record: row.record, due: dueOf(row.record, standing, today) }));
  }

  async one(account: Account, id: string): Promise<EngineLogAnswer> {
    const rows = await this.db.getRepository(EngineRow).find();
    const row = rows.find((r) => r.id === id);
    if (!row) throw new ProblemError(NO_ENGINE);
    const families = familiesOf(rows);
    const own = families.get(id)!;
    const { chosen } = await this.casesByEngine(account);
    const hang = await this.casesOf(own.map((m) => m.id));
    const cases = chosen ? hang.filter((c) => chosen.has(c.id)) : hang;
    // Who may not see an engine is not told that there is one.
    if (chosen && cases.length === 0) throw new ProblemError(NO_ENGINE);
    const lines = await this.db.getRepository(EngineLineRow).find({ where: { engineId: In(own.map((m) => m.id)) }, order: { n: 'ASC' } });
    const orders = await this.db.getRepository(LaboratoryOrderRow).findBy({ engineId: In(own.map((m) => m.id)), reported: IsNull() });
    const mark = (r: EngineRow): { id: string; mark: string } => ({ id: r.id, mark: r.record.mark });
    return {
      id,
      record: row.record,
      version: row.version,
      mergedInto: row.mergedInto ? mark(rows.find((r) => r.id === row.mergedInto)!) : null,
      merged: own.slice(1).map(mark),
      lines: lines.map(lineOf),
      cases,
      others: chosen ? [] : await this.othersOf(families, own),
      awaited: orders.map((o) => o.reference),
    };
  }

  /** What the other engines of the shop have in them, and which of their samples have a result in the log of this one. */
  private async othersOf(families: ReadonlyMap<string, readonly EngineRow[]>, own: readonly EngineRow[]): Promise<OtherOil[]> {
    const all = await this.db
      .getRepository(EngineLineRow)
      .find({ where: { kind: In(['result', 'sample', 'struck']) }, order: { n: 'ASC' } });
    const standing = (engine: readonly EngineRow[]): LogLine[] => {
      const ids = new Set(engine.map((r) => r.id));
      return standingLines(all.filter((l) => ids.has(l.engineId)).map(lineOf));
    };
    const here = new Set(linesOf(standing(own), 'result').map((r) => r.body.reference));
    return [...families.values()].flatMap((engine) => {
      const [{ id, mergedInto, record }] = engine as [EngineRow];
      if (mergedInto !== null || own.some((r) => r.id === id)) return [];
      const lines = standing(engine);
      const profile = profileOf(linesOf(lines, 'result'));
      const references = linesOf(lines, 'sample').flatMap(({ body }) => (here.has(body.reference) ? [body.reference] : []));
      return profile || references.length > 0 ? [{ mark: record.mark, profile, references }] : [];
    });
  }

  async make({ id, record }: EngineRequest, byName: string): Promise<EngineRow> {
    const repo = this.db.getRepository(EngineRow);
    const held = await repo.findOneBy({ id });
    // Sent once more after the answer was lost.
    if (held) {
      if (held.version === 1 && isDeepStrictEqual(held.record, record)) return held;
      throw new ProblemError({ code: 'entry-id', sentence: 'This id was used for another engine. Nothing was changed.' });
    }
    await this.freeMark(record.mark, id);
    const row = { id, record, version: 1, mergedInto: null, byName, time: new Date() };
    await repo.insert(row);
    return row;
  }

  async change(id: string, basedOn: number, record: EngineRecord, byName: string): Promise<void> {
    const repo = this.db.getRepository(EngineRow);
    const row = await repo.findOneBy({ id });
    if (!row) throw new ProblemError(NO_ENGINE);
    await this.freeMark(record.mark, id);
    const done = await repo.update({ id, version: basedOn }, { record, version: basedOn + 1, byName, time: new Date() });
    if (done.affected === 0)
      throw new ProblemError({
        code: 'book-conflict',
        sentence: `${row.byName} changed this engine meanwhile. Nothing was written over: look at what stands there now and make your changes on it.`,
      });
  }

  private async freeMark(mark: string, id: string): Promise<void> {
    const taken = (await this.db.getRepository(EngineRow).find()).find(
      (r) => r.id !== id && r.record.mark.toLowerCase() === mark.toLowerCase(),
    );
    if (taken)
      throw new ProblemError({
        code: 'engine-mark',
        sentence: `${taken.record.name} has the mark ${taken.record.mark} already. Nothing was changed; give this one another.`,
        field: 'record.mark',
      });
  }

  /** Writes lines into the log of an engine. One that was written before by the same id is left as it is. `timeOf`: when a line was written, where it was not now (the demonstration's). */
  async write(
    id: string,
    { lines }: LogLinesRequest,
    byName: string,
    timeOf: (line: LogLinesRequest['lines'][number]) => Date = () => new Date(),
  ): Promise<void> {
    const rows = await this.db.getRepository(EngineRow).find();
    const row = rows.find((r) => r.id === id);
    if (!row) throw new ProblemError(NO_ENGINE);
    if (row.mergedInto)
      throw new ProblemError({
        code: 'engine-merge',
        sentence: `This record was merged into ${rows.find((r) => r.id === row.mergedInto)!.record.mark}. Nothing was written; write in that log.`,
      });
    const family = familiesOf(rows)
      .get(id)!
      .map((m) => m.id);
    await this.db.transaction(async (tx) => {
      const repo = tx.getRepository(EngineLineRow);
      const known = new Map((await repo.findBy({ engineId: In(family) })).map((l) => [l.id, l]));
      const replaced = new Set([...known.values()].map((l) => l.supersedes));
      for (const line of lines) {
        const held = known.get(line.id) ?? (await repo.findOneBy({ id: line.id }));
        if (held) {
          if (held.kind === line.kind && isDeepStrictEqual(held.body, line.body)) continue;
          throw new ProblemError({ code: 'entry-id', sentence: 'This id was used for another line. Nothing was written.' });
        }
        if (line.supersedes !== null && !known.has(line.supersedes))
          throw new ProblemError({
            code: 'engine-line',
            sentence: 'The line that was to be replaced is not in this log. Nothing was written; look at the log anew.',
            field: 'supersedes',
          });
        if (line.supersedes !== null && replaced.has(line.supersedes))
          throw new ProblemError({
            code: 'book-conflict',
            sentence: 'Somebody replaced this line meanwhile. Nothing was written over: look at what stands there now.',
          });
        if (line.kind === 'struck' && line.supersedes === null)
          throw new ProblemError({
            code: 'engine-line',
            sentence: 'It says nothing of which line is taken back. Nothing was written.',
            field: 'supersedes',
          });
        const { id: lineId, kind, day, counter, supersedes, body } = line;
        const made = { id: lineId, engineId: id, kind, day, counter, supersedes, body, byName, time: timeOf(line) };
        await repo.insert(made);
        known.set(lineId, made as EngineLineRow);
        replaced.add(supersedes);
      }
    });
  }

  /** One record turned out to be another's engine, or not to be after all. One at a time: two at once could point at each other. */
  merge(id: string, into: string | null, byName: string): Promise<void> {
    return this.db.transaction(async (tx) => {
      await tx.query('LOCK TABLE engines IN SHARE ROW EXCLUSIVE MODE');
      const repo = tx.getRepository(EngineRow);
      const rows = await repo.find();
      const [row, other] = [rows.find((r) => r.id === id), rows.find((r) => r.id === into)];
      if (!row || (into !== null && !other)) throw new ProblemError(NO_ENGINE);
      const refuse = (sentence: string): never => {
        throw new ProblemError({ code: 'engine-merge', sentence: `${sentence} Nothing was changed.`, field: 'into' });
      };
      if (other && familiesOf(rows).get(id)!.includes(other)) refuse(`${other.record.mark} is this engine already.`);
      if (other?.mergedInto) refuse(`${other.record.mark} was merged into another record itself; choose that one.`);
      if (other && other.record.counter !== row.record.counter)
        refuse(`The one counts ${row.record.counter} and the other ${other.record.counter}: one log cannot run in both.`);
      await repo.update({ id }, { mergedInto: into, byName, time: new Date() });
    });
  }

  /** Says which engine a case is of. What was said before stays on record. */
  async hang(caseId: string, engineId: string | null, byName: string): Promise<CaseEngine> {
    if (engineId !== null && !(await this.db.getRepository(EngineRow).existsBy({ id: engineId }))) throw new ProblemError(NO_ENGINE);
    await this.db.getRepository(CaseEngineRow).insert({ caseId, engineId, byName, time: new Date() });
    return this.engineOf(caseId);
  }

  async engineOf(caseId: string): Promise<CaseEngine> {
    const [said] = await this.db.getRepository(CaseEngineRow).find({ where: { caseId }, order: { id: 'DESC' }, take: 1 });
    if (!said?.engineId) return { engine: null };
    const rows = await this.db.getRepository(EngineRow).find();
    let row = rows.find((r) => r.id === said.engineId)!;
    while (row.mergedInto) row = rows.find((r) => r.id === row.mergedInto)!;
    return { engine: { id: row.id, mark: row.record.mark, name: row.record.name } };
  }

  private async standingCases(): Promise<Array<{ readonly caseId: string; readonly engineId: string | null }>> {
    return this.db.query('SELECT DISTINCT ON ("caseId") "caseId", "engineId" FROM case_engines ORDER BY "caseId", id DESC');
  }

  private async casesByEngine(
    account: Account,
  ): Promise<{ readonly chosen: ReadonlySet<string> | null; readonly byEngine: ReadonlyMap<string, readonly string[]> }> {
    const chosen = await this.accounts.casesOf(account);
    const byEngine = new Map<string, string[]>();
    for (const { caseId, engineId } of await this.standingCases())
      if (engineId && (!chosen || chosen.has(caseId))) byEngine.set(engineId, [...(byEngine.get(engineId) ?? []), caseId]);
    return { chosen, byEngine };
  }

  private async casesOf(engines: readonly string[]): Promise<EngineLogAnswer['cases'][number][]> {
    const ids = (await this.standingCases()).flatMap((c) => (c.engineId && engines.includes(c.engineId) ? [c.caseId] : []));
    const rows = await this.db.getRepository(CaseRow).find({
      select: { id: true, number: true, title: true, summary: true, updated: true },
      where: { id: In(ids) },
      order: { number: 'ASC' },
    });
    return rows.map((r) => {
      const { stage, leading } = r.summary as StoredSummary;
      return { id: r.id, number: r.number, title: r.title, stage, leading, updated: r.updated.toISOString() };
    });
  }
}
