/** A field of one value a pixel, row by row from the top. */
export interface Field {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array;
}

/** An empty field: one value a pixel. */
export const field = (width: number, height: number): Field => ({ width, height, data: new Float32Array(width * height) });

/** 1 where a value passes; many times as fast as `Uint8Array.from` with a function, which goes through an iterator. */
export function maskWhere<T extends ArrayLike<number>>(values: T, passes: (value: number, i: number) => boolean): Uint8Array {
  const out = new Uint8Array(values.length);
  for (let i = 0; i < out.length; i++) if (passes(values[i]!, i)) out[i] = 1;
  return out;
}

/** Mean over a box of (2·rx + 1) × (2·ry + 1), edges repeated; two passes of running sums. */
export function boxMean(p: Field, rx: number, ry: number): Field {
  return boxColumns(boxRows(p, rx), ry);
}

function boxRows({ width, height, data }: Field, r: number): Field {
  if (r < 1) return { width, height, data };
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const at = y * width;
    let sum = 0;
    for (let k = -r; k <= r; k++) sum += data[at + Math.min(width - 1, Math.max(0, k))]!;
    for (let x = 0; x < width; x++) {
      out[at + x] = sum / (2 * r + 1);
      sum += data[at + Math.min(width - 1, x + r + 1)]! - data[at + Math.max(0, x - r)]!;
    }
  }
  return { width, height, data: out };
}

function boxColumns({ width, height, data }: Field, r: number): Field {
  if (r < 1) return { width, height, data };
  const out = new Float32Array(data.length);
  const sum = new Float32Array(width);
  for (let k = -r; k <= r; k++) {
    const at = Math.min(height - 1, Math.max(0, k)) * width;
    for (let x = 0; x < width; x++) sum[x]! += data[at + x]!;
  }
  for (let y = 0; y < height; y++) {
    const add = Math.min(height - 1, y + r + 1) * width;
    const take = Math.max(0, y - r) * width;
    for (let x = 0; x < width; x++) {
      out[y * width + x] = sum[x]! / (2 * r + 1);
      sum[x]! += data[add + x]! - data[take + x]!;
    }
  }
  return { width, height, data: out };
}

/** A quantile of values; the list is sorted in place. NaN for none. */
export function quantile(values: Float32Array, q: number): number {
  if (values.length === 0) return NaN;
  values.sort();
  return values[Math.min(values.length - 1, Math.floor(values.length * q))]!;
}

/** Pixels that hang together. */
export interface Component {
  readonly label: number;
  readonly area: number;
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  /** Centre, pixels. */
  readonly x: number;
  readonly y: number;
  readonly pixels: readonly number[];
}

/** Eight-connected components of the pixels that are set, largest first. */
export function components(mask: Uint8Array, width: number, height: number, least = 1): Component[] {
  const seen = new Uint8Array(mask.length);
  const found: Component[] = [];
  const stack: number[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || seen[start]) continue;
    const pixels: number[] = [];
    let [left, right, top, bottom, sx, sy] = [width, 0, height, 0, 0, 0];
    seen[start] = 1;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop()!;
      pixels.push(at);
      const x = at % width;
      const y = (at - x) / width;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      sx += x;
      sy += y;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const nx = x + dx;
          const ny = y + dy;
          if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
          const next = ny * width + nx;
          if (mask[next] && !seen[next]) {
            seen[next] = 1;
            stack.push(next);
          }
        }
    }
    if (pixels.length >= least)
      found.push({
        label: found.length,
        area: pixels.length,
        left,
        right,
        top,
        bottom,
        x: sx / pixels.length,
        y: sy / pixels.length,
        pixels,
      });
  }
  return found.sort((a, b) => b.area - a.area);
}
