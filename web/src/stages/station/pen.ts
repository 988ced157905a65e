import type { LineDepth, SurfaceMark, WearClass } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { useCallback, useState } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';

export type Tool = WearClass | 'unseen' | 'erase' | 'score';
export type Place = readonly [u: number, v: number];

/** What the hand draws with, the same on the picture and on the developed surface. */
export interface Pen {
  readonly tool: Tool;
  readonly setTool: (tool: Tool) => void;
  readonly radius: number;
  readonly setRadius: (radius: number) => void;
  readonly depth: LineDepth;
  readonly setDepth: (depth: LineDepth) => void;
  readonly made: SurfaceMark['made'];
  readonly setMade: (made: SurfaceMark['made']) => void;
  readonly radiusMm: number;
  readonly build: (points: readonly Place[]) => SurfaceMark;
  /** Keeps what was drawn; a line needs two ends. */
  readonly keep: (points: readonly Place[]) => void;
}

export function usePen(station: StationView): Pen {
  const record = useRecord();
  const { readOnly } = useCase();
  const frame = station.station.surface;
  const [tool, setTool] = useState<Tool>('lining');
  const [radius, setRadius] = useState(Math.max(0.5, Math.round((frame?.heightMm ?? 20) / 10)));
  const [depth, setDepth] = useState<LineDepth>('probe');
  const [made, setMade] = useState<SurfaceMark['made']>('found-so');
  const radiusMm = tool === 'score' ? 0.15 : tool === 'embedded' ? Math.min(radius, 1.2) : radius;
  const build = useCallback(
    (points: readonly Place[]): SurfaceMark => {
      const base = { id: crypto.randomUUID(), made, radiusMm };
      if (tool !== 'score') return { ...base, shape: 'stroke', class: tool, points };
      const first = points[0]!;
      const last = points.at(-1)!;
      return { ...base, shape: 'line', class: 'lining', points: [first, [last[0], first[1]]], depth };
    },
    [tool, radiusMm, made, depth],
  );
  const keep = (points: readonly Place[]): void => {
    if (readOnly || points.length === 0 || (tool === 'score' && points.length < 2)) return;
    record({ kind: 'mark-made', station: station.station.id, body: { mark: build(points.slice(0, 2000)) } });
  };
  return { tool, setTool, radius, setRadius, depth, setDepth, made, setMade, radiusMm, build, keep };
}
