import { Injectable } from '@nestjs/common';
import type { UploadResponse } from '@true-ledger/contract';
import { sha256Hex } from '@true-ledger/core/kit';
import { currentVersion, type Author, type CaseState, type LedgerEntry } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import { DataSource, type EntityManager } from 'typeorm';
import { CasePhotoRow, EntryRow, PhotoRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { IntakeService } from '../intake/intake.service.js';
import { entryOf, LedgerService } from '../ledger/ledger.service.js';
import { blurred, thumbOf } from './readPicture.js';

type BlurRegion = EntryBodies['blur-set']['regions'][number];

export type Rendition = 'original' | 'work' | 'thumb' | 'shared-work' | 'shared-thumb';

/** Hash of bytes that came; refuses those that are not the ones the sender hashed: cut or changed on the way. */
export function arrived(bytes: Buffer, sha256: string | undefined): string {
  const hash = sha256Hex(bytes);
  if (sha256 && hash !== sha256)
    throw new ProblemError({
      code: 'damaged-on-the-way',
      sentence: 'The file was not stored: it did not arrive as it was sent. It is still where it came from; send it again.',
      field: 'file',
    });
  return hash;
}

/** Refuses a file sent under the id of an entry that stands for something else: it would be kept though no entry names it. */
export function namesFile(entry: LedgerEntry, kind: 'photo-added' | 'clip-added', sha256: string, station: string | null): void {
  if (entry.kind === kind && entry.station === station && (entry.body as { sha256?: string } | null)?.sha256 === sha256) return;
  throw new ProblemError({
    code: 'entry-id',
    sentence: 'The file was not stored: it came under the id of another entry. Send it again under an id of its own.',
    field: 'entryId',
  });
}

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
    private readonly intake: IntakeService,
  ) {}

  /** Stores a picture and files it to a station in one transaction. The same file at the same station again is the same photograph. */
  async add(
    caseId: string,
    station: string | null,
    entryId: string,
    file: { name: string; bytes: Buffer; sha256: string },
    author: Author,
    kind: { standIn: boolean; shot?: string | null },
  ): Promise<UploadResponse> {
    const sha = file.sha256;
    const heldIn = async (tx: EntityManager, state: CaseState): Promise<UploadResponse | null> => {
      const held = currentVersion(state, station, `photo:${sha}`);
      return held ? { entry: entryOf(await tx.getRepository(EntryRow).findOneByOrFail({ id: held.entry })), already: true } : null;
    };
    const before = await heldIn(this.db.manager, await this.ledger.state(caseId));
    if (before) return before;
    const picture = await this.intake.picture(file.bytes);
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
              standIn: kind.standIn,
              shot: kind.shot ?? null,
            },
          },
        ],
        author,
      );
      namesFile(sealed!, 'photo-added', sha, station);
      await tx.createQueryBuilder().insert().into(CasePhotoRow).values({ caseId, sha256: sha }).orIgnore().execute();
      return { entry: sealed!, already: false };
    });
  }

  /** Bytes of one rendition, only through a case that holds the picture. */
  async bytes(caseId: string, sha256: string, rendition: Rendition): Promise<{ bytes: Buffer; mime: string }> {
    if (rendition === 'shared-work' || rendition === 'shared-thumb')
      return this.shared(caseId, sha256, rendition === 'shared-work' ? 'work' : 'thumb');
    const filed = await this.db.getRepository(CasePhotoRow).existsBy({ caseId, sha256 });
    const row = filed
      ? await this.db.getRepository(PhotoRow).findOne({ where: { sha256 }, select: { sha256: true, mime: true, [rendition]: true } })
      : null;
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'This case holds no such picture.' });
    return { bytes: row[rendition], mime: rendition === 'original' ? row.mime : 'image/jpeg' };
  }

  /** Everything blurred in a picture, wherever it is filed: what one place hides no other shows. */
  async regionsOf(sha256: string): Promise<readonly BlurRegion[]> {
    const cases = await this.db.getRepository(CasePhotoRow).find({ where: { sha256 }, select: { caseId: true, sha256: true } });
    const found: BlurRegion[] = [];
    for (const { caseId } of cases) {
      const state = await this.ledger.state(caseId);
      for (const station of Object.keys(state.groups)) {
        const blur = currentVersion(state, station, `blur:${sha256}`);
        if (blur) found.push(...(blur.body as EntryBodies['blur-set']).regions);
      }
    }
    return found;
  }

  /** Rendition for others, with what is blurred; kept beside the case until the regions change. It is never the plain one because something failed. */
  private async shared(caseId: string, sha256: string, rendition: 'work' | 'thumb'): Promise<{ bytes: Buffer; mime: string }> {
    const regions = await this.regionsOf(sha256);
    if (regions.length === 0) return this.bytes(caseId, sha256, rendition);
    const key = sha256Hex(JSON.stringify(regions));
    const links = this.db.getRepository(CasePhotoRow);
    const row = await links.findOne({
      where: { caseId, sha256 },
      select: { caseId: true, sha256: true, sharedKey: true, sharedWork: true, sharedThumb: true },
    });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'This case holds no such picture.' });
    if (row.sharedKey !== key || !row.sharedWork || !row.sharedThumb) {
      row.sharedWork = await blurred((await this.bytes(caseId, sha256, 'work')).bytes, regions);
      row.sharedThumb = await thumbOf(row.sharedWork);
      await links.update({ caseId, sha256 }, { sharedKey: key, sharedWork: row.sharedWork, sharedThumb: row.sharedThumb });
    }
    return { bytes: rendition === 'work' ? row.sharedWork : row.sharedThumb, mime: 'image/jpeg' };
  }

  /** Name of a rendition as it is now, for caches that ask again; null when the case holds no such picture. */
  async tag(caseId: string, sha256: string, rendition: Rendition): Promise<string | null> {
    if (!(await this.db.getRepository(CasePhotoRow).existsBy({ caseId, sha256 }))) return null;
    const regions = rendition.startsWith('shared') ? await this.regionsOf(sha256) : [];
    return `"${rendition}-${sha256}${regions.length > 0 ? `-${sha256Hex(JSON.stringify(regions)).slice(0, 16)}` : ''}"`;
  }

  /** A picture for whoever holds it beside a part of another case: with what is blurred anywhere. */
  async byItself(sha256: string): Promise<Buffer | null> {
    const link = await this.db.getRepository(CasePhotoRow).findOne({ where: { sha256 }, select: { caseId: true, sha256: true } });
    return link ? (await this.shared(link.caseId, sha256, 'work')).bytes : null;
  }
}
