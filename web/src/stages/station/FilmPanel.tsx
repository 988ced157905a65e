import { Button, Progress, Radio } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { shellConstructionAt } from '@true-ledger/core/engine';
import { isRead, sizeFromFrame, USUAL_TURN, USUAL_VIEW_DEG, type Point, type ReadPart, type Turn } from '@true-ledger/core/photo';
import { useEffect, useState, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { fetchFile } from '../../app/server.js';
import { closeFilm, MOST_SECONDS, openFilm, useFilm, useFoundCorners, type OpenFilm } from '../../workers/film.js';
import type { FilmProgress, FilmTask } from '../../workers/film.worker.js';
import { NumberField } from '../../fields/NumberField.js';
import { CornerEditor } from './CornerEditor.js';
import { Made } from './Made.js';
import { useKeepMade } from './useKeepMade.js';
import './station.css';

interface Props {
  readonly station: StationView;
  /** SHA-256 of the film. */
  readonly film: string;
  readonly onClose: () => void;
}

/** A film of a turned journal becomes its surface all round, a film of a borescope drawn out of a bore its wall, a film of a part over which a lamp is led its picture without glare: corners in the first frame, how far it is, what was made shown before it is kept. */
export function FilmPanel({ station, film: sha256, onClose }: Props): ReactNode {
  const { caseId, view } = useCase();
  const { film, problem } = useOpenFilm(`/api/cases/${caseId}/clips/${sha256}`);
  const taking = useFilm();
  const keep = useKeepMade(station, onClose);
  const [placed, setPlaced] = useState<{ readonly corners: readonly Point[]; readonly turn: Turn } | null>(null);
  const { surface: frame, part } = station.station;
  const [byHand, setByHand] = useState(false);
  const looked = useFoundCorners(film, isRead(part) && part !== 'bore' ? part : null);
  const found = byHand ? null : looked;
  const [way, setWay] = useState<FilmTask['kind']>(part === 'journal' ? 'turn' : part === 'bore' ? 'drawn' : 'lamp');
  if (!frame || !isRead(part)) return null;
  const ways = WAYS[part];
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
          {ways && (
            <Radio.Group
              aria-label="How the film was taken"
              value={way}
              onChange={(e) => setWay(e.target.value as FilmTask['kind'])}
              options={[...ways, { value: 'lamp', label: 'The lamp was led over it' }]}
            />
          )}
          {way === 'drawn' && (
            <ScopeAsked
              film={film}
              onStart={(asked) => taking.start(film, { kind: 'drawn', radiusMm: frame.widthMm / (2 * Math.PI), ...asked }, frame)}
            />
          )}
        </>
      )}
      {film && found !== undefined && !taking.busy && !taking.made && way !== 'drawn' && (
        <>
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

/** Parts whose film can be taken in another way than under a led lamp. */
const WAYS: Partial<Record<ReadPart, readonly { readonly value: FilmTask['kind']; readonly label: string }[]>> = {
  journal: [{ value: 'turn', label: 'The crank was turned' }],
  bore: [{ value: 'drawn', label: 'A borescope was drawn out' }],
};

type ScopeTask = Extract<FilmTask, { kind: 'drawn' }>;

/** What must be known of a borescope before its film is taken in. */
function ScopeAsked({
  film,
  onStart,
}: {
  readonly film: OpenFilm;
  readonly onStart: (asked: Pick<ScopeTask, 'topDeg' | 'viewDeg' | 'lengthMm'>) => void;
}): ReactNode {
  const [topDeg, setTop] = useState(0);
  const [viewDeg, setView] = useState(USUAL_VIEW_DEG);
  const [lengthMm, setLength] = useState<number | null>(null);
  return (
    <>
      <figure className="photo">
        <img src={film.first} alt="First frame of the film" width={film.width} height={film.height} />
      </figure>
      <p className="quiet">
        This is its first frame. The scope should look along the bore, about in its middle, and be drawn slowly from one end to the other.
        Rings of every frame are stacked by depth to the wall of the bore, the end at which it came out at the top.
      </p>
      <div className="row">
        <label>
          Arc at the top of this frame{' '}
          <NumberField
            min={0}
            max={359}
            value={topDeg}
            onChange={(v) => setTop(v ?? 0)}
            unit="°"
            style={{ width: 120 }}
            aria-label="Arc at the top of this frame"
          />
        </label>
        <label>
          The scope sees{' '}
          <NumberField
            min={30}
            max={150}
            value={viewDeg}
            onChange={(v) => setView(v ?? USUAL_VIEW_DEG)}
            unit="°"
            style={{ width: 120 }}
            aria-label="The scope sees"
          />
        </label>
        <label>
          Bore from end to end{' '}
          <NumberField
            min={5}
            max={1000}
            value={lengthMm}
            onChange={setLength}
            quantity="length"
            unit="mm"
            placeholder="lens"
            style={{ width: 120 }}
            aria-label="Bore from end to end"
          />
        </label>
        <Button type="primary" onClick={() => onStart({ topDeg, viewDeg, lengthMm })}>
          Stack the wall
        </Button>
      </div>
    </>
  );
}

/** How far a film is taken in, in its own terms. */
function Progressed({ so }: { readonly so: FilmProgress }): ReactNode {
  if (so.kind === 'drawn')
    return (
      <>
        : moved by <b className="figure">{Math.round(so.byMm)} mm</b>
        {!so.followed && '; the wall shows little to follow here'}
      </>
    );
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
  crown: 'crown',
};

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
