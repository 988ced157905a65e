import { FEATURES, feature } from '../../cause/data/features.js';
import { NEUTRAL_SIGHTS, neutralSight, sightPatterns, sightsFor } from '../../damage/sights.js';
import { pattern, PATTERNS } from '../../damage/patterns.js';
import { matchesStation, PART_NAMES, stationsOf, type PartClass } from '../../engine/stations.js';
import { ENGINE_TEMPLATES } from '../../engine/templates.js';
import { LETTER_PARTS, PART_WORDS } from './parts.js';
import { QUANTITY_WORDS } from './quantities.js';
import { NEUTRAL_SAYINGS, PATTERN_SAYINGS, SOUND_SAYINGS } from './sights.js';
import { TOLD_SAYINGS } from './told.js';

// The lexicon is data: every id in it must be known, and every known thing should have a wording.
describe('the lexicon of the notebook line', () => {
  it('names patterns, neutral sights and features that exist', () => {
    expect(PATTERN_SAYINGS.filter((s) => !pattern(s.sight)).map((s) => s.sight)).toEqual([]);
    expect(NEUTRAL_SAYINGS.filter((s) => !neutralSight(s.sight)).map((s) => s.sight)).toEqual([]);
    expect(SOUND_SAYINGS.filter((s) => s.denies && !neutralSight(s.denies) && !pattern(s.denies)).map((s) => s.denies)).toEqual([]);
    expect(TOLD_SAYINGS.filter((t) => !feature(t.feature)).map((t) => t.feature)).toEqual([]);
    const shown = QUANTITY_WORDS.flatMap((q) => [q.high, q.low]).filter((f): f is string => f !== undefined);
    expect(shown.filter((f) => !feature(f))).toEqual([]);
  });

  it('has a wording for every neutral sight and for nine patterns in ten', () => {
    const said = new Set([...PATTERN_SAYINGS, ...NEUTRAL_SAYINGS].map((s) => s.sight));
    expect(NEUTRAL_SIGHTS.filter((s) => !said.has(s.id)).map((s) => s.id)).toEqual([]);
    const without = PATTERNS.filter((p) => !said.has(p.id)).map((p) => p.id);
    expect(without.length).toBeLessThan(PATTERNS.length / 10);
  });

  it('has a wording for everything that is told or shown by fluids', () => {
    const said = new Set(TOLD_SAYINGS.map((t) => t.feature));
    const debris = FEATURES.filter((f) => /^(?:told|fluid)\./.test(f.id)).map((f) => f.id);
    expect(debris.filter((id) => !said.has(id))).toEqual([]);
  });

  it('means places that some engine has, for every part but what has none', () => {
    const all = ENGINE_TEMPLATES.flatMap((t) => stationsOf(t.layout).map((s) => ({ id: s.id, thrust: t.layout.thrustMain })));
    for (const part of PART_WORDS)
      for (const glob of part.stations) {
        const wanted = glob.replace('#', '*');
        expect([part.id, glob, all.some((s) => matchesStation(wanted.replace('.T.', `.${s.thrust}.`), s.id))]).toEqual([
          part.id,
          glob,
          true,
        ]);
      }
    for (const id of Object.values(LETTER_PARTS)) expect(PART_WORDS.map((p) => p.id)).toContain(id);
  });

  it('matches no empty wording, which would be everywhere', () => {
    for (const { says } of [...PART_WORDS, ...PATTERN_SAYINGS, ...NEUTRAL_SAYINGS, ...SOUND_SAYINGS, ...TOLD_SAYINGS, ...QUANTITY_WORDS])
      expect('').not.toMatch(says);
  });
});

describe('neutral sights', () => {
  it('stand above patterns that exist, each under a name of its own', () => {
    expect(NEUTRAL_SIGHTS.flatMap((s) => s.patterns).filter((id) => !pattern(id))).toEqual([]);
    expect(new Set(NEUTRAL_SIGHTS.map((s) => s.id)).size).toBe(NEUTRAL_SIGHTS.length);
    expect(NEUTRAL_SIGHTS.filter((s) => pattern(s.id))).toEqual([]);
  });

  it('are offered only on parts that can show one of them', () => {
    for (const part of Object.keys(PART_NAMES) as PartClass[])
      for (const s of sightsFor(part)) {
        expect(sightPatterns(s.id, part).length).toBeGreaterThan(0);
        for (const p of sightPatterns(s.id, part)) expect(p.parts).toContain(part);
      }
    expect(sightsFor('shell').map((s) => s.id)).toContain('sight-scored');
  });
});
