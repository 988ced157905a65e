import fc from 'fast-check';
import { formatLength, MM_PER, parseLength, type LengthUnit } from './length.js';

const mm = (text: string, unit: LengthUnit = 'mm', masterMm?: number): number => {
  const r = parseLength(text, { unit, masterMm });
  if (!r.ok || r.value.kind !== 'value') throw new Error(`not a value: ${text}`);
  return r.value.mm;
};

describe('parseLength', () => {
  it.each([
    ['58.41', 58.41],
    ['52,97', 52.97],
    ['2.2995"', 2.2995 * 25.4],
    ['2.2995 in', 2.2995 * 25.4],
    ['1.5 thou', 0.0381],
    ['12 µm', 0.012],
    ['12um', 0.012],
    ['.5', 0.5],
  ])('reads %s', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 12));

  it('takes the unit of the sheet when none is typed', () => expect(mm('2', 'in')).toBeCloseTo(50.8, 12));
  it('adds an offset to the set master', () => {
    expect(mm('+0.02', 'mm', 53)).toBeCloseTo(53.02, 12);
    expect(mm('-0.02', 'mm', 53)).toBeCloseTo(52.98, 12);
  });
  it('keeps a place left unread', () => expect(parseLength('-', { unit: 'mm' })).toEqual({ ok: true, value: { kind: 'not-read' } }));

  it.each([
    ['abc', 'reading-not-a-number'],
    ['5,2,1', 'reading-not-a-number'],
    ['', 'reading-empty'],
    ['52.9 kg', 'reading-unit'],
    ['+0.02', 'reading-no-master'],
    ['1e400', 'reading-not-a-number'],
    ['<b>5</b>', 'reading-not-a-number'],
  ])('refuses %s', (text, code) => {
    const r = parseLength(text, { unit: 'mm' });
    expect(r.ok ? null : r.problem.code).toBe(code);
  });

  it('does not depend on the unit a length is typed in', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 500, noNaN: true }),
        fc.constantFrom<LengthUnit>('mm', 'in', 'thou', 'um'),
        (value, unit) => {
          const word = { mm: 'mm', in: 'in', thou: 'thou', um: 'µm' }[unit];
          expect(mm(`${(value / MM_PER[unit]).toFixed(9)} ${word}`)).toBeCloseTo(value, 6);
        },
      ),
    );
  });
});

describe('formatLength', () => {
  it('always shows the unit and a true minus', () => {
    expect(formatLength(52.978)).toBe('52.978 mm');
    expect(formatLength(-0.0045, 'mm', { digits: 4, signed: true })).toBe('−0.0045 mm');
    expect(formatLength(0.005, 'mm', { signed: true })).toBe('+0.005 mm');
    expect(formatLength(25.4, 'in')).toBe('1.0000 in');
    expect(formatLength(-0.00001)).toBe('0.000 mm');
  });
});
