import { Controller, Delete, Get, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  shareRequestSchema,
  type Account,
  type NewShareLink,
  type ShareLink,
  type SharedAccount,
  type ShareRequest,
  answers,
} from '@true-ledger/contract';
import type { Response } from 'express';
import { Needs, Public, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { sendPdf } from './reports.controller.js';
import { SharesService } from './shares.service.js';

@ApiTags('account')
@Controller('api/cases/:caseId/shares')
export class SharesController {
  constructor(private readonly shares: SharesService) {}

  @Needs('builder')
  @Get()
  @Answers(answers.shareLinks)
  all(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<ShareLink[]> {
    return this.shares.all(caseId);
  }

  @Post()
  @Answers(answers.newShareLink)
  make(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(shareRequestSchema) body: ShareRequest,
    @Who() who: Account,
  ): Promise<NewShareLink> {
    return this.shares.make(caseId, body, who.name);
  }

  @Delete(':id')
  @Answers(answers.shareLinks)
  revoke(@Param('caseId', ParseUUIDPipe) caseId: string, @Param('id', ParseUUIDPipe) id: string): Promise<ShareLink[]> {
    return this.shares.revoke(caseId, id);
  }
}

/** For those who have a link and no account. */
@ApiTags('account')
@Controller('api/shared/:token')
export class SharedController {
  constructor(private readonly shares: SharesService) {}

  @Public()
  @Get()
  @Answers(answers.sharedAccount)
  async look(@Param('token') token: string, @Res({ passthrough: true }) response: Response): Promise<SharedAccount> {
    response.set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex' });
    return this.shares.look(token);
  }

  @Public()
  @Get('account.pdf')
  async open(@Param('token') token: string, @Res() response: Response): Promise<void> {
    const { bytes, name } = await this.shares.open(token);
    response.set({ 'X-Robots-Tag': 'noindex' });
    sendPdf(response, bytes, name);
  }
}
