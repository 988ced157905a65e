import type { PartClass } from '../../engine/stations.js';
import type { WearClass } from '../classes.js';

/** Where on its face a pattern sits. */
type PatternPlace =
  | 'loaded arc'
  | 'one edge'
  | 'both edges'
  | 'diagonal edges'
  | 'centre band'
  | 'parting line'
  | 'hole or groove'
  | 'one spot'
  | 'all round'
  | 'top'
  | 'middle height'
  | 'where liquid stood'
  | 'anywhere';

/** What a pattern leaves on the wear map, for ranking it against a surface. */
interface PatternSignature {
  /** Classes that carry it, the leading one first. */
  readonly classes: readonly WearClass[];
  /** Classes that speak against it when they are plain to see. */
  readonly not?: readonly WearClass[];
  readonly where: PatternPlace;
  readonly lines?: 'many' | 'few' | 'none';
  readonly specks?: boolean;
  /** Crazed or cracked network. */
  readonly network?: boolean;
  readonly half?: 'loaded' | 'both' | 'one';
}

/** A pattern that is mistaken for this one and the observation that decides between them. */
interface LookAlike {
  readonly pattern: string;
  readonly decides: string;
}

/**
 * What a pattern tells beyond its look, so that no list of patterns stands in the logic that asks.
 *
 * - `secondary`: left by carried metal, grit or ordinary wear; says nothing of where the failure began
 * - `sheds`: the bearing failed by itself and gives off metal
 * - `of starving`: what a shut feed does to the bearings beyond it
 * - `carried`: the oil carries it, so it is found anywhere behind its source
 * - `breaks up`: a part other than a bearing whose pieces go round with the oil
 * - `fouls the oil`: metal or grit went round, the oil system is opened and cleaned
 * - `moved in its housing`: the shell crept or turned
 * - `harmless`: the mark of a part that ran as it should
 * - `dry`, `metal across`, `coloured by heat`: what a short account lists it under
 */
export type PatternFact =
  | 'secondary'
  | 'sheds'
  | 'of starving'
  | 'carried'
  | 'breaks up'
  | 'fouls the oil'
  | 'moved in its housing'
  | 'harmless'
  | 'dry'
  | 'metal across'
  | 'coloured by heat';

/** A known damage pattern: what it looks like, what it is mistaken for and what decides. Terms follow ISO 7146-1 and ISO 15243 where they have one. */
export interface DamagePattern {
  readonly id: string;
  readonly name: string;
  readonly parts: readonly PartClass[];
  /** Evidence feature that this pattern sets. */
  readonly feature: string;
  readonly look: string;
  readonly signature: PatternSignature | null;
  readonly lookAlikes: readonly LookAlike[];
  readonly mechanism: string;
  /** First question to put to the engine. */
  readonly ask: string;
  /** Patterns it leads to next: at the same place, in the same cylinder, or where its metal is carried. Never back to itself. */
  readonly leadsTo: readonly string[];
  readonly facts: readonly PatternFact[];
  /** It shuts the feed: what lies beyond it on the oil route runs dry. */
  readonly starvesBeyond: boolean;
  /** A clue of time: it came before the others, while running, or at the last turn. */
  readonly when: 'first' | 'running' | 'last turn' | null;
  /** Other trade words, for search. */
  readonly alsoCalled: readonly string[];
}

interface Draft {
  readonly id: string;
  readonly name: string;
  readonly feature: string;
  readonly look: string;
  readonly why: string;
  readonly ask: string;
  readonly apart: Readonly<Record<string, string>>;
  readonly sign?: PatternSignature;
  readonly next?: readonly string[];
  readonly facts?: readonly PatternFact[];
  readonly starves?: boolean;
  readonly when?: DamagePattern['when'];
  readonly also?: readonly string[];
  readonly on?: readonly PartClass[];
}

/** Patterns of a family of parts from their drafts; a draft may name other parts than the family's. */
export function patternsOn(parts: readonly PartClass[], drafts: readonly Draft[]): DamagePattern[] {
  return drafts.map((d) => ({
    id: d.id,
    name: d.name,
    parts: d.on ?? parts,
    feature: d.feature,
    look: d.look,
    signature: d.sign ?? null,
    lookAlikes: Object.entries(d.apart).map(([pattern, decides]) => ({ pattern, decides })),
    mechanism: d.why,
    ask: d.ask,
    leadsTo: d.next ?? [],
    facts: d.facts ?? [],
    starvesBeyond: d.starves ?? false,
    when: d.when ?? null,
    alsoCalled: d.also ?? [],
  }));
}
