import { Button, Progress } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { sizeFromFrame, USUAL_TURN, WHOLE_TURN, type Point, type Turn } from '@true-ledger/core/photo';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { fetchFile } from '../../app/server.js';
import { useAppDispatch } from '../../app/store.js';
import { addFiles } from '../../capture/queue.js';
import { closeFilm, MOST_SECONDS, openFilm, useFilm, type OpenFilm } from '../../workers/film.js';
import type { MadeSurface } from '../../workers/film.worker.js';
import { CornerEditor } from './CornerEditor.js';
import './station.css';

/** The shot a made surface is filed as: it is no picture somebody took. */
const MADE_SHOT = 'made from a film';

interface Props {
  readonly station: StationView;
  /** SHA-256 of the film. */
  readonly film: string;
  readonly onClose: () => void;
}

/** A film of a turned journal becomes its surface all round: corners in the first frame, the turn followed, the surface shown before it is kept. */
export function FilmPanel({ station, film: sha256, onClose }: Props): ReactNode {
  const { caseId } = useCase();
  const { film, problem } = useOpenFilm(`/api/cases/${caseId}/clips/${sha256}`);
  const taking = useFilm();
  const keep = useKeepMade(station, onClose);
  const [placed, setPlaced] = useState<{ readonly corners: readonly Point[]; readonly turn: Turn } | null>(null);
  const { surface: frame } = station.station;
  if (!frame) return null;
  return (
    <section className="film-panel" aria-label="Unroll the film">
      <h3>
        Unroll the film{' '}
        <Button size="small" type="text" onClick={onClose}>
          Close
        </Button>
      </h3>
      {problem && (
        <p className="fault" role="alert">
          {problem}
        </p>
      )}
      {!film && !problem && <p className="quiet">Opening the film …</p>}
      {film && !taking.busy && !taking.made && (
        <>
          <p className="quiet">
            This is its first frame. Put the corners on the journal; it is followed from there through{' '}
            {film.seconds > MOST_SECONDS ? `the first ${MOST_SECONDS} s; what comes later is not read` : `${film.seconds.toFixed(0)} s`}.
            The phone should stay, the crank turn a little more than once.
          </p>
          <CornerEditor
            src={film.first}
            size={film}
            corners={placed?.corners}
            part="journal"
            turn={placed?.turn ?? USUAL_TURN}
            act="Unroll"
            onKeep={(corners, turn) => {
              setPlaced({ corners, turn });
              taking.start(film, { corners, radiusMm: sizeFromFrame('journal', frame).radiusMm, facingDeg: turn.facingDeg }, frame);
            }}
            onCancel={onClose}
          />
        </>
      )}
      {taking.busy && (
        <div role="status">
          <div className="row">
            <Progress percent={Math.round(taking.busy.done * 100)} size="small" style={{ flex: 1 }} />
            <Button size="small" onClick={taking.cancel}>
              Stop
            </Button>
          </div>
          <p className="quiet">
            {taking.busy.what}
            {taking.busy.progress && (
              <>
                : turned <b className="figure">{Math.round(taking.busy.progress.turnedDeg)}°</b>,{' '}
                {taking.busy.progress.missingDeg > 0 ? (
                  <>
                    <b className="figure">{Math.round(taking.busy.progress.missingDeg)}°</b> to go
                  </>
                ) : (
                  'all round'
                )}
                {!taking.busy.progress.followed && '; the surface shows little to follow here'}
              </>
            )}
          </p>
        </div>
      )}
      {taking.problem && (
        <p className="fault" role="alert">
          {taking.problem.sentence}
        </p>
      )}
      {taking.made && <Made made={taking.made} kept={keep.waiting} onKeep={() => keep.start(taking.made!)} onAgain={taking.cancel} />}
    </section>
  );
}

/** The surface that was made, before it is kept. */
function Made({
  made,
  kept,
  onKeep,
  onAgain,
}: {
  readonly made: MadeSurface;
  readonly kept: boolean;
  readonly onKeep: () => void;
  readonly onAgain: () => void;
}): ReactNode {
  const [src, setSrc] = useState('');
  useEffect(() => {
    const url = URL.createObjectURL(made.png);
    setSrc(url);
    return () => URL.revokeObjectURL(url);
  }, [made]);
  const { read, closingErrorDeg } = made;
  return (
    <>
      {src && (
        <img className="made-surface" src={src} alt="The surface all round, front edge below" width={made.width} height={made.height} />
      )}
      <p>
        {closingErrorDeg === null ? (
          'The turn did not close on itself.'
        ) : (
          <>
            The turn closed <b className="figure">{Math.abs(closingErrorDeg).toFixed(1)}°</b> off and was made to meet.
          </>
        )}{' '}
        <b className="figure">{Math.round(made.seenDeg)}°</b> seen, read with confidence{' '}
        <b className="figure">{Math.round(read.confidence * 100)} %</b>. {read.doubts.join(' ')}
      </p>
      <div className="row">
        <Button type="primary" loading={kept} onClick={onKeep}>
          Keep this surface
        </Button>
        <Button disabled={kept} onClick={onAgain}>
          Place the corners again
        </Button>
        <span className="quiet">It is filed as made from a film; the film stays.</span>
      </div>
    </>
  );
}

function useOpenFilm(address: string): { readonly film: OpenFilm | null; readonly problem: string | null } {
  const [film, setFilm] = useState<OpenFilm | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    let opened: OpenFilm | null = null;
    const work = async (): Promise<void> => {
      const file = await fetchFile(address);
      if (!file.ok) throw new Error(file.problem.code);
      opened = await openFilm(file.value.blob);
      if (current) setFilm(opened);
      else closeFilm(opened);
    };
    work().catch(() => {
      if (current)
        setProblem(
          'The film cannot be played here, so it cannot be unrolled. It is kept as it is. Try another browser, or film it again in this page.',
        );
    });
    return () => {
      current = false;
      if (opened) closeFilm(opened);
    };
  }, [address]);
  return { film, problem };
}

/** Files a made surface as a picture, and once it has arrived where it lies and what was read on it. */
function useKeepMade(station: StationView, onDone: () => void): { readonly waiting: boolean; readonly start: (made: MadeSurface) => void } {
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
    const { width, height, sha256, read } = made;
    const corners: Point[] = [
      [0, height],
      [0, 0],
      [width, 0],
      [width, height],
    ];
    record(
      { kind: 'corners-set', station: id, body: { sha256, corners, ...WHOLE_TURN } },
      { kind: 'surface-read', station: id, body: read },
    );
    onDone();
  }, [made, arrived, id, record, onDone]);
  return {
    waiting: made !== null,
    start: (next) => {
      setMade(next);
      const name = `${id}-all-round.png`;
      void dispatch(addFiles(caseId, [{ blob: next.png, name, station: id, kind: 'photo', shot: MADE_SHOT }], me));
    },
  };
}
