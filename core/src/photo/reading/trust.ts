import type { WearSummary } from '../../damage/wearMap.js';
import type { Pixels } from '../flatten.js';
import type { CameraModel } from '../cameraModel.js';
import type { Neutral } from './light.js';

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
  readonly toldBy: 'classifier' | 'limits';
  /** Of parts that are told only coarsely: how much confidence that keeps, and what to say of it; null for the others. */
  readonly coarse: { readonly keeps: number; readonly words: string } | null;
  /** Shells and washers: their sound face has a colour of its own, and nothing beside it tells of it. */
  readonly lined: boolean;
  /** What most of the face shows, over the colour of white; and whether that was known from a card. */
  readonly tint: Neutral & { readonly known: boolean };
  /** How much brighter the bright part of a shell is than the darker of its parting faces, log of luminance; null for other parts and where they are not in the picture. */
  readonly overParting: number | null;
  readonly proposed: boolean;
  /** How much better the ends fit a part that is round the other way; null for flat ones. */
  readonly otherWay: { readonly hollow: boolean; readonly by: number } | null;
}

/** From where on the ends of a part speak for the other kind. Corners that a hand put a percent off bring a shell there too, so that it is only doubted. */
const OTHER_WAY = { hollow: 0.25, full: 0.15 } as const;

/** How a face is doubted by its pixels: below `under` a pixel could be something else, and where more than such a share could, confidence keeps so much. By classifier, and by how near a limit it lies. */
const OPEN = {
  classifier: {
    under: 0.6,
    keeps: [
      [0.3, 0.45],
      [0.18, 0.65],
      [0.09, 0.85],
    ],
  },
  limits: { under: 0.35, keeps: [[0.12, 0.8]] },
} as const;

/**
 * Beyond these, log red over green and green over blue, what most of a face shows is not sound metal in any usual light: 15 % of cast a channel and a warm lamp brought sound faces of both renderers to 0.18 and 0.24 at most, and
 * to −0.05 and −0.06 at least. Under a known white less is left to the light.
 */
const USUAL_TINT = {
  unknown: { warm: [0.27, 0.3], cold: [-0.07, -0.15] },
  known: { warm: [0.2, 0.2], cold: [-0.1, -0.12] },
} as const;

/** The whole face has the colour of heat: then nothing in it tells heat from the light. */
function isTinted({ redness, yellowness, known }: Standing['tint']): boolean {
  const { warm, cold } = USUAL_TINT[known ? 'known' : 'unknown'];
  return (redness > warm[0] && yellowness > warm[1]) || (redness < cold[0] && yellowness < cold[1]);
}

/** Sound, wiped and partly heated faces of both renderers lay at −0.5 and above, faces blackened all over at −1.5 and below. */
const BLACKENED = -0.8;

/** What the picture is worth for this reading. Each doubt takes its share of the confidence. */
export function trust(s: Standing): { doubts: string[]; confidence: number } {
  const doubts: string[] = [];
  let confidence = 0.95;
  const less = (factor: number, words: string): void => {
    confidence *= factor;
    doubts.push(words);
  };
  // A surface that fills its picture was made so: nothing lies beside it.
  const outline = outlineContrast(s.camera, s.picture) ?? 1;
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
  if (s.anchored < 0.15)
    less(
      s.toldBy === 'limits' ? 0.4 : 0.7,
      'Hardly any sound metal is left to judge the light by. A tag or card beside the part would settle it.',
    );
  else if (s.anchored < 0.5) less(s.toldBy === 'limits' ? 0.8 : 0.9, 'Little sound metal is left to judge the light by.');
  if (s.lined && s.toldBy === 'classifier' && isTinted(s.tint))
    less(
      0.3,
      'Most of the face has a colour that sound metal has in no usual light: it is heated or worn all over, or the light is strongly coloured. Take it again in daylight with a tag or card beside it, or grade it by hand.',
    );
  if (s.overParting !== null && s.overParting < BLACKENED)
    less(
      0.3,
      'The face is far darker than the bare steel of its parting faces: it is black all over, or lies in a shadow. Take it again with the light on it, or grade it by hand.',
    );
  if (s.coarse) less(s.coarse.keeps, s.coarse.words);
  if (s.proposed) less(0.8, 'The corners were found without help; look whether they lie on the face. Its border was not read.');
  if (s.pxPerMm < 8) less(0.75, `With ${s.pxPerMm.toFixed(1)} pixels a millimetre fine lines are lost.`);
  const { under, keeps } = OPEN[s.toldBy];
  let unsure = 0;
  for (const v of s.sure) if (v < under) unsure++;
  const open = unsure / Math.max(1, s.sure.length);
  const step = keeps.find(([from]) => open > from);
  if (step) less(step[1], `${(open * 100).toFixed(0)} % of the face could be something else than it is read as.`);
  return { doubts, confidence: Math.round(confidence * 100) / 100 };
}

/** Of a round flat face the rim lies in a circle in its square: a place of the square, as arc and axial share, for a half turn of it at the lower (axial under a half) or upper side. */
function onDisc(arc: number, axial: number): [number, number] {
  const r = Math.abs(axial - 0.5);
  const turn = (arc * Math.PI) / 180;
  return [180 * (0.5 - r * Math.cos(turn)), 0.5 + Math.sign(axial - 0.5) * r * Math.sin(turn)];
}

/** Share of places along front and rear rim at which the picture changes from inside to outside; null where the picture ends with the part. */
function outlineContrast(camera: CameraModel, picture: Pixels): number | null {
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
  const disc = camera.spanDeg === 0;
  for (const [inside, outside] of [
    [0.08, -0.09],
    [0.92, 1.09],
  ] as const)
    for (let arc = 12; arc <= 168; arc += 6) {
      const [a, b] = disc ? [look(...onDisc(arc, inside)), look(...onDisc(arc, outside))] : [look(arc, inside), look(arc, outside)];
      if (!a || !b) continue;
      looked++;
      if (Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > 26) changed++;
    }
  return looked === 0 ? null : changed / looked;
}
