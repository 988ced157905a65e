import { Injectable } from '@nestjs/common';
import type { Author, LedgerEntry } from '@true-ledger/core/ledger';
import { entryDefinition, slotOf } from '@true-ledger/core/entries';
import { randomUUID } from 'node:crypto';
import { DataSource, type EntityManager } from 'typeorm';
import { CaseClipRow, CasePhotoRow, ClipRow, EntryRow, PhotoRow, ReferencePartRow, SurfaceRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from './ledger.service.js';

/** Strikes the content of an entry for good; its hash stays, and the chain with it. */
@Injectable()
export class RedactionsService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  redact(caseId: string, target: string, reason: string, author: Author): Promise<LedgerEntry> {
    return this.db.transaction(async (tx) => {
      await this.ledger.lockedState(tx, caseId);
      const row = await tx.getRepository(EntryRow).findOneBy({ id: target, caseId });
      if (!row) throw new ProblemError({ code: 'not-found', sentence: 'This ledger holds no such entry. Nothing was struck.' });
      if (row.body === null) throw new ProblemError({ code: 'redacted', sentence: 'The content of this entry was struck already.' });
      if (entryDefinition(row.kind)?.stays)
        throw new ProblemError({
          code: 'never-redacted',
          sentence:
            'Opening, layout, release, signatures and redactions carry the case and stay. Strike the entries that hold what has to go; nothing was changed.',
        });
      const body = row.body;
      // The salt goes as well: with it, a short body could be guessed from the hash that stays.
      await tx.getRepository(EntryRow).update(row.id, { body: null, salt: '' });
      const [entry] = await this.ledger.appendIn(
        tx,
        caseId,
        [
          {
            id: randomUUID(),
            kind: 'redacted',
            station: null,
            basedOn: null,
            body: { target, kind: row.kind, slot: slotOf(row.kind, body), station: row.station, reason },
          },
        ],
        author,
      );
      if (row.kind === 'photo-added' || row.kind === 'clip-added')
        await dropFile(tx, caseId, row.kind, (body as { sha256: string }).sha256);
      // What was signed with these words in it stays signed, but no outsider reads it any more.
      await tx.query(
        `UPDATE share_links SET revoked = now() WHERE "caseId" = $1 AND revoked IS NULL AND version IN (
           SELECT (body->>'version')::int FROM entries WHERE "caseId" = $1 AND kind = 'account-signed' AND (body->>'entries')::int >= $2)`,
        [caseId, row.seq],
      );
      // The state kept beside the case must not hold what was struck, not even as an earlier version.
      await this.ledger.refold(tx, caseId);
      return entry!;
    });
  }
}

/** Takes a file away from a case that names it nowhere any more, and out of the store when no other case shows it. */
async function dropFile(tx: EntityManager, caseId: string, kind: 'photo-added' | 'clip-added', sha256: string): Promise<void> {
  const named = await tx
    .getRepository(EntryRow)
    .createQueryBuilder('e')
    .where(`e."caseId" = :caseId AND e.kind = :kind AND e.body->>'sha256' = :sha256`, { caseId, kind, sha256 })
    .getCount();
  if (named > 0) return;
  const links = kind === 'photo-added' ? CasePhotoRow : CaseClipRow;
  await tx.getRepository(links).delete({ caseId, sha256 });
  // Surfaces of the case may have been made from it; they are made anew from what is left.
  if (kind === 'photo-added') await tx.getRepository(SurfaceRow).delete({ caseId });
  if (await tx.getRepository(links).existsBy({ sha256 })) return;
  if (kind === 'clip-added') await tx.getRepository(ClipRow).delete({ sha256 });
  else {
    // A part held beside others goes with the picture it was made of.
    await tx.getRepository(ReferencePartRow).delete({ sha256 });
    await tx.getRepository(PhotoRow).delete({ sha256 });
  }
}
