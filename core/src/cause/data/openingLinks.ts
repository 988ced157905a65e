import type { CauseLink, StrengthWord } from '../types.js';

type Row = readonly [cause: string, feature: string, strength: StrengthWord, reason: string];

/** How causes show in the checks before opening and while the engine is stripped; joined to each cause's own links. */
const ROWS: readonly Row[] = [
  ['own-debris', 'fluid.glitter', 'usually', 'the part that fails sheds into the oil'],
  ['local-feed', 'fluid.glitter', 'usually', 'the dry bearing sheds its lining'],
  ['oil-low', 'fluid.glitter', 'sometimes', 'bearings shed as they run dry'],
  ['dry-start', 'fluid.glitter', 'sometimes', 'the first turns rub'],
  ['foreign-debris', 'fluid.glitter', 'sometimes', 'cut metal floats with the dirt'],
  ['gasket-fault', 'fluid.oil-in-coolant', 'sometimes', 'an oilway beside a water hole'],
  ['coolant-in-oil', 'fluid.oil-in-coolant', 'usually', 'the leak passes both ways'],
  ['gasket-fault', 'measured.gas-in-coolant', 'usually', 'combustion passes the fire ring'],
  ['coolant-lost', 'measured.gas-in-coolant', 'rarely', 'boiling shows bubbles too'],
  ['filter-bypassed', 'seen.filter-bypassed', 'almost always', 'the valve or the media shows it'],
  ['oil-old', 'seen.filter-bypassed', 'sometimes', 'a full element opens its bypass'],
  ['bent-rod', 'measured.compression-one-low', 'usually', 'the piston no longer reaches its height'],
  ['pre-ignition', 'measured.compression-one-low', 'usually', 'a melted crown leaks'],
  ['detonation', 'measured.compression-one-low', 'sometimes', 'a broken land leaks'],
  ['foreign-object', 'measured.compression-one-low', 'usually', 'struck valves no longer seat'],
  ['hydraulic-lock', 'measured.compression-one-low', 'usually', 'the rod of that cylinder is shorter'],
  ['premix-lean', 'measured.compression-one-low', 'sometimes', 'the first piston to scuff'],
  ['gasket-fault', 'measured.compression-adjacent-low', 'almost always', 'the bridge between two cylinders is open'],
  ['normal-wear', 'measured.compression-all-low', 'usually', 'all rings wear together'],
  ['premix-lean', 'measured.compression-all-low', 'sometimes', 'all walls ran short of oil'],
  ['standing-corrosion', 'measured.compression-all-low', 'sometimes', 'rusted walls and stuck rings'],
  ['normal-wear', 'measured.wet-rise', 'usually', 'oil seals worn rings'],
  ['premix-lean', 'measured.wet-rise', 'usually', 'oil seals scuffed rings'],
  ['detonation', 'measured.wet-rise', 'sometimes', 'oil seals round a broken land'],
  ['hot-running', 'measured.wet-rise', 'sometimes', 'rings lost their tension'],
  ['bent-rod', 'measured.wet-rise', 'rarely', 'the rings are sound'],
  ['pre-ignition', 'measured.leak-rings', 'usually', 'gas goes past the melted land'],
  ['detonation', 'measured.leak-rings', 'usually', 'gas goes past the broken land'],
  ['normal-wear', 'measured.leak-rings', 'sometimes', 'worn rings'],
  ['pump-worn', 'measured.pressure-low', 'almost always', 'the pump no longer makes it'],
  ['pickup-fault', 'measured.pressure-low', 'usually', 'the pump draws air'],
  ['oil-low', 'measured.pressure-low', 'usually', 'the pickup draws air'],
  ['normal-wear', 'measured.pressure-low', 'usually', 'clearances let it go'],
  ['fuel-in-oil', 'measured.pressure-low', 'usually', 'thin oil'],
  ['coolant-in-oil', 'measured.pressure-low', 'sometimes', 'thin emulsion'],
  ['cap-exchanged', 'measured.turning-tight', 'usually', 'the shifted cap pinches the journal'],
  ['wrong-shell', 'measured.turning-tight', 'usually', 'no clearance'],
  ['main-line', 'measured.turning-tight', 'usually', 'the line is not straight'],
  ['local-feed', 'measured.turning-tight', 'usually', 'the dry shell grips the journal'],
  ['oil-low', 'measured.turning-tight', 'sometimes', 'bearings that ran dry drag'],
  ['local-feed', 'measured.cap-binding', 'usually', 'easing the cap of the dry main frees the crank'],
  ['bent-crank', 'measured.turning-tight', 'sometimes', 'it binds as it turns'],
  ['coolant-lost', 'measured.turning-tight', 'sometimes', 'scuffed pistons drag'],
  ['bent-crank', 'measured.turning-notchy', 'usually', 'tight once a turn'],
  ['bent-rod', 'measured.turning-notchy', 'sometimes', 'tight at one dead centre'],
  ['foreign-object', 'measured.turning-notchy', 'sometimes', 'the piece meets the head once a turn'],
  ['hydraulic-lock', 'measured.turning-locked', 'usually', 'liquid does not yield'],
  ['dipper-failed', 'measured.turning-locked', 'usually', 'the rod welds to the pin'],
  ['premix-lean', 'measured.turning-locked', 'usually', 'pistons weld to the wall'],
  ['local-feed', 'measured.turning-locked', 'sometimes', 'the dry bearing welds'],
  ['oil-low', 'measured.turning-locked', 'sometimes', 'run on until it stood'],
  ['coolant-lost', 'measured.turning-locked', 'sometimes', 'pistons grew into the walls'],
  ['normal-wear', 'measured.nose-play', 'usually', 'front main wears with the belt'],
  ['oil-low', 'measured.nose-play', 'sometimes', 'wiped mains'],
  ['hydraulic-lock', 'seen.liquid-in-cylinder', 'usually', 'some of it is still there'],
  ['gasket-fault', 'seen.liquid-in-cylinder', 'sometimes', 'coolant weeps in when it stands'],
  ['gasket-fault', 'seen.steam-cleaned', 'usually', 'water burns the carbon off'],
  ['coolant-in-oil', 'seen.steam-cleaned', 'sometimes', 'the same leak seen from above'],
  ['cap-exchanged', 'measured.cap-binding', 'usually', 'easing that cap frees the crank'],
  ['dirt-behind', 'measured.cap-binding', 'usually', 'the lifted shell lets go'],
  ['wrong-shell', 'measured.cap-binding', 'sometimes', 'when one bearing alone is tight'],
  ['main-line', 'measured.cap-binding', 'sometimes', 'the cap out of line lets go'],
  ['gasket-fault', 'measured.liner-low', 'usually', 'a sunk liner unloads the fire ring'],
];

/** Links of one cause that the checks before opening and the strip can show. */
export function openingLinks(cause: string): CauseLink[] {
  return ROWS.filter(([c]) => c === cause).map(([, feature, strength, reason]) => ({ feature, strength, prevents: false, reason }));
}

/** Causes named in the table, for its validator. */
export const OPENING_LINK_CAUSES: readonly string[] = [...new Set(ROWS.map(([c]) => c))];
