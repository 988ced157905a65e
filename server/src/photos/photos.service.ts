import { Injectable } from '@nestjs/common';
import type { UploadResponse } from '@true-ledger/contract';
import { currentVersion, sha256Hex, type Author, type CaseState } from '@true-ledger/core';
import { DataSource, type EntityManager } from 'typeorm';
import { CasePhotoRow, EntryRow, PhotoRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { entryOf, LedgerService } from '../ledger/ledger.service.js';
import { readPicture } from './readPicture.js';

export type Rendition = 'original' | 'work' | 'thumb';

/** Last step of a name with any path cut off, without control characters. */
export function plainName(name: string): string {
  const last = name.split(/[\\/]/).at(-1) ?? '';
  return (
    [...last]
      .filter((c) => c >= ' ' && c !== '\u007f')
      .join('')
      .slice(0, 120) || 'picture'
  );
}

@Injectable()
export class PhotosService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  /** Stores a picture and files it to a station in one transaction. The same file at the same station again is the same photograph. */
  async add(
    caseId: string,
    station: string,
    entryId: string,
    file: { name: string; bytes: Buffer },
    author: Author,
    standIn: boolean,
  ): Promise<UploadResponse> {
    const sha = sha256Hex(file.bytes);
    const heldIn = async (tx: EntityManager, state: CaseState): Promise<UploadResponse | null> => {
      const held = currentVersion(state, station, `photo:${sha}`);
      return held ? { entry: entryOf(await tx.getRepository(EntryRow).findOneByOrFail({ id: held.entry })), already: true } : null;
    };
    const before = await heldIn(this.db.manager, await this.ledger.state(caseId));
    if (before) return before;
    const picture = await readPicture(file.bytes);
    return this.db.transaction(async (tx) => {
      // The same file may have come twice at once: asked again under the lock of the case.
      const meanwhile = await heldIn(tx, await this.ledger.lockedState(tx, caseId));
      if (meanwhile) return meanwhile;
      await tx
        .createQueryBuilder()
        .insert()
        .into(PhotoRow)
        .values({
          sha256: sha,
          mime: picture.mime,
          width: picture.width,
          height: picture.height,
          original: file.bytes,
          work: picture.work,
          thumb: picture.thumb,
        })
        .orIgnore()
        .execute();
      const [sealed] = await this.ledger.appendIn(
        tx,
        caseId,
        [
          {
            id: entryId,
            kind: 'photo-added',
            station,
            basedOn: null,
            body: {
              sha256: sha,
              name: plainName(file.name),
              mime: picture.mime,
              bytes: file.bytes.length,
              width: picture.width,
              height: picture.height,
              takenAt: picture.takenAt,
              standIn,
            },
          },
        ],
        author,
      );
      await tx.createQueryBuilder().insert().into(CasePhotoRow).values({ caseId, sha256: sha }).orIgnore().execute();
      return { entry: sealed!, already: false };
    });
  }

  /** Bytes of one rendition, only through a case that holds the picture. */
  async bytes(caseId: string, sha256: string, rendition: Rendition): Promise<{ bytes: Buffer; mime: string }> {
    const filed = await this.db.getRepository(CasePhotoRow).existsBy({ caseId, sha256 });
    const row = filed
      ? await this.db.getRepository(PhotoRow).findOne({ where: { sha256 }, select: { sha256: true, mime: true, [rendition]: true } })
      : null;
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'This case holds no such picture.' });
    return { bytes: row[rendition], mime: rendition === 'original' ? row.mime : 'image/jpeg' };
  }
}
