import { Controller, Get, Param, ParseUUIDPipe, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { caseFileOf, findingsCsv, mediaName, readingsCsv } from '@true-ledger/core';
import type { Response } from 'express';
import { ZipFile } from 'yazl';
import { Needs } from '../accounts/guard.js';
import { ClipsService } from '../clips/clips.service.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
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
    zip.addBuffer((await this.reports.pdf(caseId)).bytes, 'report.pdf', plain);
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
      if ((entry.kind !== 'photo-added' && entry.kind !== 'clip-added') || !entry.body) continue;
      const body = entry.body as { sha256: string; mime: string };
      const name = mediaName(entry.kind, body);
      if (done.has(name)) continue;
      done.add(name);
      const { bytes } =
        entry.kind === 'photo-added'
          ? await this.photos.bytes(caseId, body.sha256, 'original')
          : await this.clips.bytes(caseId, body.sha256);
      zip.addBuffer(bytes, name, plain);
    }
    zip.end();
    await sent;
  }
}
