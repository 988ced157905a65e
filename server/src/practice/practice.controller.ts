import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers, drillAnswerSchema, type Account, type DrillAnswerRequest, type DrillAnswers } from '@true-ledger/contract';
import { drillCard, drillOf, type DrillAnswer } from '@true-ledger/core/practice';
import { DataSource } from 'typeorm';
import { Needs, Who } from '../accounts/guard.js';
import { DrillAnswerRow } from '../database/entities.js';
import { Answers } from '../http/answers.js';
import { Checked } from '../http/checked.js';
import { ProblemError } from '../http/problem.js';

/** Answers of one person that are looked at, the newest. */
const MOST = 10_000;

/** Drills: what was answered is kept, everything else follows from it. Each sees his own. */
@ApiTags('practice')
@Controller('api/practice')
export class PracticeController {
  constructor(private readonly db: DataSource) {}

  @Get('answers')
  @Answers(answers.drillAnswers)
  async all(@Who() account: Account): Promise<DrillAnswers> {
    const rows = await this.db
      .getRepository(DrillAnswerRow)
      .find({ where: { accountId: account.id }, order: { time: 'DESC' }, take: MOST });
    return {
      answers: rows
        .reverse()
        .map(({ card, seed, given, right, tookMs, time }): DrillAnswer => ({ card, seed, given, right, tookMs, time: time.toISOString() })),
    };
  }

  /** Keeps an answer; sent once more, it is there once. */
  @Needs('reader')
  @Post('answers')
  @Answers(answers.drillAnswers)
  async answer(@Checked(drillAnswerSchema) body: DrillAnswerRequest, @Who() account: Account): Promise<DrillAnswers> {
    const card = drillCard(body.card);
    const drill = card && drillOf(card, body.seed);
    if (!drill?.options.some((o) => o.id === body.given))
      throw new ProblemError({
        code: 'drill-unknown',
        sentence: 'There is no such drill, or it offers no such answer. Nothing was kept; fetch the page anew.',
        field: drill ? 'given' : 'card',
      });
    await this.db
      .getRepository(DrillAnswerRow)
      .createQueryBuilder()
      .insert()
      .values({ ...body, accountId: account.id, right: body.given === drill.right, time: new Date() })
      .orIgnore()
      .execute();
    return this.all(account);
  }
}
