import { GRADE_BOOK, proposeGrade, type GradeBook } from '../../damage/gradeBook.js';
import { WEAR_CLASSES, type Grade, type WearClass } from '../../damage/classes.js';
import { lineDepth, TRUSTED } from '../../damage/surfaceRead.js';
import { summariseMap, type LineDepth, type WearMap, type WearSummary } from '../../damage/wearMap.js';
import type { ShellConstruction } from '../../engine/layout.js';
import { fail, ok, type Problem, type Result } from '../../kit/result.js';
import { develop, NOT_SEEN_COSINE, type Developed, type Pixels } from '../flatten.js';
import { isConvex, type Point } from '../homography.js';
import type { PartClass } from '../../engine/stations.js';
import { discCamera, flatCamera, ringCamera, roundCamera, shellCamera, type CameraModel } from '../cameraModel.js';
import { otherWayRound, roundPoseByRun, shellPoseByRun } from './focal.js';
import { readJournalLayers } from './journalLayers.js';
import { LAYERS, readLayers, type Layered } from './layers.js';
import {
  cardColour,
  neutralColour,
  correctIllumination,
  seenOf,
  referenceMask,
  referenceMaskOutside,
  type Lit,
  type Neutral,
  type Seen,
} from './light.js';
import { findLines, type FoundLine } from './lines.js';
import { readStreakLayers } from './streakLayers.js';

/** Parts whose surface is developed from a picture, and those of them that are read. */
const FLATTENED_PARTS = ['shell', 'journal', 'skirt', 'bore', 'thrust', 'crown'] as const satisfies readonly PartClass[];
/** Parts whose face can be unrolled. */
export type FlattenedPart = (typeof FLATTENED_PARTS)[number];
/** Parts whose face can be read. */
export const READ_PARTS = ['shell', 'journal', 'skirt', 'bore', 'thrust'] as const satisfies readonly FlattenedPart[];
export type ReadPart = (typeof READ_PARTS)[number];
/** Can the face of this part be unrolled? */
export const isFlattened = (part: string): part is FlattenedPart => (FLATTENED_PARTS as readonly string[]).includes(part);
/** Can the face of this part be read? */
export const isRead = (part: string): part is ReadPart => (READ_PARTS as readonly string[]).includes(part);

/**
 * Size of a surface, mm. Round parts: radius of the running face and its length along the axis. Thrust face: outer radius and the width of the ring. Crown: radius.
 * A width that is not known follows from the picture of a shell or round part; elsewhere it is needed.
 */
export interface SurfaceSize {
  readonly radiusMm: number;
  readonly widthMm: number | null;
  /** Arc that a developed strip of a bore covers, degrees. */
  readonly arcDeg?: number;
}

/**
 * How a part lies in a picture, from its corners (left-front, left-rear, right-rear, right-front; of rings and crowns those of the square about their circle). `fineness` under 1 is quicker and
 * coarser, for drawing.
 */
export function cameraModelOf(
  part: FlattenedPart,
  picture: Pixels,
  corners: readonly Point[],
  size: SurfaceSize,
  fineness = 1,
): Result<CameraModel> {
  const { radiusMm } = size;
  const width = size.widthMm ?? radiusMm * 0.8;
  switch (part) {
    case 'shell': {
      const pose = shellPoseByRun(corners, picture, radiusMm, size.widthMm, fineness);
      return pose.ok ? ok(shellCamera(pose.value)) : pose;
    }
    case 'journal':
    case 'skirt': {
      const pose = roundPoseByRun(corners, picture, radiusMm, fineness);
      if (!pose.ok) return pose;
      const camera = roundCamera(pose.value);
      // A length that is known is the scale along the axis; how the part lies follows from its corners all the same.
      return ok(size.widthMm === null ? camera : { ...camera, heightMm: size.widthMm });
    }
    case 'bore': {
      const arc = size.arcDeg ?? 90;
      return flatCamera(corners, (Math.PI * radiusMm * arc) / 180, size.widthMm ?? radiusMm, arc);
    }
    case 'thrust':
      return ringCamera(corners, radiusMm, radiusMm - Math.min(width, 0.9 * radiusMm));
    case 'crown':
      return discCamera(corners, 2 * radiusMm);
  }
}

