import { Button, Slider, Space } from 'antd';
import type { EntryBodies } from '@true-ledger/core/entries';
import { corrected, tagDistanceMm, type Point } from '@true-ledger/core/photo';
import { useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { COLOUR } from '../../app/tokens.js';
import './station.css';

interface Region {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** The blur brush: round regions on the picture that others will not see. */
export function BlurEditor({
  src,
  size,
  regions,
  onKeep,
  onCancel,
}: {
  src: string;
  size: { readonly width: number; readonly height: number };
  regions: readonly Region[];
  onKeep: (regions: readonly Region[]) => void;
  onCancel: () => void;
}): ReactNode {
  const [list, setList] = useState<readonly Region[]>(regions);
  const [radius, setRadius] = useState(0.05);
  const drawing = useRef(false);
  const svg = useRef<SVGSVGElement>(null);
  const { width: w, height: h } = size;
  const put = (e: PointerEvent): void => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const next = { x: Math.min(1, Math.max(0, p.x / w)), y: Math.min(1, Math.max(0, p.y / h)), r: radius };
    const last = list.at(-1);
    if (last && drawing.current && Math.hypot((next.x - last.x) * w, (next.y - last.y) * h) < radius * w * 0.5) return;
    if (list.length < 500) setList([...list, next]);
  };
  return (
    <div className="corner-editor">
      <figure className="photo">
        <img src={src} alt="" width={w} height={h} draggable={false} />
        <svg
          ref={svg}
          viewBox={`0 0 ${w} ${h}`}
          role="application"
          aria-label="Paint over what others must not see"
          className="blur-field"
          onPointerDown={(e) => {
            put(e);
            drawing.current = true;
          }}
          onPointerMove={(e) => drawing.current && put(e)}
          onPointerUp={() => (drawing.current = false)}
          onPointerLeave={() => (drawing.current = false)}
        >
          {list.map((b, i) => (
            <circle key={i} cx={b.x * w} cy={b.y * h} r={b.r * w} className="blur-spot" />
          ))}
        </svg>
      </figure>
      <Space wrap>
        <Button type="primary" onClick={() => onKeep(list)}>
          Keep blurred
        </Button>
        <Button onClick={() => setList(list.slice(0, -1))} disabled={list.length === 0}>
          One back
        </Button>
        <Button onClick={onCancel}>Leave as it was</Button>
        <span className="row">
          Brush
          <Slider
            min={0.01}
            max={0.2}
            step={0.01}
            value={radius}
            onChange={setRadius}
            style={{ width: 110 }}
            ariaLabelForHandle="Brush size"
            tooltip={{ open: false }}
          />
        </span>
        <span className="quiet">Reports and readers see it blurred; the picture itself stays with builders.</span>
      </Space>
    </div>
  );
}

/** Matrix of an SVG colour filter that applies the tag's gains (the filter works in linear light by itself). */
export function GainFilter({ id, gains }: { id: string; gains: readonly [number, number, number] }): ReactNode {
  return (
    <svg width="0" height="0" style={{ position: 'absolute' }} aria-hidden="true">
      <filter id={id} colorInterpolationFilters="linearRGB">
        <feColorMatrix values={`${gains[0]} 0 0 0 0 0 ${gains[1]} 0 0 0 0 0 ${gains[2]} 0 0 0 0 0 1 0`} />
      </filter>
    </svg>
  );
}

/** Where the tag lies, a 20 mm bar in its plane, and two points measured in it. */
export function TagOverlay({
  tag,
  size,
}: {
  tag: EntryBodies['tag-read'];
  size: { readonly width: number; readonly height: number };
}): ReactNode {
  const [points, setPoints] = useState<readonly Point[]>([]);
  const svg = useRef<SVGSVGElement>(null);
  const { width: w, height: h } = size;
  const stroke = w / 400;
  const place = (e: PointerEvent): void => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    setPoints((held) => (held.length >= 2 ? [[p.x, p.y]] : [...held, [p.x, p.y]]));
  };
  const [a, b] = points;
  const distance = a && b ? tagDistanceMm(tag.corners, a, b, tag.codeMm) : null;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${w} ${h}`}
      className="tag-overlay"
      role="application"
      aria-label="Two points measure in the plane of the tag"
      onPointerDown={place}
    >
      <polygon points={tag.corners.map((c) => c.join(',')).join(' ')} fill="none" stroke={COLOUR.accent} strokeWidth={stroke * 2} />
      {points.map((p, i) => (
        <circle key={i} cx={p[0]} cy={p[1]} r={stroke * 4} fill="none" stroke={COLOUR.paper} strokeWidth={stroke * 2} />
      ))}
      {a && b && (
        <>
          <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke={COLOUR.paper} strokeWidth={stroke * 2} />
          <text x={(a[0] + b[0]) / 2} y={(a[1] + b[1]) / 2 - stroke * 8} fontSize={w / 26} textAnchor="middle">
            {distance === null ? '?' : `${distance.toFixed(1)} mm`}
          </text>
        </>
      )}
    </svg>
  );
}

/** One line on what the tag gave. */
export function tagWords(tag: EntryBodies['tag-read']): string {
  const grey = corrected([128, 128, 128], tag.gains).map((v) => Math.round(v));
  const cast = Math.max(...tag.gains) / Math.min(...tag.gains) - 1;
  return `by tag: scale in its plane, white balance ${cast < 0.03 ? 'neutral' : `${(cast * 100).toFixed(0)} % cast taken out`} (128 grey becomes ${grey.join(' ')})`;
}
