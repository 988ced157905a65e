import type { Axis, Plane } from '@true-ledger/core';
import type { ReactNode } from 'react';

const PLANE_X: Readonly<Record<Plane, number>> = { front: 46, mid: 75, rear: 104 };

/** Where the next reading is taken: side view with the planes, end view with the axes. */
export function JournalDrawing({ plane, axis }: { plane: Plane; axis: Axis }): ReactNode {
  const x = PLANE_X[plane];
  return (
    <svg
      width="270"
      height="150"
      viewBox="0 0 270 150"
      role="img"
      aria-label={`Take the reading at the ${plane} plane, axis ${axis}`}
      className="journal-drawing"
    >
      <rect x="8" y="12" width="22" height="126" className="web" />
      <rect x="120" y="12" width="22" height="126" className="web" />
      <path d="M30 40q4 0 4 4h82q0-4 4-4v70q-4 0-4-4H34q0 4-4 4z" className="steel" />
      {Object.entries(PLANE_X).map(([p, px]) => (
        <line key={p} x1={px} x2={px} y1="36" y2="114" className={p === plane ? 'plane here' : 'plane'} />
      ))}
      <path d={`M${x - 6} 26l6 10 6-10zM${x - 6} 124l6-10 6 10z`} className="jaw" />
      <text x="19" y="148" textAnchor="middle">
        front
      </text>
      <text x="131" y="148" textAnchor="middle">
        rear
      </text>
      <circle cx="206" cy="75" r="44" className="steel" />
      <line x1="206" x2="206" y1="25" y2="125" className={axis === 'A' ? 'plane here' : 'plane'} />
      <line x1="156" x2="256" y1="75" y2="75" className={axis === 'B' ? 'plane here' : 'plane'} />
      <path d={axis === 'A' ? 'M200 20l6 11 6-11zM200 130l6-11 6 11z' : 'M151 69l11 6-11 6zM261 69l-11 6 11 6z'} className="jaw" />
      <text x="216" y="24">
        A
      </text>
      <text x="258" y="64" textAnchor="end">
        B
      </text>
    </svg>
  );
}
