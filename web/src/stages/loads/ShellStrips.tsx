import { percentText } from '@true-ledger/core/cause';
import { likeness, type Run, type RunSetting } from '@true-ledger/core/running';
import type { ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { COLOUR } from '../../app/tokens.js';
import { Explanations } from './Explanations.js';
import { foundByArc } from './foundByArc.js';

const CELL = 12;
const ROW = 30;

/** What is predicted to wear of both halves along their arcs, over what was found. */
export function ShellStrips({ run, onSet }: { run: Run; onSet: (setting: RunSetting) => void }): ReactNode {
  const { view } = useCase();
  const { bearing } = run.setting;
  const { film } = run;
  const read = foundByArc(view, bearing);
  return (
    <>
      {(['upper', 'lower'] as const).map((half) => {
        const station = view.byId.get(`${bearing}.shell.${half}`);
        if (!station) return null;
        const found = read[half] ?? null;
        const predicted = film?.predicted[half] ?? null;
        const alike = predicted && found ? likeness(predicted, found.worn, found.seen) : null;
        return (
          <figure key={half} className="half-shell">
            <figcaption>
              {half} half{alike === null ? '' : `, ${percentText(alike)} alike`}
            </figcaption>
            <svg
              viewBox={`0 0 ${36 * CELL + 76} ${2 * ROW + 18}`}
              role="img"
              aria-label={`Predicted and found wear of the ${half} half along its arc`}
            >
              <text x={0} y={18}>
                predicted
              </text>
              <text x={0} y={18 + ROW}>
                found
              </text>
              <g transform="translate(70 0)">
                {Array.from({ length: 36 }, (_, i) => (
                  <g key={i}>
                    <rect x={i * CELL} y={0} width={CELL} height={ROW - 2} fill={COLOUR.steel} />
                    {predicted && <rect x={i * CELL} y={0} width={CELL} height={ROW - 2} fill={COLOUR.copper} opacity={predicted[i]!} />}
                    <rect
                      x={i * CELL}
                      y={ROW}
                      width={CELL}
                      height={ROW - 2}
                      fill={found && found.seen[i]! > 0.25 ? COLOUR.steel : COLOUR.paper}
                      stroke={COLOUR.line}
                    />
                    {found && found.seen[i]! > 0.25 && (
                      <rect x={i * CELL} y={ROW} width={CELL} height={ROW - 2} fill={COLOUR.copper} opacity={Math.min(1, found.worn[i]!)} />
                    )}
                  </g>
                ))}
                {[0, 90, 180].map((deg) => (
                  <text
                    key={deg}
                    x={(deg / 180) * 36 * CELL}
                    y={2 * ROW + 13}
                    textAnchor={deg === 0 ? 'start' : deg === 90 ? 'middle' : 'end'}
                  >
                    {deg}°
                  </text>
                ))}
              </g>
            </svg>
            {!found && <span className="quiet">Nothing was read of this half yet.</span>}
          </figure>
        );
      })}
      <p className="quiet">
        {film === null
          ? run.why
          : film.wears
            ? 'Predicted: load over the cycle where rough surfaces touch. Along the arc only; tilt of a bent rod or crank is not in it.'
            : 'At this setting the film is thick everywhere: no wear is predicted.'}
      </p>
      {(read.upper ?? read.lower) && <Explanations run={run} found={read} onSet={onSet} />}
    </>
  );
}
