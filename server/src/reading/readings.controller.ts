import { Controller, Delete, Get, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { readingBatchSchema, type Account, type ReadingBatch, type ReadingBatchRequest, answers } from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { ReadingsService } from './readings.service.js';

/** Reading all pictures of a case on the server. */
@ApiTags('pictures')
@Controller('api/cases/:caseId/readings-of-pictures')
export class ReadingsController {
  constructor(private readonly readings: ReadingsService) {}

  @Get()
  @Answers(answers.readingBatch)
  state(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<ReadingBatch> {
    return this.readings.state(caseId);
  }

  @Needs('builder')
  @Post()
  @Answers(answers.readingBatch)
  start(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(readingBatchSchema) body: ReadingBatchRequest,
    @Who() who: Account,
  ): Promise<ReadingBatch> {
    return this.readings.start(caseId, body.again, { id: who.id, name: who.name });
  }

  @Needs('builder')
  @Delete()
  @Answers(answers.readingBatch)
  stop(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<ReadingBatch> {
    return this.readings.stop(caseId);
  }
}
