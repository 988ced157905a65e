import { WEAR_CLASSES } from '../../damage/classes.js';
import { READER_VERSION, type ReadLine, type SurfaceRead } from '../../damage/surfaceRead.js';
import type { SurfaceFrame } from '../../engine/stations.js';
import { MAP_COLUMNS, MAP_ROWS, type SurfaceReading } from './surfaceReading.js';
import type { FlattenedPart } from './readParts.js';
import type { SurfaceSize } from './cameraModelOf.js';

/** Which part of a full turn a picture shows: the arc that faces the camera, and how much of it a strip covers (bores). */
export interface Turn {
  readonly facingDeg: number;
  readonly arcDeg: number;
}
/** How a part lies when nobody says otherwise. */
export const USUAL_TURN: Turn = { facingDeg: 180, arcDeg: 90 };

/** A surface that was made of a film: the whole turn, from 0 to 360°. */
export const WHOLE_TURN: Turn = { facingDeg: 180, arcDeg: 360 };

/** Which piece of a full turn a picture shows, as it was said when its corners were placed; the usual one where nobody said. */
export const turnSaid = (said: { readonly facingDeg?: number | undefined; readonly arcDeg?: number | undefined } | undefined): Turn => ({
  facingDeg: said?.facingDeg ?? USUAL_TURN.facingDeg,
  arcDeg: said?.arcDeg ?? USUAL_TURN.arcDeg,
});

/** Is a picture of a journal a surface made of a film, developed already? */
const isMade = (part: FlattenedPart, turn: Turn): boolean => part === 'journal' && turn.arcDeg === WHOLE_TURN.arcDeg;

/** Does a picture of this part show a piece of a full turn, so that one must say which? */
export const showsPieceOfTurn = (part: FlattenedPart): boolean => part === 'journal' || part === 'bore';

/** Size of a surface as the reader takes it, from the frame of its place. */
export function sizeFromFrame(part: FlattenedPart, frame: SurfaceFrame, turn: Turn = USUAL_TURN): SurfaceSize {
  const turnRadius = frame.widthMm / (2 * Math.PI);
  switch (part) {
    case 'shell':
      return { radiusMm: frame.widthMm / Math.PI, widthMm: frame.heightMm };
    case 'skirt':
      return { radiusMm: frame.widthMm / Math.PI, widthMm: null };
    case 'journal':
      return { radiusMm: turnRadius, widthMm: null, ...(isMade(part, turn) ? { arcDeg: turn.arcDeg } : {}) };
    case 'bore':
      return { radiusMm: turnRadius, widthMm: frame.heightMm, arcDeg: turn.arcDeg };
    case 'thrust':
      return { radiusMm: turnRadius + frame.heightMm / 2, widthMm: frame.heightMm };
    case 'crown':
      return { radiusMm: frame.widthMm / 2, widthMm: null };
  }
}

/** Frames that begin at the front edge are drawn with it at the bottom, as pictures are; the others begin at the top of the picture. */
const turned = (frame: SurfaceFrame): boolean => frame.vFrom !== 'front edge';

/** Arc that the picture of a part covers, degrees. */
const shownArc = (part: FlattenedPart, turn: Turn): number => (part === 'bore' || isMade(part, turn) ? turn.arcDeg : 180);

/** Place in the picture's own developed surface (0–1 each) of a place on the frame; null where the picture does not reach. */
export function inPicture(part: FlattenedPart, frame: SurfaceFrame, turn: Turn, u: number, v: number): readonly [number, number] | null {
  const own = turned(frame) ? 1 - v : v;
  if (!showsPieceOfTurn(part)) return [u, own];
  const off = ((((u * frame.uSpanDeg - turn.facingDeg + 180) % 360) + 360) % 360) - 180;
  const across = off / shownArc(part, turn) + 0.5;
  return across < 0 || across >= 1 ? null : [across, own];
}

/** The other way: the place on the frame of a place in the picture's own developed surface. */
export function fromPicture(part: FlattenedPart, frame: SurfaceFrame, turn: Turn, u: number, v: number): readonly [number, number] {
  const own = turned(frame) ? 1 - v : v;
  if (!showsPieceOfTurn(part)) return [u, own];
  const at = (((turn.facingDeg + (u - 0.5) * shownArc(part, turn)) % 360) + 360) % 360;
  return [at / frame.uSpanDeg, own];
}

/** Lines of a picture on the frame; one that runs over the end of a full turn becomes two. */
function linesOnFrame(reading: SurfaceReading, part: FlattenedPart, frame: SurfaceFrame, turn: Turn): ReadLine[] {
  return reading.lines.flatMap((l) => {
    const line = {
      axial: clean(Math.min(1, Math.max(0, turned(frame) ? 1 - l.axial : l.axial)), 3),
      widthMm: clean(l.widthMm, 2),
      through: l.through,
    };
    if (!showsPieceOfTurn(part)) return [{ ...line, fromDeg: clean(l.fromDeg, 1), toDeg: clean(l.toDeg, 1) }];
    const from = (((turn.facingDeg - shownArc(part, turn) / 2 + l.fromDeg) % 360) + 360) % 360;
    const to = from + l.toDeg - l.fromDeg;
    if (to <= 360) return [{ ...line, fromDeg: clean(from, 1), toDeg: clean(to, 1) }];
    return [
      { ...line, fromDeg: clean(from, 1), toDeg: 360 },
      { ...line, fromDeg: 0, toDeg: clean(to - 360, 1) },
    ];
  });
}

const clean = (v: number, digits: number): number => Number(v.toFixed(digits));
/** A cell of the frame is the mean of so many places each way. */
const SAMPLES = 4;

/** A reading as the ledger keeps it: on the grid of the place it belongs to. */
export function onFrame(reading: SurfaceReading, part: FlattenedPart, frame: SurfaceFrame, turn: Turn, sha256: string): SurfaceRead {
  const { columns, rows } = frame;
  const found = WEAR_CLASSES.filter((c) => c !== 'sound' && reading.summary.percent[c] > 0);
  const shares = Object.fromEntries(found.map((c) => [c, new Array<number>(columns * rows).fill(0)]));
  const seen = new Array<number>(columns * rows).fill(0);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const cell = r * columns + c;
      let all = 0;
      const sums = new Map(found.map((name) => [name, 0]));
      for (let k = 0; k < SAMPLES * SAMPLES; k++) {
        const u = (c + ((k % SAMPLES) + 0.5) / SAMPLES) / columns;
        const v = (r + (Math.floor(k / SAMPLES) + 0.5) / SAMPLES) / rows;
        const place = inPicture(part, frame, turn, u, v);
        if (!place) continue;
        const own =
          Math.min(MAP_ROWS - 1, Math.floor(place[1] * MAP_ROWS)) * MAP_COLUMNS +
          Math.min(MAP_COLUMNS - 1, Math.floor(place[0] * MAP_COLUMNS));
        const there = reading.map.seen[own]!;
        all += there;
        for (const name of found) sums.set(name, sums.get(name)! + there * reading.map.shares[name][own]!);
      }
      seen[cell] = Math.round((100 * all) / SAMPLES ** 2);
      for (const name of found) shares[name]![cell] = all > 0 ? Math.round((100 * sums.get(name)!) / all) : 0;
    }
  return {
    sha256,
    columns,
    rows,
    shares,
    seen,
    lines: linesOnFrame(reading, part, frame, turn),
    crazedPercent: clean(reading.features.crazedPercent, 1),
    specks: reading.features.specks,
    confidence: reading.confidence,
    doubts: reading.doubts.map((d) => d.slice(0, 300)),
    reader: READER_VERSION,
  };
}
