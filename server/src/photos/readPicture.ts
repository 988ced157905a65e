import { LIMITS } from '@true-ledger/contract';
import { sha256Hex } from '@true-ledger/core';
import exifr from 'exifr';
import sharp, { type Metadata } from 'sharp';
import { ProblemError } from '../http/problem.js';

export interface ReadPicture {
  readonly sha256: string;
  readonly mime: 'image/jpeg' | 'image/png' | 'image/webp';
  readonly width: number;
  readonly height: number;
  readonly takenAt: string | null;
  /** Upright, at most 1600 px, without metadata. */
  readonly work: Buffer;
  /** Upright, at most 320 px, without metadata. */
  readonly thumb: Buffer;
}

const MIME: Readonly<Record<string, ReadPicture['mime']>> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const refuse = (code: string, what: string, what2do: string): ProblemError =>
  new ProblemError({ code, sentence: `The picture was not stored: ${what}. Nothing else was lost. ${what2do}`, field: 'file' });

/** Checks a file as a picture and makes its renditions. The original is not touched. Throws a problem that says what is wrong with it. */
export async function readPicture(bytes: Buffer): Promise<ReadPicture> {
  if (bytes.length === 0) throw refuse('not-an-image', 'the file is empty', 'Take it again or choose the file.');
  const options = { limitInputPixels: LIMITS.imagePixels, failOn: 'truncated' as const, sequentialRead: true };
  let meta: Metadata;
  try {
    meta = await sharp(bytes, { ...options, limitInputPixels: false }).metadata();
  } catch {
    throw refuse('not-an-image', 'the file is not a JPEG, PNG or WebP picture', 'Choose a picture file.');
  }
  const mime = MIME[meta.format ?? ''];
  if (!mime) throw refuse('not-an-image', `files of the kind ${meta.format ?? 'unknown'} are not taken`, 'Save it as JPEG or PNG.');
  const pixels = (meta.width ?? 0) * (meta.height ?? 0);
  if (pixels > LIMITS.imagePixels)
    throw refuse(
      'image-too-large',
      `it has ${Math.round(pixels / 1e6)} megapixels, more than the ${LIMITS.imagePixels / 1e6} that are taken`,
      'Send a smaller picture.',
    );
  const turned = (meta.orientation ?? 1) >= 5;
  try {
    const upright = sharp(bytes, options).rotate();
    const work = await upright
      .clone()
      .resize({ width: 1600, height: 1600, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 86 })
      .toBuffer();
    const thumb = await sharp(work)
      .resize({ width: 320, height: 320, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 78 })
      .toBuffer();
    return {
      sha256: sha256Hex(bytes),
      mime,
      width: (turned ? meta.height : meta.width) ?? 0,
      height: (turned ? meta.width : meta.height) ?? 0,
      takenAt: await takenAt(bytes),
      work,
      thumb,
    };
  } catch {
    throw refuse('image-damaged', 'the file ends early or is damaged', 'Take it again or choose the file.');
  }
}

async function takenAt(bytes: Buffer): Promise<string | null> {
  try {
    const tags = (await exifr.parse(bytes, ['DateTimeOriginal'])) as { DateTimeOriginal?: Date } | undefined;
    return tags?.DateTimeOriginal instanceof Date && !Number.isNaN(tags.DateTimeOriginal.getTime())
      ? tags.DateTimeOriginal.toISOString()
      : null;
  } catch {
    return null;
  }
}
