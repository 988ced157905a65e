// Writes the film that browser and command line are tested with: a journal turned a little more than once before a camera held by hand, and beside it what is true of it.
// node bench/filmFixture.mjs
import { writeFileSync } from 'node:fs';
import { handTurned, seeded, surfaceMaps, turnFilm, USUAL_SHOT } from '@true-ledger/core/specimen';
import { encoded } from './filmSpecimens.mjs';

const specimen = {
  seed: 3,
  radiusMm: 25,
  widthMm: 24,
  spanDeg: 360,
  finish: 'ground-steel',
  damages: [
    { kind: 'temper', arc: 80, halfDeg: 60, axial: 0.5, axialHalf: 0.5, most: 0.9 },
    { kind: 'score', axial: 0.3, fromDeg: 20, toDeg: 150, widthMm: 0.5, through: false },
    ...[20, 75, 130, 170, 205, 240, 275, 310, 345].map((arc, k) => ({
      kind: 'temper',
      arc,
      halfDeg: 9,
      axial: 0.2 + 0.15 * (k % 5),
      axialHalf: 0.22,
      most: 0.24,
    })),
  ],
  hole: { arc: 255, axial: 0.5, diameterMm: 5 },
};
const size = { width: 360, height: 270 };
const film = turnFilm(
  specimen,
  surfaceMaps(specimen, 1440, 200),
  { ...USUAL_SHOT, ...size, fill: 0.62, tiltDeg: 3, rollDeg: 2, noise: 0.5 },
  'journal',
);
const frames = handTurned(100, 30, 395, { uneven: 0.3, shakePx: 0.7, exposed: 0.3 }, seeded(5));
let k = 0;
const all = (function* () {
  for (const f of frames) yield film.frame(f, 40 + k++);
})();
await encoded('e2e/fixtures/turning-journal.webm', all, {
  ...size,
  args: ['-c:v', 'libvpx', '-b:v', '900k', '-deadline', 'good', '-cpu-used', '2', '-g', '20'],
});
const middle = ({ facingDeg: [from, to] }) => (from + to) / 2;
writeFileSync(
  'e2e/fixtures/turning-journal.json',
  `${JSON.stringify({ ...size, radiusMm: 25, corners: film.corners, facingDeg: middle(frames[0]), turnedDeg: middle(frames.at(-1)) - middle(frames[0]), heatArc: [20, 140] }, null, 2)}\n`,
);
