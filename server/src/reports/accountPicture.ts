import type { StationView } from '@true-ledger/core/case';
import { develop, isFlattened, cameraModelOf, sizeFromFrame, turnSaid, type Developed, type Pixels } from '@true-ledger/core/photo';
import { pictureMarks, type PictureLine } from '@true-ledger/core/report';
import sharp from 'sharp';

/** Longest side of a picture in an account, px: some 190 to the inch at half the width of a page. */
const SIDE = 640;
const GAP = 6;
/** A picture in an account is looked at, not read: a coarser look finds how the part lies, within 1.5 % of its length, in a tenth of the time. */
const FINENESS = 0.35;
/** The developed surface is no higher than this share of the picture. */
const INSET_SHARE = 0.6;

/** A picture filed at two places carries the marks of each: it is drawn for a place. */
export const pictureKey = (station: string, sha256: string): string => `${station}|${sha256}`;

/** How a picture is shown in an account. */
export interface Shown {
  readonly marks: boolean;
  readonly inset: boolean;
}

interface Surface {
  readonly mesh: Developed;
  /** Real width of the developed surface, mm. */
  readonly widthMm: number;
}

/**
 * A picture as an account shows it: what is marked drawn over it, its developed surface under it with a bar of 10 mm. Without corners the picture
 * alone. JPEG.
 */
export async function accountPicture(
  work: Buffer,
  originalWidth: number,
  station: StationView,
  sha256: string,
  shown: Shown,
): Promise<Buffer> {
  const { data, info } = await sharp(work)
    .resize({ width: SIDE, height: SIDE, fit: 'inside', withoutEnlargement: true, fastShrinkOnLoad: true })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const picture: Pixels = { width, height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) };
  const surface = shown.marks || shown.inset ? surfaceIn(picture, originalWidth, station, sha256) : null;
  const lines = surface && shown.marks ? linesSvg(pictureMarks(station, sha256, surface.mesh)) : '';
  const inset = surface && shown.inset ? surface.mesh.pixels : null;
  const total = height + (inset ? GAP + inset.height : 0);
  const page: Page = { width, data: new Uint8Array(width * total * 3).fill(255) };
  lay(page, picture, 0, 0);
  let bar = '';
  if (surface && inset) {
    const left = Math.floor((width - inset.width) / 2);
    lay(page, inset, left, height + GAP);
    bar = barSvg(left + 8, total - 8, (10 / surface.widthMm) * inset.width, inset.width);
  }
  if (lines || bar) {
    const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${total}">${lines}${bar}</svg>`;
    const over = await sharp(Buffer.from(drawing)).ensureAlpha().raw().toBuffer();
    lay(page, { width, height: total, data: new Uint8ClampedArray(over.buffer, over.byteOffset, over.length) }, 0, 0);
  }
  return sharp(page.data, { raw: { width, height: total, channels: 3 } })
    .jpeg({ quality: 82 })
    .toBuffer();
}

interface Page {
  readonly width: number;
  readonly data: Uint8Array;
}

/** Lays a picture over the page by its opacity. The library's own layering goes through four times the bytes and takes three times as long. */
function lay(page: Page, { width, height, data }: Pixels, left: number, top: number): void {
  for (let y = 0; y < height; y++) {
    let to = ((top + y) * page.width + left) * 3;
    let from = y * width * 4;
    for (let x = 0; x < width; x++, to += 3, from += 4) {
      const share = data[from + 3]! / 255;
      if (share === 0) continue;
      for (let k = 0; k < 3; k++) page.data[to + k] = page.data[to + k]! + share * (data[from + k]! - page.data[to + k]!);
    }
  }
}

function surfaceIn(picture: Pixels, originalWidth: number, { station, corners }: StationView, sha256: string): Surface | null {
  const held = corners[sha256]?.value;
  if (!held || !station.surface || !isFlattened(station.part)) return null;
  const scale = picture.width / originalWidth;
  const camera = cameraModelOf(
    station.part,
    picture,
    held.corners.map(([x, y]) => [x * scale, y * scale] as const),
    sizeFromFrame(station.part, station.surface, turnSaid(held)),
    FINENESS,
  );
  if (!camera.ok) return null;
  const { widthMm, heightMm } = camera.value;
  const width = Math.max(80, Math.min(picture.width, Math.floor((INSET_SHARE * picture.height * widthMm) / heightMm)));
  return { mesh: develop(camera.value, picture, width), widthMm };
}

function linesSvg(lines: readonly PictureLine[]): string {
  const path = (l: PictureLine): string => l.points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' ');
  const all = (kind: PictureLine['kind']): string =>
    lines
      .filter((l) => l.kind === kind)
      .map(path)
      .join(' ');
  const stroke = (kind: PictureLine['kind'], colour: string, width: number, more = ''): string =>
    all(kind) === '' ? '' : `<path d="${all(kind)}" stroke="${colour}" stroke-width="${width}"${more}/>`;
  return `<g fill="none" stroke-linecap="round">${[
    stroke('outline', '#ffffff', 3),
    stroke('outline', '#31418C', 1.6, ' stroke-dasharray="6 4"'),
    stroke('edge', '#111417', 3),
    stroke('edge', '#ffffff', 1.4),
    stroke('line', '#ffffff', 2.6),
    stroke('line', '#111417', 1.2),
  ].join('')}</g>`;
}

/** A bar of 10 mm; none where it would not fit. */
function barSvg(x: number, y: number, length: number, within: number): string {
  if (length < 4 || length > within - 16) return '';
  const d = `M${x} ${y} h${length.toFixed(1)}`;
  return `<path d="${d}" stroke="#ffffff" stroke-width="6"/><path d="${d}" stroke="#111417" stroke-width="2.6"/>`;
}
