import fc from 'fast-check';
import { checkEntry } from '../gate/admit.js';
import { emptyCase } from '../ledger/state.js';
import { entryWords, slotOf } from './entries.js';
import { ENTRY_DEFINITIONS } from './registry.js';

// What holds for the schema of every kind of entry, whatever is sent.
/** The same runs each time; `FUZZ_SEED` and `FUZZ_RUNS` make others. */
const RUNS = { numRuns: Number(process.env['FUZZ_RUNS'] ?? 60), seed: Number(process.env['FUZZ_SEED'] ?? 20261130) };
const each = ENTRY_DEFINITIONS.map((d) => [d.kind, d] as const);

/** Something after the members of a schema: right names, now and then right values. */
function near(definition: (typeof ENTRY_DEFINITIONS)[number]): fc.Arbitrary<object> {
  const keys = (definition.body.describe() as { keys?: Record<string, { type?: string; allow?: unknown[] }> }).keys ?? {};
  const value = (s: { type?: string; allow?: unknown[] }): fc.Arbitrary<unknown> =>
    fc.oneof(
      {
        weight: 3,
        arbitrary:
          s.allow && s.allow.length > 0 ? fc.constantFrom(...s.allow.filter((a) => typeof a !== 'object' || a === null)) : fc.constant('a'),
      },
      {
        weight: 3,
        arbitrary:
          s.type === 'number' ? fc.integer({ min: -2, max: 9 }) : s.type === 'boolean' ? fc.boolean() : fc.string({ maxLength: 12 }),
      },
      { weight: 1, arbitrary: fc.jsonValue({ maxDepth: 2 }) as fc.Arbitrary<unknown> },
      { weight: 1, arbitrary: fc.constantFrom('\u0000', '\ud800', '__proto__', NaN, Infinity, -0, 1e308, [], {}) },
    );
  return fc.record(Object.fromEntries(Object.entries(keys).map(([k, s]) => [k, value(s)])), { requiredKeys: [] });
}

describe.each(each)('%s', (_, definition) => {
  it('lets through only what it lets through again, unchanged, and names the field of what it refuses', () =>
    fc.assert(
      fc.property(near(definition), (body) => {
        const first = definition.body.validate(body, { convert: false });
        if (first.error) return expect(first.error.message.length).toBeGreaterThan(5);
        const again = definition.body.validate(first.value, { convert: false });
        expect(again.error).toBeUndefined();
        expect(again.value).toEqual(first.value);
        // What went through the wire is the same still.
        expect(definition.body.validate(JSON.parse(JSON.stringify(first.value)), { convert: false }).error).toBeUndefined();
      }),
      RUNS,
    ));

  it('has a field, words and an answer of the gate for all it lets through, and falls over nothing', () =>
    fc.assert(
      fc.property(
        fc.oneof(near(definition), fc.anything() as fc.Arbitrary<object>),
        fc.constantFrom(null, 'bore.1', '__proto__', ''),
        (body, station) => {
          const answer = checkEntry(definition.kind, station, body, emptyCase('c'));
          if (!answer.ok) return expect(answer.problem.sentence).toMatch(/[.?]$/);
          expect(slotOf(definition.kind, answer.value).length).toBeGreaterThan(0);
          expect(typeof entryWords(definition.kind, answer.value)).toBe('string');
        },
      ),
      RUNS,
    ));
});
