import { Button, Space } from 'antd';
import { isConvex, type FlattenedPart, type Point, type Turn } from '@true-ledger/core/photo';
import { useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { NumberField } from '../../fields/NumberField.js';
import { CORNER_WORDS } from './cornerWords.js';
import './station.css';

interface Props {
  readonly src: string;
  readonly size: { readonly width: number; readonly height: number };
  readonly corners: readonly Point[] | undefined;
  readonly part: FlattenedPart;
  readonly turn: Turn;
  /** What happens once the corners are placed; the surface is flattened when left out. */
  readonly act?: string;
  readonly onKeep: (corners: readonly Point[], turn: Turn) => void;
  readonly onCancel: () => void;
}

/** Four handles on the picture, dragged by pointer or moved by arrow keys (Shift: ten times as far). Points in pixels of the upright original. */
export function CornerEditor({ src, size, corners, part, turn, act = 'Flatten', onKeep, onCancel }: Props): ReactNode {
  const { width: w, height: h } = size;
  const words = CORNER_WORDS[part];
  const [shown, setShown] = useState(turn);
  const [points, setPoints] = useState<readonly Point[]>(
    corners ?? [
      [w * 0.2, h * 0.7],
      [w * 0.2, h * 0.3],
      [w * 0.8, h * 0.3],
      [w * 0.8, h * 0.7],
    ],
  );
  const [held, setHeld] = useState<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const fits = isConvex(points);
  const place = (i: number, [x, y]: Point): void =>
    setPoints((p) => p.map((q, k) => (k === i ? ([Math.min(w, Math.max(0, x)), Math.min(h, Math.max(0, y))] as const) : q)));
  const drag = (e: PointerEvent): void => {
    const matrix = svg.current?.getScreenCTM();
    if (held === null || !matrix) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    place(held, [p.x, p.y]);
  };
  const nudge =
    (i: number) =>
    (e: KeyboardEvent): void => {
      const step = (w / 600) * (e.shiftKey ? 10 : 1);
      const move: Record<string, Point> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] };
      const by = move[e.key];
      const p = points[i];
      if (!by || !p) return;
      e.preventDefault();
      e.stopPropagation();
      place(i, [p[0] + by[0], p[1] + by[1]]);
    };
  return (
    <div className="corner-editor">
      <figure className="photo">
        <img src={src} alt="" width={w} height={h} draggable={false} />
        <svg
          ref={svg}
          viewBox={`0 0 ${w} ${h}`}
          onPointerMove={drag}
          onPointerUp={() => setHeld(null)}
          onPointerLeave={() => setHeld(null)}
        >
          <polygon points={points.map((p) => p.join(',')).join(' ')} className={fits ? '' : 'crossed'} />
          {points.map((p, i) => (
            <g key={words.names[i]} transform={`translate(${p[0]} ${p[1]})`}>
              <circle
                r={w / 45}
                tabIndex={0}
                role="slider"
                aria-label={`Corner ${words.names[i]}`}
                aria-valuenow={Math.round(p[0])}
                aria-valuetext={`${Math.round(p[0])}, ${Math.round(p[1])}`}
                className={held === i ? 'held' : ''}
                onPointerDown={(e) => {
                  e.currentTarget.releasePointerCapture?.(e.pointerId);
                  setHeld(i);
                }}
                onKeyDown={nudge(i)}
              />
              <text fontSize={w / 40} y={i === 0 || i === 3 ? w / 18 : -w / 32} textAnchor="middle">
                {words.names[i]}
              </text>
            </g>
          ))}
        </svg>
      </figure>
      {words.facing && (
        <Space wrap>
          <label>
            {words.facing}{' '}
            <NumberField
              min={0}
              max={360}
              value={shown.facingDeg}
              onChange={(v) => setShown((t) => ({ ...t, facingDeg: v ?? 0 }))}
              unit="°"
              aria-label={words.facing}
            />
          </label>
          {part === 'bore' && (
            <label>
              Arc of the strip{' '}
              <NumberField
                min={5}
                max={360}
                value={shown.arcDeg}
                onChange={(v) => setShown((t) => ({ ...t, arcDeg: v ?? 90 }))}
                unit="°"
                aria-label="Arc of the strip"
              />
            </label>
          )}
        </Space>
      )}
      <Space wrap>
        <Button
          type="primary"
          disabled={!fits}
          onClick={() =>
            onKeep(
              points.map((p) => [Math.round(p[0] * 10) / 10, Math.round(p[1] * 10) / 10] as const),
              shown,
            )
          }
        >
          {act}
        </Button>
        <Button onClick={onCancel}>Leave as it was</Button>
        <span className={fits ? 'quiet' : 'fault'}>{fits ? words.hint : 'The corners cross. Go round the face.'}</span>
      </Space>
    </div>
  );
}
