import { Button, Slider } from 'antd';
import { standingGrade, type CaseView } from '@true-ledger/core/case';
import { clearanceRun } from '@true-ledger/core/measured';
import { likenedSetting } from '@true-ledger/core/diagnosis';
import { usualSetting, type RunSetting } from '@true-ledger/core/running';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { Waiting } from '../../app/Waiting.js';
import { useRun } from '../../workers/compute.js';
import { CircuitDrawing } from './CircuitDrawing.js';
import { Controls } from './Controls.js';
import { FaultSearch } from './FaultSearch.js';
import { FilmChart } from './FilmChart.js';
import { Figures } from './Figures.js';
import { OrbitDrawing, PolarDrawing } from './Round.js';
import { KeepRun } from './KeepRun.js';
import { ShellStrips } from './ShellStrips.js';
import './loads.css';

/** Degrees of the crank a second while it plays. */
const PLAYS = 90;

/** The bearing whose shells are graded worst; the first big end where none is. */
function worstBearing(view: CaseView): string {
  const graded = view.stations.filter((s) => s.station.part === 'shell' && s.station.bearing && (standingGrade(s) ?? 0) > 0);
  const worst = graded.sort((a, b) => standingGrade(b)! - standingGrade(a)!)[0];
  return worst?.station.bearing ?? 'rod.1';
}

/** Why the wear is where it is: loads, oil film and oil circuit of the engine as one lets it run. */
export function LoadsStage(): ReactNode {
  const { view, readOnly } = useCase();
  const { layout } = view;
  const measured = useMemo(() => {
    const { gauged, strip } = clearanceRun(view);
    const by = new Map<string, number>();
    for (const p of [...strip, ...gauged]) {
      const bearing = p.place.station ? view.byId.get(p.place.station)?.station.bearing : null;
      if (bearing && p.line.value > 0) by.set(bearing, p.line.value);
    }
    return by;
  }, [view]);
  const [asked] = useSearchParams();
  const [setting, setSetting] = useState<RunSetting>(
    () =>
      likenedSetting(view, asked.get('feature') ?? '', asked.get('entry')) ??
      usualSetting(layout, worstBearing(view), Object.fromEntries(measured)),
  );
  const answer = useRun(layout, setting);
  const run = answer?.ok ? answer.value : null;
  const [pinned, setPinned] = useState<typeof run>(null);
  const [crankDeg, setCrankDeg] = useState(20);
  const [plays, setPlays] = useState(false);
  const cycleDeg = run?.cycleDeg ?? 720;
  useEffect(() => {
    if (!plays) return;
    let frame = 0;
    let last = performance.now();
    const next = (now: number): void => {
      setCrankDeg((deg) => (deg + ((now - last) / 1000) * PLAYS) % cycleDeg);
      last = now;
      frame = requestAnimationFrame(next);
    };
    frame = requestAnimationFrame(next);
    return () => cancelAnimationFrame(frame);
  }, [plays, cycleDeg]);
  return (
    <div className="page loads">
      <div className="page-head">
        <h1>Loads</h1>
        <span className="quiet">
          Why the wear is where it is. What nobody gave is estimated: compare settings with each other rather than one figure with a limit.
        </span>
      </div>
      <div className="loads-grid">
        <section className="pane">
          <Controls setting={setting} onChange={setSetting} run={run} measured={measured} />
          <div className="row">
            <Button onClick={() => setPinned(run)} disabled={!run}>
              Pin this setting
            </Button>
            <Button onClick={() => setPinned(null)} disabled={!pinned}>
              Let go
            </Button>
          </div>
          {run && !readOnly && <KeepRun run={run} onSet={setSetting} />}
          {answer && !answer.ok && (
            <p className="fault" role="alert">
              {answer.problem.sentence}
            </p>
          )}
          {run && <Estimated keys={run.estimated} circuit={run.oil !== null} />}
        </section>
        {run ? (
          <div className="loads-shown">
            <section className="pane loads-round">
              <PolarDrawing run={run} pinned={pinned} crankDeg={crankDeg} />
              <OrbitDrawing run={run} pinned={pinned} crankDeg={crankDeg} />
              <Figures run={run} pinned={pinned} />
              <div className="crank-turned">
                <Button size="small" onClick={() => setPlays((p) => !p)} aria-pressed={plays}>
                  {plays ? 'Stop' : 'Turn'}
                </Button>
                <Slider
                  min={0}
                  max={cycleDeg}
                  step={1}
                  value={Math.round(crankDeg)}
                  onChange={setCrankDeg}
                  tooltip={{ formatter: (v) => `${v ?? 0}°` }}
                  ariaLabelForHandle="Angle of the crank from firing of cylinder 1"
                />
                <span className="figure">{Math.round(crankDeg)}°</span>
              </div>
            </section>
            <section className="pane">
              <h2>Film over the cycle</h2>
              {run.film ? <FilmChart run={run} pinned={pinned} crankDeg={crankDeg} /> : <p>{run.why}</p>}
            </section>
            {view.byId.has(`${run.setting.bearing}.shell.upper`) && (
              <section className="pane">
                <h2>Shells of {run.setting.bearing.replace('.', ' ')}</h2>
                <ShellStrips run={run} onSet={setSetting} />
              </section>
            )}
            <section className="pane loads-circuit">
              <h2>Oil circuit</h2>
              <CircuitDrawing run={run} />
              {run.oil && <FaultSearch run={run} onSet={setSetting} />}
            </section>
          </div>
        ) : (
          !answer && <Waiting what="Letting the engine run" />
        )}
      </div>
    </div>
  );
}

function Estimated({ keys, circuit }: { keys: readonly string[]; circuit: boolean }): ReactNode {
  const words = [
    keys.some((k) => k.startsWith('masses')) && 'masses (± 20 %)',
    keys.some((k) => k.includes('peakPressure')) && 'peak pressure',
    keys.some((k) => k.startsWith('clearances')) && 'clearances that were not measured',
    circuit && 'sizes of the oil circuit',
  ].filter(Boolean);
  return words.length === 0 ? null : <p className="quiet">Estimated: {words.join(', ')}.</p>;
}
