import { LIMITS, type ErrorCode } from '@true-ledger/contract';
import { WORK_RENDITION } from '@true-ledger/core/photo';
import exifr from 'exifr';
import sharp, { type Metadata } from 'sharp';
import { decodeHeic, isHeic } from './heic.js';
import { ProblemError } from '../http/problem.js';

/** A picture as it is stored: what it is, and its renditions. */
export interface StoredPicture {
  readonly mime: 'image/jpeg' | 'image/png' | 'image/webp' | 'image/heic';
  readonly width: number;
  readonly height: number;
  readonly takenAt: string | null;
  /** Upright, at most `WORK_RENDITION.longSide` px, without metadata. */
  readonly work: Buffer;
  /** Upright, at most 320 px, without metadata. */
  readonly thumb: Buffer;
}

const MIME: Readonly<Record<string, StoredPicture['mime']>> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

const refuse = (code: ErrorCode, what: string, what2do: string): ProblemError =>
  new ProblemError({ code, sentence: `The picture was not stored: ${what}. Nothing else was lost. ${what2do}`, field: 'file' });

const WORK_SIZE = { width: WORK_RENDITION.longSide, height: WORK_RENDITION.longSide, fit: 'inside', withoutEnlargement: true } as const;
const thumbSize = { width: 320, height: 320, fit: 'inside', withoutEnlargement: true } as const;

export function thumbOf(work: Buffer): Promise<Buffer> {
  return sharp(work).resize(thumbSize).jpeg({ quality: 78 }).toBuffer();
}

/** A rendition with round regions made unrecognisable: averaged to coarse blocks, then softened. Positions and radii as shares of width, height and width. */
export async function blurred(work: Buffer, regions: ReadonlyArray<{ x: number; y: number; r: number }>): Promise<Buffer> {
  const { width, height } = await sharp(work).metadata();
  const blocks = await sharp(work)
    .resize(Math.max(4, Math.round(width / 48)))
    .toBuffer();
  const coarse = await sharp(blocks).resize(width, height, { fit: 'fill', kernel: 'cubic' }).blur(6).toBuffer();
  const circles = regions.map((b) => `<circle cx="${b.x * width}" cy="${b.y * height}" r="${b.r * width}"/>`).join('');
  const mask = Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${circles}</svg>`);
  const patch = await sharp(coarse)
    .ensureAlpha()
    .composite([{ input: mask, blend: 'dest-in' }])
    .png()
    .toBuffer();
  return sharp(work)
    .composite([{ input: patch }])
    .jpeg({ quality: WORK_RENDITION.quality })
    .toBuffer();
}

/** Checks a file as a picture and makes its renditions; runs in the intake process only. The original is not touched. Throws a problem that says what is wrong with it. */
export async function readPicture(bytes: Buffer): Promise<StoredPicture> {
  if (bytes.length === 0) throw refuse('not-an-image', 'the file is empty', 'Take it again or choose the file.');
  if (isHeic(bytes)) return readHeic(bytes);
  const options = { limitInputPixels: LIMITS.imagePixels, failOn: 'truncated' as const, sequentialRead: true };
  let meta: Metadata;
  try {
    meta = await sharp(bytes, { ...options, limitInputPixels: false }).metadata();
  } catch {
    throw refuse('not-an-image', 'the file is not a JPEG, PNG, WebP or HEIC picture', 'Choose a picture file.');
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
    const work = await upright.clone().resize(WORK_SIZE).jpeg({ quality: WORK_RENDITION.quality }).toBuffer();
    return {
      mime,
      width: (turned ? meta.height : meta.width) ?? 0,
      height: (turned ? meta.width : meta.height) ?? 0,
      takenAt: await takenAt(bytes),
      work,
      thumb: await thumbOf(work),
    };
  } catch {
    throw refuse('image-damaged', 'the file ends early or is damaged', 'Take it again or choose the file.');
  }
}

/** A picture in the container telephones use; decoded in a thread of its own, since it takes a second or more. */
async function readHeic(bytes: Buffer): Promise<StoredPicture> {
  const decoded = await decodeHeic(bytes, LIMITS.imagePixels);
  if (!decoded.ok)
    throw decoded.why === 'too-large'
      ? refuse('image-too-large', `it has more than the ${LIMITS.imagePixels / 1e6} megapixels that are taken`, 'Send a smaller picture.')
      : refuse('image-damaged', 'this HEIC picture cannot be decoded here', 'Save it as JPEG in the telephone and send that.');
  const { width, height, data } = decoded;
  const work = await sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .resize(WORK_SIZE)
    .jpeg({ quality: WORK_RENDITION.quality })
    .toBuffer();
  return { mime: 'image/heic', width, height, takenAt: await takenAt(bytes), work, thumb: await thumbOf(work) };
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
