import * as fc from 'fast-check';
import { COUPLED } from './beliefs.js';
import { CAUSES } from './data/causes.js';
import { FEATURES } from './data/features.js';
import { drawn } from './draws.js';
import { JUDGEMENT } from './judgement.js';
import { chanceOfAny, informationGain, marginalsAfter } from './joint.js';
import { binaryEntropy, featureProbability, type Observation, type Posterior } from './model.js';
import { sampledMarginals } from './sampled.js';
import { posterior } from './search.js';
import type { Cause, Feature } from './types.js';

// The posterior over sets of any size, against sums worked out in plain numbers over every set.
const features = new Map(FEATURES.filter((f) => !f.group).map((f) => [f.id, f]));
const linked = (count: number, from = 0): Cause[] => CAUSES.filter((c) => !c.unlisted).slice(from, from + count);
const observation = fc.record({
  feature: fc.constantFrom(...features.keys()),
  like: fc.constantFrom<readonly [number, number]>([1, 0], [0, 1], [0.8, 0.2], [0.05, 0.95], [0.3, 1]),
});
const observationsOf = (list: ReadonlyArray<{ feature: string; like: readonly [number, number] }>): Observation[] =>
  list.map(({ feature, like }) => ({ feature, ifPresent: like[0], ifAbsent: like[1] }));
const several = fc.uniqueArray(observation, { selector: (o) => o.feature, minLength: 1, maxLength: 9 });

/** Weight of every set of causes, by its members as bits. */
function everySet(
  causes: readonly Cause[],
  odds: readonly number[],
  seen: readonly Observation[],
  explained = new Map<string, number>(),
): Float64Array {
  return Float64Array.from({ length: 1 << causes.length }, (_, bits) => {
    const set = causes.filter((_c, i) => bits & (1 << i));
    let w = causes.reduce((p, _c, i) => (bits & (1 << i) ? p * odds[i]! : p), 1);
    // One pair of hands: faults of its family are likelier beside a cause that stands for several.
    const several = set.find((c) => c.several);
    if (several) w *= Math.exp(COUPLED * set.filter((c) => c !== several && c.family === several.family).length);
    for (const o of seen) {
      const f = features.get(o.feature)!;
      const own = explained.get(o.feature) ?? 0;
      // Damage that explains is no leak: no cause takes from it, but what every other cause rules out it rules out too.
      const allow = (1 - (f.othersPrevent ?? 0)) ** set.filter((c) => !c.links.some((l) => l.feature === f.id)).length;
      const q = (1 - (1 - featureProbability(f, set) / allow) * (1 - own)) * allow;
      w *= q * o.ifPresent + (1 - q) * o.ifAbsent;
    }
    return w;
  });
}

function marginalsOf(weights: Float64Array, causes: number): number[] {
  const total = weights.reduce((a, b) => a + b, 0);
  return Array.from({ length: causes }, (_, i) => weights.reduce((sum, w, bits) => (bits & (1 << i) ? sum + w : sum), 0) / total);
}

