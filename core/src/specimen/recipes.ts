import type { Finish } from './bases.js';
import type { Damage } from './damages.js';
import type { SurfaceSpecimen } from './surfaceMaps.js';

/** Parts of the specimen studio. */
export const SPECIMEN_FORMS = [
  'shell',
  'thrust',
  'race',
  'journal',
  'piston',
  'crown',
  'ring',
  'bore',
  'lobe',
  'follower',
  'gear',
  'tray',
] as const;
/** A form of part a specimen can have. */
export type SpecimenForm = (typeof SPECIMEN_FORMS)[number];

/** What each form of specimen is called. */
export const FORM_NAMES: Readonly<Record<SpecimenForm, string>> = {
  shell: 'Half shell',
  thrust: 'Thrust washer',
  race: 'Bearing race',
  journal: 'Crankpin',
  piston: 'Piston skirt',
  crown: 'Piston crown',
  ring: 'Piston ring',
  bore: 'Bore, cut open',
  lobe: 'Cam lobe',
  follower: 'Follower',
  gear: 'Pump gear',
  tray: 'Debris on the magnet tray',
};

/** Surface of each form before anything happened to it: size, arc and finish. */
export const FORM_SURFACE: Readonly<Record<SpecimenForm, Omit<SurfaceSpecimen, 'seed' | 'damages'> & { readonly finish: Finish }>> = {
  shell: { radiusMm: 25, widthMm: 21, spanDeg: 180, finish: 'overlay' },
  thrust: { radiusMm: 32, widthMm: 9, spanDeg: 180, finish: 'overlay' },
  race: { radiusMm: 30, widthMm: 18, spanDeg: 180, finish: 'hardened-steel' },
  journal: { radiusMm: 25, widthMm: 24, spanDeg: 360, finish: 'ground-steel' },
  piston: { radiusMm: 43, widthMm: 36, spanDeg: 360, finish: 'turned-aluminium' },
  crown: { radiusMm: 43, acrossMm: 86, widthMm: 86, spanDeg: 180, finish: 'cast-aluminium' },
  ring: { radiusMm: 43, widthMm: 3, spanDeg: 360, finish: 'ring-face' },
  bore: { radiusMm: 43, widthMm: 120, spanDeg: 180, finish: 'honed-iron' },
  lobe: { radiusMm: 20, widthMm: 16, spanDeg: 360, finish: 'hardened-steel' },
  follower: { radiusMm: 14, acrossMm: 28, widthMm: 28, spanDeg: 180, finish: 'hardened-steel' },
  gear: { radiusMm: 16, acrossMm: 36, widthMm: 36, spanDeg: 180, finish: 'plain-steel' },
  tray: { radiusMm: 60, acrossMm: 120, widthMm: 80, spanDeg: 180, finish: 'plain-steel' },
};

/** What lies on the magnet tray. */
export type DebrisKind = 'copper' | 'paste' | 'aluminium' | 'sliver' | 'fuzz' | 'ring-pieces' | 'plastic' | 'sealant' | 'sand' | 'rust-mud';

/** 1 begun, 2 clear, 3 far gone. */
export type Severity = 1 | 2 | 3;
/** How far damage has gone, in three steps. */
export const SEVERITIES: readonly Severity[] = [1, 2, 3];
/** The three steps in a word. */
export const SEVERITY_WORDS: Readonly<Record<Severity, string>> = { 1: 'begun', 2: 'clear', 3: 'far gone' };

/** How a pattern looks: on which part, and painted how at each severity. */
export interface Recipe {
  /** Pattern of the catalogue, or a name of its own where the catalogue has none yet. */
  readonly pattern: string;
  readonly name: string;
  readonly form: SpecimenForm;
  readonly damages: (severity: Severity) => readonly Damage[];
  readonly debris?: DebrisKind;
}

/** Picks by severity. */
const at = <T>(s: Severity, one: T, two: T, three: T): T => (s === 1 ? one : s === 2 ? two : three);
const score = (axial: number, widthMm: number, through = false, fromDeg = 8, toDeg = 172): Damage => ({
  kind: 'score',
  axial,
  fromDeg,
  toDeg,
  widthMm,
  through,
});
const scores = (n: number, widest: number, through = 0, from = 8, to = 172): Damage[] =>
  Array.from({ length: n }, (_, k) => {
    const wobble = Math.sin(k * 12.9898) * 0.5 + 0.5;
    return score(
      0.08 + (0.84 * (k + 0.25 + 0.5 * wobble)) / n,
      widest * (0.35 + 0.65 * wobble),
      k < through,
      from + 25 * wobble,
      to - 20 * (1 - wobble),
    );
  });

