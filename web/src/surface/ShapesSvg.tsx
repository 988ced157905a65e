import type { Shape } from '@true-ledger/core/diagnosis';
import type { ReactNode } from 'react';
import { COLOUR } from '../app/tokens.js';

/** A drawing of an account from its shapes. */
export function ShapesSvg({
  shapes,
  width,
  height,
  label,
}: {
  shapes: readonly Shape[];
  width: number;
  height: number;
  label: string;
}): ReactNode {
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width="100%" style={{ maxWidth: width }} role="img" aria-label={label}>
      <defs>
        <marker id="sequence-arrow" markerWidth="9" markerHeight="8" refX="6" refY="4" orient="auto" markerUnits="userSpaceOnUse">
          <path d="M0 0 L9 4 L0 8 Z" fill={COLOUR.pencil} />
        </marker>
      </defs>
      {shapes.map((s, i) => {
        if (s.kind === 'box')
          return (
            <rect
              key={i}
              x={s.x}
              y={s.y}
              width={s.w}
              height={s.h}
              fill={s.fill}
              stroke={s.stroke}
              strokeWidth={1.2}
              strokeDasharray={s.dash ? '4 3' : undefined}
            />
          );
        if (s.kind === 'text')
          return (
            <text
              key={i}
              x={s.x}
              y={s.y}
              fontSize={s.size}
              fill={s.fill}
              fontFamily={s.bold ? 'Barlow Semi Condensed' : 'B612'}
              fontWeight={s.bold ? 600 : 400}
            >
              {s.text}
            </text>
          );
        return (
          <path
            key={i}
            d={s.d}
            fill="none"
            stroke={s.stroke}
            strokeWidth={1.4}
            strokeDasharray={s.dash ? '2 4' : undefined}
            markerEnd={s.arrow ? 'url(#sequence-arrow)' : undefined}
          />
        );
      })}
    </svg>
  );
}
