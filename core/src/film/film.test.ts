import { bearingFilm, filmAt, thinFilm, touchShare, ANGLE_BINS } from './bearingFilm.js';
import { askFilm, filmMap, type FilmAnswer, type FilmMap, type FilmModel } from './mobility.js';
import type { Bearing, JournalLoad } from './orbit.js';
import { solveFilm } from './reynolds.js';
import { ocvirkSteady, shortImpedance } from './shortBearing.js';

// A film is right where others have solved it: Ocvirk's closed form, the charts of Raimondi and Boyd, and what symmetry and likeness demand.
const BEARING: Bearing = { diameterM: 0.05, lengthM: 0.02, clearanceM: 25e-6, viscosityPaS: 0.008 };
const STEPS = 720;
const OMEGA = 300;
/** A load over one turn of the shaft. */
const loaded = (
  force: (i: number) => readonly [number, number],
  speed = OMEGA,
  periodS = (2 * Math.PI) / OMEGA,
  steps = STEPS,
): JournalLoad => {
  const load = { x: new Float64Array(steps), y: new Float64Array(steps), speed: new Float64Array(steps).fill(speed), periodS };
  for (let i = 0; i < steps; i++) [load.x[i], load.y[i]] = force(i / steps) as [number, number];
  return load;
};
/** S = μ n L D / W (R/c)². */
const sommerfeld = (b: Bearing, newton: number, omega: number): number =>
  (b.viscosityPaS * (omega / (2 * Math.PI)) * b.lengthM * b.diameterM * (b.diameterM / 2 / b.clearanceM) ** 2) / newton;
const drawn = new Map<string, FilmMap>();
const answerOf = (model: FilmModel, width: number, e: number, phi: number): FilmAnswer => {
  const answer = { along: 0, across: 0, peak: 0 };
  const key = `${model} ${width}`;
  if (!drawn.has(key)) drawn.set(key, filmMap(model, width));
  askFilm(drawn.get(key)!, e, phi, answer);
  return answer;
};

describe('the short bearing', () => {
  it('has the film force of a quadrature, at any eccentricity and direction', () => {
    for (const e of [0.05, 0.5, 0.9, 0.98])
      for (const beta of [0, 0.7, 1.5, 2.4, 3.1]) {
        const n = 20_000;
        let [x, y] = [0, 0];
        for (let i = 0; i < n; i++) {
          const a = beta - Math.PI / 2 + ((i + 0.5) * Math.PI) / n;
          const p = Math.cos(a - beta) / (1 - e * Math.cos(a)) ** 3;
          x += (p * Math.cos(a) * Math.PI) / n;
          y += (p * Math.sin(a) * Math.PI) / n;
        }
        const [fx, fy] = shortImpedance(e, beta);
        expect(Math.hypot(fx - x, fy - y) / Math.hypot(x, y)).toBeLessThan(1e-5);
      }
  });

  it('runs steadily as Ocvirk has it', () => {
    for (const e of [0.01, 0.1, 0.3, 0.5, 0.7, 0.9, 0.97, 0.995]) {
      // Steady running is squeezing across the line of centres at the mean speed: M = π ε S.
      const [x, y] = shortImpedance(e, Math.PI / 2);
      const steady = ocvirkSteady(e);
      expect(1 / (2 * Math.hypot(x, y)) / (Math.PI * e) / steady.shortSommerfeld).toBeCloseTo(1, 9);
      expect((Math.atan2(y, x) * 180) / Math.PI).toBeCloseTo(steady.attitudeDeg, 9);
    }
  });
});

/** Raimondi and Boyd, Trans. ASLE 1 (1958): eccentricity, Sommerfeld number, attitude in degrees, by L/D. */
const CHARTS: ReadonlyArray<readonly [width: number, rows: ReadonlyArray<readonly [number, number, number]>]> = [
  [
    1,
    [
      [0.2, 0.631, 74.02],
      [0.4, 0.264, 63.1],
      [0.6, 0.121, 50.58],
      [0.8, 0.0446, 36.24],
      [0.9, 0.0188, 26.45],
      [0.97, 0.00474, 15.47],
    ],
  ],
  [
    0.5,
    [
      [0.2, 2.03, 74.94],
      [0.4, 0.779, 61.45],
      [0.6, 0.319, 48.14],
      [0.8, 0.0923, 33.31],
      [0.9, 0.0313, 23.66],
      [0.97, 0.00609, 13.75],
    ],
  ],
  [
    0.25,
    [
      [0.2, 7.57, 75.18],
      [0.4, 2.83, 60.86],
      [0.6, 1.07, 46.72],
      [0.8, 0.261, 31.04],
      [0.9, 0.0736, 21.85],
      [0.97, 0.0101, 12.22],
    ],
  ],
];