describe('the posterior of a small table', () => {
  it('agrees with the sum over every set to 1e-9, with and without damage that explains', () => {
    fc.assert(
      fc.property(several, fc.nat(30), fc.double({ min: 0, max: 0.9, noNaN: true }), (list, from, own) => {
        const causes = linked(9, from);
        const odds = causes.map((c) => c.priorOdds);
        const seen = observationsOf(list);
        const explained = new Map([[seen[0]!.feature, own]]);
        const post = posterior(causes, odds, seen, features, explained);
        expect(post.mass).toBe(1);
        expect(post.probability.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
        marginalsOf(everySet(causes, odds, seen, explained), causes.length).forEach((m, i) =>
          expect(Math.abs(post.marginal[i]! - m)).toBeLessThan(1e-9),
        );
      }),
      { numRuns: 40 },
    );
  });

  it('answers what one more observation would do, and what it would tell, as the sum over every set', () => {
    fc.assert(
      fc.property(several, observation, fc.nat(30), (list, next, from) => {
        fc.pre(!list.some((o) => o.feature === next.feature));
        const causes = linked(8, from);
        const odds = causes.map((c) => c.priorOdds);
        const seen = observationsOf(list);
        const post = posterior(causes, odds, seen, features);
        const [one] = observationsOf([next]);
        const f = features.get(next.feature)!;
        const after = marginalsAfter(post, f, one!);
        marginalsOf(everySet(causes, odds, [...seen, one!]), causes.length).forEach((m, i) => expect(after[i]!).toBeCloseTo(m, 5));
        const weights = everySet(causes, odds, seen);
        const total = weights.reduce((a, b) => a + b, 0);
        let chance = 0;
        let inner = 0;
        let any = 0;
        weights.forEach((w, bits) => {
          const q = featureProbability(
            f,
            causes.filter((_c, i) => bits & (1 << i)),
          );
          chance += (w / total) * q;
          inner += (w / total) * binaryEntropy(q);
          if (bits & 5) any += w / total;
        });
        const gain = informationGain(post, f);
        // What a check tells leaves out cores of less than 1e-7, of which there may be some hundred.
        expect(Math.abs(gain.chance - chance)).toBeLessThan(3e-5);
        expect(Math.abs(gain.bits - (binaryEntropy(chance) - inner))).toBeLessThan(3e-4);
        expect(chanceOfAny(post, [0, 2])).toBeCloseTo(any, 5);
      }),
      { numRuns: 30 },
    );
  });
});

describe('the posterior of a table that is searched', () => {
  it('comes within half a point of the sum over every set, also where causes prevent what others bring about', () => {
    fc.assert(
      fc.property(several, fc.nat(40), (list, from) => {
        const causes = linked(13, from);
        const odds = causes.map((c) => c.priorOdds);
        const seen = observationsOf(list);
        const post = posterior(causes, odds, seen, features);
        marginalsOf(everySet(causes, odds, seen), causes.length).forEach((m, i) =>
          expect(Math.abs(post.marginal[i]! - m)).toBeLessThan(0.005),
        );
      }),
      { numRuns: 8 },
    );
  });
});

describe('the posterior of a large table', () => {
  const causes = CAUSES.filter((c) => !c.needs || c.needs.every((tag) => tag !== 'splash' && tag !== 'premix'));
  const odds = causes.map((c) => c.priorOdds);
  const run = (seen: readonly Observation[]): Posterior => posterior(causes, odds, seen, features);

  it('is exact before anything was seen: every cause stands at its prior odds, those of one pair of hands a little above', () => {
    const post = run([]);
    const all = causes.find((c) => c.several)!;
    const kin = causes.filter((c) => c !== all && c.family === all.family);
    const product = (factor: number): number => kin.reduce((p, c) => p * (1 + factor * c.priorOdds), 1);
    const several = (all.priorOdds * product(Math.exp(COUPLED))) / (product(1) + all.priorOdds * product(Math.exp(COUPLED)));
    const chance = (odds: number): number => odds / (1 + odds);
    causes.forEach((c, i) => {
      const beside = kin.includes(c) ? chance(c.priorOdds * Math.exp(COUPLED)) : chance(c.priorOdds);
      const expected = c === all ? several : several * beside + (1 - several) * chance(c.priorOdds);
      expect(post.marginal[i]!).toBeCloseTo(expected, 3);
    });
  });

  it('comes close to a sampler where findings contradict each other', () => {
    const ids = [...features.keys()].filter((_, k) => k % 4 === 0);
    const seen = ids.map((feature, k): Observation => ({ feature, ifPresent: k % 3 === 0 ? 1 : 0.3, ifAbsent: k % 3 === 0 ? 0.1 : 1 }));
    const post = run(seen);
    const peer = sampledMarginals(causes, odds, post.weighed, features, undefined, 6000);
    causes.forEach((_, i) => expect(Math.abs(post.marginal[i]! - peer[i]!)).toBeLessThan(0.04));
    expect(post.mass).toBeGreaterThan(0.9);
  });

  it('does not depend on the order of what was seen', () => {
    fc.assert(
      fc.property(several, (list) => {
        const seen = observationsOf(list);
        const there = run(seen).marginal;
        run([...seen].reverse()).marginal.forEach((m, i) => expect(m).toBeCloseTo(there[i]!, 9));
      }),
      { numRuns: 12 },
    );
  });

  it('lets several causes stand beside each other where each has something of its own', () => {
    // One finding for each of five causes that nothing else explains well.
    const five = ['seen.dirt-behind', 'seen.ring-wrong-way', 'seen.thread-locked-wrong', 'seen.seal-misfit', 'measured.timing-off'];
    const seen = five.flatMap((id) => (features.has(id) ? [{ feature: id, ifPresent: 1, ifAbsent: 0 }] : []));
    const post = run(seen);
    expect(post.marginal.reduce((a, b) => a + b, 0)).toBeGreaterThan(1.3);
    expect(post.marginal[causes.findIndex((c) => c.unlisted)]!).toBeLessThan(0.9);
  });

  it('says how much of it has ceased to move, and never more than all', () => {
    fc.assert(
      fc.property(several, (list) => {
        const post = run(observationsOf(list));
        expect(post.mass).toBeGreaterThan(0);
        expect(post.mass).toBeLessThanOrEqual(1);
        post.marginal.forEach((m) => {
          expect(m).toBeGreaterThanOrEqual(0);
          expect(m).toBeLessThanOrEqual(1 + 1e-9);
        });
      }),
      { numRuns: 12 },
    );
  });
});

describe('what was not said', () => {
  it('never weighs more than the same thing said, against any cause by itself', () => {
    for (const c of CAUSES)
      for (const l of c.links) {
        const f = features.get(l.feature);
        if (!f) continue;
        const marginal = (ifPresent: number): number =>
          posterior([c], [c.priorOdds], [{ feature: f.id, ifPresent, ifAbsent: 1 }], features).marginal[0]!;
        const none = c.priorOdds / (1 + c.priorOdds);
        const silent = Math.abs(Math.log(marginal(0.3) / none));
        expect(silent).toBeLessThanOrEqual(Math.abs(Math.log(marginal(0) / none)) + 1e-12);
      }
  });
});

type Drawn = ReturnType<typeof drawn>;

describe('the draws of the table', () => {
  const causes = linked(20);
  const odds = causes.map((c) => c.priorOdds);
  const seen: Observation[] = [...features.keys()].slice(0, 8).map((feature, i) => ({ feature, ifPresent: i % 2, ifAbsent: 1 - (i % 2) }));

  it('are the same again, hold their mean within their range, and share out the lead', () => {
    const [a, b] = [0, 1].map(() => drawn(causes, odds, seen, features, new Map(), JUDGEMENT.spread)) as [Drawn, Drawn];
    expect([...a.posterior.marginal]).toEqual([...b.posterior.marginal]);
    expect(a.range.leads.reduce((x, y) => x + y, 0)).toBeCloseTo(1, 9);
    causes.forEach((_, i) => {
      expect(a.range.low[i]!).toBeLessThanOrEqual(a.range.high[i]! + 1e-12);
      expect(a.posterior.marginal[i]!).toBeGreaterThanOrEqual(0);
    });
    expect(a.posterior.probability.reduce((x, y) => x + y, 0)).toBeCloseTo(1, 6);
  });

  it('are the table itself where nothing is drawn', () => {
    const still = drawn(causes, odds, seen, features, new Map(), { strength: 0, leak: 0, odds: 0 });
    const table = posterior(causes, odds, seen, features);
    causes.forEach((_, i) => {
      expect(Math.abs(still.posterior.marginal[i]! - table.marginal[i]!)).toBeLessThan(0.02);
      expect(still.range.high[i]! - still.range.low[i]!).toBeLessThan(1e-9);
    });
  });

  it('leave a range of more than nothing where anything was seen', () => {
    const { range, posterior: post } = drawn(causes, odds, seen, features, new Map(), JUDGEMENT.spread);
    const lead = [...post.marginal.keys()].reduce((best, i) => (post.marginal[i]! > post.marginal[best]! ? i : best), 0);
    expect(range.high[lead]! - range.low[lead]!).toBeGreaterThan(0.005);
  });
});

describe('a neutral sight', () => {
  it('never weighs more than one of the patterns it may be', () => {
    const causes = CAUSES.filter((c) => !c.unlisted);
    const child: Feature = features.get('seen.journal-heat') ?? FEATURES.find((f) => f.id === 'seen.journal-heat')!;
    const other = FEATURES.find((f) => f.id === 'seen.journal-transfer')!;
    const sight: Feature = { ...child, id: 'seen.sight-dark.journal', leak: 0.25, of: [child.id, other.id], shows: 0.7 };
    for (const c of causes) {
      const ratio = (f: Feature): number => {
        const post = posterior([c], [1], [{ feature: f.id, ifPresent: 1, ifAbsent: 0 }], new Map([[f.id, f]]));
        return post.marginal[0]!;
      };
      expect(ratio(sight)).toBeLessThanOrEqual(Math.max(ratio({ ...child }), ratio({ ...other })) + 1e-9);
    }
  });
});
