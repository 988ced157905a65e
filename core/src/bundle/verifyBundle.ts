import { unzipSync } from 'fflate';
import { entryFault, FIRST_PREV, GAP_REASON, unexplainedGap, type LedgerEntry } from '../ledger/entry.js';
import { canonicalJson, sha256Hex } from '../kit/hash.js';
import { validateLayout } from '../engine/validate.js';
import { entryDefinition } from '../entries/entries.js';
import { type EntryBodies } from '../entries/entries.js';
import { emptyCase } from '../ledger/state.js';
import { foldEntries } from '../entries/entries.js';
import { caseView } from '../case/views.js';
import { fail, ok, type Result } from '../kit/result.js';
import { caseFileOf } from './caseFile/write.js';
import { readingsCsv } from '../measured/readingsCsv.js';
import { findingsCsv } from './csv.js';
import { sealVerdict, type SealVerdict } from './seal.js';

/** Files and unpacked bytes of a bundle; of one file; of the text files that are parsed; lines of its ledger. */
const BUNDLE_LIMITS = { files: 5000, bytes: 4 * 1024 ** 3, file: 128 * 1024 ** 2, text: 64 * 1024 ** 2, entries: 50_000 } as const;
const PARSED = /\.(jsonl?|csv)$/;

export type BundleFiles = Readonly<Record<string, Uint8Array>>;

const SAFE_NAME =
  /^(case\.json|seal\.json|ledger\.jsonl|measurements\.csv|findings\.csv|report\.pdf|accounts\/v[1-9]\d{0,2}\.pdf|photos\/[0-9a-f]{64}\.(jpg|png|webp|heic)|clips\/[0-9a-f]{64}\.[a-z0-9]{2,4})$/;

/** Why a file has no place in a bundle, before it is unpacked; null when it has. `count` and `total` include it. */
export function fileRefusal(name: string, size: number, count: number, total: number): string | null {
  if (!SAFE_NAME.test(name)) return `it holds "${name.slice(0, 80)}", which does not belong in a bundle`;
  const most = PARSED.test(name) ? BUNDLE_LIMITS.text : BUNDLE_LIMITS.file;
  if (size > most) return `"${name}" unpacks to more than ${most / 1024 ** 2} MB`;
  if (count > BUNDLE_LIMITS.files || total > BUNDLE_LIMITS.bytes) return 'it unpacks to more than a case can hold';
  return null;
}

/** Opens a bundle in memory. Unknown names, paths that climb, too many or too large files are refused before anything is unpacked. */
export function openBundle(bytes: Uint8Array): Result<BundleFiles> {
  let count = 0;
  let total = 0;
  let refusal: string | null = null;
  try {
    const files = unzipSync(bytes, {
      filter: (file) => {
        count++;
        total += file.originalSize;
        refusal ??= fileRefusal(file.name, file.originalSize, count, total);
        return refusal === null;
      },
    });
    if (refusal) return fail('bundle-refused', `The bundle was refused: ${refusal}. Nothing was unpacked.`);
    return ok(files);
  } catch {
    return fail('bundle-damaged', 'The bundle cannot be opened: the ZIP archive is damaged or is not one. Ask for it again.');
  }
}

export interface BundleVerdict {
  readonly ok: boolean;
  readonly entries: number;
  readonly head: string;
  readonly photos: number;
  /** First entry that does not hold. */
  readonly broken?: {
    readonly seq: number;
    readonly id: string | null;
    readonly reason: string;
    /** Its kind is not known here: the bundle comes from a newer version. */
    readonly newer?: true;
  };
  /** Files that do not agree with the ledger. */
  readonly disagreements: readonly string[];
  /** Whose key stands for the bundle as a whole; a bundle of an earlier version has none. */
  readonly seal: SealVerdict;
}

/** What a bundle holds, wherever it lies: its names, text files, and the SHA-256 of any (null: not there). */
export interface BundleContents {
  readonly names: readonly string[];
  text(name: string): string | null;
  sha256(name: string): string | null;
}

export interface ReadBundle {
  readonly verdict: BundleVerdict;
  /** The entries as far as they hold. */
  readonly entries: readonly LedgerEntry[];
}

/** Verifies a bundle offline: the chain entry by entry, every photograph and signed account against its entry, and the derived files against the fold of the ledger. */
export function verifyBundle(files: BundleFiles): BundleVerdict {
  return readBundleFiles(files).verdict;
}

/** The same with the entries, as far as they hold. */
export function readBundleFiles(files: BundleFiles): ReadBundle {
  return readBundle({
    names: Object.keys(files),
    text: (name) => (files[name] ? new TextDecoder().decode(files[name]) : null),
    sha256: (name) => (files[name] ? sha256Hex(files[name]) : null),
  });
}

/** What the schema of its kind says against the content of an entry; it is folded only when nothing does. */
function contentFault({ kind, body }: LedgerEntry): string | null {
  if (body === null) return null;
  const error = entryDefinition(kind)?.body.validate(body, { abortEarly: true, convert: false }).error;
  if (error) return `it does not hold what its kind needs: ${error.details[0]?.message ?? 'another shape'}`;
  const contradiction = kind === 'layout-set' ? validateLayout((body as EntryBodies['layout-set']).layout)[0] : undefined;
  return contradiction ? `its engine contradicts itself: ${contradiction.sentence}` : null;
}

