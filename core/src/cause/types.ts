import type { PartClass } from '../engine/stations.js';
import type { EngineTag } from '../engine/tags.js';

/** How strongly a cause produces a feature, as a word; the figures are in `STRENGTH`. */
export type StrengthWord = 'almost always' | 'usually' | 'sometimes' | 'rarely';

export const STRENGTH: Readonly<Record<StrengthWord, number>> = { 'almost always': 0.9, usually: 0.65, sometimes: 0.35, rarely: 0.1 };

export interface CauseLink {
  readonly feature: string;
  readonly strength: StrengthWord;
  /** True when the cause prevents the feature instead of producing it. */
  readonly prevents: boolean;
  readonly reason: string;
}

export interface Cause {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  /** How it acts, the leading way first. */
  readonly mechanisms: readonly Mechanism[];
  /** Prior odds that this is at work in a failed engine of any kind, before evidence; per tag where the engine class matters. */
  readonly priorOdds: number;
  readonly priorOddsFor?: Readonly<Partial<Record<EngineTag, number>>>;
  readonly needs?: readonly EngineTag[];
  readonly place?: 'main' | 'cylinder';
  /** At a main, it acts on what that main feeds as well. */
  readonly downstream?: true;
  /** It stands for every cause without a record of its own. */
  readonly unlisted?: true;
  /** An engine with this and nothing else has not failed. */
  readonly ordinary?: true;
  /** It only passes on what another failure gave off: a mechanism that asks which part went first, never the answer. */
  readonly follows?: true;
  /** It stands for several small faults that have nothing to do with each other. */
  readonly several?: true;
  /** What the first start after the repair must look after. */
  readonly firstStart?: 'new cam' | 'cooling';
  readonly links: readonly CauseLink[];
  /** Where a kind of engine takes it otherwise: links that stand in place of those to the same features. */
  readonly linksFor?: Readonly<Partial<Record<EngineTag, readonly CauseLink[]>>>;
  /** Who is answerable when nothing else is known; kept apart from the cause. */
  readonly answerable: Answerable;
  /** It may lie in what stays in the car, as an oil cooler does: another engine need not end it. Of causes in the use nothing else is said. */
  readonly staysInCar?: true;
  /** What this cause does not do, in words. */
  readonly doesNot: string;
  readonly collateral: readonly string[];
  readonly actions: readonly string[];
}

/** A cause as its record states it. */
export interface OriginRecord extends Cause {
  /** How it shows in the checks before opening and while the engine is stripped. */
  readonly inOpening?: readonly CauseLink[];
}

/** Kept apart from the cause, each with its own evidence. */
export const ANSWERABLE = ['use', 'maker', 'earlier repair', 'supplier part', 'wear', 'not determined'] as const;
/** Who may answer for a failure, stated apart from its cause. */
export type Answerable = (typeof ANSWERABLE)[number];

export type Mechanism =
  | 'film starved'
  | 'particles between the surfaces'
  | 'film lost by thinning'
  | 'part overheated'
  | 'overload or fatigue'
  | 'edge loading'
  | 'corrosion'
  | 'clearance lost'
  | 'shell moved'
  | 'joint loose'
  | 'part broken and flailing'
  | 'combustion attack'
  | 'wash'
  | 'gas leak'
  | 'ordinary wear'
  | 'unknown';

export interface Feature {
  readonly id: string;
  readonly name: string;
  readonly kind: 'seen' | 'spread' | 'measured' | 'told' | 'fluid';
  /** Chance that it is there without any listed cause. */
  readonly leak: number;
  readonly leakReason: string;
  /** Features that measure the same thing share a group; only the strongest observed member weighs. */
  readonly group?: string;
  readonly needs?: readonly EngineTag[];
  /** Part classes whose examination decides a seen feature. */
  readonly parts?: readonly PartClass[];
  /** The stations where it lies, where its part classes hold more than those. */
  readonly lies?: readonly string[];
  /** Chance with which every cause that is not linked to the feature prevents it (a failure leaves *something* behind). */
  readonly othersPrevent?: number;
  /** Damage (true) or something that is as it should be. */
  readonly damage: boolean;
  readonly check: { readonly step: string; readonly minutes: number; readonly destroys?: string };
  /** It comes only where an engine was run on after it had failed: in one opened early its absence tells next to nothing. */
  readonly late?: true;
  /** Computed from pictures against what is predicted: it is asked for where that is done, and never certain. */
  readonly likened?: true;
  /** Reports of these are worth nothing where this was found: the level of oil that somebody put in afterwards. */
  readonly voids?: readonly string[];
  /** Of a neutral sight: the features it may be; its links follow from theirs. */
  readonly of?: readonly string[];
  /** Chance that one of these that is there shows as this sight. */
  readonly shows?: number;
}
