import { Button } from 'antd';
import type { ReferencePart } from '@true-ledger/contract';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { damageShare, WEAR_CLASS_INFO, WEAR_CLASSES } from '@true-ledger/core/damage';
import type { Likeness, StationView } from '@true-ledger/core/case';
import { isFlattened, USUAL_TURN, type Developed } from '@true-ledger/core/photo';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { drawDeveloped, drawKnown, frontDown } from '../../surface/paint.js';
import { isPhotographed } from '../../surface/surfaceImages.js';
import { stationWords } from '../../surface/stationWords.js';
import { compute } from '../../workers/compute.js';
import { COLOUR } from '../../app/tokens.js';
import { fetchFile } from '../../app/server.js';
import './compare.css';

/** Place on the surface, 0–1 each. */
export type Cursor = readonly [u: number, v: number];
export type Shown = 'picture' | 'map' | 'both';

interface Props {
  readonly caseId: string;
  /** What it is called beside its name: which strip, where two are laid side by side. */
  readonly of?: string;
  readonly station: StationView | null;
  readonly reference: ReferencePart | null;
  /** The first of the row: its frame is the scale, and a reference part is developed by it. */
  readonly like: StationView;
  readonly shown: Shown;
  /** Part of the surface that is shown. */
  readonly window: { readonly u: readonly [number, number]; readonly v: readonly [number, number] };
  /** Width of the widest of the row, px. */
  readonly px: number;
  /** The photographed surface on the frame of its place; null until it has come, or where there is none. */
  readonly photographed: ImageBitmap | null;
  /** Width of the widest of the row, mm: all are drawn to one scale. */
  readonly widest: number;
  readonly cursor: Cursor | null;
  readonly onCursor: (cursor: Cursor | null) => void;
  readonly alike: Likeness | null;
  readonly onRemove: (() => void) | null;
}

