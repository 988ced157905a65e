import { Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Query, Res } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  letterSchema,
  signRequestSchema,
  type Account,
  type Letter,
  type LetterRequest,
  type PdfProgress,
  type SignRequest,
  answers,
} from '@true-ledger/contract';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import { caseView } from '@true-ledger/core/case';
import { LETTERS } from '@true-ledger/core/report';
import { ProblemError } from '../http/problem.js';
import type { Response } from 'express';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { disposition } from '../http/download.js';
import { IntegerPipe } from '../http/integer.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ReportsService } from './reports.service.js';

export function sendPdf(response: Response, bytes: Buffer, name: string): void {
  response
    .set({
      'Content-Type': 'application/pdf',
      'Content-Disposition': disposition('attachment', name, 'pdf'),
      'Cache-Control': 'no-store',
    })
    .send(bytes);
}

/** A run as the asker named it; one of another shape is not told of. */
const runOf = (run: unknown): string | undefined => (typeof run === 'string' && /^[0-9a-f-]{36}$/.test(run) ? run : undefined);

@ApiTags('account')
@Controller('api/cases/:caseId')
export class ReportsController {
  constructor(
    private readonly reports: ReportsService,
    private readonly ledger: LedgerService,
  ) {}

  /** The account as it stands, a draft. */
  @ApiQuery({ name: 'run', required: false, description: 'A name for this making, by which its progress is asked' })
  @Get('report.pdf')
  async draft(@Param('caseId', ParseUUIDPipe) caseId: string, @Query('run') run: unknown, @Res() response: Response): Promise<void> {
    const { bytes, number } = await this.reports.draft(caseId, runOf(run));
    sendPdf(response, bytes, `account-${number}-draft`);
  }

  /** The same as one HTML file, to be read anywhere and by whoever reads aloud; it fetches nothing. */
  @ApiQuery({ name: 'run', required: false, description: 'A name for this making, by which its progress is asked' })
  @Get('report.html')
  async html(@Param('caseId', ParseUUIDPipe) caseId: string, @Query('run') run: unknown, @Res() response: Response): Promise<void> {
    const { html, number } = await this.reports.html(caseId, runOf(run));
    response
      .set({
        'Content-Type': 'text/html; charset=utf-8',
        // Kept, never opened as a page of this server.
        'Content-Disposition': disposition('attachment', `account-${number}-draft`, 'html'),
        'Cache-Control': 'no-store',
      })
      .send(html);
  }

  /** The draft with its cover sheet, which names client and engine; not for readers. */
  @Needs('builder')
  @Get('report-with-cover.pdf')
  async coveredDraft(@Param('caseId', ParseUUIDPipe) caseId: string, @Query('run') run: unknown, @Res() response: Response): Promise<void> {
    const { bytes, number } = await this.reports.covered(caseId, null, runOf(run));
    sendPdf(response, bytes, `account-${number}-draft-with-cover`);
  }

  @Needs('builder')
  @Get('account/:version/account-with-cover.pdf')
  async covered(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('version', new IntegerPipe('version')) version: number,
    @Res() response: Response,
  ): Promise<void> {
    const { bytes, number } = await this.reports.covered(caseId, version);
    sendPdf(response, bytes, `account-${number}-v${version}-with-cover`);
  }

  /** How far a PDF is that was asked for with this run; a signature's run is its id. Null when none is under way. */
  @Get('pdf-runs/:run')
  @Answers(answers.pdfRun)
  progress(@Param('caseId', ParseUUIDPipe) caseId: string, @Param('run') run: string): { progress: PdfProgress | null } {
    return { progress: this.reports.progress(caseId, run) };
  }

  @Get('machine-shop.pdf')
  async machineShop(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { bytes, number } = await this.reports.machineShop(caseId);
    sendPdf(response, bytes, `machine-shop-${number}`);
  }

  @Get('assembly.pdf')
  async assembly(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { bytes, number } = await this.reports.assembly(caseId);
    sendPdf(response, bytes, `assembly-${number}`);
  }

  /** A letter made from the case and the shop's template; it names the client. */
  @Needs('builder')
  @Get('letters/:to')
  @Answers(answers.letter)
  letter(@Param('caseId', ParseUUIDPipe) caseId: string, @Param('to') to: string): Promise<Letter> {
    const known = LETTERS.find((l) => l === to);
    if (!known) throw new ProblemError({ code: 'not-found', sentence: `There is no letter to "${to}"; there are ${LETTERS.join(', ')}.` });
    return this.reports.letter(caseId, known);
  }

  /** A letter as it was worded, set on the paper of the shop; nothing of it is kept. */
  @Needs('builder')
  @HttpCode(200)
  @Post('letter.pdf')
  async letterPdf(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(letterSchema) body: LetterRequest,
    @Res() response: Response,
  ): Promise<void> {
    const { bytes, number } = await this.reports.letterPdf(caseId, body);
    sendPdf(response, bytes, `letter-${number}`);
  }

  @Post('account/sign')
  @Answers(answers.oneEntry)
  sign(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(signRequestSchema) body: SignRequest,
    @Who() who: Account,
  ): Promise<LedgerEntry> {
    return this.reports.sign(caseId, body, { id: who.id, name: who.name });
  }

  @Get('account/:version/account.pdf')
  async signed(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('version', new IntegerPipe('version')) version: number,
    @Res() response: Response,
  ): Promise<void> {
    const bytes = await this.reports.signed(caseId, version);
    const number = caseView(await this.ledger.state(caseId))?.number ?? '';
    sendPdf(response, bytes, `account-${number}-v${version}`);
  }

  /** A picture as accounts show it: marks drawn over it, developed surface under it. */
  @ApiQuery({ name: 'station' })
  @ApiQuery({ name: 'marks', enum: ['yes', 'no'] })
  @ApiQuery({ name: 'inset', enum: ['yes', 'no'] })
  @Get('photos/:sha/account')
  async picture(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Query('station') station: string,
    @Query('marks') marks: string,
    @Query('inset') inset: string,
    @Res() response: Response,
  ): Promise<void> {
    const jpeg = await this.reports.picture(caseId, String(station), sha, { marks: marks === 'yes', inset: inset === 'yes' });
    response.set({ 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, no-cache', 'Content-Disposition': 'inline' }).send(jpeg);
  }
}
