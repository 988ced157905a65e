import { projectShell, viewCosine, type ShellPose } from './shellPose.js';

/** Pixels, four bytes each, row by row from the top. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

export interface FlattenedShell {
  /** Developed surface: arc 0–180° from left to right, front edge at the bottom. */
  readonly pixels: Pixels;
  /** Cosine of sight per cell, row 0 = front edge; below `NOT_SEEN_COSINE` the cell is a sliver and counts as not seen. */
  readonly cosine: Float32Array;
  readonly columns: number;
  readonly rows: number;
  /** Picture pixels per degree of arc at the crown and at the worse parting line. */
  readonly pixelsPerDegree: { readonly crown: number; readonly edge: number };
  readonly notSeenPercent: number;
}

export const NOT_SEEN_COSINE = 0.2;

/** Develops the running face from a picture by projecting every output pixel into it (bilinear). Pure; 720 × 200 takes a few milliseconds. */
export function flattenShell(pose: ShellPose, picture: Pixels, width = 720, columns = 36, rows = 12): FlattenedShell {
  const height = Math.max(40, Math.round((width * pose.widthMm) / (Math.PI * pose.radiusMm)));
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    const axial = 1 - (y + 0.5) / height;
    for (let x = 0; x < width; x++) {
      const [px, py] = projectShell(pose, ((x + 0.5) / width) * 180, axial);
      sample(picture, px - 0.5, py - 0.5, data, (y * width + x) * 4);
    }
  }
  const cosine = new Float32Array(columns * rows);
  let unseen = 0;
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const arc = ((c + 0.5) / columns) * 180;
      const axial = (r + 0.5) / rows;
      const [px, py] = projectShell(pose, arc, axial);
      const inside = px >= 0 && py >= 0 && px < picture.width && py < picture.height;
      const value = inside ? viewCosine(pose, arc, axial) : 0;
      cosine[r * columns + c] = value;
      if (value < NOT_SEEN_COSINE) unseen++;
    }
  }
  const perDegree = (arc: number): number => {
    const [ax, ay] = projectShell(pose, arc - 0.5, 0.5);
    const [bx, by] = projectShell(pose, arc + 0.5, 0.5);
    return Math.hypot(bx - ax, by - ay);
  };
  return {
    pixels: { width, height, data },
    cosine,
    columns,
    rows,
    pixelsPerDegree: { crown: perDegree(90), edge: Math.min(perDegree(2), perDegree(178)) },
    notSeenPercent: (unseen / cosine.length) * 100,
  };
}

function sample(picture: Pixels, x: number, y: number, out: Uint8ClampedArray, at: number): void {
  if (x < 0 || y < 0 || x > picture.width - 1 || y > picture.height - 1) {
    out[at + 3] = 0;
    return;
  }
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const x1 = Math.min(picture.width - 1, x0 + 1);
  const y1 = Math.min(picture.height - 1, y0 + 1);
  const fx = x - x0;
  const fy = y - y0;
  for (let k = 0; k < 3; k++) {
    const a = picture.data[(y0 * picture.width + x0) * 4 + k]!;
    const b = picture.data[(y0 * picture.width + x1) * 4 + k]!;
    const c = picture.data[(y1 * picture.width + x0) * 4 + k]!;
    const d = picture.data[(y1 * picture.width + x1) * 4 + k]!;
    out[at + k] = a * (1 - fx) * (1 - fy) + b * fx * (1 - fy) + c * (1 - fx) * fy + d * fx * fy;
  }
  out[at + 3] = 255;
}
