import { Controller, Get, HttpCode, Param, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { type SealLine, type ShopKeys, type StampSaid, answers } from '@true-ledger/contract';
import { stampWords, type StampVerdict } from '@true-ledger/core/bundle';
import type { Response } from 'express';
import { Needs } from '../accounts/guard.js';
import { disposition } from '../http/download.js';
import { KeysService } from '../keys/keys.service.js';
import { SealsService } from './seals.service.js';
import { WitnessService } from './witness.service.js';

@ApiTags('seals')
@Controller('api/seals')
export class SealsController {
  constructor(
    private readonly seals: SealsService,
    private readonly keys: KeysService,
    private readonly witness: WitnessService,
  ) {}

  /** Days that are sealed, the newest first. */
  @Needs('builder')
  @Get()
  @Answers(answers.sealLines)
  all(): Promise<SealLine[]> {
    return this.seals.all();
  }

  /** Public keys of the shop: the one in use, and those before it with the signatures by which they follow. */
  @Needs('reader')
  @Get('keys')
  @Answers(answers.shopKeys)
  publicKeys(): ShopKeys {
    return this.keys.publicKeys();
  }

  /** A seal as plain text, to be kept by somebody outside; `today` makes the one of today when there is none yet. */
  @Needs('builder')
  @Get(':day')
  async text(@Param('day') wanted: string, @Res() response: Response): Promise<void> {
    const { day, text } = await this.seals.text(wanted);
    this.give(response, 'text/plain; charset=utf-8', disposition('attachment', `seal-${day}`, 'txt'), Buffer.from(text));
  }

  /** The witness's answer for a seal (RFC 3161 `TimeStampResp`, DER), over the bytes of its text. */
  @Needs('builder')
  @Get(':day/stamp.tsr')
  async reply(@Param('day') day: string, @Res() response: Response): Promise<void> {
    const stamp = await this.seals.stampOf(day);
    this.give(response, 'application/timestamp-reply', disposition('attachment', `seal-${day}`, 'tsr'), stamp);
  }

  /** What the stamp of a seal proves now. */
  @Needs('builder')
  @Get(':day/stamp')
  @Answers(answers.stampSaid)
  async stamp(@Param('day') day: string): Promise<StampSaid> {
    return this.said(await this.seals.verdict(day));
  }

  /** Has a seal stamped by the witness; asked again, the stamp that holds stays. */
  @Needs('builder')
  @Post(':day/stamp')
  @Answers(answers.stampSaid)
  @HttpCode(200)
  async make(@Param('day') day: string): Promise<StampSaid> {
    return this.said(await this.seals.stamp(day));
  }

  private said(verdict: StampVerdict): StampSaid {
    return { verdict, sentence: stampWords(verdict), simulated: this.witness.simulated };
  }

  private give(response: Response, type: string, name: string, bytes: Buffer): void {
    response.set({ 'Content-Type': type, 'Content-Disposition': name, 'Cache-Control': 'no-store' }).send(bytes);
  }
}
