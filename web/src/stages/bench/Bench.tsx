import { App, Segmented } from 'antd';
import {
  neighbourOnBench,
  PART_NAMES,
  routeDistance,
  type BenchCell as Cell,
  type BenchRow,
  type Direction,
} from '@true-ledger/core/engine';
import { GRADE_INFO, gradeText, GRADES, WEAR_CLASS_INFO, WEAR_CLASSES } from '@true-ledger/core/damage';
import { caseBench, type StationView } from '@true-ledger/core/case';
import { useEffect, useRef, useState, type CSSProperties, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { useGrading } from '../station/grading.js';
import { BenchCell, type BenchMode } from './BenchCell.js';
import { stationWords } from '../../surface/stationWords.js';
import './bench.css';

const MODES: ReadonlyArray<{ value: BenchMode; label: string }> = [
  { value: 'surface', label: 'Surfaces' },
  { value: 'grade', label: 'Grades' },
  { value: 'route', label: 'Oil route' },
  { value: 'open', label: 'Not examined' },
];

/** The laid-out engine: every cell a place, drawn as its surface in small. */
export function Bench(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const navigate = useNavigate();
  const { message } = App.useApp();
  const plan = caseBench(view);
  const memory = `bench-at-${caseId}`;
  const [at, setAt] = useState(() => sessionStorage.getItem(memory) ?? plan.rows[0]?.cells[0]?.station.id ?? '');
  const [mode, setMode] = useState<BenchMode>('surface');
  const field = useRef<HTMLDivElement>(null);
  const current = view.byId.get(at) ?? view.stations[0]!;

  useEffect(() => {
    sessionStorage.setItem(memory, at);
    const inside = field.current?.contains(document.activeElement) || document.activeElement === document.body;
    if (inside) field.current?.querySelector<HTMLElement>(`[data-station="${CSS.escape(at)}"]`)?.focus({ preventScroll: false });
  }, [at, memory]);

  const open = (id: string): void => void navigate(`/case/${caseId}/station/${id}`);
  const move = (direction: Direction) => (): void => setAt((from) => neighbourOnBench(plan, from, direction));
  const grading = useGrading();
  const sound = (): void => {
    if (current.state === 'findings') void message.warning(`${current.station.name} has findings. Take them back first, or grade it 0.`);
    else record({ kind: 'state-set', station: at, body: { state: 'sound' } });
  };
  useKeys([
    { keys: 'ArrowLeft', what: 'Towards the front', run: move('left') },
    { keys: 'ArrowRight', what: 'Towards the flywheel', run: move('right') },
    { keys: 'ArrowUp', what: 'Row above', run: move('up') },
    { keys: 'ArrowDown', what: 'Row below', run: move('down') },
    { keys: 'Enter', what: 'Open the place', run: () => open(at) },
    ...GRADES.map((g) => ({ keys: String(g), what: `Grade ${gradeText(g)}`, run: () => grading.grade(current, g) })),
    { keys: 'n', what: 'Sound: examined, nothing found', run: sound },
    { keys: 'm', what: 'Measure it', run: () => void navigate(`/case/${caseId}/measure/${current.station.part === 'journal' ? at : ''}`) },
  ]);

  const rowSound = (row: BenchRow): void => {
    const blank = row.cells.map((c) => view.byId.get(c.station.id)!).filter((s) => s.state === 'not-examined');
    record(...blank.map((s) => ({ kind: 'state-set' as const, station: s.station.id, body: { state: 'sound' as const } })));
  };

  return (
    <div className="bench-page">
      <div className="bench-bar">
        <Segmented<BenchMode> value={mode} onChange={setMode} options={[...MODES]} aria-label="What the cells show" />
        <Legend mode={mode} />
      </div>
      <div className="bench" ref={field} style={{ '--columns': plan.columns } as CSSProperties}>
        {plan.rows.map((row) => {
          const blank = row.cells.filter((c) => view.byId.get(c.station.id)?.state === 'not-examined').length;
          return (
            <div key={row.id} className={`bench-row ${row.kind}`} role="group" aria-label={row.label}>
              <div className="row-head">
                <span>{row.label}</span>
                {blank > 0 && !readOnly && (
                  <button
                    type="button"
                    onClick={() => rowSound(row)}
                    title={`Mark the ${blank} places not yet examined in this row as sound`}
                  >
                    {blank} sound
                  </button>
                )}
              </div>
              <div className="row-cells">
                {row.cells.map((cell) => (
                  <BenchCell
                    key={cell.station.id}
                    view={view.byId.get(cell.station.id)!}
                    mode={mode}
                    order={routeOrder(view.layout, cell)}
                    current={cell.station.id === at}
                    style={row.kind === 'oil' ? undefined : { gridColumn: `${cell.column + 1} / span ${cell.span}` }}
                    onPick={() => (cell.station.id === at ? open(at) : setAt(cell.station.id))}
                    onOpen={() => open(cell.station.id)}
                  />
                ))}
              </div>
            </div>
          );
        })}
      </div>
      {grading.dialog}
      <Here view={current} onOpen={() => open(at)} />
    </div>
  );
}

function routeOrder(layout: Parameters<typeof routeDistance>[0], cell: Cell): number | null {
  return routeDistance(layout, cell.station);
}

/** One line on the place the cursor stands on. */
function Here({ view, onOpen }: { view: StationView; onOpen: () => void }): ReactNode {
  return (
    <div className="bench-here" aria-live="polite">
      <b>{view.station.name}</b>
      <span>{stationWords(view)}</span>
      <span className="quiet">
        {view.photos.length} picture{view.photos.length === 1 ? '' : 's'}, {view.marks.length} mark{view.marks.length === 1 ? '' : 's'},{' '}
        {view.remarks.length} remark{view.remarks.length === 1 ? '' : 's'}
      </span>
      <button type="button" className="linkish" onClick={onOpen}>
        Open (Enter)
      </button>
    </div>
  );
}

function Legend({ mode }: { mode: BenchMode }): ReactNode {
  const chips =
    mode === 'surface'
      ? WEAR_CLASSES.filter((c) => c !== 'missing').map((c) => [WEAR_CLASS_INFO[c].colour, WEAR_CLASS_INFO[c].name] as const)
      : mode === 'grade'
        ? GRADES.map((g) => [GRADE_INFO[g].colour, gradeText(g)] as const)
        : [];
  if (mode === 'route') return <div className="legend quiet">Number: how far along the oil route from the gallery’s feed end.</div>;
  if (mode === 'open')
    return (
      <div className="legend quiet">
        Only what is still unexamined is shown by name. {PART_NAMES.shell} and the rest keep their hatch until looked at.
      </div>
    );
  return (
    <div className="legend">
      {chips.map(([colour, name]) => (
        <span key={name}>
          <i style={{ background: colour }} /> {name}
        </span>
      ))}
      <span>
        <i className="hatch" /> Not examined
      </span>
    </div>
  );
}
