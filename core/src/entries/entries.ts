import { makeFold, type SlotGroup, type Sourced } from '../ledger/state.js';
import type { EntryDefinition } from './define.js';
import { ENTRY_DEFINITIONS } from './registry.js';

type Definition = (typeof ENTRY_DEFINITIONS)[number];
type BodyOf<D> = D extends EntryDefinition<infer _K, infer B, infer _C, infer _S> ? B : never;
type Together<U> = (U extends unknown ? (u: U) => void : never) extends (all: infer I) => void ? I : never;
type CasePart<D> = D extends { readonly ofCase?: (all: never) => infer C } ? C : never;
type StationPart<D> = D extends { readonly ofStation?: (all: never) => infer S } ? S : never;
type Flat<T> = { readonly [K in keyof T]: T[K] };

/** The name of a kind of entry, as it stands in the ledger. */
export type EntryKind = Definition['kind'];
/** What each kind of entry carries. */
export type EntryBodies = { readonly [D in Definition as D['kind']]: BodyOf<D> };
/** The content of an entry of any kind. */
export type EntryBody = EntryBodies[EntryKind];

/** What the entries of a case add to its view, and those of a station to the station's. */
export type CaseRecord = Flat<Together<CasePart<Definition>>>;
export type StationRecord = Flat<Together<StationPart<Definition>>>;

/** A definition whose body is not known by type. */
export type AnyDefinition = EntryDefinition<EntryKind, object, object, object>;

const BY_KIND = new Map<string, AnyDefinition>((ENTRY_DEFINITIONS as unknown as readonly AnyDefinition[]).map((d) => [d.kind, d]));

const SHOWING = {
  ofCase: [...BY_KIND.values()].filter((d) => d.ofCase),
  ofStation: [...BY_KIND.values()].filter((d) => d.ofStation),
};

/** Every kind of entry this version knows. */
export const ENTRY_KINDS: readonly EntryKind[] = ENTRY_DEFINITIONS.map((d) => d.kind);

/** The definition of a kind; undefined for a kind that is not known here. */
export function entryDefinition(kind: string): AnyDefinition | undefined {
  return BY_KIND.get(kind);
}

/** Name of a kind in words; the kind itself where it is not known here. */
export function entryName(kind: string): string {
  return BY_KIND.get(kind)?.name ?? kind;
}

/** An entry in one line of words. */
export function entryWords(kind: string, body: object | null): string {
  return body === null ? '(struck)' : (BY_KIND.get(kind)?.tell(body, entryName) ?? '');
}

/** The field an entry writes. Two entries on different slots commute; on the same slot the later must know the earlier. */
export function slotOf(kind: string, body: object): string {
  return BY_KIND.get(kind)?.slot(body) ?? `${kind}:unknown`;
}

export const { applyEntry, applyDraft, draftConflict, foldEntries } = makeFold(slotOf);

/** What the kinds make of the current values in the fields of the case, or of a station. */
export function recordOf(group: SlotGroup, of: 'ofCase'): CaseRecord;
export function recordOf(group: SlotGroup, of: 'ofStation'): StationRecord;
export function recordOf(group: SlotGroup, of: 'ofCase' | 'ofStation'): object {
  const current = new Map<string, Array<Sourced<object>>>();
  for (const slot of Object.values(group)) {
    const version = slot.at(-1);
    if (!version) continue;
    const all = current.get(version.kind);
    const sourced = { value: version.body, version };
    if (all) all.push(sourced);
    else current.set(version.kind, [sourced]);
  }
  const record: object = {};
  for (const definition of SHOWING[of]) {
    const all = current.get(definition.kind) ?? [];
    Object.assign(record, definition[of]?.(all.sort((a, b) => a.version.seq - b.version.seq)));
  }
  return record;
}
