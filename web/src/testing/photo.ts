import type { EntryBodies } from '@true-ledger/core/entries';

/** A filed picture, for a test: only its hash and size matter. */
export function photo(sha256: string, more: Partial<EntryBodies['photo-added']> = {}): EntryBodies['photo-added'] {
  return {
    sha256,
    name: `${sha256.slice(0, 4)}.jpg`,
    mime: 'image/jpeg',
    bytes: 1000,
    width: 800,
    height: 600,
    takenAt: null,
    standIn: false,
    ...more,
  };
}