export function ComparedSurface({
  caseId,
  of,
  station,
  reference,
  like,
  shown,
  window: part,
  px,
  photographed,
  widest,
  cursor,
  onCursor,
  alike,
  onRemove,
}: Props): ReactNode {
  const frame = station?.station.surface ?? like.station.surface!;
  const kept = useReference(reference, like);
  const down = frontDown(frame);
  const [[u0, u1], [v0, v1]] = [part.u, part.v];
  // The whole surface is drawn to the scale of the row, and the part of it that is looked at fills the width.
  const scale = px / (widest * (u1 - u0));
  const [wide, tall] = [frame.widthMm * scale, frame.heightMm * scale];
  const width = Math.round(wide * (u1 - u0));
  const height = Math.max(24, Math.round(tall * (v1 - v0)));
  const [left, top] = [u0 * wide, (down ? 1 - v1 : v0) * tall];
  const pictured = station ? photographed !== null : kept !== null;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.fillStyle = COLOUR.steel;
    context.fillRect(0, 0, width, height);
    context.save();
    context.translate(-left, -top);
    if (shown !== 'map' && photographed) context.drawImage(photographed, 0, 0, wide, tall);
    if (shown !== 'map' && kept) drawDeveloped(context, frame, kept, USUAL_TURN, wide, tall);
    if (station && (shown !== 'picture' || !photographed))
      drawKnown(context, frame, station, wide, tall, shown === 'both' && photographed ? 0.5 : 1);
    context.restore();
    if (cursor) {
      const [x, y] = [cursor[0] * wide - left, (down ? 1 - cursor[1] : cursor[1]) * tall - top];
      context.strokeStyle = COLOUR.accent;
      context.lineWidth = 1.5;
      context.beginPath();
      context.moveTo(x, 0);
      context.lineTo(x, height);
      context.moveTo(0, y);
      context.lineTo(width, y);
      context.stroke();
      context.fillStyle = COLOUR.white;
      context.beginPath();
      context.arc(x, y, 3, 0, 7);
      context.fill();
      context.stroke();
    }
  }, [photographed, kept, shown, station, cursor, frame, width, height, wide, tall, left, top, down]);
  const name = [station?.station.name ?? reference?.name ?? '', of].filter(Boolean).join(', ');
  /** A place of what is shown, 0–1 each from its left upper corner. */
  const move = (x: number, y: number): void => {
    const [u, w] = [(left + x * width) / wide, (top + y * height) / tall];
    onCursor([Math.min(1, Math.max(0, u)), Math.min(1, Math.max(0, down ? 1 - w : w))]);
  };
  return (
    <section className="pane compared" aria-label={name}>
      <h2>
        {station ? <Link to={`/case/${caseId}/station/${station.station.id}`}>{name}</Link> : name}
        {onRemove && (
          <Button size="small" type="text" onClick={onRemove} aria-label={`Take away ${name}`}>
            Take away
          </Button>
        )}
      </h2>
      <canvas
        ref={canvas}
        width={width}
        height={height}
        data-shows={pictured && shown !== 'map' ? 'picture' : 'map'}
        tabIndex={0}
        role="img"
        aria-label={`${name}: ${station ? stationWords(station) : 'part as it should be'}. Arrow keys move the cursor over all.`}
        onPointerMove={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          move((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height);
        }}
        onPointerLeave={() => onCursor(null)}
        onKeyDown={(e) => {
          const by: Record<string, readonly [number, number]> = {
            ArrowLeft: [-1, 0],
            ArrowRight: [1, 0],
            ArrowUp: [0, -1],
            ArrowDown: [0, 1],
          };
          const step = by[e.key];
          if (!step) return;
          e.preventDefault();
          e.stopPropagation();
          const [u, v] = cursor ?? [(u0 + u1) / 2, (v0 + v1) / 2];
          const onward = (at: number, by: number): number => Math.min(1, Math.max(0, at + by));
          onCursor([onward(u, step[0] / frame.columns), onward(v, ((down ? -1 : 1) * step[1]) / frame.rows)]);
        }}
      />
      <p className="quiet compared-words">
        {station ? stationWords(station) : reference?.note || 'as it should be'}
        {alike && (
          <>
            {' '}
            · <b className="figure">{Math.round(alike.alike * 100)} %</b> alike: {alike.why}
          </>
        )}
      </p>
      <p className="figure cursor-words">{cursor ? placeWords(station, frame, cursor) : ' '}</p>
      {station && shown !== 'map' && !photographed && (
        <p className="quiet">{isPhotographed(station) ? 'The surface is being laid out …' : 'No picture with its corners placed.'}</p>
      )}
      {reference && reference.readings.length > 0 && (
        <ul className="reference-readings">
          {reference.readings.slice(0, 6).map((r) => (
            <li key={r.what}>
              {r.what} <b className="figure">{r.value}</b>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What lies under the cursor: arc, distance from the edge, and the classes there. */
function placeWords(station: StationView | null, frame: SurfaceFrame, [u, v]: Cursor): string {
  const place = `${frame.uSpanDeg > 0 ? `${(u * frame.uSpanDeg).toFixed(0)}°` : `${(u * frame.widthMm).toFixed(1)} mm`}, ${(v * frame.heightMm).toFixed(1)} mm from the ${frame.vFrom}`;
  const wear = station?.wear;
  if (!wear) return place;
  const cell = Math.min(wear.rows - 1, Math.floor(v * wear.rows)) * wear.columns + Math.min(wear.columns - 1, Math.floor(u * wear.columns));
  if (wear.seen[cell]! < 0.05) return `${place}: not seen`;
  if (damageShare(wear, cell) < 0.01) return `${place}: sound`;
  const found = WEAR_CLASSES.filter((c) => c !== 'sound' && wear.shares[c][cell]! >= 0.01).map(
    (c) => `${WEAR_CLASS_INFO[c].name.toLowerCase()} ${Math.round(100 * wear.shares[c][cell]!)} %`,
  );
  return `${place}: ${found.join(', ')}`;
}

/** The developed surface of a reference part, by the frame of the part it is held against. */
function useReference(reference: ReferencePart | null, like: StationView): Developed | null {
  const [result, setResult] = useState<Developed | null>(null);
  const { part, surface } = like.station;
  useEffect(() => {
    setResult(null);
    if (!reference?.corners || !surface || !isFlattened(part)) return;
    let current = true;
    const { corners, width, height } = reference;
    fetchFile(`/api/references/${reference.id}/picture`)
      .then(async (file) =>
        file.ok ? await compute().flatten(file.value.blob, corners, { width, height }, part, surface, USUAL_TURN) : null,
      )
      .then((answer) => {
        if (current && answer?.ok) setResult(answer.value);
      })
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [reference, part, surface]);
  return result;
}
