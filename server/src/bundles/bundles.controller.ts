import { Controller, Get, Param, ParseUUIDPipe, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import { LIMITS, type ImportAnswer } from '@true-ledger/contract';
import { caseFileOf, fileOf, findingsCsv, readingsCsv, type EntryBodies, type LedgerEntry } from '@true-ledger/core';
import type { Response } from 'express';
import { unlink } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ZipFile } from 'yazl';
import { Needs } from '../accounts/guard.js';
import { ClipsService } from '../clips/clips.service.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { ImportService } from './import.service.js';
import { ReportsService } from '../reports/reports.service.js';

/** Exports a case as an open bundle (`docs/formats/bundle.md`). */
@ApiTags('bundle')
@Controller('api/cases/:caseId')
export class BundlesController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
    private readonly clips: ClipsService,
    private readonly reports: ReportsService,
  ) {}

  @Get('case.json')
  async caseFile(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { state, view } = await this.ledger.view(caseId);
    response
      .set({ 'Content-Type': 'application/json', 'Content-Disposition': `attachment; filename="case-${view.number}.json"` })
      .send(JSON.stringify(caseFileOf(state, view), null, 2));
  }

  /** Holds original pictures, so it takes a builder. */
  @Needs('builder')
  @Get('bundle.zip')
  async bundle(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { state, view } = await this.ledger.view(caseId);
    const entries = (await this.ledger.entries(caseId)).slice(0, state.seq);
    const zip = new ZipFile();
    const plain = { compress: false };
    zip.addBuffer(Buffer.from(entries.map((e) => JSON.stringify(e)).join('\n') + '\n'), 'ledger.jsonl', plain);
    zip.addBuffer(Buffer.from(JSON.stringify(caseFileOf(state, view), null, 2)), 'case.json');
    zip.addBuffer(Buffer.from(readingsCsv(view)), 'measurements.csv');
    zip.addBuffer(Buffer.from(findingsCsv(view)), 'findings.csv');
    zip.addBuffer((await this.reports.draft(caseId)).bytes, 'report.pdf', plain);
    response.set({
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="case-${view.number}.zip"`,
      'Cache-Control': 'no-store',
    });
    const sent = new Promise<void>((resolve, reject) =>
      zip.outputStream.pipe(response).on('finish', resolve).on('close', resolve).on('error', reject),
    );
    const done = new Set<string>();
    for (const entry of entries) {
      const file = fileOf(entry);
      if (!file || done.has(file.name)) continue;
      done.add(file.name);
      zip.addBuffer(await this.bytesOf(caseId, entry, file.sha256), file.name, plain);
    }
    zip.end();
    await sent;
  }

  private async bytesOf(caseId: string, entry: LedgerEntry, sha256: string): Promise<Buffer> {
    switch (entry.kind) {
      case 'photo-added':
        return (await this.photos.bytes(caseId, sha256, 'original')).bytes;
      case 'clip-added':
        return (await this.clips.bytes(caseId, sha256)).bytes;
      default:
        return this.reports.signed(caseId, (entry.body as EntryBodies['account-signed']).version);
    }
  }
}

/** Takes a bundle in. */
@ApiTags('bundle')
@Controller('api/bundles')
export class BundlesInController {
  constructor(private readonly imports: ImportService) {}

  @Needs('builder')
  @Post()
  @ApiConsumes('multipart/form-data')
  @ApiBody({ schema: { type: 'object', properties: { file: { type: 'string', format: 'binary' } } } })
  @UseInterceptors(
    FileInterceptor('file', { dest: join(tmpdir(), 'true-ledger-bundles'), limits: { fileSize: LIMITS.bundleBytes, files: 1, fields: 2 } }),
  )
  async take(@UploadedFile() file: Express.Multer.File | undefined): Promise<ImportAnswer> {
    if (!file) throw new ProblemError({ code: 'no-file', sentence: 'No bundle came with the request. Choose a file.', field: 'file' });
    try {
      return await this.imports.take(file.path);
    } finally {
      await unlink(file.path).catch(() => undefined);
    }
  }
}
