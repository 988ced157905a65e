import { isExamined } from '../case/views.js';
import { feature } from '../cause/data/features.js';
import { CAUSES } from '../cause/data/causes.js';
import { pattern } from '../damage/patterns.js';
import { collectEvidence } from '../diagnosis/evidence.js';
import { stationOf, stationsOf } from '../engine/stations.js';
import { stripPlan } from '../strip/plan.js';
import { write } from '../testing/write.js';
import { loadAt } from './bearingLoad.js';
import { drawEngine, gradeOfMarks, type HiddenEngine } from './hidden.js';
import { PRACTICE_LEVELS } from './levels.js';
import { lookOfFeature, lookStands, practiceLook, practiceLooks } from './looks.js';
import { practiceSpecimen } from './picture.js';
import { minutesSpent, scoreOf } from './score.js';
import { shownBy } from './shown.js';
import { storyOf } from './story.js';
import { stripByNextCheck, stripPlainly, viewAfter, fileAfter } from './strip.js';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { caseView } from '../case/views.js';
import { wearOf } from './wear.js';

// Engines with a hidden cause: made, looked at, scored.
const SEEDS = [1, 2, 3, 4];
const engines = PRACTICE_LEVELS.flatMap((l) => SEEDS.map((seed) => drawEngine(l.level, seed)));
const named = engines.map((h) => [`level ${h.level.level} seed ${h.seed}`, h] as const);
const allSteps = (h: HiddenEngine): string[] => stripPlan(h.layout).steps.map((s) => s.id);

describe('a practice engine', () => {
  it.each(named)('of %s is the same for two people, and holds to its level', (_, h) => {
    const again = drawEngine(h.level.level, h.seed);
    expect([...again.features]).toEqual([...h.features]);
    expect([...again.marks]).toEqual([...h.marks]);
    expect(again.causes).toEqual(h.causes);
    expect(h.level.engines).toContain(h.layout.template);
    expect(h.level.causes).toContain(h.causes.length);
    for (const { cause: id, place } of h.causes) {
      const c = CAUSES.find((x) => x.id === id)!;
      if (h.level.from) expect(h.level.from.some((f) => f === c.id || f === c.family)).toBe(true);
      expect(place === null).toBe(!c.place);
    }
  });

  it.each(named)('of %s has every damage it holds at a place that can show it, and no other', (_, h) => {
    const shown = new Set<string>();
    for (const [station, marks] of h.marks)
      for (const m of marks) {
        const p = pattern(m.pattern)!;
        expect([m.pattern, p.parts.includes(stationOf(h.layout, station)!.part), h.features.get(p.feature)]).toEqual([
          m.pattern,
          true,
          true,
        ]);
        shown.add(p.feature);
      }
    for (const [id, so] of h.features) {
      const f = feature(id)!;
      if (!so || f.kind === 'seen') continue;
      // What lies on no part is seen by a look of its own.
      if (!f.parts) expect([id, lookOfFeature(h.layout, id) !== undefined]).toEqual([id, true]);
    }
    expect(shown.size).toBeGreaterThan(0);
  });

  it('is not the same for another seed', () => {
    expect(new Set(SEEDS.map((s) => JSON.stringify([...drawEngine(5, s).marks]))).size).toBe(SEEDS.length);
  });

  it('is worn where the load lies: over many, the half that carries more is hurt more', () => {
    let [heavy, light, n] = [0, 0, 0];
    for (let seed = 1; seed <= 60; seed++) {
      const h = drawEngine(2, seed);
      for (const s of stationsOf(h.layout)) {
        if (s.part !== 'shell' || s.half !== 'upper') continue;
        const other = stationOf(h.layout, s.id.replace('upper', 'lower'))!;
        const [a, b] = [s, other].map((x) => gradeOfMarks(h.marks.get(x.id) ?? []));
        const upperHeavier = loadAt(h.layout, s) > loadAt(h.layout, other);
        heavy += upperHeavier ? a! : b!;
        light += upperHeavier ? b! : a!;
        n++;
      }
    }
    expect(n).toBeGreaterThan(300);
    expect(heavy).toBeGreaterThan(1.1 * light);
  });

  it('gives its gauges what is so: a journal that is worn reads so, one that is not does not', () => {
    for (const h of engines) {
      const worn = ['measured.journal-worn', 'measured.out-of-round', 'measured.taper'].some((f) => h.features.get(f));
      for (const s of stationsOf(h.layout).filter((x) => x.part === 'journal')) expect(wearOf(h)(s.id) > 0.5).toBe(worn);
    }
  });
});

