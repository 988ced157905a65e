import { GRADE_BOOK, proposeGrade, type GradeBook } from '../../damage/gradeBook.js';
import { TRUSTED } from '../../damage/surfaceRead.js';
import { summariseMap, type WearSummary } from '../../damage/wearMap.js';
import type { ShellConstruction } from '../../engine/layout.js';
import { fail, ok, type Result } from '../../kit/result.js';
import { develop, type Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import type { CameraModel } from '../cameraModel.js';
import { otherWayRound } from './focal.js';
import { cardColour, seenOf, type Seen } from './light.js';
import { surroundingsIn, tellApart } from './tellApart.js';
import { quantile } from './field.js';
import { findLines } from './lines.js';
import { partingLight } from './partingFaces.js';
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
  if (options.cornersProposed) hideBorder(seen.there, flat.pixels.width, flat.pixels.height, camera.spanDeg === 360);
  if (isGrey(flat.pixels))
    return fail(
      'picture-grey',
      'The picture holds no colour, and the layers of a surface are told apart by it. Take it in colour; nothing was graded.',
      'picture',
    );
  const card = options.card ? cardColour(picture, options.card) : null;
  if (options.explain) explainSeen(options.explain, flat.pixels, seen);
  const apart = tellApart(part, flat, seen, scale, { white: card, surroundings: surroundingsIn(part, camera, picture, size) });
  if (!apart.ok) return apart;
  const { neutral, lit, layered, toldBy } = apart.value;
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
  const summary = summaryOf(summariseMap(map, depthsOf(lines)), camera);
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
    toldBy,
    coarse: part === 'crown' ? COARSE : null,
    lined: part === 'shell' || part === 'thrust',
    clippedPercent: share(seen.clipped) * 100,
    dark: darkShare(seen.light.data, seen.there),
    proposed: options.cornersProposed ?? false,
    otherWay:
      part === 'bore' || part === 'thrust' || part === 'crown'
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

/** Crowns were trained on studio pictures only; of 20 that were not among them nearly half of the grades were wrong. So they are read and not graded. */
const COARSE = {
  keeps: 0.35,
  words:
    'Crowns are told only coarsely (of deposit by some ten points; lacquer all over, peppering and strikes may pass unseen): grade it by eye.',
} as const;

/** Of a round flat face what lies in the corners of its square is not unseen: there is no face. */
const summaryOf = (summary: WearSummary, { spanDeg }: CameraModel): WearSummary =>
  spanDeg === 0 ? { ...summary, seenPercent: Math.min(100, summary.seenPercent / (Math.PI / 4)) } : summary;

function overParting(part: ReadPart, picture: Pixels, corners: readonly Point[], { light, there }: Seen): number | null {
  const beside = part === 'shell' ? partingLight(picture, corners) : null;
  const face = light.data.filter((_, i) => there[i] === 1);
  return beside === null || face.length === 0 ? null : quantile(face, 0.85) - beside;
}

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
