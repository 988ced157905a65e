import type { Refusal } from '@true-ledger/contract';
import type { StationView } from '@true-ledger/core/case';
import { isFlattened, turnSaid, USUAL_TURN, type Developed, type Turn } from '@true-ledger/core/photo';
import { useEffect, useMemo, useState } from 'react';
import { compute } from '../../workers/compute.js';
import { fetchFile } from '../../app/server.js';

export interface Flattened {
  readonly sha256: string;
  readonly busy: boolean;
  readonly result: Developed | null;
  readonly problem: Refusal | null;
  readonly turn: Turn;
}

const NONE: Flattened = { sha256: '', busy: false, result: null, problem: null, turn: USUAL_TURN };

/** One object for as long as what is in it stays the same: what was said here comes back from the server, and a place from each fold, as another one. */
function useSame<T>(value: T): T {
  const words = value === undefined || value === null ? '' : JSON.stringify(value);
  return useMemo(() => (words === '' ? value : (JSON.parse(words) as T)), [words]);
}

/** The developed surface of the shown picture, when its part can be flattened and its corners are set. Computed in the worker. */
export function useFlattened(caseId: string, station: StationView, sha256: string | undefined): Flattened {
  const [state, setState] = useState<Flattened>(NONE);
  const body = useSame(sha256 ? station.corners[sha256]?.value : undefined);
  const photo = useSame(station.photos.find((p) => p.value.sha256 === sha256)?.value);
  const frame = useSame(station.station.surface);
  const { part } = station.station;
  useEffect(() => {
    if (!sha256 || !body || !photo || !frame || !isFlattened(part)) {
      setState(NONE);
      return;
    }
    let current = true;
    const turn = turnSaid(body);
    setState({ sha256, busy: true, result: null, problem: null, turn });
    const work = async (): Promise<void> => {
      const file = await fetchFile(`/api/cases/${caseId}/photos/${sha256}/work`);
      if (!file.ok) throw new Error(file.problem.code);
      const answer = await compute().flatten(
        file.value.blob,
        body.corners,
        { width: photo.width, height: photo.height },
        part,
        frame,
        turn,
      );
      if (current)
        setState({ sha256, busy: false, result: answer.ok ? answer.value : null, problem: answer.ok ? null : answer.problem, turn });
    };
    work().catch(() => {
      if (current)
        setState({
          sha256,
          busy: false,
          result: null,
          problem: {
            code: 'picture',
            sentence: 'The picture could not be fetched for flattening. It is stored; try again when the server answers.',
          },
          turn,
        });
    });
    return () => {
      current = false;
    };
  }, [caseId, sha256, body, photo, frame, part]);
  return state;
}
