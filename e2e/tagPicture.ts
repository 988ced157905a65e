import { homography, PART_TAG, project, renderTag, tagText, type Point } from '@true-ledger/core/photo';
import qrcode from 'qrcode';
import sharp from 'sharp';

const toLinear = (v: number): number => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
const toSrgb = (v: number): number => 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/** A grey card of a known grey that lies beside the tag, mm in the plane of the tag: independent of the tag's own patches. */
export const GREY_CARD = { x: 20, y: 50, size: 22, rgb: 150 } as const;

export interface TagPicture {
  readonly jpeg: Buffer;
  /** Where a point of the tag's plane, mm, lies in the picture. */
  readonly at: (mm: Point) => Point;
}

/**
 * Rendered photograph of a tag on a bench plate: a pinhole camera tilted about both axes, a colour cast and exposure in linear light, uneven lamp
 * light, noise, JPEG 85. `text` is what the code says.
 */
export async function tagPicture(options: {
  text: string;
  tiltDeg: number;
  cast: readonly [number, number, number];
  width?: number;
}): Promise<TagPicture> {
  const width = options.width ?? 1600;
  const height = Math.round(width * 0.75);
  const { modules } = qrcode.create(options.text, { errorCorrectionLevel: 'M' });
  const tag = renderTag(
    Array.from({ length: modules.size }, (_, j) =>
      Array.from({ length: modules.size }, (_, i) => modules.get(j, i) === 1 || modules.get(j, i) === (true as never)),
    ),
    12,
  );
  const tilt = (options.tiltDeg * Math.PI) / 180;
  const turn = 0.3;
  const focal = width * 1.1;
  const away = 190;
  const see = ([mx, my]: Point): Point => {
    const x0 = (mx - 38) * Math.cos(turn) - (my - 36) * Math.sin(turn);
    const y0 = (mx - 38) * Math.sin(turn) + (my - 36) * Math.cos(turn);
    const z = away + y0 * Math.sin(tilt);
    return [width / 2 + (focal * x0) / z, height / 2 + (focal * y0 * Math.cos(tilt)) / z];
  };
  const plane: Point[] = [
    [0, 0],
    [PART_TAG.widthMm, 0],
    [PART_TAG.widthMm, 90],
    [0, 90],
  ];
  const back = homography(plane.map(see), plane);
  if (!back.ok) throw new Error(back.problem.sentence);
  const raw = Buffer.alloc(width * height * 3);
  let seed = 12345;
  const noise = (): number => {
    seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
    return seed / 0x7fffffff - 0.5;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [mx, my] = project(back.value, [x + 0.5, y + 0.5]);
      const tx = Math.floor(mx * 12);
      const ty = Math.floor(my * 12);
      const onTag = mx >= 0 && my >= 0 && tx < tag.width && ty < tag.height;
      const card = mx >= GREY_CARD.x && mx < GREY_CARD.x + GREY_CARD.size && my >= GREY_CARD.y && my < GREY_CARD.y + GREY_CARD.size;
      const lamp = 0.97 + (0.04 * x) / width;
      for (let k = 0; k < 3; k++) {
        const v = onTag ? tag.data[(ty * tag.width + tx) * 4 + k]! : card ? GREY_CARD.rgb : 96 + noise() * 20;
        raw[(y * width + x) * 3 + k] = Math.max(0, Math.min(255, toSrgb(Math.min(1, toLinear(v) * options.cast[k]! * lamp)) + noise() * 5));
      }
    }
  const jpeg = await sharp(raw, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer();
  return { jpeg, at: see };
}

export { tagText };

/** CIE 1976 colour difference (CIELAB, D65) between two sRGB colours. */
export function deltaE(a: readonly number[], b: readonly number[]): number {
  const lab = (rgb: readonly number[]): [number, number, number] => {
    const [r, g, bl] = rgb.map(toLinear) as [number, number, number];
    const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : (24389 / 27 / 116) * t + 16 / 116);
    const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * bl) / 0.95047);
    const y = f(0.2126729 * r + 0.7151522 * g + 0.072175 * bl);
    const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * bl) / 1.08883);
    return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
  };
  const p = lab(a);
  const q = lab(b);
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}
