import fc from 'fast-check';
import { readFigure } from './figure.js';
import { formatFigure, readTyped } from './typed.js';

const mm = { quantity: 'length', unit: 'mm' } as const;
const value = (text: string, limits: Parameters<typeof readTyped>[1] = {}): number | string => {
  const read = readTyped(text, limits);
  return read.ok ? read.value.value : read.problem.code;
};

describe('a figure in a field', () => {
  it.each<[string, Parameters<typeof readTyped>[1], number | string]>([
    ['0,001', mm, 0.001],
    ['62,50', mm, 62.5],
    ['21,5', {}, 21.5],
    ['62.50', mm, 62.5],
    [',5', {}, 0.5],
    ['3.386"', mm, 86.0044],
    ['3 3/8"', mm, 85.725],
    ['2-3/8 in', mm, 60.325],
    ['1/2', {}, 0.5],
    ['1.5 thou', mm, 0.0381],
    ['12 µm', mm, 0.012],
    ['-0,02', mm, -0.02],
    ['−0.02', mm, -0.02],
    ['12 psi', { quantity: 'pressure', unit: 'psi' }, 12],
    ['1.234,5', mm, 'not-a-number'],
    ['1,234.5', mm, 'not-a-number'],
    ['1 234', mm, 'not-a-number'],
    ['1/0', {}, 'not-a-number'],
    ['twelve', {}, 'not-a-number'],
    ['12 kg', mm, 'unit'],
    ['12 constructor', mm, 'unit'],
    ['4,5', { whole: true }, 'not-whole'],
    ['-1', { min: 0 }, 'too-small'],
    ['101', { max: 100 }, 'too-large'],
    ['9'.repeat(400), {}, 'not-a-number'],
  ])('%s is %s → %s', (text, limits, expected) => expect(value(text, limits)).toBe(expected));

  it('reads the same with a comma as with a point, and back as it was shown', () => {
    fc.assert(
      fc.property(fc.integer({ min: -99_999_999, max: 99_999_999 }), fc.integer({ min: 0, max: 6 }), (n, places) => {
        const text = (n / 10 ** places).toFixed(places);
        expect(value(text.replace('.', ','))).toBe(value(text));
        expect(value(formatFigure(value(text) as number))).toBe(value(text));
      }),
    );
  });
  it('never throws, and takes no text with two marks for a figure', () => {
    fc.assert(fc.property(fc.string({ unit: 'binary' }), (text) => void readFigure(text)));
    fc.assert(
      fc.property(fc.nat(999), fc.nat(999), fc.nat(999), fc.constantFrom('.', ',', ' '), fc.constantFrom('.', ','), (a, b, c, x, y) => {
        expect(readFigure(`${a}${x}${b}${y}${c}`)).toBeNull();
      }),
    );
  });
});