const r = (pattern: string, name: string, form: SpecimenForm, damages: Recipe['damages']): Recipe => ({ pattern, name, form, damages });
const debris = (pattern: string, name: string, kind: DebrisKind): Recipe => ({
  pattern,
  name,
  form: 'tray',
  damages: () => [],
  debris: kind,
});

/** Every pattern that shows on a part of the studio. */
export const RECIPES: readonly Recipe[] = [
  r('normal-bedding', 'Normal bedding', 'shell', (s) => [
    { kind: 'polish', arc: 90, halfDeg: at(s, 35, 50, 65), amount: at(s, 0.5, 0.8, 1) },
  ]),
  r('scoring', 'Scoring by hard particles', 'shell', (s) => scores(at(s, 3, 6, 11), at(s, 0.2, 0.4, 0.7), at(s, 0, 1, 4))),
  r('embedded', 'Embedded particles', 'shell', (s) => [{ kind: 'specks', count: at(s, 12, 45, 130) }]),
  r('wiping', 'Wiping from too little oil', 'shell', (s) => [
    { kind: 'polish', arc: 90, halfDeg: 60, amount: 0.6 },
    { kind: 'wipe', arc: 92, halfDeg: at(s, 16, 32, 62), amount: at(s, 0.7, 0.95, 1.1) },
  ]),
  r('dry-seizure', 'Dry run-out to seizure', 'shell', (s) => [
    { kind: 'wipe', arc: 90, halfDeg: at(s, 60, 85, 100), amount: 1.1 },
    { kind: 'heat', arc: 90, halfDeg: at(s, 40, 70, 95), most: at(s, 0.6, 0.85, 1.1) },
    ...scores(at(s, 2, 5, 9), 0.7),
  ]),
  r('heat-short', 'Heat-short lining', 'shell', (s) => [
    { kind: 'heat', arc: 120, halfDeg: at(s, 50, 75, 110), most: at(s, 0.5, 0.8, 1.15) },
    ...(s === 1 ? [] : [{ kind: 'fatigue', arc: 115, halfDeg: 25, axial: 0.5, lost: at(s, 0, 0.05, 0.15) } as const]),
  ]),
  r('overlay-fatigue', 'Overlay fatigue', 'shell', (s) => [
    { kind: 'fatigue', arc: 85, halfDeg: at(s, 22, 35, 50), axial: 0.5, lost: at(s, 0.04, 0.25, 0.6) },
  ]),
  r('lining-fatigue', 'Lining fatigue', 'shell', (s) => [
    { kind: 'fatigue', arc: 85, halfDeg: at(s, 20, 32, 45), axial: 0.5, lost: at(s, 0.3, 0.55, 0.8) },
    { kind: 'gone', arc: 88, axial: 0.5, radiusMm: at(s, 1.4, 2.6, 4.2), ragged: 0.9 },
  ]),
  r('corrosion', 'Corrosion by acid or coolant', 'shell', (s) => [
    { kind: 'etch', arc: 90, halfDeg: at(s, 55, 75, 95), amount: at(s, 0.45, 0.75, 1.05) },
  ]),
  r('water-rust', 'Rust carried in by water', 'shell', (s) => [
    { kind: 'rust', arc: 100, halfDeg: at(s, 30, 45, 70), amount: at(s, 0.3, 0.55, 0.85) },
  ]),
  r('cavitation', 'Cavitation erosion at groove or hole', 'shell', (s) => [
    {
      kind: 'pits',
      arc: 70,
      halfDeg: at(s, 8, 14, 20),
      axial: 0.5,
      axialHalf: 0.22,
      count: at(s, 25, 80, 190),
      mostMm: at(s, 0.35, 0.55, 0.85),
      bright: true,
    },
  ]),
  r('edge-loading', 'Edge loading', 'shell', (s) => [
    { kind: 'edge', edge: 'rear', depth: at(s, 0.08, 0.2, 0.36), fromDeg: 25, toDeg: 155 },
  ]),
  r('both-edges', 'Both edges only', 'shell', (s) => [
    { kind: 'edge', edge: 'rear', depth: at(s, 0.06, 0.14, 0.24), fromDeg: 20, toDeg: 160 },
    { kind: 'edge', edge: 'front', depth: at(s, 0.06, 0.14, 0.24), fromDeg: 20, toDeg: 160 },
  ]),
  r('diagonal-edge', 'Diagonal edges', 'shell', (s) => [
    { kind: 'edge', edge: 'rear', depth: at(s, 0.1, 0.2, 0.34), fromDeg: 5, toDeg: 85 },
    { kind: 'edge', edge: 'front', depth: at(s, 0.1, 0.2, 0.34), fromDeg: 95, toDeg: 175 },
  ]),
  r('centre-band', 'Centre band only', 'shell', (s) => [
    { kind: 'contact', arc: 90, halfDeg: 95, axial: 0.5, axialHalf: 0.22, amount: 1 },
    ...[0.44, 0.5, 0.56].slice(0, s).map((v) => score(v, at(s, 0.25, 0.5, 0.9), s > 1)),
  ]),
  r('dirt-behind', 'Dirt behind the shell', 'shell', (s) => [
    { kind: 'contact', arc: 75, halfDeg: at(s, 7, 10, 13), axial: 0.45, axialHalf: at(s, 0.14, 0.2, 0.26), amount: 1 },
    ...(s === 1 ? [] : [{ kind: 'fatigue', arc: 75, halfDeg: at(s, 5, 7, 11), axial: 0.45, lost: at(s, 0, 0.6, 1) } as const]),
  ]),
  r('parting-contact', 'Parting-line contact on one side', 'shell', (s) => [
    { kind: 'wipe', arc: 8, halfDeg: at(s, 8, 15, 24), amount: 1 },
    { kind: 'polish', arc: 15, halfDeg: 25, amount: 0.8 },
  ]),
  r('excess-crush', 'Contact at both parting lines', 'shell', (s) =>
    [8, 172].map((arc): Damage => ({ kind: 'wipe', arc, halfDeg: at(s, 7, 12, 19), amount: 1 })),
  ),
  r('crown-contact', 'Crown contact only', 'shell', (s) => [
    { kind: 'contact', arc: 90, halfDeg: at(s, 16, 20, 24), axial: 0.5, axialHalf: 0.6, amount: 1 },
    ...(s === 1 ? [] : [{ kind: 'wipe', arc: 90, halfDeg: at(s, 0, 9, 16), amount: 0.9 } as const]),
  ]),
  r('insufficient-crush', 'Insufficient crush', 'shell', (s) => [
    { kind: 'deposit', arc: 60, halfDeg: at(s, 25, 40, 60), axial: 0.5, axialHalf: 0.5, amount: at(s, 0.35, 0.6, 0.85), brown: true },
    { kind: 'contact', arc: 140, halfDeg: 25, axial: 0.5, axialHalf: 0.5, amount: 1 },
  ]),
  r('spun-shell', 'Spun shell', 'shell', (s) => [
    { kind: 'wipe', arc: 90, halfDeg: at(s, 70, 95, 110), amount: 1.15 },
    { kind: 'heat', arc: 90, halfDeg: at(s, 50, 90, 120), most: at(s, 0.45, 0.75, 1) },
    ...scores(at(s, 4, 8, 12), 0.6, 2, 2, 178),
  ]),
  r('long-wear', 'Normal long wear', 'shell', (s) => [
    { kind: 'polish', arc: 90, halfDeg: 75, amount: 1 },
    { kind: 'wipe', arc: 90, halfDeg: at(s, 8, 20, 36), amount: 0.75 },
    ...scores(at(s, 2, 4, 6), 0.18),
  ]),
  r('thrust-wiped', 'One thrust face wiped', 'thrust', (s) => [
    { kind: 'wipe', arc: 90, halfDeg: at(s, 35, 70, 110), amount: at(s, 0.8, 1, 1.2) },
    ...scores(at(s, 1, 3, 5), 0.4),
  ]),
  r('thrust-transfer', 'Lining transferred to the crank cheek', 'thrust', (s) => [
    { kind: 'wipe', arc: 90, halfDeg: at(s, 60, 90, 120), amount: 1.2 },
    { kind: 'heat', arc: 90, halfDeg: at(s, 40, 70, 100), most: at(s, 0.4, 0.6, 0.9) },
  ]),
  r('race-blueing', 'Starved rolling bearing, blued', 'race', (s) => [
    { kind: 'temper', arc: 90, halfDeg: at(s, 60, 85, 120), axial: 0.5, axialHalf: 0.45, most: at(s, 0.35, 0.65, 0.95) },
  ]),
  r('race-spalling', 'Spalling', 'race', (s) => [
    { kind: 'contact', arc: 90, halfDeg: 100, axial: 0.5, axialHalf: 0.32, amount: 0.9 },
    ...[80, 96, 108]
      .slice(0, s)
      .map((arc, k): Damage => ({ kind: 'gone', arc, axial: 0.5 + 0.06 * (k - 1), radiusMm: at(s, 1, 1.8, 3), ragged: 1 })),
  ]),
  r('race-brinell', 'False brinelling', 'race', (s) => [
    { kind: 'brinell', pitchDeg: 18, widthDeg: at(s, 1.2, 2, 3), amount: at(s, 0.4, 0.7, 1) },
  ]),
  r('race-rust', 'Water rust on a race', 'race', (s) => [
    { kind: 'rust', arc: 90, halfDeg: at(s, 30, 50, 80), amount: at(s, 0.35, 0.6, 0.9) },
  ]),
  r('journal-scoring', 'Circumferential scoring', 'journal', (s) =>
    scores(at(s, 3, 6, 10), at(s, 0.22, 0.45, 0.8), 0, -30, 420).map((d) => ({ ...d, fromDeg: 0, toDeg: 360 }) as Damage),
  ),
  r('journal-heat', 'Heat tint ring', 'journal', (s) => [
    { kind: 'temper', arc: 180, halfDeg: 180, axial: 0.5, axialHalf: at(s, 0.22, 0.32, 0.45), most: at(s, 0.45, 0.75, 1) },
  ]),
  r('journal-transfer', 'Metal transfer', 'journal', (s) => [
    {
      kind: 'transfer',
      arc: 180,
      halfDeg: at(s, 30, 60, 110),
      axial: 0.5,
      axialHalf: at(s, 0.22, 0.35, 0.48),
      cover: at(s, 0.15, 0.4, 0.75),
      metal: 'bronze',
    },
  ]),
  r('journal-haze', 'Haze, milky shadow', 'journal', (s) => [
    { kind: 'etch', arc: 180, halfDeg: at(s, 40, 70, 110), amount: at(s, 0.15, 0.25, 0.33) },
  ]),
  r('journal-rust', 'Rust etch lines', 'journal', (s) => [
    { kind: 'rust', arc: 180, halfDeg: at(s, 20, 35, 60), amount: at(s, 0.3, 0.5, 0.75) },
  ]),
  r('fillet-crack', 'Fillet crack', 'journal', (s) => [
    { kind: 'crack', arc: 180, axial: 0.08, turnDeg: at(s, 2, 8, 20), longMm: at(s, 8, 18, 34) },
  ]),
  r('journal-one-side', 'One-side wear', 'journal', (s) => [
    { kind: 'contact', arc: 180, halfDeg: at(s, 35, 50, 65), axial: 0.5, axialHalf: 0.55, amount: 1 },
    ...scores(at(s, 1, 3, 5), 0.25, 0, 0, 180).map((d) => ({ ...d, fromDeg: 140, toDeg: 220 }) as Damage),
  ]),
  r('full-round-scuff', 'Full-round scuff', 'piston', (s) =>
    [100, 140, 180, 220, 260].map((arc): Damage => ({
      kind: 'scuff',
      arc,
      halfDeg: 26,
      from: 0.05,
      to: 0.95,
      amount: at(s, 0.6, 0.9, 1.25),
    })),
  ),
  r('four-corner-scuff', 'Four-corner scuff beside the pin', 'piston', (s) =>
    [132, 228].map((arc): Damage => ({ kind: 'scuff', arc, halfDeg: at(s, 7, 11, 16), from: 0.05, to: 0.9, amount: at(s, 0.75, 1, 1.3) })),
  ),
  r('thrust-scuff', 'Thrust-side scuff', 'piston', (s) => [
    { kind: 'scuff', arc: 180, halfDeg: at(s, 12, 22, 36), from: 0.1, to: 0.85, amount: at(s, 0.75, 1, 1.3) },
  ]),
  r('diagonal-skirt', 'Diagonal skirt wear', 'piston', (s) => [
    { kind: 'scuff', arc: 155, halfDeg: at(s, 10, 15, 20), from: 0.55, to: 1, amount: at(s, 0.75, 0.95, 1.2) },
    { kind: 'scuff', arc: 205, halfDeg: at(s, 10, 15, 20), from: 0, to: 0.42, amount: at(s, 0.75, 0.95, 1.2) },
  ]),
  r('skirt-print', 'Skirt print worn, normal', 'piston', (s) => [
    { kind: 'coat', fromDeg: 140, toDeg: 220, from: 0.1, to: 0.9 },
    { kind: 'contact', arc: 180, halfDeg: at(s, 12, 22, 34), axial: 0.45, axialHalf: at(s, 0.2, 0.3, 0.4), amount: 1 },
  ]),
  r('crown-pepper', 'Crown peppering', 'crown', (s) => [
    { kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.7 },
    {
      kind: 'pits',
      arc: 140,
      halfDeg: at(s, 20, 30, 40),
      axial: 0.6,
      axialHalf: at(s, 0.2, 0.3, 0.4),
      count: at(s, 30, 110, 300),
      mostMm: at(s, 0.7, 1, 1.5),
      bright: true,
    },
  ]),
  r('crown-melt', 'Melted crown or hole', 'crown', (s) => [
    { kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.8 },
    { kind: 'gone', arc: 96, axial: 0.55, radiusMm: at(s, 3.5, 7, 13), ragged: 0.12 },
  ]),
  r('crown-strike', 'Crown strike', 'crown', (s) => [
    { kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.9 },
    ...[70, 118, 92, 128, 60]
      .slice(0, at(s, 1, 3, 5))
      .map((arc, k): Damage => ({ kind: 'gone', arc, axial: 0.35 + 0.09 * k, radiusMm: at(s, 2.2, 3, 4), ragged: 0.85 })),
  ]),
  r('crown-wet', 'Wet, oily crown', 'crown', (s) => [
    { kind: 'deposit', arc: 90, halfDeg: 150, axial: 0.5, axialHalf: 0.85, amount: 0.8 },
    {
      kind: 'deposit',
      arc: 90,
      halfDeg: at(s, 60, 80, 110),
      axial: at(s, 0.9, 0.85, 0.8),
      axialHalf: at(s, 0.2, 0.35, 0.5),
      amount: 0.9,
      brown: true,
    },
  ]),
  r('ring-scuffed', 'Scuffed ring face', 'ring', (s) =>
    [150, 180, 215].map((arc): Damage => ({
      kind: 'scuff',
      arc,
      halfDeg: at(s, 12, 22, 40),
      from: 0,
      to: 1,
      amount: at(s, 0.9, 1.1, 1.35),
    })),
  ),
  r('ring-edge-lost', 'Lower edge rounded', 'ring', (s) => [
    { kind: 'step', axial: at(s, 0.12, 0.22, 0.35), widthMm: at(s, 0.3, 0.5, 0.9), heightMm: -0.05 },
  ]),
  r('rings-stuck', 'Ring stuck in carbon', 'ring', (s) => [
    { kind: 'deposit', arc: 180, halfDeg: at(s, 50, 90, 170), axial: 0.5, axialHalf: 1.2, amount: at(s, 0.7, 1, 1.3) },
  ]),
  r('bore-glaze', 'Glazed bore', 'bore', (s) => [{ kind: 'glaze', from: 0.05, to: at(s, 0.3, 0.5, 0.75), amount: at(s, 0.6, 0.85, 1) }]),
  r('bore-scoring', 'Vertical scoring', 'bore', (s) => [
    { kind: 'scuff', arc: 80, halfDeg: at(s, 6, 12, 22), from: 0.08, to: 0.8, amount: at(s, 0.85, 1, 1.2) },
  ]),
  r('bore-scuff-band', 'Scuff band', 'bore', (s) =>
    [40, 75, 110, 145].map((arc): Damage => ({
      kind: 'scuff',
      arc,
      halfDeg: 24,
      from: 0.35,
      to: at(s, 0.5, 0.6, 0.75),
      amount: at(s, 0.7, 1, 1.3),
    })),
  ),
  r('ring-ridge', 'Ring ridge', 'bore', (s) => [
    { kind: 'step', axial: 0.94, widthMm: at(s, 0.8, 1.4, 2), heightMm: 0.1 },
    { kind: 'deposit', arc: 90, halfDeg: 130, axial: 0.985, axialHalf: 0.05, amount: 1 },
    { kind: 'glaze', from: 0.6, to: 0.92, amount: at(s, 0.4, 0.7, 1) },
  ]),
  r('bore-rust', 'Rust band where water stood', 'bore', (s) => [
    { kind: 'rust', arc: 90, halfDeg: at(s, 30, 55, 90), amount: at(s, 0.3, 0.5, 0.75) },
  ]),
  r('bore-pitting', 'Pitting', 'bore', (s) => [
    { kind: 'pits', arc: 90, halfDeg: 45, axial: 0.5, axialHalf: 0.3, count: at(s, 40, 130, 320), mostMm: at(s, 0.6, 0.9, 1.3) },
  ]),
  r('bore-heat', 'Heat mark near the deck', 'bore', (s) => [
    { kind: 'temper', arc: 90, halfDeg: at(s, 35, 55, 80), axial: 0.86, axialHalf: at(s, 0.1, 0.15, 0.22), most: at(s, 0.4, 0.65, 0.9) },
  ]),
  r('bore-crack', 'Cracked liner', 'bore', (s) => [{ kind: 'crack', arc: 88, axial: 0.7, turnDeg: 84, longMm: at(s, 14, 34, 62) }]),
  r('lobe-flat', 'Flat lobe, hardening worn through', 'lobe', (s) => [
    { kind: 'contact', arc: 180, halfDeg: 60, axial: 0.5, axialHalf: 0.55, amount: 1 },
    ...scores(at(s, 3, 7, 12), at(s, 0.3, 0.6, 1), 0, 0, 180).map((d) => ({ ...d, fromDeg: 130, toDeg: 230 }) as Damage),
    ...(s > 1
      ? [
          {
            kind: 'pits',
            arc: 180,
            halfDeg: 30,
            axial: 0.5,
            axialHalf: 0.35,
            count: at(s, 0, 60, 160),
            mostMm: at(s, 0, 0.5, 0.8),
            bright: true,
          } as const,
        ]
      : []),
  ]),
  r('follower-pitted', 'Follower pitted', 'follower', (s) => [
    { kind: 'contact', arc: 90, halfDeg: 70, axial: 0.5, axialHalf: 0.38, amount: 1 },
    {
      kind: 'pits',
      arc: 90,
      halfDeg: at(s, 15, 28, 45),
      axial: 0.5,
      axialHalf: at(s, 0.1, 0.16, 0.26),
      count: at(s, 12, 60, 180),
      mostMm: at(s, 0.4, 0.7, 1.1),
    },
  ]),
  r('follower-cracked', 'Follower chipped or cracked', 'follower', (s) => [
    { kind: 'crack', arc: 90, axial: 0.5, turnDeg: 35, longMm: at(s, 8, 16, 24) },
    ...(s > 1 ? [{ kind: 'gone', arc: 150, axial: 0.72, radiusMm: at(s, 0, 2.2, 4), ragged: 1 } as const] : []),
  ]),
  r('pump-scored', 'Pump gear scored', 'gear', (s) => scores(at(s, 6, 12, 20), at(s, 0.25, 0.5, 0.8), 0, 0, 180)),
  r('pump-seized', 'Pump gear torn by debris', 'gear', (s) => [
    ...scores(at(s, 5, 9, 12), 0.7, 0, 0, 180),
    ...[60, 120, 100]
      .slice(0, s)
      .map((arc, k): Damage => ({ kind: 'gone', arc, axial: 0.3 + 0.2 * k, radiusMm: at(s, 0.8, 1.4, 2), ragged: 1 })),
    { kind: 'temper', arc: 90, halfDeg: 60, axial: 0.5, axialHalf: 0.4, most: at(s, 0.2, 0.4, 0.7) },
  ]),
  debris('copper-flake', 'Copper flake', 'copper'),
  debris('grey-paste', 'Grey paste', 'paste'),
  debris('bright-aluminium', 'Bright aluminium', 'aluminium'),
  debris('steel-sliver', 'Steel slivers', 'sliver'),
  debris('magnetic-fuzz', 'Magnetic fuzz', 'fuzz'),
  debris('ring-pieces', 'Pieces of rings', 'ring-pieces'),
  debris('timing-plastic', 'Plastic of timing parts', 'plastic'),
  debris('sealant', 'Sealant strings', 'sealant'),
  debris('grit', 'Sand and grit', 'sand'),
  debris('rust-mud', 'Rust mud', 'rust-mud'),
];

/** The specimen of a recipe at a severity. */
export function recipeSpecimen(recipe: Recipe, severity: Severity, seed = 11): SurfaceSpecimen {
  return { ...FORM_SURFACE[recipe.form], seed: seed + 7 * severity, damages: recipe.damages(severity) };
}
