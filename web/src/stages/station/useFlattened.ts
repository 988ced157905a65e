import type { FlattenedShell, Problem, StationView } from '@true-ledger/core';
import { useEffect, useState } from 'react';
import { compute } from '../../workers/compute.js';

export interface Flattened {
  readonly sha256: string;
  readonly busy: boolean;
  readonly result: FlattenedShell | null;
  readonly problem: Problem | null;
}

const NONE: Flattened = { sha256: '', busy: false, result: null, problem: null };

/** The developed surface of the shown picture, when it is a shell and its corners are set. Computed in the worker. */
export function useFlattened(caseId: string, station: StationView, sha256: string | undefined): Flattened {
  const [state, setState] = useState<Flattened>(NONE);
  const corners = sha256 ? station.corners[sha256]?.value.corners : undefined;
  const photo = station.photos.find((p) => p.value.sha256 === sha256)?.value;
  const frame = station.station.part === 'shell' ? station.station.surface : null;
  useEffect(() => {
    if (!sha256 || !corners || !photo || !frame) {
      setState(NONE);
      return;
    }
    let current = true;
    setState({ sha256, busy: true, result: null, problem: null });
    const work = async (): Promise<void> => {
      const response = await fetch(`/api/cases/${caseId}/photos/${sha256}/work`);
      if (!response.ok) throw new Error('picture');
      const answer = await compute().flatten(
        await response.blob(),
        corners,
        { width: photo.width, height: photo.height },
        frame.widthMm / Math.PI,
        frame.heightMm,
      );
      if (current) setState({ sha256, busy: false, result: answer.ok ? answer.value : null, problem: answer.ok ? null : answer.problem });
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
        });
    });
    return () => {
      current = false;
    };
  }, [caseId, sha256, corners, photo, frame]);
  return state;
}
