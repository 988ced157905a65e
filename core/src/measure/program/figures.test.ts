import { engineTemplate } from '../../engine/templates.js';
import type { FinishResult } from '../finish.js';
import { finishWords } from '../finish.js';
import type { Cell } from '../sheets/cells.js';
import { NO_FAULTS, pressKey } from '../simulated/gaugeStandIn.js';
import { measureProgram } from './program.js';
import { cellText, doubtCell, looksStuck, readCell } from './readCell.js';
import { SPEC_KEYS, specFields } from './specs.js';
import { specFromTexts, specTexts, specWords } from './specText.js';

// Figures as hands type them and as they are said again: cells, specifications, finishes, gauges.
const cells = measureProgram(engineTemplate('inline-4-petrol')!.layout).flatMap((p) => p.cells);
const cellOf = (fits: (c: Cell) => boolean): Cell => cells.find(fits)!;
const SIZE = cellOf((c) => c.quantity === 'length' && c.expectMm !== undefined && (c.sense?.[0] ?? 0) >= 0);
const PLAY = cellOf((c) => c.quantity === 'length' && (c.sense?.[0] ?? 0) < 0);
const SMALL = cellOf((c) => c.quantity === 'length' && c.expectMm === undefined && (c.sense?.[0] ?? 0) >= 0);
const OTHER = cellOf((c) => c.quantity !== 'length' && c.quantity !== 'angle');

