import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { nextOversize } from '../sheets/sizes.js';
import { combine } from '../../units/gauge.js';
import { at20, takeRepeats, type SheetLine, type SheetOutcome } from '../sheets/line.js';
import { ratioAfterCut } from '../sheets/flatness/flatness.js';
import type { WorkedExample } from '../sheets/define.js';
import { runSheet } from './file.js';
import { SHEETS } from './sheetOf.js';

const SHEET_FOLDERS = join(__dirname, '../sheets');
const worked = Object.fromEntries(
  Object.keys(SHEETS).map((id): [string, WorkedExample] => [
    id,
    (jest.requireActual(join(SHEET_FOLDERS, id, 'example.ts')) as { example: WorkedExample }).example,
  ]),
);
const example = (id: string): { sheet: string; readings: never; spec?: object; gauges?: object } => worked[id]!.file as never;
const run = (file: unknown): SheetOutcome => {
  const r = runSheet(file);
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
};
const refused = (file: unknown): string => {
  const r = runSheet(file);
  return r.ok ? 'computed' : `${r.problem.sentence} @${r.problem.field}`;
};
const line = (o: SheetOutcome, id: string): SheetLine => {
  const found = o.lines.find((l) => l.id === id);
  if (!found) throw new Error(`no line ${id}`);
  return found;
};
const word = (o: SheetOutcome, id: string): string => `${line(o, id).verdict?.word}, ${line(o, id).verdict?.reference}`;

describe('worked examples', () => {
  it('has a folder for every sheet and a sheet for every folder', () =>
    expect(
      readdirSync(SHEET_FOLDERS, { withFileTypes: true })
        .filter((f) => f.isDirectory())
        .map((f) => f.name)
        .sort(),
    ).toEqual(Object.keys(SHEETS).sort()));

  it.each(Object.entries(worked))('%s gives what was worked by hand', (id, { file, gives }) => {
    expect(Object.keys(gives)).not.toEqual([]);
    for (const [result, value] of Object.entries(gives))
      expect([id, result, Math.abs(line(run(file), result).value - value) < (value > 1 ? 0.005 : 5e-5)]).toEqual([id, result, true]);
  });

  it('journal: hourglass pin with an out-of-round too close to call', () => {
    const o = run(example('journal'));
    expect(line(o, 'outOfRound').value).toBeCloseTo(0.009, 9);
    expect(line(o, 'outOfRound').expanded).toBeCloseTo(0.0041, 4);
    expect(word(o, 'outOfRound')).toBe('too close to call, limit');
    expect(line(o, 'outOfRound').verdict?.settle).toContain('0.001');
    expect(line(o, 'taper').value).toBeCloseTo(0.005, 9);
    expect(line(o, 'taper').at).toBe('axis B, larger at the rear');
    expect(line(o, 'barrel.A').value).toBeCloseTo(-0.0045, 9);
    expect(line(o, 'barrel.B').value).toBeCloseTo(-0.0075, 9);
    expect(line(o, 'wear').value).toBeCloseTo(0.018, 9);
    expect(word(o, 'least')).toBe('outside, limit');
    expect(line(o, 'least').verdict?.source).toBe('demo spec sheet, crankpin');
    expect(o.questions).toEqual([]);
  });

  it('judges against the reference it names, a rule of thumb only where nothing better is given', () => {
    expect(word(run(example('piston')), 'clearance')).toBe('too close to call, target');
    expect(word(run(example('oil-pump')), 'springLength')).toBe('outside, limit');
    expect(word(run(example('oil-pump')), 'tip')).toBe('outside, rule of thumb');
    expect(word(run(example('ring')), 'gap')).toBe('within, rule of thumb');
  });

  it('names the bend, the warped place and the low pair', () => {
    expect(run(example('crank-runout')).says[0]).toContain('One bend at main 3');
    expect(line(run(example('flatness')), 'flatness').at).toContain('low at 200, 75 mm');
    expect(run(example('compression')).says[0]).toContain('3 and 4 are neighbours');
    expect(run(example('turning')).says[1]).toBe('Caps: easing main 3 let go 6 of 10 N·m.');
    expect(line(run(example('main-line')), 'step').at).toBe('main 2 to 3');
    expect(run(example('shell-fit')).says[0]).toContain('firm thumbs');
    expect(run(example('fasteners')).says[0]).toContain('3 against 4');
  });

  it('finds no single bend in a crank bowed as a whole', () => {
    // A parabola leaves more than a tent can take.
    const readings = [0, 1, 2, 3, 4, 5, 6].map((i) => ({ main: i + 1, alongMm: i * 90, tir: 0.02 * i * (6 - i), highDeg: 10 }));
    const bent = readings.map((r) => ({ ...r, tir: 0.03 * Math.min(r.main - 1, (7 - r.main) / 2) * 2 }));
    expect(run({ sheet: 'crank-runout', readings: bent }).says[0]).toContain('One bend at main 3');
    const s = readings.map((r) => ({ ...r, tir: r.main === 4 ? 0 : r.tir, highDeg: r.main < 4 ? 10 : 190 }));
    expect(run({ sheet: 'crank-runout', readings: s }).says[0]).toContain('No single bend');
  });
});

