import { shellConstructionAt } from '@true-ledger/core/engine';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { StationView } from '@true-ledger/core/case';
import {
  isFlattened,
  isGuessedTwice,
  isRead,
  turnSaid,
  type Point,
  type ReadPicture,
  type StagePicture,
  type Turn,
} from '@true-ledger/core/photo';
import { useState } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import type { Observation } from '../../app/outboxState.js';
import { fetchFile } from '../../app/server.js';
import { usePictureReader, type PictureReader } from '../../workers/reading.js';

/** What the ledger holds of the picture that is shown at a place. */
export interface ShownPicture {
  readonly photo: EntryBodies['photo-added'];
  readonly corners: readonly Point[] | undefined;
  readonly turn: Turn;
  /** Whether somebody said so, or it is only the usual one. */
  readonly turnTold: boolean;
  readonly tag: EntryBodies['tag-read'] | undefined;
  readonly blur: EntryBodies['blur-set'] | undefined;
  /** How it was read last. */
  readonly read: EntryBodies['surface-read'] | undefined;
}

/** The picture of this hash with all that is known of it; null where this place has no such picture. */
export function shownPicture(station: StationView, sha256: string | null): ShownPicture | null {
  const photo = station.photos.find((p) => p.value.sha256 === sha256)?.value;
  if (!photo) return null;
  const placed = station.corners[photo.sha256]?.value;
  return {
    photo,
    corners: placed?.corners,
    turn: turnSaid(placed),
    turnTold: placed?.facingDeg !== undefined,
    tag: station.tags[photo.sha256]?.value,
    blur: station.blurs[photo.sha256]?.value,
    read: station.reads.find((r) => r.value.sha256 === photo.sha256)?.value,
  };
}

/** Address of a rendition of a picture. */
export const pictureUrl = (caseId: string, sha256: string, size: 'work' | 'thumb'): string =>
  `/api/cases/${caseId}/photos/${sha256}/${size}`;

/** Entries that take a picture from a place; what was read in it goes with it. */
export function takenAway(station: StationView, sha256: string): Observation[] {
  const reason = 'filed wrongly';
  const held = station.photos.find((p) => p.value.sha256 === sha256);
  const read = station.reads.find((r) => r.value.sha256 === sha256);
  return [
    ...(held ? [{ target: held.version.entry, slot: `photo:${sha256}`, reason }] : []),
    ...(read ? [{ target: read.version.entry, slot: `surface:${sha256}`, reason }] : []),
  ].map((body) => ({ kind: 'retracted' as const, station: station.station.id, body }));
}

/** Reads the shown picture in a worker. */
export interface ShownReader extends PictureReader {
  /** Records the reading, with the corners where it found them itself. */
  readonly read: () => void;
  /** The same between the corners of the other guess where the part lies; null where none was found since the page was opened, or they were moved by hand. */
  readonly readOther: (() => void) | null;
  /** Records nothing and hands out the picture of every stage. */
  readonly explain: (show: (stages: readonly StagePicture[]) => void) => void;
}

export function useReadPicture(station: StationView, shown: ShownPicture | null): ShownReader {
  const { caseId, view } = useCase();
  const record = useRecord();
  const reader = usePictureReader();
  const { id, part, surface: frame } = station.station;
  const [guessed, setGuessed] = useState<{ readonly sha256: string; readonly guess: 1 | 2; readonly corners: readonly Point[] } | null>(
    null,
  );
  const start = (explain: boolean, guess: 1 | 2 | null, done: Parameters<PictureReader['start']>[2]): void => {
    if (!shown || !frame || !isRead(part)) return;
    const { photo, corners, turn, turnTold } = shown;
    reader.start(
      async () => {
        const file = await fetchFile(pictureUrl(caseId, photo.sha256, 'work'));
        if (!file.ok) throw new Error(file.problem.code);
        return file.value.blob;
      },
      {
        sha256: photo.sha256,
        corners: guess ? null : (corners ?? null),
        ...(guess ? { guess } : {}),
        original: { width: photo.width, height: photo.height },
        part,
        frame,
        turn: turnTold ? turn : null,
        construction: shellConstructionAt(view.layout, id),
        explain,
      },
      done,
    );
  };
  const recordIt = (answer: ReadPicture, guess: 1 | 2): void => {
    if (answer.cornersFound) setGuessed({ sha256: answer.read.sha256, guess, corners: answer.corners });
    record(
      ...(answer.cornersFound
        ? [{ kind: 'corners-set' as const, station: id, body: { sha256: answer.read.sha256, corners: answer.corners } }]
        : []),
      { kind: 'surface-read', station: id, body: answer.read },
    );
  };
  const read = (): void => start(false, null, (answer) => recordIt(answer, 1));
  const other = guessed?.guess === 1 ? 2 : 1;
  // Corners that somebody moved since are his.
  const stands = guessed?.sha256 === shown?.photo.sha256 && JSON.stringify(guessed?.corners) === JSON.stringify(shown?.corners);
  const readOther =
    guessed && stands && isFlattened(part) && isGuessedTwice(part)
      ? (): void => start(false, other, (answer) => recordIt(answer, other))
      : null;
  const explain = (show: (stages: readonly StagePicture[]) => void): void => start(true, null, (_, stages) => show(stages));
  return { ...reader, read, readOther, explain };
}
