import { canonicalJson, sha256Hex } from '../kit/hash.js';
import { shapeFault } from './entrySchema.js';

/** Who writes; of another shop where `shop` says which. */
export interface Author {
  readonly id: string;
  readonly name: string;
  /** Shop where it was written, when that is not this one; such an author is nobody here. */
  readonly shop?: string;
}

/** What a hand sends: the observation, and the entry it believes is current for that field (`null` = believes the field is empty). */
export interface EntryDraft {
  readonly id: string;
  readonly kind: string;
  /** Station id, or null for what belongs to the case as a whole. */
  readonly station: string | null;
  readonly body: object;
  readonly basedOn: string | null;
}

/** One line of the ledger: never edited, never deleted. */
export interface LedgerEntry {
  readonly id: string;
  readonly caseId: string;
  /** 1, 2, 3 … without gaps, given by the server. */
  readonly seq: number;
  readonly kind: string;
  readonly station: string | null;
  readonly author: Author;
  readonly time: string;
  readonly supersedes: string | null;
  /** Content; null once redacted (the hash stays). */
  readonly body: object | null;
  readonly salt: string;
  /** SHA-256 of salt and canonical body. */
  readonly bodyHash: string;
  /** Hash of the entry before, 64 zeros for the first. */
  readonly prev: string;
  /** SHA-256 of the canonical metadata. */
  readonly hash: string;
}

/** A line as this shop keeps it: `origin` names the shop it was taken in from, absent for what was written here. No part of the chain. */
export interface KeptEntry extends LedgerEntry {
  readonly origin?: string;
}

/** The line of the chain alone, without what this shop keeps beside it. */
export function chainLine({ origin: _origin, ...line }: KeptEntry): LedgerEntry {
  return line;
}

/** Who wrote an entry, as this shop sees it: somebody of another shop is told apart in name and id, so that he is never taken for one of ours. */
export function authorOf({ author, origin }: Pick<KeptEntry, 'author' | 'origin'>): Author {
  return origin === undefined ? author : { id: `${origin}:${author.id}`, name: `${author.name} (${origin})`, shop: origin };
}

/** What stands before the first entry of a chain. */
export const FIRST_PREV = '0'.repeat(64);

/** Hash of a body: SHA-256 over `salt:` and its RFC 8785 form, so that short bodies cannot be guessed after redaction. */
function bodyHash(salt: string, body: unknown): string {
  return sha256Hex(`${salt}:${canonicalJson(body)}`);
}

/** Hash of an entry: SHA-256 over the RFC 8785 form of its metadata, the body hash and the previous hash. */
export function entryHash(entry: Omit<LedgerEntry, 'hash' | 'body' | 'salt'>): string {
  const { id, caseId, seq, kind, station, author, time, supersedes, bodyHash: content, prev } = entry;
  return sha256Hex(canonicalJson({ id, caseId, seq, kind, station, author, time, supersedes, bodyHash: content, prev }));
}

/** Seals a draft into a ledger entry: gives it its place, time and hashes. */
export function sealEntry(
  draft: EntryDraft,
  place: { caseId: string; seq: number; prev: string; time: string; salt: string; author: Author; supersedes: string | null },
): LedgerEntry {
  const bare = {
    id: draft.id,
    caseId: place.caseId,
    seq: place.seq,
    kind: draft.kind,
    station: draft.station,
    author: place.author,
    time: place.time,
    supersedes: place.supersedes,
    bodyHash: bodyHash(place.salt, draft.body),
    prev: place.prev,
  };
  return { ...bare, body: draft.body, salt: place.salt, hash: entryHash(bare) };
}

/** Does a chain hold, and if not, where it breaks. */
export interface ChainVerdict {
  readonly ok: boolean;
  readonly entries: number;
  readonly head: string;
  /** First entry that does not hold, and why. */
  readonly broken?: { readonly seq: number; readonly id: string; readonly reason: string };
}

/** Checks one entry against the one before; null when it holds. */
export function entryFault(entry: LedgerEntry, prev: string, seq: number): string | null {
  const shape = shapeFault(entry);
  if (shape) return shape;
  if (entry.seq !== seq) return `its number is ${entry.seq}, ${seq} was expected`;
  if (entry.prev !== prev) return 'it does not follow the entry before it';
  if (entry.body !== null && bodyHash(entry.salt, entry.body) !== entry.bodyHash) return 'its content is not what was recorded';
  if (entryHash(entry) !== entry.hash) return 'its details are not what was recorded';
  return null;
}

/** First entry whose content is gone although no redaction says so; content taken out on the way would leave the chain whole otherwise. */
export function unexplainedGap(entries: readonly LedgerEntry[]): LedgerEntry | null {
  const struck = new Set(entries.flatMap((e) => (e.kind === 'redacted' && e.body ? [(e.body as { target: string }).target] : [])));
  return entries.find((e) => e.body === null && !struck.has(e.id)) ?? null;
}

/** Why a chain with a number left out does not hold. */
export const GAP_REASON = 'its content is gone and no redaction says why';

/** Verifies a whole chain and names the first entry that does not hold. */
export function verifyChain(entries: readonly KeptEntry[]): ChainVerdict {
  let prev = FIRST_PREV;
  for (const [index, entry] of entries.entries()) {
    const reason = entryFault(chainLine(entry), prev, index + 1);
    if (reason) return { ok: false, entries: entries.length, head: prev, broken: { seq: index + 1, id: entry.id, reason } };
    prev = entry.hash;
  }
  const gap = unexplainedGap(entries);
  if (gap) return { ok: false, entries: entries.length, head: prev, broken: { seq: gap.seq, id: gap.id, reason: GAP_REASON } };
  return { ok: true, entries: entries.length, head: prev };
}
