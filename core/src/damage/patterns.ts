import type { PartClass } from '../engine/stations.js';
import { BORE_PATTERNS, CROWN_PATTERNS, PISTON_PATTERNS, RING_PATTERNS, ROD_PATTERNS } from './catalogue/cylinders.js';
import { HEAD_PATTERNS, VALVE_PATTERNS } from './catalogue/headAndValves.js';
import { DEBRIS_PATTERNS, FASTENER_PATTERNS, OIL_PATTERNS } from './catalogue/oilAndFasteners.js';
import { JOURNAL_PATTERNS, ROLLING_PATTERNS, SHELL_PATTERNS, THRUST_PATTERNS } from './catalogue/shells.js';
import type { DamagePattern, PatternFact } from './catalogue/record.js';

export type { DamagePattern } from './catalogue/record.js';

/** Every damage pattern that can be named, by family of parts. */
export const PATTERNS: readonly DamagePattern[] = [
  ...SHELL_PATTERNS,
  ...THRUST_PATTERNS,
  ...ROLLING_PATTERNS,
  ...JOURNAL_PATTERNS,
  ...PISTON_PATTERNS,
  ...CROWN_PATTERNS,
  ...ROD_PATTERNS,
  ...RING_PATTERNS,
  ...BORE_PATTERNS,
  ...HEAD_PATTERNS,
  ...VALVE_PATTERNS,
  ...OIL_PATTERNS,
  ...DEBRIS_PATTERNS,
  ...FASTENER_PATTERNS,
];

const byId = new Map(PATTERNS.map((p) => [p.id, p]));

/** The record of a damage pattern by its id; undefined for an id of another version. */
export function pattern(id: string): DamagePattern | undefined {
  return byId.get(id);
}

/** Does the record of a pattern tell this of it? False for a pattern nobody knows. */
export function tells(id: string, fact: PatternFact): boolean {
  return byId.get(id)?.facts.includes(fact) ?? false;
}

/** Patterns that can show on a part of this class, in the order of the catalogue. */
export function patternsFor(part: PartClass): DamagePattern[] {
  return PATTERNS.filter((entry) => entry.parts.includes(part));
}

/** Does every word of a search stand somewhere in what a pattern is called, looks like, or lies on? */
export function patternFound(p: DamagePattern, search: string, partName: (part: PartClass) => string): boolean {
  const words = [p.name, p.look, ...p.alsoCalled, ...p.parts.map(partName)].join(' ').toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => words.includes(word));
}

/** The look-alikes of a pattern in one paragraph. */
export function toldApart(p: DamagePattern): string {
  return p.lookAlikes.map((l) => `From ${(byId.get(l.pattern)?.name ?? l.pattern).toLowerCase()}: ${l.decides}`).join(' ');
}

/** Is the first of two patterns mistaken for the second, by its own record? */
export function takenFor(a: string, b: string): boolean {
  return byId.get(a)?.lookAlikes.some((l) => l.pattern === b) ?? false;
}

/** The observation that decides between two patterns, if either record states one. */
export function decidingObservation(a: string, b: string): string | null {
  return (
    byId.get(a)?.lookAlikes.find((l) => l.pattern === b)?.decides ?? byId.get(b)?.lookAlikes.find((l) => l.pattern === a)?.decides ?? null
  );
}
