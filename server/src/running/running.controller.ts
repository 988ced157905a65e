import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers } from '@true-ledger/contract';
import { Answers } from '../http/answers.js';
import { Needs } from '../accounts/guard.js';
import { ComputeService } from '../compute/compute.service.js';

/** Loads, oil films and oil circuit of a running engine sent in the body, as `true-ledger loads`, `film` and `oil` print them; nothing is stored. */
@ApiTags('running')
@Controller('api')
export class RunningController {
  constructor(private readonly compute: ComputeService) {}

  @Needs('reader')
  @HttpCode(200)
  @Post('loads')
  @Answers(answers.measured)
  loads(@Body() file: unknown): Promise<object> {
    return this.compute.run<'running'>({ kind: 'running', question: 'loads', file });
  }

  /** Of an engine, or of a bearing by itself. */
  @Needs('reader')
  @HttpCode(200)
  @Post('film')
  @Answers(answers.measured)
  film(@Body() file: unknown): Promise<object> {
    return this.compute.run<'running'>({ kind: 'running', question: 'film', file });
  }

  @Needs('reader')
  @HttpCode(200)
  @Post('oil')
  @Answers(answers.measured)
  oil(@Body() file: unknown): Promise<object> {
    return this.compute.run<'running'>({ kind: 'running', question: 'oil', file });
  }
}
