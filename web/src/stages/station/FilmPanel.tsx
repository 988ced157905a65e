import { Button, Progress, Radio } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { shellConstructionAt } from '@true-ledger/core/engine';
import { isRead, sizeFromFrame, USUAL_TURN, type Point, type ReadPart, type Turn } from '@true-ledger/core/photo';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { fetchFile } from '../../app/server.js';
import { useAppDispatch } from '../../app/store.js';
import { addFiles } from '../../capture/queue.js';
import { closeFilm, MOST_SECONDS, openFilm, useFilm, useFoundCorners, type OpenFilm } from '../../workers/film.js';
import type { FilmProgress, FilmTask, MadeSurface } from '../../workers/film.worker.js';
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

/** A film of a turned journal becomes its surface all round, a film of a part over which a lamp is led its picture without glare: corners in the first frame, how far it is, what was made shown before it is kept. */
export function FilmPanel({ station, film: sha256, onClose }: Props): ReactNode {
  const { caseId, view } = useCase();
  const { film, problem } = useOpenFilm(`/api/cases/${caseId}/clips/${sha256}`);
  const taking = useFilm();
  const keep = useKeepMade(station, onClose);
  const [placed, setPlaced] = useState<{ readonly corners: readonly Point[]; readonly turn: Turn } | null>(null);
  const { surface: frame, part } = station.station;
  const [byHand, setByHand] = useState(false);
  const looked = useFoundCorners(film, isRead(part) ? part : null);
  const found = byHand ? null : looked;
  const [way, setWay] = useState<FilmTask['kind']>(part === 'journal' ? 'turn' : 'lamp');
  if (!frame || !isRead(part)) return null;
  return (
    <section className="film-panel" aria-label="Read the film">
      <h3>
        Read the film{' '}
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
      {film && found === undefined && (
        <div className="row" role="status">
          <span className="quiet">Looking for the part …</span>
          <Button size="small" onClick={() => setByHand(true)}>
            Place the corners myself
          </Button>
        </div>
      )}
      {film && found !== undefined && !taking.busy && !taking.made && (
        <>
          {part === 'journal' && (
            <Radio.Group
              aria-label="How the film was taken"
              value={way}
              onChange={(e) => setWay(e.target.value as FilmTask['kind'])}
              options={[
                { value: 'turn', label: 'The crank was turned' },
                { value: 'lamp', label: 'The lamp was led over it' },
              ]}
            />
          )}
          <p className="quiet">
            This is its first frame. {found ? 'The corners were found: look whether they sit on the' : 'Put the corners on the'}{' '}
            {FACE_NOUN[part]}; it is looked at from there through{' '}
            {film.seconds > MOST_SECONDS ? `the first ${MOST_SECONDS} s; what comes later is not read` : `${film.seconds.toFixed(0)} s`}.{' '}
            {way === 'turn'
              ? 'The phone should stay, the crank turn a little more than once.'
              : 'Part and phone should stay; the lamp should go over the face from side to side and from end to end. Glare wanders with it, colour stays.'}
          </p>
          <CornerEditor
            src={film.first}
            size={film}
            corners={placed?.corners ?? found ?? undefined}
            part={part}
            turn={placed?.turn ?? USUAL_TURN}
            act={way === 'turn' ? 'Unroll' : 'Take the glare out'}
            onKeep={(corners, turn) => {
              setPlaced({ corners, turn });
              const size = sizeFromFrame(part, frame, turn);
              taking.start(
                film,
                way === 'turn'
                  ? { kind: 'turn', corners, radiusMm: size.radiusMm, facingDeg: turn.facingDeg }
                  : { kind: 'lamp', corners, part, size, turn, construction: shellConstructionAt(view.layout, station.station.id) },
                frame,
              );
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
            {taking.busy.progress && <Progressed so={taking.busy.progress} />}
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

/** How far a film is taken in, in its own terms. */
function Progressed({ so }: { readonly so: FilmProgress }): ReactNode {
  if (so.kind === 'lamp')
    return (
      <>
        : <b className="figure">{so.laid}</b> frames
        {so.lost > 0 && (
          <>
            , <b className="figure">{so.lost}</b> could not be laid over the first
          </>
        )}
      </>
    );
  return (
    <>
      : turned <b className="figure">{Math.round(so.turnedDeg)}°</b>,{' '}
      {so.missingDeg > 0 ? (
        <>
          <b className="figure">{Math.round(so.missingDeg)}°</b> to go
        </>
      ) : (
        'all round'
      )}
      {!so.followed && '; the surface shows little to follow here'}
    </>
  );
}

const FACE_NOUN: Readonly<Record<ReadPart, string>> = {
  shell: 'half shell',
  journal: 'journal',
  skirt: 'skirt',
  bore: 'strip of the bore',
  thrust: 'thrust face',
};

/** What was made of the film, before it is kept. */
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
  const src = useObjectUrl(made.png);
  const { read, told } = made;
  const relief = useObjectUrl(told.kind === 'lamp' ? told.relief : null);
  return (
    <>
      {src && (
        <img
          className="made-surface"
          src={src}
          alt={told.kind === 'turn' ? 'The surface all round, front edge below' : 'The part without glare'}
          width={made.width}
          height={made.height}
        />
      )}
      {relief && <img className="made-surface" src={relief} alt="Relief of its face by the shading, front edge below" />}
      <p>
        {told.kind === 'turn' ? <TurnTold told={told} /> : <LampTold told={told} />} Its reading has a confidence of{' '}
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

function TurnTold({ told: { closingErrorDeg, seenDeg } }: { readonly told: Extract<MadeSurface['told'], { kind: 'turn' }> }): ReactNode {
  return (
    <>
      {closingErrorDeg === null ? (
        'The turn did not close on itself.'
      ) : (
        <>
          The turn closed <b className="figure">{Math.abs(closingErrorDeg).toFixed(1)}°</b> off and was made to meet.
        </>
      )}{' '}
      <b className="figure">{Math.round(seenDeg)}°</b> seen.
    </>
  );
}

function LampTold({
  told: { seenPercent, framesUsed, walls },
}: {
  readonly told: Extract<MadeSurface['told'], { kind: 'lamp' }>;
}): ReactNode {
  return (
    <>
      <b className="figure">{Math.round(seenPercent)} %</b> of the face seen without glare, from <b className="figure">{framesUsed}</b>{' '}
      frames.
      {walls.with + walls.without > 0 && (
        <>
          {' '}
          <b className="figure">{walls.with}</b> of its lines have walls as scores have, <b className="figure">{walls.without}</b> have
          none.
        </>
      )}
      {walls.unknown > 0 && (
        <>
          {' '}
          Of <b className="figure">{walls.unknown}</b> the film does not tell.
        </>
      )}
    </>
  );
}

/** Address of a picture in memory, let go with the page; empty for none. */
function useObjectUrl(blob: Blob | null): string {
  const [src, setSrc] = useState('');
  useEffect(() => {
    if (!blob) return;
    const url = URL.createObjectURL(blob);
    setSrc(url);
    return () => URL.revokeObjectURL(url);
  }, [blob]);
  return src;
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
    const { sha256, read, corners, turn } = made;
    record({ kind: 'corners-set', station: id, body: { sha256, corners, ...turn } }, { kind: 'surface-read', station: id, body: read });
    onDone();
  }, [made, arrived, id, record, onDone]);
  return {
    waiting: made !== null,
    start: (next) => {
      setMade(next);
      const name = `${id}-${next.told.kind === 'turn' ? 'all-round' : 'without-glare'}.png`;
      void dispatch(addFiles(caseId, [{ blob: next.png, name, station: id, kind: 'photo', shot: MADE_SHOT }], me));
    },
  };
}
