import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers } from '@true-ledger/contract';
import { Answers } from '../http/answers.js';
import type { DiagnosisJson } from '@true-ledger/core/diagnosis';
import { Needs } from '../accounts/guard.js';
import { ComputeService } from '../compute/compute.service.js';
import { LedgerService } from '../ledger/ledger.service.js';

@ApiTags('causes')
@Controller('api')
export class CausesController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly compute: ComputeService,
  ) {}

  /** Differential of a stored case. */
  @Get('cases/:caseId/differential')
  @Answers(answers.diagnosis)
  async differential(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<DiagnosisJson> {
    return this.compute.run<'differential'>({ kind: 'differential', state: await this.ledger.state(caseId) });
  }

  /** Differential of a case file sent in the body; nothing is stored. */
  @Needs('reader')
  @HttpCode(200)
  @Post('diagnose')
  @Answers(answers.diagnosis)
  diagnoseFile(@Body() body: unknown): Promise<DiagnosisJson> {
    return this.compute.run<'diagnose'>({ kind: 'diagnose', file: body });
  }
}
