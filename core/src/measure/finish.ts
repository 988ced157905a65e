import FFT from 'fft.js';
import { fail, ok, type Result } from '../kit/result.js';

/** A profile trace: equally spaced, heights µm. */
export interface Trace {
  readonly stepMm: number;
  readonly z: Float64Array;
}

interface AbbottConstruction {
  /** Equivalent straight line of the core: height µm at 0 % and at 100 % material ratio. */
  readonly upper: number;
  readonly lower: number;
  /** Material ratios (0–1) between which the line was fitted. */
  readonly from: number;
  readonly to: number;
}

/** Surface parameters of a trace; heights µm, ratios percent. */
export interface FinishResult {
  readonly cutoffMm: number;
  readonly evaluationMm: number;
  /** Length the Rk family is taken over: shorter, since its reference is filtered twice. */
  readonly ratioEvaluationMm: number;
  readonly sections: number;
  readonly Ra: number;
  readonly Rq: number;
  readonly Rz: number;
  readonly Rsk: number;
  readonly Rk: number;
  readonly Rpk: number;
  readonly Rvk: number;
  readonly Mr1: number;
  readonly Mr2: number;
  /** Height against material ratio, 201 points, for the curve. */
  readonly abbott: ReadonlyArray<readonly [ratioPercent: number, heightUm: number]>;
  readonly construction: AbbottConstruction;
  readonly notes: readonly string[];
}

/** α = √(ln 2 / π): the Gaussian passes half the amplitude at the cut-off (ISO 16610-21). */
const ALPHA = Math.sqrt(Math.LN2 / Math.PI);
/** Half width of the weighting function in cut-offs (truncation constant of ISO 16610-21; 0.5 leaves at most 0.76 %). */
const REACH = 0.5;

/** Mean line of a profile by the Gaussian filter (ISO 16610-21), for the part that the weighting function covers wholly: nothing is padded. */
export function gaussianMeanLine(
  z: Float64Array,
  stepMm: number,
  cutoffMm: number,
): { readonly from: number; readonly line: Float64Array } | null {
  const half = Math.round((REACH * cutoffMm) / stepMm);
  if (half < 2 || z.length < 2 * half + 2) return null;
  const kernel = new Float64Array(2 * half + 1);
  let sum = 0;
  for (let k = -half; k <= half; k++) {
    const w = Math.exp(-Math.PI * ((k * stepMm) / (ALPHA * cutoffMm)) ** 2);
    kernel[k + half] = w;
    sum += w;
  }
  for (let k = 0; k < kernel.length; k++) kernel[k] = kernel[k]! / sum;
  return { from: half, line: convolveValid(z, kernel) };
}

/** Convolution where both overlap wholly, block by block (overlap-save) by fast Fourier transform. The kernel is symmetric. */
function convolveValid(z: Float64Array, kernel: Float64Array): Float64Array {
  let size = 4096;
  while (size < 4 * kernel.length) size *= 2;
  const fft = new FFT(size);
  const padded = new Array<number>(size).fill(0);
  const a = fft.createComplexArray() as number[];
  const b = fft.createComplexArray() as number[];
  const back = fft.createComplexArray() as number[];
  for (let i = 0; i < kernel.length; i++) padded[i] = kernel[i]!;
  fft.realTransform(b, padded);
  fft.completeSpectrum(b);
  const out = new Float64Array(z.length - kernel.length + 1);
  const whole = size - kernel.length + 1;
  for (let from = 0; from < out.length; from += whole) {
    for (let i = 0; i < size; i++) padded[i] = z[from + i] ?? 0;
    fft.realTransform(a, padded);
    fft.completeSpectrum(a);
    for (let i = 0; i < a.length; i += 2) {
      const re = a[i]! * b[i]! - a[i + 1]! * b[i + 1]!;
      a[i + 1] = a[i]! * b[i + 1]! + a[i + 1]! * b[i]!;
      a[i] = re;
    }
    fft.inverseTransform(back, a);
    const many = Math.min(whole, out.length - from);
    for (let i = 0; i < many; i++) out[from + i] = back[(i + kernel.length - 1) * 2]!;
  }
  return out;
}

/** Takes the least-squares straight line off: the part lay askew under the stylus. */
export function levelled(z: Float64Array): Float64Array {
  const n = z.length;
  const mid = (n - 1) / 2;
  let sz = 0;
  let sxz = 0;
  for (let i = 0; i < n; i++) {
    sz += z[i]!;
    sxz += (i - mid) * z[i]!;
  }
  const slope = sxz / ((n * (n * n - 1)) / 12);
  const mean = sz / n;
  return z.map((v, i) => v - mean - slope * (i - mid));
}

