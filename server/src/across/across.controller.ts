import { Controller, Get, Header, Param, ParseUUIDPipe, Put, Query } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import {
  answers,
  priorSwitchSchema,
  type Account,
  type AcrossAnswer,
  type FoundCases,
  type LikeCases,
  type PriorSwitch,
  type ShopPriors,
} from '@true-ledger/contract';
import type { PartsShelf } from '@true-ledger/core/across';
import { Needs, Who } from '../accounts/guard.js';
import { Answers } from '../http/answers.js';
import { Checked } from '../http/checked.js';
import { AcrossService } from './across.service.js';

const today = (): string => new Date().toISOString().slice(0, 10);
const said = (value: unknown): string => (typeof value === 'string' ? value : '');

/** What many cases say together. */
@ApiTags('across')
@Controller('api/across')
export class AcrossController {
  constructor(private readonly across: AcrossService) {}

  @Get()
  @Answers(answers.across)
  statistics(@Who() account: Account): Promise<AcrossAnswer> {
    return this.across.statistics(account, today());
  }

  /** A row a case, so that a shop can ask its own questions. */
  @Get('cases.csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  table(@Who() account: Account): Promise<string> {
    return this.across.table(account);
  }

  @Get('search')
  @Answers(answers.foundCases)
  @ApiQuery({ name: 'words', description: 'Words, parts, marks, causes or readings that a case holds, all of them' })
  search(@Query('words') words: unknown, @Who() account: Account): Promise<FoundCases> {
    return this.across.search(account, said(words).slice(0, 400));
  }

  /** Cases that found much the same as one, and what they were. */
  @Get('like/:caseId')
  @Answers(answers.likeCases)
  like(@Param('caseId', ParseUUIDPipe) caseId: string, @Who() account: Account): Promise<LikeCases> {
    return this.across.like(account, caseId);
  }

  /** Parts the shop keeps from its strips, and parts its cases wait for. */
  @Get('parts')
  @Answers(answers.partsShelf)
  parts(@Who() account: Account): Promise<PartsShelf> {
    return this.across.parts(account);
  }

  @Get('priors')
  @Answers(answers.shopPriors)
  @Needs('builder')
  @ApiQuery({ name: 'family', description: 'Template of the engine' })
  @ApiQuery({ name: 'without', required: false, description: 'A case that is left out: no case is judged by itself' })
  priors(@Query('family') family: unknown, @Query('without') without: unknown): Promise<ShopPriors> {
    return this.across.priors(said(family).slice(0, 80), said(without) || null, today());
  }

  @Needs('owner')
  @Put('priors')
  @Answers(answers.done)
  async switch(@Checked(priorSwitchSchema) { on }: PriorSwitch, @Who() account: Account): Promise<{ ok: true }> {
    await this.across.switchPriors(on, account.name);
    return { ok: true };
  }
}
