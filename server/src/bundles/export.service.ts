import { Injectable } from '@nestjs/common';
import { sha256Hex } from '@true-ledger/core/kit';
import { chainLine, emptyCase, type KeptEntry } from '@true-ledger/core/ledger';
import { foldEntries, type EntryBodies } from '@true-ledger/core/entries';
import { fileOf, type SealClaims } from '@true-ledger/core/bundle';
import type { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { ClipsService } from '../clips/clips.service.js';
import { ComputeService } from '../compute/compute.service.js';
import { KeysService } from '../keys/keys.service.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { ReportsService } from '../reports/reports.service.js';
import { ShopService } from '../shop/shop.service.js';

/** Writes cases as open bundles (`docs/formats/bundle.md`). */
@Injectable()
export class ExportService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
    private readonly clips: ClipsService,
    private readonly reports: ReportsService,
    private readonly compute: ComputeService,
    private readonly keys: KeysService,
    private readonly shop: ShopService,
  ) {}

  /** Makes everything that can fail, then hands the stream its name (`begin`) and the bundle. */
  async write(caseId: string, begin: (number: string) => Writable): Promise<void> {
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
    const shop = await this.shop.letterhead();
    const report = (await this.reports.draft(caseId)).bytes;
    add(Buffer.from(entries.map((e) => JSON.stringify(chainLine(e))).join('\n') + '\n'), 'ledger.jsonl', plain);
    add(Buffer.from(derived.caseFile), 'case.json');
    add(Buffer.from(derived.readings), 'measurements.csv');
    add(Buffer.from(derived.findings), 'findings.csv');
    add(report, 'report.pdf', plain);
    const sent = pipeline(zip.outputStream, begin(view.number));
    try {
      for (const entry of entries) {
        const file = fileOf(entry);
        if (!file || Object.hasOwn(files, file.name)) continue;
        add(await this.bytesOf(caseId, entry, file.sha256), file.name, plain);
      }
      const claims = {
        caseId,
        entries: entries.length,
        head: state.head,
        made: new Date().toISOString(),
        files,
        origins: stretches(entries),
      };
      zip.addBuffer(Buffer.from(JSON.stringify(this.keys.seal(claims, shop?.name ?? ''), null, 2)), 'seal.json');
      zip.end();
    } catch (error) {
      // What has gone out cannot be taken back; cut off, it does not pass for a whole one.
      (zip.outputStream as unknown as { destroy(error: unknown): void }).destroy(error);
      await sent.catch(() => undefined);
      throw error;
    }
    await sent;
  }

  private async bytesOf(caseId: string, entry: KeptEntry, sha256: string): Promise<Buffer> {
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