describe('what is looked at', () => {
  it.each(named)('of %s, written down by somebody who names everything rightly, says what is so', (_, h) => {
    const looks = practiceLooks(h.layout).filter((l) => !h.goneBefore.some((id) => l.id === `part:${id}`));
    const view = viewAfter(h, looks, allSteps(h));
    const wrong = collectEvidence(view).flatMap((e) => {
      const so = h.features.get(e.feature.id);
      // What follows from where the damage lies is computed, and what is told is partly wrong.
      if (so === undefined || e.reliability === 'silent' || e.reliability === 'told' || e.feature.kind === 'told') return [];
      return e.present === so ? [] : [`${e.feature.id} said ${e.present}`];
    });
    expect(wrong).toEqual([]);
  });

  it('says nothing by name, and the owner what he believes', () => {
    const h = drawEngine(9, 2);
    for (const look of practiceLooks(h.layout)) {
      const { words, picture } = shownBy(h, look);
      expect(words.length > 0 || picture).toBe(true);
      if (look.kind === 'part')
        for (const m of h.marks.get(look.id.slice(5)) ?? []) expect(words.join(' ')).not.toContain(pattern(m.pattern)!.name);
    }
    const lies = [...h.believed].filter(([id, said]) => said !== h.features.get(id) && practiceLook(h.layout, `ask:${id}`));
    expect(lies.length).toBeGreaterThan(0);
    for (const [id, said] of lies) expect(shownBy(h, practiceLook(h.layout, `ask:${id}`)!).words[0]).toContain(said ? '“Yes: ' : '“No: ');
    expect(storyOf(h)).toEqual(storyOf(drawEngine(9, 2)));
  });

  it('is had when it is laid bare, and gone when the step that destroys it is done', () => {
    const h = drawEngine(1, 1);
    const { layout } = h;
    const shell = practiceLook(layout, 'part:rod.1.shell.upper')!;
    const dipstick = practiceLook(layout, 'check:dipstick')!;
    const fresh = viewAfter(h, [], []);
    expect(lookStands(fresh, dipstick)).toEqual({ open: true });
    expect(lookStands(fresh, shell)).toMatchObject({ open: false, gone: false });
    const apart = viewAfter(h, [], allSteps(h));
    expect(lookStands(apart, dipstick)).toMatchObject({ open: false, gone: true });
    expect(lookStands(apart, practiceLook(layout, 'check:compression')!)).toMatchObject({ open: false, gone: true });
    expect(lookStands(apart, shell)).toEqual({ open: true });
    const nine = engines.find((e) => e.goneBefore.length > 0)!;
    const lost = practiceLook(nine.layout, `part:${nine.goneBefore[0]}`)!;
    expect(lookStands(viewAfter(nine, [], allSteps(nine)), lost)).toMatchObject({ open: false, gone: true });
  });

  it.each(PRACTICE_LEVELS.flatMap((l) => l.engines).filter((id, i, all) => all.indexOf(id) === i))(
    'comes with a step the strip of %s has, each thing once',
    (template) => {
      const { layout } = engines.find((h) => h.layout.template === template) ?? { layout: stationsLayout(template) };
      const plan = stripPlan(layout);
      const looks = practiceLooks(layout);
      expect(new Set(looks.map((l) => l.id)).size).toBe(looks.length);
      for (const l of looks) {
        expect([l.id, l.after === null || plan.byId.has(l.after)]).toEqual([l.id, true]);
        expect(l.minutes).toBeGreaterThan(0);
        if (l.kind === 'part') expect([l.id, l.after === null]).toEqual([l.id, false]);
      }
    },
  );

  it('is painted with what is there: the specimen of a hurt place differs from that of a sound one', () => {
    const h = engines.find((e) =>
      [...e.marks].some(([id, m]) => stationOf(e.layout, id)!.part === 'shell' && m.some((x) => x.pattern === 'wiping')),
    )!;
    const [hurt] = [...h.marks].find(([id, m]) => stationOf(h.layout, id)!.part === 'shell' && m.some((x) => x.pattern === 'wiping'))!;
    const sound = stationsOf(h.layout).find((s) => s.part === 'shell' && !h.marks.has(s.id));
    const kinds = (id: string): string[] => practiceSpecimen(h, id)!.specimen.damages.map((d) => d.kind);
    expect(kinds(hurt)).toContain('wipe');
    if (sound) expect(kinds(sound.id)).toEqual(['polish']);
    expect(practiceSpecimen(h, 'pump.gears')).toBeNull();
  });
});

