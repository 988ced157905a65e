import { Controller, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { presenceSchema, type Account, type Present, type PresenceRequest, answers } from '@true-ledger/contract';
import { DataSource } from 'typeorm';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';

/** A page not heard of for so long is closed, seconds. */
const GONE_SECONDS = 35;

/** Who else has a case open, and where in it they are. */
@ApiTags('cases')
@Controller('api/cases/:caseId/presence')
export class PresenceController {
  constructor(private readonly db: DataSource) {}

  /** Says that a page is here; answers with the pages of others. */
  @Needs('reader')
  @Post()
  @Answers(answers.present)
  async here(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(presenceSchema) body: PresenceRequest,
    @Who() who: Account,
  ): Promise<Present[]> {
    await this.db.query(
      `INSERT INTO presence (page, "caseId", "accountId", name, place, seen) VALUES ($1, $2, $3, $4, $5, now())
       ON CONFLICT (page) DO UPDATE SET "caseId" = $2, place = $5, seen = now() WHERE presence."accountId" = $3`,
      [body.page, caseId, who.id, who.name, body.place],
    );
    await this.db.query(`DELETE FROM presence WHERE seen < now() - interval '1 day'`);
    return (await this.db.query(
      `SELECT name, max(place) AS place FROM presence
       WHERE "caseId" = $1 AND "accountId" <> $2 AND seen > now() - interval '${GONE_SECONDS} seconds' GROUP BY name ORDER BY name`,
      [caseId, who.id],
    )) as Present[];
  }
}
