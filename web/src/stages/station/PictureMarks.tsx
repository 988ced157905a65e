import { WEAR_CLASS_INFO, type SurfaceMark } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { fromPicture, inPicture, isFlattened, toPicture, toSurface, type Point } from '@true-ledger/core/photo';
import { useRef, useState, type PointerEvent, type ReactNode } from 'react';
import type { Pen, Place } from './pen.js';
import type { Flattened } from './useFlattened.js';
import { COLOUR } from '../../app/tokens.js';
import './station.css';

interface Props {
  readonly station: StationView;
  readonly flat: Flattened;
  readonly size: { readonly width: number; readonly height: number };
  readonly pen: Pen | null;
  readonly cursor: Place | null;
  readonly onCursor: (place: Place | null) => void;
}

/** Marks and cursor of the developed surface, laid on the photograph they were developed from; with a pen, drawn on there. */
export function PictureMarks({ station, flat, size, pen, cursor, onCursor }: Props): ReactNode {
  const svg = useRef<SVGSVGElement>(null);
  const path = useRef<readonly Place[]>([]);
  const [draft, setDraft] = useState<readonly Place[]>([]);
  const { part, surface: frame } = station.station;
  const mesh = flat.result;
  if (!frame || !mesh || !isFlattened(part)) return null;
  const put = ([u, v]: Place): Point | null => {
    const own = inPicture(part, frame, flat.turn, u, v);
    return own ? toPicture(mesh, own[0], own[1]) : null;
  };
  const place = (e: PointerEvent): Place | null => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const own = toSurface(mesh, p.x, p.y);
    if (!own) return null;
    const [u, v] = fromPicture(part, frame, flat.turn, own[0], own[1]);
    return [Math.round(u * 1000) / 1000, Math.round(v * 1000) / 1000];
  };
  /** Width of a millimetre in the picture near a place. */
  const scaleAt = ([u, v]: Place): number => {
    const a = put([u, Math.max(0, v - 0.02)]);
    const b = put([u, Math.min(1, v + 0.02)]);
    return a && b ? Math.hypot(a[0] - b[0], a[1] - b[1]) / (0.04 * frame.heightMm) : 1;
  };
  const drawn = (mark: SurfaceMark, key: string): ReactNode => {
    const points = mark.points.flatMap((p) => put(p) ?? []);
    if (points.length < 2 || mark.class === 'erase') return null;
    const pairs = Array.from({ length: points.length / 2 }, (_, k) => `${points[2 * k]},${points[2 * k + 1]}`);
    const wide = Math.max(size.width / 300, 2 * mark.radiusMm * scaleAt(mark.points[0]!));
    const colour = mark.class === 'unseen' ? COLOUR.white : mark.shape === 'line' ? COLOUR.ink : WEAR_CLASS_INFO[mark.class].colour;
    return (
      <polyline
        key={key}
        className="mark-on-picture"
        points={(pairs.length === 1 ? [pairs[0], pairs[0]] : pairs).join(' ')}
        stroke={colour}
        strokeWidth={wide}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    );
  };
  const follow = (points: readonly Place[]): void => {
    path.current = points;
    setDraft(points);
  };
  const at = cursor ? put(cursor) : null;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${size.width} ${size.height}`}
      className={pen ? 'picture-marks drawing' : 'picture-marks'}
      aria-hidden="true"
      onPointerDown={(e) => {
        const p = place(e);
        if (!pen || !p || e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        follow([p]);
      }}
      onPointerMove={(e) => {
        const p = place(e);
        onCursor(p);
        if (p && path.current.length > 0) follow([...path.current, p]);
      }}
      onPointerUp={() => {
        pen?.keep(path.current);
        follow([]);
      }}
      onPointerLeave={() => onCursor(null)}
      onPointerCancel={() => follow([])}
    >
      {station.marks.map((m) => drawn(m.value.mark, m.value.mark.id))}
      {pen && draft.length > 0 && drawn(pen.build(draft), 'draft')}
      {at && <circle cx={at[0]} cy={at[1]} r={size.width / 110} className="cursor-on-picture" />}
    </svg>
  );
}
