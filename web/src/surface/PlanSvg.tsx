import { planDrawing, type EngineLayout } from '@true-ledger/core/engine';
import { memo, type ReactNode } from 'react';
import { COLOUR, through } from '../app/tokens.js';

/** Plan of the engine, front at left, in true proportion. `detail` adds numbers, firing and end names. */
export const PlanSvg = memo(function PlanSvg({
  layout,
  height,
  detail = false,
}: {
  layout: EngineLayout;
  height: number;
  detail?: boolean;
}): ReactNode {
  const plan = planDrawing(layout);
  const pad = detail ? plan.heightMm * 0.16 : 0;
  const text = plan.heightMm * (detail ? 0.085 : 0.2);
  return (
    <svg
      height={height}
      width={(height * (plan.widthMm + pad * 2)) / (plan.heightMm + pad)}
      viewBox={`${-pad} ${-pad / 2} ${plan.widthMm + pad * 2} ${plan.heightMm + pad}`}
      role="img"
      aria-label={`Engine plan, front at left: ${layout.cylinders} cylinders, ${layout.mains} mains, firing order ${layout.firingOrder.join(' ')}`}
      style={{ maxWidth: '100%' }}
    >
      <line
        x1={-pad * 0.4}
        x2={plan.widthMm + pad * 0.4}
        y1={plan.crankY}
        y2={plan.crankY}
        stroke={COLOUR.faint}
        strokeWidth={plan.heightMm * 0.008}
        strokeDasharray={`${plan.heightMm * 0.06} ${plan.heightMm * 0.03}`}
      />
      {plan.mains.map((m) => (
        <g key={m.main}>
          <rect
            x={m.x}
            y={m.y}
            width={m.width}
            height={m.height}
            fill={m.thrust ? COLOUR.lineDark : COLOUR.tin}
            stroke={COLOUR.quiet}
            strokeWidth={plan.heightMm * 0.008}
          />
          {detail && (
            <text x={m.x + m.width / 2} y={m.y + m.height + text * 1.05} fontSize={text * 0.9} textAnchor="middle" fill={COLOUR.ink}>
              M{m.main}
            </text>
          )}
        </g>
      ))}
      {plan.bores.map((b) => (
        <g key={b.cylinder}>
          <circle
            cx={b.x}
            cy={b.y}
            r={b.r}
            fill={detail ? through('paper', 0.7) : 'none'}
            stroke={COLOUR.accent}
            strokeWidth={plan.heightMm * 0.014}
          />
          {detail && (
            <>
              <text x={b.x} y={b.y - text * 0.05} fontSize={text * 1.5} fontWeight="700" textAnchor="middle" fill={COLOUR.ink}>
                {b.cylinder}
              </text>
              {[`fires ${b.fires}`, `+${b.intervalDeg}°`].map((words, i) => (
                <text key={i} x={b.x} y={b.y + text * (0.95 + 0.9 * i)} fontSize={text * 0.85} textAnchor="middle" fill={COLOUR.quiet}>
                  {words}
                </text>
              ))}
            </>
          )}
        </g>
      ))}
      {detail && (
        <>
          <text x={-pad * 0.9} y={plan.crankY - text * 0.5} fontSize={text} fill={COLOUR.ink}>
            front
          </text>
          <text x={plan.widthMm + pad * 0.95} y={plan.crankY - text * 0.5} fontSize={text} textAnchor="end" fill={COLOUR.ink}>
            flywheel
          </text>
        </>
      )}
    </svg>
  );
});
