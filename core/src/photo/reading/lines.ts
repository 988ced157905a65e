import { boxMean, components, field, quantile, type Field } from './field.js';
import { LAYERS, type Layered } from './layers.js';
import type { Lit } from './light.js';

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

/** What is wider than this and dark is no score, mm. */
const WIDEST_MM = 1.5;
/** A groove is a fifth wider from lip to lip than at half its darkness. */
const LIP = 1.2;
/** A groove whose bottom is warmer by this than the metal beside it shows the lining; on the tuning set those that had not gone through came to 0.035, those that had to 0.09 and more. */
const WARMER = 0.07;
const LINING = LAYERS.indexOf('lining');
const UNSEEN = LAYERS.indexOf('unseen');
/** Lining this near the edge of the face is edge wear, mm. */
const RIM_MM = 0.5;
/** Pieces farther apart than this are two lines, mm. */
const MOST_GAP_MM = 9;

/**
 * Scores: narrow, far longer than wide, along the run. Dark ones by a ridge across the axis after a mean along the arc (machining marks are as narrow but short and
 * shallow; the limit is set by their own scatter); those gone through by narrow strips of lining that stand alone. Pieces on one line are joined across gaps.
 * `borderMm` at each edge is not looked at; with `lined` false there is no lining to go through to, and what is warm at the bottom is a smear or rust.
 */
export function findLines(
  lit: Lit,
  layered: Layered,
  pxPerMm: number,
  sourcePxPerMm: number,
  spanDeg = 180,
  { borderMm = 0.35, lined = true }: { readonly borderMm?: number; readonly lined?: boolean } = {},
): FoundLine[] {
  const through = throughLines(layered, lit.shade.width, lit.shade.height, pxPerMm, spanDeg);
  const dark = darkLines(lit, layered, pxPerMm, sourcePxPerMm, spanDeg, borderMm).filter((d) => lined || !d.through);
  const { height } = lit.shade;
  const kept = dark.filter(
    (d) => !through.some((t) => Math.abs(t.axial - d.axial) * height < (t.widthMm / 2 + 0.35) * pxPerMm && overlap(t, d) > 0.3),
  );
  return whole([...through, ...once(kept, height / pxPerMm)], layered, lit.shade.width, height, pxPerMm, spanDeg).sort(
    (a, b) => a.axial - b.axial || a.fromDeg - b.fromDeg,
  );
}

/** One groove may be seen in pieces, dark here and down to the lining there, or have glare on it: what goes on at the same height is one line, and glare between two pieces is no gap. */
function whole(
  lines: readonly FoundLine[],
  { layer }: Layered,
  width: number,
  height: number,
  pxPerMm: number,
  spanDeg: number,
): FoundLine[] {
  const merged: FoundLine[] = [];
  for (const line of [...lines].sort((a, b) => a.fromDeg - b.fromDeg)) {
    const k = merged.findIndex((m) => {
      if (Math.abs(m.axial - line.axial) * height > 0.4 * pxPerMm) return false;
      const row = Math.min(height - 1, Math.max(0, Math.round((1 - (m.axial + line.axial) / 2) * height - 0.5))) * width;
      let bare = 0;
      for (let x = Math.round((m.toDeg / spanDeg) * width); x < (line.fromDeg / spanDeg) * width; x++)
        if (layer[row + x] !== UNSEEN) bare++;
      return bare < MOST_GAP_MM * pxPerMm && line.fromDeg > m.toDeg - ((2 * pxPerMm) / width) * spanDeg;
    });
    const m = merged[k];
    if (!m) {
      merged.push(line);
      continue;
    }
    const [a, b] = [m.toDeg - m.fromDeg, line.toDeg - line.fromDeg];
    merged[k] = {
      fromDeg: m.fromDeg,
      toDeg: Math.max(m.toDeg, line.toDeg),
      axial: (m.axial * a + line.axial * b) / (a + b),
      widthMm: (m.widthMm * a + line.widthMm * b) / (a + b),
      through: m.through || line.through,
    };
  }
  return merged;
}

/** A wide groove shows two dark flanks: what lies on one another is one line, the longer of the two. */
function once(lines: readonly FoundLine[], heightMm: number): FoundLine[] {
  const kept: FoundLine[] = [];
  for (const line of [...lines].sort((a, b) => b.toDeg - b.fromDeg - (a.toDeg - a.fromDeg))) {
    const twice = kept.some(
      (k) => Math.abs(k.axial - line.axial) * heightMm < (k.widthMm + line.widthMm) / 2 + 0.12 && overlap(k, line) > 0.5,
    );
    if (!twice) kept.push(line);
  }
  return kept;
}

