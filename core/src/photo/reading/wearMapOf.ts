import { WEAR_CLASSES, type WearClass } from '../../damage/classes.js';
import type { WearMap } from '../../damage/wearMap.js';
import type { Developed } from '../flatten.js';
import { LAYERS, wearOf, type Chances, type Layered } from './layer.js';
import { MAP_COLUMNS, MAP_ROWS } from './surfaceReading.js';

/** Less than this of the whole face is what noise and compression leave, not a finding. Streaks are less sure than layers, and steel laid bare is never a trace; specks are few and small. */
const TRACE = {
  lining: 0.0018,
  heat: 0.0018,
  rust: 0.0018,
  transfer: 0.0018,
  scuffed: 0.006,
  steel: 0.004,
  embedded: 0.0002,
  deposit: 0.004,
  missing: 0.0008,
} as const satisfies Partial<Record<WearClass, number>>;

/** Shares of the classes in the cells of the wear map; row 0 is the front edge. Holes are left out, what is not seen lowers `seen`. */
export function mapOf(layered: Layered, flat: Developed): WearMap {
  const cells = MAP_COLUMNS * MAP_ROWS;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(cells)])) as Record<WearClass, Float32Array>;
  const seen = new Float32Array(cells);
  const total = new Float32Array(cells);
  const size = layered.chances ?? flat.pixels;
  const add = layered.chances ? byChance(layered.chances) : byLayer(layered.layer);
  for (let y = 0; y < size.height; y++) {
    const row = Math.min(MAP_ROWS - 1, Math.floor((1 - (y + 0.5) / size.height) * MAP_ROWS));
    for (let x = 0; x < size.width; x++) {
      const cell = row * MAP_COLUMNS + Math.min(MAP_COLUMNS - 1, Math.floor(((x + 0.5) / size.width) * MAP_COLUMNS));
      total[cell]!++;
      if (add(y * size.width + x, (name, share) => (shares[name][cell]! += share))) seen[cell]!++;
    }
  }
  const all = seen.reduce((s, v) => s + v, 0);
  for (const [c, trace] of Object.entries(TRACE) as Array<[keyof typeof TRACE, number]>) {
    const found = shares[c].reduce((s, v) => s + v, 0);
    if (found > trace * all) continue;
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

/** Adds the classes of a pixel by their shares; false where there is no surface or it is not seen. */
type Adding = (pixel: number, add: (name: WearClass, share: number) => void) => boolean;

const byLayer =
  (layer: Uint8Array): Adding =>
  (i, add) => {
    const name = wearOf(LAYERS[layer[i]!]!);
    if (name === null) return false;
    add(name, 1);
    return true;
  };

/** A class less likely than this at a pixel is not there: small doubts all over a face would add up to damage. */
const LEAST_CHANCE = 0.2;

function byChance({ classes, planes }: Chances): Adding {
  const sound = classes.indexOf('sound');
  return (i, add) => {
    let [best, all] = [0, 0];
    for (let c = 0; c < planes.length; c++) {
      if (planes[c]![i]! > planes[best]![i]!) best = c;
      if (c === sound || planes[c]![i]! >= LEAST_CHANCE) all += classes[c] === 'void' ? 0 : planes[c]![i]!;
    }
    if (classes[best] === 'void' || planes[best]![i] === 0 || all === 0) return false;
    for (let c = 0; c < planes.length; c++) {
      const [name, p] = [wearOf(classes[c]!), planes[c]![i]!];
      if (name !== null && (c === sound || p >= LEAST_CHANCE)) add(name, p / all);
    }
    return true;
  };
}