/** Layers, lines and doubts of one developed surface. */
export interface SurfaceReading {
  readonly summary: WearSummary;
  readonly map: WearMap;
  readonly lines: readonly FoundLine[];
  readonly features: SurfaceFeatures;
  /** Null where nothing should be proposed; `doubts` say why. */
  readonly grade: Grade | null;
  readonly reason: string;
  readonly bookVersion: string;
  /** 0–1: how far the picture carries the answer. */
  readonly confidence: number;
  /** Plain sentences on what stands against the reading. */
  readonly doubts: readonly string[];
  readonly pxPerMm: number;
  /** Size the millimetres rest on. */
  readonly size: { readonly radiusMm: number; readonly widthMm: number };
  readonly glarePercent: number;
  readonly flat: Developed;
  readonly layered: Layered;
}

interface SurfaceFeatures {
  readonly specks: number;
  /** Share of the face under a net of cracks, percent. */
  readonly crazedPercent: number;
  /** (rear − front) / (rear + front) of all damage, and of bare lining alone; null when there is too little (0.2 % of the face). */
  readonly edgeBias: number | null;
  readonly liningEdgeBias: number | null;
  /** Middle of the damage on the arc, degrees; null when none. */
  readonly arcCentreDeg: number | null;
  readonly arcSharePercent: number;
  /** Damage within the quarter at each edge, percent of all. */
  readonly frontEdgePercent: number;
  readonly rearEdgePercent: number;
  /** Slope of the damage over the face, front to rear per degree of arc, −1 to 1: diagonal wear. */
  readonly diagonal: number;
  readonly holes: number;
  /** Share of the whole surface that its lines cover, percent. */
  readonly linesPercent: number;
}

/** Developed pixels a millimetre: a line of 0.15 mm is three of them. */
const WORK_PX_PER_MM = 18;
const LEAST_PX_PER_MM = 4;
/** Columns of the map that is kept of a reading. */
export const MAP_COLUMNS = 36;
/** Rows of the map that is kept of a reading. */
export const MAP_ROWS = 12;
const TRACE = 0.0012;
/** Streaks are less sure than layers. */
const STREAK_TRACE = 0.006;

/** What a reading may be told beforehand. */
export interface ReadOptions {
  readonly construction?: ShellConstruction;
  readonly book?: GradeBook;
  /** Corners of a card with white on it, lying in the same light: it tells the cast when little sound metal is left. */
  readonly card?: readonly Point[];
  /** The corners are a proposal of the outline finder: what lies along the border may be the bench, and is not read. */
  readonly cornersProposed?: boolean;
  /** Called with 0–1 as the work goes on; may throw to stop it. */
  readonly progress?: (done: number) => void;
}

/**
 * Reads a photographed surface from its four corners (left-front, left-rear, right-rear, right-front; what they are on each part, `docs/formats/grade.md`): develops it, takes the light away, tells the layers apart, finds lines, and
 * proposes a grade by the grade book. Fails with a sentence where there is nothing to read; where there is something but too little, no grade is proposed and the doubts say why.
 */
