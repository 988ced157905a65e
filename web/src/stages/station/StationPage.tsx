import { Empty } from 'antd';
import { neighbourOnBench, type Direction } from '@true-ledger/core/engine';
import { gradeText, GRADES } from '@true-ledger/core/damage';
import { caseBench, readAgainstSound, type StationView } from '@true-ledger/core/case';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { GradeMark, STATE_WORDS } from '../../surface/GradeMark.js';
import { SurfaceView } from '../../surface/SurfaceView.js';
import { comparisons } from './comparisons.js';
import { KeepReference } from './KeepReference.js';
import { FindingPanel } from './FindingPanel.js';
import { useGrading } from './grading.js';
import { usePen, type Place } from './pen.js';
import { WIDTH } from './paintSurface.js';
import { PhotoPane } from './PhotoPane.js';
import { SurfacePane } from './SurfacePane.js';
import { useFlattened } from './useFlattened.js';
import './station.css';

/** One place: picture left, developed surface right, what it is below, its comparison one key away. */
export function StationPage(): ReactNode {
  const { stationId = '' } = useParams();
  const { view } = useCase();
  const station = view.byId.get(stationId);
  if (!station) return <Empty image={null} description={<>This engine has no place called “{stationId}”. Choose one on the left.</>} />;
  return <OpenStation key={stationId} station={station} />;
}

