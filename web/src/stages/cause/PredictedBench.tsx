import { caseBench } from '@true-ledger/core/case';
import { GRADE_INFO, gradeText } from '@true-ledger/core/damage';
import { cause as causeOf, percentText } from '@true-ledger/core/cause';
import { likelyPlace, predictBench, type Predicted, type RankedCause } from '@true-ledger/core/diagnosis';
import { useMemo, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { COLOUR } from '../../app/tokens.js';
import './cause.css';

const ROW = 26;
const LABEL = 176;

/** The bench as one cause would have left it, above what was found: the height of the upper bar is the chance of damage there. */
export function PredictedBench({ cause }: { cause: RankedCause }): ReactNode {
  const { view, caseId } = useCase();
  const navigate = useNavigate();
  const record = causeOf(cause.id);
  const place = likelyPlace(cause);
  const predicted = useMemo(
    () => new Map(record ? predictBench(view, record, place?.place ?? null).map((p) => [p.station, p]) : []),
    [view, record, place?.place],
  );
  const plan = caseBench(view);
  if (!record) return null;
  const count = (fit: Predicted['fit']): number => [...predicted.values()].filter((p) => p.fit === fit).length;
  // A small engine takes the room it has; a large one scrolls.
  const column = Math.max(13, Math.min(36, Math.floor(790 / plan.columns)));
  const width = LABEL + plan.columns * column;
  return (
    <section className="pane predicted" aria-label="Predicted against found">
      <h2>
        Predicted against found{' '}
        <span className="quiet">
          had it been {cause.name.toLowerCase()}
          {place ? ` at ${place.name}` : ''}
        </span>
      </h2>
      <p className="quiet">
        As predicted <b className="figure">{count('as predicted')}</b>, predicted and not there{' '}
        <b className="figure">{count('predicted, not there')}</b>, not predicted <b className="figure">{count('not predicted')}</b>. Upper
        half: chance of damage by this cause. Lower half: grade found, hatched where not examined.
      </p>
      <div className="predicted-scroll" tabIndex={0} role="group" aria-label="Bench, predicted above found">
        <svg width={width} height={plan.rows.length * ROW + 4} role="list">
          <defs>
            <pattern id="unseen-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="5" height="5" fill={COLOUR.paper} />
              <line x1="0" y1="0" x2="0" y2="5" stroke={COLOUR.lineDark} strokeWidth="1.4" />
            </pattern>
          </defs>
          {plan.rows.map((row, r) => (
            <g key={row.id} transform={`translate(0 ${r * ROW + 2})`}>
              <text x={LABEL - 8} y={16} textAnchor="end" fontSize={11} fill={COLOUR.pencil}>
                {row.label}
              </text>
              {row.cells.map((cell) => {
                const p = predicted.get(cell.station.id);
                if (!p) return null;
                const span = row.kind === 'oil' ? (plan.columns * column) / row.cells.length : cell.span * column;
                const x = LABEL + (row.kind === 'oil' ? cell.column * span : cell.column * column);
                const h = ROW - 4;
                const bar = (h / 2) * p.chance;
                const wrong = p.fit === 'not predicted' || p.fit === 'predicted, not there';
                return (
                  <g
                    key={cell.station.id}
                    role="listitem"
                    aria-label={`${cell.station.name}: chance ${percentText(p.chance)}, found ${p.grade === null ? 'not examined' : `grade ${gradeText(p.grade as 0)}`}, ${p.fit}`}
                    className={`predicted-cell ${wrong ? 'wrong' : ''}`}
                    onClick={() => void navigate(`/case/${caseId}/station/${cell.station.id}`)}
                  >
                    <title>{`${cell.station.name}: ${p.fit}, chance ${percentText(p.chance)}`}</title>
                    <rect x={x} y={0} width={span - 2} height={h} fill={COLOUR.mist} />
                    <rect x={x} y={h / 2 - bar} width={span - 2} height={bar} fill={COLOUR.faint} />
                    <rect
                      x={x}
                      y={h / 2}
                      width={span - 2}
                      height={h / 2}
                      fill={p.grade === null ? 'url(#unseen-hatch)' : GRADE_INFO[p.grade as 0].colour}
                    />
                    {p.grade !== null && span > 12 && (
                      <text
                        x={x + (span - 2) / 2}
                        y={h - 2}
                        textAnchor="middle"
                        fontSize={9.5}
                        fill={p.grade >= 3 ? COLOUR.white : COLOUR.ink}
                      >
                        {p.grade}
                      </text>
                    )}
                    {wrong && (
                      <rect
                        x={x - 0.5}
                        y={-0.5}
                        width={span - 1}
                        height={h + 1}
                        fill="none"
                        stroke={COLOUR.fault}
                        strokeWidth={1.8}
                        strokeDasharray={p.fit === 'predicted, not there' ? '3 2' : undefined}
                      />
                    )}
                  </g>
                );
              })}
            </g>
          ))}
        </svg>
      </div>
    </section>
  );
}