describe('a bearing of finite width', () => {
  it.each(CHARTS)('runs steadily as the charts have it at L/D = %d', (width, rows) => {
    for (const [e, s, attitude] of rows) {
      // The load whose squeezing is straight across the line of centres.
      let [low, high] = [0, Math.PI / 2];
      for (let pass = 0; pass < 40; pass++) {
        const phi = (low + high) / 2;
        const a = answerOf('reynolds', width, e, phi);
        // Velocity from the line of centres: the load at φ, the velocity atan(across/along) on.
        if (phi + Math.atan2(a.across, a.along) < Math.PI / 2) low = phi;
        else high = phi;
      }
      const found = answerOf('reynolds', width, e, low);
      const own = Math.hypot(found.along, found.across) / (Math.PI * e);
      // The charts have three figures from the grids of their time, and stand apart by as much.
      expect(Math.abs(own / s - 1)).toBeLessThan(e >= 0.9 ? 0.03 : 0.02);
      expect(Math.abs((low * 180) / Math.PI - attitude)).toBeLessThan(4);
    }
  });

  it.each(['reynolds', 'gumbel'] as const)('is in the shipped map what the solver finds between its points: %s', (boundary) => {
    for (const [width, e, beta] of [
      [0.3, 0.37, 1.2],
      [0.45, 0.83, 2.2],
      [0.9, 0.93, 1.9],
      [0.6, 0.62, 0.4],
    ] as const) {
      const { force, peak } = solveFilm(width, e, beta, boundary, { round: 200, along: 14 });
      const size = Math.hypot(force[0], force[1]);
      const phi = Math.atan2(force[1], force[0]);
      const found = answerOf(boundary, width, e, phi);
      expect(Math.hypot(found.along, found.across) * 6 * size).toBeCloseTo(1, 1.6);
      expect(Math.atan2(found.across, found.along) + phi).toBeCloseTo(beta, 1.7);
      expect(found.peak / ((2 * peak) / size)).toBeCloseTo(1, 1.6);
    }
  });

  it('becomes the short bearing as it narrows', () => {
    const narrow = answerOf('reynolds', 0.15, 0.4, 1);
    const short = answerOf('short', 0.15, 0.4, 1);
    expect(narrow.along / short.along).toBeGreaterThan(1);
    expect(narrow.along / short.along).toBeLessThan(1.08);
  });
});