function overlap(a: FoundLine, b: FoundLine): number {
  const shared = Math.min(a.toDeg, b.toDeg) - Math.max(a.fromDeg, b.fromDeg);
  return shared / Math.max(1e-6, Math.min(a.toDeg - a.fromDeg, b.toDeg - b.fromDeg));
}

function throughLines(layered: Layered, width: number, height: number, pxPerMm: number, spanDeg: number): FoundLine[] {
  const mask = new Uint8Array(layered.layer.length);
  const copper = field(width, height);
  for (let i = 0; i < mask.length; i++)
    if (layered.layer[i] === LINING) {
      mask[i] = 1;
      copper.data[i] = 1;
    }
  const found: FoundLine[] = [];
  for (const c of components(mask, width, height, Math.round(0.6 * pxPerMm ** 2))) {
    const long = (c.right - c.left + 1) / pxPerMm;
    const thick = c.area / pxPerMm / (c.right - c.left + 1);
    const tall = (c.bottom - c.top + 1) / pxPerMm;
    if (long < 5 || thick > 1.3 || long < 8 * thick || tall > 2.6) continue;
    // What reaches the edge of the face is a worn edge.
    if (c.top < RIM_MM * pxPerMm || c.bottom > height - RIM_MM * pxPerMm) continue;
    // Alone: little other lining within a millimetre above and below.
    const own = new Set(c.pixels);
    let other = 0;
    let looked = 0;
    const reach = Math.round(2.6 * pxPerMm);
    for (let x = c.left; x <= c.right; x += 2)
      for (let y = Math.max(0, c.top - reach); y <= Math.min(height - 1, c.bottom + reach); y += 2) {
        const i = y * width + x;
        if (own.has(i)) continue;
        looked++;
        if (mask[i]) other++;
      }
    if (other > 0.08 * looked) continue;
    found.push({
      fromDeg: (c.left / width) * spanDeg,
      toDeg: ((c.right + 1) / width) * spanDeg,
      axial: 1 - (c.y + 0.5) / height,
      widthMm: thick,
      through: true,
    });
  }
  return found;
}

interface Piece {
  readonly left: number;
  readonly right: number;
  readonly y: number;
  readonly contrast: number;
  readonly width: number;
  /** How much warmer its bottom is than the metal beside it: the lining shows in it. */
  readonly chroma: number;
}

function darkLines(lit: Lit, layered: Layered, pxPerMm: number, sourcePxPerMm: number, spanDeg: number, borderMm: number): FoundLine[] {
  const { width, height } = lit.shade;
  const along = Math.round(1.6 * pxPerMm);
  // Only what is metal counts; elsewhere the shade says nothing of a score.
  const clean = field(width, height);
  for (let i = 0; i < clean.data.length; i++) {
    const l = LAYERS[layered.layer[i]!]!;
    clean.data[i] = l === 'sound' || l === 'heat' ? Math.max(-1.2, Math.min(0.6, lit.shade.data[i]!)) : 0;
  }
  const mean = boxMean(clean, along, 0);
  const near = boxMean(mean, 0, Math.max(1, Math.round(0.06 * pxPerMm)));
  const wide = boxMean(mean, 0, Math.round(0.55 * pxPerMm));
  const ridge = field(width, height);
  for (let i = 0; i < ridge.data.length; i++) ridge.data[i] = wide.data[i]! - near.data[i]!;
  const sample = new Float32Array(Math.ceil(ridge.data.length / 5));
  for (let k = 0; k < sample.length; k++) sample[k] = Math.abs(ridge.data[k * 5]!);
  const scatter = quantile(sample, 0.5) / 0.6745;
  const limit = Math.max(0.1, 5 * scatter);
  const mask = new Uint8Array(ridge.data.length);
  const border = Math.round(borderMm * pxPerMm);
  for (let y = border; y < height - border; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (ridge.data[i]! > limit && ridge.data[i]! >= ridge.data[i - width]! && ridge.data[i]! >= ridge.data[i + width]!) {
        mask[i] = 1;
        // The crest may step by a pixel from column to column.
        if (ridge.data[i - width]! > limit) mask[i - width] = 1;
      }
    }
  const pieces: Piece[] = components(mask, width, height, Math.round(1.2 * pxPerMm)).flatMap((c) => {
    const long = c.right - c.left + 1;
    if (long < 1.5 * pxPerMm || c.bottom - c.top > 0.12 * long + 0.4 * pxPerMm) return [];
    let contrast = 0;
    let alone = 0;
    const beside = Math.round(0.45 * pxPerMm) * width;
    for (const i of c.pixels) {
      contrast = Math.max(contrast, ridge.data[i]!);
      if (layered.layer[i - beside] === layered.layer[i + beside] && (layered.layer[i] ?? 1) === (layered.layer[i + beside] ?? 0)) alone++;
    }
    if (c.pixels.reduce((n, i) => n + layered.net[i]!, 0) > 0.4 * c.pixels.length) return [];
    // A step from light to dark has a darker side but no valley.
    if (valley(mean, c.pixels, width, height, Math.round(0.6 * pxPerMm)) < 0.35 * contrast) return [];
    // The border of a worn patch, a hole or a tab is no score.
    if (alone < 0.7 * c.pixels.length) return [];
    return [
      {
        left: c.left,
        right: c.right,
        y: c.y,
        contrast,
        width: widthOf(mean, wide, c.pixels, width, height) / pxPerMm,
        chroma: warmerThanBeside(layered.chroma, c.pixels, Math.round(0.7 * pxPerMm)),
      },
    ];
  });
  const joined = join(pieces, pxPerMm);
  const blur = 1.3 / sourcePxPerMm;
  return joined.flatMap((p) => {
    const long = (p.right - p.left) / pxPerMm;
    if (long < 5 || p.contrast * Math.sqrt(long) < 6.5 * limit || p.width > WIDEST_MM) return [];
    return [
      {
        fromDeg: (p.left / width) * spanDeg,
        toDeg: (p.right / width) * spanDeg,
        axial: 1 - (p.y + 0.5) / height,
        widthMm: LIP * Math.sqrt(Math.max(0.02 ** 2, p.width ** 2 - blur ** 2)),
        through: p.chroma > WARMER,
      },
    ];
  });
}