export function readSurface(
  part: ReadPart,
  picture: Pixels,
  corners: readonly Point[],
  size: SurfaceSize,
  options: ReadOptions = {},
): Result<SurfaceReading> {
  const { progress = () => undefined } = options;
  const framed = checkFrame(picture, corners);
  if (framed) return { ok: false, problem: framed };
  const found = cameraModelOf(part, picture, corners, size);
  if (!found.ok) return found;
  const camera = found.value;
  progress(0.2);
  const scale = workScale(camera);
  const flat = develop(camera, picture, Math.round(scale * camera.widthMm), MAP_COLUMNS, MAP_ROWS);
  progress(0.35);
  const pxPerMm = flat.pxPerMm.middle;
  if (pxPerMm < LEAST_PX_PER_MM)
    return fail(
      'picture-small',
      `The face is only ${pxPerMm.toFixed(1)} pixels a millimetre in this picture; ${LEAST_PX_PER_MM} are needed. Go nearer, or take the larger file.`,
      'picture',
    );
  const seen = seenOf(flat.pixels);
  hideOblique(seen.there, flat);
  if (options.cornersProposed) hideBorder(seen.there, flat.pixels.width, flat.pixels.height);
  if (isGrey(flat.pixels))
    return fail(
      'picture-grey',
      'The picture holds no colour, and the layers of a surface are told apart by it. Take it in colour; nothing was graded.',
      'picture',
    );
  const mode = neutralColour(seen);
  const card = options.card ? cardColour(picture, options.card) : null;
  const neutral = card && (!mode || mode.share < 0.2) ? { ...card, share: Math.max(0.05, mode?.share ?? 0) } : mode;
  if (!neutral || neutral.share < 0.05)
    return fail(
      'picture-no-metal',
      `No bare metal is found between the corners. Is this the running face of a ${FACE_WORDS[part]}? Nothing was graded.`,
      'corners',
    );
  const lit = lightOf(part, seen, neutral);
  progress(0.55);
  const layered = layersOf(part, seen, lit, scale);
  progress(0.8);
  const lines = LINES_RUN_ROUND.has(part)
    ? findLines(lit, layered, scale, pxPerMm, camera.spanDeg, part === 'journal' ? { borderMm: FILLET_MM, lined: false } : {})
    : [];
  progress(0.95);
  const map = mapOf(layered, flat);
  const summary = summariseMap(map, depthsOf(lines));
  const glarePercent = share(seen.glare) * 100;
  const { doubts, confidence } = trust({
    camera,
    picture,
    anchored: lit.anchored,
    glarePercent,
    summary,
    pxPerMm,
    sure: layered.sure,
    clippedPercent: share(seen.clipped) * 100,
    dark: darkShare(seen.light.data, seen.there),
    proposed: options.cornersProposed ?? false,
    otherWay:
      part === 'bore' || part === 'thrust'
        ? null
        : { hollow: part === 'shell', by: otherWayRound(part === 'shell', camera, corners, picture, size.radiusMm) },
  });
  const proposal = proposeGrade(part, options.construction ?? 'trimetal', summary, options.book ?? GRADE_BOOK);
  const trusted = confidence >= TRUSTED;
  return ok({
    summary,
    map,
    lines,
    features: featuresOf(map, summary, layered, lines, camera),
    grade: trusted ? proposal.grade : null,
    reason: trusted ? proposal.reason : `No grade is proposed: ${doubts.join(' ')}`,
    bookVersion: proposal.bookVersion,
    confidence,
    doubts,
    pxPerMm,
    size: { radiusMm: size.radiusMm, widthMm: camera.heightMm },
    glarePercent,
    flat,
    layered,
  });
}

const FACE_WORDS: Readonly<Record<ReadPart, string>> = {
  shell: 'shell',
  journal: 'journal',
  skirt: 'piston',
  bore: 'bore',
  thrust: 'thrust washer',
};
/** Beside its fillets a journal mirrors the webs: no line is looked for there. */
const FILLET_MM = 1.1;
/** Parts whose scores run along the arc. */
const LINES_RUN_ROUND: ReadonlySet<ReadPart> = new Set(['shell', 'journal', 'thrust']);
/** Of parts that are larger than a bearing a pixel stands for more, so that the work stays the same. */
const MOST_PIXELS = 1_000_000;

function workScale(camera: CameraModel): number {
  return Math.min(WORK_PX_PER_MM, Math.sqrt(MOST_PIXELS / (camera.widthMm * camera.heightMm)));
}

function lightOf(part: ReadPart, seen: Seen, neutral: Neutral): Lit {
  if (part === 'journal') return correctIllumination(seen, neutral, referenceMaskOutside(seen, neutral), 0.1);
  return correctIllumination(seen, neutral, referenceMask(seen, neutral), part === 'shell' || part === 'thrust' ? undefined : 0.1);
}

function layersOf(part: ReadPart, seen: Seen, lit: Lit, pxPerMm: number): Layered {
  if (part === 'journal') return readJournalLayers(seen, lit, pxPerMm);
  return part === 'skirt' || part === 'bore' ? readStreakLayers(seen, lit, pxPerMm) : readLayers(seen, lit, pxPerMm);
}

