import { STRENGTH, type Cause, type Feature } from './types.js';

/**
 * Faults of a cause table in words, naming the record: a strength that is missing or out of range, a feature that is not known or that no step can show, a cause with too few
 * features or with none that tells it from its nearest rival.
 */
export function causeTableFaults(causes: readonly Cause[], features: readonly Feature[]): string[] {
  const faults: string[] = [];
  const known = new Map(features.map((f) => [f.id, f]));
  for (const f of features) {
    if (!(f.leak > 0 && f.leak < 1)) faults.push(`Feature "${f.id}": leak ${f.leak} is outside 0–1.`);
    if (f.leakReason.trim() === '') faults.push(`Feature "${f.id}": its leak has no reason.`);
    for (const id of f.voids ?? []) if (!known.has(id)) faults.push(`Feature "${f.id}" voids "${id}", which is not in the table.`);
    if (f.check.step.trim() === '' || !(f.check.minutes > 0)) faults.push(`Feature "${f.id}" is observable by no step.`);
  }
  for (const c of causes) {
    if (!(c.priorOdds > 0 && c.priorOdds < 10)) faults.push(`Cause "${c.id}": prior odds ${c.priorOdds} are outside 0–10.`);
    if (c.mechanisms.length === 0) faults.push(`Cause "${c.id}" names no mechanism.`);
    if (c.links.length < 5) faults.push(`Cause "${c.id}" has ${c.links.length} features; five are the least.`);
    for (const list of [c.links, ...Object.values(c.linksFor ?? {})]) {
      const twice = list.find((l, i) => list.some((x, k) => k < i && x.feature === l.feature));
      if (twice) faults.push(`Cause "${c.id}" names feature "${twice.feature}" twice.`);
    }
    for (const l of [...c.links, ...Object.values(c.linksFor ?? {}).flat()]) {
      if (!known.has(l.feature)) faults.push(`Cause "${c.id}" names feature "${l.feature}", which is not in the table.`);
      const w = STRENGTH[l.strength] as number | undefined;
      if (w === undefined || !(w > 0 && w < 1))
        faults.push(`Cause "${c.id}", feature "${l.feature}": strength "${String(l.strength)}" is missing or out of range.`);
      if (l.reason.trim() === '') faults.push(`Cause "${c.id}", feature "${l.feature}": no reason.`);
    }
  }
  for (const c of causes) {
    if (c.unlisted) continue;
    const rival = nearestRival(c, causes);
    if (rival && rival.apart < 0.3) faults.push(`Cause "${c.id}" has no feature that tells it from "${rival.cause.id}".`);
  }
  return faults;
}

/** The cause whose links are most like those of another, and the greatest difference between them in the chance of one feature. */
function nearestRival(c: Cause, causes: readonly Cause[]): { readonly cause: Cause; readonly apart: number } | null {
  let best: { cause: Cause; apart: number; sum: number } | null = null;
  for (const other of causes) {
    if (other === c || other.unlisted) continue;
    const features = new Set([...c.links, ...other.links].map((l) => l.feature));
    let sum = 0;
    let apart = 0;
    for (const f of features) {
      const d = Math.abs(signed(c, f) - signed(other, f));
      sum += d * d;
      apart = Math.max(apart, d);
    }
    if (!best || sum < best.sum) best = { cause: other, apart, sum };
  }
  return best;
}

function signed(c: Cause, feature: string): number {
  const l = c.links.find((x) => x.feature === feature);
  return l ? (l.prevents ? -1 : 1) * (STRENGTH[l.strength] ?? 0) : 0;
}
