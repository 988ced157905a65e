import { marginalsAfter } from './joint.js';
import { featureRow, probabilityBySingle, steady, type Observation, type Posterior } from './model.js';
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
  const second = indexOfMax(post.marginal.map((m, i) => (i === lead ? -1 : m)));
  let best: (TurningPoint & { fall: number }) | null = null;
  for (const o of post.weighed) {
    const f = features.get(o.feature)!;
    if (!couldTurn(post, f, o, lead, second)) continue;
    const after = marginalsAfter(post, f, { ifPresent: o.ifAbsent, ifAbsent: o.ifPresent }, o);
    const now = indexOfMax(after);
    const fall = post.marginal[lead]! - after[lead]!;
    if (now !== lead && after[now]! >= WORTH_SAYING && (!best || steady(fall) > steady(best.fall)))
      best = { feature: f.id, name: f.name, wouldLead: post.causes[now]!.name, probability: after[now]!, fall };
  }
  if (!best) return null;
  const { fall: _fall, ...point } = best;
  return point;
}

/** How much likelier the contrary is than what was observed, under a set that shows the feature with chance `q`. */
const reversed = (q: number, o: Observation): number =>
  Math.max(1e-12, q * o.ifAbsent + (1 - q) * o.ifPresent) / Math.max(1e-12, q * o.ifPresent + (1 - q) * o.ifAbsent);

/**
 * Can this reversal dethrone the leader at all? No cause gains more than the largest ratio and the leader loses no more than the smallest, over every set of three; and one that
 * speaks no louder against the leader alone than against its rivals moves nothing.
 */
function couldTurn(post: Posterior, f: Feature, o: Observation, lead: number, second: number): boolean {
  const row = featureRow(f, post.causes);
  const three = (values: Float64Array): number => {
    const [a = 1, b = 1, c = 1] = Array.from(row.touched, (i) => values[i]!).sort((x, y) => x - y);
    return Math.min(1, a) * Math.min(1, b) * Math.min(1, c);
  };
  const ends = [reversed(f.leak * three(row.spare) * three(row.allow), o), reversed(1 - (1 - f.leak) * three(row.keep), o)];
  if (Math.max(...ends) * post.marginal[second]! < Math.min(...ends) * post.marginal[lead]!) return false;
  const alone = probabilityBySingle(f, post.causes);
  const least = reversed(alone[lead]!, o) * 1.05;
  return alone.some((q, i) => i !== lead && reversed(q, o) > least);
}

function indexOfMax(values: Float64Array): number {
  let best = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! > values[best]!) best = i;
  return best;
}
