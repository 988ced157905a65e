import { stationOf, type Station } from '../engine/stations.js';
import { seeded } from '../kit/seeded.js';
import type { Pixels } from '../photo/flatten.js';
import type { Point } from '../photo/homography.js';
import type { Finish } from '../specimen/bases.js';
import type { Damage } from '../specimen/damages.js';
import { takeFlat } from '../specimen/flatScene.js';
import { RECIPES, type SpecimenForm } from '../specimen/recipes.js';
import { takeRound } from '../specimen/roundScene.js';
import { USUAL_SHOT, type Shot } from '../specimen/scene.js';
import { takeShell } from '../specimen/shellScene.js';
import { surfaceMaps, type SurfaceSpecimen } from '../specimen/surfaceMaps.js';
import type { HiddenEngine } from './hidden.js';
import { canBePictured } from './shown.js';

const FORM_OF: Readonly<Record<string, SpecimenForm>> = {
  shell: 'shell',
  rolling: 'race',
  journal: 'journal',
  thrust: 'thrust',
  skirt: 'piston',
  crown: 'crown',
};

const FINISH: Readonly<Record<string, Finish>> = {
  shell: 'overlay',
  race: 'hardened-steel',
  journal: 'ground-steel',
  thrust: 'overlay',
  piston: 'turned-aluminium',
  crown: 'cast-aluminium',
};

/** Linear colours of the benches on which apprentices' parts lie. */
const BENCHES: ReadonlyArray<readonly [Shot['bench'], Shot['benchColour']]> = [
  ['paint', [0.13, 0.3, 0.24]],
  ['wood', [0.42, 0.29, 0.17]],
  ['cloth', [0.1, 0.14, 0.24]],
  ['steel', [0.36, 0.37, 0.4]],
  ['concrete', [0.32, 0.31, 0.3]],
];

/** What service leaves on every part that ran. */
function aged(form: SpecimenForm, random: () => number): Damage[] {
  if (form === 'shell' || form === 'thrust' || form === 'race')
    return [{ kind: 'polish', arc: 84 + 12 * random(), halfDeg: 35 + 20 * random(), amount: 0.4 + 0.4 * random() }];
  if (form === 'crown') return [{ kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.5 + 0.3 * random() }];
  if (form === 'piston') return [{ kind: 'contact', arc: 180, halfDeg: 10 + 10 * random(), axial: 0.45, axialHalf: 0.25, amount: 0.6 }];
  return [];
}

/** The surface of a place of a practice engine; null where the studio has no such part. */
export function practiceSpecimen(
  hidden: HiddenEngine,
  stationId: string,
): { readonly specimen: SurfaceSpecimen; readonly form: SpecimenForm } | null {
  const station = stationOf(hidden.layout, stationId);
  if (!station || !canBePictured(station.part)) return null;
  const form = FORM_OF[station.part]!;
  const seed = seedOf(hidden, station);
  const marks = hidden.marks.get(stationId) ?? [];
  const damages = marks.flatMap((m) => RECIPES.find((r) => r.pattern === m.pattern && r.form === form)?.damages(m.severity) ?? []);
  const { layout } = hidden;
  const bore = layout.boreMm / 2;
  const size =
    form === 'piston'
      ? { radiusMm: bore, widthMm: 0.84 * bore, spanDeg: 360 }
      : form === 'crown'
        ? { radiusMm: bore, widthMm: 2 * bore, acrossMm: 2 * bore, spanDeg: 180 }
        : form === 'thrust'
          ? { radiusMm: 0.6 * layout.mainDiameterMm, widthMm: 9, spanDeg: 360 }
          : round(station, form, hidden);
  return { form, specimen: { ...size, seed, finish: FINISH[form]!, damages: [...aged(form, seeded(seed)), ...damages] } };
}

function round(s: Station, form: SpecimenForm, { layout }: HiddenEngine): Pick<SurfaceSpecimen, 'radiusMm' | 'widthMm' | 'spanDeg'> {
  const diameter = s.carries === 'rod' ? layout.pinDiameterMm : layout.mainDiameterMm;
  return { radiusMm: diameter / 2, widthMm: s.surface?.heightMm ?? diameter * 0.4, spanDeg: form === 'journal' ? 360 : 180 };
}

const seedOf = (hidden: HiddenEngine, s: Station): number => {
  let h = 2166136261 ^ hidden.seed;
  for (const c of s.id) h = Math.imul(h ^ c.charCodeAt(0), 16777619);
  return (h >>> 0) % 100_000;
};

/**
 * Takes the picture of a place of a practice engine as somebody at the bench would: on one of a few benches, under a lamp that hangs where the seed says. Corners: left-front, left-rear, right-rear,
 * right-front. Null where the studio has no such part. Rendered, and to be called so.
 */
export function practicePicture(
  hidden: HiddenEngine,
  stationId: string,
  width = 1280,
  height = 960,
): { readonly pixels: Pixels; readonly corners: readonly Point[] } | null {
  const made = practiceSpecimen(hidden, stationId);
  if (!made) return null;
  const { specimen: s, form } = made;
  const random = seeded(s.seed * 3 + 1);
  const [bench, benchColour] = BENCHES[Math.floor(random() * BENCHES.length)]!;
  const shot: Shot = {
    ...USUAL_SHOT,
    seed: s.seed,
    width,
    height,
    bench,
    benchColour,
    tiltDeg: 2 + 6 * random(),
    tiltTowardsDeg: 360 * random(),
    rollDeg: 12 * (random() - 0.5),
    lampWarmth: 0.5 * random(),
    exposure: 0.75 + 0.2 * random(),
  };
  if (form === 'shell' || form === 'race') return takeShell(s, surfaceMaps(s), shot);
  if (form === 'crown' || form === 'thrust')
    return takeFlat(
      s,
      form === 'crown' ? surfaceMaps(s, 1000, 1000) : surfaceMaps(s, 1800, 220),
      { ...shot, fill: 0.6 },
      form === 'crown' ? 'disc' : 'ring',
    );
  return takeRound(
    s,
    surfaceMaps(s, 2160, 400),
    { ...shot, fill: form === 'journal' ? 0.4 : 0.5 },
    form === 'journal' ? 'journal' : 'piston',
    180,
  );
}
