import { Controller, Get, Header, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  answers,
  practiceAnswerSchema,
  practiceEngineSchema,
  practiceLookSchema,
  type Account,
  type CaseResponse,
  type PracticeAnswerRequest,
  type PracticeEngineRequest,
  type PracticeEngines,
  type PracticeLookRequest,
  type PracticeShown,
} from '@true-ledger/contract';
import type { Response } from 'express';
import { Who } from '../accounts/guard.js';
import { Answers } from '../http/answers.js';
import { Checked } from '../http/checked.js';
import { PracticeEnginesService } from './practiceEngines.service.js';

/** Practice engines: made from a level and a seed, stripped in the application, opened and scored. */
@ApiTags('practice')
@Controller('api/practice')
export class PracticeEnginesController {
  constructor(private readonly engines: PracticeEnginesService) {}

  @Get('engines')
  @Answers(answers.practiceEngines)
  list(@Who() account: Account): Promise<PracticeEngines> {
    return this.engines.list(account);
  }

  @Post('engines')
  @Answers(answers.caseAnswer)
  async make(@Checked(practiceEngineSchema) body: PracticeEngineRequest, @Who() account: Account): Promise<CaseResponse> {
    return { id: body.id, state: await this.engines.make(body, account) };
  }

  @Post('cases/:caseId/looks')
  @Answers(answers.practiceShown)
  look(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(practiceLookSchema) body: PracticeLookRequest,
    @Who() account: Account,
  ): Promise<PracticeShown> {
    return this.engines.look(caseId, body.look, account);
  }

  @Get('cases/:caseId/looks/:look/picture')
  @Header('Cache-Control', 'private, max-age=3600')
  async picture(@Param('caseId', ParseUUIDPipe) caseId: string, @Param('look') look: string, @Res() res: Response): Promise<void> {
    res.type('image/jpeg').send(await this.engines.picture(caseId, look));
  }

  @Post('cases/:caseId/open')
  @Answers(answers.caseAnswer)
  async open(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(practiceAnswerSchema) body: PracticeAnswerRequest,
    @Who() account: Account,
  ): Promise<CaseResponse> {
    return { id: caseId, state: await this.engines.open(caseId, body, account) };
  }
}
