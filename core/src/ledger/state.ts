import { slotOf, type EntryBodies, type EntryBody, type EntryKind } from './bodies.js';
import type { Author, EntryDraft, KeptEntry, LedgerEntry } from './entry.js';
import { authorOf, FIRST_PREV } from './entry.js';

/** One live value of a field and who wrote it when. */
export interface SlotVersion {
  readonly entry: string;
  readonly seq: number;
  readonly kind: EntryKind;
  readonly body: EntryBody;
  readonly author: Author;
  readonly time: string;
}

/** Values of one field, oldest first; the last is current. A retracted value is gone from here (never from the ledger). */
export type Slot = readonly SlotVersion[];
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

/** A member an object was given, never one that every object has: slots and stations are names people send. */
function member<T>(record: Readonly<Record<string, T>> | undefined, key: string): T | undefined {
  return record !== undefined && Object.hasOwn(record, key) ? record[key] : undefined;
}

export function emptyCase(caseId: string): CaseState {
  return { caseId, seq: 0, head: FIRST_PREV, groups: {} };
}

type Applicable = Pick<LedgerEntry, 'id' | 'kind' | 'station' | 'author' | 'time'> & {
  readonly body: EntryBody | null;
  readonly seq: number;
  readonly hash: string;
} & Pick<KeptEntry, 'origin'>;

function nextSlot(slot: Slot, entry: Applicable): Slot {
  if (entry.body === null) return slot;
  if (entry.kind === 'retracted') {
    const { target } = entry.body as EntryBodies['retracted'];
    return slot.filter((version) => version.entry !== target);
  }
  const { id, seq, kind, body, time } = entry;
  return [...slot, { entry: id, seq, kind, body, author: authorOf(entry), time }];
}

/** Groups without the value a redaction struck; a fold over the redacted ledger never had it. */
function struck(groups: CaseState['groups'], { target, slot, station }: EntryBodies['redacted']): CaseState['groups'] {
  const key = station ?? '';
  const group = member(groups, key);
  const held = member(group, slot);
  const kept = held?.filter((version) => version.entry !== target);
  if (!group || !held || !kept || kept.length === held.length) return groups;
  const { [slot]: _struck, ...rest } = group;
  const next = kept.length > 0 ? { ...rest, [slot]: kept } : rest;
  if (Object.keys(next).length > 0) return { ...groups, [key]: next };
  const { [key]: _empty, ...others } = groups;
  return others;
}

/** The one reducer: state after one more entry. Pure; shares everything the entry does not touch. */
export function applyEntry(state: CaseState, entry: Applicable): CaseState {
  const head = { caseId: state.caseId, seq: entry.seq, head: entry.hash };
  if (entry.body === null) return { ...head, groups: state.groups };
  if (entry.kind === 'redacted') state = { ...state, groups: struck(state.groups, entry.body as EntryBodies['redacted']) };
  const key = entry.station ?? '';
  const slotKey = slotOf(entry.kind, entry.body);
  const group = member(state.groups, key) ?? {};
  const slot = nextSlot(member(group, slotKey) ?? [], entry);
  if (slot.length > 0) return { ...head, groups: { ...state.groups, [key]: { ...group, [slotKey]: slot } } };
  const { [slotKey]: _gone, ...rest } = group;
  return { ...head, groups: { ...state.groups, [key]: rest } };
}

/** Folds many entries onto a state; the same rule as `applyEntry`, copying each touched group once instead of at every entry. */
export function foldEntries(start: CaseState, entries: readonly Applicable[]): CaseState {
  let groups: Record<string, SlotGroup> = { ...start.groups };
  const own = new Map<string, Record<string, Slot>>();
  let seq = start.seq;
  let head = start.head;
  for (const entry of entries) {
    seq = entry.seq;
    head = entry.hash;
    if (entry.body === null) continue;
    if (entry.kind === 'redacted') {
      groups = { ...struck(groups, entry.body as EntryBodies['redacted']) };
      own.clear();
    }
    const key = entry.station ?? '';
    let group = own.get(key);
    if (!group) {
      group = { ...member(groups, key) };
      own.set(key, group);
      groups[key] = group;
    }
    const slotKey = slotOf(entry.kind, entry.body);
    const slot = nextSlot(member(group, slotKey) ?? [], entry);
    if (slot.length > 0) group[slotKey] = slot;
    else delete group[slotKey];
  }
  return { caseId: start.caseId, seq, head, groups };
}

/** Current version of a field, or undefined when nothing is written there. */
export function currentVersion(state: CaseState, station: string | null, slot: string): SlotVersion | undefined {
  return member(member(state.groups, station ?? ''), slot)?.at(-1);
}

/** Applies a draft that the server has not numbered yet, so that the hand sees its effect at once. */
export function applyDraft(state: CaseState, draft: EntryDraft, author: Author, time: string): CaseState {
  const next = applyEntry(state, { ...draft, author, time, seq: state.seq + 1, hash: state.head });
  return { ...next, seq: state.seq };
}

export interface SlotConflict {
  readonly slot: string;
  readonly station: string | null;
  readonly current: SlotVersion | null;
}

/** Does the draft rest on what the field holds now? Null when it does. */
export function draftConflict(state: CaseState, draft: EntryDraft): SlotConflict | null {
  const slot = slotOf(draft.kind, draft.body);
  const current = currentVersion(state, draft.station, slot);
  const expected = draft.kind === 'retracted' ? (draft.body as EntryBodies['retracted']).target : draft.basedOn;
  return (current?.entry ?? null) === expected ? null : { slot, station: draft.station, current: current ?? null };
}