/** The layout of a template no drawn engine has. */
function stationsLayout(template: string): HiddenEngine['layout'] {
  for (let seed = 1; ; seed++)
    for (const l of PRACTICE_LEVELS)
      if (l.engines.includes(template)) {
        const h = drawEngine(l.level, seed);
        if (h.layout.template === template) return h.layout;
      }
}

describe('the score', () => {
  const h = drawEngine(2, 2);
  const truth = h.causes[0]!.cause;
  const other = CAUSES.find((c) => c.id !== truth && c.family === 'Use')!.id;
  const apart = allSteps(h);
  const looks = practiceLooks(h.layout);
  const full = viewAfter(h, looks, apart);

  it('is best for who holds what is so, worst for who is sure of what is not', () => {
    const sure = scoreOf(h, full, [{ cause: truth, percent: 95 }]);
    const half = scoreOf(h, full, [{ cause: truth, percent: 50 }]);
    const wrong = scoreOf(h, full, [{ cause: other, percent: 95 }]);
    expect([sure.right, half.right, wrong.right]).toEqual([true, true, false]);
    expect(sure.own.log).toBeLessThan(half.own.log);
    expect(half.own.log).toBeLessThan(wrong.own.log);
    expect(sure.own.log).toBeCloseTo(-Math.log(0.95), 6);
    expect(wrong.own.brier).toBeCloseTo(1 + 0.95 ** 2, 6);
    expect([sure.cost.again, wrong.cost.again > 0]).toEqual([0, true]);
    expect(sure.causes[0]).toMatchObject({ cause: truth, held: 0.95 });
    // Naming many at nothing thins no score.
    const padded = scoreOf(h, full, [
      { cause: truth, percent: 50 },
      ...CAUSES.filter((c) => c.id !== truth)
        .slice(0, 6)
        .map((c) => ({ cause: c.id, percent: 0 })),
    ]);
    expect(padded.own.log).toBeGreaterThan(half.own.log);
    // Nobody is infinitely wrong.
    expect(scoreOf(h, full, [{ cause: other, percent: 100 }]).own.log).toBeLessThan(10);
  });

  it('names what told of it and never came into the case, and the look that would have told most', () => {
    const nothing = viewAfter(h, [], apart);
    const s = scoreOf(h, nothing, []);
    expect(s.right).toBe(false);
    expect(s.best!.bits).toBeGreaterThan(0);
    expect(s.missed.length).toBeGreaterThan(2);
    expect(s.missed.map((m) => m.how)).not.toContain('seen and not named');
    for (const m of s.missed) expect(h.features.get(m.feature)).toBe(true);
    const all = scoreOf(h, full, []);
    expect(all.missed.length).toBeLessThan(s.missed.length);
    expect(all.evidence.log).toBeLessThan(s.evidence.log);
    expect(
      all.parts.filter((p) => p.there.length > 0).every((p) => p.graded === p.grade && p.there.every((t) => p.named.includes(t))),
    ).toBe(true);
  });

  it('of an engine in which nothing failed is right where nothing was named', () => {
    const none = Array.from({ length: 60 }, (_, i) => drawEngine(7, i + 1)).find((e) => e.causes.length === 0)!;
    const view = viewAfter(none, [], []);
    expect(scoreOf(none, view, []).right).toBe(true);
    expect(scoreOf(none, view, [{ cause: other, percent: 80 }]).right).toBe(false);
  });

  it('counts minutes of looks, steps and readings', () => {
    let { state } = read();
    expect(minutesSpent(caseView(state)!)).toBe(0);
    state = write(state, 'practice-looked', null, { look: 'check:dipstick', name: 'Dipstick', minutes: 2, words: [], picture: false });
    state = write(state, 'step-set', null, { step: apart[0], state: 'done', note: '' });
    expect(minutesSpent(caseView(state)!)).toBe(12);
  });

  function read(): { state: Parameters<typeof caseView>[0] } {
    const r = readCaseFile(fileAfter(h, [], []));
    if (!r.ok) throw new Error(r.problem.sentence);
    return r.value;
  }
});

describe('stripped by a rule', () => {
  it('ends sure or when all is seen, and tells minutes and what was gone', () => {
    const h = drawEngine(2, 2);
    const plain = stripPlainly(h);
    const next = stripByNextCheck(h, 12);
    for (const r of [plain, next]) {
      expect(r.of).toBe(1);
      expect(r.minutes).toBeGreaterThan(0);
      expect(r.logScore).toBeLessThanOrEqual(0);
    }
    expect(next.looks).toBeLessThanOrEqual(12);
    expect(plain.looks).toBeGreaterThan(next.looks);
    expect(viewAfter(h, practiceLooks(h.layout), allSteps(h)).stations.some(isExamined)).toBe(true);
  });
});
