import { GRADE_BOOK, proposeGrade, type GradeBook } from '../../damage/gradeBook.js';
import { TRUSTED } from '../../damage/surfaceRead.js';
import { summariseMap } from '../../damage/wearMap.js';
import { fail, ok, type Result } from '../../kit/result.js';
import type { Developed, Pixels } from '../flatten.js';
import type { SettledTurn } from '../film/closing.js';
import type { JoinedTurn } from '../film/joinTurn.js';
import { countsOf } from '../segment/segment.js';
import { share } from './frameChecks.js';
import { arcOfDamage, type ArcOfDamage } from './arcOfDamage.js';
import { layerAt, type Layered } from './layer.js';
import { seenOf } from './light.js';
import { findLines, type FoundLine } from './lines.js';
import { FILLET_MM } from './readSurface.js';
import { tellApart } from './tellApart.js';
import { depthsOf, featuresOf } from './surfaceFeatures.js';
import { MAP_COLUMNS, MAP_ROWS, type SurfaceReading } from './surfaceReading.js';
import { mapOf } from './wearMapOf.js';

/** A whole turn read. */
export interface TurnReading extends SurfaceReading {
  readonly damage: ArcOfDamage | null;
}

/** Windows of half a turn in which the layers are told apart, as in single pictures; the middle of each is kept. */
const WINDOWS = 3;
/** Lines are looked for so far beyond the seam that none is cut by it, degrees. */
const OVER_SEAM = 45;
/** A surface is doubted where more than such a share lies nearer to a limit than this. */
const OPEN = { under: 0.35, from: 0.12, keeps: 0.8 } as const;
/** How little of a turn may have been seen, how far its end may miss its beginning and how much may be guessed before the reading is doubted. */
const DOUBTED = { seen: 0.9, closingDeg: 8, guessedDeg: 20, mostlyGuessedDeg: 90 } as const;

/** Reads the surface of a whole turn that was joined from a film; `turn` is null where only the surface is at hand. */
export function readTurn(
  part: 'journal' | 'skirt',
  joined: JoinedTurn,
  turn: Pick<SettledTurn, 'closingErrorDeg' | 'guessed'> | null,
  book: GradeBook = GRADE_BOOK,
): Result<TurnReading> {
  const { pixels, pxPerMm } = joined;
  if (joined.seenShare < 0.2) return fail('film-unseen', 'The film shows too little of the surface to read it.', 'film');
  const told = layersOfTurn(part, pixels, pxPerMm);
  if (!told.ok) return told;
  const layered = told.value;
  const lines = part === 'journal' ? linesOfTurn(pixels, layered, pxPerMm) : [];
  const flat = asDeveloped(pixels, 360);
  const map = mapOf(layered, flat);
  const summary = summariseMap(map, depthsOf(lines));
  const { doubts, confidence } = trustInTurn(joined, turn, layered.sure);
  const proposal = proposeGrade(part, 'trimetal', summary, book);
  const trusted = confidence >= TRUSTED;
  return ok({
    summary,
    map,
    lines,
    features: featuresOf(map, summary, layered, lines, { widthMm: joined.widthMm, heightMm: joined.heightMm, spanDeg: 360 }),
    grade: trusted ? proposal.grade : null,
    reason: trusted ? proposal.reason : `No grade is proposed: ${doubts.join(' ')}`,
    bookVersion: proposal.bookVersion,
    confidence,
    doubts,
    pxPerMm,
    size: { radiusMm: joined.widthMm / (2 * Math.PI), widthMm: joined.heightMm },
    glarePercent: share(seenOf(pixels).glare) * 100,
    flat,
    layered,
    damage: arcOfDamage(map),
  });
}

function trustInTurn(
  joined: JoinedTurn,
  turn: Pick<SettledTurn, 'closingErrorDeg' | 'guessed'> | null,
  sure: Float32Array,
): { doubts: string[]; confidence: number } {
  const doubts: string[] = [];
  let confidence = 0.95;
  const less = (factor: number, words: string): void => {
    confidence *= factor;
    doubts.push(words);
  };
  if (joined.seenShare < DOUBTED.seen)
    less(0.8, `${Math.round((1 - joined.seenShare) * 360)}° of the turn are not seen. Turn on, and film it once more.`);
  if (turn === null) less(0.8, 'Read again from the made surface: how well the turn was followed is not known here.');
  else if (turn.closingErrorDeg === null) less(0.7, 'The end of the turn was not found again at its beginning, so that angles may be off.');
  else if (Math.abs(turn.closingErrorDeg) > DOUBTED.closingDeg)
    less(
      0.85,
      `The turn closed ${Math.abs(turn.closingErrorDeg).toFixed(0)}° off before it was made to meet itself: places along the arc are uncertain by some degrees.`,
    );
  const guessed = (turn?.guessed ?? []).reduce((sum, g) => sum + Math.abs(g.deg), 0);
  if (guessed > DOUBTED.guessedDeg)
    less(
      guessed > DOUBTED.mostlyGuessedDeg ? 0.4 : 0.8,
      `Over ${guessed.toFixed(0)}° the surface showed too little to follow, and an even turn was taken. A few strokes with a felt pen beside what matters would settle it.`,
    );
  if (joined.pxPerMm < 8) less(0.85, `With ${joined.pxPerMm.toFixed(1)} pixels a millimetre fine lines are lost. Go nearer.`);
  let unsure = 0;
  for (const v of sure) if (v < OPEN.under) unsure++;
  const open = unsure / sure.length;
  if (open > OPEN.from) less(OPEN.keeps, `${(open * 100).toFixed(0)} % of the surface could be something else than it is read as.`);
  return { doubts, confidence: Math.round(confidence * 100) / 100 };
}