describe('a cell', () => {
  const value = (cell: Cell, text: string, unit?: string): number | null | string => {
    const r = readCell(cell, text, unit ?? (cell.quantity === 'length' ? 'mm' : Object.keys(cellUnit(cell))[0]!), {});
    return r.ok ? r.value.value : r.problem.code;
  };
  const cellUnit = (cell: Cell): Readonly<Record<string, true>> => {
    const r = readCell(cell, '1', 'parsec', {});
    const units = r.ok ? '' : r.problem.sentence.replace(/.*Use (.*)\.$/, '$1');
    return Object.fromEntries(units.split(', ').map((u) => [u, true]));
  };

  it('takes its own units only, and names them', () => {
    expect(value(SIZE, '52', 'N·m')).toBe('reading-unit');
    expect(value(OTHER, '5', 'mm')).toBe('reading-unit');
    expect(Object.keys(cellUnit(SIZE))).toContain('mm');
  });

  it('a dash is a place that was not read, in any quantity', () => {
    for (const cell of [SIZE, PLAY, OTHER]) for (const dash of ['-', '–']) expect(value(cell, dash)).toBeNull();
  });

  it('reads a sign as a direction where a play is, and refuses a size below nothing', () => {
    expect(value(PLAY, '-0.05')).toBeCloseTo(-0.05, 9);
    expect(value(PLAY, '+ 0.05')).toBeCloseTo(0.05, 9);
    expect(typeof value(SIZE, '-3')).toBe('string');
    expect(typeof value(OTHER, 'stiff')).toBe('string');
  });

  it('is said in the unit wanted where it is one of its own', () => {
    expect(cellText(SIZE, 25.4, 'in')).toMatch(/^1\.0+ ?("|in)/);
    expect(cellText(SIZE, 25.4, 'N·m')).toMatch(/25\.4/);
    expect(cellText(OTHER, 1)).toMatch(/\d/);
  });

  it('is questioned beyond what it can be, and out of the family of the same place elsewhere', () => {
    expect(doubtCell(PLAY, 1e6, [], [])).toMatch(/Is the unit right\?/);
    const near = SIZE.expectMm!;
    expect(doubtCell(SIZE, near, [], [near, near])).toBeNull();
    expect(doubtCell(SIZE, near * 1.08, [], [near, near])).toMatch(/ is (far from|out of family)/);
    expect(doubtCell(SMALL, 0.05, [], [0.04, 0.05])).toBeNull();
    expect(doubtCell(SMALL, 0.4, [], [0.04, 0.05, 0.06])).toMatch(/the others lie between/);
    expect(doubtCell(SMALL, 0.005, [], [0.04, 0.05, 0.06])).toMatch(/the others lie between/);
    expect(doubtCell(SMALL, 0.06, [], [0.04, 0.05, 0.06])).toBeNull();
  });

  it('a gauge looks stuck only when it says the same at different places', () => {
    const at = (places: string[], text: (i: number) => string) => places.map((place, i) => ({ place, text: text(i) }));
    expect(looksStuck(at(['a', 'b', 'c', 'd'], () => '52.96'))).toBe(true);
    expect(looksStuck(at(['a', 'b', 'c'], () => '52.96'))).toBe(false);
    expect(looksStuck(at(['a', 'b', 'c', 'd'], (i) => `52.9${i}`))).toBe(false);
    expect(looksStuck(at(['a', 'a', 'a', 'a'], () => '52.96'))).toBe(false);
  });
});

describe('a specification', () => {
  it('is said in one line, every part of it, and nothing that is not there', () => {
    expect(
      specWords('crank.pin', { source: 's', minMm: 52.98, maxMm: 53, outOfRoundMaxMm: 0.01, taperMaxMm: 0.008, undersizesMm: [0.25, 0.5] }),
    ).toBe('52.980–53.000 mm; out-of-round ≤ 0.010 mm; taper ≤ 0.008 mm; undersizes 0.25, 0.5');
    expect(specWords('bore', { source: 's', minMm: 84, maxMm: 84.02, oversizesMm: [0.5] })).toContain('oversizes 0.5');
    expect(specWords('crank.pin', { source: 's' })).toBe('');
  });

  it('limits of a result are said by the sides they have', () => {
    const key = SPEC_KEYS.find((k) => specFields(k).lines.some((l) => l.side === 'both'))!;
    const line = specFields(key).lines.find((l) => l.side === 'both')!;
    const said = (limit: object): string => specWords(key, { source: 's', limits: { [line.id]: limit } });
    const name = line.name.toLowerCase();
    expect(said({ lower: 1, upper: 2 })).toBe(`${name} 1–2 ${line.unit}`);
    expect(said({ lower: 1 })).toBe(`${name} ≥ 1 ${line.unit}`);
    expect(said({ upper: 2 })).toBe(`${name} ≤ 2 ${line.unit}`);
  });

  it('limits as typed may be one side or both, in the unit of the form, and never upside down', () => {
    const key =
      SPEC_KEYS.find((k) => specFields(k).lines.some((l) => l.side === 'both' && l.unit !== 'mm')) ??
      SPEC_KEYS.find((k) => specFields(k).lines.some((l) => l.side === 'both'))!;
    const line = specFields(key).lines.find((l) => l.side === 'both')!;
    const read = (lower: string, upper: string): unknown => {
      const r = specFromTexts(key, { ...specTexts(key, null), [`${line.id}.lower`]: lower, [`${line.id}.upper`]: upper }, ' s ');
      return r.ok ? r.value?.limits?.[line.id] : r.problem.sentence;
    };
    expect(read('1', '')).toEqual({ lower: 1 });
    expect(read('', '2,5')).toEqual({ upper: 2.5 });
    expect(read('1', '2')).toEqual({ lower: 1, upper: 2 });
    expect(read('3', '2')).toMatch(/lower limit is above the upper.*Nothing was changed/);
    expect(read('thick', '')).toMatch(/"thick" is not a figure/);
  });

  it('is none of a form in which nothing stands but the usual steps', () => {
    for (const key of SPEC_KEYS) {
      const r = specFromTexts(key, specTexts(key, null), 's');
      expect(r.ok && r.value).toBeNull();
    }
    expect(specFromTexts('crank.pin', {}, 's')).toEqual({ ok: true, value: null });
  });
});

describe('a finish in words', () => {
  const finish = (more: Partial<FinishResult>): FinishResult =>
    ({ Ra: 0.5, Rq: 0.6, Rz: 3, Rsk: 0, Rpk: 0.5, Rk: 1, Rvk: 1, Mr1: 10, Mr2: 85, ...more }) as FinishResult;
  it.each([
    [{ Rsk: -1.5, Rpk: 0.2, Rvk: 1.2 }, /^Peaks gone, valleys left/],
    [{ Rsk: 0.8 }, /^Peaks stand above/],
    [{ Rvk: 0.2, Ra: 0.1 }, /^Neither peaks nor valleys/],
    [{}, /^Peaks and valleys about alike/],
  ])('%o', (more, words) => expect(finishWords(finish(more))).toEqual([expect.stringMatching(words)]));

  it('says what running took off, and when the hone no longer holds its oil', () => {
    const worn = finishWords(finish({ Rpk: 0.1, Rk: 0.5, Rvk: 0.4 }), finish({ Rvk: 1 }));
    expect(worn[1]).toBe('Against the unworn reference: peaks 20 %, core 50 %, valleys 40 % are left.');
    expect(worn[2]).toMatch(/no longer holds its oil/);
    expect(finishWords(finish({}), finish({}))).toHaveLength(2);
    expect(finishWords(finish({}), finish({ Rpk: 0 }))[1]).toContain('peaks 0 %');
  });
});

describe('a gauge stand-in', () => {
  const gauge = {
    id: 'g',
    name: 'G',
    kind: 'torque-wrench' as const,
    resolutionMm: 0.001,
    expandedUncertaintyMm: 0.003,
    repeatabilityMm: 0.001,
  };
  const press = (more: object, truth: number, cell: Cell | null, faults: object = {}) =>
    pressKey(
      { ...gauge, ...more },
      { faults: { ...NO_FAULTS, noise: 0, ...faults }, count: 3, last: null } as never,
      truth,
      cell,
      () => 0.5,
    ).press;
  it('speaks in the unit of its cell, on its master in its own', () => {
    expect(press({}, 60, null)).toMatchObject({ unit: 'N·m' });
    expect(press({ kind: 'outside-micrometer' }, 50, null)).toMatchObject({ unit: 'mm', text: '50.000' });
    expect(press({}, 60.04, OTHER)).toMatchObject({ text: '60.0' });
    const angle = cellOf((c) => c.quantity === 'angle');
    expect(press({}, 12.4, angle)).toMatchObject({ text: '12' });
  });
  it('bias and drift are added to lengths, and nothing is never shown as minus nothing', () => {
    expect(press({ kind: 'indicator' }, 1, SIZE, { biasMm: 0.01, driftMm: 0.002 })).toMatchObject({ text: '1.016' });
    expect(press({ kind: 'indicator' }, -0.0001, PLAY)).toMatchObject({ text: '0.000' });
  });
});