/** How far the lower of the two shoulders of a crest stands above it, mean over the crest. */
function valley(mean: Field, pixels: readonly number[], width: number, height: number, reach: number): number {
  let sum = 0;
  let n = 0;
  for (let k = 0; k < pixels.length; k += 3) {
    const i = pixels[k]!;
    let [above, below] = [-Infinity, -Infinity];
    for (let step = 2; step <= reach; step += 2) {
      if (i - step * width >= 0) above = Math.max(above, mean.data[i - step * width]!);
      if (i + step * width < width * height) below = Math.max(below, mean.data[i + step * width]!);
    }
    if (!Number.isFinite(above) || !Number.isFinite(below)) continue;
    sum += Math.min(above, below) - mean.data[i]!;
    n++;
  }
  return n === 0 ? 0 : sum / n;
}

/** Chroma along a crest over the mean of both sides of it. */
function warmerThanBeside({ width, data }: Field, pixels: readonly number[], beside: number): number {
  let sum = 0;
  let n = 0;
  for (const i of pixels) {
    const [above, below] = [data[i - beside * width], data[i + beside * width]];
    if (above === undefined || below === undefined) continue;
    sum += data[i]! - (above + below) / 2;
    n++;
  }
  return n === 0 ? 0 : sum / n;
}

/** Width at half depth across the axis, mean over the crest, pixels. */
function widthOf(mean: Field, wide: Field, pixels: readonly number[], width: number, height: number): number {
  let sum = 0;
  let n = 0;
  for (let k = 0; k < pixels.length; k += 5) {
    const i = pixels[k]!;
    const base = wide.data[i]!;
    const half = (mean.data[i]! + base) / 2;
    if (mean.data[i]! >= base) continue;
    let up = 0;
    let down = 0;
    while (up < 30 && i - (up + 1) * width >= 0 && mean.data[i - (up + 1) * width]! < half) up++;
    while (down < 30 && i + (down + 1) * width < width * height && mean.data[i + (down + 1) * width]! < half) down++;
    sum += up + down + 1;
    n++;
  }
  return n === 0 ? 0 : sum / n;
}

/** Joins pieces that lie on one line with a gap shorter than 9 mm. */
function join(pieces: readonly Piece[], pxPerMm: number): Piece[] {
  const sorted = [...pieces].sort((a, b) => a.left - b.left);
  const lines: Piece[] = [];
  for (const piece of sorted) {
    const k = lines.findIndex(
      (l) => Math.abs(l.y - piece.y) < 0.4 * pxPerMm && piece.left - l.right < 9 * pxPerMm && piece.left > l.right - 1.5 * pxPerMm,
    );
    const l = lines[k];
    if (!l) {
      lines.push(piece);
      continue;
    }
    const a = l.right - l.left;
    const b = piece.right - piece.left;
    lines[k] = {
      left: l.left,
      right: Math.max(l.right, piece.right),
      // The end is what the next piece goes on from.
      y: piece.y * 0.6 + l.y * 0.4,
      contrast: Math.max(l.contrast, piece.contrast),
      width: (l.width * a + piece.width * b) / Math.max(1, a + b),
      chroma: (l.chroma * a + piece.chroma * b) / Math.max(1, a + b),
    };
  }
  return lines;
}
