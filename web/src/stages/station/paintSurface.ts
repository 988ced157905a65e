import type { SurfaceMark } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { inPicture, isFlattened, NOT_SEEN_COSINE } from '@true-ledger/core/photo';
import { COLOUR } from '../../app/tokens.js';
import { drawDeveloped, drawMarks, drawRead, drawUnseen, frontDown } from '../../surface/paint.js';
import type { Place } from './pen.js';
import type { Flattened } from './useFlattened.js';

/** Width of the developed surface on the page, pixels. */
export const WIDTH = 800;

/** Paints a developed surface, WIDTH × `height` pixels: picture, what was read in it, marks, hatch where nothing was seen, and the size of the brush. */
export function paintSurface(
  context: CanvasRenderingContext2D,
  {
    station,
    flat,
    picture,
    made,
    spot,
    radiusMm,
    height,
  }: {
    station: StationView;
    flat: Flattened;
    /** Whether the developed picture lies below. */
    picture: boolean;
    /** Marks that are not kept yet. */
    made: readonly SurfaceMark[];
    /** Where the brush is; null where it is nowhere. */
    spot: Place | null;
    radiusMm: number;
    height: number;
  },
): void {
  const { part, surface } = station.station;
  const frame = surface!;
  context.clearRect(0, 0, WIDTH, height);
  context.fillStyle = COLOUR.steel;
  context.fillRect(0, 0, WIDTH, height);
  const shown = picture ? flat.result : null;
  if (shown) drawDeveloped(context, frame, shown, flat.turn, WIDTH, height);
  const marks = [...station.marks.map((m) => m.value.mark), ...made];
  if (station.reads.length > 0) drawRead(context, frame, station, WIDTH, height, shown ? 0.45 : 1);
  drawMarks(context, frame, marks, WIDTH, height, shown ? 0.6 : 1);
  const { wear } = station;
  const isShown = (c: number, r: number): boolean => {
    if (!shown || !isFlattened(part)) return true;
    const place = inPicture(part, frame, flat.turn, (c + 0.5) / frame.columns, (r + 0.5) / frame.rows);
    if (!place) return false;
    const cell = Math.floor(place[1] * shown.rows) * shown.columns + Math.floor(place[0] * shown.columns);
    return (shown.cosine[cell] ?? 0) >= NOT_SEEN_COSINE;
  };
  drawUnseen(
    context,
    frame,
    (c, r) => (wear !== null && wear.seen[r * frame.columns + c]! < 0.25) || (shown !== null && !wear && !isShown(c, r)),
    WIDTH,
    height,
  );
  if (spot) {
    const [x, y] = [spot[0] * WIDTH, (frontDown(frame) ? 1 - spot[1] : spot[1]) * height];
    context.strokeStyle = COLOUR.accent;
    context.lineWidth = 2;
    context.beginPath();
    context.ellipse(
      x,
      y,
      Math.max(5, (radiusMm / frame.widthMm) * WIDTH),
      Math.max(5, (radiusMm / frame.heightMm) * height),
      0,
      0,
      Math.PI * 2,
    );
    context.stroke();
  }
}
