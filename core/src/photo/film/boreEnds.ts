import type { Field } from '../reading/field.js';

/** Columns in which the ends of a bore are looked for, and how far an end may rise or fall from one to the next, rows. */
const COLUMNS = 180;
const CLIMB = 3;
/** Rows over which a step of light is taken, either way. */
const REACH = 3;
/** Least step of light at an end, in logarithms, by its mean all round; and share of the columns in which it goes the same way. */
const LEAST_STEP = 0.12;
const SAME_WAY = 0.9;

/** Where the wall ends all round: the row by column, of as many columns as the field has. */
export type BoreEnd = Float32Array;

/**
 * Looks for the line round a bore at which its wall ends, in some of its rows: the strongest step of light that goes right round and meets itself (shortest path by dynamic programming, its beginning held to its end).
 * `light` holds logarithms, NaN where nothing was seen. Null where there is none.
 */
export function endRound(light: Field, from: number, to: number): BoreEnd | null {
  const { width } = light;
  const rows = to - from;
  if (rows < 4 * REACH) return null;
  const steps = stepsOf(light, from, to);
  for (const way of [1, -1]) {
    const found = closedPath(steps, rows, way);
    if (!found) continue;
    const along = found.map((row, c) => way * steps[row * COLUMNS + c]!);
    const mean = along.reduce((s, v) => s + v, 0) / COLUMNS;
    if (mean < LEAST_STEP || along.filter((v) => v > LEAST_STEP / 3).length < SAME_WAY * COLUMNS) continue;
    return Float32Array.from({ length: width }, (_, x) => {
      const at = ((x + 0.5) / width) * COLUMNS - 0.5;
      const a = Math.floor(at);
      const f = at - a;
      return from + found[(a + COLUMNS) % COLUMNS]! * (1 - f) + found[(a + 1) % COLUMNS]! * f;
    });
  }
  return null;
}

/** Step of light from the rows above to the rows below a place, by row and column; 0 where it is not seen. */
function stepsOf({ width, height, data }: Field, from: number, to: number): Float32Array {
  const means = new Float32Array(height * COLUMNS);
  for (let y = 0; y < height; y++)
    for (let c = 0; c < COLUMNS; c++) {
      let [sum, n] = [0, 0];
      for (let x = Math.floor((c * width) / COLUMNS); x < Math.floor(((c + 1) * width) / COLUMNS); x++) {
        const v = data[y * width + x]!;
        if (Number.isNaN(v)) continue;
        sum += v;
        n++;
      }
      means[y * COLUMNS + c] = n === 0 ? NaN : sum / n;
    }
  const out = new Float32Array((to - from) * COLUMNS);
  for (let y = Math.max(from, REACH); y < Math.min(to, height - REACH); y++)
    for (let c = 0; c < COLUMNS; c++) {
      let d = 0;
      for (let k = 1; k <= REACH; k++) d += means[(y + k) * COLUMNS + c]! - means[(y - k) * COLUMNS + c]!;
      out[(y - from) * COLUMNS + c] = Number.isNaN(d) ? 0 : d / REACH;
    }
  return out;
}

/** The rows of the strongest path round that ends where it begins; twice round, so that its middle does not know where it was begun. */
function closedPath(steps: Float32Array, rows: number, way: number): number[] | null {
  const twice = 2 * COLUMNS;
  let worth = Float64Array.from({ length: rows }, (_, y) => way * steps[y * COLUMNS]!);
  const back = new Int16Array(twice * rows);
  for (let c = 1; c < twice; c++) {
    const next = new Float64Array(rows);
    for (let y = 0; y < rows; y++) {
      let best = y;
      for (let k = -CLIMB; k <= CLIMB; k++) {
        const q = y + k;
        if (q >= 0 && q < rows && worth[q]! - 0.01 * Math.abs(k) > worth[best]! - 0.01 * Math.abs(best - y)) best = q;
      }
      back[c * rows + y] = best;
      next[y] = worth[best]! - 0.01 * Math.abs(best - y) + way * steps[y * COLUMNS + (c % COLUMNS)]!;
    }
    worth = next;
  }
  let y = worth.indexOf(Math.max(...worth));
  const path: number[] = new Array<number>(twice);
  for (let c = twice - 1; c >= 0; c--) {
    path[c] = y;
    y = back[c * rows + y]!;
  }
  const half = COLUMNS / 2;
  const closed = path.slice(half, half + COLUMNS);
  if (Math.abs(closed[0]! - closed.at(-1)!) > 4 * CLIMB) return null;
  return [...closed.slice(half), ...closed.slice(0, half)];
}
