import { memo, memoCounts, memoOf } from './memo.js';

const counted = (name: string): [number, number] => {
  const { hits, misses } = memoCounts().get(name)!;
  return [hits, misses];
};

describe('what is kept', () => {
  it('is made once an object, whatever comes of it', () => {
    let made = 0;
    const of = memo('test: once', (key: { n: number }) => {
      made++;
      return key.n === 0 ? undefined : { twice: 2 * key.n };
    });
    const [one, none] = [{ n: 1 }, { n: 0 }];
    expect(of(one)).toBe(of(one));
    expect([of(none), of(none)]).toEqual([undefined, undefined]);
    expect(made).toBe(2);
    expect(of({ n: 1 })).not.toBe(of(one));
    expect(counted('test: once')).toEqual([3, 3]);
  });
  it('may be several of one object, told apart by name', () => {
    const of = memoOf(
      'test: several',
      (which: string) => which,
      (key: { n: number }, which: string) => ({ which, n: key.n }),
    );
    const key = { n: 1 };
    expect(of(key, 'a')).toBe(of(key, 'a'));
    expect(of(key, 'b')).toEqual({ which: 'b', n: 1 });
    expect(counted('test: several')).toEqual([1, 2]);
  });
  it('is not kept when making it failed', () => {
    let fails = true;
    const of = memo('test: failing', (_: object) => {
      if (fails) throw new Error('not yet');
      return 1;
    });
    const key = {};
    expect(() => of(key)).toThrow('not yet');
    fails = false;
    expect(of(key)).toBe(1);
  });
  it('has a name of its own', () => {
    memo('test: named', () => 1);
    expect(() => memo('test: named', () => 1)).toThrow(/Two memories/);
  });
});