describe('properties', () => {
  const journal = (values: ReadonlyArray<number | string>, spec: object = {}) => ({
    sheet: 'journal',
    readings: ['front', 'mid', 'rear'].flatMap((plane, i) => ['A', 'B'].map((axis, j) => ({ plane, axis, value: values[i * 2 + j] }))),
    spec,
  });
  const six = fc.array(fc.integer({ min: 52900, max: 53050 }), { minLength: 6, maxLength: 6 });

  /** Two axes may taper alike in opposite ways: either may be named, the amount is the same. */
  const amount = (l: SheetLine): number => (l.id === 'taper' ? Math.abs(l.value) : l.value);

  it('gives the same whether typed in mm or inches', () =>
    fc.assert(
      fc.property(six, (um) => {
        const metric = run(journal(um.map((v) => v / 1000)));
        const inches = run(journal(um.map((v) => `${(v / 25400).toFixed(9)}"`)));
        for (const [i, l] of metric.lines.entries()) expect(amount(l)).toBeCloseTo(amount(inches.lines[i]!), 6);
      }),
    ));

  it('does not mind the order of the readings or of repeats', () =>
    fc.assert(
      fc.property(six, fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 5, maxLength: 5 }), fc.nat(), (um, repeats, turn) => {
        const file = journal(um.map((v) => v / 1000));
        const all = [...file.readings, ...repeats.map((d) => ({ ...file.readings[0]!, value: (um[0]! + d) / 1000 }))];
        const k = turn % all.length;
        const a = run({ ...file, readings: all });
        const b = run({ ...file, readings: [...all.slice(k), ...all.slice(0, k)].reverse() });
        for (const l of a.lines) {
          const other = line(b, l.id);
          expect(amount(other)).toBeCloseTo(amount(l), 9);
          expect(other.expanded).toBeCloseTo(l.expanded ?? 0, 9);
        }
      }),
    ));

  it('never turns a verdict back as a value grows past its limit', () => {
    const order = { within: 0, 'too close to call': 1, outside: 2 };
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 }), (a, b) => {
        const of = (um: number): number =>
          order[
            line(run({ sheet: 'end-float', readings: { towards: um / 100, away: 0 }, spec: { endFloat: { upper: 0.3 } } }), 'endFloat')
              .verdict!.word
          ];
        if (a <= b) expect(of(a)).toBeLessThanOrEqual(of(b));
      }),
    );
  });

  it('lets calibration cancel in a difference by one gauge but not between two', () => {
    const gauge = { id: 'a', name: '', kind: 'other' as const, resolutionMm: 0, repeatabilityMm: 0, expandedUncertaintyMm: 0.004 };
    expect(combine([{ gauge, c: 1 }])).toBeCloseTo(0.004, 12);
    expect(
      combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
    ).toBe(0);
    expect(
      combine([
        { gauge, c: 1 },
        { gauge: { ...gauge, id: 'b' }, c: -1 },
      ]),
    ).toBeCloseTo(0.004 * Math.SQRT2, 12);
  });

  it('takes the scatter from repeats once there are three', () => {
    const gauge = { id: 'a', name: '', kind: 'other' as const, resolutionMm: 0.001, repeatabilityMm: 0.002, expandedUncertaintyMm: 0.004 };
    const at = (mm: number) => ({ mm, place: 'p' });
    expect(takeRepeats([at(10)], (r) => r.place, gauge).gauge.repeatabilityMm).toBe(0.002);
    expect(takeRepeats([at(10), at(10.002)], (r) => r.place, gauge).gauge.repeatabilityMm).toBeCloseTo(0.002 / Math.SQRT2, 9);
    const three = takeRepeats([at(10), at(10.001), at(10.002)], (r) => r.place, gauge);
    expect(three.readings[0]?.mm).toBeCloseTo(10.001, 9);
    expect(three.gauge.repeatabilityMm).toBeCloseTo(0.001 / Math.sqrt(3), 9);
  });

  it('does not mind how a warped face lies on the plate', () =>
    fc.assert(
      fc.property(fc.double({ min: -0.01, max: 0.01, noNaN: true }), fc.double({ min: -0.01, max: 0.01, noNaN: true }), (b, c) => {
        const file = example('flatness') as unknown as { readings: { points: Array<{ xMm: number; yMm: number; value: number }> } };
        const points = file.readings.points.map((p) => ({ ...p, value: p.value + 3 + b * p.xMm + c * p.yMm }));
        const value = (list: object): number => line(run({ sheet: 'flatness', readings: { points: list } }), 'flatness').value;
        expect(value(points)).toBeCloseTo(value(file.readings.points), 7);
      }),
    ));

  it('corrects both part and gauge to 20 °C', () => {
    expect(at20(84, 20, 'aluminium')).toBe(84);
    // Exactly: a part of 305 mm at 120 °C, read with a steel gauge, against its own grown size and the gauge's grown scale.
    const grown = (305 * (1 + 23e-6 * 100)) / (1 + 11.5e-6 * 100);
    expect(at20(grown, 120, 'aluminium')).toBeCloseTo(305, 9);
    // A cold aluminium piston of 84 mm read at 5 °C by a steel micrometer: 84 · 11.5e-6 · 15 = 0.0145 mm larger at 20 °C.
    expect(at20(84, 5, 'aluminium') - 84).toBeCloseTo(0.014495, 6);
    const cold = run({ sheet: 'piston', readings: { piston: 83.955, bore: 84.02, temperatureC: 5 } });
    expect(line(cold, 'clearance').value).toBeCloseTo(0.065 - 0.01448 - 0.00126, 4);
    expect(cold.says[0]).toContain('5 °C');
  });

  it('takes the smallest oversize that cleans up, and says when none is left', () => {
    const band = { min: 84, max: 84.02 };
    expect(nextOversize(84.21, band, [0.5, 0.25]).step).toBe(0.25);
    expect(nextOversize(84.211, band, [0.5, 0.25]).step).toBe(0.5);
    expect(nextOversize(84.1, band, [0.25, 0.5], 0.1).step).toBe(0.5);
    expect(nextOversize(85, band, [0.25, 0.5]).words).toContain('No oversize is left');
    expect(nextOversize(85, band, []).words).toContain('No oversizes are listed');
  });

  it('raises the ratio by a cut and refuses one that takes the chamber', () => {
    // 90 mm stroke at 10 : 1 is a 10 mm tall chamber; 0.2 mm off leaves 9.8.
    expect(ratioAfterCut(10, 84, 90, 0.2)).toBeCloseTo(99.8 / 9.8, 9);
    expect(ratioAfterCut(10, 84, 90, 10)).toBeNull();
  });
});

