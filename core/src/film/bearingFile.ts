import { fail, ok, type Result } from '../kit/result.js';
import { figure, list, object, oneOf, optional, type Held } from '../kit/schema.js';
import { overPeriod, readColumns } from './columns.js';
import { FILM_MODELS } from './mobility.js';
import type { Bearing, JournalLoad } from './orbit.js';

export const BEARING_FORMAT = 'true-ledger/bearing';
/** Steps of one period in which an orbit is told. */
const PERIOD_STEPS = 1440;

/** A bearing by itself with its load over one period; docs/formats/film.md. Units stand in the names. */
export const bearingFileSchema = object({
  format: oneOf([BEARING_FORMAT]),
  version: figure(1, 1),
  diameterMm: figure(0.1, 5000),
  lengthMm: figure(0.1, 5000),
  /** Bore of the sleeve less diameter of the journal. */
  diametralClearanceMm: figure(1e-5, 50),
  viscosityPaS: figure(1e-5, 100),
  /** Of the journal against the sleeve; positive turns from x to y. */
  speedRpm: figure(-1e6, 1e6),
  /** Degrees of one period of the load, and how fast they pass. */
  periodDeg: optional(figure(1, 3600)),
  crankSpeedRpm: optional(figure(0.1, 1e6)),
  model: optional(oneOf(FILM_MODELS)),
  combinedRoughnessUm: optional(figure(0.001, 100)),
  load: optional(
    list(
      object({ angleDeg: figure(-3600, 3600), fxN: figure(-1e9, 1e9), fyN: figure(-1e9, 1e9), speedRadS: optional(figure(-1e6, 1e6)) }),
      100_000,
    ),
  ),
});
type BearingFile = Held<typeof bearingFileSchema>;

/** A bearing made ready: SI units, its load at even steps. */
export interface LoadedBearing {
  readonly bearing: Bearing;
  readonly load: JournalLoad;
  readonly periodDeg: number;
  readonly roughnessM: number;
  readonly model: (typeof FILM_MODELS)[number];
}

/** Root mean square of shell and journal together where it is not given, µm: a bearing that has run in. Judgement. */
export const USUAL_ROUGHNESS_UM = 0.5;

/** Reads a bearing file; with `csv` its load from a table of angle_deg, fx_N, fy_N and, where the speed changes, speed_rad_s. */
export function readBearing(json: unknown, csv?: string): Result<LoadedBearing> {
  const checked = bearingFileSchema.validate(json, { convert: false });
  if (checked.error)
    return fail(
      'engine-file',
      `The bearing was not read: ${checked.error.details[0]?.message ?? 'it has the wrong shape'}. See docs/formats/film.md.`,
      checked.error.details[0]?.path.join('.'),
    );
  const file = checked.value as BearingFile;
  const radius = file.diameterMm / 2000;
  const clearanceM = file.diametralClearanceMm / 2000;
  if (clearanceM > radius / 10)
    return fail(
      'engine-running',
      `A clearance of ${file.diametralClearanceMm} mm on ${file.diameterMm} mm is no bearing: the film would be thicker than it is taken to be. Give the difference of the diameters in mm.`,
      'diametralClearanceMm',
    );
  let angle: Float64Array;
  let columns: Float64Array[];
  if (csv !== undefined) {
    const read = readColumns(csv, ['angle_deg', 'fx_N', 'fy_N'], ['speed_rad_s'], 'load-table');
    if (!read.ok) return read;
    angle = read.value.get('angle_deg')!;
    columns = ['fx_N', 'fy_N', 'speed_rad_s'].flatMap((name) => read.value.get(name) ?? []);
  } else {
    const rows = file.load ?? [];
    angle = Float64Array.from(rows, (r) => r.angleDeg);
    columns = [Float64Array.from(rows, (r) => r.fxN), Float64Array.from(rows, (r) => r.fyN)];
    const turning = rows.filter((r) => r.speedRadS !== undefined).length;
    if (turning > 0 && turning < rows.length)
      return fail(
        'load-table',
        `${turning} of ${rows.length} rows give the speed of the journal. Give it in all of them, or in none.`,
        'load',
      );
    if (turning > 0) columns.push(Float64Array.from(rows, (r) => r.speedRadS!));
  }
  const span = angle.length > 1 ? angle[angle.length - 1]! - angle[0]! : 0;
  const periodDeg = file.periodDeg ?? (span > 360 + 1e-9 ? 720 : 360);
  const even = overPeriod(angle, columns, periodDeg, PERIOD_STEPS, 'load-table');
  if (!even.ok) return even;
  const [x, y, given] = even.value as [Float64Array, Float64Array, Float64Array?];
  const crankRpm = file.crankSpeedRpm ?? Math.abs(file.speedRpm);
  if (crankRpm === 0)
    return fail('engine-running', 'At speed 0 nothing turns and no film is made. Give the speed the load goes round with.', 'speedRpm');
  if (x.every((v, i) => v === 0 && y[i] === 0))
    return fail('load-table', 'The table holds no load: every force is nought. A journal without a load runs in the middle.', 'load');
  return ok({
    bearing: { diameterM: file.diameterMm / 1000, lengthM: file.lengthMm / 1000, clearanceM, viscosityPaS: file.viscosityPaS },
    load: {
      x,
      y,
      speed: given ?? new Float64Array(PERIOD_STEPS).fill((file.speedRpm * Math.PI) / 30),
      periodS: periodDeg / 360 / (crankRpm / 60),
    },
    periodDeg,
    roughnessM: (file.combinedRoughnessUm ?? USUAL_ROUGHNESS_UM) * 1e-6,
    model: file.model ?? 'reynolds',
  });
}
