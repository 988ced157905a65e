import type { WearMap } from '../../damage/wearMap.js';

/** Damage of a whole turn by arc: whether one side is good and the other destroyed. */
export interface ArcOfDamage {
  /** Shortest arc that holds nine tenths of the damage, degrees; it may run over 360. */
  readonly fromDeg: number;
  readonly toDeg: number;
  /** Damage inside it and outside it, percent of the surface there. */
  readonly insidePercent: number;
  readonly outsidePercent: number;
}

/** Where along the arc the damage lies; null for none. */
export function arcOfDamage(map: WearMap): ArcOfDamage | null {
  const by = Array.from({ length: map.columns }, (_, c) => {
    let [damage, seen] = [0, 0];
    for (let r = 0; r < map.rows; r++) {
      const cell = r * map.columns + c;
      seen += map.seen[cell]!;
      damage += map.seen[cell]! * (1 - map.shares.sound[cell]!);
    }
    return { damage, seen };
  });
  const all = by.reduce((s, c) => s + c.damage, 0);
  if (all < 0.002 * by.reduce((s, c) => s + c.seen, 0)) return null;
  const sum = (from: number, length: number, key: 'damage' | 'seen'): number => {
    let s = 0;
    for (let k = 0; k < length; k++) s += by[(from + k) % map.columns]![key];
    return s;
  };
  for (let length = 1; length <= map.columns; length++)
    for (let from = 0; from < map.columns; from++) {
      const inside = sum(from, length, 'damage');
      if (inside < 0.9 * all) continue;
      const [seenIn, seenOut] = [sum(from, length, 'seen'), sum(from + length, map.columns - length, 'seen')];
      const deg = 360 / map.columns;
      return {
        fromDeg: from * deg,
        toDeg: (from + length) * deg,
        insidePercent: (100 * inside) / Math.max(1e-6, seenIn),
        outsidePercent: seenOut > 0 ? (100 * (all - inside)) / seenOut : 0,
      };
    }
  return null;
}
