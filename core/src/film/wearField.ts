import { ANGLE_BINS, touchShare, type BearingFilm } from './bearingFilm.js';
import type { Aslant } from './aslant.js';
import type { Bearing, JournalLoad } from './orbit.js';

/** Rows of the raster from the front edge to the rear. */
export const AXIAL_ROWS = 12;

/** Every so many steps of the cycle one is looked at. */
const EVERY = 2;

/**
 * What wears of the sleeve, by angle (`ANGLE_BINS` from 0° on) and row: mean over the period of specific load (Pa) times the share of it rough surfaces would carry where they are. Tilt is laid over the
 * orbit of the parallel bearing; that a tilted journal finds another orbit is left out, so that edges come out rather too strong. `journalRad`: angle of the journal against the sleeve at a step; `crownRad`: where the upper half has its
 * crown, opposite the cap.
 */
export function wearField(
  bearing: Bearing,
  load: JournalLoad,
  film: BearingFilm,
  journalRad: (step: number) => number,
  roughnessM: number,
  aslant: Aslant | null,
  crownRad: number,
): Float64Array {
  const out = new Float64Array(AXIAL_ROWS * ANGLE_BINS);
  const area = bearing.diameterM * bearing.lengthM;
  const steps = load.x.length;
  const amount = aslant?.amountM ?? 0;
  const cos = Float64Array.from({ length: ANGLE_BINS }, (_, k) => Math.cos(((k + 0.5) * 2 * Math.PI) / ANGLE_BINS));
  const sin = Float64Array.from({ length: ANGLE_BINS }, (_, k) => Math.sin(((k + 0.5) * 2 * Math.PI) / ANGLE_BINS));
  for (let i = 0; i < steps; i += EVERY) {
    if (film.thinnestM[i]! - amount >= 4 * roughnessM) continue;
    const specific = (Math.hypot(load.x[i]!, load.y[i]!) / area) * (EVERY / steps);
    const turned = journalRad(i);
    const [ex, ey] = [film.orbit.x[i]!, film.orbit.y[i]!];
    const [tx, ty] =
      aslant?.kind === 'bent-rod'
        ? [1, 0]
        : aslant?.kind === 'twisted-rod'
          ? [0, 1]
          : aslant?.kind === 'bent-crank'
            ? [Math.cos(turned), Math.sin(turned)]
            : [0, 0];
    for (let k = 0; k < ANGLE_BINS; k++) {
      const fromCrown = ((k + 0.5) * 2 * Math.PI) / ANGLE_BINS - crownRad;
      const cap = aslant?.kind === 'cap-aside' && Math.cos(fromCrown) < 0 ? amount * Math.sin(fromCrown) : 0;
      const level = bearing.clearanceM * (1 - ex * cos[k]! - ey * sin[k]!) - cap;
      const tilt = amount * (tx * cos[k]! + ty * sin[k]!);
      for (let row = 0; row < AXIAL_ROWS; row++) {
        const h = level - tilt * (0.5 - (row + 0.5) / AXIAL_ROWS);
        if (h < 4 * roughnessM) out[row * ANGLE_BINS + k]! += specific * touchShare(h / roughnessM);
      }
    }
  }
  return out;
}

/** Half the arc a journal without oil bears on, rad. Judgement. */
const DRY_HALF_ARC = (50 * Math.PI) / 180;

/** What wears of the sleeve when there is no oil: mean over the period of the specific load (Pa) where it bears, as a cosine over its arc, from edge to edge. Angles and rows as `wearField`. */
export function dryWearField({ diameterM, lengthM }: Bearing, load: JournalLoad): Float64Array {
  const out = new Float64Array(AXIAL_ROWS * ANGLE_BINS);
  const bin = (2 * Math.PI) / ANGLE_BINS;
  const reach = Math.ceil(DRY_HALF_ARC / bin);
  for (let i = 0; i < load.x.length; i++) {
    const specific = Math.hypot(load.x[i]!, load.y[i]!) / (diameterM * lengthM * load.x.length);
    const towards = Math.atan2(load.y[i]!, load.x[i]!);
    const middle = Math.floor(towards / bin);
    for (let k = middle - reach; k <= middle + reach; k++) {
      const off = Math.abs((k + 0.5) * bin - towards) / DRY_HALF_ARC;
      if (off < 1) out[((k % ANGLE_BINS) + ANGLE_BINS) % ANGLE_BINS]! += specific * Math.cos((off * Math.PI) / 2);
    }
  }
  for (let row = 1; row < AXIAL_ROWS; row++) out.copyWithin(row * ANGLE_BINS, 0, ANGLE_BINS);
  return out;
}
