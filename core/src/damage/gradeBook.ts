import Joi from 'joi';
import type { PartClass } from '../engine/stations.js';
import type { ShellConstruction } from '../engine/layout.js';
import { gradeText, WEAR_CLASS_INFO, WEAR_CLASSES, type Grade, type WearClass } from './classes.js';
import { LINE_DEPTHS, type LineDepth, type WearSummary } from './wearMap.js';

/** One threshold: above `above` percent (or lines) of a thing, the grade is at least `grade`. */
export interface GradeRule {
  readonly parts: readonly PartClass[];
  readonly on:
    | { readonly kind: 'area'; readonly class: WearClass }
    | { readonly kind: 'lines'; readonly depth: LineDepth }
    | { readonly kind: 'arc'; readonly class: WearClass };
  readonly above: number;
  readonly grade: Grade;
  /** Shell constructions the rule holds for; all when absent. */
  readonly constructions?: readonly ShellConstruction[];
}

/** A version of the rules by which grades are proposed. A grade records the version it was proposed by. */
export interface GradeBook {
  readonly version: string;
  readonly rules: readonly GradeRule[];
}

/** Parts the book grades from what is seen. */
export const GRADED_PARTS = ['shell', 'thrust', 'journal', 'bore', 'skirt', 'crown'] as const satisfies readonly PartClass[];
const SHELL_KINDS: readonly ShellConstruction[] = ['trimetal', 'coated', 'aluminium-bimetal', 'bush', 'unknown'];

/**
 * Rules of a grade book: shares in percent, counts of lines. For one part and one thing a higher grade needs a higher threshold, so that no rule is without effect.
 */
export const gradeRulesSchema = Joi.array()
  .min(1)
  .max(300)
  .items(
    Joi.object({
      parts: Joi.array()
        .items(Joi.string().valid(...GRADED_PARTS))
        .min(1)
        .unique()
        .required(),
      on: Joi.alternatives(
        Joi.object({
          kind: Joi.string().valid('area', 'arc').required(),
          class: Joi.string()
            .valid(...WEAR_CLASSES)
            .required(),
        }),
        Joi.object({
          kind: Joi.string().valid('lines').required(),
          depth: Joi.string()
            .valid(...LINE_DEPTHS)
            .required(),
        }),
      ).required(),
      above: Joi.number().min(0).max(100).required(),
      grade: Joi.number().integer().min(0).max(4).required(),
      constructions: Joi.array().items(Joi.string().valid(...SHELL_KINDS)),
    }),
  )
  .custom((rules: readonly GradeRule[], helpers) => {
    const fault = contradiction(rules);
    return fault ? helpers.message({ custom: fault }) : rules;
  });

/** First pair of rules of which one can never matter, in words; null for a sound book. */
export function contradiction(rules: readonly GradeRule[]): string | null {
  for (const [i, a] of rules.entries())
    for (const b of rules.slice(i + 1)) {
      const part = a.parts.find((p) => b.parts.includes(p));
      const sameShells = JSON.stringify(a.constructions ?? null) === JSON.stringify(b.constructions ?? null);
      if (!part || !sameShells || JSON.stringify(a.on) !== JSON.stringify(b.on) || a.grade === b.grade) continue;
      const [low, high] = a.grade < b.grade ? [a, b] : [b, a];
      if (low.above >= high.above)
        return `On ${part}, ${thing(high)}: grade ${high.grade} begins at ${high.above}, grade ${low.grade} only at ${low.above}. A higher grade needs a higher threshold.`;
    }
  return null;
}

/** What a rule looks at, in words. */
export function thing(rule: GradeRule): string {
  if (rule.on.kind === 'lines') return `number of ${DEPTH_WORDS[rule.on.depth].replace('line', 'lines').replace('catches', 'catch')}`;
  return `${WEAR_CLASS_INFO[rule.on.class].name.toLowerCase()}, ${rule.on.kind === 'arc' ? 'percent of the arc' : 'percent of the face'}`;
}

const COPPER: readonly ShellConstruction[] = ['trimetal', 'coated', 'bush', 'unknown'];
const area = (
  parts: PartClass[],
  cls: WearClass,
  steps: ReadonlyArray<readonly [number, Grade]>,
  constructions?: readonly ShellConstruction[],
): GradeRule[] =>
  steps.map(([above, grade]) => ({ parts, on: { kind: 'area', class: cls }, above, grade, ...(constructions ? { constructions } : {}) }));
const lines = (parts: PartClass[], depth: LineDepth, grade: Grade): GradeRule => ({ parts, on: { kind: 'lines', depth }, above: 0, grade });

/**
 * The shipped grade book. Lining thresholds 1 / 10 / 50 % and scuff thresholds 5 / 20 % of the arc follow the five-grade definitions in
 * `docs/methods/grades.md`. On an aluminium bimetal shell no copper shows, so smear (scuffed), line depth and steel decide.
 */
