import type { StationView } from '@true-ledger/core/case';
import { useEffect, useRef, useState } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useAppDispatch } from '../../app/store.js';
import { addFiles } from '../../capture/queue.js';
import type { MadeSurface } from '../../workers/film.worker.js';

/** The shot a made surface is filed as: it is no picture somebody took. */
const MADE_SHOT = 'made from a film';
const MADE_NAME: Readonly<Record<MadeSurface['told']['kind'], string>> = { turn: 'all-round', drawn: 'wall', lamp: 'without-glare' };

/** Files a made surface as a picture, and once it has arrived where it lies and what was read on it. */
export function useKeepMade(
  station: StationView,
  onDone: () => void,
): { readonly waiting: boolean; readonly start: (made: MadeSurface) => void } {
  const { caseId, me } = useCase();
  const dispatch = useAppDispatch();
  const record = useRecord();
  const [made, setMade] = useState<MadeSurface | null>(null);
  const recorded = useRef(false);
  const { id } = station.station;
  const arrived = made !== null && station.photos.some((p) => p.value.sha256 === made.sha256);
  useEffect(() => {
    if (!made || !arrived || recorded.current) return;
    recorded.current = true;
    const { sha256, read, corners, turn } = made;
    record({ kind: 'corners-set', station: id, body: { sha256, corners, ...turn } }, { kind: 'surface-read', station: id, body: read });
    onDone();
  }, [made, arrived, id, record, onDone]);
  return {
    waiting: made !== null,
    start: (next) => {
      setMade(next);
      const name = `${id}-${MADE_NAME[next.told.kind]}.png`;
      void dispatch(addFiles(caseId, [{ blob: next.png, name, station: id, kind: 'photo', shot: MADE_SHOT }], me));
    },
  };
}
