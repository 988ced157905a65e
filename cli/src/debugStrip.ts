import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Pixels, Point, StagePicture } from '@true-ledger/core/photo';
import sharp from 'sharp';

/** The pictures of the stages of a reading, on their way into a folder. */
export interface DebugStrip {
  readonly ok: true;
  readonly take: (stage: StagePicture) => void;
  /** Waits until all are written, with `stages.txt` that says what each shows; a sentence when they could not be. */
  readonly written: () => Promise<string | null>;
}

/** Opens a folder for the pictures of the stages. */
export async function debugStrip(folder: string): Promise<DebugStrip | { readonly ok: false; readonly sentence: string }> {
  if (folder === '' || folder.startsWith('--'))
    return { ok: false, sentence: '--explain takes the folder into which the pictures of the stages are written.' };
  try {
    await mkdir(folder, { recursive: true });
  } catch (error) {
    return { ok: false, sentence: `The folder "${folder}" cannot be made: ${error instanceof Error ? error.message : 'unknown'}.` };
  }
  const words: string[] = [];
  const writing: Array<Promise<unknown>> = [];
  return {
    ok: true,
    take: ({ name, shows, pixels: { width, height, data } }) => {
      const file = `${String(words.length + 1).padStart(2, '0')}-${name}.png`;
      words.push(`${file}  ${shows}`);
      // The pixels are copied now: the reading goes on with its own.
      const bytes = Buffer.from(Uint8Array.from(data).buffer);
      writing.push(
        sharp(bytes, { raw: { width, height, channels: 4 } })
          .png()
          .toFile(join(folder, file)),
      );
    },
    written: async () => {
      try {
        await Promise.all([...writing, writeFile(join(folder, 'stages.txt'), `${words.join('\n')}\n`)]);
        return null;
      } catch (error) {
        return `The pictures of the stages could not all be written: ${error instanceof Error ? error.message : 'unknown'}. The reading stands.`;
      }
    },
  };
}

/** The picture with the corners that the surface is read between. */
export function cornersShown(picture: Pixels, corners: readonly Point[]): StagePicture {
  const { width, height } = picture;
  const data = Uint8ClampedArray.from(picture.data);
  corners.forEach(([x0, y0], k) => {
    const [x1, y1] = corners[(k + 1) % 4]!;
    const steps = Math.ceil(Math.hypot(x1 - x0, y1 - y0));
    for (let s = 0; s <= steps; s++)
      for (const off of [0, 1]) {
        const [x, y] = [Math.round(x0 + (s / steps) * (x1 - x0)) + off, Math.round(y0 + (s / steps) * (y1 - y0))];
        if (x >= 0 && y >= 0 && x < width && y < height) data.set([255, 0, 200, 255], 4 * (y * width + x));
      }
  });
  return { name: 'corners', shows: 'the picture, and the corners it was read between', pixels: { width, height, data } };
}
