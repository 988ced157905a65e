import { Inject, Injectable } from '@nestjs/common';
import { reportModel } from '@true-ledger/core';
import { CONFIG, type ServerConfig } from '../config.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { reportPdf } from './pdf.js';

@Injectable()
export class ReportsService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  async pdf(caseId: string): Promise<{ bytes: Buffer; number: string }> {
    const { state, view } = await this.ledger.view(caseId);
    const model = reportModel(view, state.head, state.seq);
    const bytes = await reportPdf(
      model,
      view,
      async (sha) => (await this.photos.bytes(caseId, sha, 'shared-work')).bytes,
      this.config.root,
    );
    return { bytes, number: view.number };
  }
}
