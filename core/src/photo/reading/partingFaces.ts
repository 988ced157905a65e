import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { quantile } from './field.js';
import { lightOf } from './light.js';

/** Where the parting faces lie beyond the ends of the face, as shares of its length. */
const BEYOND = [0.02, 0.03, 0.04] as const;

/** Log of luminance of the darker of the two parting faces of a half shell, which are bare steel whatever happened to the face between them. Null where neither is in the picture. */
export function partingLight(picture: Pixels, [leftFront, leftRear, rightRear, rightFront]: readonly Point[]): number | null {
  const ends = [
    [leftFront!, leftRear!, rightFront!, rightRear!],
    [rightFront!, rightRear!, leftFront!, leftRear!],
  ] as const;
  const found = ends.flatMap(([front, rear, otherFront, otherRear]) => {
    const values: number[] = [];
    for (let t = 0.1; t < 0.91; t += 0.02) {
      const along = (a: Point, b: Point): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
      const [here, there] = [along(front, rear), along(otherFront, otherRear)];
      for (const share of BEYOND) {
        const x = Math.round(here[0] + (here[0] - there[0]) * share);
        const y = Math.round(here[1] + (here[1] - there[1]) * share);
        if (x >= 0 && y >= 0 && x < picture.width && y < picture.height) values.push(lightOf(picture, x, y));
      }
    }
    return values.length === 0 ? [] : [quantile(Float32Array.from(values), 0.5)];
  });
  return found.length === 0 ? null : Math.min(...found);
}
