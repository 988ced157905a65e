import { Injectable } from '@nestjs/common';
import type { Account, ReferencePart } from '@true-ledger/contract';
import { DataSource, In } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { CasePhotoRow, ReferencePartRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { PhotosService } from '../photos/photos.service.js';
import { LedgerService } from '../ledger/ledger.service.js';

const answerOf = ({ byName, time, ...row }: ReferencePartRow): ReferencePart => ({ ...row, by: byName, time: time.toISOString() });

/** Parts as they should be: photographed and measured once, held beside parts of any case. */
@Injectable()
export class ReferencesService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
    private readonly accounts: AccountsService,
  ) {}

  async all(who: Account): Promise<ReferencePart[]> {
    const rows = await this.db.getRepository(ReferencePartRow).find({ order: { time: 'DESC' } });
    const seen = await Promise.all(rows.map((row) => this.maySee(who, row.sha256)));
    return rows.filter((_, i) => seen[i]).map(answerOf);
  }

  /** Who sees chosen cases only sees the references whose picture is of one of them. */
  private async maySee(who: Account, sha256: string): Promise<boolean> {
    const cases = await this.accounts.casesOf(who);
    return cases === null || this.db.getRepository(CasePhotoRow).existsBy({ sha256, caseId: In([...cases]) });
  }

  /** Keeps a picture of a case with its corners and what was measured there. The same id again is the same part. */
  async keep(
    body: { id: string; name: string; note: string; caseId: string; station: string; sha256: string },
    byName: string,
  ): Promise<ReferencePart> {
    const table = this.db.getRepository(ReferencePartRow);
    const before = await table.findOneBy({ id: body.id });
    if (before) return answerOf(before);
    const { view } = await this.ledger.view(body.caseId);
    const station = view.byId.get(body.station);
    const photo = station?.photos.find((p) => p.value.sha256 === body.sha256)?.value;
    if (!station || !photo)
      throw new ProblemError({
        code: 'not-found',
        sentence: 'This place of the case holds no such picture. Nothing was kept.',
        field: 'sha256',
      });
    await table.insert({
      id: body.id,
      name: body.name,
      part: station.station.part,
      note: body.note,
      sha256: body.sha256,
      width: photo.width,
      height: photo.height,
      corners: (station.corners[body.sha256]?.value.corners ?? null) as never,
      readings: station.readings
        .filter((r) => r.value.value !== null)
        .slice(0, 60)
        .map((r) => ({ what: `${r.value.sheet} ${r.value.cell}`, value: `${r.value.text} ${r.value.unit}`.trim() })) as never,
      byName,
      time: new Date(),
    });
    return answerOf(await table.findOneByOrFail({ id: body.id }));
  }

  async picture(id: string, who: Account): Promise<Buffer> {
    const row = await this.db.getRepository(ReferencePartRow).findOneBy({ id });
    const picture = row && (await this.maySee(who, row.sha256)) ? await this.photos.byItself(row.sha256) : null;
    if (!picture) throw new ProblemError({ code: 'not-found', sentence: 'There is no such reference part.' });
    return picture;
  }

  async remove(id: string): Promise<void> {
    await this.db.getRepository(ReferencePartRow).delete({ id });
  }
}