/** Stands against the corners as given, before anything is computed. */
function checkFrame(picture: Pixels, corners: readonly Point[]): Problem | null {
  if (picture.width < 64 || picture.height < 64)
    return {
      code: 'picture-small',
      sentence: `The picture is ${picture.width} × ${picture.height} pixels: too small to read. Take the original file.`,
      field: 'picture',
    };
  if (corners.length !== 4 || corners.some((p) => !p.every(Number.isFinite)))
    return { code: 'corners-missing', sentence: 'Four corners are needed, each with x and y in pixels.', field: 'corners' };
  if (!isConvex(corners))
    return {
      code: 'corners-crossed',
      sentence: 'The corners cross or lie on one line. Go round the face: left-front, left-rear, right-rear, right-front.',
      field: 'corners',
    };
  const out = corners.filter(
    ([x, y]) => x < -0.02 * picture.width || y < -0.02 * picture.height || x > 1.02 * picture.width || y > 1.02 * picture.height,
  );
  if (out.length > 0)
    return {
      code: 'corners-outside',
      sentence: `${out.length === 1 ? 'A corner lies' : `${out.length} corners lie`} outside the picture: part of the face is not in it. Take it again with the whole half in view.`,
      field: 'corners',
    };
  return null;
}

/** Places that are seen at a sliver count as not seen. */
function hideOblique(there: Uint8Array, flat: Developed): void {
  const { width, height } = flat.pixels;
  for (let y = 0; y < height; y++) {
    const row = Math.min(flat.rows - 1, Math.floor((1 - (y + 0.5) / height) * flat.rows));
    for (let x = 0; x < width; x++) {
      // Between the middles of the cells.
      const c = Math.min(flat.columns - 1.001, Math.max(0, ((x + 0.5) / width) * flat.columns - 0.5));
      const a = Math.floor(c);
      const cosine =
        flat.cosine[row * flat.columns + a]! * (1 - c + a) + flat.cosine[row * flat.columns + Math.min(flat.columns - 1, a + 1)]! * (c - a);
      if (cosine < NOT_SEEN_COSINE) there[y * width + x] = 0;
    }
  }
}

const BORDER = 0.05;
function hideBorder(there: Uint8Array, width: number, height: number): void {
  const [bx, by] = [Math.round(BORDER * width * 0.7), Math.round(BORDER * height)];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (x < bx || y < by || x >= width - bx || y >= height - by) there[y * width + x] = 0;
}

function isGrey({ data }: Pixels): boolean {
  let coloured = 0;
  let n = 0;
  for (let i = 0; i < data.length; i += 4 * 37) {
    if (data[i + 3] === 0) continue;
    n++;
    if (Math.max(data[i]!, data[i + 1]!, data[i + 2]!) - Math.min(data[i]!, data[i + 1]!, data[i + 2]!) > 2) coloured++;
  }
  return n > 0 && coloured < n * 0.01;
}

const share = (mask: Uint8Array): number => mask.reduce((s, v) => s + v, 0) / Math.max(1, mask.length);
function darkShare(light: Float32Array, there: Uint8Array): number {
  let dark = 0;
  let n = 0;
  for (let i = 0; i < light.length; i += 5) {
    if (!there[i]) continue;
    n++;
    if (light[i]! < -4) dark++;
  }
  return n === 0 ? 1 : dark / n;
}

