import fc from 'fast-check';
import { envelope, finishWords, gaussianMeanLine, levelled, materialRatio, surfaceFinish, type Trace } from './finish.js';
import { readTraceCsv } from './traceCsv.js';

const STEP = 0.0005;
const make = (lengthMm: number, f: (xMm: number) => number): Trace => ({
  stepMm: STEP,
  z: Float64Array.from({ length: Math.round(lengthMm / STEP) + 1 }, (_, i) => f(i * STEP)),
});
const finish = (trace: Trace, cutoff = 0.8) => {
  const r = surfaceFinish(trace, cutoff);
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
};
const sine =
  (waveMm: number, amplitude: number) =>
  (x: number): number =>
    amplitude * Math.sin((2 * Math.PI * x) / waveMm);
let seed = 1;
const gauss = (): number => {
  const u = (): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return (seed + 0.5) / 4294967296;
  };
  return Math.sqrt(-2 * Math.log(u())) * Math.cos(2 * Math.PI * u());
};

describe('Gaussian filter', () => {
  const passed = (waveMm: number): number => {
    const trace = make(8, sine(waveMm, 1));
    const { line } = gaussianMeanLine(trace.z, STEP, 0.8)!;
    return Math.max(...line.subarray(2000, line.length - 2000));
  };
  it('passes half at the cut-off, nearly all of long waves, nearly nothing of short ones', () => {
    expect(passed(0.8)).toBeCloseTo(0.5, 1);
    expect(Math.abs(passed(0.8) - 0.5)).toBeLessThan(0.0076 * 2);
    // Transmission exp(−π (α λc / λ)²), ISO 16610-21.
    for (const wave of [0.5, 1.6, 2.5, 4])
      expect(Math.abs(passed(wave) - Math.exp(-Math.PI * ((Math.sqrt(Math.LN2 / Math.PI) * 0.8) / wave) ** 2))).toBeLessThan(0.016);
  });
  it('equals plain convolution', () => {
    const z = Float64Array.from({ length: 700 }, gauss);
    const { line, from } = gaussianMeanLine(z, 0.004, 0.8)!;
    const w = Array.from({ length: 2 * from + 1 }, (_, k) =>
      Math.exp(-Math.PI * (((k - from) * 0.004) / (Math.sqrt(Math.LN2 / Math.PI) * 0.8)) ** 2),
    );
    const sum = w.reduce((a, b) => a + b, 0);
    for (const i of [0, 100, line.length - 1]) expect(line[i]).toBeCloseTo(w.reduce((a, v, k) => a + v * z[i + k]!, 0) / sum, 9);
  });
});

describe('surface parameters', () => {
  it('of a sine: Ra = 2A/π, Rq = A/√2, Rz = 2A, no skew', () => {
    const r = finish(make(5.6, sine(0.05, 1.5)));
    expect(r.Ra).toBeCloseTo((2 * 1.5) / Math.PI, 2);
    expect(r.Rq).toBeCloseTo(1.5 / Math.SQRT2, 2);
    expect(r.Rz).toBeCloseTo(3, 1);
    expect(Math.abs(r.Rsk)).toBeLessThan(0.02);
    expect(r.sections).toBe(5);
  });
  it('does not see tilt or offset, and scales with the height', () => {
    const base = Float64Array.from({ length: 11201 }, gauss);
    const trace = (f: (v: number, i: number) => number): Trace => ({ stepMm: STEP, z: base.map(f) });
    const a = finish(trace((v) => v));
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -0.01, max: 0.01, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        (offset, slope, scale) => {
          const b = finish(trace((v, i) => v * scale + offset + slope * i));
          for (const key of ['Ra', 'Rq', 'Rz', 'Rk', 'Rpk', 'Rvk'] as const) expect(b[key] / scale).toBeCloseTo(a[key], 6);
          expect(b.Mr1).toBeCloseTo(a.Mr1, 6);
          expect(b.Rsk).toBeCloseTo(a.Rsk, 6);
        },
      ),
      { numRuns: 6 },
    );
  });
  it('of a plateau with grooves: Rvk tells the grooves, Rsk is negative, the words say so', () => {
    const r = finish(make(6, (x) => 0.15 * Math.sin(x * 900) + (x % 0.2 < 0.015 ? -4 : 0)));
    expect(r.Rvk).toBeGreaterThan(5 * r.Rpk);
    expect(r.Rsk).toBeLessThan(-1.5);
    expect(finishWords(r)[0]).toMatch(/Peaks gone, valleys left/);
  });
  it('is refused, not padded, when the trace is short or coarse', () => {
    const short = surfaceFinish(make(2, sine(0.05, 1)));
    expect(short.ok).toBe(false);
    if (!short.ok) expect(short.problem.sentence).toMatch(/needs at least 2.4 mm.*nothing is padded/);
    const coarse = surfaceFinish({ stepMm: 0.05, z: new Float64Array(200) });
    expect(coarse.ok).toBe(false);
  });
});

