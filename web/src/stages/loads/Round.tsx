import type { Run } from '@true-ledger/core/running';
import type { ReactNode } from 'react';

const SIZE = 230;
const MIDDLE = SIZE / 2;
const RADIUS = 92;

/** Points as a closed path: x of the frame up, y to the right, so that the crank turns clockwise. */
const closed = (x: ArrayLike<number>, y: ArrayLike<number>, scale: number): string => {
  const points: string[] = [];
  for (let i = 0; i < x.length; i += 4) points.push(`${(MIDDLE + y[i]! * scale).toFixed(1)},${(MIDDLE - x[i]! * scale).toFixed(1)}`);
  return `M${points.join('L')}Z`;
};
/** Ends of the axis as they are called at this bearing. */
const ends = (bearing: string): readonly [string, string] => (bearing.startsWith('rod') ? ['piston', 'cap'] : ['head side', 'cap']);
const stepAt = (run: Run, crankDeg: number): number => Math.floor((crankDeg / run.cycleDeg) * run.force.x.length) % run.force.x.length;

function Frame({ title, bearing, children, label }: { title: string; bearing: string; children: ReactNode; label: string }): ReactNode {
  const [up, down] = ends(bearing);
  return (
    <figure className="round">
      <figcaption>{title}</figcaption>
      <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={label}>
        <line x1={MIDDLE} y1={12} x2={MIDDLE} y2={SIZE - 12} className="axis" />
        <line x1={12} y1={MIDDLE} x2={SIZE - 12} y2={MIDDLE} className="axis" />
        <text x={MIDDLE + 4} y={11}>
          {up}
        </text>
        <text x={MIDDLE + 4} y={SIZE - 3}>
          {down}
        </text>
        {children}
      </svg>
    </figure>
  );
}

const LADDER = [1, 1.5, 2, 3, 4, 5, 7] as const;
/** A round figure not below `value`. */
function roundUp(value: number): number {
  const ten = 10 ** Math.floor(Math.log10(value));
  return (LADDER.find((l) => l * ten >= value) ?? 10) * ten;
}

/** Force of the journal on its shells over the cycle. */
export function PolarDrawing({ run, pinned, crankDeg }: { run: Run; pinned: Run | null; crankDeg: number }): ReactNode {
  const most = (r: Run): number => {
    let n = 0;
    for (let i = 0; i < r.force.x.length; i++) n = Math.max(n, Math.hypot(r.force.x[i]!, r.force.y[i]!));
    return n;
  };
  const full = roundUp(Math.max(most(run), pinned ? most(pinned) : 0) / 1000) * 1000;
  const scale = RADIUS / full;
  const i = stepAt(run, crankDeg);
  return (
    <Frame
      title={`Load, circle ${full / 1000} kN`}
      bearing={run.setting.bearing}
      label={`Polar diagram of the load of ${run.setting.bearing}: at most ${run.specificMpa.most.toFixed(1)} MPa at ${run.specificMpa.atDeg.toFixed(0)}°`}
    >
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS} className="axis" />
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS / 2} className="axis" />
      {pinned && <path d={closed(pinned.force.x, pinned.force.y, scale)} className="pinned" />}
      <path d={closed(run.force.x, run.force.y, scale)} className="drawn" />
      <line x1={MIDDLE} y1={MIDDLE} x2={MIDDLE + run.force.y[i]! * scale} y2={MIDDLE - run.force.x[i]! * scale} className="now" />
    </Frame>
  );
}

/** Way of the journal's centre in its clearance. */
export function OrbitDrawing({ run, pinned, crankDeg }: { run: Run; pinned: Run | null; crankDeg: number }): ReactNode {
  const { film } = run;
  const i = stepAt(run, crankDeg);
  return (
    <Frame
      title="Orbit in the clearance"
      bearing={run.setting.bearing}
      label={
        film
          ? `Orbit of the journal: thinnest film ${film.summary.minimumFilmUm.toFixed(2)} µm at ${film.summary.atSleeveDeg.toFixed(0)}° of the shell`
          : 'No orbit'
      }
    >
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS} className="sleeve" />
      {pinned?.film && <path d={closed(pinned.film.x, pinned.film.y, RADIUS)} className="pinned" />}
      {film && (
        <>
          <path d={closed(film.x, film.y, RADIUS)} className="drawn" />
          <circle cx={MIDDLE + film.y[i]! * RADIUS} cy={MIDDLE - film.x[i]! * RADIUS} r={5} className="now-dot" />
        </>
      )}
      {!film && (
        <text x={MIDDLE} y={MIDDLE - 8} textAnchor="middle" className="no-film">
          no film
        </text>
      )}
    </Frame>
  );
}