/** Shares of the classes in the cells of the wear map; row 0 is the front edge. Holes are left out, what is not seen lowers `seen`. */
function mapOf(layered: Layered, flat: Developed): WearMap {
  const { width, height } = flat.pixels;
  const cells = MAP_COLUMNS * MAP_ROWS;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(cells)])) as Record<WearClass, Float32Array>;
  const seen = new Float32Array(cells);
  const total = new Float32Array(cells);
  for (let y = 0; y < height; y++) {
    const row = Math.min(MAP_ROWS - 1, Math.floor((1 - (y + 0.5) / height) * MAP_ROWS));
    for (let x = 0; x < width; x++) {
      const cell = row * MAP_COLUMNS + Math.min(MAP_COLUMNS - 1, Math.floor(((x + 0.5) / width) * MAP_COLUMNS));
      total[cell]!++;
      const name = LAYERS[layered.layer[y * width + x]!]!;
      if (name === 'void' || name === 'unseen') continue;
      seen[cell]!++;
      shares[name][cell]!++;
    }
  }
  // Less than this of the whole face is what noise and compression leave, not a finding.
  const all = seen.reduce((s, v) => s + v, 0);
  for (const c of ['lining', 'heat', 'rust', 'scuffed', 'transfer'] as const) {
    const found = shares[c].reduce((s, v) => s + v, 0);
    if (found > (c === 'scuffed' ? STREAK_TRACE : TRACE) * all) continue;
    for (let cell = 0; cell < cells; cell++) shares.sound[cell]! += shares[c][cell]!;
    shares[c].fill(0);
  }
  for (let cell = 0; cell < cells; cell++) {
    const n = seen[cell]!;
    for (const c of WEAR_CLASSES) if (n > 0) shares[c][cell] = shares[c][cell]! / n;
    seen[cell] = n / Math.max(1, total[cell]!);
  }
  return { columns: MAP_COLUMNS, rows: MAP_ROWS, shares, seen };
}

function depthsOf(lines: readonly FoundLine[]): Record<LineDepth, number> {
  const counts: Record<LineDepth, number> = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const l of lines) counts[lineDepth(l)]++;
  return counts;
}

function featuresOf(
  map: WearMap,
  summary: WearSummary,
  layered: Layered,
  lines: readonly FoundLine[],
  camera: CameraModel,
): SurfaceFeatures {
  const span = camera.spanDeg || 180;
  let [n, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0];
  for (let cell = 0; cell < map.seen.length; cell++) {
    const damage = (1 - map.shares.sound[cell]!) * map.seen[cell]!;
    if (damage <= 0.001 || map.seen[cell] === 0) continue;
    const x = (cell % MAP_COLUMNS) / MAP_COLUMNS;
    const y = Math.floor(cell / MAP_COLUMNS) / MAP_ROWS;
    n += damage;
    sx += damage * x;
    sy += damage * y;
    sxx += damage * x * x;
    syy += damage * y * y;
    sxy += damage * x * y;
  }
  const spread = n > 0 ? Math.sqrt(Math.max(0, (sxx / n - (sx / n) ** 2) * (syy / n - (sy / n) ** 2))) : 0;
  return {
    specks: layered.specks,
    crazedPercent: layered.crazed * 100,
    edgeBias: summary.edgeBias,
    liningEdgeBias: biasOf(map, 'lining'),
    arcCentreDeg: summary.arcCentre === null ? null : summary.arcCentre * span,
    linesPercent: linesShare(lines, camera) * 100,
    arcSharePercent: summary.arcShare * 100,
    frontEdgePercent: summary.edgeShare.front * 100,
    rearEdgePercent: summary.edgeShare.rear * 100,
    diagonal: n > 1 && spread > 0.005 ? (sxy / n - (sx / n) * (sy / n)) / spread : 0,
    holes: layered.voids,
  };
}

/** Lines as share of the surface: their lengths by their widths. */
function linesShare(lines: readonly FoundLine[], camera: CameraModel): number {
  const perDegree = camera.widthMm / (camera.spanDeg || 180);
  return lines.reduce((s, l) => s + (l.toDeg - l.fromDeg) * perDegree * l.widthMm, 0) / (camera.widthMm * camera.heightMm);
}

function biasOf(map: WearMap, name: WearClass): number | null {
  const halves = [0, 0];
  let all = 0;
  for (let cell = 0; cell < map.seen.length; cell++) {
    const seen = map.seen[cell]!;
    all += seen;
    halves[Math.floor(cell / MAP_COLUMNS) < MAP_ROWS / 2 ? 0 : 1]! += seen * map.shares[name][cell]!;
  }
  const [front, rear] = halves as [number, number];
  return front + rear < 0.002 * all ? null : (rear - front) / (rear + front);
}

interface Standing {
  readonly camera: CameraModel;
  readonly picture: Pixels;
  readonly anchored: number;
  readonly glarePercent: number;
  readonly clippedPercent: number;
  readonly dark: number;
  readonly summary: WearSummary;
  readonly pxPerMm: number;
  readonly sure: Float32Array;
  readonly proposed: boolean;
  /** How much better the ends fit a part that is round the other way; null for flat ones. */
  readonly otherWay: { readonly hollow: boolean; readonly by: number } | null;
}

