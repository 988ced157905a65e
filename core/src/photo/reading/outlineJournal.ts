import { fail, ok, type Result } from '../../kit/result.js';
import type { Pixels } from '../flatten.js';
import type { Point } from '../homography.js';
import { surfaceMapOf, type SurfaceMap } from '../outline/surfaceMap.js';
import { sceneClassifierFor } from '../segment/classifiers.js';
import { alongRun, askedOf, modelOf, type Pose, type Scene } from './outlineScene.js';
import { searchOutline, type Guess, type LaidPart, type OutlineModel } from './outlineSteps.js';

/** What counts for a pose: that the face is the same over its width, that it holds what is likely the face and nothing beside it does, how large it is; and against it, that what lies beside it is not like the bench. */
const COUNTS = { run: 0.25, face: 1, size: 0.05, strange: 0.4 } as const;
/** Length along the axis over the distance of the sides. */
const RATIO = [0.28, 1.15] as const;
/** Distance of the sides, shares of the long side of the picture. */
const ACROSS = [0.1, 0.7] as const;
/** Share of the places asked that may lie beyond the picture. */
const MOST_OUTSIDE = 0.15;
/** An outline that is worth less is no journal. */
const LEAST = 0.93;

/** Finds the four corners of a journal between its cheeks: a full cylinder is laid into the picture, whose ends stand against the cheeks, its sides against the bench, and which holds what a trained classifier says is likely its face. A proposal, to be looked at. */
export function findJournal(picture: Pixels, guess: Guess = 1): Result<readonly Point[]> {
  if (picture.width < 64 || picture.height < 64) return fail('picture-small', 'The picture is too small to find a part in it.', 'picture');
  const [best, ...others] = laidJournals(picture);
  const found = guess === 1 ? best : others.find((o) => best && isElsewhere(o, best));
  if (found && found.worth >= LEAST) return ok(found.corners);
  return fail(
    'outline-not-found',
    guess === 1
      ? 'No journal was found in the picture. Mark its four corners: where its sides meet its two ends, left-front, left-rear, right-rear, right-front.'
      : 'There is no other guess where the journal lies. Move the corners where they belong.',
    'corners',
  );
}

/** Another guess has a corner at least so far off, share of the distance of the sides. */
const ELSEWHERE = 0.12;

/** Does a guess lie elsewhere than another one, whichever end is the front? */
function isElsewhere({ corners: a }: LaidPart, { corners: b }: LaidPart): boolean {
  const across = Math.hypot(b[3]![0] - b[0]![0], b[3]![1] - b[0]![1]);
  const off = (turn: number): number =>
    Math.max(...a.map((p, k) => Math.hypot(p[0] - b[(k + turn) % 4]![0], p[1] - b[(k + turn) % 4]![1])));
  return Math.min(off(0), off(2)) > ELSEWHERE * across;
}

/** Where a journal may lie in a picture, whatever it shows; the best first. */
const laidJournals = (picture: Pixels): LaidPart[] =>
  searchOutline(picture, journalIn(surfaceMapOf(sceneClassifierFor('journal'), picture)));

/** A journal as it is looked for in a picture of which it is known what is likely its face. */
const journalIn = (face: SurfaceMap): OutlineModel => ({
  reaches: { coarse: 0.09, middle: 0.06, fine: 0.035 },
  gaps: { spread: 26, coarse: 14, middle: 10, fine: 6 },
  units: [0.1, 0.1, 0.1, 0.08, 0.08, 0.1, 0.1],
  mostTurned: Infinity,
  endsMove: true,
  kept: { coarse: 50, middle: 14, fine: 5 },
  apart: { place: 0.08, size: 0.1, roll: 0.12, tilt: Infinity },
  poses: everyPose,
  worthOf: (scene, pose, reach, gap) => worthOf(scene, face, pose, reach, gap),
});

function everyPose({ small: { width, height }, long }: Scene): Pose[] {
  const poses: Pose[] = [];
  for (let roll = -90; roll < 90; roll += 10)
    for (const across of [0.14, 0.2, 0.28, 0.38, 0.5])
      for (const ratio of [0.36, 0.5, 0.7, 0.95]) {
        const half = (across * long) / 2;
        const step = Math.max(2, 0.3 * half);
        for (let x = 0.8 * half; x <= width - 0.8 * half; x += step)
          for (let y = 0.8 * half; y <= height - 0.8 * half; y += step) poses.push([x, y, 2 * half, ratio, (roll * Math.PI) / 180, 0, 0]);
      }
  return poses;
}

