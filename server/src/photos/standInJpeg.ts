import type { Pixels } from '@true-ledger/core/photo';
import sharp from 'sharp';

/** Encodes a rendered specimen as JPEG with the words that say what it is. */
export async function standInJpeg({ width, height, data }: Pixels): Promise<Buffer> {
  const label = `<svg width="${width}" height="${height}"><rect x="0" y="${height - 34}" width="${width}" height="34" fill="#20272b" fill-opacity="0.75"/><text x="14" y="${height - 11}" font-family="sans-serif" font-size="18" fill="#ffffff">Rendered specimen, not a photograph</text></svg>`;
  return sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .composite([{ input: Buffer.from(label) }])
    .jpeg({ quality: 82 })
    .toBuffer();
}
