import type { CameraModel } from './cameraModel.js';
import { bilinear } from './image/bilinear.js';

/** Pixels, four bytes each, row by row from the top. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** A surface unrolled to scale, with how obliquely each cell was seen. */
export interface Developed {
  /** Developed surface: `u` from left to right, front edge at the bottom. */
  readonly pixels: Pixels;
  /** Cosine of the angle of view per cell, row 0 = front edge; below `NOT_SEEN_COSINE` the cell is a sliver and counts as not seen. */
  readonly cosine: Float32Array;
  readonly columns: number;
  readonly rows: number;
  /** Corners of the cells in the picture, x and y by turns: (columns + 1) × (rows + 1) points, row 0 = front edge. */
  readonly nodes: Float32Array;
  /** Arc of the developed surface, degrees; 0 for a flat one. */
  readonly spanDeg: number;
  /** Picture pixels per millimetre across, in the middle and at the worse side. */
  readonly pxPerMm: { readonly middle: number; readonly side: number };
  readonly notSeenPercent: number;
}

/** Cosine of the angle of view below which a place counts as not seen. */
export const NOT_SEEN_COSINE = 0.2;

/** Develops a surface from a picture by projecting every output pixel into it (bilinear). Pure; 720 × 200 takes a few milliseconds. */
export function develop(camera: CameraModel, picture: Pixels, width = 720, columns = 36, rows = 12): Developed {
  const height = Math.max(40, Math.round((width * camera.heightMm) / camera.widthMm));
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    const v = 1 - (y + 0.5) / height;
    for (let x = 0; x < width; x++) {
      const [px, py] = camera.project((x + 0.5) / width, v);
      sample(picture, px - 0.5, py - 0.5, data, (y * width + x) * 4);
    }
  }
  const cosine = new Float32Array(columns * rows);
  let unseen = 0;
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const u = (c + 0.5) / columns;
      const v = (r + 0.5) / rows;
      const [px, py] = camera.project(u, v);
      const inside = px >= 0 && py >= 0 && px < picture.width && py < picture.height;
      const value = inside ? camera.cosine(u, v) : 0;
      cosine[r * columns + c] = value;
      if (value < NOT_SEEN_COSINE) unseen++;
    }
  }
  const nodes = new Float32Array(2 * (columns + 1) * (rows + 1));
  for (let r = 0; r <= rows; r++)
    for (let c = 0; c <= columns; c++) nodes.set(camera.project(c / columns, r / rows), 2 * (r * (columns + 1) + c));
  const across = (u: number): number => {
    const [ax, ay] = camera.project(u - 0.003, 0.5);
    const [bx, by] = camera.project(u + 0.003, 0.5);
    return Math.hypot(bx - ax, by - ay) / (0.006 * camera.widthMm);
  };
  return {
    pixels: { width, height, data },
    cosine,
    columns,
    rows,
    nodes,
    spanDeg: camera.spanDeg,
    pxPerMm: { middle: across(0.5), side: Math.min(across(0.011), across(0.989)) },
    notSeenPercent: (unseen / cosine.length) * 100,
  };
}

function sample(picture: Pixels, x: number, y: number, out: Uint8ClampedArray, at: number): void {
  if (!(x >= 0 && y >= 0 && x <= picture.width - 1 && y <= picture.height - 1)) {
    out[at + 3] = 0;
    return;
  }
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  // On the last column and row there is no neighbour beyond, and none is needed.
  const right = x0 + 1 < picture.width ? 4 : 0;
  const below = y0 + 1 < picture.height ? 4 * picture.width : 0;
  const from = (y0 * picture.width + x0) * 4;
  // A picture that was made of a film has places that no frame saw.
  if (Math.min(picture.data[from + 3]!, picture.data[from + right + 3]!, picture.data[from + below + 3]!) === 0) {
    out[at + 3] = 0;
    return;
  }
  for (let k = 0; k < 3; k++) out[at + k] = bilinear(picture.data, from + k, right, below, x - x0, y - y0);
  out[at + 3] = 255;
}
