import { PATTERNS } from '../damage/patterns.js';
import { write, written } from '../testing/write.js';
import { matchFinding } from './matchFinding.js';
import { caseView, type StationView } from './views.js';

// Which pattern fits what is drawn: classes, place, lines and half each tell, and harmless ones never outrank a ruined face.
const ID = (n: number): string => `1111111${n}-1111-4111-8111-111111111111`;
const stroke = (n: number, cls: string, points: ReadonlyArray<readonly [number, number]>, radiusMm = 6) => ({
  mark: { id: ID(n), made: 'found-so', radiusMm, shape: 'stroke', class: cls, points },
});
const line = (n: number, v: number, depth = 'probe') => ({
  mark: {
    id: ID(n),
    made: 'found-so',
    radiusMm: 0.15,
    shape: 'line',
    class: 'lining',
    depth,
    points: [
      [0.1, v],
      [0.9, v],
    ],
  },
});
const across = Array.from({ length: 9 }, (_, i) => [0.1 + i * 0.1, 0.5] as const);
function drawn(station: string, ...marks: object[]): StationView {
  const state = marks.reduce<ReturnType<typeof written>>((s, m) => write(s, 'mark-made', station, m), written());
  return caseView(state)!.byId.get(station)!;
}
const SHELL = 'rod.2.shell.lower';

describe('matching a finding', () => {
  it('is nothing while nothing is drawn or read', () => expect(matchFinding(drawn(SHELL))).toBeNull());

  it('gives chances that sum to one, the best first, each of a pattern of the part', () => {
    const match = matchFinding(drawn(SHELL, stroke(0, 'lining', across)))!;
    expect(match.ranked.reduce((sum, m) => sum + m.fit, 0)).toBeCloseTo(1, 9);
    expect(match.ranked.every((m, i) => i === 0 || m.fit <= match.ranked[i - 1]!.fit)).toBe(true);
    expect(match.ranked.every((m) => m.pattern.parts.includes('shell'))).toBe(true);
  });

  it('the class that leads decides first, and is said', () => {
    for (const cls of ['lining', 'rust', 'heat', 'embedded'] as const) {
      const [best] = matchFinding(drawn(SHELL, stroke(0, cls, across)))!.ranked;
      expect(best!.pattern.signature!.classes).toContain(cls);
      expect(best!.why.length).toBeGreaterThan(0);
    }
  });

  it('lines speak for what has many and against what has none', () => {
    const fit = (view: StationView, id: string): number => matchFinding(view)!.ranked.find((m) => m.pattern.id === id)!.fit;
    const none = PATTERNS.find((p) => p.parts.includes('shell') && p.signature?.lines === 'none')!;
    const many = PATTERNS.find((p) => p.parts.includes('shell') && p.signature?.lines === 'many')!;
    const plain = drawn(SHELL, stroke(0, 'lining', across));
    const lined = drawn(SHELL, stroke(0, 'lining', across), line(1, 0.3), line(2, 0.5), line(3, 0.7));
    expect(fit(lined, none.id)).toBeLessThan(fit(plain, none.id));
    expect(fit(lined, many.id)).toBeGreaterThan(fit(plain, many.id));
  });

  it('the loaded half tells where the pattern lies there: the upper of a big end, the lower of a main', () => {
    const loaded = PATTERNS.filter((p) => p.parts.includes('shell') && p.signature?.half === 'loaded');
    expect(loaded.length).toBeGreaterThan(0);
    for (const p of loaded) {
      const fit = (shell: string): number =>
        matchFinding(drawn(shell, stroke(0, p.signature!.classes[0]!, across)))!.ranked.find((m) => m.pattern.id === p.id)!.fit;
      expect(fit('rod.2.shell.upper')).toBeGreaterThan(fit('rod.2.shell.lower'));
      expect(fit('main.2.shell.lower')).toBeGreaterThan(fit('main.2.shell.upper'));
    }
  });

  it('asks the observation that decides between the two that fit best, or both their questions', () => {
    const { ranked, decides } = matchFinding(drawn(SHELL, stroke(0, 'lining', across)))!;
    expect([decides!.a, decides!.b]).toEqual([ranked[0]!.pattern.id, ranked[1]!.pattern.id]);
    expect(decides!.observation.length).toBeGreaterThan(10);
  });

  it('what is harmless never leads a face of grade 2 or worse', () => {
    const state = write(write(written(), 'mark-made', SHELL, stroke(0, 'polished', across)), 'grade-confirmed', SHELL, {
      grade: 3,
      proposed: null,
      reason: '',
      book: '1',
    });
    const [best] = matchFinding(caseView(state)!.byId.get(SHELL)!)!.ranked;
    expect(best!.pattern.facts).not.toContain('harmless');
  });

  it('on a bore the top end is a place of its own', () => {
    const burnt = PATTERNS.find((p) => p.parts.includes('bore') && p.signature?.where === 'top' && p.signature.classes[0] === 'heat')!;
    const at = (v: number) => {
      const band = Array.from({ length: 9 }, (_, i) => [0.1 + i * 0.1, v] as const);
      return matchFinding(drawn('bore.2', stroke(0, 'heat', band, 4)))!.ranked.find((m) => m.pattern.id === burnt.id)!;
    };
    // The deck is at 0.
    expect(at(0.04).why).toContain('it lies on top');
    expect(at(0.04).fit).toBeGreaterThan(at(0.5).fit);
    expect(at(0.96).why).not.toContain('it lies on top');
  });
});
