import { Injectable } from '@nestjs/common';
import type { UploadResponse } from '@true-ledger/contract';
import { CLIP_MIMES, currentVersion, sha256Hex, type Author, type CaseState } from '@true-ledger/core';
import fileType from 'file-type';
import { DataSource, type EntityManager } from 'typeorm';
import { CaseClipRow, ClipRow, EntryRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { entryOf, LedgerService } from '../ledger/ledger.service.js';
import { plainName } from '../photos/photos.service.js';

type ClipMime = (typeof CLIP_MIMES)[number];

/** What the browser calls the same container. */
const SAME: Readonly<Record<string, ClipMime>> = {
  'audio/x-m4a': 'audio/mp4',
  'audio/opus': 'audio/ogg',
  'audio/vnd.wave': 'audio/wav',
  'audio/x-wav': 'audio/wav',
  'application/ogg': 'audio/ogg',
};

/** Kind of a sound or film by its own bytes, whatever its name says. `said` decides only between sound and film of one container. */
export async function clipMime(bytes: Buffer, said: string): Promise<ClipMime> {
  const found = (await fileType.fromBuffer(bytes))?.mime as string | undefined;
  const mime = found ? ((SAME[found] ?? found) as ClipMime) : undefined;
  if (!mime || !CLIP_MIMES.includes(mime))
    throw new ProblemError({
      code: 'not-a-clip',
      sentence: `The clip was not stored: ${bytes.length === 0 ? 'the file is empty' : 'it is not a sound or film of a kind taken here (WebM, MP4, MOV, Ogg, MP3, WAV)'}. Nothing else was lost. Record it again or choose the file.`,
      field: 'file',
    });
  const audio = mime.replace('video/', 'audio/') as ClipMime;
  return said.startsWith('audio/') && CLIP_MIMES.includes(audio) ? audio : mime;
}

@Injectable()
export class ClipsService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  /** Stores a voice note or film and files it, in one transaction; the same file at the same place is one. */
  async add(
    caseId: string,
    station: string | null,
    entryId: string,
    file: { name: string; mime: string; bytes: Buffer; seconds: number | null },
    author: Author,
  ): Promise<UploadResponse> {
    const sha256 = sha256Hex(file.bytes);
    const mime = await clipMime(file.bytes, file.mime);
    return this.db.transaction(async (tx) => {
      const meanwhile = await this.held(tx, await this.ledger.lockedState(tx, caseId), station, sha256);
      if (meanwhile) return meanwhile;
      await tx.createQueryBuilder().insert().into(ClipRow).values({ sha256, mime, bytes: file.bytes }).orIgnore().execute();
      const body = { sha256, name: plainName(file.name), mime, bytes: file.bytes.length, seconds: file.seconds, takenAt: null };
      const [entry] = await this.ledger.appendIn(tx, caseId, [{ id: entryId, kind: 'clip-added', station, basedOn: null, body }], author);
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
