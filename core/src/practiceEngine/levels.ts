/** What a level of the practice engine asks: on which engines, how many causes and of what kind, how much of what is found has nothing to do with them, and how far the owner can be believed. */
export interface PracticeLevel {
  readonly level: number;
  readonly name: string;
  /** Templates it draws from. */
  readonly engines: readonly string[];
  /** How many causes, one of these. */
  readonly causes: readonly number[];
  /** Causes or families of causes it draws from; null: any. */
  readonly from: readonly string[] | null;
  /** Damage that has nothing to do with the causes, as a share of what the table expects. */
  readonly stray: number;
  /** Chance that something the owner says of his engine is not so. */
  readonly untrue: number;
  /** Places that were altered or gone before it came. */
  readonly goneBefore: number;
}

const FOUR = ['inline-4-petrol', 'inline-4-diesel', 'inline-3-diesel'] as const;
const LARGER = [...FOUR, 'inline-6-diesel', 'vee-8-petrol', 'flat-4-petrol', 'vee-6-60-petrol'] as const;
const SMALL = ['single-splash', 'twin-premix', 'single-premix', 'outboard-twin'] as const;

const level = (
  n: number,
  name: string,
  engines: readonly string[],
  causes: readonly number[],
  from: readonly string[] | null,
  stray: number,
  untrue: number,
  goneBefore = 0,
): PracticeLevel => ({ level: n, name, engines, causes, from, stray, untrue, goneBefore });

/** The ten levels, from one bearing that ran dry to a survey engine with six faults. Judgement. */
export const PRACTICE_LEVELS: readonly PracticeLevel[] = [
  level(1, 'One bearing gone', ['inline-4-petrol'], [1], ['local-feed', 'loose-crush', 'oil-low'], 0.1, 0),
  level(2, 'Oil did not come', ['inline-4-petrol', 'inline-3-diesel'], [1], ['Oil supply'], 0.2, 0),
  level(3, 'What was in the oil', FOUR, [1], ['Oil supply', 'Oil quality'], 0.4, 0.05),
  level(4, 'Heat and fire', FOUR, [1], ['Heat', 'Combustion', 'Oil supply'], 0.5, 0.1),
  level(5, 'Somebody was inside', FOUR, [1], ['Assembly', 'Form or material', 'Load'], 0.6, 0.1),
  level(6, 'Small engines', SMALL, [1], null, 0.8, 0.15),
  level(7, 'Anything, or nothing', LARGER, [0, 1, 1, 1, 1], null, 1, 0.15),
  level(8, 'Two at once', LARGER, [2], null, 1, 0.2),
  level(9, 'Apart before it came', LARGER, [1, 2], null, 1, 0.25, 6),
  level(10, 'Survey of an old engine', LARGER, [6], null, 1.2, 0.25, 4),
];

/** The record of a level; undefined for one there is not. */
export const practiceLevel = (n: number): PracticeLevel | undefined => PRACTICE_LEVELS.find((l) => l.level === n);
