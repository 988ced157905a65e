import { Controller, Get, Header, Inject, Param, ParseUUIDPipe, Post, Put, Query, Res } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import {
  answers,
  caseEngineSchema,
  engineChangeSchema,
  engineMergeSchema,
  engineSchema,
  laboratorySchema,
  logLinesSchema,
  type Account,
  type CaseEngine,
  type CaseEngineRequest,
  type EngineChange,
  type EngineLine,
  type EngineLogAnswer,
  type EngineMerge,
  type EngineRequest,
  type LaboratoryRequest,
  type LogLinesRequest,
} from '@true-ledger/contract';
import { dueEvents, standingLines } from '@true-ledger/core/engineLog';
import { iCalendar } from '@true-ledger/core/kit';
import type { Response } from 'express';
import { Who } from '../accounts/guard.js';
import { AcrossService } from '../across/across.service.js';
import { askedEvents } from '@true-ledger/core/across';
import { CONFIG, type ServerConfig } from '../config.js';
import { Answers } from '../http/answers.js';
import { Checked } from '../http/checked.js';
import { ProblemError } from '../http/problem.js';
import { EnginesService } from './engines.service.js';
import { LaboratoryService } from './laboratory.service.js';
import { sampleLabel } from './sampleLabel.js';

const today = (): string => new Date().toISOString().slice(0, 10);

/** Engines as records of their own, with their logs. */
@ApiTags('engines')
@Controller('api/engines')
export class EnginesController {
  constructor(
    private readonly engines: EnginesService,
    private readonly laboratory: LaboratoryService,
    private readonly across: AcrossService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  @Get()
  @Answers(answers.engineLines)
  all(@Who() account: Account): Promise<EngineLine[]> {
    return this.engines.all(account, today());
  }

  /** What is due of every engine, and outcomes to be asked for, as a calendar. */
  @Get('due.ics')
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  async due(@Who() account: Account): Promise<string> {
    const due = await this.engines.due(account, today());
    const events = due.flatMap(({ record, due: things }) => dueEvents(things, `${record.mark} ${record.name}`));
    return iCalendar([...events, ...askedEvents(await this.across.asked(account, today()))], 'Due', new Date().toISOString());
  }

  @Post()
  @Answers(answers.engineLogAnswer)
  async make(@Checked(engineSchema) body: EngineRequest, @Who() account: Account): Promise<EngineLogAnswer> {
    await this.engines.make(body, account.name);
    return this.engines.one(account, body.id);
  }

  @Get(':engineId')
  @Answers(answers.engineLogAnswer)
  one(@Param('engineId', ParseUUIDPipe) id: string, @Who() account: Account): Promise<EngineLogAnswer> {
    return this.engines.one(account, id);
  }

  /** Label and form of a sample, to be printed. */
  @Get(':engineId/label.pdf')
  @ApiQuery({ name: 'reference', description: 'Reference of the sample' })
  async label(
    @Param('engineId', ParseUUIDPipe) id: string,
    @Query('reference') reference: unknown,
    @Who() account: Account,
    @Res() response: Response,
  ): Promise<void> {
    const { record, lines } = await this.engines.one(account, id);
    const pdf = await sampleLabel(record, standingLines(lines), String(reference), this.config.root);
    if (!pdf) throw new ProblemError({ code: 'not-found', sentence: 'The log of this engine has no sample of that reference.' });
    response.type('application/pdf').set('Content-Disposition', 'attachment; filename="sample.pdf"').send(pdf);
  }

  @Put(':engineId')
  @Answers(answers.engineLogAnswer)
  async change(
    @Param('engineId', ParseUUIDPipe) id: string,
    @Checked(engineChangeSchema) body: EngineChange,
    @Who() account: Account,
  ): Promise<EngineLogAnswer> {
    await this.engines.change(id, body.basedOn, body.record, account.name);
    return this.engines.one(account, id);
  }

  @Post(':engineId/lines')
  @Answers(answers.engineLogAnswer)
  async write(
    @Param('engineId', ParseUUIDPipe) id: string,
    @Checked(logLinesSchema) body: LogLinesRequest,
    @Who() account: Account,
  ): Promise<EngineLogAnswer> {
    await this.engines.write(id, body, account.name);
    return this.engines.one(account, id);
  }

  @Put(':engineId/merged')
  @Answers(answers.engineLogAnswer)
  async merge(
    @Param('engineId', ParseUUIDPipe) id: string,
    @Checked(engineMergeSchema) { into }: EngineMerge,
    @Who() account: Account,
  ): Promise<EngineLogAnswer> {
    await this.engines.merge(id, into, account.name);
    return this.engines.one(account, id);
  }

  @Post(':engineId/laboratory')
  @Answers(answers.engineLogAnswer)
  async send(
    @Param('engineId', ParseUUIDPipe) id: string,
    @Checked(laboratorySchema) { reference, fault }: LaboratoryRequest,
    @Who() account: Account,
  ): Promise<EngineLogAnswer> {
    await this.laboratory.send(account, id, reference, fault);
    return this.engines.one(account, id);
  }

  /** Asks the stand-in of the laboratory for what it has ready. */
  @Post(':engineId/laboratory/collected')
  @Answers(answers.engineLogAnswer)
  async collect(@Param('engineId', ParseUUIDPipe) id: string, @Who() account: Account): Promise<EngineLogAnswer> {
    await this.laboratory.collect(account, id);
    return this.engines.one(account, id);
  }
}

/** The engine a case hangs on. */
@ApiTags('engines')
@Controller('api/cases/:caseId/engine')
export class CaseEngineController {
  constructor(private readonly engines: EnginesService) {}

  @Get()
  @Answers(answers.caseEngine)
  of(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<CaseEngine> {
    return this.engines.engineOf(caseId);
  }

  @Put()
  @Answers(answers.caseEngine)
  hang(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(caseEngineSchema) { engine }: CaseEngineRequest,
    @Who() account: Account,
  ): Promise<CaseEngine> {
    return this.engines.hang(caseId, engine, account.name);
  }
}
