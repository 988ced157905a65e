import { Controller, Get, Param, ParseUUIDPipe, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { LIMITS, type Account, type ImportAnswer, answers } from '@true-ledger/contract';
import type { Response } from 'express';
import { unlink } from 'node:fs/promises';
import { Needs, Who } from '../accounts/guard.js';
import { ComputeService } from '../compute/compute.service.js';
import { disposition } from '../http/download.js';
import { ProblemError } from '../http/problem.js';
import { ARRIVING } from '../intake/leftovers.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ExportService } from './export.service.js';
import { ImportService } from './import.service.js';

/** Gives a case out in open formats. */
@ApiTags('bundle')
@Controller('api/cases/:caseId')
export class BundlesController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly compute: ComputeService,
    private readonly exports: ExportService,
  ) {}

  @Get('case.json')
  async caseFile(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { state, view } = await this.ledger.view(caseId);
    const { caseFile } = await this.compute.run<'files'>({ kind: 'files', state });
    response
      .set({ 'Content-Type': 'application/json', 'Content-Disposition': disposition('attachment', `case-${view.number}`, 'json') })
      .send(caseFile);
  }

  /** Holds original pictures, so it takes a builder. */
  @Needs('builder')
  @Get('bundle.zip')
  async bundle(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    await this.exports.write(caseId, (number) =>
      response.set({
        'Content-Type': 'application/zip',
        'Content-Disposition': disposition('attachment', `case-${number}`, 'zip'),
        'Cache-Control': 'no-store',
      }),
    );
  }
}

/** Takes a bundle in. */
@ApiTags('bundle')
@Controller('api/bundles')
export class BundlesInController {
  constructor(private readonly imports: ImportService) {}

  @Needs('builder')
  @Post()
  @Answers(answers.imported)
  @ApiConsumes('multipart/form-data')
  @ApiBody({ schema: { type: 'object', properties: { file: { type: 'string', format: 'binary' } } } })
  @UseInterceptors(FileInterceptor('file', { dest: ARRIVING, limits: { fileSize: LIMITS.bundleBytes, files: 1, fields: 2 } }))
  async take(@UploadedFile() file: Express.Multer.File | undefined, @Who() who: Account): Promise<ImportAnswer> {
    if (!file) throw new ProblemError({ code: 'no-file', sentence: 'No bundle came with the request. Choose a file.', field: 'file' });
    try {
      return await this.imports.take(file.path, { id: who.id, name: who.name });
    } finally {
      await unlink(file.path).catch(() => undefined);
    }
  }
}
