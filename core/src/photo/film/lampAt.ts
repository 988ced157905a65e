import type { CameraModel } from '../cameraModel.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { LINEAR } from '../reading/light.js';

/** Where over a face the lamp stands, by what it lights most. */
export interface Lamp {
  /** Middle of the light: −1 on the left side to 1 on the right. */
  readonly across: number;
  /** By how much the rear half is lighter than the front one, in logarithms: machined metal spreads light along its axis, so that there is no middle to go by. */
  readonly along: number;
}

/** Cells in which the light of a face is taken. */
const CELLS = { across: 36, along: 12 } as const;
/** Of a channel: what is brighter is blinded. */
const BLIND = 248;
/** Linear light below which a face is too dark to say where the lamp stands. */
const LEAST_LIGHT = 0.01;

/** Tells where the lamp stands in a frame. Null where the face is dark. `place` is where a place of the first frame lies in it. */
export function lampAt(camera: CameraModel): (frame: Pixels, place: (x: number, y: number) => Point) => Lamp | null {
  const columns = Array.from({ length: CELLS.across }, (_, a) => {
    const u = (a + 0.5) / CELLS.across;
    const cells = Array.from({ length: CELLS.along }, (__, b) => (b + 0.5) / CELLS.along);
    return { u, cells: cells.filter((v) => camera.cosine(u, v) > 0.15).map((v) => ({ v: 2 * v - 1, at: camera.project(u, v) })) };
  });
  return (frame, place) => {
    let [sum, across, most, slopes, weight] = [0, 0, 0, 0, 0];
    for (const { u, cells } of columns) {
      // Least squares of the light on the place along the axis.
      let [n, sv, svv, sl, svl] = [0, 0, 0, 0, 0];
      for (const { v, at } of cells) {
        const [x, y] = place(at[0], at[1]).map(Math.floor) as [number, number];
        if (x < 1 || y < 1 || x >= frame.width - 1 || y >= frame.height - 1) continue;
        const i = 4 * (y * frame.width + x);
        const green = frame.data[i + 1]!;
        const light = LINEAR[green]!;
        most = Math.max(most, light);
        sum += light * light;
        across += light * light * (2 * u - 1);
        if (Math.max(frame.data[i]!, green, frame.data[i + 2]!) >= BLIND) continue;
        const l = Math.log(light + 0.5 * LEAST_LIGHT);
        n++;
        sv += v;
        svv += v * v;
        sl += l;
        svl += v * l;
      }
      const spread = svv - (sv * sv) / Math.max(1, n);
      if (n < 4 || spread < 0.3) continue;
      slopes += svl - (sv * sl) / n;
      weight += spread;
    }
    return most < LEAST_LIGHT || sum === 0 || weight === 0 ? null : { across: across / sum, along: slopes / weight };
  };
}
