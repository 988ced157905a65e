import { Injectable } from '@nestjs/common';
import type { NewShareLink, ShareLink, SharedAccount } from '@true-ledger/contract';
import { currentVersion } from '@true-ledger/core/ledger';
import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { newToken, tokenHash } from '../accounts/passwords.js';
import { ShareLinkRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ReportsService } from './reports.service.js';

const iso = (d: Date | null): string | null => d?.toISOString() ?? null;

function linkOf(r: ShareLinkRow): ShareLink {
  return {
    id: r.id,
    version: r.version,
    note: r.note,
    by: r.byName,
    made: r.made.toISOString(),
    expires: r.expires.toISOString(),
    revoked: iso(r.revoked),
    opened: r.opened,
    lastOpened: iso(r.lastOpened),
    cover: r.cover,
  };
}

/** One answer to a link that never was, has expired or was revoked: nothing can be learned from it. */
const dead = (): ProblemError =>
  new ProblemError({
    code: 'link-dead',
    sentence: 'This link opens nothing: it was mistyped, has expired or was taken back. Ask the workshop for a new one.',
  });

/** Links by which outsiders read one signed version each. Only the hash of a token is kept. */
@Injectable()
export class SharesService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly reports: ReportsService,
  ) {}

  async all(caseId: string): Promise<ShareLink[]> {
    return (await this.db.getRepository(ShareLinkRow).find({ where: { caseId }, order: { made: 'DESC' } })).map(linkOf);
  }

  async make(
    caseId: string,
    {
      id = randomUUID(),
      version,
      days,
      note,
      cover = false,
    }: { id?: string; version: number; days: number; note: string; cover?: boolean },
    byName: string,
  ): Promise<NewShareLink> {
    await this.reports.signed(caseId, version);
    const signed = currentVersion(await this.ledger.state(caseId), null, `signed:${version}`);
    if (signed?.author.shop !== undefined)
      throw new ProblemError({
        code: 'signed-elsewhere',
        sentence: `Version ${version} was signed by ${signed.author.name}, not here, and is not given out as this shop's. Sign a version of your own.`,
        field: 'version',
      });
    const token = newToken();
    const made = new Date();
    const row = {
      id,
      tokenHash: tokenHash(token),
      caseId,
      version,
      note,
      byName,
      made,
      expires: new Date(made.getTime() + days * 86_400_000),
      revoked: null,
      cover,
      opened: 0,
      lastOpened: null,
    };
    const links = this.db.getRepository(ShareLinkRow);
    const before = await links.findOneBy({ id });
    if (before) {
      // The answer to the first asking was lost, and the link in it with it: this one takes its place.
      if (before.caseId !== caseId || before.version !== version || before.cover !== cover || before.revoked || before.opened > 0)
        throw new ProblemError({
          code: 'taken-meanwhile',
          sentence: 'A link with this id is in use. Nothing was changed; make a new one.',
        });
      await links.update(id, { tokenHash: row.tokenHash });
      return { link: linkOf(before), path: `/shared/${token}` };
    }
    await links.insert(row);
    return { link: linkOf(row), path: `/shared/${token}` };
  }

  async revoke(caseId: string, id: string): Promise<ShareLink[]> {
    await this.db
      .createQueryBuilder()
      .update(ShareLinkRow)
      .set({ revoked: new Date() })
      .where({ id, caseId })
      .andWhere('revoked IS NULL')
      .execute();
    return this.all(caseId);
  }

  private async live(token: string): Promise<ShareLinkRow> {
    const row = /^[0-9a-f]{64}$/.test(token) ? await this.db.getRepository(ShareLinkRow).findOneBy({ tokenHash: tokenHash(token) }) : null;
    if (!row || row.revoked || row.expires.getTime() <= Date.now()) throw dead();
    return row;
  }

  /** What the link leads to; does not count as opened. */
  async look(token: string): Promise<SharedAccount> {
    const row = await this.live(token);
    const { view } = await this.ledger.view(row.caseId);
    const signed = view.signed.find((s) => s.value.version === row.version);
    if (!signed) throw dead();
    return {
      number: view.number,
      title: view.title,
      version: row.version,
      newest: view.signed.at(-1)?.value.version ?? row.version,
      by: signed.version.author.name,
      time: signed.version.time,
      sha256: signed.value.sha256,
      head: signed.value.head,
      expires: row.expires.toISOString(),
      cover: row.cover,
    };
  }

  /** The account; counted. */
  async open(token: string): Promise<{ bytes: Buffer; name: string }> {
    const row = await this.live(token);
    const bytes = row.cover
      ? (await this.reports.covered(row.caseId, row.version)).bytes
      : await this.reports.signed(row.caseId, row.version);
    await this.db.query('UPDATE share_links SET opened = opened + 1, "lastOpened" = now() WHERE id = $1', [row.id]);
    const { view } = await this.ledger.view(row.caseId);
    return { bytes, name: `account-${view.number}-v${row.version}` };
  }
}
