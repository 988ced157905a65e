// Writes the films that browser and command line are tested with: a lamp led over a half shell, a borescope drawn out of a bore, and a journal turned a little more than once before a camera held by hand, and beside it what is true of it.
// node bench/filmFixture.mjs
import { writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import {
  boreFrame,
  handDrawn,
  handLed,
  handTurned,
  lampFrame,
  seeded,
  surfaceMaps,
  turnFilm,
  USUAL_SHOT,
} from '@true-ledger/core/specimen';
import { encoded } from './filmSpecimens.mjs';

/** Writes what is true of a film beside it, laid out as the repository's other files are. */
async function keepTruth(path, truth) {
  writeFileSync(path, await format(JSON.stringify(truth), { ...(await resolveConfig(path)), filepath: path }));
}

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
const size = { width: 272, height: 204 };
const film = turnFilm(
  specimen,
  surfaceMaps(specimen, 1440, 200),
  { ...USUAL_SHOT, ...size, fill: 0.62, tiltDeg: 3, rollDeg: 2, noise: 0.5 },
  'journal',
);
const frames = handTurned(80, 30, 395, { uneven: 0.3, shakePx: 0.7, exposed: 0.3 }, seeded(5));
let k = 0;
const all = (function* () {
  for (const f of frames) yield film.frame(f, 40 + k++);
})();
await encoded('e2e/fixtures/turning-journal.webm', all, {
  ...size,
  args: ['-c:v', 'libvpx', '-b:v', '900k', '-deadline', 'good', '-cpu-used', '2', '-g', '20'],
});
const middle = ({ facingDeg: [from, to] }) => (from + to) / 2;
await keepTruth('e2e/fixtures/turning-journal.json', {
  ...size,
  radiusMm: 25,
  corners: film.corners,
  facingDeg: middle(frames[0]),
  turnedDeg: middle(frames.at(-1)) - middle(frames[0]),
  heatArc: [20, 140],
});

// A lamp led over a half shell.
const shell = {
  seed: 5,
  radiusMm: 25,
  widthMm: 20,
  damages: [
    { kind: 'wipe', arc: 95, halfDeg: 22, amount: 0.8 },
    { kind: 'score', axial: 0.3, fromDeg: 30, toDeg: 150, widthMm: 0.7, through: false },
  ],
};
const maps = surfaceMaps(shell, 1440, 480);
const lit = { ...USUAL_SHOT, width: 420, height: 314, lampWidth: 0.3, exposure: 1.1, seed: 9 };
const led = handLed(36, { wide: 0.5, shakePx: 1.5 }, seeded(3));
const { corners } = lampFrame(shell, maps, lit, { lampAt: [0, 0], strayed: [0, 0, 0] }, 1);
let n = 0;
const lampFrames = (function* () {
  for (const f of led) yield lampFrame(shell, maps, lit, f, 80 + n++).pixels;
})();
await encoded('e2e/fixtures/led-lamp.webm', lampFrames, { width: lit.width, height: lit.height, fps: 6 });
await keepTruth('e2e/fixtures/led-lamp.json', { width: lit.width, height: lit.height, radiusMm: shell.radiusMm, corners });

// A borescope drawn out of a bore: the piston closes it below.
const bore = {
  seed: 4,
  radiusMm: 43,
  widthMm: 110,
  spanDeg: 360,
  finish: 'honed-iron',
  damages: [
    { kind: 'scuff', arc: 100, halfDeg: 22, from: 0.25, to: 0.85, amount: 1.2 },
    { kind: 'rust', arc: 260, halfDeg: 25, amount: 0.6 },
  ],
};
const boreMaps = surfaceMaps(bore, 2400, 1000);
const scope = { ...USUAL_SHOT, width: 424, height: 318, focal: 0.5, exposure: 1, noise: 0.6 };
const drawn = handDrawn(40, 1.5, -0.55, { uneven: 0.4, strays: 0.04, tilts: 0.03, rolls: 0.08, exposed: 0.3 }, seeded(8));
let f = 0;
const scopeFrames = (function* () {
  for (const poses of drawn) yield boreFrame(bore, boreMaps, scope, poses, 120 + f++);
})();
await encoded('e2e/fixtures/drawn-scope.webm', scopeFrames, { width: scope.width, height: scope.height, fps: 10 });
await keepTruth('e2e/fixtures/drawn-scope.json', {
  width: scope.width,
  height: scope.height,
  radiusMm: bore.radiusMm,
  lengthMm: bore.widthMm,
  drawnMm: (drawn[0][1].depth - drawn.at(-1)[1].depth) * bore.radiusMm,
  scuffArc: [78, 122],
  rustArc: [235, 285],
});
