import type { Feature } from '../cause/types.js';
import type { Reliability } from '../entries/registry.js';

/** Where a piece of evidence comes from, so that a screen can open it. */
interface EvidenceSource {
  readonly station: string | null;
  readonly entry: string | null;
  readonly words: string;
}

export interface EvidenceItem {
  readonly feature: Feature;
  readonly present: boolean;
  readonly reliability: Reliability | 'certain' | 'silent' | 'open' | 'likened';
  /** Of a silence only: chance that it is there all the same and nobody said so. */
  readonly missed?: number;
  /** Of a spread over open places only: shares of the placements in which it is there and in which it is not. */
  readonly placed?: { readonly there: number; readonly not: number };
  /** Of a likeness only: how much likelier it is where the feature is as said than where it is not. */
  readonly likelihoodRatio?: number;
  readonly sources: readonly EvidenceSource[];
}

/** Takes in what was observed of a feature, with where it comes from. */
export type Put = (
  id: string,
  present: boolean,
  reliability: EvidenceItem['reliability'],
  source: EvidenceSource,
  how?: Pick<EvidenceItem, 'missed' | 'placed' | 'likelihoodRatio'>,
) => void;
