import { isExamined, namedPatterns, standingGrade, type CaseView, type StationView } from '../case/views.js';
import type { Judgement } from '../cause/judgement.js';
import type { Feature } from '../cause/types.js';
import { pattern, PATTERNS, takenFor } from '../damage/patterns.js';
import type { EvidenceItem, Put } from './evidenceItem.js';

/** Share of a part class that must have been looked at before "none of it" is evidence. */
const ABSENCE_COVERAGE = 0.6;

/**
 * A seen feature of which nobody spoke. Looked for by name and not there, it is denied. Else it is a silence, once most of its parts were examined and no finding among them is still
 * unnamed; how much a silence says falls with the share of places that nobody looked at, where the sight may be.
 */
export function absences(
  view: CaseView,
  features: readonly Feature[],
  items: ReadonlyMap<string, EvidenceItem>,
  missed: Judgement['missed'],
  put: Put,
): void {
  // Who named a neutral sight, or denied one, spoke of what it may be.
  const spoken = new Set([...items.values()].flatMap((item) => item.feature.of ?? []));
  for (const f of features) {
    if (f.kind !== 'seen' || !f.parts || f.of || items.has(f.id) || spoken.has(f.id)) continue;
    const stations = view.stations.filter((s) => f.parts!.includes(s.station.part) && s.state !== 'not-present');
    if (stations.length === 0) continue;
    const denied = stations.find((s) => s.patterns.some((p) => !p.value.present && pattern(p.value.pattern)?.feature === f.id));
    const examined = stations.filter(isExamined);
    const unnamed = examined.some((s) => (standingGrade(s) ?? 0) >= 2 && !s.patterns.some((p) => p.value.present) && s.marks.length === 0);
    const every = f.parts.every((part) => {
      const all = stations.filter((s) => s.station.part === part);
      return all.length === 0 || all.filter(isExamined).length / all.length >= ABSENCE_COVERAGE;
    });
    if (denied)
      put(f.id, false, 'certain', { station: denied.station.id, entry: null, words: `${denied.station.name}: looked for, not there` });
    else if (every && !unnamed && f.damage) {
      const glanced = examined.every(onlyMarkedSound);
      put(
        f.id,
        false,
        'silent',
        {
          station: examined[0]?.station.id ?? null,
          entry: null,
          words: glanced
            ? `${examined.length} of ${stations.length} places looked at, nothing struck the eye`
            : `${examined.length} of ${stations.length} places examined, none named it`,
        },
        { missed: missedChance(f, examined, stations.length, glanced, missed) },
      );
    }
  }
}

/** Chance that a sight is there although none of the examined places was said to show it. */
function missedChance(f: Feature, examined: readonly StationView[], places: number, glanced: boolean, missed: Judgement['missed']): number {
  const own = PATTERNS.filter((p) => p.feature === f.id).map((p) => p.id);
  const takenForIt = (id: string): boolean => own.some((o) => takenFor(o, id)) || own.some((o) => takenFor(id, o));
  const silent = Math.max(
    glanced ? missed.glanced : missed.examined,
    examined.some((s) => namedPatterns(s).some(takenForIt)) ? missed.lookAlike : 0,
    examined.some((s) => standingGrade(s) === 4) ? missed.destroyed : 0,
  );
  return 1 - (examined.length / places) * (1 - silent);
}

/** How an absence reads: one that was looked for by name or measured is more than a place of which nobody said it. */
export function absenceWords({ reliability }: Pick<EvidenceItem, 'reliability'>): string {
  if (reliability === 'likened') return 'likened, and unlike';
  return reliability === 'silent' ? 'looked at, not named' : 'looked for, not there';
}

/** Marked sound and nothing else: no grade, no picture that was read, no finding named as absent. */
function onlyMarkedSound(s: StationView): boolean {
  return s.state === 'sound' && !s.grade && s.reads.length === 0 && s.patterns.length === 0 && s.marks.length === 0;
}