/**
 * Surface parameters: Ra, Rq, Rz, Rsk on the Gaussian-filtered roughness profile (ISO 21920-2), Rk, Rpk, Rvk, Mr1, Mr2 on the two-step filtered
 * profile (ISO 13565-1, -2). Fails, rather than pads, when the trace is too short for the cut-off.
 */
export function surfaceFinish(trace: Trace, cutoffMm = 0.8): Result<FinishResult> {
  const lengthMm = (trace.z.length - 1) * trace.stepMm;
  const need = cutoffMm * 3;
  if (lengthMm < need)
    return fail(
      'trace-short',
      `The trace is ${lengthMm.toFixed(2)} mm long; a cut-off of ${cutoffMm} mm needs at least ${need.toFixed(1)} mm, since half a cut-off is lost at each end of each filter step and nothing is padded. Take a longer trace or a smaller cut-off.`,
      'trace',
    );
  if (trace.stepMm > cutoffMm / 50)
    return fail(
      'trace-coarse',
      `The points lie ${(trace.stepMm * 1000).toFixed(1)} µm apart, too far for a cut-off of ${cutoffMm} mm (at most ${((cutoffMm / 50) * 1000).toFixed(0)} µm).`,
      'trace',
    );
  const z = levelled(trace.z);
  const first = gaussianMeanLine(z, trace.stepMm, cutoffMm)!;
  const rough = first.line.map((w, i) => z[i + first.from]! - w);
  // Valleys cut to the first mean line, filtered again: the reference then runs on the plateau, not into the grooves (ISO 13565-1).
  const cut = first.line.map((w, i) => Math.max(z[i + first.from]!, w));
  const second = gaussianMeanLine(cut, trace.stepMm, cutoffMm);
  if (!second)
    return fail('trace-short', 'The trace is too short for the second filter step. Take a longer trace or a smaller cut-off.', 'trace');
  const core = second.line.map((w, i) => z[i + first.from + second.from]! - w);
  const mean = rough.reduce((a, b) => a + b, 0) / rough.length;
  let abs = 0;
  let sq = 0;
  let cube = 0;
  for (const v of rough) {
    const d = v - mean;
    abs += Math.abs(d);
    sq += d * d;
    cube += d * d * d;
  }
  const Rq = Math.sqrt(sq / rough.length);
  const perSection = Math.round(cutoffMm / trace.stepMm);
  const sections = Math.min(5, Math.floor(rough.length / perSection));
  let Rz = 0;
  for (let s = 0; s < sections; s++) {
    const part = rough.subarray(s * perSection, (s + 1) * perSection);
    let top = -Infinity;
    let low = Infinity;
    for (const v of part) {
      if (v > top) top = v;
      if (v < low) low = v;
    }
    Rz += (top - low) / sections;
  }
  const ratio = materialRatio(core);
  const notes = [
    ...(sections < 5
      ? [`Rz over ${sections} section${sections === 1 ? '' : 's'} instead of five: the trace is short for this cut-off.`]
      : []),
    `Gaussian filter, cut-off ${cutoffMm} mm, half a cut-off lost at each end; levelled by a least-squares line.`,
    `Rk, Rpk, Rvk, Mr1 and Mr2 over ${(core.length * trace.stepMm).toFixed(2)} mm, the others over ${(rough.length * trace.stepMm).toFixed(2)} mm: the second filter step takes half a cut-off more at each end.`,
  ];
  return ok({
    cutoffMm,
    evaluationMm: rough.length * trace.stepMm,
    ratioEvaluationMm: core.length * trace.stepMm,
    sections,
    Ra: abs / rough.length,
    Rq,
    Rz,
    Rsk: Rq > 0 ? cube / rough.length / Rq ** 3 : 0,
    ...ratio,
    notes,
  });
}

type Ratio = Pick<FinishResult, 'Rk' | 'Rpk' | 'Rvk' | 'Mr1' | 'Mr2' | 'abbott' | 'construction'>;

