import { Inject, Injectable } from '@nestjs/common';
import type { ShopKeys } from '@true-ledger/contract';
import { keyFingerprint, makeShopKey, sealBundle, signStatement, type Seal, type SealClaims, type ShopKey } from '@true-ledger/core/bundle';
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { CONFIG, type ServerConfig } from '../config.js';

/** The shop's signing key as it lies on disk, with those it used before. */
interface KeyFile extends ShopKey {
  readonly made: string;
  /** Public halves of earlier keys, each signed over to the next with the earlier one. */
  readonly earlier: ShopKeys['earlier'];
}

export const SUCCESSION = 'true-ledger/key-succession';

/**
 * The Ed25519 key this shop signs with. It lies in a file outside the database, so that who holds the database alone can rewrite nothing unnoticed; every
 * server process of the shop reads the same file.
 */
@Injectable()
export class KeysService {
  private readonly file: string;

  constructor(@Inject(CONFIG) config: ServerConfig) {
    mkdirSync(config.keysFolder, { recursive: true, mode: 0o700 });
    this.file = join(config.keysFolder, 'shop-key.json');
    const first: KeyFile = { ...makeShopKey(), made: new Date().toISOString(), earlier: [] };
    try {
      // Of two servers started at once, one writes the file and both read it.
      writeFileSync(this.file, JSON.stringify(first, null, 2), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as { code?: string }).code !== 'EEXIST') throw error;
    }
  }

  private held(): KeyFile {
    return JSON.parse(readFileSync(this.file, 'utf8')) as KeyFile;
  }

  /** Public half of the key in use. */
  get key(): string {
    return this.held().key;
  }

  /** Public halves, the one in use first, with the signatures by which one follows the other. */
  publicKeys(): ShopKeys {
    const { key, made, earlier } = this.held();
    return { key, fingerprint: keyFingerprint(key), made, earlier };
  }

  /** Was this one of our keys, now or before? */
  isOurs(key: string): boolean {
    const held = this.held();
    return held.key === key || held.earlier.some((e) => e.key === key);
  }

  seal(claims: Omit<SealClaims, 'shop' | 'format' | 'version'>, name: string): Seal {
    const { key, secret } = this.held();
    return sealBundle({ format: 'true-ledger/seal', version: 1, ...claims, shop: { name, key } }, secret);
  }

  sign(purpose: string, statement: unknown): { key: string; signature: string } {
    const { key, secret } = this.held();
    return { key, signature: signStatement(purpose, statement, secret) };
  }

  /** Takes a new key into use; the old one signs it over, and stays known. */
  rotate(): void {
    const old = this.held();
    const fresh = makeShopKey();
    const until = new Date().toISOString();
    const signature = signStatement(SUCCESSION, { key: old.key, next: fresh.key, until }, old.secret);
    const next: KeyFile = {
      ...fresh,
      made: until,
      earlier: [{ key: old.key, made: old.made, until, next: fresh.key, signature }, ...old.earlier],
    };
    writeFileSync(`${this.file}.new`, JSON.stringify(next, null, 2), { mode: 0o600 });
    renameSync(`${this.file}.new`, this.file);
  }
}