export const GRADE_BOOK: GradeBook = {
  version: '1',
  rules: [
    ...area(['shell', 'thrust'], 'polished', [[2, 1]]),
    ...area(
      ['shell', 'thrust'],
      'lining',
      [
        [0, 1],
        [1, 2],
        [10, 3],
        [50, 4],
      ],
      COPPER,
    ),
    ...area(['shell', 'thrust'], 'scuffed', [
      [0, 1],
      [1, 2],
      [10, 3],
      [50, 4],
    ]),
    ...area(['shell', 'thrust'], 'steel', [
      [0.2, 3],
      [15, 4],
    ]),
    ...area(['shell', 'journal', 'thrust'], 'heat', [
      [0.5, 2],
      [5, 3],
    ]),
    ...area(['shell', 'thrust'], 'rust', [
      [0, 1],
      [0.5, 2],
      [3, 3],
    ]),
    ...area(['shell', 'thrust'], 'embedded', [
      [0, 1],
      [0.3, 2],
      [15, 3],
    ]),
    ...area(['shell', 'bore', 'skirt', 'crown'], 'missing', [
      [0, 2],
      [3, 3],
      [20, 4],
    ]),
    lines(['shell', 'journal', 'bore', 'skirt', 'thrust'], 'hair', 1),
    lines(['shell', 'journal', 'bore', 'skirt', 'thrust'], 'probe', 2),
    lines(['shell', 'thrust'], 'nail', 2),
    lines(['journal', 'bore', 'skirt'], 'nail', 3),
    lines(['shell', 'journal', 'thrust'], 'through', 3),
    ...area(['journal'], 'heat', [[60, 4]]),
    ...area(['journal'], 'transfer', [
      [0.3, 3],
      [40, 4],
    ]),
    ...area(['journal'], 'rust', [
      [0, 1],
      [1, 2],
      [8, 3],
    ]),
    ...area(['journal'], 'scuffed', [
      [0.5, 2],
      [5, 3],
      [50, 4],
    ]),
    ...(['scuffed', 'transfer'] as const).flatMap((cls): GradeRule[] =>
      (
        [
          [0, 1],
          [5, 2],
          [20, 3],
          [75, 4],
        ] as const
      ).map(([above, grade]) => ({ parts: ['bore', 'skirt'], on: { kind: 'arc', class: cls }, above, grade })),
    ),
    ...area(['bore'], 'rust', [
      [0, 1],
      [1, 2],
      [6, 3],
    ]),
    ...area(['bore', 'skirt'], 'heat', [
      [1, 2],
      [10, 3],
    ]),
    ...area(['bore', 'skirt'], 'polished', [
      [10, 1],
      [50, 2],
    ]),
    ...area(['crown'], 'deposit', [[20, 1]]),
    ...area(['crown'], 'heat', [
      [5, 2],
      [30, 3],
    ]),
  ],
};

export interface GradeProposal {
  readonly grade: Grade;
  readonly reason: string;
  readonly bookVersion: string;
}

const DEPTH_WORDS: Readonly<Record<LineDepth, string>> = {
  hair: 'hair line',
  probe: 'line felt with a probe',
  nail: 'line that catches the nail',
  through: 'line through to the lining',
};

/** Proposes a grade from a wear summary and says why: the rule that decides, with its figure and, for shells, the edge it lies at. */
export function proposeGrade(
  part: PartClass,
  construction: ShellConstruction,
  wear: WearSummary,
  book: GradeBook = GRADE_BOOK,
): GradeProposal {
  let best: { grade: Grade; words: string } = { grade: 0, words: 'nothing marked on what was seen' };
  for (const rule of book.rules) {
    if (
      !rule.parts.includes(part) ||
      ((part === 'shell' || part === 'thrust') && rule.constructions && !rule.constructions.includes(construction))
    )
      continue;
    const value =
      rule.on.kind === 'lines'
        ? wear.lines[rule.on.depth]
        : rule.on.kind === 'area'
          ? wear.percent[rule.on.class]
          : wear.percent[rule.on.class] > 0
            ? wear.arcShare * 100
            : 0;
    if (value > rule.above && rule.grade > best.grade) best = { grade: rule.grade, words: words(rule, value) };
  }
  const edge = part === 'shell' && best.grade >= 2 ? edgeWords(wear) : '';
  const unseen = wear.seenPercent < 99.5 ? `; ${(100 - wear.seenPercent).toFixed(0)} % not seen` : '';
  return { grade: best.grade, reason: `${best.words}${edge}${unseen} → ${gradeText(best.grade)}`, bookVersion: book.version };
}

function words(rule: GradeRule, value: number): string {
  if (rule.on.kind === 'lines')
    return `${value} ${value > 1 ? DEPTH_WORDS[rule.on.depth].replace('line', 'lines') : DEPTH_WORDS[rule.on.depth]}`;
  const name = WEAR_CLASS_INFO[rule.on.class].name.toLowerCase();
  const figure = value < 10 ? value.toFixed(1) : value.toFixed(0);
  return rule.on.kind === 'arc' ? `${name} over ${figure} % of the arc` : `${name} on ${figure} % of the face`;
}

function edgeWords(wear: WearSummary): string {
  if (wear.edgeBias === null) return '';
  if (wear.edgeShare.rear > 0.6) return `, ${(wear.edgeShare.rear * 100).toFixed(0)} % of it in the quarter at the rear edge`;
  if (wear.edgeShare.front > 0.6) return `, ${(wear.edgeShare.front * 100).toFixed(0)} % of it in the quarter at the front edge`;
  return '';
}