describe('an orbit', () => {
  it('under a load that stands ends where the steady solution is', () => {
    const newton = 3000;
    const film = bearingFilm(
      BEARING,
      loaded(() => [newton, 0]),
      'short',
    );
    const e = Math.hypot(film.orbit.x[0]!, film.orbit.y[0]!);
    const width = BEARING.lengthM / BEARING.diameterM;
    expect(ocvirkSteady(e).shortSommerfeld / (sommerfeld(BEARING, newton, OMEGA) * width * width)).toBeCloseTo(1, 2);
    // The thinnest film lies ahead of the load with the rotation.
    expect((film.least.sleeveRad * 180) / Math.PI).toBeCloseTo(ocvirkSteady(e).attitudeDeg, 0);
    expect(film.orbit.settled).toBe(true);
  });

  it('turned with its load turns with it, and mirrored is mirrored', () => {
    const force = (t: number): readonly [number, number] => [4000 * Math.cos(2 * Math.PI * t) + 1500, 2500 * Math.sin(4 * Math.PI * t)];
    const plain = bearingFilm(BEARING, loaded(force));
    const turned = bearingFilm(
      BEARING,
      loaded((t) => [-force(t)[1], force(t)[0]]),
    );
    const mirrored = bearingFilm(
      BEARING,
      loaded((t) => [force(t)[0], -force(t)[1]], -OMEGA),
    );
    for (const other of [turned, mirrored]) expect(other.least.filmM / plain.least.filmM).toBeCloseTo(1, 4);
    expect(turned.orbit.x[100]!).toBeCloseTo(-plain.orbit.y[100]!, 3);
    expect(mirrored.orbit.y[100]!).toBeCloseTo(-plain.orbit.y[100]!, 3);
  });

  it('keeps its film when the oil is twice as thick and everything half as fast', () => {
    const force = (t: number): readonly [number, number] => [4000 * Math.cos(2 * Math.PI * t), 3000];
    const plain = bearingFilm(BEARING, loaded(force));
    const slow = bearingFilm({ ...BEARING, viscosityPaS: 2 * BEARING.viscosityPaS }, loaded(force, OMEGA / 2, (4 * Math.PI) / OMEGA));
    expect(slow.least.filmM / plain.least.filmM).toBeCloseTo(1, 6);
    expect(slow.peak.pressurePa / plain.peak.pressurePa).toBeCloseTo(1, 6);
  });

  it('hardly changes with half the step', () => {
    const force = (t: number): readonly [number, number] => [6000 * Math.cos(2 * Math.PI * t), 3000 + 2000 * Math.sin(6 * Math.PI * t)];
    const coarse = bearingFilm(BEARING, loaded(force));
    const fine = bearingFilm(BEARING, loaded(force, OMEGA, (2 * Math.PI) / OMEGA, 2 * STEPS));
    expect(Math.abs(fine.least.filmM / coarse.least.filmM - 1)).toBeLessThan(0.005);
  });

  it('loses its film where the load goes round at half speed: no wedge draws oil in', () => {
    const force = (t: number): readonly [number, number] => [3000 * Math.cos(2 * Math.PI * t), 3000 * Math.sin(2 * Math.PI * t)];
    const whirling = bearingFilm(BEARING, loaded(force, 2 * OMEGA));
    expect(whirling.orbit.settled).toBe(false);
    expect(whirling.least.filmM).toBeLessThan(bearingFilm(BEARING, loaded(force, OMEGA)).least.filmM / 3);
  });

  it('says that surfaces touch where there is next to no oil', () => {
    const film = bearingFilm(
      { ...BEARING, viscosityPaS: 1e-7 },
      loaded(() => [9000, 0]),
    );
    expect(film.touches).toBe(true);
  });

  it('is thinner in the short bearing’s account of peaks, thicker in its film: width lets less out', () => {
    const force = (t: number): readonly [number, number] => [9000 * Math.cos(2 * Math.PI * t), 4000];
    const short = bearingFilm(BEARING, loaded(force), 'short');
    const finite = bearingFilm(BEARING, loaded(force));
    expect(short.least.filmM).toBeGreaterThan(finite.least.filmM);
  });
});

describe('where the film is thin', () => {
  it('is told on the shell and on the journal: a load that stands wears one place of the shell and the journal all round', () => {
    const load = loaded(() => [9000, 0]);
    const film = bearingFilm(BEARING, load);
    const roughness = film.least.filmM / 0.8;
    const turned = (i: number): number => (2 * Math.PI * i) / STEPS;
    const thin = thinFilm(BEARING, load, film, turned, roughness, 1);
    const at = Math.floor((film.least.sleeveRad / (2 * Math.PI)) * ANGLE_BINS);
    expect(thin.sleeveShare[at]).toBeCloseTo(1, 6);
    expect(thin.sleeveShare[(at + ANGLE_BINS / 2) % ANGLE_BINS]).toBe(0);
    expect(Math.max(...thin.journalShare) - Math.min(...thin.journalShare)).toBeLessThan(0.02);
    expect(thin.sleeveWear[at]).toBeGreaterThan(0);
    expect(filmAt(BEARING, film.orbit, 0, film.least.sleeveRad)).toBeCloseTo(film.least.filmM, 10);
  });

  it('wears nothing over a thick film', () => {
    expect(touchShare(4)).toBe(0);
    expect(touchShare(0)).toBe(1);
    expect(touchShare(1)).toBeGreaterThan(touchShare(2));
  });
});
