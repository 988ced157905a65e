import { probabilityBySet, type Posterior } from './model.js';
import type { Feature } from './types.js';

/** The one observation whose reversal would put another cause in the lead. */
export interface TurningPoint {
  readonly feature: string;
  readonly name: string;
  readonly wouldLead: string;
  readonly probability: number;
}

/** Reverses every weighed observation in turn and reports the reversal that costs the leader most, if any dethrones it. */
export function turningPoint(post: Posterior, features: ReadonlyMap<string, Feature>): TurningPoint | null {
  const lead = indexOfMax(post.marginal);
  const after = new Float64Array(post.causes.length);
  let best: (TurningPoint & { fall: number }) | null = null;
  for (const o of post.weighed) {
    const f = features.get(o.feature)!;
    const bySet = probabilityBySet(f, post.causes, post.members);
    after.fill(0);
    let total = 0;
    for (let s = 0; s < bySet.length; s++) {
      const q = bySet[s]!;
      const was = Math.max(1e-12, q * o.ifPresent + (1 - q) * o.ifAbsent);
      const weight = (post.probability[s]! * Math.max(1e-12, q * o.ifAbsent + (1 - q) * o.ifPresent)) / was;
      total += weight;
      for (let j = s * 3; j < s * 3 + 3; j++) {
        const m = post.members[j]!;
        if (m < 0) break;
        after[m] = after[m]! + weight;
      }
    }
    if (total <= 0) continue;
    const now = indexOfMax(after);
    const fall = post.marginal[lead]! - after[lead]! / total;
    if (now !== lead && (!best || fall > best.fall))
      best = { feature: f.id, name: f.name, wouldLead: post.causes[now]!.name, probability: after[now]! / total, fall };
  }
  if (!best) return null;
  const { fall: _fall, ...point } = best;
  return point;
}

function indexOfMax(values: Float64Array): number {
  let best = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! > values[best]!) best = i;
  return best;
}