/** Height over the axis of a place of a full cylinder that lies so far across. */
const over = (u: number): number => -Math.sqrt(Math.max(0, 1 - u * u));

/** Places across and along, and just beside, at which it is asked what is likely the face. */
const INSIDE = {
  across: [-0.95, -0.8, -0.6, -0.4, -0.2, 0, 0.2, 0.4, 0.6, 0.8, 0.95],
  along: [-0.9, -0.6, -0.3, 0, 0.3, 0.6, 0.9],
} as const;
const BESIDE = { across: [-1.35, -1.15, 1.15, 1.35], along: [-0.8, -0.4, 0, 0.4, 0.8] } as const;
const BEYOND = { across: [-0.8, -0.4, 0, 0.4, 0.8], along: [-1.45, -1.2, 1.2, 1.45] } as const;

/** How much speaks for a journal that lies so: 0 and less nothing, about 1.5 all. */
function worthOf(scene: Scene, face: SurfaceMap, pose: Pose, reach: number, gap: number): number {
  const [, , across, ratio] = pose;
  if (ratio < RATIO[0] || ratio > RATIO[1] || across < ACROSS[0] * scene.long || across > ACROSS[1] * scene.long) return 0;
  const asked = askedOf(scene, pose);
  const { at, stands, bench } = asked;
  const beside = (1.2 * reach) / ratio;
  let [ends, n] = [0, 0];
  for (let arc = 12; arc <= 168; arc += gap) {
    const u = -Math.cos((arc * Math.PI) / 180);
    for (const v of [-1, 1]) ends += stands(at(u, v * (1 - beside), over(u)), at(u, v * (1 + beside), over(u)));
    n += 2;
  }
  // Beside the journal the bench shows between its cheeks.
  let [notch, m] = [0, 0];
  for (const u of [-1.35, -1.2, 1.2, 1.35])
    for (const v of [-1, 1]) {
      notch += stands(bench(at(u, v * (1 - 1.5 * beside), 0)), at(u, v * (1 + 1.5 * beside), 0));
      m++;
    }
  let [sides, k] = [0, 0];
  for (const side of [-1, 1])
    for (const v of [-0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75]) {
      sides += stands(at(side * (1 - reach), v, over(1 - reach)), bench(at(side * (1 + reach), v, 0)));
      bench(at(side * 1.25, v, 0));
      k++;
    }
  if (asked.outside() > MOST_OUTSIDE) return 0;
  const run = gap > 14 ? 0 : COUNTS.run * alongRun(scene, at, -1);
  return (
    run +
    (ends / n + notch / m + sides / k) / 3 -
    COUNTS.strange * asked.strange() +
    COUNTS.size * Math.log(across / scene.long) +
    COUNTS.face * holds(scene, face, pose)
  );
}

/** How much likelier the face is inside than beside, −1 to 1. */
function holds(scene: Scene, face: SurfaceMap, pose: Pose): number {
  const model = modelOf(pose, scene);
  const scale = scene.small.step / face.step;
  const odds = (us: readonly number[], vs: readonly number[]): number => {
    let sum = 0;
    for (const u of us)
      for (const v of vs) {
        const p = model(u, v, over(u));
        const [x, y] = [Math.floor((p[0] + 0.5) * scale), Math.floor((p[1] + 0.5) * scale)];
        sum += x < 0 || y < 0 || x >= face.width || y >= face.height ? -1 : face.odds[y * face.width + x]!;
      }
    return sum;
  };
  const count = (g: { readonly across: readonly number[]; readonly along: readonly number[] }): number => g.across.length * g.along.length;
  const inside = odds(INSIDE.across, INSIDE.along) / count(INSIDE);
  const beside = odds(BESIDE.across, BESIDE.along) + odds(BEYOND.across, BEYOND.along);
  return (inside - beside / (count(BESIDE) + count(BEYOND))) / 2;
}
