import { type LedgerEntry } from '../ledger/entry.js';
import { canonicalJson, sha256Hex } from '../kit/hash.js';
import { fail, ok, type Result } from '../kit/result.js';
import { keyFingerprint, statementHolds } from './seal.js';

/** What a daily seal is signed as, so that a signature made for another purpose never stands for one. */
export const DAILY_SEAL = 'true-ledger/daily-seal';

/** Where every ledger of a shop stood on a day, and the seal before: whoever holds one can tell that nothing before it was rewritten or cut off. */
export interface DailyStatement {
  /** ISO date. */
  readonly day: string;
  /** Public key of the shop, hex. */
  readonly key: string;
  /** SHA-256 of the canonical statement of the seal before; null for the first. */
  readonly before: string | null;
  readonly cases: ReadonlyArray<{ readonly id: string; readonly seq: number; readonly head: string }>;
}

/** A statement of one day signed by the shop: head of every ledger, and the seal of the day before. */
export interface DailySeal {
  readonly statement: DailyStatement;
  /** Ed25519 over the RFC 8785 form of the statement, hex. */
  readonly signature: string;
}

/** SHA-256 of the canonical JSON (RFC 8785) of a statement, hex: what the next day names and what is time-stamped. */
export const statementHash = (statement: DailyStatement): string => sha256Hex(canonicalJson(statement));

/** The seal as plain text, to be printed, mailed or pinned to a wall; `parseDailySeal` reads it back. */
export function dailySealText({ statement: s, signature }: DailySeal): string {
  return [
    'True Ledger, daily seal',
    `Day        ${s.day}`,
    `Key        ${s.key}`,
    `Fingerprint ${keyFingerprint(s.key)}`,
    `Before     ${s.before ?? 'none'}`,
    ...s.cases.map((c) => `Case       ${c.id} ${c.seq} ${c.head}`),
    `Signature  ${signature}`,
    '',
    'Kept outside the shop, this proves that the first so many entries of each case were these: the head of a bundle must pass through it.',
    '',
  ].join('\n');
}

/** Reads a seal from its text and checks its signature. */
export function parseDailySeal(text: string): Result<DailySeal> {
  if (text.length > 4_000_000) return fail('seal', 'The seal is longer than any is. Nothing was read.');
  const value = (name: string): string | null => new RegExp(`^${name} +(\\S+)\\s*$`, 'm').exec(text)?.[1] ?? null;
  const [day, key, before, signature] = ['Day', 'Key', 'Before', 'Signature'].map(value);
  const cases = [...text.matchAll(/^Case +([0-9a-f-]{36}) (\d{1,8}) ([0-9a-f]{64})\s*$/gm)].map(([, id = '', seq, head = '']) => ({
    id,
    seq: Number(seq),
    head,
  }));
  if (!day || !key || !before || !signature)
    return fail('seal', 'This is no daily seal: day, key, the seal before or the signature is missing.');
  const statement: DailyStatement = { day, key, before: before === 'none' ? null : before, cases };
  if (!statementHolds(DAILY_SEAL, statement, signature, key))
    return fail('seal', 'The seal is not signed by the key it names: something in it was changed.');
  return ok({ statement, signature });
}

export type SealedChain =
  | { readonly state: 'passes'; readonly seq: number; readonly day: string }
  | { readonly state: 'not-in-seal'; readonly day: string }
  | { readonly state: 'cut-off'; readonly seq: number; readonly day: string }
  | { readonly state: 'rewritten'; readonly seq: number; readonly day: string };

/** Does a chain, itself verified, pass through what a seal said of its case? */
export function chainAgainstSeal(
  entries: ReadonlyArray<Pick<LedgerEntry, 'caseId' | 'seq' | 'hash'>>,
  { statement }: DailySeal,
): SealedChain {
  const { day } = statement;
  const sealed = statement.cases.find((c) => c.id === entries[0]?.caseId);
  if (!sealed) return { state: 'not-in-seal', day };
  const there = entries[sealed.seq - 1];
  if (!there) return { state: 'cut-off', seq: sealed.seq, day };
  return { state: there.hash === sealed.head ? 'passes' : 'rewritten', seq: sealed.seq, day };
}