function OpenStation({ station }: { station: StationView }): ReactNode {
  const { view, caseId } = useCase();
  const record = useRecord();
  const grading = useGrading();
  const navigate = useNavigate();
  const id = station.station.id;
  const plan = caseBench(view);
  const beside = useMemo(() => comparisons(view.layout, station.station, view.byId), [view, station.station]);
  const [chosen, setChosen] = useState(0);
  const [flipped, setFlipped] = useState(false);
  const [photo, setPhoto] = useState<string | null>(null);
  const shown = station.photos.find((p) => p.value.sha256 === photo) ?? station.photos[0];
  const flat = useFlattened(caseId, station, shown?.value.sha256);
  const pen = usePen(station);
  // What nobody pictured can only be drawn.
  const [drawn, setDrawing] = useState<boolean | null>(null);
  const drawing = drawn ?? station.photos.length === 0;
  const [linked, setLinked] = useState<Place | null>(null);
  const other = beside[chosen % Math.max(1, beside.length)];

  const kin = beside.find((b) => b.view.station.part === station.station.part);
  const sideBySide = `/case/${caseId}/compare/${[id, ...(kin ? [kin.view.station.id] : [])].join(',')}`;
  const step = (direction: Direction) => (): void => void navigate(`/case/${caseId}/station/${neighbourOnBench(plan, id, direction)}`);
  useKeys([
    { keys: 'Escape', what: 'Back to the bench', run: () => void navigate(`/case/${caseId}/bench`) },
    { keys: 'ArrowLeft', what: 'Place towards the front', run: step('left') },
    { keys: 'ArrowRight', what: 'Place towards the flywheel', run: step('right') },
    { keys: 'ArrowUp', what: 'Row above', run: step('up') },
    { keys: 'ArrowDown', what: 'Row below', run: step('down') },
    ...GRADES.map((g) => ({ keys: String(g), what: `Grade ${gradeText(g)}`, run: () => grading.grade(station, g) })),
    { keys: 'n', what: 'Sound', run: () => record({ kind: 'state-set', station: id, body: { state: 'sound' } }) },
    { keys: 'p', what: 'Add pictures', run: () => document.querySelector<HTMLInputElement>('#add-pictures')?.click() },
    { keys: 'f', what: 'Name a pattern', run: () => document.querySelector<HTMLInputElement>('#pattern-choice')?.focus() },
    { keys: 'd', what: 'Draw on the surface, or put the brushes away', run: () => setDrawing(!drawing) },
    { keys: 'm', what: 'Measure it', run: () => void navigate(`/case/${caseId}/measure/${station.station.part === 'journal' ? id : ''}`) },
    { keys: '=', what: 'Side by side', run: () => void navigate(sideBySide) },
    { keys: ' ', what: 'Flip to the comparison and back', run: () => setFlipped((x) => !x) },
    { keys: '[', what: 'Compare with the one before', run: () => setChosen((x) => (x + beside.length - 1) % Math.max(1, beside.length)) },
    { keys: ']', what: 'Compare with the next', run: () => setChosen((x) => (x + 1) % Math.max(1, beside.length)) },
  ]);

  return (
    <div className="station-page">
      <div className="station-head">
        <GradeMark
          grade={station.grade?.value.grade ?? (station.state === 'sound' ? 0 : (station.proposal?.grade ?? null))}
          state={station.state}
          confirmed={station.grade !== undefined}
          size={26}
        />
        <h1>{station.station.name}</h1>
        <Standing station={station} />
        {station.station.part === 'journal' && (
          <Link to={`/case/${caseId}/measure/${id}`} className="to-sheet">
            {station.readings.length > 0 ? `${station.readings.length} readings` : 'Measure it'}
          </Link>
        )}
      </div>
      {grading.dialog}
      <div className="station-grid">
        <PhotoPane
          station={station}
          shown={shown?.value.sha256 ?? null}
          onShow={setPhoto}
          flat={flat}
          pen={pen}
          drawing={drawing}
          onDraw={setDrawing}
          linked={linked}
          onLinked={setLinked}
        />
        {station.station.surface ? (
          flipped && other ? (
            <section className="pane surface-pane flipped" aria-label={`Comparison: ${other.view.station.name}`}>
              <h2>
                {other.view.station.name} <span className="quiet">({other.why}; Space flips back)</span>
              </h2>
              <SurfaceView view={other.view} width={WIDTH} caption />
            </section>
          ) : (
            <SurfacePane
              station={station}
              flat={flat}
              pen={pen}
              drawing={drawing}
              onDraw={setDrawing}
              linked={linked}
              onLinked={setLinked}
            />
          )
        ) : (
          <section className="pane surface-pane" aria-label="Surface">
            <h2>Surface</h2>
            <p className="quiet">
              {station.station.name} has no developed surface in this version: grade it, name what it shows and add pictures.
            </p>
          </section>
        )}
        <FindingPanel station={station} onGrade={(g) => grading.grade(station, g)} />
        <section className="pane beside" aria-label="Beside it">
          <h2>
            Beside it <span className="quiet">Space flips, [ ] change</span>
            {station.station.surface && (
              <Link to={sideBySide} className="to-sheet">
                Side by side (=)
              </Link>
            )}
            {shown && station.station.surface && <KeepReference station={station} sha256={shown.value.sha256} />}
          </h2>
          {beside.length === 0 && <p className="quiet">Nothing of its kind to compare with.</p>}
          <div className="beside-list">
            {beside.map((b, i) => (
              <button
                type="button"
                key={b.view.station.id}
                className={i === chosen ? 'beside-item here' : 'beside-item'}
                onClick={() => setChosen(i)}
                onDoubleClick={() => void navigate(`/case/${caseId}/station/${b.view.station.id}`)}
              >
                <SurfaceView view={b.view} width={210} />
                <span>
                  {b.view.station.name} <span className="quiet">{b.why}</span>
                </span>
              </button>
            ))}
          </div>
        </section>
      </div>
    </div>
  );
}

/** What is proposed, what is confirmed and by whom, in one line. */
function Standing({ station }: { station: StationView }): ReactNode {
  const { grade, proposal, state } = station;
  const parts = [
    STATE_WORDS[state],
    ...(proposal ? [`proposed ${gradeText(proposal.grade)}`] : []),
    ...(grade ? [`confirmed ${gradeText(grade.value.grade)} by ${grade.version.author.name}`] : []),
  ];
  const against = readAgainstSound(station);
  return (
    <span className="quiet">
      {parts.join(' · ')}
      {against !== null && <b className="fault"> · its picture reads {gradeText(against)}: confirm a grade, either way</b>}
    </span>
  );
}
