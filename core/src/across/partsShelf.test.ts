import { fitting, partsShelf, shelfName, type ShelfCase } from './partsShelf.js';

const A = 'a0000000-0000-4000-8000-000000000001';
const B = 'b0000000-0000-4000-8000-000000000002';
const C = 'c0000000-0000-4000-8000-000000000003';
const kept = (station: string) => ({ station, part: 'rod' as const, name: `Rod of ${station}`, size: '', place: 'rack 2' });
const wanted = (station: string, more: object = {}) => ({
  station,
  part: 'rod' as const,
  what: 'A rod',
  state: 'wanted' as const,
  shelf: null,
  ...more,
});
const of = (id: string, number: string, facts: Partial<ShelfCase['facts']>): ShelfCase => ({
  id,
  number,
  facts: { family: 'inline-4-diesel', familyName: 'Inline four, diesel', ...facts },
});

describe('the parts shelf', () => {
  it('offers what lies at the same kind of place in the same kind of engine, from another case', () => {
    const shelf = partsShelf([
      of(A, '1', { kept: [kept('rod.1'), kept('rod.1.shell.upper')] }),
      of(B, '2', { wanted: [wanted('rod.3')] }),
      of(C, '3', { family: 'vee-8-petrol', wanted: [wanted('rod.2')] }),
    ]);
    expect(shelf.wanted.map((w) => [w.number, w.fits])).toEqual([
      ['2', [`${A}/rod.1`]],
      ['3', []],
    ]);
    expect(fitting(shelf.kept, A, 'inline-4-diesel', 'rod.3')).toEqual([]);
    expect(fitting(shelf.kept, B, 'inline-4-diesel', 'rod.2.shell.lower')).toEqual([]);
  });
  it('says whom a part was promised to, and when it was to two', () => {
    const shelf = `${A}/rod.1`;
    const taken = (...cases: string[]) =>
      partsShelf([
        of(A, '1', { kept: [kept('rod.1')] }),
        ...cases.map((id, n) => of(id, `${n + 2}`, { wanted: [wanted('rod.2', { state: 'had', shelf })] })),
        of('d', '9', { wanted: [wanted('rod.4')] }),
      ]);
    expect(taken().wanted[0]!.fits).toEqual([shelf]);
    const once = taken(B);
    expect(once.kept[0]!.promised).toEqual([{ caseId: B, number: '2' }]);
    expect(once.wanted.map((w) => [w.number, w.fits])).toEqual([['9', []]]);
    expect(taken(B, C).kept[0]!.promised).toHaveLength(2);
    expect(shelfName(once.kept[0]!)).toBe(shelf);
  });
  it('is empty of cases whose figures are older than it', () => {
    expect(partsShelf([of(A, '1', {})])).toEqual({ kept: [], wanted: [] });
  });
});
