import { App, Button, Checkbox, Segmented, Select } from 'antd';
import { neighbourOnBench, unrolledBench, type BenchOrder, type Direction, type BenchRow } from '@true-ledger/core/engine';
import { gradeText, GRADES } from '@true-ledger/core/damage';
import { caseBench, type StationView } from '@true-ledger/core/case';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { saveBlob } from '../../app/saveBlob.js';
import { useWearOfAll } from '../../workers/compute.js';
import { useGrading } from '../station/grading.js';
import { Here, Legend } from './BenchFoot.js';
import { BenchField, type BenchHandle } from './BenchField.js';
import type { BenchLayer, BenchOverlay, BenchScene } from './drawBench.js';
import { GROUPS } from '../../surface/surfaceParts.js';
import { alikeTo, benchSetting, clearances, loadedBench, oilOrder, predictedByLeading } from './overlays.js';
import './bench.css';

const LAYERS: ReadonlyArray<{ value: BenchLayer; label: string }> = [
  { value: 'picture', label: 'Picture' },
  { value: 'read', label: 'Read' },
  { value: 'grade', label: 'Grade' },
];

const OVERLAYS: ReadonlyArray<{ value: BenchOverlay; label: string }> = [
  { value: 'none', label: 'Nothing over it' },
  { value: 'not-examined', label: 'Not examined' },
  { value: 'oil', label: 'Oil order' },
  { value: 'clearance', label: 'Clearance' },
  { value: 'predicted', label: 'Predicted' },
  { value: 'difference', label: 'Difference' },
  { value: 'load', label: 'Worn by load' },
  { value: 'alike', label: 'Alike' },
];

const NEARER = 1.5;

