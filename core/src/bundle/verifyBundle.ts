import { unzipSync } from 'fflate';
import { canonicalJson, entryFault, FIRST_PREV, sha256Hex, type LedgerEntry } from '../ledger/entry.js';
import type { EntryBodies } from '../ledger/bodies.js';
import { emptyCase, foldEntries } from '../ledger/state.js';
import { caseView } from '../ledger/views.js';
import { fail, ok, type Result } from '../result.js';
import { caseFileOf } from './caseFile.js';
import { readingsCsv } from '../measure/program/readingsCsv.js';
import { findingsCsv } from './csv.js';

export const BUNDLE_LIMITS = { files: 5000, bytes: 4 * 1024 ** 3, file: 128 * 1024 ** 2 } as const;

export type BundleFiles = Readonly<Record<string, Uint8Array>>;

const SAFE_NAME =
  /^(case\.json|ledger\.jsonl|measurements\.csv|findings\.csv|report\.pdf|photos\/[0-9a-f]{64}\.(jpg|png|webp|heic)|clips\/[0-9a-f]{64}\.[a-z0-9]{2,4})$/;

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
        if (!SAFE_NAME.test(file.name)) refusal ??= `it holds "${file.name.slice(0, 80)}", which does not belong in a bundle`;
        else if (file.originalSize > BUNDLE_LIMITS.file)
          refusal ??= `"${file.name}" unpacks to more than ${BUNDLE_LIMITS.file / 1024 ** 2} MB`;
        else if (count > BUNDLE_LIMITS.files || total > BUNDLE_LIMITS.bytes) refusal ??= 'it unpacks to more than a case can hold';
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
  readonly broken?: { readonly seq: number; readonly id: string | null; readonly reason: string };
  /** Files that do not agree with the ledger. */
  readonly disagreements: readonly string[];
}

/** Verifies a bundle offline: the chain entry by entry, every photograph against its entry, and the derived files against the fold of the ledger. */
export function verifyBundle(files: BundleFiles): BundleVerdict {
  const text = (name: string): string | null => (files[name] ? new TextDecoder().decode(files[name]) : null);
  const ledger = text('ledger.jsonl');
  if (ledger === null) return { ok: false, entries: 0, head: FIRST_PREV, photos: 0, disagreements: ['ledger.jsonl is missing'] };
  const lines = ledger.split('\n').filter((line) => line !== '');
  const entries: LedgerEntry[] = [];
  let prev = FIRST_PREV;
  let photos = 0;
  for (const [index, line] of lines.entries()) {
    const seq = index + 1;
    let entry: LedgerEntry;
    try {
      entry = JSON.parse(line) as LedgerEntry;
    } catch {
      const id = /"id":"([^"]{1,80})"/.exec(line)?.[1] ?? null;
      return {
        ok: false,
        entries: lines.length,
        head: prev,
        photos,
        broken: { seq, id, reason: 'its line is not readable' },
        disagreements: [],
      };
    }
    let reason: string | null;
    try {
      reason = entryFault(entry, prev, seq);
    } catch {
      reason = 'its shape is not that of an entry';
    }
    if (!reason && (entry.kind === 'photo-added' || entry.kind === 'clip-added') && entry.body) {
      const file = files[mediaName(entry.kind, entry.body as EntryBodies['photo-added'])];
      const what = entry.kind === 'photo-added' ? 'picture' : 'clip';
      if (!file) reason = `its ${what} is missing from the bundle`;
      else if (sha256Hex(file) !== (entry.body as EntryBodies['photo-added']).sha256)
        reason = `its ${what} is not the one that was recorded`;
      else if (what === 'picture') photos++;
    }
    if (reason)
      return {
        ok: false,
        entries: lines.length,
        head: prev,
        photos,
        broken: { seq, id: typeof entry?.id === 'string' ? entry.id : null, reason },
        disagreements: [],
      };
    entries.push(entry);
    prev = entry.hash;
  }
  const disagreements = derivedFaults(entries, text);
  return { ok: disagreements.length === 0, entries: entries.length, head: prev, photos, disagreements };
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
export function mediaName(kind: 'photo-added' | 'clip-added', body: { readonly sha256: string; readonly mime: string }): string {
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
