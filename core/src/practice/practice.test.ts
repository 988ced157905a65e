import { pattern } from '../damage/patterns.js';
import { RECIPES } from '../specimen/recipes.js';
import { DRILL_CARDS, drillCard, drillOf, drillReason } from './drills.js';
import { drillProgress, NEW_A_DAY, type DrillAnswer } from './progress.js';

// Short drills on painted specimens, and when each comes again.
describe('the cards', () => {
  it('are one of each, in the order they are met: a pair of look-alikes only once both were named', () => {
    expect(new Set(DRILL_CARDS.map((c) => c.id)).size).toBe(DRILL_CARDS.length);
    expect(DRILL_CARDS.filter((c) => c.kind === 'which').length).toBeGreaterThan(10);
    const named = new Set<string>();
    for (const c of DRILL_CARDS) {
      if (c.kind === 'name') named.add(c.pattern);
      else expect([c.id, named.has(c.pattern), c.rival === null || named.has(c.rival)]).toEqual([c.id, true, true]);
    }
    expect(DRILL_CARDS[0]!.level).toBe(1);
    expect(DRILL_CARDS.every((c, i) => i === 0 || c.level >= DRILL_CARDS[i - 1]!.level)).toBe(true);
  });

  it.each(DRILL_CARDS.map((c) => c.id))('%s shows a specimen and offers the right answer among others once', (id) => {
    for (const seed of [1, 2, 77]) {
      const drill = drillOf(drillCard(id)!, seed);
      expect(drillOf(drillCard(id)!, seed)).toEqual(drill);
      const ids = drill.options.map((o) => o.id);
      expect([new Set(ids).size, ids.filter((o) => o === drill.right).length]).toEqual([ids.length, 1]);
      expect(ids.length).toBeGreaterThan(1);
      expect(RECIPES).toContain(drill.shown);
      for (const o of ids) expect(drillReason(drill, o).length).toBeGreaterThan(8);
    }
  });

  it('say what decides when one was taken for another', () => {
    const card = DRILL_CARDS.find((c) => c.kind === 'which')!;
    const reason = drillReason(drillOf(card, 3), card.rival!);
    expect(reason).toContain(`From ${pattern(card.rival!)!.name.toLowerCase()}:`);
  });
});

describe('progress', () => {
  const at = (day: number, minute = 0): string => new Date(Date.UTC(2026, 0, day, 8, minute)).toISOString();
  const answer = (card: string, time: string, right = true, tookMs = 4000): DrillAnswer => ({
    card,
    seed: 1,
    given: '',
    right,
    tookMs,
    time,
  });
  const [first, second] = DRILL_CARDS;

  it('begins with the first card, and brings a few new ones a day', () => {
    const none = drillProgress([], at(1));
    expect([none.next, none.waiting, none.level]).toEqual([first, NEW_A_DAY, 1]);
    const day = DRILL_CARDS.slice(0, NEW_A_DAY).map((c, i) => answer(c.id, at(1, i)));
    const done = drillProgress(day, at(1, NEW_A_DAY));
    // All of today's are known; what is still learnt comes back within minutes.
    expect(done.next === null || done.standing.has(done.next.id)).toBe(true);
    expect(drillProgress(day, at(2)).waiting).toBeGreaterThanOrEqual(NEW_A_DAY);
  });

  it('brings back soon what was wrong, and ever later what was right', () => {
    const wrong = drillProgress([answer(first!.id, at(1), false)], at(1, 20));
    expect(wrong.next).toEqual(first);
    const days = [1, 2, 6, 20];
    const gaps = days.map((_, i) => {
      const told = days.slice(0, i + 1).map((d) => answer(first!.id, at(d)));
      return Date.parse(drillProgress(told, at(30)).standing.get(first!.id)!.due) - Date.parse(told.at(-1)!.time);
    });
    for (let i = 1; i < gaps.length; i++) expect(gaps[i]).toBeGreaterThan(gaps[i - 1]!);
    const slow = drillProgress([answer(first!.id, at(1), true, 60_000)], at(1));
    expect(slow.standing.get(first!.id)!.due < drillProgress([answer(first!.id, at(1))], at(1)).standing.get(first!.id)!.due).toBe(true);
  });

  it('counts by pattern, the worst first, and no more minutes than somebody can have thought', () => {
    const p = drillProgress([answer(first!.id, at(1)), answer(second!.id, at(1, 1), false, 3_600_000)], at(1, 5));
    expect(p.byPattern.map((x) => [x.pattern, x.k, x.n])).toEqual(
      first!.pattern === second!.pattern ? [[first!.pattern, 1, 2]] : [[second!.pattern, 0, 1], [first!.pattern, 1, 1]], // prettier-ignore
    );
    expect(p.minutesToday).toBeLessThan(2.1);
    expect(drillProgress([answer('name:nobody', at(1))], at(1)).answeredToday).toBe(0);
  });
});
