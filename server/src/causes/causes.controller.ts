import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { diagnose, diagnosisJson, readCaseFile, type DiagnosisJson } from '@true-ledger/core';
import { Needs } from '../accounts/guard.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';

@ApiTags('causes')
@Controller('api')
export class CausesController {
  constructor(private readonly ledger: LedgerService) {}

  /** Differential of a stored case. */
  @Get('cases/:caseId/differential')
  async differential(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<DiagnosisJson> {
    const { view } = await this.ledger.view(caseId);
    return diagnosisJson(view, diagnose(view));
  }

  /** Differential of a case file sent in the body; nothing is stored. */
  @Needs('reader')
  @HttpCode(200)
  @Post('diagnose')
  diagnoseFile(@Body() body: unknown): DiagnosisJson {
    const result = readCaseFile(body);
    if (!result.ok) throw ProblemError.of(result.problem);
    return diagnosisJson(result.value.view, diagnose(result.value.view));
  }
}
