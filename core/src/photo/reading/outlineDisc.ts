import { fail, ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { components, maskWhere, type Component } from './field.js';
import { apartFromBench, close, shrink } from './outlineParts.js';

/** Long side of the picture in which the circle is looked for, pixels. */
const SIDE = 480;
/** How far from the bench a pixel must lie, in its own scatter, to be no bench: tried one after the other. */
const APART = [3, 5, 8, 13] as const;
/** How much of a piece, its holes filled, and of its ellipse must be both. Rendered crowns and washers had 0.96 and more. */
const LEAST_LIKE = 0.93;
/** Least size, share of the picture; and longest over shortest axis of a circle that is seen so aslant that nothing can be read. */
const LEAST_AREA = 0.03;
const MOST_ASLANT = 1.6;
/** The hole of a ring, share of its filled piece; a crown has none so large, even burnt through. */
const RING_HOLE = [0.15, 0.9] as const;

/**
 * Finds the square about a round flat face (a crown, or a ring with a hole) that lies on a bench: the piece that stands against the bench and is an ellipse, by its moments. Left-front, left-rear, right-rear, right-front of the square that lies
 * upright in the picture: what is front somebody must say. A proposal, to be looked at.
 */
export function findDisc(part: 'crown' | 'thrust', picture: Pixels): Result<readonly Point[]> {
  if (picture.width < 64 || picture.height < 64) return fail('picture-small', 'The picture is too small to find a part in it.', 'picture');
  const small = shrink(picture, SIDE);
  const { width, height } = small;
  const apart = apartFromBench(small);
  let best: { readonly corners: readonly Point[]; readonly like: number } | null = null;
  for (const limit of APART)
    for (const r of [1, 3]) {
      const mask = close(
        maskWhere(apart, (d) => d > limit),
        width,
        height,
        r,
      );
      for (const c of components(mask, width, height, Math.round(LEAST_AREA * mask.length)).slice(0, 3)) {
        const found = squareOf(c, width, height, part === 'thrust');
        if (found && (!best || found.like > best.like)) best = found;
      }
    }
  if (!best || best.like < LEAST_LIKE)
    return fail(
      'outline-not-found',
      `No ${part === 'crown' ? 'crown' : 'thrust washer'} was found in the picture. Mark the four corners of the square about it: left-front, left-rear, right-rear, right-front.`,
      'corners',
    );
  return ok(best.corners.map(([x, y]): Point => [x * small.step, y * small.step]));
}

/** The square about the ellipse of a piece, and how much of the two is both; null for what is no such face. */
function squareOf(
  c: Component,
  width: number,
  height: number,
  ring: boolean,
): { readonly corners: readonly Point[]; readonly like: number } | null {
  if (c.left < 2 || c.top < 2 || c.right > width - 3 || c.bottom > height - 3) return null;
  const filled = withoutHoles(c, width);
  let n = 0;
  for (const f of filled.inside) n += f;
  const hole = 1 - c.area / n;
  if (ring ? hole < RING_HOLE[0] || hole > RING_HOLE[1] : hole > RING_HOLE[0]) return null;
  let [mx, my] = [0, 0];
  filled.each((x, y) => {
    mx += x / n;
    my += y / n;
  });
  let [xx, xy, yy] = [0, 0, 0];
  filled.each((x, y) => {
    xx += (x - mx) ** 2 / n;
    xy += ((x - mx) * (y - my)) / n;
    yy += (y - my) ** 2 / n;
  });
  // Of a filled ellipse the matrix of moments is a quarter of that of its half axes; its symmetric root is the circle as it is seen, hardly turned.
  const det = Math.sqrt(Math.max(0, xx * yy - xy * xy));
  const trace = Math.sqrt(xx + yy + 2 * det);
  const [a, b, d] = [(2 * (xx + det)) / trace, (2 * xy) / trace, (2 * (yy + det)) / trace];
  const spread = Math.sqrt((a - d) ** 2 + 4 * b * b);
  if ((a + d + spread) / Math.max(1e-6, a + d - spread) > MOST_ASLANT) return null;
  const area = a * d - b * b;
  let both = 0;
  filled.each((x, y) => {
    const [p, q] = [(d * (x - mx) - b * (y - my)) / area, (a * (y - my) - b * (x - mx)) / area];
    if (p * p + q * q <= 1) both++;
  });
  const corner = (u: number, v: number): Point => [mx + a * u + b * v, my + b * u + d * v];
  return {
    corners: [corner(-1, 1), corner(-1, -1), corner(1, -1), corner(1, 1)],
    like: both / (n + Math.PI * area - both),
  };
}

/** A piece with what it encloses. */
function withoutHoles(
  c: Component,
  width: number,
): { readonly inside: Uint8Array; readonly each: (visit: (x: number, y: number) => void) => void } {
  const [w, h] = [c.right - c.left + 3, c.bottom - c.top + 3];
  const inside = new Uint8Array(w * h).fill(1);
  const piece = new Uint8Array(w * h);
  for (const i of c.pixels) piece[(Math.floor(i / width) - c.top + 1) * w + (i % width) - c.left + 1] = 1;
  // What is reached from the border without crossing the piece lies outside.
  const open = [0];
  inside[0] = 0;
  while (open.length > 0) {
    const i = open.pop()!;
    const x = i % w;
    for (const k of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
      if (k >= 0 && k < inside.length && inside[k] === 1 && piece[k] === 0) {
        inside[k] = 0;
        open.push(k);
      }
  }
  return {
    inside,
    each: (visit) => {
      for (let i = 0; i < inside.length; i++) if (inside[i]) visit((i % w) + c.left - 0.5, Math.floor(i / w) + c.top - 0.5);
    },
  };
}
