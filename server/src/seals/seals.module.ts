import { Controller, Get, Module, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { dailySealText } from '@true-ledger/core';
import type { Response } from 'express';
import { Needs } from '../accounts/guard.js';
import { disposition } from '../http/download.js';
import { KeysService } from '../keys/keys.service.js';
import { SealsService } from './seals.service.js';

interface SealLine {
  readonly day: string;
  readonly cases: number;
  readonly key: string;
}

@ApiTags('seals')
@Controller('api/seals')
export class SealsController {
  constructor(
    private readonly seals: SealsService,
    private readonly keys: KeysService,
  ) {}

  /** Days that are sealed, the newest first. */
  @Needs('builder')
  @Get()
  async all(): Promise<SealLine[]> {
    return (await this.seals.all()).map(({ statement: s }) => ({ day: s.day, cases: s.cases.length, key: s.key }));
  }

  /** Public keys of the shop: the one in use, and those before it with the signatures by which they follow. */
  @Needs('reader')
  @Get('keys')
  publicKeys(): ReturnType<KeysService['publicKeys']> {
    return this.keys.publicKeys();
  }

  /** A seal as plain text, to be kept by somebody outside; `today` makes the one of today when there is none yet. */
  @Needs('builder')
  @Get(':day')
  async text(@Param('day') day: string, @Res() response: Response): Promise<void> {
    const seal = day === 'today' ? await this.seals.ofToday() : await this.seals.of(day);
    response
      .set({
        'Content-Type': 'text/plain; charset=utf-8',
        'Content-Disposition': disposition('attachment', `seal-${seal.statement.day}`, 'txt'),
        'Cache-Control': 'no-store',
      })
      .send(dailySealText(seal));
  }
}

@Module({ controllers: [SealsController], providers: [SealsService] })
export class SealsModule {}
