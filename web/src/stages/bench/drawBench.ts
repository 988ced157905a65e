import type { Likeness, StationView } from '@true-ledger/core/case';
import type { Predicted } from '@true-ledger/core/diagnosis';
import { percentText } from '@true-ledger/core/cause';
import type { UnrolledBench, UnrolledCell } from '@true-ledger/core/engine';
import { memoOf } from '@true-ledger/core/kit';
import { ARCS } from '@true-ledger/core/running';
import { frontDown } from '../../surface/paint.js';
import { COLOUR, through } from '../../app/tokens.js';
import { FIGURES, figure, frame, hatch, label, mark, words, type Box } from './benchInk.js';
import { contoursOf } from './contours.js';
import type { BenchClearance, LoadedBench } from './overlays.js';
import type { SurfaceImages } from '../../surface/surfaceImages.js';

/** What lies in the cells; each can be there or not. */
export type BenchLayer = 'picture' | 'read' | 'grade';
/** What is laid over the cells; one at a time. */
export type BenchOverlay = 'none' | 'not-examined' | 'oil' | 'predicted' | 'difference' | 'load' | 'clearance' | 'alike';

/** Everything one drawing of the bench shows. */
export interface BenchScene {
  readonly bench: UnrolledBench;
  readonly views: ReadonlyMap<string, StationView>;
  readonly images: SurfaceImages;
  /** Pixels of the sheet to one of the drawing. */
  readonly fine: number;
  readonly layers: ReadonlySet<BenchLayer>;
  readonly overlay: BenchOverlay;
  readonly at: string;
  readonly chosen: ReadonlySet<string>;
  readonly oilOrder: ReadonlyMap<string, number>;
  readonly predicted: ReadonlyMap<string, Predicted>;
  readonly loaded: LoadedBench;
  readonly clearances: ReadonlyMap<string, BenchClearance>;
  readonly alike: readonly Likeness[];
}

/** From mm of the bench to pixels of the drawing. */
export interface BenchView {
  readonly k: number;
  readonly x: number;
  readonly y: number;
}

const contoursKept = memoOf('contours of a surface', (down: boolean) => String(down), contoursOf);

/** Draws the bench on a canvas of `width` × `height`; what lies outside of it is not touched. */
export function drawBench(context: CanvasRenderingContext2D, scene: BenchScene, view: BenchView, width: number, height: number): void {
  context.clearRect(0, 0, width, height);
  const boxes = new Map<string, Box>();
  for (const cell of scene.bench.cells) {
    const box = { x: cell.x * view.k + view.x, y: cell.y * view.k + view.y, w: cell.width * view.k, h: cell.height * view.k };
    boxes.set(cell.station.id, box);
    if (box.x > width || box.y > height || box.x + box.w < 0 || box.y + box.h < 0) continue;
    const station = scene.views.get(cell.station.id);
    if (station) drawCell(context, scene, cell, station, box);
  }
  if (scene.overlay === 'alike') drawStrings(context, scene, boxes);
  for (const id of scene.chosen) frame(context, boxes.get(id), COLOUR.ink, 3, [5, 3]);
  frame(context, boxes.get(scene.at), COLOUR.accent, 4);
}

function drawCell(context: CanvasRenderingContext2D, scene: BenchScene, cell: UnrolledCell, view: StationView, box: Box): void {
  context.save();
  outline(context, cell, box);
  context.save();
  context.clip();
  surface(context, scene, view, box);
  overlay(context, scene, view, box);
  context.restore();
  outline(context, cell, box);
  context.strokeStyle = COLOUR.pencil;
  context.lineWidth = 1;
  context.stroke();
  context.restore();
  label(context, view, box);
  if (scene.layers.has('grade') && scene.overlay === 'none') mark(context, view, box);
}

/** A crown is round; everything else lies unrolled. */
function outline(context: CanvasRenderingContext2D, { station }: UnrolledCell, { x, y, w, h }: Box): void {
  context.beginPath();
  if (station.part === 'crown') context.ellipse(x + w / 2, y + h / 2, w / 2, h / 2, 0, 0, 2 * Math.PI);
  else context.rect(x, y, w, h);
}

/** The photographed surface, else what was drawn, else bare metal or hatch; lines round what was read over it. */
function surface(context: CanvasRenderingContext2D, { images, layers, fine }: BenchScene, view: StationView, { x, y, w, h }: Box): void {
  const picture = layers.has('picture') ? images.photographed(view, w * fine) : null;
  const drawing = layers.has('picture') || layers.has('read') ? images.drawn(view) : null;
  if (view.state === 'not-examined' && !picture) hatch(context, { x, y, w, h });
  else {
    context.fillStyle = view.state === 'lost' || view.state === 'before-us' ? COLOUR.tin : COLOUR.steel;
    context.fillRect(x, y, w, h);
  }
  if (picture) context.drawImage(picture, x, y, w, h);
  else if (drawing) {
    context.imageSmoothingEnabled = view.reads.length > 0;
    context.drawImage(drawing, x, y, w, h);
    context.imageSmoothingEnabled = true;
  }
  if (layers.has('read') && picture) contoursOver(context, view, { x, y, w, h });
}

