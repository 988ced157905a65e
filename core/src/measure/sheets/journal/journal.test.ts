import fc from 'fast-check';
import { checkDoubt, combinedExpanded, guardBand, readingUncertainty, type Gauge } from '../../../units/gauge.js';
import { doubtReading } from '../doubt.js';
import { AXES, barrelText, journalSheet, PLANES, type JournalReading, type JournalSpec } from './journal.js';
import { nextUndersize } from '../sizes.js';

const gauge: Gauge = {
  id: 'g',
  name: 'micrometer',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};
const spec: JournalSpec = {
  minMm: 52.984,
  maxMm: 53,
  outOfRoundMaxMm: 0.008,
  taperMaxMm: 0.008,
  undersizesMm: [0.25, 0.5, 0.75, 1],
  source: 'example',
};
/** The worked example of the crankpin sheet: front 52.978 / 52.971, mid 52.975 / 52.966, rear 52.981 / 52.976. */
const example: JournalReading[] = [52.978, 52.971, 52.975, 52.966, 52.981, 52.976].map((mm, i) => ({
  plane: PLANES[Math.floor(i / 2)]!,
  axis: AXES[i % 2]!,
  mm,
}));

describe('crankpin sheet, worked example', () => {
  const r = journalSheet(example, gauge, spec);
  it('finds the out-of-round at the mid plane', () => {
    expect(r.outOfRound?.value).toBeCloseTo(0.009, 9);
    expect(r.outOfRound?.at).toBe('mid');
  });
  it('finds the taper on axis B, larger at the rear', () => {
    expect(r.taper?.value).toBeCloseTo(0.005, 9);
    expect(r.taper?.at).toBe('axis B, larger at the rear');
  });
  it('names both axes hourglass', () => {
    expect(r.barrel.map((b) => b.value)).toEqual([expect.closeTo(-0.0045, 9), expect.closeTo(-0.0075, 9)]);
    expect(barrelText(r.barrel[0]!)).toBe('A hourglass −0.0045 mm');
  });
  it('takes wear from the specification minimum', () => expect(r.wear?.value).toBeCloseTo(0.018, 9));
  it('calls 0.009 ± 0.004 against 0.008 too close to call, and says what settles it', () => {
    const v = guardBand(0.009, 0.004, { upper: 0.008 });
    expect(v.word).toBe('too close to call');
    expect(v.settle).toContain('±0.001');
    expect(r.outOfRound?.verdict?.word).toBe('too close to call');
  });
  it('answers the next undersize with its margin', () => {
    expect(r.size).toMatchObject({ kind: 'size', undersizeMm: 0.25 });
    expect(r.size?.kind === 'size' && r.size.marginMm).toBeCloseTo(52.966 - 52.742 - 0.05, 9);
  });
});

describe('partial sheets', () => {
  it('gives only what the readings allow', () => {
    const r = journalSheet([{ plane: 'front', axis: 'A', mm: 53 }], gauge, null);
    expect(r).toMatchObject({ count: 1, barrel: [] });
    expect(r.outOfRound).toBeUndefined();
    expect(r.wear).toBeUndefined();
    expect(r.max?.verdict).toBeUndefined();
  });
  it('turns the sign of the taper when the journal is turned end for end', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 52.9, max: 53, noNaN: true }), { minLength: 6, maxLength: 6 }), (values) => {
        const one = PLANES.flatMap((plane, p) => AXES.map((axis, a) => ({ plane, axis, mm: values[p * 2 + a]! })));
        const turned = one.map((r) => ({
          ...r,
          plane: r.plane === 'front' ? ('rear' as const) : r.plane === 'rear' ? ('front' as const) : r.plane,
        }));
        const a = journalSheet(one, gauge, spec);
        const b = journalSheet(turned, gauge, spec);
        expect(Math.abs(a.taper!.value)).toBeCloseTo(Math.abs(b.taper!.value), 12);
        expect(a.outOfRound!.value).toBeCloseTo(b.outOfRound!.value, 12);
        expect(a.barrel.map((x) => x.value)).toEqual(b.barrel.map((x) => expect.closeTo(x.value, 12)));
      }),
    );
  });
});

