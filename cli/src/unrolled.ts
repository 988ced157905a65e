import { access, constants, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import sharp from 'sharp';
import type { Pixels, Point } from '@true-ledger/core/photo';
import type { FilmAbout } from './film.js';

/** What `unroll` answers: a sentence of what went wrong, or JSON. */
export type Unrolled =
  { readonly ok: true; readonly json: object } | { readonly ok: false; readonly sentence: string; readonly usage: boolean };

export const wrong = (sentence: string): Unrolled => ({ ok: false, sentence, usage: true });
export const failed = (sentence: string): Unrolled => ({ ok: false, sentence, usage: false });

/** A film that is to be read, and what was said of it. */
export interface Film {
  readonly path: string;
  readonly about: FilmAbout;
  /** In pixels of the film; null lets them be found in its first frame. */
  readonly corners: readonly Point[] | null;
  readonly radiusMm: number;
  readonly sizeAssumed: boolean;
  readonly out: string | null;
  readonly tell: (words: string) => void;
}

/** Can files be made in the folder of this path? */
export function canWriteBeside(path: string): Promise<boolean> {
  return access(dirname(path), constants.W_OK).then(
    () => true,
    () => false,
  );
}

/** Writes pictures beside each other, and the JSON beside them. */
export async function written(
  out: string | null,
  pictures: Readonly<Record<string, Pixels>>,
  json: object,
  tell: (words: string) => void,
): Promise<void> {
  if (out === null) return;
  const bare = out.replace(/\.png$/i, '');
  for (const [end, pixels] of Object.entries(pictures)) await writePng(`${bare}${end}.png`, pixels);
  await writeFile(`${bare}.json`, `${JSON.stringify(json, null, 2)}\n`);
  tell(`written: ${bare}.png`);
}

async function writePng(path: string, { width, height, data }: Pixels): Promise<void> {
  await sharp(Buffer.from(data.buffer, data.byteOffset, data.length), { raw: { width, height, channels: 4 } })
    .png()
    .toFile(path);
}