/** Material ratio curve with the 40 % minimum-secant construction and equal-area triangles (ISO 13565-2). */
export function materialRatio(profile: Float64Array): Ratio {
  const z = Float64Array.from(profile).sort().reverse();
  const n = z.length;
  const at = (i: number): number => (i + 0.5) / n;
  const window = Math.max(2, Math.round(0.4 * n));
  let start = 0;
  let least = Infinity;
  for (let i = 0; i + window < n; i++) {
    const fall = z[i]! - z[i + window]!;
    if (fall < least - 1e-15) {
      least = fall;
      start = i;
    }
  }
  // The equivalent straight line: least squares in height over the window of least fall.
  let sx = 0;
  let sy = 0;
  let sxx = 0;
  let sxy = 0;
  for (let i = start; i <= start + window && i < n; i++) {
    const x = at(i);
    sx += x;
    sy += z[i]!;
    sxx += x * x;
    sxy += x * z[i]!;
  }
  const m = Math.min(window + 1, n - start);
  const slope = (m * sxy - sx * sy) / (m * sxx - sx * sx);
  const upper = (sy - slope * sx) / m;
  const lower = upper + slope;
  let above = 0;
  let peak = 0;
  while (above < n && z[above]! > upper) {
    peak += (z[above]! - upper) / n;
    above++;
  }
  let below = n;
  let valley = 0;
  while (below > 0 && z[below - 1]! < lower) {
    below--;
    valley += (lower - z[below]!) / n;
  }
  const mr1 = above / n;
  const mr2 = below / n;
  const abbott = Array.from({ length: 201 }, (_, k): readonly [number, number] => {
    const i = Math.min(n - 1, Math.max(0, Math.round((k / 200) * n - 0.5)));
    return [k / 2, z[i]!];
  });
  return {
    Rk: upper - lower,
    Rpk: mr1 > 0 ? (2 * peak) / mr1 : 0,
    Rvk: mr2 < 1 ? (2 * valley) / (1 - mr2) : 0,
    Mr1: mr1 * 100,
    Mr2: mr2 * 100,
    abbott,
    construction: { upper, lower, from: at(start), to: at(Math.min(n - 1, start + window)) },
  };
}

/** A long profile for drawing: least and greatest of each of `bins` stretches, in their order along x, so that no peak is lost. */
export function envelope(trace: Trace, bins: number): ReadonlyArray<readonly [xMm: number, zUm: number]> {
  const n = trace.z.length;
  if (n <= 2 * bins) return Array.from(trace.z, (v, i) => [i * trace.stepMm, v] as const);
  const out: Array<readonly [number, number]> = [];
  for (let b = 0; b < bins; b++) {
    const end = Math.floor(((b + 1) * n) / bins);
    let low = Math.floor((b * n) / bins);
    let high = low;
    for (let i = low + 1; i < end; i++) {
      if (trace.z[i]! < trace.z[low]!) low = i;
      if (trace.z[i]! > trace.z[high]!) high = i;
    }
    for (const i of low <= high ? [low, high] : [high, low]) out.push([i * trace.stepMm, trace.z[i]!]);
  }
  return out;
}

/** What a finish says in words; with a reference (below ring travel) it says what the running took off. Rules of thumb, marked as such. */
export function finishWords(r: FinishResult, reference?: FinishResult): string[] {
  const words: string[] = [];
  if (r.Rsk < -0.8 && r.Rvk > 2 * Math.max(r.Rpk, 1e-6)) words.push('Peaks gone, valleys left: a plateau that still holds oil.');
  else if (r.Rsk > 0.5) words.push('Peaks stand above the plateau: not run in, or torn.');
  else if (r.Rvk < 0.4 && r.Ra < 0.15) words.push('Neither peaks nor valleys: glazed, it holds little oil.');
  else words.push('Peaks and valleys about alike: as honed or ground.');
  if (reference) {
    const share = (a: number, b: number): number => (b > 0 ? (a / b) * 100 : 0);
    words.push(
      `Against the unworn reference: peaks ${share(r.Rpk, reference.Rpk).toFixed(0)} %, core ${share(r.Rk, reference.Rk).toFixed(0)} %, valleys ${share(r.Rvk, reference.Rvk).toFixed(0)} % are left.`,
    );
    if (r.Rvk < reference.Rvk * 0.5) words.push('Half of the valleys and more are worn away: the hone pattern no longer holds its oil.');
  }
  return words;
}

/** The answer as a file (`docs/formats/measure.md`): figures and words, without the curve. */
export function finishJson(result: FinishResult, reference?: FinishResult): object {
  const { abbott: _curve, ...figures } = result;
  return { format: 'true-ledger/finish', version: 1, unit: 'µm', ...figures, says: finishWords(result, reference) };
}
