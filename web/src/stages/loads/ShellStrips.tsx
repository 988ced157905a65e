import { foundWear } from '@true-ledger/core/case';
import { percentText } from '@true-ledger/core/cause';
import { ARCS, likeness, type Run, type RunSetting } from '@true-ledger/core/running';
import { memo, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { COLOUR } from '../../app/tokens.js';
import { Explanations } from './Explanations.js';

const CELL = 12;
const ROW = 5;
/** Below this a cell shows the bare face. */
const SHOWS = 0.02;
/** Of a cell so much must have been seen. */
const SEEN = 0.25;
const LEFT = 74;
const NOTHING = new Float64Array(ARCS * 12);

/** Wear over the face of a half, arc to the right, front edge at the foot. */
function Face({ y, wear, seen, label }: { y: number; wear: ArrayLike<number> | null; seen?: ArrayLike<number>; label: string }): ReactNode {
  const rows = 12;
  return (
    <g transform={`translate(${LEFT} ${y})`}>
      <text x={-LEFT} y={(rows * ROW) / 2 + 4}>
        {label}
      </text>
      <rect width={ARCS * CELL} height={rows * ROW} fill={wear ? COLOUR.steel : COLOUR.paper} stroke={COLOUR.lineDark} />
      {wear &&
        Array.from({ length: ARCS * rows }, (_, i) => {
          const unseen = seen !== undefined && seen[i]! < SEEN;
          if (!unseen && wear[i]! < SHOWS) return null;
          return (
            <rect
              key={i}
              x={(i % ARCS) * CELL}
              y={(rows - 1 - Math.floor(i / ARCS)) * ROW}
              width={CELL}
              height={ROW}
              fill={unseen ? COLOUR.paper : COLOUR.copper}
              opacity={unseen ? 1 : Math.min(1, wear[i]!)}
            />
          );
        })}
    </g>
  );
}

/** What is predicted to wear of both halves, over what was found. */
export const ShellStrips = memo(function ShellStrips({ run, onSet }: { run: Run; onSet: (setting: RunSetting) => void }): ReactNode {
  const { view } = useCase();
  const { bearing } = run.setting;
  const { film } = run;
  const read = foundWear(view, bearing);
  const face = 12 * ROW;
  return (
    <>
      {(['upper', 'lower'] as const).map((half) => {
        if (!view.byId.has(`${bearing}.shell.${half}`)) return null;
        const found = read[half] ?? null;
        // A thick film wears nothing, which is not the same as nothing being known.
        const predicted = run.wear?.[half] ?? (film ? NOTHING : null);
        const alike = predicted && found ? likeness(predicted, found.worn, found.seen) : null;
        return (
          <figure key={half} className="half-shell">
            <figcaption>
              {half} half{alike === null ? '' : `, ${percentText(alike)} alike`}
            </figcaption>
            <svg
              viewBox={`0 0 ${LEFT + ARCS * CELL + 2} ${2 * face + 26}`}
              role="img"
              aria-label={`Predicted and found wear of the ${half} half`}
            >
              <Face y={1} wear={predicted} label="predicted" />
              <Face y={face + 6} wear={found?.worn ?? null} {...(found ? { seen: found.seen } : {})} label="found" />
              {[0, 90, 180].map((deg) => (
                <text
                  key={deg}
                  x={LEFT + (deg / 180) * ARCS * CELL}
                  y={2 * face + 22}
                  textAnchor={deg === 0 ? 'start' : deg === 90 ? 'middle' : 'end'}
                >
                  {deg}°
                </text>
              ))}
            </svg>
            {!found && <span className="quiet">Nothing was read of this half yet.</span>}
          </figure>
        );
      })}
      <p className="quiet">
        {run.wear?.dry
          ? 'Predicted: the journal without oil, where the load points.'
          : film === null
            ? run.why
            : run.wear
              ? 'Predicted: load over the cycle where rough surfaces touch. Arc to the right, front edge at the foot.'
              : 'At this setting the film is thick everywhere: no wear is predicted.'}
      </p>
      {(read.upper ?? read.lower) && <Explanations run={run} found={read} onSet={onSet} />}
    </>
  );
});
