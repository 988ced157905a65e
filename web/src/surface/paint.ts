import type { SurfaceFrame } from '@true-ledger/core/engine';
import { damageShare, WEAR_CLASS_INFO, type SurfaceMark, type WearMap } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import type { Developed, Turn } from '@true-ledger/core/photo';
import { cellColours } from '@true-ledger/core/report';
import { COLOUR, through } from '../app/tokens.js';

/** Is v = 0 drawn at the bottom? Shells and journals stand with their front edge down, bores and skirts with the deck up. */
export function frontDown(frame: SurfaceFrame): boolean {
  return frame.vFrom === 'front edge';
}

/** The wear map as a raster of one pixel a cell, lying as the surface does on its station. */
export function drawWearRaster(canvas: HTMLCanvasElement, map: WearMap, frame: SurfaceFrame): void {
  canvas.width = map.columns;
  canvas.height = map.rows;
  const context = canvas.getContext('2d');
  if (!context) return;
  const down = frontDown(frame);
  cellColours(map).forEach((colour, i) => {
    if (!colour) return;
    const row = Math.floor(i / map.columns);
    context.fillStyle = colour;
    context.fillRect(i % map.columns, down ? map.rows - 1 - row : row, 1, 1);
  });
}

/** Draws marks as the strokes they are, on a canvas of the surface's size. */
export function drawMarks(
  context: CanvasRenderingContext2D,
  frame: SurfaceFrame,
  marks: readonly SurfaceMark[],
  width: number,
  height: number,
  alpha: number,
): void {
  const down = frontDown(frame);
  const layer = new OffscreenCanvas(Math.max(1, Math.round(width)), Math.max(1, Math.round(height)));
  const ink = layer.getContext('2d');
  if (!ink) return;
  const kx = width / frame.widthMm;
  const ky = height / frame.heightMm;
  for (const mark of marks) {
    ink.save();
    // The brush is round in millimetres; scaling the axes makes it an ellipse on screen where they differ.
    ink.scale(kx, ky);
    ink.globalCompositeOperation = mark.class === 'erase' ? 'destination-out' : 'source-over';
    const colour = mark.class === 'erase' ? COLOUR.black : mark.class === 'unseen' ? COLOUR.white : WEAR_CLASS_INFO[mark.class].colour;
    ink.strokeStyle = colour;
    ink.fillStyle = colour;
    ink.lineCap = mark.shape === 'line' ? 'butt' : 'round';
    ink.lineJoin = 'round';
    const least = mark.shape === 'line' ? 1.6 / ky : 0;
    ink.lineWidth = Math.max(least, mark.radiusMm * 2);
    const at = (p: readonly [number, number]): [number, number] => [p[0] * frame.widthMm, (down ? 1 - p[1] : p[1]) * frame.heightMm];
    if (mark.shape === 'line' && mark.depth !== 'through') ink.strokeStyle = mark.depth === 'hair' ? COLOUR.faint : COLOUR.ink;
    if (mark.shape === 'line' && mark.depth === 'hair') ink.setLineDash([1.4, 0.9]);
    ink.beginPath();
    const [first] = mark.points;
    if (first && mark.points.length === 1) {
      ink.arc(...at(first), mark.radiusMm, 0, Math.PI * 2);
      ink.fill();
    } else {
      mark.points.forEach((p, i) => (i === 0 ? ink.moveTo(...at(p)) : ink.lineTo(...at(p))));
      ink.stroke();
    }
    ink.restore();
  }
  context.save();
  context.globalAlpha = alpha;
  context.drawImage(layer, 0, 0);
  context.restore();
}

/** A developed picture on the frame of its place. A piece of a full turn lies at its own arc, and goes on at the other end where it runs over. */
export function drawDeveloped(
  context: CanvasRenderingContext2D,
  frame: SurfaceFrame,
  developed: Developed,
  { facingDeg }: Turn,
  width: number,
  height: number,
): void {
  const { width: w, height: h, data } = developed.pixels;
  const layer = new OffscreenCanvas(w, h);
  layer.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(data), w, h), 0, 0);
  const piece = frame.uSpanDeg > developed.spanDeg && developed.spanDeg > 0;
  const wide = piece ? (width * developed.spanDeg) / frame.uSpanDeg : width;
  const left = piece ? (width * facingDeg) / frame.uSpanDeg - wide / 2 : 0;
  for (const turn of piece ? [-width, 0, width] : [0]) context.drawImage(layer, left + turn, 0, wide, height);
}

/** What was read in pictures: cells in the colour of what they mostly show, as strong as their damage, and the lines. */
export function drawRead(
  context: CanvasRenderingContext2D,
  frame: SurfaceFrame,
  station: Pick<StationView, 'wear' | 'readLines'>,
  width: number,
  height: number,
  alpha: number,
): void {
  const { wear } = station;
  if (!wear) return;
  const down = frontDown(frame);
  const colours = cellColours(wear);
  const [w, h] = [width / wear.columns, height / wear.rows];
  context.save();
  for (let cell = 0; cell < colours.length; cell++) {
    const share = damageShare(wear, cell);
    const colour = colours[cell];
    if (!colour || share < 0.04) continue;
    const row = Math.floor(cell / wear.columns);
    context.globalAlpha = alpha * Math.min(1, 0.35 + share);
    context.fillStyle = colour;
    context.fillRect((cell % wear.columns) * w, (down ? wear.rows - 1 - row : row) * h, w + 0.5, h + 0.5);
  }
  context.globalAlpha = 1;
  for (const line of station.readLines) {
    const y = (down ? 1 - line.axial : line.axial) * height;
    context.strokeStyle = line.through ? COLOUR.copper : COLOUR.ink;
    context.lineWidth = Math.max(1.5, (line.widthMm / frame.heightMm) * height);
    context.beginPath();
    context.moveTo((line.fromDeg / frame.uSpanDeg) * width, y);
    context.lineTo((line.toDeg / frame.uSpanDeg) * width, y);
    context.stroke();
  }
  context.restore();
}

/** All that is known of a surface: what was read, what was drawn over it, and what nobody saw. */
export function drawKnown(
  context: CanvasRenderingContext2D,
  frame: SurfaceFrame,
  view: Pick<StationView, 'wear' | 'reads' | 'readLines' | 'marks'>,
  width: number,
  height: number,
  alpha = 1,
): void {
  const { wear } = view;
  if (view.reads.length > 0) drawRead(context, frame, view, width, height, alpha);
  drawMarks(
    context,
    frame,
    view.marks.map((m) => m.value.mark),
    width,
    height,
    alpha,
  );
  drawUnseen(context, frame, (c, r) => wear === null || wear.seen[r * frame.columns + c]! < 0.25, width, height);
}

/** Hatches cells that were not seen. */
export function drawUnseen(
  context: CanvasRenderingContext2D,
  frame: SurfaceFrame,
  unseen: (column: number, row: number) => boolean,
  width: number,
  height: number,
): void {
  const w = width / frame.columns;
  const h = height / frame.rows;
  const down = frontDown(frame);
  context.save();
  context.strokeStyle = COLOUR.faint;
  context.lineWidth = 1;
  for (let row = 0; row < frame.rows; row++) {
    for (let column = 0; column < frame.columns; column++) {
      if (!unseen(column, row)) continue;
      const x = column * w;
      const y = (down ? frame.rows - 1 - row : row) * h;
      context.fillStyle = through('paper', 0.85);
      context.fillRect(x, y, w, h);
      context.beginPath();
      context.moveTo(x, y + h);
      context.lineTo(x + w, y);
      context.stroke();
    }
  }
  context.restore();
}
