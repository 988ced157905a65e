import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers } from '@true-ledger/contract';
import { Answers } from '../http/answers.js';
import { Needs } from '../accounts/guard.js';
import { ComputeService } from '../compute/compute.service.js';

@ApiTags('measuring')
@Controller('api')
export class MeasureController {
  constructor(private readonly compute: ComputeService) {}

  /** Results and verdicts of a measuring sheet sent in the body, as `true-ledger measure` prints them; nothing is stored. */
  @Needs('reader')
  @HttpCode(200)
  @Post('measure')
  @Answers(answers.measured)
  measure(@Body() body: unknown): Promise<object> {
    return this.compute.run<'measure'>({ kind: 'measure', sheet: body });
  }
}
