import { Controller, Get, Inject, Param, ParseUUIDPipe, Query, Res } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { isNamedBy } from '@true-ledger/core/engine';
import type { Response } from 'express';
import { CONFIG, type ServerConfig } from '../config.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ComputeService } from '../compute/compute.service.js';
import { disposition } from '../http/download.js';

/** Printed part tags: a code for the place, a 20 mm bar, grey and colour patches. */
@ApiTags('part tags')
@Controller('api/cases/:caseId/tags.pdf')
export class TagsController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly compute: ComputeService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  @ApiQuery({
    name: 'places',
    required: false,
    description: 'Station patterns parted by commas, such as rod.*.shell.*; all places when absent',
  })
  @Get()
  async sheet(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response, @Query('places') places?: string): Promise<void> {
    const { view } = await this.ledger.view(caseId);
    const wanted = (places ?? '').split(',').filter(Boolean).slice(0, 50);
    const stations = view.stations
      .filter((s) => s.state !== 'not-present')
      .map((s) => s.station)
      .filter((s) => wanted.length === 0 || wanted.some((p) => isNamedBy(p, s)));
    if (stations.length === 0)
      throw new ProblemError({
        code: 'no-places',
        sentence: 'No place of this engine fits. Choose places and print again.',
        field: 'places',
      });
    const bytes = await this.compute.run<'tags'>({ kind: 'tags', number: view.number, caseId, stations, root: this.config.root });
    response
      .set({
        'Content-Type': 'application/pdf',
        'Content-Disposition': disposition('inline', `tags-${view.number}`, 'pdf'),
        'Cache-Control': 'no-store',
      })
      .send(Buffer.from(bytes));
  }
}
