import { Controller, Get, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  newCaseSchema,
  SHELF_ORDERS,
  STAGES,
  WAITS,
  type Account,
  type CaseResponse,
  type CaseSummary,
  type NewCaseRequest,
  type ShelfOrder,
  type ShelfPage,
  answers,
} from '@true-ledger/contract';
import { validateLayout } from '@true-ledger/core/engine';
import { SPEC_KEYS, type SpecSheet } from '@true-ledger/core/measure';
import type { EntryDraft } from '@true-ledger/core/ledger';
import type { CaseView } from '@true-ledger/core/case';
import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { AcrossService } from '../across/across.service.js';
import { AccountsService } from '../accounts/accounts.service.js';
import { Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { IntegerPipe } from '../http/integer.js';
import { CaseRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { GradeBooksService } from '../gradeBooks/gradeBooks.service.js';
import { PolicyService } from '../policy/policy.service.js';
import { PricesService } from '../prices/prices.service.js';
import type { StoredSummary } from '../ledger/summary.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { SheetsService } from '../sheets/sheets.service.js';

/** What a case takes over from a spec sheet: its own copy, so that a later version changes no verdict here. */
function sheetEntries(sheet: SpecSheet): EntryDraft[] {
  const draft = { station: null, basedOn: null };
  const { id, version, name, source, limits } = sheet;
  return [
    ...SPEC_KEYS.flatMap((quantity): EntryDraft[] => {
      const spec = sheet.specs[quantity];
      return spec ? [{ ...draft, id: randomUUID(), kind: 'spec-set', body: { quantity, spec } }] : [];
    }),
    { ...draft, id: randomUUID(), kind: 'limits-set', body: { sheet: { id, version, name, source }, limits } },
  ];
}

/** What a case takes over from another of the same engine: its sizes and limits, and nothing that was found in it. */
function likeEntries(view: CaseView): EntryDraft[] {
  const draft = { station: null, basedOn: null };
  return [
    ...Object.values(view.specs).map((spec): EntryDraft => ({ ...draft, id: randomUUID(), kind: 'spec-set', body: spec.value })),
    ...(view.limits ? [{ ...draft, id: randomUUID(), kind: 'limits-set' as const, body: view.limits.value }] : []),
  ];
}

function summaryOf(r: CaseRow): CaseSummary {
  return {
    ...(r.summary as StoredSummary),
    id: r.id,
    number: r.number,
    title: r.title,
    reference: r.reference,
    updated: r.updated.toISOString(),
    behind: Math.max(0, r.seq - r.summarySeq),
  };
}

const ORDERS: Readonly<Record<ShelfOrder, readonly [string, 'ASC' | 'DESC']>> = {
  written: ['c.updated', 'DESC'],
  number: ['c.number', 'DESC'],
  examined: [`(c.summary->>'coverage')::float`, 'ASC'],
};

@ApiTags('cases')
@Controller('api/cases')
export class CasesController {
  constructor(
    private readonly db: DataSource,
    private readonly accounts: AccountsService,
    private readonly ledger: LedgerService,
    private readonly sheets: SheetsService,
    private readonly books: GradeBooksService,
    private readonly policy: PolicyService,
    private readonly prices: PricesService,
    private readonly across: AcrossService,
  ) {}

  @Get()
  @Answers(answers.shelf)
  async shelf(@Who() account: Account): Promise<CaseSummary[]> {
    const seen = await this.accounts.casesOf(account);
    const all = await this.db.getRepository(CaseRow).find({
      select: { id: true, number: true, title: true, reference: true, summary: true, seq: true, summarySeq: true, updated: true },
      order: { updated: 'DESC' },
    });
    const rows = seen ? all.filter((r) => seen.has(r.id)) : all;
    return rows.map(summaryOf);
  }

  /** A page of the shelf. */
  @ApiQuery({
    name: 'words',
    required: false,
    description: 'Words that number, title, reference, engine or leading cause hold, parted by spaces',
  })
  @ApiQuery({ name: 'page', required: false })
  @ApiQuery({ name: 'size', required: false, description: 'Cases a page, 200 at most' })
  @ApiQuery({ name: 'shelved', required: false, enum: ['yes', 'no'], description: 'The cases that are put away instead of those in hand' })
  @ApiQuery({ name: 'stage', required: false, enum: [...STAGES], description: 'Only cases at this stage' })
  @ApiQuery({
    name: 'order',
    required: false,
    enum: [...SHELF_ORDERS],
    description: 'Last entry first, newest number first, or least examined first',
  })
  @ApiQuery({ name: 'waits', required: false, enum: [...WAITS], description: 'Only cases that wait for this outside' })
  @ApiQuery({ name: 'mine', required: false, enum: ['yes', 'no'], description: 'Only cases in which whoever asks has written' })
  @Get('page')
  @Answers(answers.shelfPage)
  async page(
    @Who() account: Account,
    @Query('words') words: unknown,
    @Query('page', new IntegerPipe('page', 0)) page: number,
    @Query('size', new IntegerPipe('size', 50)) size: number,
    @Query('shelved') shelved: unknown,
    @Query('stage') stage: unknown,
    @Query('order') order: unknown,
    @Query('waits') waits: unknown,
    @Query('mine') mine: unknown,
  ): Promise<ShelfPage> {
    const seen = await this.accounts.casesOf(account);
    const looked = (typeof words === 'string' ? words : '').toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
    const most = Math.min(200, Math.max(1, size));
    const find = this.db
      .getRepository(CaseRow)
      .createQueryBuilder('c')
      .select(['c.id', 'c.number', 'c.title', 'c.reference', 'c.summary', 'c.seq', 'c.summarySeq', 'c.updated'])
      .orderBy(...(ORDERS[order as ShelfOrder] ?? ORDERS.written))
      .addOrderBy('c.id')
      .offset(page * most)
      .limit(most);
    find.andWhere('c.shelved = :shelved', { shelved: shelved === 'yes' });
    // Practice engines have a list of their own.
    find.andWhere('NOT EXISTS (SELECT 1 FROM practice_engines p WHERE p."caseId" = c.id)');
    if (typeof stage === 'string' && stage !== '') find.andWhere(`c.summary->>'stage' = :stage`, { stage });
    const holding = (key: 'waits' | 'writers', value: string): unknown =>
      find.andWhere(`c.summary->'${key}' @> :${key}::jsonb`, { [key]: JSON.stringify([value]) });
    if (typeof waits === 'string' && waits !== '') holding('waits', waits);
    if (mine === 'yes') holding('writers', account.id);
    if (seen) find.andWhere('c.id = ANY(:seen)', { seen: [...seen] });
    looked.forEach((word, i) => find.andWhere(`c.words LIKE :w${i}`, { [`w${i}`]: `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%` }));
    const [rows, total] = await find.getManyAndCount();
    return { total, cases: rows.map(summaryOf) };
  }

  @Post()
  @Answers(answers.caseAnswer)
  async create(@Checked(newCaseSchema) body: NewCaseRequest, @Who() account: Account): Promise<CaseResponse> {
    const problem = validateLayout(body.layout)[0];
    if (problem) throw ProblemError.of(problem);
    const draft = { station: null, basedOn: null };
    const like = body.like ? (await this.ledger.view(body.like)).view : null;
    if (like && !(await this.accounts.casesOf(account).then((seen) => seen?.has(body.like!) ?? true)))
      throw new ProblemError({ code: 'not-found', sentence: 'There is no case by this id.' });
    const sheet = body.sheet ? await this.sheets.one(body.sheet.id, body.sheet.version) : null;
    const book = await this.books.current();
    const prices = await this.prices.current();
    const own = await this.across.priors(body.layout.template, body.id, new Date().toISOString().slice(0, 10));
    await this.ledger.open(
      body.id,
      null,
      [
        { ...draft, id: randomUUID(), kind: 'case-opened', body: { number: '', title: body.title } },
        { ...draft, id: randomUUID(), kind: 'layout-set', body: { layout: body.layout } },
        ...(body.reference
          ? [{ ...draft, id: randomUUID(), kind: 'intake-set' as const, body: { field: 'reference' as const, value: body.reference } }]
          : []),
        ...(sheet ? sheetEntries(sheet) : []),
        ...(like ? likeEntries(like) : []),
        ...(book ? [{ ...draft, id: randomUUID(), kind: 'grade-book-set' as const, body: { book } }] : []),
        ...(prices ? [{ ...draft, id: randomUUID(), kind: 'price-book-set' as const, body: { book: prices } }] : []),
        ...(own.on && own.priors ? [{ ...draft, id: randomUUID(), kind: 'priors-taken' as const, body: { priors: own.priors } }] : []),
        ...(await this.policy.standing()).map(({ question, position, reason }) => ({
          ...draft,
          id: randomUUID(),
          kind: 'school-set' as const,
          body: { question, position, reason: `The shop’s policy: ${reason}` },
        })),
      ],
      { id: account.id, name: account.name },
    );
    return { id: body.id, state: await this.ledger.state(body.id) };
  }

  @Get(':caseId')
  @Answers(answers.caseAnswer)
  async open(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<CaseResponse> {
    return { id: caseId, state: await this.ledger.state(caseId) };
  }
}
