import { boxMean, components, field, quantile, type Field } from './field.js';
import { LAYERS, type Layered } from './layers.js';
import type { Seen } from './light.js';

/** A line along the run: a score. */
export interface FoundLine {
  /** Arc from and to, degrees. */
  readonly fromDeg: number;
  readonly toDeg: number;
  /** Place along the axis, 0 front to 1 rear. */
  readonly axial: number;
  readonly widthMm: number;
  /** The lining shows in it. */
  readonly through: boolean;
}

/**
 * Limits of the finder of scores. Lengths in mm, depths in the logarithm of light. Set on the pictures of the other renderer and the studio's tuning set.
 * - `mean`: half length along the run over which light and colour are taken together; machining marks and grain are shorter.
 * - `cores`: half widths across the run at which a valley is looked for, from a hair to the widest score.
 * - `lip`, `shoulder`: what lies between a valley and its shoulders, and how wide a shoulder is.
 * - `seen`, `tinged`, `clear`: least depth of a valley, least rise of colour, and how many times its noise either must be, to be looked at.
 * - `deep`, `overNoise`: a dark line is a score from this mean depth on, or this many times the noise where that is more. What turning leaves came to 0.15, scores to 0.17 and more.
 * - `steep`: share of its depth that a flank rises over a tenth of a millimetre.
 * - `gap`: pieces of one line may lie so far apart; `long`: a line is longer than this.
 * - `rim`: what is warm this near to an edge is the chamfer.
 */
const LIMITS = {
  mean: 1.6,
  cores: [0.05, 0.14, 0.34],
  lip: 0.1,
  shoulder: 0.28,
  seen: 0.055,
  tinged: 0.1,
  clear: 3,
  deep: 0.165,
  overNoise: 5,
  steep: 0.42,
  gap: 9,
  long: { dark: 9, warm: 11 },
  piece: 1.5,
  widest: 1.5,
  rim: 0.6,
} as const;
/** A groove is a fifth wider from lip to lip than at half its darkness. */
const LIP = 1.2;

const LINING = LAYERS.indexOf('lining');
/** No running surface, or spots in it: what is dark or warm there is no score. */
const BROKEN: ReadonlySet<number> = new Set((['void', 'embedded', 'rust', 'transfer'] as const).map((name) => LAYERS.indexOf(name)));

interface LineOptions {
  /** Not looked at along each edge, mm. */
  readonly borderMm?: number;
  /** There is a lining to go through to; else what is warm at the bottom is a smear or rust. */
  readonly lined?: boolean;
}

/**
 * Scores: valleys along the run, dark, or warm where they went through to the lining. Light and colour are averaged along the run and compared across it with both shoulders, so that a step is none.
 * What is noise follows from how a row differs from itself farther along the run, which scores do not: dense rings do not raise it.
 */
