import { sha256Hex } from '@true-ledger/core/kit';
import { parseTagText, readTag, refineTagCorners } from '@true-ledger/core/photo';
import { expose } from 'comlink';
import jsQR from 'jsqr';

/** What the code in a picture says. Corners in pixels of the upright picture at its own size. */
export type FoundTag =
  | { readonly kind: 'none' }
  | { readonly kind: 'foreign' }
  | {
      readonly kind: 'tag';
      readonly caseId: string;
      readonly station: string;
      readonly corners: ReadonlyArray<readonly [number, number]>;
      readonly gains: readonly [number, number, number] | null;
    };

/** Long sides at which the code is looked for: small first, since most tags are large in the picture. */
const LOOK_AT = [1200, 2400, 4000] as const;

function area(sides: readonly number[]): number {
  return sides.reduce((sum, side) => sum + side * side, 0);
}

/** Share of the whole search that is done before each look: a look costs as its pixels. */
const LOOKED = LOOK_AT.map((_, i) => area(LOOK_AT.slice(0, i)) / area(LOOK_AT));

/** How far a search is: 0 to 1. */
type Told = (share: number) => void;

/** `small`: on the smallest copy only, as far as it costs no time worth telling. */
async function findTag(file: Blob, small: boolean, told: Told): Promise<FoundTag> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return { kind: 'none' };
  const longest = Math.max(bitmap.width, bitmap.height);
  try {
    for (const [i, side] of (small ? LOOK_AT.slice(0, 1) : LOOK_AT).entries()) {
      told(LOOKED[i] ?? 0);
      const scale = Math.min(1, side / longest);
      const width = Math.max(1, Math.round(bitmap.width * scale));
      const height = Math.max(1, Math.round(bitmap.height * scale));
      const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
      if (!context) return { kind: 'none' };
      context.drawImage(bitmap, 0, 0, width, height);
      const pixels = context.getImageData(0, 0, width, height);
      const code = jsQR(pixels.data, width, height, { inversionAttempts: 'dontInvert' });
      if (code) {
        const tag = parseTagText(code.data);
        if (!tag) return { kind: 'foreign' };
        const at = code.location;
        const found = [at.topLeftCorner, at.topRightCorner, at.bottomRightCorner, at.bottomLeftCorner].map((c) => [c.x, c.y] as const);
        const corners = refineTagCorners(pixels, found, 17 + 4 * code.version);
        const reading = readTag(pixels, corners);
        return {
          kind: 'tag',
          ...tag,
          corners: corners.map(([x, y]) => [x / scale, y / scale] as const),
          gains: reading.ok ? reading.value.gains : null,
        };
      }
      if (scale === 1) break;
    }
    return { kind: 'none' };
  } finally {
    bitmap.close();
  }
}

async function sha256Of(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  // Only secure pages have the browser's own; the shop's network without a trusted certificate has not.
  if (!globalThis.crypto?.subtle) return sha256Hex(new Uint8Array(bytes));
  return [...new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** What is done with a file before it is sent; in a thread of its own, so that nothing of a case waits for it. */
const filing = {
  /** Hash of a file and, for pictures, the part tag that lies in it; one whose place is known is looked at on a small copy only. */
  async prepare(
    file: Blob,
    { picture, placed }: { picture: boolean; placed: boolean },
    told: Told,
  ): Promise<{ sha256: string; tag: FoundTag | null }> {
    const sha256 = await sha256Of(file);
    return { sha256, tag: picture ? await findTag(file, placed, told) : null };
  },
};

export type Filing = typeof filing;

expose(filing);
