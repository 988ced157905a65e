import { contradiction, GRADE_BOOK, GRADED_PARTS, gradeRulesSchema, thing, type GradeRule } from './gradeBook.js';

// A book of thresholds: no rule without effect, whoever wrote it.
const rule = (more: Partial<GradeRule> = {}): GradeRule => ({
  parts: ['shell'],
  on: { kind: 'area', class: 'lining' },
  above: 1,
  grade: 2,
  ...more,
});

describe('the grade book', () => {
  it('as shipped contradicts itself nowhere, and has a rule for every part it grades', () => {
    expect(contradiction(GRADE_BOOK.rules)).toBeNull();
    expect(gradeRulesSchema.validate(GRADE_BOOK.rules).error).toBeUndefined();
    for (const part of GRADED_PARTS) expect(GRADE_BOOK.rules.some((r) => r.parts.includes(part))).toBe(true);
  });

  it.each<[what: string, other: GradeRule, words: RegExp | null]>([
    [
      'a worse grade that begins lower',
      rule({ grade: 3, above: 0.5 }),
      /On shell, lining exposed, percent of the face: grade 3 begins at 0.5, grade 2 only at 1\./,
    ],
    ['a worse grade that begins at the same', rule({ grade: 3, above: 1 }), /A higher grade needs a higher threshold/],
    ['a better grade that begins higher', rule({ grade: 1, above: 2 }), /grade 2 begins at 1, grade 1 only at 2/],
    ['a worse grade that begins higher', rule({ grade: 3, above: 10 }), null],
    ['the same grade twice', rule({ above: 5 }), null],
    ['another part', rule({ parts: ['bore'], grade: 3, above: 0.5 }), null],
    ['another thing', rule({ on: { kind: 'area', class: 'heat' }, grade: 3, above: 0.5 }), null],
    ['the arc instead of the face', rule({ on: { kind: 'arc', class: 'lining' }, grade: 3, above: 0.5 }), null],
    ['shells of one construction only', rule({ constructions: ['coated'], grade: 3, above: 0.5 }), null],
  ])('%s', (_, other, words) => {
    for (const rules of [
      [rule(), other],
      [other, rule()],
    ]) {
      const said = contradiction(rules);
      if (words === null) expect(said).toBeNull();
      else expect(said).toMatch(words);
      // What the page says and what the server refuses is one sentence.
      expect(gradeRulesSchema.validate(rules).error?.message ?? null).toBe(said);
    }
  });

  it('says what a rule looks at', () => {
    expect(thing(rule())).toBe('lining exposed, percent of the face');
    expect(thing(rule({ on: { kind: 'arc', class: 'scuffed' } }))).toMatch(/, percent of the arc$/);
    expect(thing(rule({ on: { kind: 'lines', depth: 'nail' } }))).toMatch(/^number of .*lines/);
  });

  it.each([
    ['no rule at all', []],
    ['a part twice', [rule({ parts: ['shell', 'shell'] })]],
    ['a share over a hundred', [rule({ above: 101 })]],
    ['a grade of five', [rule({ grade: 5 as never })]],
    ['a class nobody knows', [rule({ on: { kind: 'area', class: 'curse' as never } })]],
    ['lines of an area', [rule({ on: { kind: 'lines', class: 'lining' } as never })]],
  ])('refuses %s', (_, rules) => expect(gradeRulesSchema.validate(rules).error).toBeDefined());
});