export function findLines(
  seen: Seen,
  layered: Layered,
  pxPerMm: number,
  sourcePxPerMm: number,
  spanDeg = 180,
  { borderMm = 0.35, lined = true }: LineOptions = {},
): FoundLine[] {
  const { width, height } = seen.light;
  const run = Math.max(1, Math.round(LIMITS.mean * pxPerMm));
  const clear = field(width, height);
  const chroma = field(width, height);
  for (let i = 0; i < clear.data.length; i++) {
    clear.data[i] = seen.there[i] && !seen.glare[i] && !BROKEN.has(layered.layer[i]!) ? 1 : 0;
    chroma.data[i] = seen.clipped[i] ? seen.yellowness.data[i]! : (seen.redness.data[i]! + seen.yellowness.data[i]!) / 2;
  }
  const known = boxMean(clear, run, 0);
  const light = meanOf(seen.light, clear, known, run);
  const colour = meanOf(chroma, clear, known, run);
  const dark = deepest(light, known, pxPerMm, -1);
  const warm = deepest(colour, known, pxPerMm, 1);
  const [darkNoise, warmNoise] = [noiseOf(dark, known, run), noiseOf(warm, known, run)];
  const copper = field(width, height);
  for (let i = 0; i < copper.data.length; i++) copper.data[i] = layered.layer[i] === LINING ? 1 : 0;
  const inLining = boxMean(copper, run, Math.round(1.3 * pxPerMm));
  const strength = field(width, height);
  const isWarm = new Uint8Array(strength.data.length);
  const border = Math.round(borderMm * pxPerMm);
  const rim = Math.max(LIMITS.rim, borderMm + 0.3) * pxPerMm;
  for (let y = border; y < height - border; y++) {
    const atRim = y < rim || y >= height - rim;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const d = dark.data[i]! > LIMITS.seen ? dark.data[i]! / darkNoise[x]! : 0;
      const w = lined && warm.data[i]! > LIMITS.tinged && !atRim && inLining.data[i]! < 0.4 ? warm.data[i]! / warmNoise[x]! : 0;
      strength.data[i] = Math.max(d, w);
      if (w > LIMITS.clear) isWarm[i] = 1;
    }
  }
  const mask = crests(strength, Math.max(1, Math.round(0.08 * pxPerMm)));
  const blur = 1.3 / sourcePxPerMm;
  const pieces = components(mask, width, height, Math.round(LIMITS.piece * pxPerMm)).flatMap((c): Piece[] => {
    const long = c.right - c.left + 1;
    if (long < LIMITS.piece * pxPerMm || c.bottom - c.top > 0.1 * long + 0.4 * pxPerMm) return [];
    let [hot, net, depth] = [0, 0, 0];
    for (const i of c.pixels) {
      hot += isWarm[i]!;
      depth += Math.max(dark.data[i]!, 0);
      net += layered.net[i]!;
    }
    const through = hot > 0.4 * c.pixels.length;
    if (!through && net > 0.4 * c.pixels.length) return [];
    // The dark seam between two temper colours is a valley as well, with soft flanks.
    if (!through && steepest(light, c.pixels, pxPerMm) < LIMITS.steep * (depth / c.pixels.length)) return [];
    return [
      {
        left: c.left,
        right: c.right,
        y: c.y,
        covered: long,
        depth: depth / c.pixels.length,
        through: through ? long : 0,
        width: widthOf(through ? colour : light, c.pixels, pxPerMm, through ? 1 : -1) / pxPerMm,
      },
    ];
  });
  const least = Math.max(LIMITS.deep, LIMITS.overNoise * quantile(Float32Array.from(darkNoise), 0.5));
  return joined(pieces, known, pxPerMm).flatMap((p): FoundLine[] => {
    const long = p.covered / pxPerMm;
    const through = p.through > 0.4 * p.covered;
    const isScore = (through && long >= LIMITS.long.warm) || (p.depth >= least && long >= LIMITS.long.dark);
    if (!isScore || p.width > LIMITS.widest) return [];
    return [
      {
        // The mean along the run reaches beyond both ends.
        fromDeg: ((p.left + 0.7 * run) / width) * spanDeg,
        toDeg: ((p.right + 1 - 0.7 * run) / width) * spanDeg,
        axial: 1 - (p.y + 0.5) / height,
        widthMm: LIP * Math.sqrt(Math.max(0.02 ** 2, p.width ** 2 - blur ** 2)),
        through,
      },
    ];
  });
}

interface Piece {
  readonly left: number;
  readonly right: number;
  readonly y: number;
  /** Pixels along the run on which it was seen, and of these how many went through. */
  readonly covered: number;
  readonly through: number;
  /** Mean depth below the nearer shoulder. */
  readonly depth: number;
  readonly width: number;
}

function meanOf(p: Field, weight: Field, known: Field, run: number): Field {
  const product = field(p.width, p.height);
  for (let i = 0; i < product.data.length; i++) product.data[i] = p.data[i]! * weight.data[i]!;
  const sum = boxMean(product, run, 0);
  for (let i = 0; i < sum.data.length; i++) sum.data[i] = known.data[i]! > 0.05 ? sum.data[i]! / known.data[i]! : 0;
  return sum;
}

