import { Injectable } from '@nestjs/common';
import type { ReferencePart } from '@true-ledger/contract';
import { DataSource } from 'typeorm';
import { PhotoRow, ReferencePartRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';

const answerOf = ({ byName, time, ...row }: ReferencePartRow): ReferencePart => ({ ...row, by: byName, time: time.toISOString() });

/** Parts as they should be: photographed and measured once, held beside parts of any case. */
@Injectable()
export class ReferencesService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  async all(): Promise<ReferencePart[]> {
    return (await this.db.getRepository(ReferencePartRow).find({ order: { time: 'DESC' } })).map(answerOf);
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

  async picture(id: string): Promise<Buffer> {
    const row = await this.db.getRepository(ReferencePartRow).findOneBy({ id });
    const photo = row
      ? await this.db.getRepository(PhotoRow).findOne({ where: { sha256: row.sha256 }, select: { sha256: true, work: true } })
      : null;
    if (!photo) throw new ProblemError({ code: 'not-found', sentence: 'There is no such reference part.' });
    return photo.work;
  }

  async remove(id: string): Promise<void> {
    await this.db.getRepository(ReferencePartRow).delete({ id });
  }
}
