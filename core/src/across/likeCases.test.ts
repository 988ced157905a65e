import { likeCases, type ComparedFacts } from './likeCases.js';

// Cases that found much the same: weighed by hand.
const facts = (patterns: string[], places: string[] = [], more: Partial<ComparedFacts> = {}): { facts: ComparedFacts; name: string } => ({
  name: patterns.join(),
  facts: {
    family: 'inline-4-petrol',
    patterns,
    places: places.map((p) => [p, 'shell', 3] as const),
    confirmed: [],
    proven: null,
    ...more,
  },
});

describe('cases like one', () => {
  const own = facts(['wiping', 'journal-heat'], ['rod.2.shell.upper']).facts;

  it('share what is rare, at the same kind of place whatever its number', () => {
    const same = facts(['wiping', 'journal-heat'], ['rod.7.shell.upper']);
    const half = facts(['wiping', 'corrosion']);
    const none = facts(['bore-glaze']);
    const found = likeCases(own, [none, half, same]);
    expect(found.map((l) => l.of)).toEqual([same, half]);
    expect(found[0]!.likeness).toBe(1);
    expect(found[0]!.shared).toContain('rod shell upper');
    // wiping stands in three of five (with the one asked), journal-heat and the place in two, corrosion in one; N + 2 = 5.
    const [w, h, c] = [Math.log(5 / 3), Math.log(5 / 2), Math.log(5 / 1)];
    expect(found[1]!.likeness).toBeCloseTo(w / (w + 2 * h + c), 12);
  });

  it('are none by what every engine shows', () => {
    const worn = Array.from({ length: 30 }, () => facts(['wiping', 'scoring']));
    const odd = facts(['journal-heat', 'fillet-crack']);
    const [first] = likeCases(own, [...worn, odd]);
    expect(first!.of).toBe(odd);
    expect(
      likeCases(facts(['wiping']).facts, [facts(['wiping', 'scoring', 'corrosion', 'spun-shell', 'fillet-crack'])])[0]?.likeness ?? 0,
    ).toBeLessThan(0.2);
  });

  it('say what each was: proved before confirmed; of one that found nothing none is alike', () => {
    const told = (more: Partial<ComparedFacts>) => likeCases(own, [facts(['wiping', 'journal-heat'], [], more)])[0]!;
    expect(told({ confirmed: ['oil-low'] })).toMatchObject({ was: ['Oil level run low or none'], proved: false });
    expect(told({ confirmed: ['oil-low'], proven: ['dust-intake'] })).toMatchObject({ proved: true });
    expect(told({ confirmed: ['oil-low'], proven: [] })).toMatchObject({ was: [], proved: false });
    expect(told({ family: 'vee-8-petrol' }).sameFamily).toBe(false);
    expect(likeCases(facts([]).facts, [facts(['wiping'])])).toEqual([]);
  });

  it('that share more come first, and few are shown', () => {
    const others = Array.from({ length: 60 }, () => facts(['bore-glaze']));
    const many = Array.from({ length: 12 }, (_, i) =>
      facts(['wiping', 'journal-heat', ...Array.from({ length: i % 4 }, (_x, k) => `other-${i}-${k}`)]),
    );
    const found = likeCases(own, [...others, ...many]);
    expect(found).toHaveLength(6);
    for (let i = 1; i < found.length; i++) expect(found[i]!.likeness).toBeLessThanOrEqual(found[i - 1]!.likeness);
  });
});