/** Sums down each column, so that any stretch of it is one difference. */
function sums({ width, height, data }: Field): Float64Array {
  const out = new Float64Array((height + 1) * width);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[(y + 1) * width + x] = out[y * width + x]! + data[y * width + x]!;
  return out;
}

/** How far a place lies below (`sign` −1) or above (1) the nearer of its two shoulders, at the width at which that is most. */
function deepest(p: Field, known: Field, pxPerMm: number, sign: 1 | -1): Field {
  const { width, height } = p;
  const total = sums(p);
  const depth = field(width, height);
  depth.data.fill(-1);
  const side = Math.max(2, Math.round(LIMITS.shoulder * pxPerMm));
  for (const coreMm of LIMITS.cores) {
    const core = Math.round(coreMm * pxPerMm);
    const lip = core + Math.max(1, Math.round(LIMITS.lip * pxPerMm));
    for (let y = lip + side; y < height - lip - side; y++) {
      const row = (k: number): number => (y + k) * width;
      const [c0, c1, a0, a1, b0, b1] = [row(-core), row(core + 1), row(-lip - side), row(-lip), row(lip + 1), row(lip + side + 1)];
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (known.data[i]! < 0.25) continue;
        const here = (total[c1 + x]! - total[c0 + x]!) / (2 * core + 1);
        const above = (total[a1 + x]! - total[a0 + x]!) / side;
        const below = (total[b1 + x]! - total[b0 + x]!) / side;
        const d = sign > 0 ? here - Math.max(above, below) : Math.min(above, below) - here;
        if (d > depth.data[i]!) depth.data[i] = d;
      }
    }
  }
  return depth;
}

/** Scatter of a depth by column: of what a row differs from itself one mean farther along the run, over 6 mm of the arc. */
function noiseOf({ width, height, data }: Field, known: Field, run: number): Float32Array {
  const step = 2 * run + 1;
  const raw = new Float32Array(width).fill(NaN);
  const values = new Float32Array(height);
  for (let x = 0; x + step < width; x += Math.max(1, run >> 1)) {
    let n = 0;
    for (let y = 2; y < height - 2; y += 2) {
      const i = y * width + x;
      if (known.data[i]! > 0.5 && known.data[i + step]! > 0.5) values[n++] = Math.abs(data[i]! - data[i + step]!);
    }
    if (n > 20) raw[x + run] = quantile(values.subarray(0, n), 0.5) / 0.6745 / Math.SQRT2;
  }
  const found = [...raw.keys()].filter((x) => !Number.isNaN(raw[x]!));
  const usual =
    found.length === 0
      ? 0.05
      : quantile(
          Float32Array.from(found, (x) => raw[x]!),
          0.5,
        );
  return Float32Array.from(raw, (_, x) => {
    let [sum, n] = [0, 0];
    for (const at of found)
      if (Math.abs(at - x) < 2 * run) {
        sum += raw[at]!;
        n++;
      }
    return Math.max(0.012, n > 0 ? sum / n : usual);
  });
}

/** 1 on the crests of a field across the run, over the limit. */
function crests({ width, height, data }: Field, reach: number): Uint8Array {
  const mask = new Uint8Array(data.length);
  for (let y = 1; y < height - 1; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const v = data[i]!;
      if (v < LIMITS.clear) continue;
      let most = true;
      for (let k = 1; k <= reach && most; k++) most = v >= (data[i - k * width] ?? 0) && v >= (data[i + k * width] ?? 0);
      if (!most) continue;
      mask[i] = 1;
      // The crest may step by a pixel from column to column.
      if (data[i - width]! > LIMITS.clear) mask[i - width] = 1;
    }
  return mask;
}

