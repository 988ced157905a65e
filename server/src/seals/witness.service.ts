import { Inject, Injectable } from '@nestjs/common';
import { certificatesOf, STAMP_LIMIT, stampQuery } from '@true-ledger/core/bundle';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { CONFIG, type ServerConfig } from '../config.js';
import { ProblemError } from '../http/problem.js';
import { StandInAuthority } from './standInAuthority.js';

const WAIT_MS = 15_000;

/** What was asked of an authority and what it said, not looked into yet. */
export interface Answered {
  readonly reply: Uint8Array;
  readonly nonce: Uint8Array;
}

/** The outside witness: a time-stamp authority asked over HTTP (RFC 3161, 3.4), or the stand-in where none is configured. */
@Injectable()
export class WitnessService {
  private readonly standIn: StandInAuthority | null;

  constructor(@Inject(CONFIG) private readonly config: ServerConfig) {
    this.standIn = config.authorityOutside ? null : new StandInAuthority(join(config.keysFolder, 'stand-in-authority.json'));
  }

  get simulated(): boolean {
    return this.standIn !== null;
  }

  /** Certificates of the authorities whose word is taken, DER. */
  async trusted(): Promise<Uint8Array[]> {
    return this.standIn ? [await this.standIn.root()] : certificatesOf(this.config.authorityOutside!.certificates);
  }

  async ask(bytes: Uint8Array): Promise<Answered> {
    const nonce = randomBytes(8);
    const query = stampQuery(bytes, nonce);
    return { nonce, reply: this.standIn ? await this.standIn.answer(query) : await this.post(this.config.authorityOutside!.url, query) };
  }

  private async post(url: string, query: Uint8Array): Promise<Uint8Array> {
    const away = (why: string): ProblemError =>
      new ProblemError({
        code: 'witness-away',
        sentence: `The time-stamp authority ${why}. The seal stands without a stamp; it is asked again within half an hour.`,
      });
    const parts: Uint8Array[] = [];
    let length = 0;
    try {
      const response = await fetch(url, {
        method: 'POST',
        headers: { 'Content-Type': 'application/timestamp-query' },
        body: Buffer.from(query),
        redirect: 'error',
        signal: AbortSignal.timeout(WAIT_MS),
      });
      if (!response.ok || !response.body) throw away(`answered with ${response.status}`);
      for await (const part of response.body as AsyncIterable<Uint8Array>) {
        length += part.length;
        if (length > STAMP_LIMIT) throw away('sent more than a stamp');
        parts.push(part);
      }
    } catch (error) {
      throw error instanceof ProblemError ? error : away('does not answer');
    }
    return Buffer.concat(parts);
  }
}
