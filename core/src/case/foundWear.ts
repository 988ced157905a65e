import { canonicalJson, sha256Hex } from '../kit/hash.js';
import { bearingsOf } from '../engine/bearings.js';
import type { FoundWear } from '../running/explain.js';
import type { FoundHurt } from '../running/explainFaults.js';
import { isExamined, standingGrade, type CaseView } from './views.js';

const HALVES = ['upper', 'lower'] as const;

/** What was read of the halves of a bearing: share not sound of what was seen, and share seen, cell by cell. */
export function foundWear(view: CaseView, bearing: string): FoundWear {
  const of = (half: 'upper' | 'lower') => {
    const wear = view.byId.get(`${bearing}.shell.${half}`)?.wear;
    return wear ? { [half]: { worn: Float64Array.from(wear.shares.sound, (s) => 1 - s), seen: wear.seen } } : {};
  };
  return { ...of('upper'), ...of('lower') };
}

/** SHA-256 of what the found wear of a bearing follows from. */
export const foundWearOf = (view: CaseView, bearing: string): string =>
  sha256Hex(
    canonicalJson(
      HALVES.map((half) => {
        const station = view.byId.get(`${bearing}.shell.${half}`);
        return station ? [...station.reads, ...station.marks].map((held) => held.version.entry).sort() : [];
      }),
    ),
  );

/** Bearings that were looked at, with the worst grade of their halves as a share of the worst there is. */
export const foundHurt = (view: CaseView): FoundHurt =>
  new Map(
    bearingsOf(view.layout).flatMap((bearing) => {
      const grades = HALVES.flatMap((half) => {
        const station = view.byId.get(`${bearing}.shell.${half}`);
        return station && isExamined(station) ? (standingGrade(station) ?? []) : [];
      });
      return grades.length === 0 ? [] : [[bearing, Math.max(...grades) / 4] as const];
    }),
  );
