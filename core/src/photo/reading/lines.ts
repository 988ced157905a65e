import { boxMean, components, field, quantile, type Field } from './field.js';
import { LAYERS, type Chances, type Layered } from './layer.js';
import { crests, deepest, LINE_LIMITS, meanOf, noiseOf, steepest, widthOf } from './lineProfile.js';
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
  const run = Math.max(1, Math.round(LINE_LIMITS.mean * pxPerMm));
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
  const rim = Math.max(LINE_LIMITS.rim, borderMm + 0.3) * pxPerMm;
  for (let y = border; y < height - border; y++) {
    const atRim = y < rim || y >= height - rim;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const d = dark.data[i]! > LINE_LIMITS.seen ? dark.data[i]! / darkNoise[x]! : 0;
      const w = lined && warm.data[i]! > LINE_LIMITS.tinged && !atRim && inLining.data[i]! < 0.4 ? warm.data[i]! / warmNoise[x]! : 0;
      strength.data[i] = Math.max(d, w);
      if (w > LINE_LIMITS.clear) isWarm[i] = 1;
    }
  }
  const scoredAt = layered.chances && chanceOfScore(layered.chances, width, height);
  const stain = field(width, height);
  for (let i = 0; i < stain.data.length; i++) stain.data[i] = STAINS.has(layered.layer[i]!) ? 1 : 0;
  const stained = boxMean(stain, run, Math.round(STAIN_MM * pxPerMm));
  const mask = crests(strength, Math.max(1, Math.round(0.08 * pxPerMm)));
  const blur = 1.3 / sourcePxPerMm;
  const pieces = components(mask, width, height, Math.round(LINE_LIMITS.piece * pxPerMm)).flatMap((c): Piece[] => {
    const long = c.right - c.left + 1;
    if (long < LINE_LIMITS.piece * pxPerMm || c.bottom - c.top > 0.1 * long + 0.4 * pxPerMm) return [];
    let [hot, net, depth] = [0, 0, 0];
    for (const i of c.pixels) {
      hot += isWarm[i]!;
      depth += Math.max(dark.data[i]!, 0);
      net += layered.net[i]!;
    }
    const through = hot > 0.4 * c.pixels.length;
    if (scoredAt && meanOver(c.pixels, (i) => stained.data[i]!) > STAINED && meanOver(c.pixels, scoredAt) < LEAST_SCORED) return [];
    if (!through && net > 0.4 * c.pixels.length) return [];
    // The dark seam between two temper colours is a valley as well, with soft flanks.
    if (!through && steepest(light, c.pixels, pxPerMm) < LINE_LIMITS.steep * (depth / c.pixels.length)) return [];
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
  const least = Math.max(LINE_LIMITS.deep, LINE_LIMITS.overNoise * quantile(Float32Array.from(darkNoise), 0.5));
  return joined(pieces, known, pxPerMm).flatMap((p): FoundLine[] => {
    const long = p.covered / pxPerMm;
    const through = p.through > 0.4 * p.covered;
    const isScore = (through && long >= LINE_LIMITS.long.warm) || (p.depth >= least && long >= LINE_LIMITS.long.dark);
    if (!isScore || p.width > LINE_LIMITS.widest) return [];
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

/** Tints and smears run along the arc as scores do: near them (so many mm across the run, so much of it) a line is a score only where a classifier that was asked gives it this mean chance. */
const STAINS: ReadonlySet<number> = new Set((['heat', 'transfer'] as const).map((name) => LAYERS.indexOf(name)));
const STAIN_MM = 1;
const STAINED = 0.04;
const LEAST_SCORED = 0.12;

const meanOver = (pixels: readonly number[], value: (i: number) => number): number =>
  pixels.reduce((sum, i) => sum + value(i), 0) / Math.max(1, pixels.length);

/** Chance that a pixel lies in a score, the most within a pixel of the smaller picture across the run; null where the classifier does not tell scores apart. */
function chanceOfScore({ classes, planes, width: w, height: h }: Chances, width: number, height: number): ((i: number) => number) | null {
  const plane = planes[classes.indexOf('scored')];
  if (!plane) return null;
  return (i) => {
    const x = Math.min(w - 1, Math.floor((((i % width) + 0.5) * w) / width));
    const y = Math.min(h - 1, Math.floor(((Math.floor(i / width) + 0.5) * h) / height));
    return Math.max(plane[y * w + x]!, plane[Math.max(0, y - 1) * w + x]!, plane[Math.min(h - 1, y + 1) * w + x]!);
  };
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
      return bare < LINE_LIMITS.gap * pxPerMm;
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