/** Columns from `from` on, round the turn. */
function turnedTo({ width, height, data }: Pixels, from: number, wide: number): Pixels {
  const out = new Uint8ClampedArray(4 * wide * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < wide; x++) {
      const at = 4 * (y * width + ((((from + x) % width) + width) % width));
      out.set(data.subarray(at, at + 4), 4 * (y * wide + x));
    }
  return { width: wide, height, data: out };
}

/** A surface that is developed already, seen square on everywhere. */
function asDeveloped(pixels: Pixels, spanDeg: number): Developed {
  return {
    pixels,
    cosine: new Float32Array(MAP_COLUMNS * MAP_ROWS).fill(1),
    columns: MAP_COLUMNS,
    rows: MAP_ROWS,
    nodes: new Float32Array(0),
    spanDeg,
    pxPerMm: { middle: 1, side: 1 },
    notSeenPercent: 0,
  };
}

/** Layers of a whole turn: half turns are told apart one by one, as single pictures are. */
function layersOfTurn(part: 'journal' | 'skirt', pixels: Pixels, pxPerMm: number): Result<Layered> {
  const { width, height } = pixels;
  const [half, third] = [Math.floor(width / 2), width / WINDOWS];
  const layer = new Uint8Array(width * height).fill(layerAt('unseen'));
  const sure = new Float32Array(width * height);
  const net = new Uint8Array(width * height);
  let crazed = 0;
  for (let w = 0; w < WINDOWS; w++) {
    const from = Math.round((w + 0.5) * third - half / 2);
    const flat = asDeveloped(turnedTo(pixels, from, half), 180);
    const apart = tellApart(part, flat, seenOf(flat.pixels), pxPerMm, { white: null, surroundings: null });
    if (!apart.ok) return apart;
    const own = apart.value.layered;
    crazed += own.crazed / WINDOWS;
    const [first, end] = [Math.round(w * third), Math.round((w + 1) * third)];
    for (let y = 0; y < height; y++)
      for (let x = first; x < end; x++) {
        const [to, at] = [y * width + x, y * half + (x - from)];
        layer[to] = own.layer[at]!;
        sure[to] = own.sure[at]!;
        net[to] = own.net[at]!;
      }
  }
  return ok({ layer, sure, net, crazed, ...countsOf(layer, width, height, pxPerMm) });
}

/** Lines of a whole turn. They are looked for beyond the seam; one that runs over it begins before 360° and ends after it. */
function linesOfTurn(pixels: Pixels, layered: Layered, pxPerMm: number): FoundLine[] {
  const { width, height } = pixels;
  const over = Math.round((OVER_SEAM / 360) * width);
  const wide = width + 2 * over;
  const at = (x: number): number => (((x - over) % width) + width) % width;
  const spread = <T extends Uint8Array>(from: T): Uint8Array => {
    const out = new Uint8Array(wide * height);
    for (let y = 0; y < height; y++) for (let x = 0; x < wide; x++) out[y * wide + x] = from[y * width + at(x)]!;
    return out;
  };
  const found = findLines(
    seenOf(turnedTo(pixels, -over, wide)),
    { ...layered, layer: spread(layered.layer), net: spread(layered.net) },
    pxPerMm,
    pxPerMm,
    360 + 2 * OVER_SEAM,
    { borderMm: FILLET_MM, lined: false },
  );
  return joinedOverSeam(found.map((l) => ({ ...l, fromDeg: l.fromDeg - OVER_SEAM, toDeg: l.toDeg - OVER_SEAM })));
}

/** Lines less than this apart along the axis, share of the width, are one. */
const SAME_AXIAL = 0.02;
/** A line that is so long runs all round, degrees. */
const ALL_ROUND = 345;

/** Lines of a turn, each once: one found at both ends becomes one that begins in 0 to 360° and may end beyond. */
function joinedOverSeam(found: readonly FoundLine[]): FoundLine[] {
  const out: FoundLine[] = [];
  for (const l of found) {
    const from = ((l.fromDeg % 360) + 360) % 360;
    let line = { ...l, fromDeg: from, toDeg: from + l.toDeg - l.fromDeg };
    for (let k = 0; k < out.length; k++) {
      const o = out[k]!;
      if (Math.abs(o.axial - line.axial) > SAME_AXIAL) continue;
      const by = [0, 360, -360].find((d) => line.fromDeg + d <= o.toDeg && line.toDeg + d >= o.fromDeg);
      if (by === undefined) continue;
      const [first, end] = [Math.min(o.fromDeg, line.fromDeg + by), Math.max(o.toDeg, line.toDeg + by)];
      const start = ((first % 360) + 360) % 360;
      line = {
        ...o,
        through: o.through || line.through,
        widthMm: Math.max(o.widthMm, line.widthMm),
        fromDeg: start,
        toDeg: start + end - first,
      };
      out.splice(k, 1);
      k = -1;
    }
    out.push(line);
  }
  return out.map((l) => (l.toDeg - l.fromDeg >= ALL_ROUND ? { ...l, fromDeg: 0, toDeg: 360 } : l));
}
