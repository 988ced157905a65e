import type { CauseLink, StrengthWord } from '../../types.js';

const link =
  (strength: StrengthWord, prevents = false) =>
  (feature: string, reason: string): CauseLink => ({ feature, strength, prevents, reason });

export const always = link('almost always');
export const usually = link('usually');
export const some = link('sometimes');
export const rare = link('rarely');
/** The cause keeps the feature away. */
export const stops = link('usually', true);
/** The cause makes the feature all but impossible. */
export const rulesOut = link('almost always', true);

/** The cause makes the feature somewhat less likely. */
export const hinders = link('sometimes', true);

/** Links a cause shares with others of its course, unless it names the feature itself. */
export function withCourse(own: readonly CauseLink[], ...courses: ReadonlyArray<readonly CauseLink[]>): CauseLink[] {
  const all = new Map<string, CauseLink>();
  for (const l of [...own, ...courses.flat()]) if (!all.has(l.feature)) all.set(l.feature, l);
  return [...all.values()];
}

/** What a bearing that loses its oil goes through. */
export const BEARING_RUNS_DRY: readonly CauseLink[] = [
  usually('seen.wiping', 'the layer is dragged as the film goes'),
  usually('likened.dry', 'the journal bears where the load points'),
  some('seen.dry-seizure', 'when it is run on'),
  some('seen.heat-shell', 'friction heats the lining'),
  usually('seen.journal-heat', 'the journal takes the heat'),
  some('seen.journal-transfer', 'the layer melts onto the journal'),
  some('seen.spun', 'the hot shell grips the journal and turns'),
  some('seen.shell-contracted', 'heat takes its free spread'),
  usually('debris.copper', 'lining goes into the oil'),
  some('fluid.grey-paste', 'burnt oil and fines'),
  some('fluid.glitter', 'bearing metal floats in the oil'),
  some('seen.rod-blued', 'the big end glows'),
  some('seen.underside-dark', 'heat travels up the rod'),
  rare('seen.rod-broken', 'a softened rod parts'),
  rare('seen.block-holed', 'and knocks a hole'),
  some('measured.crank-runout', 'the heat of one journal bends the crank'),
  rare('seen.fillet-crack', 'a blued journal cracks'),
  some('seen.scored-by-own-debris', 'later bearings meet the metal'),
  some('seen.journal-scored', 'torn metal cuts the journal'),
  some('told.ran-on', 'the first sign was not heeded'),
  some('measured.iron-high', 'journals wear'),
  hinders('measured.sample-clean', 'metal goes into the oil'),
];

/** What a small engine without a pump goes through when the splash fails: the alloy rod runs on the pin itself. */
export const SPLASH_RUNS_DRY: readonly CauseLink[] = [
  usually('seen.dry-seizure', 'the rod eye has no lining to give way'),
  usually('seen.journal-transfer', 'rod metal welds to the pin'),
  usually('seen.rod-broken', 'the eye grips the pin and the rod breaks at once'),
  usually('debris.aluminium', 'rod metal in the oil'),
  usually('measured.turning-locked', 'the rod welds to the pin or its pieces jam'),
  some('seen.block-holed', 'pieces of the rod come through'),
  some('seen.thrust-scuff', 'less oil is thrown at the wall'),
];

/** Where a fault of one bearing may lie: by chance at a main, and that one in the middle, or at a big end. */
export const ONE_PLACE: readonly CauseLink[] = [
  some('spread.mains-only', 'when the place is a main'),
  some('spread.rods-only', 'when the place is a big end'),
  some('spread.centre-mains', 'when the main is one in the middle'),
];

/** What a whole engine short of oil pressure shows beyond its bearings. */
export const ENGINE_RUNS_DRY: readonly CauseLink[] = [
  usually('spread.all-bearings', 'all bearings share the oil'),
  some('spread.rods-worse', 'big ends are fed last and carry most'),
  some('spread.rods-only', 'stopped early, the big ends alone are hurt'),
  some('spread.upper-halves', 'the rod half carries the firing load'),
  some('likened.thin-film', 'what film is left is thin all over'),
  some('spread.grows-along-route', 'the far end runs short first'),
  some('seen.full-round-scuff', 'less oil is thrown at the walls'),
  some('seen.pushrod-worn', 'the top is last on the route'),
  some('seen.lobe-flat', 'lobes run without film'),
  some('spread.pistons-clean', 'bearings go before pistons'),
  some('measured.turning-tight', 'wiped bearings drag'),
  rare('measured.turning-locked', 'run until it stood'),
  some('measured.nose-play', 'wiped mains'),
];

/** What a torn piston leaves. */
export const PISTON_TEARS: readonly CauseLink[] = [
  usually('debris.aluminium', 'piston metal'),
  usually('seen.bore-scuff-band', 'the wall takes the metal'),
  some('seen.ring-scuffed', 'rings run on torn wall'),
  some('seen.rings-stuck', 'smeared lands close the grooves'),
  some('measured.compression-one-low', 'a torn piston leaks'),
  some('measured.leak-rings', 'gas goes past'),
  some('measured.wet-rise', 'oil seals what is left'),
  some('told.one-cylinder-down', 'it lost power first'),
  rare('measured.turning-locked', 'the piston grips the wall'),
];

/** What a broken part does on its way through the engine. */
export const PIECES_FLY: readonly CauseLink[] = [
  usually('debris.steel', 'pieces in the pan'),
  some('seen.crown-strike', 'a piece or a valve met the crown'),
  some('seen.block-holed', 'a flailing part comes through'),
  some('seen.scored-by-own-debris', 'pieces go round with the oil'),
  some('measured.turning-locked', 'pieces jam it'),
  some('measured.turning-notchy', 'a piece meets something once a turn'),
];

/** What any metal or grit in the oil does to pump and bearings. */
export const DIRT_GOES_ROUND: readonly CauseLink[] = [
  always('seen.scoring', 'hard grains plough'),
  usually('seen.embedded', 'the layer holds grains'),
  usually('seen.journal-scored', 'held grains cut the journal'),
  usually('seen.pump-scored', 'the pump comes before the filter'),
  usually('spread.all-bearings', 'all share the oil'),
  some('spread.fades-along-route', 'the first bearings meet it first'),
  some('spread.mains-worse', 'mains come before pins'),
  some('seen.relief-stuck', 'a grain under the plunger'),
  some('seen.journal-haze', 'the fine part of it'),
  some('seen.thrust-both', 'faces take the same dirt'),
  some('debris.copper', 'lining is cut away'),
  some('measured.iron-high', 'journals wear'),
  hinders('measured.sample-clean', 'metal and grit go round'),
];

export const OIL_COLLATERAL = ['every bearing fed by the same oil', 'cam bearings and followers', 'turbocharger', 'chain tensioner'];
export const DIRT_COLLATERAL = ['galleries with plugs out', 'oil cooler', 'filter head', 'piston jets', 'pump and relief valve'];
