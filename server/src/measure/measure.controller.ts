import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { runSheet, sheetJson } from '@true-ledger/core';
import { Needs } from '../accounts/guard.js';
import { ProblemError } from '../http/problem.js';

@ApiTags('measuring')
@Controller('api')
export class MeasureController {
  /** Results and verdicts of a measuring sheet sent in the body, as `true-ledger measure` prints them; nothing is stored. */
  @Needs('reader')
  @HttpCode(200)
  @Post('measure')
  measure(@Body() body: unknown): object {
    const outcome = runSheet(body);
    if (!outcome.ok) throw ProblemError.of(outcome.problem);
    return sheetJson(outcome.value);
  }
}
