import { Controller, Get, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  appendSchema,
  redactRequestSchema,
  type Account,
  type AppendRequest,
  type AppendResponse,
  type RedactRequest,
  answers,
} from '@true-ledger/contract';
import type { KeptEntry, LedgerEntry } from '@true-ledger/core/ledger';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { IntegerPipe } from '../http/integer.js';
import { LedgerService } from './ledger.service.js';
import { RedactionsService } from './redactions.service.js';

@ApiTags('ledger')
@Controller('api/cases/:caseId')
export class LedgerController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly redactions: RedactionsService,
  ) {}

  @Get('entries')
  @Answers(answers.keptEntries)
  entries(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Query('after', new IntegerPipe('after', 0)) after: number,
  ): Promise<KeptEntry[]> {
    return this.ledger.entries(caseId, after);
  }

  @Post('entries')
  @Answers(answers.appended)
  async append(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(appendSchema) body: AppendRequest,
    @Who() account: Account,
  ): Promise<AppendResponse> {
    return { entries: await this.ledger.append(caseId, body.entries, { id: account.id, name: account.name }) };
  }

  /** Strikes the content of an entry for good; the owner answers for it. */
  @Needs('owner')
  @Post('redactions')
  @Answers(answers.oneEntry)
  redact(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(redactRequestSchema) body: RedactRequest,
    @Who() account: Account,
  ): Promise<LedgerEntry> {
    return this.redactions.redact(caseId, body.entry, body.reason, { id: account.id, name: account.name });
  }

  @Needs('owner')
  @Post('rebuild')
  @Answers(answers.rebuilt)
  rebuild(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<{ entries: number; same: boolean }> {
    return this.ledger.rebuild(caseId);
  }
}
