import { askFilm, type FilmAnswer, type FilmMap } from './mobility.js';

/** A plain bearing and its oil. */
export interface Bearing {
  readonly diameterM: number;
  readonly lengthM: number;
  /** Half the difference of the diameters, m. */
  readonly clearanceM: number;
  readonly viscosityPaS: number;
}

/** What presses the journal over one period, at even steps, in a frame that stands still with the sleeve. */
export interface JournalLoad {
  /** Of the journal on the sleeve, N: where it points the film gets thin. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Of the journal against the sleeve, rad/s, positive from x to y. */
  readonly speed: Float64Array;
  readonly periodS: number;
}

/** The way of the journal's centre over one period. */
export interface Orbit {
  /** Eccentricity over the clearance at every step, in the frame of the sleeve. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Highest film pressure, Pa, at every step. */
  readonly peakPa: Float64Array;
  /** Periods until it met itself. */
  readonly periods: number;
  /** It met itself: no place changed by more than a ten-thousandth of the clearance and a thousandth of the film there. */
  readonly settled: boolean;
}

/** Change between periods, of the eccentricity and of the film that is left, below which an orbit is one. */
const SETTLED = 1e-4;
const SETTLED_FILM = 1e-3;
const MOST_PERIODS = 60;
/** No film is thinner than this share of the clearance: there the surfaces touch, and what follows is no film. */
export const LEAST_GAP = 1e-3;
/** Largest way in one step, of the clearance, and of the film that is left. */
const LONGEST = 0.02;
const LONGEST_OF_GAP = 0.15;

/**
 * The periodic orbit of a journal under a load that repeats (Booker's mobility method): dε/dt = F (c/R)² / (μ L D) M(ε) + ω̄ × ε with the mean speed ω̄ of journal and sleeve in the frame of the
 * sleeve. Runge–Kutta of fourth order with steps that shorten where the film is thin; loads between their steps by a straight line.
 */
export function orbitOf(bearing: Bearing, load: JournalLoad, film: FilmMap): Orbit {
  const steps = load.x.length;
  const dt = load.periodS / steps;
  const ratio = (2 * bearing.clearanceM) / bearing.diameterM;
  const softness = (ratio * ratio) / (bearing.viscosityPaS * bearing.lengthM * bearing.diameterM);
  const answer: FilmAnswer = { along: 0, across: 0, peak: 0 };
  const x = new Float64Array(steps);
  const y = new Float64Array(steps);
  const peakPa = new Float64Array(steps);
  let vx = 0;
  let vy = 0;
  /** Velocity of the centre at (ex, ey), `t` steps into the period. */
  const velocity = (ex: number, ey: number, t: number): void => {
    const i = Math.floor(t) % steps;
    const j = (i + 1) % steps;
    const u = t - Math.floor(t);
    const fx = load.x[i]! + u * (load.x[j]! - load.x[i]!);
    const fy = load.y[i]! + u * (load.y[j]! - load.y[i]!);
    const turning = (load.speed[i]! + u * (load.speed[j]! - load.speed[i]!)) / 2;
    const force = Math.sqrt(fx * fx + fy * fy);
    vx = -turning * ey;
    vy = turning * ex;
    if (force < 1e-9) return;
    const eccentricity = Math.min(1 - LEAST_GAP, Math.sqrt(ex * ex + ey * ey));
    askFilm(film, eccentricity, Math.atan2(fy, fx) - Math.atan2(ey, ex), answer);
    const [ux, uy] = [fx / force, fy / force];
    const [along, across] = [answer.along * force * softness, answer.across * force * softness];
    vx += along * ux - across * uy;
    vy += along * uy + across * ux;
  };
  // From a little towards the mean load: any beginning ends in the same orbit.
  let ex = 0.3 * Math.sign(load.x.reduce((a, b) => a + b, 0) || 1);
  let ey = 0;
  let periods = 0;
  let settled = false;
  while (!settled && periods < MOST_PERIODS) {
    settled = periods > 0;
    for (let i = 0; i < steps; i++) {
      const bound = Math.min(SETTLED, SETTLED_FILM * (1 - Math.sqrt(ex * ex + ey * ey)));
      if (Math.abs(ex - x[i]!) > bound || Math.abs(ey - y[i]!) > bound) settled = false;
      x[i] = ex;
      y[i] = ey;
      for (let t = 0; t < 1 - 1e-12;) {
        velocity(ex, ey, i + t);
        const [ax, ay] = [vx, vy];
        const gap = Math.max(LEAST_GAP, 1 - Math.sqrt(ex * ex + ey * ey));
        const speed = Math.sqrt(ax * ax + ay * ay) * dt;
        const h = Math.min(1 - t, Math.max(1e-3, Math.min(LONGEST, LONGEST_OF_GAP * gap) / (speed + 1e-30)));
        velocity(ex + (h / 2) * dt * ax, ey + (h / 2) * dt * ay, i + t + h / 2);
        const [bx, by] = [vx, vy];
        velocity(ex + (h / 2) * dt * bx, ey + (h / 2) * dt * by, i + t + h / 2);
        const [cx, cy] = [vx, vy];
        velocity(ex + h * dt * cx, ey + h * dt * cy, i + t + h);
        ex += ((h * dt) / 6) * (ax + 2 * bx + 2 * cx + vx);
        ey += ((h * dt) / 6) * (ay + 2 * by + 2 * cy + vy);
        const e = Math.sqrt(ex * ex + ey * ey);
        if (e > 1 - LEAST_GAP) {
          ex *= (1 - LEAST_GAP) / e;
          ey *= (1 - LEAST_GAP) / e;
        }
        t += h;
      }
    }
    periods++;
  }
  for (let i = 0; i < steps; i++) {
    const force = Math.hypot(load.x[i]!, load.y[i]!);
    askFilm(film, Math.min(1 - LEAST_GAP, Math.hypot(x[i]!, y[i]!)), Math.atan2(load.y[i]!, load.x[i]!) - Math.atan2(y[i]!, x[i]!), answer);
    peakPa[i] = (answer.peak * force) / (bearing.lengthM * bearing.diameterM);
  }
  return { x, y, peakPa, periods, settled };
}
