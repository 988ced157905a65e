import { marginalsAfter } from './joint.js';
import { probabilityBySingle, type Observation, type Posterior } from './model.js';
import type { Feature } from './types.js';

/** The one observation whose reversal would put another cause in the lead. */
export interface TurningPoint {
  readonly feature: string;
  readonly name: string;
  readonly wouldLead: string;
  readonly probability: number;
}

/** A cause that would lead with less than this does not lead. */
const WORTH_SAYING = 0.1;

/** Reverses every weighed observation in turn and reports the reversal that costs the leader most, if any dethrones it. */
export function turningPoint(post: Posterior, features: ReadonlyMap<string, Feature>): TurningPoint | null {
  const lead = indexOfMax(post.marginal);
  let best: (TurningPoint & { fall: number }) | null = null;
  for (const o of post.weighed) {
    const f = features.get(o.feature)!;
    if (!couldTurn(post, f, o, lead)) continue;
    const after = marginalsAfter(post, f, { ifPresent: o.ifAbsent, ifAbsent: o.ifPresent }, o, WORTH_SAYING);
    const now = indexOfMax(after);
    const fall = post.marginal[lead]! - after[lead]!;
    if (now !== lead && after[now]! >= WORTH_SAYING && (!best || fall > best.fall))
      best = { feature: f.id, name: f.name, wouldLead: post.causes[now]!.name, probability: after[now]!, fall };
  }
  if (!best) return null;
  const { fall: _fall, ...point } = best;
  return point;
}

/** How much likelier the contrary is than what was observed, under a set that shows the feature with chance `q`. */
const reversed = (q: number, o: Observation): number =>
  Math.max(1e-12, q * o.ifAbsent + (1 - q) * o.ifPresent) / Math.max(1e-12, q * o.ifPresent + (1 - q) * o.ifAbsent);

/** A reversal that speaks no louder against the leader alone than against its rivals cannot dethrone it; such features are passed over. */
function couldTurn(post: Posterior, f: Feature, o: Observation, lead: number): boolean {
  const alone = probabilityBySingle(f, post.causes);
  const least = reversed(alone[lead]!, o) * 1.05;
  return alone.some((q, i) => i !== lead && reversed(q, o) > least);
}

function indexOfMax(values: Float64Array): number {
  let best = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! > values[best]!) best = i;
  return best;
}
