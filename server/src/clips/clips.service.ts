import { Injectable } from '@nestjs/common';
import type { UploadResponse } from '@true-ledger/contract';
import { currentVersion, type Author, type CaseState } from '@true-ledger/core/ledger';
import { DataSource, type EntityManager } from 'typeorm';
import { CaseClipRow, ClipRow, EntryRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { IntakeService } from '../intake/intake.service.js';
import { entryOf, LedgerService } from '../ledger/ledger.service.js';
import { namesFile, plainName } from '../photos/photos.service.js';

@Injectable()
export class ClipsService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly intake: IntakeService,
  ) {}

  /** Stores a voice note or film and files it, in one transaction; the same file at the same place is one. */
  async add(
    caseId: string,
    station: string | null,
    entryId: string,
    file: { name: string; mime: string; bytes: Buffer; sha256: string; seconds: number | null },
    author: Author,
  ): Promise<UploadResponse> {
    const { sha256 } = file;
    const mime = await this.intake.clip(file.bytes, file.mime);
    return this.db.transaction(async (tx) => {
      const meanwhile = await this.held(tx, await this.ledger.lockedState(tx, caseId), station, sha256);
      if (meanwhile) return meanwhile;
      await tx.createQueryBuilder().insert().into(ClipRow).values({ sha256, mime, bytes: file.bytes }).orIgnore().execute();
      const body = { sha256, name: plainName(file.name), mime, bytes: file.bytes.length, seconds: file.seconds, takenAt: null };
      const [entry] = await this.ledger.appendIn(tx, caseId, [{ id: entryId, kind: 'clip-added', station, basedOn: null, body }], author);
      namesFile(entry!, 'clip-added', sha256, station);
      await tx.createQueryBuilder().insert().into(CaseClipRow).values({ caseId, sha256 }).orIgnore().execute();
      return { entry: entry!, already: false };
    });
  }

  private async held(tx: EntityManager, state: CaseState, station: string | null, sha: string): Promise<UploadResponse | null> {
    const held = currentVersion(state, station, `clip:${sha}`);
    return held ? { entry: entryOf(await tx.getRepository(EntryRow).findOneByOrFail({ id: held.entry })), already: true } : null;
  }

  async bytes(caseId: string, sha256: string): Promise<{ bytes: Buffer; mime: string }> {
    const filed = await this.db.getRepository(CaseClipRow).existsBy({ caseId, sha256 });
    const row = filed
      ? await this.db.getRepository(ClipRow).findOne({ where: { sha256 }, select: { sha256: true, mime: true, bytes: true } })
      : null;
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'This case holds no such clip.' });
    return { bytes: row.bytes, mime: row.mime };
  }
}
