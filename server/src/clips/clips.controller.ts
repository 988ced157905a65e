import { Controller, Get, Headers, Param, ParseUUIDPipe, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { clipSchema, LIMITS, type Account, type UploadResponse, type ClipRequest, answers } from '@true-ledger/contract';
import type { Response } from 'express';
import { Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { ProblemError } from '../http/problem.js';
import { arrived } from '../photos/photos.service.js';
import { ClipsService } from './clips.service.js';

@ApiTags('clips')
@Controller('api/cases/:caseId/clips')
export class ClipsController {
  constructor(private readonly clips: ClipsService) {}

  @Post()
  @Answers(answers.uploaded)
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: LIMITS.clipBytes, files: 1, fields: 8, fieldSize: 4096 } }))
  async add(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(clipSchema, { file: { type: 'string', format: 'binary' } })
    body: ClipRequest,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Who() account: Account,
  ): Promise<UploadResponse> {
    if (!file) throw new ProblemError({ code: 'no-file', sentence: 'No clip came with the request. Choose a file.', field: 'file' });
    const sha256 = arrived(file.buffer, body.sha256);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8');
    const seconds = body.seconds === undefined || body.seconds === '' ? null : Number(body.seconds);
    return this.clips.add(
      caseId,
      body.station || null,
      body.entryId,
      { name, mime: file.mimetype, bytes: file.buffer, sha256, seconds },
      { id: account.id, name: account.name },
    );
  }

  /** Whole, or the range a player asks for. */
  @Get(':sha')
  async play(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Headers('range') range: string | undefined,
    @Res() response: Response,
  ): Promise<void> {
    const { bytes, mime } = await this.clips.bytes(caseId, sha);
    response.set({
      'Content-Type': mime,
      'Accept-Ranges': 'bytes',
      'Cache-Control': 'private, no-cache',
      'Content-Disposition': 'inline',
    });
    const asked = /^bytes=(\d*)-(\d*)$/.exec(range ?? '');
    if (!asked) return void response.send(bytes);
    const from = asked[1] === '' ? Math.max(0, bytes.length - Number(asked[2])) : Number(asked[1]);
    const to = asked[1] !== '' && asked[2] !== '' ? Math.min(bytes.length - 1, Number(asked[2])) : bytes.length - 1;
    if (from > to || from >= bytes.length) return void response.status(416).set('Content-Range', `bytes */${bytes.length}`).end();
    response
      .status(206)
      .set('Content-Range', `bytes ${from}-${to}/${bytes.length}`)
      .send(bytes.subarray(from, to + 1));
  }
}
