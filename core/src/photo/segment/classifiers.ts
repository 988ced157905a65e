import { classifierOf, type Classifier, type KeptClassifier } from './classifier.js';
import { SCENE_FEATURES } from '../outline/sceneFeatures.js';
import { FEATURE_NAMES, SURROUNDED_FEATURES } from './pixelFeatures.js';
import { CROWN } from './models/crown.js';
import { JOURNAL } from './models/journal.js';
import { JOURNAL_SCENE } from './models/journalScene.js';
import { SHELL } from './models/shell.js';
import { SHELL_SCENE } from './models/shellScene.js';
import { SKIRT } from './models/skirt.js';
import { THRUST } from './models/thrust.js';

const KEPT = { shell: SHELL, journal: JOURNAL, skirt: SKIRT, crown: CROWN, thrust: THRUST } as const satisfies Readonly<
  Record<string, KeptClassifier>
>;

/** Parts whose classifier is also told what lies round the surface: metal that mirrors its bench. */
export const isSurrounded = (part: ClassifiedPart): boolean => part !== 'shell';

/** Parts whose surface is told apart by a trained classifier. */
export type ClassifiedPart = keyof typeof KEPT;

const ready = new Map<ClassifiedPart, Classifier>();

/** The classifier of a part, taken apart once. */
export function classifierFor(part: ClassifiedPart): Classifier {
  const held = ready.get(part) ?? classifierOf(KEPT[part], (isSurrounded(part) ? SURROUNDED_FEATURES : FEATURE_NAMES).length);
  ready.set(part, held);
  return held;
}

const SCENES = { shell: SHELL_SCENE, journal: JOURNAL_SCENE } as const satisfies Readonly<Record<string, KeptClassifier>>;

const readyScenes = new Map<keyof typeof SCENES, Classifier>();

/** The classifier that tells the surface of a part from what lies beside it in a whole picture. */
export function sceneClassifierFor(part: keyof typeof SCENES): Classifier {
  const held = readyScenes.get(part) ?? classifierOf(SCENES[part], SCENE_FEATURES.length);
  readyScenes.set(part, held);
  return held;
}

/** Is the surface of this part told apart by a trained classifier? */
export const isClassified = (part: string): part is ClassifiedPart => Object.hasOwn(KEPT, part);
