import type { Vector } from './shortBearing.js';

/** What holds where the film cannot carry: the pressure leaves the film level (Reynolds, Swift–Stieber), or what is below zero is left out afterwards (Gümbel, half Sommerfeld). */
export type FilmBoundary = 'reynolds' | 'gumbel';

export interface FilmSolution {
  /** Force of the film as a multiple of 12 μ V R³ L / c³, along the eccentricity and a quarter turn on. */
  readonly force: Vector;
  /** Highest pressure as a multiple of 12 μ V R² / c³. */
  readonly peak: number;
}

export interface FilmGrid {
  /** Points round the bearing. */
  readonly round: number;
  /** Points from the middle plane to the edge. */
  readonly along: number;
}

const PASSES = 60;

/**
 * Film pressure of a journal of finite width that moves with unit velocity at the angle `beta` from its eccentricity: Reynolds' equation
 * ∂/∂a (H³ ∂P/∂a) + (D/L)² ∂/∂ζ (H³ ∂P/∂ζ) = − cos(a − β), H = 1 − ε cos a, P = 0 at the edges ζ = ±1,
 * by finite volumes on a grid that is closer where the film is thin. The linear complementarity P ≥ 0 of the Reynolds condition is found by an active set; every pass is one banded elimination.
 * @throws RangeError when the active set does not settle.
 */
export function solveFilm(widthRatio: number, eccentricity: number, beta: number, boundary: FilmBoundary, grid: FilmGrid): FilmSolution {
  const { round: n, along: m } = grid;
  const angles = thinWards(n, eccentricity, beta);
  const film = (a: number): number => 1 - eccentricity * Math.cos(a);
  const step = (i: number): number => (i === n - 1 ? angles[0]! + 2 * Math.PI : angles[i + 1]!) - angles[i]!;
  const width = (i: number): number => (step(i) + step((i + n - 1) % n)) / 2;
  /** Flow from point i to the next for a unit difference of pressure. */
  const on = Array.from({ length: n }, (_, i) => film(angles[i]! + step(i) / 2) ** 3 / step(i));
  const dz = 1 / m;
  const ratio = 1 / (widthRatio * widthRatio);
  const across = Array.from({ length: n }, (_, i) => (ratio * film(angles[i]!) ** 3 * width(i)) / dz);
  const source = Array.from({ length: n }, (_, i) => Math.cos(angles[i]! - beta) * width(i) * dz);
  const p = new Float64Array(n * m);
  // The grid begins where the film opens fastest: there it carries nothing, so the ring is cut there for the Reynolds condition; for Gümbel's it is closed by the harmonics of the width.
  if (boundary === 'gumbel') return gumbel();
  const carries = new Uint8Array(n * m);
  for (let i = 0; i < n; i++) for (let j = 0; j < m; j++) carries[i * m + j] = Math.cos(angles[i]! - beta) > 0 ? 1 : 0;
  for (let j = 0; j < m; j++) carries[j] = 0;
  for (let pass = 0; ; pass++) {
    if (pass === PASSES) throw new RangeError(`the film does not settle at ε = ${eccentricity}, β = ${beta}`);
    eliminate();
    let changed = 0;
    for (let i = 1; i < n; i++)
      for (let j = 0; j < m; j++) {
        const k = i * m + j;
        if (carries[k] === 1) {
          if (p[k]! < 0) {
            carries[k] = 0;
            changed++;
          }
        } else if (residual(i, j) > 1e-13) {
          carries[k] = 1;
          changed++;
        }
      }
    if (changed === 0) break;
  }
  return sum((i, j) => p[i * m + j]!);

  /** What flows in and is displaced at a point that carries nothing: positive, and it would fill. */
  function residual(i: number, j: number): number {
    const at = (a: number, b: number): number => p[((a + n) % n) * m + b]!;
    return (
      source[i]! +
      dz * (on[i]! * at(i + 1, j) + on[(i + n - 1) % n]! * at(i - 1, j)) +
      across[i]! * ((j > 0 ? at(i, j - 1) : 0) + (j < m - 1 ? at(i, j + 1) : 0))
    );
  }

  /** Solves for the pressure at the points that carry; those that do not hold zero. Symmetric, banded: Cholesky without roots. */
  function eliminate(): void {
    const size = n * m;
    const band = m;
    const low = new Float64Array(size * (band + 1));
    for (let i = 0; i < n; i++)
      for (let j = 0; j < m; j++) {
        const k = i * m + j;
        const row = k * (band + 1);
        if (carries[k] === 0) {
          low[row] = 1;
          p[k] = 0;
          continue;
        }
        // At the edge ζ = 1 the pressure is nought half a cell on.
        const edge = j === m - 1 ? 2 * across[i]! : across[i]!;
        low[row] = dz * (on[i]! + on[(i + n - 1) % n]!) + (j > 0 ? across[i]! : 0) + edge;
        if (j > 0 && carries[k - 1] === 1) low[row + 1] = -across[i]!;
        if (i > 0 && carries[k - m] === 1) low[row + band] = -dz * on[i - 1]!;
        p[k] = source[i]!;
      }
    for (let k = 0; k < size; k++) {
      const row = k * (band + 1);
      for (let d = Math.min(band, k); d >= 1; d--) {
        let value = low[row + d]!;
        const other = (k - d) * (band + 1);
        for (let f = d + 1; f <= Math.min(band, k); f++) {
          const g = f - d;
          value -= low[row + f]! * low[other + g]! * low[(k - f) * (band + 1)]!;
        }
        low[row + d] = value / low[other]!;
      }
      let pivot = low[row]!;
      for (let d = 1; d <= Math.min(band, k); d++) pivot -= low[row + d]! * low[row + d]! * low[(k - d) * (band + 1)]!;
      low[row] = pivot;
    }
    for (let k = 0; k < size; k++) for (let d = 1; d <= Math.min(band, k); d++) p[k]! -= low[k * (band + 1) + d]! * p[k - d]!;
    for (let k = 0; k < size; k++) p[k]! /= low[k * (band + 1)]!;
    for (let k = size - 1; k >= 0; k--) for (let d = 1; d <= Math.min(band, k); d++) p[k - d]! -= low[k * (band + 1) + d]! * p[k]!;
  }

  /** The whole ring full of film, what is below zero left out: a tridiagonal ring for every harmonic of the width. */
  function gumbel(): FilmSolution {
    const harmonics = 2 * m;
    const waves = Array.from({ length: harmonics }, (_, k) => {
      const lambda = ((2 * k + 1) * Math.PI) / 2;
      const share = (2 * (k % 2 === 0 ? 1 : -1)) / lambda;
      const diagonal = angles.map((a, i) => on[i]! + on[(i + n - 1) % n]! + ratio * lambda * lambda * film(a) ** 3 * width(i));
      const right = source.map((s) => (s / dz) * share);
      return { lambda, values: ring(diagonal, on, right) };
    });
    return sum((i, j) => {
      const z = (j + 0.5) * dz;
      let value = 0;
      for (const { lambda, values } of waves) value += values[i]! * Math.cos(lambda * z);
      return Math.max(0, value);
    });
  }

  function sum(pressure: (i: number, j: number) => number): FilmSolution {
    let x = 0;
    let y = 0;
    let peak = 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < m; j++) {
        const value = pressure(i, j);
        if (value > peak) peak = value;
        x += value * Math.cos(angles[i]!) * width(i) * dz;
        y += value * Math.sin(angles[i]!) * width(i) * dz;
      }
    return { force: [x, y], peak };
  }
}

