import { GRADE_BOOK, proposeGrade, type GradeBook } from '../../damage/gradeBook.js';
import { TRUSTED } from '../../damage/surfaceRead.js';
import { summariseMap } from '../../damage/wearMap.js';
import type { ShellConstruction } from '../../engine/layout.js';
import { fail, ok, type Result } from '../../kit/result.js';
import { develop, type Developed, type Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import type { CameraModel } from '../cameraModel.js';
import { otherWayRound } from './focal.js';
import { readLayers } from './layers.js';
import { type Layered } from './layer.js';
import { cardColour, neutralColour, seenOf, type Neutral, type Seen } from './light.js';
import { correctIllumination, referenceMask, referenceMaskOutside, type Lit } from './illumination.js';
import { quantile } from './field.js';
import { findLines } from './lines.js';
import { partingLight } from './partingFaces.js';
import { readJournalLayers } from './journalLayers.js';
import { classifierFor, isClassified } from '../segment/classifiers.js';
import { segment } from '../segment/segment.js';
import { readStreakLayers } from './streakLayers.js';
import type { ReadPart } from './readParts.js';
import { type SurfaceSize, cameraModelOf } from './cameraModelOf.js';
import { type SurfaceReading, MAP_COLUMNS, MAP_ROWS } from './surfaceReading.js';
import { BORDER, checkFrame, hideOblique, hideBorder, isGrey, share, darkShare } from './frameChecks.js';
import { mapOf } from './wearMapOf.js';
import { explainApart, explainLines, explainSeen, type Explain } from './stagePictures.js';
import { depthsOf, featuresOf } from './surfaceFeatures.js';
import { trust } from './trust.js';

/** Developed pixels a millimetre: a line of 0.15 mm is three of them. */
const WORK_PX_PER_MM = 18;

const LEAST_PX_PER_MM = 4;

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
  /** Given the picture of every stage, for whoever asks why a reading is what it is. */
  readonly explain?: Explain;
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
  const card = options.card ? cardColour(picture, options.card) : null;
  if (options.explain) explainSeen(options.explain, flat.pixels, seen);
  const apart = tellApart(part, flat, seen, scale, card);
  if (!apart.ok) return apart;
  const { neutral, lit, layered } = apart.value;
  if (options.explain) explainApart(options.explain, seen, lit, layered);
  progress(0.8);
  const lines = LINES_RUN_ROUND.has(part)
    ? findLines(
        seen,
        layered,
        scale,
        pxPerMm,
        camera.spanDeg,
        part === 'journal'
          ? { borderMm: FILLET_MM, lined: false }
          : options.cornersProposed
            ? { borderMm: BORDER * camera.heightMm + PROPOSED_RIM_MM }
            : {},
      )
    : [];
  if (options.explain) explainLines(options.explain, flat.pixels, lines, camera.spanDeg);
  progress(0.95);
  const map = mapOf(layered, flat);
  const summary = summariseMap(map, depthsOf(lines));
  const glarePercent = share(seen.glare) * 100;
  const { doubts, confidence } = trust({
    camera,
    picture,
    anchored: card ? 1 : lit.anchored,
    glarePercent,
    summary,
    pxPerMm,
    sure: layered.sure,
    tint: {
      redness: neutral.redness - (card?.redness ?? 0),
      yellowness: neutral.yellowness - (card?.yellowness ?? 0),
      known: card !== null,
    },
    overParting: overParting(part, picture, corners, seen),
    toldBy: isClassified(part) ? 'classifier' : 'limits',
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

/** A developed surface told apart into layers, with what its light was taken from. */
interface ToldApart {
  readonly neutral: Neutral & { readonly share: number };
  readonly lit: Lit;
  readonly layered: Layered;
}

/** Tells the layers of a developed surface apart, by the classifier of its part where there is one. `card` is the colour that white has in this light. */
export function tellApart(part: ReadPart, flat: Developed, seen: Seen, scale: number, card: Neutral | null): Result<ToldApart> {
  const mode = neutralColour(seen);
  const neutral = card && (!mode || mode.share < 0.2) ? { ...card, share: Math.max(LEAST_NEUTRAL, mode?.share ?? 0) } : mode;
  if (!neutral || neutral.share < LEAST_NEUTRAL)
    return fail(
      'picture-no-metal',
      `No bare metal is found between the corners. Is this the running face of a ${FACE_WORDS[part]}? If nothing sound is left of it, grade it by hand. Nothing was graded.`,
      'corners',
    );
  const lit = litOf(part, seen, neutral);
  const layered = isClassified(part) ? segment(classifierFor(part), flat, seen, lit, scale, card) : layersOf(part, seen, lit, scale);
  return ok({ neutral, lit, layered });
}

/** Least share of a face whose colour is that of bare metal. */
const LEAST_NEUTRAL = 0.05;

function overParting(part: ReadPart, picture: Pixels, corners: readonly Point[], { light, there }: Seen): number | null {
  const beside = part === 'shell' ? partingLight(picture, corners) : null;
  const face = light.data.filter((_, i) => there[i] === 1);
  return beside === null || face.length === 0 ? null : quantile(face, 0.85) - beside;
}

const FACE_WORDS: Readonly<Record<ReadPart, string>> = {
  shell: 'shell',
  journal: 'journal',
  skirt: 'piston',
  bore: 'bore',
  thrust: 'thrust washer',
};

/** Beyond the border of a face whose corners were found, the chamfer may still lie this far in. */
const PROPOSED_RIM_MM = 0.5;

/** Beside its fillets a journal mirrors the webs: no line is looked for there. */
export const FILLET_MM = 1.1;

/** Parts whose scores run along the arc. */
const LINES_RUN_ROUND: ReadonlySet<ReadPart> = new Set(['shell', 'journal', 'thrust']);

/** Of parts that are larger than a bearing a pixel stands for more, so that the work stays the same. */
const MOST_PIXELS = 1_000_000;

function workScale(camera: CameraModel): number {
  return Math.min(WORK_PX_PER_MM, Math.sqrt(MOST_PIXELS / (camera.widthMm * camera.heightMm)));
}

function litOf(part: ReadPart, seen: Seen, neutral: Neutral): Lit {
  if (part === 'journal') return correctIllumination(seen, neutral, referenceMaskOutside(seen, neutral), 0.1);
  return correctIllumination(seen, neutral, referenceMask(seen, neutral), part === 'shell' || part === 'thrust' ? undefined : 0.1);
}

/** Parts for which no classifier was trained are told apart by limits. */
function layersOf(part: ReadPart, seen: Seen, lit: Lit, pxPerMm: number): Layered {
  if (part === 'journal') return readJournalLayers(seen, lit, pxPerMm);
  return part === 'skirt' || part === 'bore' ? readStreakLayers(part, seen, lit, pxPerMm) : readLayers(seen, lit, pxPerMm);
}