/** The file an entry stands for; null for those that stand for none. */
export function fileOf(entry: LedgerEntry): { readonly name: string; readonly sha256: string; readonly what: string } | null {
  if (!entry.body) return null;
  if (entry.kind === 'photo-added' || entry.kind === 'clip-added') {
    const body = entry.body as EntryBodies['photo-added'];
    return { name: mediaName(entry.kind, body), sha256: body.sha256, what: entry.kind === 'photo-added' ? 'picture' : 'clip' };
  }
  if (entry.kind === 'account-signed') {
    const body = entry.body as EntryBodies['account-signed'];
    return { name: `accounts/v${body.version}.pdf`, sha256: body.sha256, what: 'signed account' };
  }
  return null;
}

/** Reads and verifies the contents of a bundle. */
export function readBundle(contents: BundleContents): ReadBundle {
  const ledger = contents.text('ledger.jsonl');
  if (ledger === null)
    return {
      verdict: { ok: false, entries: 0, head: FIRST_PREV, photos: 0, disagreements: ['ledger.jsonl is missing'], seal: { state: 'none' } },
      entries: [],
    };
  const lines = ledger.split('\n').filter((line) => line !== '');
  const entries: LedgerEntry[] = [];
  let prev = FIRST_PREV;
  let photos = 0;
  const signedVersions = new Set<string>();
  const broken = (seq: number, id: string | null, reason: string, newer = false): ReadBundle => ({
    verdict: {
      ok: false,
      entries: lines.length,
      head: prev,
      photos,
      broken: { seq, id, reason, ...(newer ? { newer: true as const } : {}) },
      disagreements: [],
      seal: { state: 'none' },
    },
    entries,
  });
  if (lines.length > BUNDLE_LIMITS.entries)
    return broken(BUNDLE_LIMITS.entries + 1, null, `a ledger of more than ${BUNDLE_LIMITS.entries} entries is not read`);
  for (const [index, line] of lines.entries()) {
    const seq = index + 1;
    let entry: LedgerEntry;
    try {
      entry = JSON.parse(line) as LedgerEntry;
    } catch {
      return broken(seq, /"id":"([^"]{1,80})"/.exec(line)?.[1] ?? null, 'its line is not readable');
    }
    let reason: string | null;
    try {
      reason = entryFault(entry, prev, seq);
      if (!reason && !entryDefinition(entry.kind))
        return broken(seq, String(entry.id), `its kind ("${String(entry.kind).slice(0, 40)}") is not known here`, true);
      reason ??= contentFault(entry);
      const file = reason ? null : fileOf(entry);
      if (file && file.what === 'signed account' && signedVersions.has(file.name)) reason = 'its version was signed before';
      else if (file) {
        if (file.what === 'signed account') signedVersions.add(file.name);
        const held = contents.sha256(file.name);
        if (held === null) reason = `its ${file.what} is missing from the bundle`;
        else if (held !== file.sha256) reason = `its ${file.what} is not the one that was recorded`;
        else if (file.what === 'picture') photos++;
      }
    } catch {
      reason = 'its shape is not that of an entry';
    }
    if (reason) return broken(seq, typeof entry?.id === 'string' ? entry.id : null, reason);
    entries.push(entry);
    prev = entry.hash;
  }
  const gap = unexplainedGap(entries);
  if (gap) return broken(gap.seq, gap.id, GAP_REASON);
  const chain = { caseId: entries[0]?.caseId ?? '', entries: entries.length, head: prev };
  const seal = sealVerdict(contents.text('seal.json'), chain, contents.names, (name) => contents.sha256(name));
  const disagreements = [...derivedFaults(entries, (name) => contents.text(name)), ...(seal.state === 'broken' ? [seal.reason] : [])];
  return { verdict: { ok: disagreements.length === 0, entries: entries.length, head: prev, photos, disagreements, seal }, entries };
}

const EXTENSION: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/heic': 'heic',
  'audio/webm': 'webm',
  'video/webm': 'webm',
  'audio/ogg': 'ogg',
  'audio/mpeg': 'mp3',
  'audio/mp4': 'm4a',
  'video/mp4': 'mp4',
  'video/quicktime': 'mov',
  'audio/wav': 'wav',
};

/** Name of a picture or clip inside a bundle. */
function mediaName(kind: 'photo-added' | 'clip-added', body: { readonly sha256: string; readonly mime: string }): string {
  return `${kind === 'photo-added' ? 'photos' : 'clips'}/${body.sha256}.${EXTENSION[body.mime] ?? 'bin'}`;
}

function derivedFaults(entries: readonly LedgerEntry[], text: (name: string) => string | null): string[] {
  const faults: string[] = [];
  const state = foldEntries(emptyCase(entries[0]?.caseId ?? ''), entries);
  const view = caseView(state);
  const held = text('case.json');
  if (held === null) faults.push('case.json is missing');
  else {
    try {
      const parsed: unknown = JSON.parse(held);
      if (!view || canonicalJson(parsed) !== canonicalJson(JSON.parse(JSON.stringify(caseFileOf(state, view)))))
        faults.push('case.json does not agree with the ledger');
    } catch {
      faults.push('case.json is not readable');
    }
  }
  if (view) {
    if (text('measurements.csv') !== readingsCsv(view)) faults.push('measurements.csv does not agree with the ledger');
    if (text('findings.csv') !== findingsCsv(view)) faults.push('findings.csv does not agree with the ledger');
  }
  return faults;
}
