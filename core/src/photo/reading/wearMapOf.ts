import { WEAR_CLASSES, type WearClass } from '../../damage/classes.js';
import type { WearMap } from '../../damage/wearMap.js';
import type { Developed } from '../flatten.js';
import { LAYERS, type Layered } from './layers.js';
import { MAP_COLUMNS, MAP_ROWS } from './surfaceReading.js';

const TRACE = 0.0012;

/** Streaks are less sure than layers. */
const STREAK_TRACE = 0.006;

/** Shares of the classes in the cells of the wear map; row 0 is the front edge. Holes are left out, what is not seen lowers `seen`. */
export function mapOf(layered: Layered, flat: Developed): WearMap {
  const { width, height } = flat.pixels;
  const cells = MAP_COLUMNS * MAP_ROWS;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(cells)])) as Record<WearClass, Float32Array>;
  const seen = new Float32Array(cells);
  const total = new Float32Array(cells);
  for (let y = 0; y < height; y++) {
    const row = Math.min(MAP_ROWS - 1, Math.floor((1 - (y + 0.5) / height) * MAP_ROWS));
    for (let x = 0; x < width; x++) {
      const cell = row * MAP_COLUMNS + Math.min(MAP_COLUMNS - 1, Math.floor(((x + 0.5) / width) * MAP_COLUMNS));
      total[cell]!++;
      const name = LAYERS[layered.layer[y * width + x]!]!;
      if (name === 'void' || name === 'unseen') continue;
      seen[cell]!++;
      shares[name][cell]!++;
    }
  }
  // Less than this of the whole face is what noise and compression leave, not a finding.
  const all = seen.reduce((s, v) => s + v, 0);
  for (const c of ['lining', 'heat', 'rust', 'scuffed', 'transfer'] as const) {
    const found = shares[c].reduce((s, v) => s + v, 0);
    if (found > (c === 'scuffed' ? STREAK_TRACE : TRACE) * all) continue;
    for (let cell = 0; cell < cells; cell++) shares.sound[cell]! += shares[c][cell]!;
    shares[c].fill(0);
  }
  for (let cell = 0; cell < cells; cell++) {
    const n = seen[cell]!;
    for (const c of WEAR_CLASSES) if (n > 0) shares[c][cell] = shares[c][cell]! / n;
    seen[cell] = n / Math.max(1, total[cell]!);
  }
  return { columns: MAP_COLUMNS, rows: MAP_ROWS, shares, seen };
}
