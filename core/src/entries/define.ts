import type { EngineLayout } from '../engine/layout.js';
import type { Problem } from '../kit/result.js';
import type { Schema } from '../kit/schema.js';
import type { Author } from '../ledger/entry.js';
import type { Slot, Sourced } from '../ledger/state.js';

/** What an entry meets when it is admitted: the engine, what its place holds, and what only the case as a whole can say. */
export interface Standing {
  readonly station: string | null;
  readonly layout: EngineLayout | null;
  /** Who writes; null where nobody in particular does, as in a case file. */
  readonly author: Author | null;
  /** Versions of a field of the entry's own place. */
  slot(name: string): Slot;
  /** Has a step of the strip been done? */
  stripStarted(): boolean;
  /** Why the case cannot be let go; empty when it can. Runs the differential. */
  releaseBlocks(): readonly string[];
}

/** All there is to know of a kind of entry; the fold, the schema, the view, the ledger page and the documents follow from it. */
export interface EntryDefinition<K extends string, B extends object, C extends object, S extends object> {
  readonly kind: K;
  /** What it is called in the ledger, in a word or two. */
  readonly name: string;
  /** What it records, for the format's documentation. */
  readonly says: string;
  readonly body: Schema<B>;
  /** Whether it belongs to a station, to the case as a whole, or to either. */
  readonly stands: 'case' | 'station' | 'either';
  /** The field it writes. Two entries on different slots commute; on the same slot the later must know the earlier. */
  readonly slot: (body: B) => string;
  /** The entry in one line of words; `nameOf` gives the name of another kind. */
  readonly tell: (body: B, nameOf: (kind: string) => string) => string;
  /** What the engine and the case say against it, beyond its schema; null: nothing. */
  readonly admit?: (body: B, at: Standing) => Problem | null;
  /** Written by the server alone, beside something it stores. */
  readonly byServer?: true;
  /** Carries the case or binds a signature, and so is never struck. */
  readonly stays?: true;
  /** What the current values, oldest first, add to the view of the case, when they stand there. */
  readonly ofCase?: (all: ReadonlyArray<Sourced<B>>) => C;
  /** The same for the view of a station. */
  readonly ofStation?: (all: ReadonlyArray<Sourced<B>>) => S;
}

// With the defaults an absent view adds nothing.
export function defineEntry<const K extends string, B extends object, C extends object = object, S extends object = object>(
  definition: EntryDefinition<K, B, C, S>,
): EntryDefinition<K, B, C, S> {
  // An entry without content is none: the schema of an object lets nothing at all pass unless it is told.
  return { ...definition, body: definition.body.required() as Schema<B> };
}

/** Values by what they are about; of two about one thing the later stands. */
export function by<B, K>(all: ReadonlyArray<Sourced<B>>, keyOf: (body: B) => K): ReadonlyMap<K, Sourced<B>> {
  return new Map(all.map((s) => [keyOf(s.value), s]));
}

/** Values by the picture they are about. */
export function byPicture<B extends { readonly sha256: string }>(all: ReadonlyArray<Sourced<B>>): Readonly<Record<string, Sourced<B>>> {
  return Object.fromEntries(all.map((s) => [s.value.sha256, s]));
}

/** The value, unless another shop wrote it: it decides nothing here. */
export function ours<T>(value: Sourced<T> | undefined): Sourced<T> | undefined {
  return value?.version.author.shop === undefined ? value : undefined;
}

/** ` – reason` in the manner of the ledger: after a colon, and nothing where nothing was said. */
export function because(reason: string, sign = ': '): string {
  return reason ? `${sign}${reason}` : '';
}

/** A word of a list as it is read aloud. */
export function spoken(word: string): string {
  return word.replace('-', ' ');
}

/** Does a figure follow from what was typed? */
export function follows(a: number | null, b: number | null): boolean {
  return a === null || b === null ? a === b : Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));
}

/** Refusal of a figure that is not what was typed. */
export function mismatch(typed: string): Problem {
  return { code: 'value-text', sentence: `The value does not follow from "${typed.slice(0, 40)}". Nothing was recorded.`, field: 'value' };
}
