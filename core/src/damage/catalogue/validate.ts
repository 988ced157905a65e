import type { DamagePattern } from './record.js';

/** Faults of a pattern catalogue in words, naming the record: unknown links, patterns that lead back to themselves, missing texts, ids used twice. */
export function patternFaults(patterns: readonly DamagePattern[], features: ReadonlySet<string>): string[] {
  const faults: string[] = [];
  const byId = new Map(patterns.map((p) => [p.id, p]));
  if (byId.size !== patterns.length) {
    const twice = patterns.filter((p, i) => patterns.findIndex((q) => q.id === p.id) !== i).map((p) => p.id);
    faults.push(`Ids used twice: ${twice.join(', ')}.`);
  }
  for (const p of patterns) {
    for (const [field, words] of Object.entries({ name: p.name, look: p.look, mechanism: p.mechanism, ask: p.ask }))
      if (words.trim().length < 4) faults.push(`Pattern "${p.id}": ${field} is missing.`);
    if (p.parts.length === 0) faults.push(`Pattern "${p.id}" names no part.`);
    if (!features.has(p.feature)) faults.push(`Pattern "${p.id}" sets feature "${p.feature}", which is not in the table.`);
    if (p.lookAlikes.length === 0) faults.push(`Pattern "${p.id}" names nothing it is mistaken for.`);
    for (const l of p.lookAlikes) {
      if (!byId.has(l.pattern)) faults.push(`Pattern "${p.id}" is told apart from "${l.pattern}", which is not in the catalogue.`);
      if (l.decides.trim().length < 8) faults.push(`Pattern "${p.id}": what decides against "${l.pattern}" is missing.`);
    }
    for (const next of p.leadsTo) if (!byId.has(next)) faults.push(`Pattern "${p.id}" leads to "${next}", which is not in the catalogue.`);
  }
  const circle = firstCircle(new Map(patterns.map((p) => [p.id, p.leadsTo])));
  if (circle) faults.push(`Patterns lead back to themselves: ${circle.join(' → ')}.`);
  return faults;
}

/** The first way round a graph that ends where it began, or null. */
export function firstCircle(next: ReadonlyMap<string, readonly string[]>): string[] | null {
  const done = new Set<string>();
  const walk = (id: string, path: readonly string[]): string[] | null => {
    const at = path.indexOf(id);
    if (at >= 0) return [...path.slice(at), id];
    if (done.has(id)) return null;
    for (const to of next.get(id) ?? []) {
      const circle = walk(to, [...path, id]);
      if (circle) return circle;
    }
    done.add(id);
    return null;
  };
  for (const id of next.keys()) {
    const circle = walk(id, []);
    if (circle) return circle;
  }
  return null;
}
