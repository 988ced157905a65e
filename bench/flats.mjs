import { seeded } from '@true-ledger/core/specimen';
import { shotOf } from './sets.mjs';

/** What the specimens of each flat part show; every kind in its turn. */
export const FLAT_KINDS = {
  crown: ['clean', 'carbon', 'washed', 'peppered', 'struck', 'holed', 'wet', 'rusted'],
  thrust: ['sound', 'wiped', 'scored', 'heated', 'one-sided', 'rusted'],
};

function crownDamages(kind, r) {
  const carbon = (amount, arc = 90, axial = 0.5) => ({
    kind: 'deposit',
    arc,
    halfDeg: 110 + 60 * r(),
    axial,
    axialHalf: 0.7 + 0.3 * r(),
    amount,
  });
  const somewhere = () => [50 + 80 * r(), 0.3 + 0.4 * r()];
  switch (kind) {
    case 'clean':
      return r() < 0.5 ? [] : [{ ...carbon(0.2 + 0.15 * r()), brown: r() < 0.5 }];
    case 'carbon':
      return [carbon(0.6 + 0.5 * r())];
    case 'washed':
      // Deposit on one side, washed bright on the other.
      return [
        {
          kind: 'deposit',
          arc: r() < 0.5 ? 20 + 30 * r() : 130 + 30 * r(),
          halfDeg: 50 + 25 * r(),
          axial: 0.3 + 0.4 * r(),
          axialHalf: 0.5 + 0.3 * r(),
          amount: 0.8 + 0.4 * r(),
        },
      ];
    case 'peppered': {
      const [arc, axial] = somewhere();
      return [
        carbon(0.4 + 0.5 * r()),
        {
          kind: 'pits',
          arc,
          axial,
          halfDeg: 20 + 30 * r(),
          axialHalf: 0.2 + 0.25 * r(),
          count: Math.round(40 + 260 * r()),
          mostMm: 0.6 + 0.9 * r(),
          bright: r() < 0.7,
        },
      ];
    }
    case 'struck':
      return [
        carbon(0.5 + 0.5 * r()),
        ...Array.from({ length: 1 + Math.floor(5 * r()) }, () => {
          const [arc, axial] = somewhere();
          return { kind: 'gone', arc, axial, radiusMm: 1.8 + 2.5 * r(), ragged: 0.7 + 0.3 * r() };
        }),
      ];
    case 'holed': {
      const [arc, axial] = somewhere();
      return [carbon(0.5 + 0.5 * r()), { kind: 'gone', arc, axial, radiusMm: 3 + 11 * r(), ragged: 0.25 * r() }];
    }
    case 'wet':
      return [
        carbon(0.6 + 0.3 * r()),
        {
          kind: 'deposit',
          arc: 90,
          halfDeg: 60 + 50 * r(),
          axial: r() < 0.5 ? 0.15 : 0.85,
          axialHalf: 0.2 + 0.3 * r(),
          amount: 0.9,
          brown: true,
        },
      ];
    default:
      return [
        ...(r() < 0.5 ? [carbon(0.3 + 0.4 * r())] : []),
        { kind: 'rust', arc: 40 + 100 * r(), halfDeg: 25 + 40 * r(), amount: 0.4 + 0.5 * r() },
      ];
  }
}

function thrustDamages(kind, r) {
  // A patch does not run over the end of the turn.
  const at = (half) => half + (360 - 2 * half) * r();
  const scores = () =>
    Array.from({ length: 1 + Math.floor(4 * r()) }, (_, k, n = 5) => {
      const from = 200 * r();
      return {
        kind: 'score',
        axial: 0.12 + (0.76 * (k + 0.3 + 0.4 * r())) / n,
        fromDeg: from,
        toDeg: from + 80 + 80 * r(),
        widthMm: 0.2 + 0.4 * r(),
        through: r() < 0.3,
      };
    });
  switch (kind) {
    case 'wiped': {
      const half = 25 + 120 * r();
      return [{ kind: 'wipe', arc: at(half), halfDeg: half, amount: 0.8 + 0.5 * r() }];
    }
    case 'scored':
      return scores();
    case 'heated': {
      const half = 60 + 80 * r();
      const arc = at(half);
      return [
        { kind: 'wipe', arc, halfDeg: half, amount: 1.1 },
        { kind: 'heat', arc, halfDeg: 0.8 * half, most: 0.5 + 0.5 * r() },
      ];
    }
    case 'one-sided':
      return [{ kind: 'wipe', arc: at(100), halfDeg: 60 + 40 * r(), amount: 1 + 0.3 * r(), steel: 0.3 * r() }];
    case 'rusted':
      return [{ kind: 'rust', arc: at(70), halfDeg: 20 + 50 * r(), amount: 0.3 + 0.5 * r() }];
    default:
      return r() < 0.5 ? [] : [{ kind: 'polish', arc: at(90), halfDeg: 90, amount: 0.5 + 0.4 * r() }];
  }
}

/** The n-th crown or thrust washer of a set, how it is lit and taken. */
export function flatSpecimen(part, set, n) {
  const r = seeded(set.from + 77 + n * 983);
  const kind = FLAT_KINDS[part][n % FLAT_KINDS[part].length];
  const radiusMm = part === 'crown' ? 36 + 16 * r() : 26 + 16 * r();
  const widthMm = part === 'crown' ? 2 * radiusMm : radiusMm * (0.18 + 0.12 * r());
  const s = {
    seed: set.from + n,
    radiusMm,
    widthMm,
    ...(part === 'crown' ? { acrossMm: 2 * radiusMm, spanDeg: 180, finish: 'cast-aluminium' } : { spanDeg: 360, finish: 'overlay' }),
    ...(part === 'thrust' && r() < 0.4 ? { lining: 'bronze' } : {}),
    damages: part === 'crown' ? crownDamages(kind, r) : thrustDamages(kind, r),
  };
  return { kind, s, form: part === 'crown' ? 'disc' : 'ring', ...shotOf(set, n, r, part === 'crown' ? [0.4, 0.6] : [0.45, 0.65]) };
}