describe('material ratio', () => {
  it('of a straight ramp is the ramp: Rk its height, no peaks, no valleys', () => {
    const r = materialRatio(Float64Array.from({ length: 5000 }, (_, i) => i / 5000));
    expect(r.Rk).toBeCloseTo(1, 3);
    expect(r.Rpk).toBeCloseTo(0, 3);
    expect(r.Rvk).toBeCloseTo(0, 3);
  });
  it('has triangles of equal area: by a construction worked out by hand', () => {
    // 10 % peaks falling from 3 to 1, 80 % core from 1 to 0, 10 % valleys falling from 0 to −4.
    const n = 20000;
    const z = Float64Array.from({ length: n }, (_, i) => {
      const m = (i + 0.5) / n;
      return m < 0.1 ? 3 - (m / 0.1) * 2 : m < 0.9 ? 1 - (m - 0.1) / 0.8 : -((m - 0.9) / 0.1) * 4;
    });
    const r = materialRatio(z);
    // The core line runs from 1.125 at 0 % to −0.125 at 100 %.
    expect(r.Rk).toBeCloseTo(1.25, 2);
    // Peaks above 1.125: up to m = 0.09375, area = ½ · 0.09375 · 1.875, so Rpk = 1.875.
    expect(r.Mr1).toBeCloseTo(9.375, 1);
    expect(r.Rpk).toBeCloseTo(1.875, 2);
    expect(r.Mr2).toBeCloseTo(90.3125, 1);
    expect(r.Rvk).toBeCloseTo(3.875, 2);
  });
});

it('keeps every extreme of a profile thinned for drawing', () => {
  const trace = make(2, (x) => Math.sin(x * 40) + (Math.abs(x - 1.1) < STEP / 2 ? -7 : 0));
  const thin = envelope(trace, 100);
  expect(thin).toHaveLength(200);
  const heights = thin.map(([, z]) => z);
  expect(Math.min(...heights)).toBe(Math.min(...trace.z));
  expect(Math.max(...heights)).toBe(Math.max(...trace.z));
  expect(thin.every(([x], i) => i === 0 || x >= thin[i - 1]![0])).toBe(true);
  expect(
    envelope(
      make(0.02, (x) => x),
      100,
    ),
  ).toHaveLength(41);
});

it('levels by least squares', () => {
  const z = levelled(Float64Array.from({ length: 101 }, (_, i) => 4 + 0.3 * i));
  for (const v of z) expect(Math.abs(v)).toBeLessThan(1e-9);
});

describe('a trace file', () => {
  const lines = (sep: string, comma: boolean): string =>
    Array.from({ length: 60 }, (_, i) =>
      [(i * 0.01).toFixed(2), (i % 7).toFixed(1)].map((v) => (comma ? v.replace('.', ',') : v)).join(sep),
    ).join('\n');
  it.each([
    ['comma', lines(',', false)],
    ['semicolon with decimal comma', lines(';', true)],
    ['tab', lines('\t', false)],
    ['separator at the end of each line', lines(',', false).replace(/$/gm, ',')],
    ['byte-order mark and header', `\uFEFFx (mm);z (µm)\n${lines(';', true)}`],
  ])('%s', (_, text) => {
    const r = readTraceCsv(text);
    if (!r.ok) throw new Error(r.problem.sentence);
    expect(r.value.stepMm).toBeCloseTo(0.01, 9);
    expect([...r.value.z.slice(0, 3)]).toEqual([0, 1, 2]);
  });
  it('takes units from the header', () => {
    const r = readTraceCsv(`x (µm),z (nm)\n${lines(',', false)}`);
    if (!r.ok) throw new Error(r.problem.sentence);
    expect(r.value.stepMm).toBeCloseTo(0.00001, 12);
    expect(r.value.z[3]).toBeCloseTo(0.003, 9);
  });
  it.each([
    ['a gap', lines(',', false).replace('0.30,2.0\n', ''), /jumps by 20.0 µm.*not bridged/],
    ['words', lines(',', false).replace('0.30,2.0', '0.30,abc'), /Point 31 is "0.30,abc"/],
    ['too few points', '0,1\n1,2', /at least 50/],
    ['a strange unit', `x (furlong),z (µm)\n${lines(',', false)}`, /not known here/],
    ['an empty cell', lines(',', false).replace(/^(0\.01[^,]*),.*$/m, '$1,'), /not two figures/],
    ['x backwards', lines(',', false).split('\n').reverse().join('\n'), /do not rise/],
  ])('refuses %s with its place', (_, text, words) => {
    const r = readTraceCsv(text);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problem.sentence).toMatch(words);
  });
});