/** The engine unrolled: every place as its own surface, all to one scale, from the whole engine to a tenth of a millimetre. */
export function Bench(): ReactNode {
  const { view, caseId, diagnosis, readOnly } = useCase();
  const record = useRecord();
  const navigate = useNavigate();
  const { message } = App.useApp();
  const plan = caseBench(view);
  const memory = `bench-at-${caseId}`;
  const [at, setAt] = useState(() => sessionStorage.getItem(memory) ?? plan.rows[0]?.cells[0]?.station.id ?? '');
  const [layers, setLayers] = useState<ReadonlySet<BenchLayer>>(new Set(LAYERS.map((l) => l.value)));
  const [overlay, setOverlay] = useState<BenchOverlay>('none');
  const [order, setOrder] = useState<BenchOrder>('cylinder');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const handle = useRef<BenchHandle>(null);
  const bench = useMemo(() => unrolledBench(view.layout, plan, order), [view.layout, plan, order]);
  const current = view.byId.get(at) ?? view.stations[0]!;
  const cellOf = (id: string): BenchScene['bench']['cells'][number] | undefined => bench.cells.find((c) => c.station.id === id);

  useEffect(() => {
    sessionStorage.setItem(memory, at);
    const cell = bench.cells.find((c) => c.station.id === at);
    if (cell) handle.current?.reveal(cell);
    const places = document.querySelector('.bench-places');
    if (places?.contains(document.activeElement) || document.activeElement === document.body)
      places?.querySelector<HTMLElement>(`[data-station="${CSS.escape(at)}"]`)?.focus({ preventScroll: true });
  }, [at, memory, bench]);

  const runAt = useMemo(() => benchSetting(view), [view]);
  const worn = useWearOfAll(view.layout, overlay === 'load' ? runAt.setting : undefined);

  const scene = useMemo(
    (): Omit<BenchScene, 'images' | 'fine'> => ({
      bench,
      views: view.byId,
      layers,
      overlay,
      at,
      chosen,
      oilOrder: overlay === 'oil' ? oilOrder(view) : new Map(),
      predicted: overlay === 'predicted' || overlay === 'difference' ? predictedByLeading(view, diagnosis) : new Map(),
      loaded: loadedBench(runAt, overlay === 'load' ? worn : null),
      clearances: overlay === 'clearance' ? clearances(view) : new Map(),
      alike: overlay === 'alike' ? alikeTo(view, at) : [],
    }),
    [bench, view, layers, overlay, at, chosen, diagnosis, runAt, worn],
  );

  const open = (id: string): void => void navigate(`/case/${caseId}/station/${id}`);
  const compare = (ids: readonly string[], part = ''): void =>
    void navigate(`/case/${caseId}/compare/${ids.join(',')}${part && `?part=${part}`}`);
  const move = (direction: Direction) => (): void => setAt((from) => neighbourOnBench(plan, from, direction));
  const choose = (id: string): void =>
    setChosen(
      (held) => new Set(held.has(id) ? [...held].filter((h) => h !== id) : view.byId.get(id)?.station.surface ? [...held, id] : held),
    );
  const [making, setMaking] = useState(false);
  const sheet = async (): Promise<void> => {
    setMaking(true);
    try {
      const blob = await handle.current?.sheet(`${view.number} · ${view.title}`);
      if (blob) saveBlob(`${view.number}-bench-A3.png`, blob);
    } catch (error) {
      void message.error(`The sheet was not made: ${error instanceof Error ? error.message : String(error)} Try again.`);
    } finally {
      setMaking(false);
    }
  };
  const grading = useGrading();
  const sound = (): void => {
    if (current.state === 'findings') void message.warning(`${current.station.name} has findings. Take them back first, or grade it 0.`);
    else record({ kind: 'state-set', station: at, body: { state: 'sound' } });
  };
  const row = plan.rows.find((r) => r.cells.some((c) => c.station.id === at));
  const blank = row && !readOnly ? blankIn(row, view.byId) : [];
  const rowSound = (): void =>
    record(...blank.map((s) => ({ kind: 'state-set' as const, station: s.station.id, body: { state: 'sound' as const } })));
  const nextOverlay = (): void =>
    setOverlay((o) => OVERLAYS[(OVERLAYS.findIndex((x) => x.value === o) + 1) % OVERLAYS.length]?.value ?? 'none');
  useKeys([
    { keys: 'ArrowLeft', what: 'Towards the front', run: move('left') },
    { keys: 'ArrowRight', what: 'Towards the flywheel', run: move('right') },
    { keys: 'ArrowUp', what: 'Row above', run: move('up') },
    { keys: 'ArrowDown', what: 'Row below', run: move('down') },
    { keys: 'Enter', what: 'Open the place', run: () => open(at) },
    ...GRADES.map((g) => ({ keys: String(g), what: `Grade ${gradeText(g)}`, run: () => grading.grade(current, g) })),
    { keys: 'n', what: 'Sound: examined, nothing found', run: sound },
    { keys: 'N', what: 'All of its row that nobody looked at: sound', run: rowSound },
    { keys: 'm', what: 'Measure it', run: () => void navigate(`/case/${caseId}/measure/${current.station.part === 'journal' ? at : ''}`) },
    { keys: '+', what: 'Nearer', run: () => handle.current?.by(NEARER, middleOf(cellOf(at))) },
    { keys: '-', what: 'Farther', run: () => handle.current?.by(1 / NEARER, middleOf(cellOf(at))) },
    { keys: 'z', what: 'This surface alone', run: () => handle.current?.to(cellOf(at)!) },
    { keys: 'w', what: 'The whole engine', run: () => handle.current?.whole() },
    { keys: 'o', what: 'What lies over the surfaces', run: nextOverlay },
    { keys: 'x', what: 'Choose it for side by side', run: () => choose(at) },
    { keys: '=', what: 'The chosen ones side by side', run: () => compare(chosen.size > 0 ? [...chosen] : [at]) },
    {
      keys: 'Escape',
      what: 'Choose none, show the whole',
      run: () => {
        if (chosen.size > 0) setChosen(new Set());
        else handle.current?.whole();
      },
    },
    ...GROUPS.map((g) => ({ keys: g.keys, what: `Side by side: ${g.what}`, run: () => compare(g.of(view.stations, current), g.part) })),
  ]);

  return (
    <div className="bench-page">
      <div className="bench-bar">
        <Checkbox.Group
          value={[...layers]}
          onChange={(values: BenchLayer[]) => setLayers(new Set(values))}
          options={[...LAYERS]}
          aria-label="What lies in the cells"
        />
        <Select<BenchOverlay>
          value={overlay}
          onChange={setOverlay}
          options={[...OVERLAYS]}
          aria-label="What lies over the cells"
          style={{ width: 160 }}
        />
        <Segmented<BenchOrder>
          value={order}
          onChange={setOrder}
          options={[
            { value: 'cylinder', label: 'By cylinder' },
            { value: 'oil', label: 'By oil' },
          ]}
          aria-label="Order of the places"
        />
        <span className="bench-zoom">
          <Button onClick={() => handle.current?.by(1 / NEARER)} aria-label="Farther">
            −
          </Button>
          <Button onClick={() => handle.current?.by(NEARER)} aria-label="Nearer">
            +
          </Button>
          <Button onClick={() => handle.current?.whole()}>Whole</Button>
        </span>
        <Button loading={making} onClick={() => void sheet()} title="The whole bench as a picture for a sheet of A3">
          Sheet A3
        </Button>
        {chosen.size > 0 && (
          <Button type="primary" onClick={() => compare([...chosen])}>
            {chosen.size} side by side
          </Button>
        )}
      </div>
      <BenchField
        caseId={caseId}
        scene={scene}
        ref={handle}
        onOpen={open}
        onPick={(id, beside) => {
          if (beside) choose(id);
          else if (id === at) open(id);
          else setAt(id);
        }}
      />
      {grading.dialog}
      <div className="bench-foot">
        <Here view={current} onOpen={() => open(at)}>
          {blank.length > 0 && (
            <Button size="small" onClick={rowSound} title="N">
              {blank.length} of its row sound
            </Button>
          )}
        </Here>
        <Legend scene={scene} />
      </div>
    </div>
  );
}

const middleOf = (cell: BenchScene['bench']['cells'][number] | undefined): { x: number; y: number } | undefined =>
  cell && { x: cell.x + cell.width / 2, y: cell.y + cell.height / 2 };

const blankIn = (row: BenchRow, views: ReadonlyMap<string, StationView>): StationView[] =>
  row.cells.flatMap((c) => views.get(c.station.id) ?? []).filter((s) => s.state === 'not-examined');
