import sharp from 'sharp';
import { WEAR_CLASSES } from '@true-ledger/core/damage';
import { MAP_COLUMNS, MAP_ROWS } from '@true-ledger/core/photo';
import { MAP_CLASSES } from '@true-ledger/core/specimen';

// Two sets of rendered pictures that differ in seeds, lamps, benches, lenses, noise, grain and compression: one to tune on, one to report on.
export const SETS = {
  tune: {
    from: 1000,
    benches: ['wood', 'paint', 'concrete'],
    colours: [
      [0.5, 0.34, 0.2],
      [0.15, 0.33, 0.25],
      [0.36, 0.35, 0.34],
    ],
    lampWidth: [0.3, 0.5],
    lamps: [1, 2],
    focal: [1.4, 1.9],
    noise: [0.6, 1.2],
    quality: [86, 94],
    cast: 0.1,
    sizes: [[1200, 900]],
  },
  // Only to train on: benches of any colour, so that what metal mirrors is not learnt by heart.
  train: {
    from: 200_000,
    benches: ['wood', 'paint', 'concrete', 'cloth', 'steel'],
    colours: null,
    lampWidth: [0.2, 0.7],
    lamps: [1, 3],
    focal: [1.25, 2.2],
    noise: [0.6, 1.8],
    quality: [80, 94],
    cast: 0.14,
    sizes: [
      [1200, 900],
      [1024, 768],
    ],
  },
  report: {
    from: 500_000,
    benches: ['cloth', 'steel', 'wood', 'concrete'],
    colours: [
      [0.42, 0.12, 0.11],
      [0.4, 0.4, 0.43],
      [0.3, 0.2, 0.12],
      [0.55, 0.52, 0.47],
      [0.16, 0.2, 0.34],
    ],
    lampWidth: [0.2, 0.75],
    lamps: [1, 3],
    focal: [1.25, 2.3],
    noise: [0.8, 2],
    quality: [78, 90],
    cast: 0.15,
    sizes: [
      [1200, 900],
      [1024, 768],
    ],
  },
};

/** Draws of one specimen: numbers, a choice of a list, and how it is lit and taken. */
export function drawsOf(set, r) {
  const between = ([a, b]) => a + (b - a) * r();
  const pick = (list) => list[Math.floor(r() * list.length)];
  return { between, pick };
}

/** Any colour a bench may have, dark or light, grey or strong. */
function anyColour(r) {
  const light = 0.08 + 0.5 * r();
  const strong = 0.75 * r();
  return [0, 1, 2].map(() => light * (1 + strong * (2 * r() - 1)));
}

/** How the n-th picture of a set is lit and taken; `fill` is the share of the picture's long side that the part's diameter takes. */
export function shotOf(set, n, r, fill) {
  const { between, pick } = drawsOf(set, r);
  const [width, height] = pick(set.sizes);
  const shot = {
    seed: set.from + n * 3,
    width,
    height,
    focal: between(set.focal),
    fill: fill[0] + (fill[1] - fill[0]) * r(),
    tiltDeg: 14 * r(),
    tiltTowardsDeg: 360 * r(),
    rollDeg: 30 * (r() - 0.5),
    bench: pick(set.benches),
    benchColour: set.colours ? pick(set.colours) : anyColour(r),
    lamps: Math.round(between(set.lamps)),
    lampWidth: between(set.lampWidth),
    lampWarmth: 0.8 * (r() - 0.3),
    gains: [1 + set.cast * (2 * r() - 1), 1, 1 + set.cast * (2 * r() - 1)],
    exposure: 0.8 + 0.5 * r(),
    noise: between(set.noise),
    blurPx: 0.4 + 0.8 * r(),
  };
  return { shot, quality: Math.round(between(set.quality)) };
}

/** Pixels as a camera hands them out: through JPEG and back. */
export async function compressed({ width, height, data }, quality) {
  const jpeg = await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality })
    .toBuffer();
  const back = await sharp(jpeg).ensureAlpha().raw().toBuffer();
  return { width, height, data: new Uint8ClampedArray(back) };
}

/** True shares over what a camera can see, by the cells of the reading. `seenAt(arc, axial)` is the place on the reading's half turn, degrees, or null where nothing is seen. */
export function truthOf(maps, seenAt) {
  const cells = MAP_COLUMNS * MAP_ROWS;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(cells)]));
  const seen = new Float32Array(cells);
  const total = {};
  let all = 0;
  for (let y = 0; y < maps.rows; y += 2)
    for (let x = 0; x < maps.columns; x += 2) {
      const name = MAP_CLASSES[maps.truth[y * maps.columns + x]];
      const axial = (y + 0.5) / maps.rows;
      const place = name === 'hole' ? null : seenAt(((x + 0.5) / maps.columns) * maps.spanDeg, axial);
      if (place === null) continue;
      const cell = Math.floor(axial * MAP_ROWS) * MAP_COLUMNS + Math.floor((place / 180) * MAP_COLUMNS);
      shares[name][cell]++;
      seen[cell]++;
      total[name] = (total[name] ?? 0) + 1;
      all++;
    }
  for (let c = 0; c < cells; c++) {
    for (const k of WEAR_CLASSES) if (seen[c] > 0) shares[k][c] /= seen[c];
    seen[c] = seen[c] > 0 ? 1 : 0;
  }
  return {
    map: { columns: MAP_COLUMNS, rows: MAP_ROWS, shares, seen },
    percent: (k) => (100 * (total[k] ?? 0)) / Math.max(1, all),
  };
}

/** Corners of the visible band of a round part from the grid of true places: where its sides meet its two ends. */
export function outlineOf(nodes) {
  const [front, rear] = [nodes.map((row) => row[0]), nodes.map((row) => row.at(-1))];
  const middle = (ring) => [0, 1].map((k) => ring.reduce((s, p) => s + p[k], 0) / ring.length);
  const [a, b] = [middle(front), middle(rear)];
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const right = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long];
  const far = (p) => p[0] * right[0] + p[1] * right[1];
  const most = (ring, sign) => ring.reduce((best, p) => (sign * far(p) > sign * far(best) ? p : best));
  return [most(front, -1), most(rear, -1), most(rear, 1), most(front, 1)];
}

/** Corners a hand put off by `share` of the length of the face, each its own way. */
export function movedOff(corners, share, r) {
  const long = Math.hypot(corners[3][0] - corners[0][0], corners[3][1] - corners[0][1]);
  return corners.map(([x, y]) => {
    const at = 2 * Math.PI * r();
    return [x + share * long * Math.cos(at), y + share * long * Math.sin(at)];
  });
}
