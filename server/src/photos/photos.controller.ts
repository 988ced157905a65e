import { Controller, Get, Param, ParseUUIDPipe, Post, Req, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { LIMITS, uploadSchema, type Account, type UploadResponse, type UploadRequest, answers } from '@true-ledger/contract';
import type { Request, Response } from 'express';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { ProblemError } from '../http/problem.js';
import { arrived, PhotosService, type Rendition } from './photos.service.js';

@ApiTags('pictures')
@Controller('api/cases/:caseId/photos')
export class PhotosController {
  constructor(private readonly photos: PhotosService) {}

  @Post()
  @Answers(answers.uploaded)
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: LIMITS.uploadBytes, files: 1, fields: 8, fieldSize: 4096 } }))
  async add(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(uploadSchema, { file: { type: 'string', format: 'binary' } })
    body: UploadRequest,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Who() account: Account,
  ): Promise<UploadResponse> {
    if (!file) throw new ProblemError({ code: 'no-file', sentence: 'No picture came with the request. Choose a file.', field: 'file' });
    const sha256 = arrived(file.buffer, body.sha256);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8');
    return this.photos.add(
      caseId,
      body.station || null,
      body.entryId,
      { name, bytes: file.buffer, sha256 },
      { id: account.id, name: account.name },
      { standIn: body.standIn === 'yes', shot: body.shot || null },
    );
  }

  /** Builders see the picture; readers its shared rendition, with personal things blurred. */
  @Get(':sha/work')
  work(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Who() who: Account,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.send(caseId, sha, who.role === 'reader' ? 'shared-work' : 'work', request, response);
  }

  @Get(':sha/thumb')
  thumb(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Who() who: Account,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.send(caseId, sha, who.role === 'reader' ? 'shared-thumb' : 'thumb', request, response);
  }

  /** What others will see: reports and readers. */
  @Get(':sha/shared')
  shared(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.send(caseId, sha, 'shared-work', request, response);
  }

  /** Originals may carry personal data (place, time), so readers get the renditions only. */
  @Needs('builder')
  @Get(':sha/original')
  original(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('sha') sha: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.send(caseId, sha, 'original', request, response);
  }

  /** A cache asks again every time: a picture can be struck, blurred, or out of sight for who now sits there. */
  private async send(caseId: string, sha: string, rendition: Rendition, request: Request, response: Response): Promise<void> {
    const tag = await this.photos.tag(caseId, sha, rendition);
    if (!tag) throw new ProblemError({ code: 'not-found', sentence: 'This case holds no such picture.' });
    response.set({ 'Cache-Control': 'private, no-cache', ETag: tag, Vary: 'Cookie' });
    if (request.headers['if-none-match'] === tag) return void response.status(304).end();
    const { bytes, mime } = await this.photos.bytes(caseId, sha, rendition);
    response.set({ 'Content-Type': mime, 'Content-Disposition': 'inline' }).send(bytes);
  }
}
