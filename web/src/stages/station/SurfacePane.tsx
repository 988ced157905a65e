import { Button } from 'antd';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { WEAR_CLASS_INFO, WEAR_CLASSES } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import type { Developed } from '@true-ledger/core/photo';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { Brushes } from './Brushes.js';
import type { Pen, Place } from './pen.js';
import { frontDown } from '../../surface/paint.js';
import { paintSurface, WIDTH } from './paintSurface.js';
import type { Flattened } from './useFlattened.js';
import './station.css';

/** Pixels of the picture by degree of arc, of flat faces by millimetre. */
function resolution({ pxPerMm, spanDeg }: Developed, frame: SurfaceFrame): string {
  const unit = spanDeg > 0 ? frame.widthMm / frame.uSpanDeg : 1;
  return `${(pxPerMm.middle * unit).toFixed(1)} px/${spanDeg > 0 ? '°' : 'mm'} in the middle, ${(pxPerMm.side * unit).toFixed(1)} at the side`;
}

interface Props {
  readonly station: StationView;
  readonly flat: Flattened;
  readonly pen: Pen;
  /** Is it drawn on: are the brushes out? */
  readonly drawing: boolean;
  readonly onDraw: (drawing: boolean) => void;
  /** Where the pointer is, here or on the picture. */
  readonly linked: Place | null;
  readonly onLinked: (place: Place | null) => void;
}

/** The developed surface as a place to draw on: brush or score line, by pointer or by keys. */
export function SurfacePane({ station, flat, pen, drawing, onDraw, linked, onLinked }: Props): ReactNode {
  const { readOnly } = useCase();
  const frame = station.station.surface!;
  const height = Math.min(330, Math.round((WIDTH * frame.heightMm) / frame.widthMm));
  const { tool, setTool, radiusMm, build, keep } = pen;
  const [picture, setPicture] = useState(true);
  const [draft, setDraft] = useState<ReadonlyArray<readonly [number, number]>>([]);
  const [cursor, setCursor] = useState<readonly [number, number] | null>(null);
  // The stroke in progress; kept outside React's state so that a fast flick loses no point between two renders.
  const path = useRef<ReadonlyArray<readonly [number, number]>>([]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const down = frontDown(frame);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const made = draft.length > 0 ? [build(draft)] : [];
    paintSurface(context, { station, flat, picture, made, spot: cursor ?? linked, radiusMm, height });
  }, [station, flat, draft, cursor, linked, picture, height, radiusMm, build]);

  const place = (e: PointerEvent): readonly [number, number] => {
    const box = e.currentTarget.getBoundingClientRect();
    const u = Math.min(1, Math.max(0, (e.clientX - box.left) / box.width));
    const v = Math.min(1, Math.max(0, (e.clientY - box.top) / box.height));
    return [Math.round(u * 1000) / 1000, Math.round((down ? 1 - v : v) * 1000) / 1000];
  };
  const follow = (points: ReadonlyArray<readonly [number, number]>): void => {
    path.current = points;
    setDraft(points);
  };
  const start = (e: PointerEvent): void => {
    if (readOnly || !drawing || e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    follow([place(e)]);
  };
  const draw = (e: PointerEvent): void => {
    const last = path.current.at(-1);
    if (!last) return;
    const p = place(e);
    if (Math.hypot((p[0] - last[0]) * WIDTH, (p[1] - last[1]) * height) >= 3) follow([...path.current, p]);
  };
  const end = (e: PointerEvent): void => {
    draw(e);
    keep(path.current);
    follow([]);
  };
  const keys = (e: KeyboardEvent): void => {
    const step: Record<string, readonly [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, down ? 1 : -1],
      ArrowDown: [0, down ? -1 : 1],
    };
    const by = step[e.key];
    const at = cursor ?? [0.5, 0.5];
    const byKey = WEAR_CLASSES.find((c) => WEAR_CLASS_INFO[c].key === e.key);
    if (by) setCursor([Math.min(1, Math.max(0, at[0] + by[0] / frame.columns)), Math.min(1, Math.max(0, at[1] + by[1] / frame.rows))]);
    else if (e.key === 'Enter' || e.key === ' ') {
      if (readOnly) return;
      onDraw(true);
      keep(
        tool === 'score'
          ? [
              [Math.max(0, at[0] - 0.15), at[1]],
              [Math.min(1, at[0] + 0.15), at[1]],
            ]
          : [at],
      );
    } else if (e.key === 'Escape' && draft.length > 0) follow([]);
    else if (byKey) {
      setTool(byKey);
      onDraw(true);
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };

  return (
    <section className="pane surface-pane" aria-label="Developed surface">
      <h2>
        Developed surface
        {!readOnly && (
          <Button size="small" aria-pressed={drawing} type={drawing ? 'primary' : 'default'} onClick={() => onDraw(!drawing)} title="d">
            {drawing ? 'Done drawing' : 'Draw'}
          </Button>
        )}
        {flat.result && (
          <Button size="small" onClick={() => setPicture((x) => !x)}>
            {picture ? 'Hide picture' : 'Show picture'}
          </Button>
        )}
      </h2>
      {/* Its line is kept free while there is nothing to say, so that the surface does not move under the pen. */}
      <p className="surface-note quiet figure">
        {flat.busy
          ? 'flattening …'
          : flat.result && `${resolution(flat.result, frame)}; ${flat.result.notSeenPercent.toFixed(0)} % too oblique`}
      </p>
      <div className="surface-labels top">
        <span>{frame.uFrom}</span>
        <span>{down ? frame.vTo : frame.vFrom}</span>
        <span>{frame.uTo}</span>
      </div>
      <canvas
        ref={canvas}
        width={WIDTH}
        height={height}
        className={drawing ? 'draw-surface drawing' : 'draw-surface'}
        tabIndex={0}
        role="application"
        aria-label={`Developed surface of ${station.station.name}. Arrow keys move the brush, Enter marks, letters choose what: ${WEAR_CLASSES.filter(
          (c) => c !== 'sound',
        )
          .map((c) => `${WEAR_CLASS_INFO[c].key} ${WEAR_CLASS_INFO[c].name}`)
          .join(', ')}.`}
        onPointerDown={start}
        onPointerMove={(e) => {
          onLinked(place(e));
          draw(e);
        }}
        onPointerLeave={() => onLinked(null)}
        onPointerUp={end}
        onPointerCancel={() => follow([])}
        onKeyDown={keys}
        onBlur={() => setCursor(null)}
      />
      <div className="surface-labels">
        <span />
        <span>{down ? frame.vFrom : frame.vTo}</span>
        <span className="figure">
          {frame.widthMm.toFixed(1)} × {frame.heightMm.toFixed(1)} mm
        </span>
      </div>
      {!readOnly && drawing && <Brushes pen={pen} frame={frame} marks={station.marks.length} />}
    </section>
  );
}
