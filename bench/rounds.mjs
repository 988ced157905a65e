import { seeded } from '@true-ledger/core/specimen';
import { shotOf } from './sets.mjs';

/** Arc of a specimen that faces the camera, degrees. */
export const FACING = 180;

/** What the specimens of each part show; every kind in its turn. */
export const ROUND_KINDS = {
  journal: ['sound', 'scored', 'ring', 'patch', 'transfer', 'rust', 'both', 'blued', 'dense', 'smeared', 'sided'],
  skirt: ['sound', 'thrust', 'corners', 'coated', 'round', 'stained', 'over'],
};

function scores(r) {
  const n = 1 + Math.floor(6 * r());
  return Array.from({ length: n }, (_, k) => {
    const from = r() < 0.5 ? 0 : 60 + 60 * r();
    return {
      kind: 'score',
      axial: 0.08 + (0.84 * (k + 0.3 + 0.4 * r())) / n,
      fromDeg: from,
      toDeg: from === 0 ? 360 : from + 70 + 100 * r(),
      widthMm: r() < 0.2 ? 0.06 + 0.05 * r() : 0.2 + 0.4 * r(),
      through: false,
    };
  });
}

function damagesOf(kind, r) {
  const arc = FACING + 50 * (r() - 0.5);
  const temper = (ring) => ({
    kind: 'temper',
    arc,
    halfDeg: ring ? 180 : 35 + 40 * r(),
    axial: 0.35 + 0.3 * r(),
    axialHalf: 0.2 + 0.2 * r(),
    most: 0.55 + 0.4 * r(),
  });
  const scuff = (at, half) => ({ kind: 'scuff', arc: at, halfDeg: half, from: 0.3 * r(), to: 0.65 + 0.35 * r(), amount: 0.8 + 0.5 * r() });
  switch (kind) {
    case 'scored':
      return scores(r);
    case 'blued':
      // Blue from end to end and all round: no bare metal is left to go by.
      return [
        { kind: 'temper', arc, halfDeg: 180, axial: 0.4 + 0.2 * r(), axialHalf: 0.5 + 0.4 * r(), most: 0.65 + 0.35 * r() },
        ...(r() < 0.5 ? scores(r).slice(0, 2) : []),
      ];
    case 'dense': {
      const n = 14 + Math.floor(16 * r());
      return Array.from({ length: n }, (_, k) => ({
        kind: 'score',
        axial: 0.05 + (0.9 * (k + 0.2 + 0.6 * r())) / n,
        fromDeg: 0,
        toDeg: 360,
        widthMm: r() < 0.4 ? 0.05 + 0.06 * r() : 0.17 + 0.3 * r(),
        through: false,
      }));
    }
    case 'smeared':
      // Light metal of a shell without copper.
      return [
        {
          kind: 'transfer',
          arc,
          halfDeg: 20 + 50 * r(),
          axial: 0.3 + 0.4 * r(),
          axialHalf: 0.15 + 0.35 * r(),
          cover: 0.15 + 0.5 * r(),
          metal: 'aluminium',
        },
      ];
    case 'sided': {
      // One side is good, the other is destroyed; the border lies in view.
      const from = FACING - 40 + 60 * r();
      return [
        { kind: 'temper', arc: from + 70, halfDeg: 55 + 25 * r(), axial: 0.5, axialHalf: 0.4 + 0.3 * r(), most: 0.5 + 0.45 * r() },
        ...scores(r).map((d) => ({ ...d, fromDeg: from, toDeg: Math.min(358, from + 120) })),
        { kind: 'transfer', arc: from + 50, halfDeg: 30, axial: 0.5, axialHalf: 0.3, cover: 0.2 + 0.3 * r(), metal: 'bronze' },
      ];
    }
    case 'over':
      return [{ kind: 'scuff', arc, halfDeg: 60 + 50 * r(), from: 0.2 * r(), to: 0.75 + 0.25 * r(), amount: 1 + 0.4 * r() }];
    case 'stained':
      return [
        { kind: 'deposit', arc, halfDeg: 30 + 30 * r(), axial: 0.5, axialHalf: 0.3 + 0.2 * r(), amount: 0.4 + 0.4 * r(), brown: true },
        ...(r() < 0.5 ? [{ kind: 'rust', arc: arc + 30 * (r() - 0.5), halfDeg: 12 + 15 * r(), amount: 0.3 }] : []),
      ];
    case 'ring':
      return [temper(true)];
    case 'patch':
      return [temper(false)];
    case 'transfer':
      return [
        {
          kind: 'transfer',
          arc,
          halfDeg: 25 + 40 * r(),
          axial: 0.4 + 0.2 * r(),
          axialHalf: 0.15 + 0.25 * r(),
          cover: 0.15 + 0.5 * r(),
          metal: 'bronze',
        },
      ];
    case 'rust':
      return [{ kind: 'rust', arc, halfDeg: 25 + 45 * r(), amount: 0.3 + 0.5 * r() }];
    case 'both':
      return [
        temper(true),
        { kind: 'transfer', arc, halfDeg: 25 + 30 * r(), axial: 0.5, axialHalf: 0.3, cover: 0.2 + 0.3 * r(), metal: 'bronze' },
      ];
    case 'thrust':
      return [scuff(arc, 8 + 25 * r())];
    case 'corners':
      return [-1, 1].map((side) => scuff(FACING + side * (38 + 14 * r()), 7 + 6 * r()));
    case 'coated':
      return [
        { kind: 'coat', fromDeg: FACING - 35, toDeg: FACING + 35, from: 0.08, to: 0.9 },
        ...(r() < 0.7 ? [scuff(FACING + (r() < 0.5 ? -1 : 1) * (45 + 8 * r()), 7 + 5 * r())] : []),
      ];
    case 'round':
      return [-1, 0, 1].map((side) => scuff(FACING + side * 40, 22));
    default:
      return [];
  }
}

/** The n-th journal or skirt of a set, how it is lit and taken. */
export function roundSpecimen(part, set, n) {
  const r = seeded(set.from + 31 + n * 977);
  const kind = ROUND_KINDS[part][n % ROUND_KINDS[part].length];
  const radiusMm = part === 'journal' ? 20 + 16 * r() : 36 + 14 * r();
  const s = {
    seed: set.from + n,
    radiusMm,
    widthMm: part === 'journal' ? 20 + 10 * r() : radiusMm * (0.75 + 0.25 * r()),
    spanDeg: 360,
    finish: part === 'journal' ? 'ground-steel' : 'turned-aluminium',
    damages: damagesOf(kind, r),
    ...(part === 'journal' && r() < 0.4
      ? { hole: { arc: FACING + 60 * (r() - 0.5), axial: 0.4 + 0.2 * r(), diameterMm: 3.5 + 2 * r() } }
      : {}),
  };
  return { kind, s, ...shotOf(set, n, r, part === 'journal' ? [0.28, 0.42] : [0.38, 0.55]) };
}