/** Width at half depth across the run, median over the crest, pixels. */
function widthOf({ width, height, data }: Field, pixels: readonly number[], pxPerMm: number, sign: 1 | -1): number {
  const reach = Math.round(0.9 * pxPerMm);
  const found: number[] = [];
  for (let k = 0; k < pixels.length; k += 7) {
    const at = pixels[k]!;
    const x = at % width;
    const y = (at - x) / width;
    let best = y;
    for (let d = -2; d <= 2; d++) {
      const v = data[Math.min(height - 1, Math.max(0, y + d)) * width + x]!;
      if (sign * v > sign * data[best * width + x]!) best = Math.min(height - 1, Math.max(0, y + d));
    }
    const top = sign * data[best * width + x]!;
    const base = (step: 1 | -1): number => {
      let least = top;
      for (let d = 1; d <= reach; d++) {
        const yy = best + step * d;
        if (yy < 0 || yy >= height) break;
        least = Math.min(least, sign * data[yy * width + x]!);
        if (d > 0.35 * pxPerMm && least < top - 0.05) break;
      }
      return least;
    };
    const half = (top + Math.max(base(1), base(-1))) / 2;
    let [up, down] = [0, 0];
    while (up < reach && best - up - 1 >= 0 && sign * data[(best - up - 1) * width + x]! > half) up++;
    while (down < reach && best + down + 1 < height && sign * data[(best + down + 1) * width + x]! > half) down++;
    found.push(up + down + 1);
  }
  return found.length === 0 ? 0 : quantile(Float32Array.from(found), 0.5);
}

/** Rise of the steeper of its flanks over a tenth of a millimetre, mean over the crest. */
function steepest({ width, height, data }: Field, pixels: readonly number[], pxPerMm: number): number {
  const over = Math.max(1, Math.round(0.1 * pxPerMm));
  const reach = Math.round(0.6 * pxPerMm);
  let [sum, n] = [0, 0];
  for (let k = 0; k < pixels.length; k += 5) {
    const i = pixels[k]!;
    let most = 0;
    for (const step of [width, -width])
      for (let d = 0; d <= reach; d++) {
        const [near, far] = [i + step * d, i + step * (d + over)];
        if (far < 0 || far >= width * height) break;
        most = Math.max(most, data[far]! - data[near]!);
      }
    sum += most;
    n++;
  }
  return n === 0 ? 0 : sum / n;
}

/** Joins pieces that lie on one line, or on one another (the flanks and the bottom of a wide groove); what lies under glare between them is no gap. */
function joined(pieces: readonly Piece[], known: Field, pxPerMm: number): Piece[] {
  const lines: Array<Piece & { readonly endY: number }> = [];
  for (const piece of [...pieces].sort((a, b) => a.left - b.left)) {
    const k = lines.findIndex((l) => {
      const apart = Math.abs(l.endY - piece.y) / pxPerMm;
      if (apart > Math.max(0.3, (l.width + piece.width) / 2 + 0.1)) return false;
      const row = Math.round((l.endY + piece.y) / 2) * known.width;
      let bare = 0;
      for (let x = l.right; x < piece.left; x++) if (known.data[row + x]! > 0.5) bare++;
      return bare < LIMITS.gap * pxPerMm;
    });
    const l = lines[k];
    if (!l) {
      lines.push({ ...piece, endY: piece.y });
      continue;
    }
    const shared = Math.max(0, Math.min(l.right, piece.right) - piece.left);
    const [a, b] = [l.covered, piece.covered];
    const beside = shared > 0.5 * b;
    lines[k] = {
      left: l.left,
      right: Math.max(l.right, piece.right),
      y: beside ? l.y : (l.y * a + piece.y * b) / (a + b),
      endY: beside ? l.endY : piece.y,
      covered: a + b - Math.min(b, shared),
      through: Math.max(l.through, piece.through, l.through + piece.through - shared),
      depth: beside ? Math.max(l.depth, piece.depth) : (l.depth * a + piece.depth * b) / (a + b),
      width: beside ? Math.max(l.width, piece.width) : (l.width * a + piece.width * b) / (a + b),
    };
  }
  return lines.sort((a, b) => b.y - a.y || a.left - b.left);
}