/** From where on the ends of a part speak for the other kind. Corners that a hand put a percent off bring a shell there too, so that it is only doubted. */
const OTHER_WAY = { hollow: 0.25, full: 0.15 } as const;

/** What the picture is worth for this reading. Each doubt takes its share of the confidence. */
function trust(s: Standing): { doubts: string[]; confidence: number } {
  const doubts: string[] = [];
  let confidence = 0.95;
  const less = (factor: number, words: string): void => {
    confidence *= factor;
    doubts.push(words);
  };
  const outline = outlineContrast(s.camera, s.picture);
  if (outline < 0.25) less(0.25, 'The corners do not lie on the outline of a part.');
  else if (outline < 0.45) less(0.75, 'The outline of the part is hardly seen at the corners.');
  if (s.otherWay?.hollow && s.otherWay.by > OTHER_WAY.hollow)
    less(
      0.45,
      'The ends bow as those of a round part seen from outside: is it a half shell, and are the corners where its parting lines end?',
    );
  if (s.otherWay && !s.otherWay.hollow && s.otherWay.by > OTHER_WAY.full)
    less(0.35, 'The ends bow as those of a hollow half: is it this part, and are the corners where its sides end?');
  if (s.summary.seenPercent < 55) less(0.3, `Only ${s.summary.seenPercent.toFixed(0)} % of the face is seen.`);
  else if (s.summary.seenPercent < 80) less(0.8, `${(100 - s.summary.seenPercent).toFixed(0)} % of the face is not seen.`);
  if (s.clippedPercent > 45) less(0.3, `${s.clippedPercent.toFixed(0)} % of the face is over-exposed.`);
  else if (s.clippedPercent > 18) less(0.8, `${s.clippedPercent.toFixed(0)} % of the face is over-exposed.`);
  if (s.dark > 0.85) less(0.3, 'The face is too dark to read.');
  if (s.anchored < 0.15) less(0.4, 'Hardly any sound metal is left to judge the light by.');
  else if (s.anchored < 0.5) less(0.8, 'Little sound metal is left to judge the light by.');
  if (s.proposed) less(0.8, 'The corners were found without help; look whether they lie on the face. Its border was not read.');
  if (s.pxPerMm < 8) less(0.75, `With ${s.pxPerMm.toFixed(1)} pixels a millimetre fine lines are lost.`);
  let unsure = 0;
  for (const v of s.sure) if (v < 0.35) unsure++;
  const open = unsure / Math.max(1, s.sure.length);
  if (open > 0.12) less(0.8, `${(open * 100).toFixed(0)} % of the face lies near the border between two layers.`);
  return { doubts, confidence: Math.round(confidence * 100) / 100 };
}

/** Share of places along front and rear rim at which the picture changes from inside to outside. */
function outlineContrast(camera: CameraModel, picture: Pixels): number {
  const look = (arc: number, axial: number): readonly [number, number, number] | null => {
    let [r, g, b, n] = [0, 0, 0, 0];
    for (let k = -2; k <= 2; k++) {
      const [px, py] = camera.project((arc + k * 0.6) / 180, axial);
      const x = Math.round(px - 0.5);
      const y = Math.round(py - 0.5);
      if (x < 0 || y < 0 || x >= picture.width || y >= picture.height) continue;
      const i = (y * picture.width + x) * 4;
      r += picture.data[i]!;
      g += picture.data[i + 1]!;
      b += picture.data[i + 2]!;
      n++;
    }
    return n === 0 ? null : [r / n, g / n, b / n];
  };
  let changed = 0;
  let looked = 0;
  for (const [inside, outside] of [
    [0.08, -0.09],
    [0.92, 1.09],
  ] as const)
    for (let arc = 12; arc <= 168; arc += 6) {
      const a = look(arc, inside);
      const b = look(arc, outside);
      if (!a || !b) continue;
      looked++;
      if (Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > 26) changed++;
    }
  return looked === 0 ? 0 : changed / looked;
}