/** Fine lines round what was read or drawn and along every score, light on dark and dark on light. */
function contoursOver(context: CanvasRenderingContext2D, { station, wear, readLines }: StationView, { x, y, w, h }: Box): void {
  if (!wear || !station.surface) return;
  context.save();
  context.translate(x, y);
  context.scale(w / wear.columns, h / wear.rows);
  const perCell = Math.sqrt((w / wear.columns) * (h / wear.rows));
  for (const { colour, path } of contoursKept(wear, frontDown(station.surface))) {
    context.strokeStyle = COLOUR.white;
    context.lineWidth = 2.6 / perCell;
    context.stroke(path);
    context.strokeStyle = colour;
    context.lineWidth = 1.4 / perCell;
    context.stroke(path);
  }
  context.restore();
  const { uSpanDeg } = station.surface;
  for (const { axial, fromDeg, toDeg, through } of readLines) {
    const level = y + (frontDown(station.surface) ? 1 - axial : axial) * h;
    const line = new Path2D(`M${x + (fromDeg / uSpanDeg) * w} ${level}H${x + (toDeg / uSpanDeg) * w}`);
    context.strokeStyle = COLOUR.white;
    context.lineWidth = 2.4;
    context.stroke(line);
    context.strokeStyle = through ? COLOUR.copper : COLOUR.ink;
    context.lineWidth = 1.2;
    context.stroke(line);
  }
}

function overlay(context: CanvasRenderingContext2D, scene: BenchScene, view: StationView, box: Box): void {
  const { id } = view.station;
  const wash = (colour: string): void => {
    context.fillStyle = colour;
    context.fillRect(box.x, box.y, box.w, box.h);
  };
  switch (scene.overlay) {
    case 'not-examined':
      if (view.state !== 'not-examined') wash(through('plate', 0.78));
      return;
    case 'oil': {
      const order = scene.oilOrder.get(id);
      if (order !== undefined) figure(context, String(order), box);
      else wash(through('plate', 0.6));
      return;
    }
    case 'predicted': {
      const chance = scene.predicted.get(id)?.chance ?? 0;
      wash(through('plate', 0.5));
      wash(through('heat', 0.8 * chance));
      if (chance >= 0.05) figure(context, percentText(chance), box);
      return;
    }
    case 'difference': {
      const fit = scene.predicted.get(id)?.fit;
      if (fit === 'not predicted' || fit === 'predicted, not there') {
        frame(context, box, COLOUR.fault, 6, fit === 'predicted, not there' ? [6, 4] : []);
        figure(context, fit === 'not predicted' ? '+' : '−', box);
      } else wash(through('plate', 0.6));
      return;
    }
    case 'load':
      return wornByLoad(context, scene.loaded, view, box);
    case 'clearance': {
      const held = scene.clearances.get(id);
      if (!held) return wash(through('plate', 0.6));
      figure(context, held.words, box, held.within === false ? COLOUR.fault : COLOUR.ink);
    }
  }
}

/** Below this share of the most a cell is left as it is. */
const SHOWS = 0.04;

/** What load and film would wear of a half shell, over what was found of it; other places are faded. */
function wornByLoad(context: CanvasRenderingContext2D, loaded: LoadedBench, { station }: StationView, { x, y, w, h }: Box): void {
  const wear = station.part === 'shell' && station.bearing && station.half ? loaded.worn?.get(station.bearing)?.[station.half] : undefined;
  if (!wear || !station.surface) {
    context.fillStyle = through('plate', 0.6);
    context.fillRect(x, y, w, h);
    return;
  }
  const rows = wear.length / ARCS;
  const [cw, ch] = [w / ARCS, h / rows];
  const down = frontDown(station.surface);
  wear.forEach((share, i) => {
    if (share < SHOWS) return;
    const row = Math.floor(i / ARCS);
    context.fillStyle = through('copper', 0.85 * share);
    context.fillRect(x + (i % ARCS) * cw, y + (down ? rows - 1 - row : row) * ch, cw + 0.5, ch + 0.5);
  });
}

/** A string from the place under the cursor to every place that looks like it, the wider the more. */
function drawStrings(context: CanvasRenderingContext2D, { at, alike }: BenchScene, boxes: ReadonlyMap<string, Box>): void {
  const from = boxes.get(at);
  if (!from) return;
  const middle = ({ x, y, w, h }: Box): readonly [number, number] => [x + w / 2, y + h / 2];
  for (const { view, alike: by } of alike) {
    const to = boxes.get(view.station.id);
    if (!to) continue;
    const [[ax, ay], [bx, by2]] = [middle(from), middle(to)];
    const curve = new Path2D();
    curve.moveTo(ax, ay);
    curve.quadraticCurveTo((ax + bx) / 2, Math.min(ay, by2) - 0.18 * Math.abs(bx - ax) - 12, bx, by2);
    for (const [colour, wide] of [
      [COLOUR.white, 3 + 6 * by],
      [COLOUR.accent, 1 + 5 * by],
    ] as const) {
      context.strokeStyle = colour;
      context.lineWidth = wide;
      context.stroke(curve);
    }
    const text = `${Math.round(by * 100)} %`;
    const font = `700 12px ${FIGURES}`;
    context.font = font;
    words(context, text, bx - context.measureText(text).width / 2, by2, font);
  }
}