/** Solves −o₋ x₋ + d x − o x₊ = r on a ring (Sherman–Morrison over Thomas). */
function ring(diagonal: readonly number[], on: readonly number[], right: readonly number[]): number[] {
  const n = diagonal.length;
  const corner = -on[n - 1]!;
  const g = -diagonal[0]!;
  const own = [...diagonal];
  own[0]! -= g;
  own[n - 1]! -= (corner * corner) / g;
  const thomas = (r: readonly number[]): number[] => {
    const c = new Array<number>(n);
    const x = new Array<number>(n);
    let pivot = own[0]!;
    x[0] = r[0]! / pivot;
    for (let i = 1; i < n; i++) {
      c[i] = -on[i - 1]! / pivot;
      pivot = own[i]! + on[i - 1]! * c[i]!;
      x[i] = (r[i]! + on[i - 1]! * x[i - 1]!) / pivot;
    }
    for (let i = n - 2; i >= 0; i--) x[i]! -= c[i + 1]! * x[i + 1]!;
    return x;
  };
  const y = thomas(right);
  const u = new Array<number>(n).fill(0);
  u[0] = g;
  u[n - 1] = corner;
  const z = thomas(u);
  const factor = (y[0]! + (corner * y[n - 1]!) / g) / (1 + z[0]! + (corner * z[n - 1]!) / g);
  return y.map((v, i) => v - factor * z[i]!);
}

/** Angles round the bearing from where the film opens fastest, half of them evenly and half by Sommerfeld's variable, which is closer where the film is thin. */
function thinWards(n: number, eccentricity: number, beta: number): number[] {
  const root = Math.sqrt(1 - eccentricity * eccentricity);
  const from = beta + Math.PI;
  const density = (a: number): number => 0.5 + (0.5 * root) / (1 - eccentricity * Math.cos(a));
  const FINE = 40;
  const angles: number[] = [];
  let at = 0;
  let grown = 0;
  const d = (2 * Math.PI) / (n * FINE);
  for (let i = 0; i < n; i++) {
    const wanted = (i * 2 * Math.PI) / n;
    while (grown < wanted - 1e-12) {
      const next = density(from + (at + 0.5) * d) * d;
      if (grown + next > wanted) break;
      grown += next;
      at++;
    }
    const rest = grown < wanted ? (wanted - grown) / density(from + (at + 0.5) * d) : 0;
    angles.push(from + at * d + rest);
  }
  return angles;
}
