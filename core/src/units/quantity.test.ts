import fc from 'fast-check';
import { formatQuantity, parseQuantity, QUANTITIES, type Quantity } from './quantity.js';

const value = (text: string, q: Quantity, unit?: string): number => {
  const r = parseQuantity(text, q, unit);
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value.value;
};

describe('parseQuantity', () => {
  it.each<[string, Quantity, number]>([
    ['10 bar', 'pressure', 10],
    ['145 psi', 'pressure', 9.99739],
    ['900 kPa', 'pressure', 9],
    ['1 lb·ft', 'torque', 1.3558179483],
    ['12 lbin', 'torque', 1.3558179483],
    ['35Nm', 'torque', 35],
    ['8,5', 'pressure', 8.5],
    ['4 thou', 'length', 0.1016],
    ['0.004"', 'length', 0.1016],
    ['22 %', 'share', 22],
  ])('%s is %s %f', (text, q, expected) => expect(value(text, q)).toBeCloseTo(expected, 4));
  it.each<[string, Quantity]>([
    ['abc', 'pressure'],
    ['5,2,1', 'torque'],
    ['', 'share'],
    ['12 furlongs', 'length'],
    ['10 Nm', 'pressure'],
  ])('refuses %j as a %s with a sentence', (text, q) => {
    const r = parseQuantity(text, q);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problem.sentence).toMatch(/not a figure|not a unit/);
  });
  it('means the same in every unit', () => {
    const all = Object.entries(QUANTITIES).flatMap(([q, info]) => Object.keys(info.units).map((u) => [q as Quantity, u] as const));
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.integer({ min: 1, max: 99_999 }), ([q, unit], n) => {
        const typed = n / 100;
        const canonical = value(`${typed} ${unit}`, q);
        expect(canonical).toBeCloseTo(value(String(typed), q, unit), 9);
        expect(canonical / QUANTITIES[q].units[unit]!).toBeCloseTo(typed, 9);
      }),
    );
  });
  it('shows a value in the wanted unit, a true minus before negatives', () => {
    expect(formatQuantity(10, 'pressure', 'psi')).toBe('145.0 psi');
    expect(formatQuantity(-0.05, 'length')).toBe('−0.05 mm');
    expect(formatQuantity(3, 'torque', 'stone')).toBe('3.0 N·m');
  });
});
