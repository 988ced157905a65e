import { spawn } from 'node:child_process';
import { handTurned, roundStage, seeded, surfaceMaps, turnFilm } from '@true-ledger/core/specimen';
import { roundSpecimen } from './rounds.mjs';

/** What hands, oil and running leave on any journal: pale straw-coloured patches that count for nothing. */
const smudges = (r) =>
  Array.from({ length: 10 + Math.floor(8 * r()) }, () => ({
    kind: 'temper',
    arc: 360 * r(),
    halfDeg: 6 + 16 * r(),
    axial: r(),
    axialHalf: 0.1 + 0.25 * r(),
    most: 0.1 + 0.16 * r(),
  }));

/** The n-th film of a turning journal of a set: the specimen, how it is taken, and how hand and phone move. */
export function turningJournal(set, n, { frames = 110, width = 960, turnDeg, bare = false } = {}) {
  const { s, shot, kind } = roundSpecimen('journal', set, n);
  const r = seeded(set.from + 7 * n + 3);
  const specimen = { ...s, damages: [...s.damages, ...(bare ? [] : smudges(r))] };
  const taken = { ...shot, fill: 1.6 * shot.fill, exposure: 0.5 * shot.exposure, width, height: 0.75 * width };
  const hand = { uneven: 0.5 * r(), shakePx: 3 * r(), exposed: 0.5 * r() };
  const turned = turnDeg ?? 375 + 40 * r();
  return {
    kind,
    s: specimen,
    corners: roundStage(specimen, taken, 'journal').corners,
    hand,
    frames: handTurned(frames, 360 * r(), turned, hand, r),
    turned,
    film: () => turnFilm(specimen, surfaceMaps(specimen, 2880, 400), taken, 'journal'),
  };
}

/** Encodes frames by ffmpeg; `frames` yields pixels. */
export async function encoded(
  path,
  frames,
  { width, height, fps = 15, args = ['-c:v', 'libvpx', '-b:v', '9M', '-deadline', 'good', '-cpu-used', '4'] },
) {
  const child = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      `${width}x${height}`,
      '-r',
      `${fps}`,
      '-i',
      'pipe:0',
      ...args,
      '-pix_fmt',
      'yuv420p',
      path,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const done = new Promise((resolve, reject) =>
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}`)))),
  );
  for (const pixels of frames)
    if (!child.stdin.write(Buffer.from(pixels.data.buffer))) await new Promise((go) => child.stdin.once('drain', go));
  child.stdin.end();
  await done;
}
