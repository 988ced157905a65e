import { classifierOf, type Classifier, type KeptClassifier } from './classifier.js';
import { SHELL } from './models/shell.js';

const KEPT = { shell: SHELL } as const satisfies Readonly<Record<string, KeptClassifier>>;

/** Parts whose surface is told apart by a trained classifier. */
export type ClassifiedPart = keyof typeof KEPT;

const ready = new Map<ClassifiedPart, Classifier>();

/** The classifier of a part, taken apart once. */
export function classifierFor(part: ClassifiedPart): Classifier {
  const held = ready.get(part) ?? classifierOf(KEPT[part]);
  ready.set(part, held);
  return held;
}

/** Is the surface of this part told apart by a trained classifier? */
export const isClassified = (part: string): part is ClassifiedPart => Object.hasOwn(KEPT, part);
