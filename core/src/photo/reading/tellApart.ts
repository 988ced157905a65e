import { fail, ok, type Result } from '../../kit/result.js';
import type { CameraModel } from '../cameraModel.js';
import type { Developed, Pixels } from '../flatten.js';
import { classifierFor, isClassified, isSurrounded, type ClassifiedPart } from '../segment/classifiers.js';
import { segment, type Setting } from '../segment/segment.js';
import { surroundingsOf, type Surroundings } from '../segment/surroundings.js';
import type { SurfaceSize } from './cameraModelOf.js';
import { correctIllumination, referenceMask, referenceMaskOutside, type Lit } from './illumination.js';
import { boxMean, field, maskWhere } from './field.js';
import { readJournalLayers } from './journalLayers.js';
import { layerAt, type Layered } from './layer.js';
import { readLayers } from './layers.js';
import { neutralColour, type Neutral, type Seen } from './light.js';
import type { ReadPart } from './readParts.js';
import { printedLayer, readStreakLayers } from './streakLayers.js';

/** Least share of a face whose colour is that of bare metal. */
const LEAST_NEUTRAL = 0.05;

const FACE_WORDS: Readonly<Record<ReadPart, string>> = {
  shell: 'shell',
  journal: 'journal',
  skirt: 'piston',
  bore: 'bore',
  thrust: 'thrust washer',
  crown: 'crown',
};

/** A developed surface told apart into layers, with what its light was taken from. */
interface ToldApart {
  readonly neutral: Neutral & { readonly share: number };
  readonly lit: Lit;
  readonly layered: Layered;
  readonly toldBy: 'classifier' | 'limits';
}

/** What lies round a surface, for parts that are told apart by it; null for a surface that was made of a film, round which nothing lies. */
export const surroundingsIn = (part: ReadPart, camera: CameraModel, picture: Pixels, { arcDeg }: SurfaceSize): Surroundings | null =>
  isClassified(part) && isSurrounded(part) && arcDeg === undefined ? surroundingsOf(camera, picture) : null;

/** Is a surface told apart by the classifier of its part? Not one that should be told by its surroundings and has none. */
const byClassifier = (part: ReadPart, { surroundings }: Setting): part is ClassifiedPart =>
  isClassified(part) && (!isSurrounded(part) || surroundings !== null);

/** Tells the layers of a developed surface apart, by the classifier of its part where there is one. */
export function tellApart(part: ReadPart, flat: Developed, seen: Seen, scale: number, setting: Setting): Result<ToldApart> {
  const neutral = neutralOf(part, seen, setting);
  if (!neutral)
    return fail(
      'picture-no-metal',
      `No bare metal is found between the corners. Is this the running face of a ${FACE_WORDS[part]}? If nothing sound is left of it, grade it by hand. Nothing was graded.`,
      'corners',
    );
  const lit = litOf(part, seen, neutral);
  const toldBy = byClassifier(part, setting) ? 'classifier' : 'limits';
  const layered = byClassifier(part, setting)
    ? segment(classifierFor(part), flat, seen, lit, scale, setting)
    : layersOf(part, seen, lit, scale);
  if (toldBy === 'classifier') takeBackWhatIsNone(part, layered, seen, lit, scale);
  return ok({ neutral, lit, layered, toldBy });
}

/** What a classifier takes for damage and is none: a printed coating, however dark and streaked it looks; metal smeared on where by limits there is none near. A classifier sees bronze where a bench is mirrored, limits do not; they miss some of it. */
function takeBackWhatIsNone(part: ReadPart, layered: Layered, seen: Seen, lit: Lit, pxPerMm: number): void {
  if (part === 'skirt')
    takeBack(
      layered,
      'scuffed',
      printedLayer(seen, pxPerMm).map((p) => (p === 1 ? 1 : 0)),
      seen,
    );
  if (part === 'journal') takeBack(layered, 'transfer', farFromTransfer(seen, lit, pxPerMm), seen);
}

/** How near to what limits take for smeared metal a classifier is believed, mm. */
const NEAR_MM = 1.5;

/** 1 where by limits no metal is smeared on near. */
function farFromTransfer(seen: Seen, lit: Lit, pxPerMm: number): Uint8Array {
  const { layer } = readJournalLayers(seen, lit, pxPerMm);
  const transfer = field(lit.shade.width, lit.shade.height);
  const at = layerAt('transfer');
  for (let i = 0; i < layer.length; i++) if (layer[i] === at) transfer.data[i] = 1;
  const r = Math.max(1, Math.round(NEAR_MM * pxPerMm));
  return maskWhere(boxMean(transfer, r, r).data, (v) => !(v > 0));
}

/** Makes a class sound where a mask says so, in the layers and in the chances. */
function takeBack({ layer, chances }: Layered, name: 'scuffed' | 'transfer', none: Uint8Array, seen: Seen): void {
  const { width, height } = seen.light;
  const [sound, wrong] = [layerAt('sound'), layerAt(name)];
  for (let i = 0; i < layer.length; i++) if (none[i] === 1 && layer[i] === wrong) layer[i] = sound;
  const [to, from] = [chances?.planes[chances.classes.indexOf('sound')], chances?.planes[chances.classes.indexOf(name)]];
  if (!chances || !to || !from) return;
  for (let k = 0; k < from.length; k++) {
    const x = Math.min(width - 1, Math.floor((((k % chances.width) + 0.5) * width) / chances.width));
    const y = Math.min(height - 1, Math.floor(((Math.floor(k / chances.width) + 0.5) * height) / chances.height));
    if (none[y * width + x] !== 1) continue;
    to[k]! += from[k]!;
    from[k] = 0;
  }
}

/** Colour of bare metal in this light: the commonest near grey, white where that is known and metal is hardly seen; where neither is, what lies beyond the ends of a part of one metal. Null for none. */
function neutralOf(part: ReadPart, seen: Seen, setting: Setting): ToldApart['neutral'] | null {
  const mode = neutralColour(seen);
  const { white, surroundings } = setting;
  if (white && (!mode || mode.share < 0.2)) return { ...white, share: Math.max(LEAST_NEUTRAL, mode?.share ?? 0) };
  if (mode && mode.share >= LEAST_NEUTRAL) return mode;
  const beyond = surroundings?.beyond;
  return part === 'journal' && beyond ? { redness: beyond.redness, yellowness: beyond.yellowness, share: LEAST_NEUTRAL } : null;
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
