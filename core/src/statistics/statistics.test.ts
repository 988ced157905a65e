import { changePoint } from './changePoint.js';
import { individualsChart, signalsAt } from './controlChart.js';
import { robustSlope } from './robustSlope.js';

// Against published examples, and what must hold whatever the figures.
/** Viscosity of 15 batches of primer paint (Montgomery, Introduction to Statistical Quality Control, individuals chart). */
const PAINT = [33.75, 33.05, 34.0, 33.81, 33.46, 34.02, 33.68, 33.27, 33.49, 33.2, 33.62, 33.0, 33.54, 33.12, 33.84];
/** Yearly flow of the Nile at Aswan 1871–1970, 10⁸ m³ (Cobb, Biometrika 65, 1978). */
const NILE = [
  1120, 1160, 963, 1210, 1160, 1160, 813, 1230, 1370, 1140, 995, 935, 1110, 994, 1020, 960, 1180, 799, 958, 1140, 1100, 1210, 1150, 1250,
  1260, 1220, 1030, 1100, 774, 840, 874, 694, 940, 833, 701, 916, 692, 1020, 1050, 969, 831, 726, 456, 824, 702, 1120, 1100, 832, 764, 821,
  768, 845, 864, 862, 698, 845, 744, 796, 1040, 759, 781, 865, 845, 944, 984, 897, 822, 1010, 771, 676, 649, 846, 812, 742, 801, 1040, 860,
  874, 848, 890, 744, 749, 838, 1050, 918, 986, 797, 923, 975, 815, 1020, 906, 901, 1170, 912, 746, 919, 718, 714, 740,
];

describe('a chart of single figures', () => {
  it('has the limits of the published example', () => {
    const chart = individualsChart(PAINT)!;
    expect(chart.centre).toBeCloseTo(33.52, 2);
    expect(chart.upper).toBeCloseTo(34.8, 2);
    expect(chart.lower).toBeCloseTo(32.24, 1);
    expect(PAINT.map((_, i) => signalsAt(PAINT.slice(0, i + 1), chart)).flat()).toEqual([]);
  });

  const chart = { centre: 0, sigma: 1, lower: -3, upper: 3 };
  it.each([
    [[0, 3.1], ['beyond above']],
    [[2.1, 0, 2.2], ['two-of-three above']],
    [[0, -1.2, -1.1, -1.4, -1.3], ['four-of-five below']],
    [[0.1, 0.2, 0.1, 0.3, 0.1, 0.2, 0.1, 0.2], ['eight-on-one-side above']],
    [[-0.5, -0.4, -0.3, -0.2, -0.1, 0.1], ['six-on-the-way above']],
    [[0, 1, -1, 0.5, -0.5], []],
  ])('sets off %j as %j', (values, told) => {
    expect(signalsAt(values, chart).map((s) => `${s.rule} ${s.side}`)).toEqual(told);
  });

  it('says nothing of one figure, and believes no scatter below that of the reading', () => {
    expect(individualsChart([1])).toBeNull();
    expect(individualsChart([1, 1, 1], 0.2)!.upper).toBeCloseTo(1.6, 12);
    expect(signalsAt([], chart)).toEqual([]);
  });
});

describe('a change of level', () => {
  it('is found in the flow of the Nile after 1898, as published', () => {
    const found = changePoint(NILE)!;
    expect(1870 + found.after).toBe(1898);
    expect(found.p).toBeLessThan(1e-6);
    expect(found.p).toBeGreaterThan(1e-7);
  });
  it('is not found where there is none, nor in a handful of figures', () => {
    expect(changePoint(PAINT)).toBeNull();
    expect(changePoint([1, 1, 9])).toBeNull();
    expect(changePoint([5, 5, 5, 5, 5, 5])).toBeNull();
  });
  it('does not hang on the unit, and turns with the row', () => {
    const row = [3, 2, 3, 2, 3, 2, 8, 9, 8, 9, 8, 9];
    expect(changePoint(row)).toEqual(changePoint(row.map((v) => 1000 * v + 7)));
    expect(changePoint([...row].reverse())!.after).toBe(row.length - changePoint(row)!.after);
  });
});

describe('a robust slope', () => {
  it('is that of a line, and one wild figure does not move it', () => {
    const line = Array.from({ length: 12 }, (_, i) => [10 * i, 2 + 0.5 * i] as const);
    expect(robustSlope(line)).toEqual({ slope: 0.05, lower: expect.closeTo(0.05, 12), upper: expect.closeTo(0.05, 12) });
    const wild = line.map(([x, y], i) => [x, i === 4 ? 90 : y] as const);
    expect(robustSlope(wild)!.slope).toBeCloseTo(0.05, 2);
  });
  it('holds nothing in its interval where the figures go nowhere', () => {
    const flat = [4, 6, 5, 5, 6, 4, 5, 6, 4].map((v, i) => [i, v] as const);
    const { lower, upper } = robustSlope(flat)!;
    expect(lower).toBeLessThanOrEqual(0);
    expect(upper).toBeGreaterThanOrEqual(0);
    expect([robustSlope(flat.slice(0, 2)), robustSlope([[1, 2], [1, 3], [1, 4]])]).toEqual([null, null]); // prettier-ignore
  });
});