describe('bad input', () => {
  const base = example('journal') as unknown as { readings: Array<{ value: unknown }>; spec: object };
  const withFirst = (value: unknown): object => ({ ...base, readings: [{ ...base.readings[0], value }, ...base.readings.slice(1)] });

  it.each([
    ['an unknown sheet', { sheet: 'gearbox', readings: {} }, /not a sheet known here.*journal.*@sheet/],
    ['no object', 7, /must be of type object/],
    ['a strange key', { ...base, readigns: 1 }, /readigns/],
    ['words for a figure', withFirst('about 53'), /@readings\.0\.value/],
    ['a size below nothing', withFirst(-52.978), /cannot be the size of a part.*@readings\.0\.value/],
    ['a plane that is none', { ...base, readings: [{ plane: 'top', axis: 'A', value: 1 }] }, /@readings\.0\.plane/],
    ['least size above largest', { ...base, spec: { minMm: 53, maxMm: 52.9 } }, /least size new is above the largest/],
    ['a band upside down', { ...base, spec: { taper: { lower: 1, upper: 0 } } }, /lower limit of "taper" is above the upper/],
    ['a limit that is text', { ...base, spec: { taper: { upper: 'small' } } }, /@spec\.taper\.upper/],
    ['a size that is text', { ...base, spec: { minMm: 'about 53' } }, /@spec\.minMm/],
    ['steps that are none', { ...base, spec: { undersizesMm: [0.25, 'x'] } }, /list of steps.*@spec\.undersizesMm/],
    ['a gauge with no sense', { ...base, gauges: { default: { resolutionMm: -1 } } }, /@gauges\.default\.resolutionMm/],
    ['a missing reading that is needed', { sheet: 'end-float', readings: { towards: '-', away: 0.1 } }, /"readings\.towards" is needed/],
    [
      'a strip flattened to nothing',
      { sheet: 'crushed-strip', readings: { thread: 0.25, widths: [{ at: 'a', value: 0 }] } },
      /more than nothing/,
    ],
    [
      'a strip no wider than its thread',
      { sheet: 'crushed-strip', readings: { thread: 0.2, widths: [{ at: 'a', value: 0.15 }] } },
      /was not crushed there/,
    ],
    [
      'one place twice where it cannot be',
      { sheet: 'crushed-strip', readings: { thread: 0.25, widths: [0.9, 0.8].map((value) => ({ at: 'a', value })) } },
      /duplicate/,
    ],
    [
      'points on one line',
      { sheet: 'flatness', readings: { points: [0, 1, 2, 3].map((i) => ({ xMm: i, yMm: i, value: 0 })) } },
      /not all on one line/,
    ],
    ['pressure in degrees', { sheet: 'oil-pressure', readings: { hotIdle: '90 °C' } }, /@readings\.hotIdle/],
  ])('refuses %s with its place', (_name, file, words) => expect(refused(file)).toMatch(words));

  it('computes what the readings allow and names what is missing', () => {
    const o = run({ sheet: 'journal', readings: [{ plane: 'mid', axis: 'A', value: 52.97 }] });
    expect(o.lines.map((l) => l.id)).toEqual(['greatest', 'least']);
    expect(o.missing).toHaveLength(3);
    expect(run({ sheet: 'journal', readings: [{ plane: 'mid', axis: 'A', value: '-' }] }).lines).toEqual([]);
  });

  it('takes interference as the valid negative clearance it is', () => {
    const o = run({ sheet: 'piston', readings: { piston: 84.03, bore: 84.02 }, spec: { clearance: { lower: 0.03 } } });
    expect(line(o, 'clearance').value).toBeCloseTo(-0.01, 9);
    expect(word(o, 'clearance')).toBe('outside, limit');
  });

  it('questions a slipped decimal point and a gauge nobody recorded', () => {
    const o = run(withFirst(5.2978));
    expect(o.questions[0]).toMatch(/front, axis A.*slipped decimal/);
    expect(run({ sheet: 'end-float', readings: { towards: 0.1, away: 0 } }).questions[0]).toContain('No gauge is recorded for "indicator"');
  });

  it('reads sizes of a specification as a hand types them, and tells what it did not use', () => {
    const o = run({ ...base, spec: { minMm: '2.0860"', maxMm: '2.0866"', outOfRound: { upper: 0.02 }, ovality: { upper: 1 }, maxium: 3 } });
    expect(line(o, 'wear').value).toBeCloseTo(2.086 * 25.4 - 52.966, 9);
    expect(word(o, 'outOfRound')).toBe('within, limit');
    expect(o.questions.join(' ')).toMatch(/"maxium" of the specification was not used.*"ovality"/);
  });

  it('tells a gauge that was overdue on the day of the readings', () => {
    const file = {
      sheet: 'end-float',
      readings: { towards: 0.1, away: 0 },
      gauges: { indicator: { name: 'Dial', checkedOn: '2025-01-10' } },
    };
    expect(run({ ...file, takenOn: '2026-11-25' }).questions).toEqual([
      expect.stringMatching(/^Dial was last checked on 2025-01-10.*overdue/),
    ]);
    expect(run({ ...file, takenOn: '2025-11-25' }).questions).toEqual([]);
    expect(refused({ ...file, takenOn: 'yesterday' })).toMatch(/@takenOn/);
  });

  it('never throws whatever is handed in', () =>
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(SHEETS)), fc.jsonValue(), fc.jsonValue(), (sheet, readings, spec) => {
        const r = runSheet({ sheet, readings, ...(spec && typeof spec === 'object' && !Array.isArray(spec) ? { spec } : {}) });
        if (r.ok) for (const l of r.value.lines) expect(Number.isFinite(l.value)).toBe(true);
        else expect(r.problem.sentence).toMatch(/[.?]$/);
      }),
      { numRuns: 500 },
    ));
});

describe('a housing against the sizes of its band', () => {
  const outcome = (mm: number) => {
    const r = runSheet({
      sheet: 'housing',
      readings: [
        { direction: 'vertical', value: mm },
        { direction: 'left', value: 62 },
      ],
      spec: { minMm: 61.99, maxMm: 62.01, source: 'book' },
    });
    if (!r.ok) throw new Error(r.problem.sentence);
    return r.value;
  };
  it.each([
    [62.002, 'within', 0],
    [62.05, 'outside', /Resize: 0.040 mm too large vertical/],
    [61.9, 'outside', /Resize: 0.090 mm too small vertical; look for dirt/],
  ] as const)('%s mm is %s', (mm, word, says) => {
    const o = outcome(mm);
    const worst = o.lines.flatMap((l) => l.verdict?.word ?? []);
    expect(worst.includes('outside') ? 'outside' : 'within').toBe(word);
    if (says === 0) expect(o.says).toEqual([]);
    else expect(o.says.join(' ')).toMatch(says);
  });
});
