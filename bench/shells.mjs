import { seeded } from '@true-ledger/core/specimen';
import { shotOf } from './sets.mjs';

/** What one specimen shows; every kind in its turn. */
function damagesOf(kind, r) {
  const arc = 50 + 80 * r();
  switch (kind) {
    case 'sound':
      return r() < 0.5 ? [] : [{ kind: 'polish', arc, halfDeg: 30 + 40 * r(), amount: 0.3 + 0.5 * r() }];
    case 'wiping':
      return [{ kind: 'wipe', arc, halfDeg: 8 + 45 * r() ** 1.5, amount: 0.8 + 0.4 * r() }];
    case 'edge': {
      const half = 25 + 45 * r();
      return [
        {
          kind: 'edge',
          edge: r() < 0.5 ? 'front' : 'rear',
          depth: 0.06 + 0.3 * r(),
          fromDeg: Math.max(2, arc - half),
          toDeg: Math.min(178, arc + half),
        },
      ];
    }
    case 'scores': {
      const n = 1 + Math.floor(7 * r());
      return Array.from({ length: n }, (_, k) => {
        const from = 10 + 70 * r();
        return {
          kind: 'score',
          axial: 0.08 + (0.84 * (k + 0.3 + 0.4 * r())) / n,
          fromDeg: from,
          toDeg: Math.min(175, from + 35 + 90 * r()),
          widthMm: r() < 0.2 ? 0.06 + 0.05 * r() : 0.18 + 0.4 * r(),
          through: r() < 0.3,
        };
      });
    }
    case 'fatigue':
      return [{ kind: 'fatigue', arc, halfDeg: 15 + 35 * r(), axial: 0.3 + 0.4 * r(), lost: 0.1 + 0.5 * r() }];
    case 'heat':
      return [{ kind: 'heat', arc: r() < 0.5 ? 10 + 40 * r() : 130 + 40 * r(), halfDeg: 40 + 60 * r(), most: 0.7 + 0.5 * r() }];
    case 'rust':
      return [
        { kind: 'rust', arc, halfDeg: 20 + 40 * r(), amount: 0.3 + 0.5 * r() },
        ...(r() < 0.5 ? [{ kind: 'wipe', arc: arc > 90 ? 35 : 145, halfDeg: 8 + 8 * r(), amount: 0.9 }] : []),
      ];
    case 'tinted': {
      // Brown or blue and never black, alone, or round a wiped place.
      const blue = r() < 0.5;
      const heat = { kind: 'heat', arc: 20 + 140 * r(), halfDeg: 18 + 45 * r(), most: blue ? 0.6 + 0.4 * r() : 0.38 + 0.27 * r(), blue };
      return r() < 0.5 ? [heat] : [{ kind: 'wipe', arc, halfDeg: 6 + 14 * r(), amount: 0.8 + 0.4 * r() }, heat];
    }
    case 'bare':
      return [
        { kind: 'wipe', arc, halfDeg: 10 + 35 * r(), amount: 0.9 + 0.3 * r(), steel: 0.25 + 0.4 * r() },
        ...(r() < 0.5
          ? [{ kind: 'heat', arc: arc + 20 * (r() - 0.5), halfDeg: 40 + 40 * r(), most: 0.4 + 0.3 * r(), blue: r() < 0.3 }]
          : []),
      ];
    case 'covered':
      // Wiped or heated from end to end: no sound overlay is left to go by.
      return r() < 0.5
        ? [{ kind: 'wipe', arc, halfDeg: 70 + 60 * r(), amount: 1 + 0.3 * r() }]
        : [{ kind: 'heat', arc, halfDeg: 90 + 60 * r(), most: 0.4 + 0.8 * r(), blue: r() < 0.4 }];
    default:
      return [
        { kind: 'specks', count: 10 + Math.floor(40 * r()) },
        ...(r() < 0.5 ? [{ kind: 'wipe', arc, halfDeg: 8 + 12 * r(), amount: 0.9 }] : []),
      ];
  }
}
export const KINDS = ['sound', 'wiping', 'edge', 'scores', 'fatigue', 'heat', 'rust', 'debris', 'tinted', 'bare', 'covered'];

/** The n-th half shell of a set, how it is lit and taken. */
export function shellSpecimen(set, n) {
  const r = seeded(set.from + n * 977);
  const kind = KINDS[n % KINDS.length];
  const s = {
    seed: set.from + n,
    radiusMm: 20 + 16 * r(),
    widthMm: 16 + 9 * r(),
    damages: damagesOf(kind, r),
    ...(r() < 0.2 ? { lining: 'bronze' } : {}),
    ...(r() < 0.35 ? { hole: { arc: 30 + 120 * r(), axial: 0.35 + 0.3 * r(), diameterMm: 3 + 2.5 * r() } } : {}),
  };
  const { shot, quality } = shotOf(set, n, r, [0.5, 0.75]);
  return { kind, s, shot, quality };
}
