import { Controller, Get, Param, ParseUUIDPipe, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiBody, ApiConsumes, ApiTags } from '@nestjs/swagger';
import { LIMITS, type Account, type ImportAnswer } from '@true-ledger/contract';
import {
  chainLine,
  emptyCase,
  fileOf,
  foldEntries,
  sha256Hex,
  type EntryBodies,
  type KeptEntry,
  type LedgerEntry,
  type SealClaims,
} from '@true-ledger/core';
import type { Response } from 'express';
import { unlink } from 'node:fs/promises';
import { ZipFile } from 'yazl';
import { Needs, Who } from '../accounts/guard.js';
import { ComputeService } from '../compute/compute.service.js';
import { disposition } from '../http/download.js';
import { ARRIVING } from '../intake/leftovers.js';
import { KeysService } from '../keys/keys.service.js';
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
    private readonly compute: ComputeService,
    private readonly keys: KeysService,
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
    const { state, view } = await this.ledger.view(caseId);
    const entries = (await this.ledger.entries(caseId)).slice(0, state.seq);
    const zip = new ZipFile();
    const plain = { compress: false };
    const files: Record<string, string> = {};
    const add = (bytes: Buffer, name: string, options = {}): void => {
      files[name] = sha256Hex(bytes);
      zip.addBuffer(bytes, name, options);
    };
    // The files beside the ledger follow from its lines alone, as whoever verifies them folds them.
    const lines = foldEntries(emptyCase(caseId), entries.map(chainLine));
    const derived = await this.compute.run<'files'>({ kind: 'files', state: lines });
    const report = (await this.reports.draft(caseId)).bytes;
    add(Buffer.from(entries.map((e) => JSON.stringify(chainLine(e))).join('\n') + '\n'), 'ledger.jsonl', plain);
    add(Buffer.from(derived.caseFile), 'case.json');
    add(Buffer.from(derived.readings), 'measurements.csv');
    add(Buffer.from(derived.findings), 'findings.csv');
    add(report, 'report.pdf', plain);
    response.set({
      'Content-Type': 'application/zip',
      'Content-Disposition': disposition('attachment', `case-${view.number}`, 'zip'),
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
      add(await this.bytesOf(caseId, entry, file.sha256), file.name, plain);
    }
    const seal = this.keys.seal(
      { caseId, entries: entries.length, head: state.head, made: new Date().toISOString(), files, origins: stretches(entries) },
      '',
    );
    zip.addBuffer(Buffer.from(JSON.stringify(seal, null, 2)), 'seal.json');
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

/** Stretches of a ledger that were taken in from elsewhere. */
function stretches(entries: readonly KeptEntry[]): SealClaims['origins'] {
  const found: Array<{ from: number; to: number; shop: string }> = [];
  for (const { seq, origin } of entries) {
    const last = found.at(-1);
    if (origin === undefined) continue;
    if (last && last.shop === origin && last.to === seq - 1) last.to = seq;
    else found.push({ from: seq, to: seq, shop: origin });
  }
  return found;
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