describe('uncertainty', () => {
  it('lets calibration cancel in a difference and keeps it in a sum', () => {
    const exact: Gauge = { ...gauge, resolutionMm: 0, repeatabilityMm: 0 };
    expect(combinedExpanded(exact, [1, -1])).toBe(0);
    expect(combinedExpanded(exact, [1])).toBeCloseTo(exact.expandedUncertaintyMm, 12);
  });
  it('combines resolution, repeats and calibration by root sum of squares', () => {
    expect(readingUncertainty(gauge)).toBeCloseTo(Math.sqrt(0.001 ** 2 / 12 + 0.0014 ** 2 + 0.0015 ** 2), 12);
    expect(readingUncertainty(gauge, 4)).toBeLessThan(readingUncertainty(gauge, 1));
  });
});

describe('check of a gauge', () => {
  const on = (checkedOn?: string) =>
    checkDoubt({ name: 'Old micrometer', ...(checkedOn ? { checkedOn } : {}) }, '2026-11-25T08:00:00.000Z');
  it('is told once it is more than a year old on the day of the reading, and not before', () => {
    expect(on('2025-11-25')).toBeNull();
    expect(on('2025-11-24')).toMatch(/Old micrometer was last checked on 2025-11-24, 366 days.*overdue/);
    expect(on('2026-12-01')).toBeNull();
  });
  it('says nothing of a gauge with no date or an unreadable one', () => {
    expect(on()).toBeNull();
    expect(on('in spring')).toBeNull();
  });
});

describe('guard band', () => {
  it.each([
    [0.003, 0.004, 'within'],
    [0.004, 0.004, 'within'],
    [0.0041, 0.004, 'too close to call'],
    [0.012, 0.004, 'too close to call'],
    [0.0121, 0.004, 'outside'],
  ])('puts %s ± %s against 0.008 as %s', (value, u, word) => expect(guardBand(value, u, { upper: 0.008 }).word).toBe(word));
  it('mirrors for a lower limit and takes the tighter side of a band', () => {
    expect(guardBand(52.98, 0.002, { lower: 52.984 }).word).toBe('outside');
    expect(guardBand(52.99, 0.002, { lower: 52.984, upper: 53 }).word).toBe('within');
    expect(guardBand(52.999, 0.002, { lower: 52.984, upper: 53 }).word).toBe('too close to call');
  });
  it('never passes at the limit itself', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1, noNaN: true }), (u) =>
        expect(guardBand(1, u, { upper: 1 }).word).toBe('too close to call'),
      ),
    );
  });
  it('says so when there is no limit', () => expect(guardBand(1, 0.1, {}).settle).toContain('limit'));
});

describe('next size', () => {
  it('goes to the next step when the clean-up does not fit', () => {
    expect(nextUndersize(52.79, spec)).toMatchObject({ kind: 'size', undersizeMm: 0.5 });
  });
  it('lets the deepest mark decide', () => {
    expect(nextUndersize(52.966, spec, 0.2)).toMatchObject({ kind: 'size', undersizeMm: 0.5 });
  });
  it('says none left', () => {
    expect(nextUndersize(51.9, spec).kind).toBe('none-left');
    expect(nextUndersize(52.9, { ...spec, undersizesMm: [] }).reason).toContain('No undersizes');
  });
  it('never gives a smaller step for a more worn journal', () => {
    const step = (mm: number): number => {
      const a = nextUndersize(mm, spec);
      return a.kind === 'size' ? a.undersizeMm : 9;
    };
    fc.assert(
      fc.property(fc.double({ min: 51.5, max: 53, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (mm, less) =>
        expect(step(mm - less)).toBeGreaterThanOrEqual(step(mm)),
      ),
    );
  });
});

describe('doubtful readings', () => {
  it('holds a decimal slip', () => expect(doubtReading(530, [], 53)?.reason).toContain('slipped decimal'));
  it('holds 5.297 among readings of 52.97', () => expect(doubtReading(5.297, [52.97, 52.971])?.reason).toContain('slipped decimal'));
  it('holds what is out of family', () => expect(doubtReading(53.3, [52.97, 52.975, 52.98])?.reason).toContain('out of family'));
  it('lets an ordinary reading pass', () => {
    expect(doubtReading(52.966, [52.978, 52.971], 52.992)).toBeNull();
    expect(doubtReading(40, [])).toBeNull();
  });
});
