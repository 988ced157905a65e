import { nullable, object, text, id, type Held } from '../kit/schema.js';
import type { Author, EntryDraft, KeptEntry, LedgerEntry } from './entry.js';
import { authorOf, FIRST_PREV } from './entry.js';

/** The two kinds of entry the ledger itself knows: one takes an entry back, one strikes its content. */
export const RETRACTED = 'retracted';
/** Kind of the entry that strikes the content of another. */
export const REDACTED = 'redacted';

/** Body of a taking back. */
export const retractionSchema = object({ target: id, slot: text(160).invalid(''), reason: text(500) });
type Retraction = Held<typeof retractionSchema>;

/** Body of a striking. */
export const redactionSchema = object({
  target: id,
  kind: text(40),
  slot: text(300),
  station: nullable(text(80)),
  reason: text(500).invalid('').min(3),
});
type Redaction = Held<typeof redactionSchema>;

/** One live value of a field and who wrote it when. */
export interface SlotVersion {
  readonly entry: string;
  readonly seq: number;
  readonly kind: string;
  readonly body: object;
  readonly author: Author;
  readonly time: string;
}

/** A current value with the entry behind it. */
export interface Sourced<T> {
  readonly value: T;
  readonly version: SlotVersion;
}

/** Values of one field, oldest first; the last is current. A retracted value is gone from here (never from the ledger). */
export type Slot = readonly SlotVersion[];
/** Fields of one place by name. */
export type SlotGroup = Readonly<Record<string, Slot>>;

/**
 * A case as the fold of its ledger: fields grouped by station, `''` for the case as a whole. Groups untouched by an entry keep their identity,
 * so everything derived from one can be cached against it.
 */
export interface CaseState {
  readonly caseId: string;
  readonly seq: number;
  readonly head: string;
  readonly groups: Readonly<Record<string, SlotGroup>>;
}

/** What the fold needs of an entry. */
type Applicable = Pick<LedgerEntry, 'id' | 'kind' | 'station' | 'author' | 'time' | 'body' | 'seq' | 'hash'> & Pick<KeptEntry, 'origin'>;

/** The field an entry of a kind writes. */
export type SlotOf = (kind: string, body: object) => string;

/** A member an object was given, never one that every object has: slots and stations are names people send. */
function member<T>(record: Readonly<Record<string, T>> | undefined, key: string): T | undefined {
  return record !== undefined && Object.hasOwn(record, key) ? record[key] : undefined;
}

/** A case in which nothing is written. */
export function emptyCase(caseId: string): CaseState {
  return { caseId, seq: 0, head: FIRST_PREV, groups: {} };
}

/** Values of a field, oldest first; empty when nothing is written there. */
export function versionsOf(state: CaseState, station: string | null, slot: string): Slot {
  return member(member(state.groups, station ?? ''), slot) ?? [];
}

/** Current version of a field, or undefined when nothing is written there. */
export function currentVersion(state: CaseState, station: string | null, slot: string): SlotVersion | undefined {
  return versionsOf(state, station, slot).at(-1);
}

function nextSlot(slot: Slot, { id, seq, kind, body, time, author, origin }: Applicable & { readonly body: object }): Slot {
  if (kind === RETRACTED) return slot.filter((version) => version.entry !== (body as Retraction).target);
  return [...slot, { entry: id, seq, kind, body, author: authorOf(origin === undefined ? { author } : { author, origin }), time }];
}

/** A field that was written meanwhile. */
export interface SlotConflict {
  readonly slot: string;
  readonly station: string | null;
  readonly current: SlotVersion | null;
}

/** The fold of a ledger, once its fields are known. */
export interface Fold {
  /** State after these entries. Pure; shares every group no entry touches, and copies each touched one once. */
  readonly foldEntries: (start: CaseState, entries: readonly Applicable[]) => CaseState;
  /** State after one more entry. */
  readonly applyEntry: (state: CaseState, entry: Applicable) => CaseState;
  /** Applies a draft that the server has not numbered yet, so that the hand sees its effect at once. */
  readonly applyDraft: (state: CaseState, draft: EntryDraft, author: Author, time: string) => CaseState;
  /** Does the draft rest on what the field holds now? Null when it does. */
  readonly draftConflict: (state: CaseState, draft: EntryDraft) => SlotConflict | null;
}

/** The one fold, for entries whose fields `slotOf` names. */
export function makeFold(slotOf: SlotOf): Fold {
  const foldEntries: Fold['foldEntries'] = (start, entries) => {
    const groups: Record<string, SlotGroup> = { ...start.groups };
    const own = new Map<string, Record<string, Slot>>();
    let { seq, head } = start;
    const write = (place: string, slot: string, versions: Slot): void => {
      let group = own.get(place);
      if (!group) {
        group = { ...member(groups, place) };
        own.set(place, group);
        groups[place] = group;
      }
      if (versions.length > 0) group[slot] = versions;
      else delete group[slot];
    };
    const held = (place: string, slot: string): Slot => member(member(groups, place), slot) ?? [];
    for (const entry of entries) {
      ({ seq, hash: head } = entry);
      const { body } = entry;
      if (body === null) continue;
      if (entry.kind === REDACTED) {
        // A fold over the redacted ledger never had the value, nor a group that held nothing else.
        const { target, slot, station } = body as Redaction;
        const place = station ?? '';
        const before = held(place, slot);
        const kept = before.filter((version) => version.entry !== target);
        if (kept.length < before.length) {
          write(place, slot, kept);
          if (Object.keys(groups[place]!).length === 0) {
            delete groups[place];
            own.delete(place);
          }
        }
      }
      const place = entry.station ?? '';
      const slot = slotOf(entry.kind, body);
      write(place, slot, nextSlot(held(place, slot), { ...entry, body }));
    }
    return { caseId: start.caseId, seq, head, groups };
  };
  const applyEntry: Fold['applyEntry'] = (state, entry) => foldEntries(state, [entry]);
  return {
    foldEntries,
    applyEntry,
    applyDraft: (state, draft, author, time) => {
      const next = applyEntry(state, { ...draft, author, time, seq: state.seq + 1, hash: state.head });
      return { ...next, seq: state.seq };
    },
    draftConflict: (state, draft) => {
      const slot = slotOf(draft.kind, draft.body);
      const current = currentVersion(state, draft.station, slot);
      const expected = draft.kind === RETRACTED ? (draft.body as Retraction).target : draft.basedOn;
      return (current?.entry ?? null) === expected ? null : { slot, station: draft.station, current: current ?? null };
    },
  };
}
