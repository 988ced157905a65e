import type { Problem } from '../kit/result.js';
import { bankCount, cylinderPlaces, firingIntervals, isPressureFed, pinCount, type EngineLayout } from './layout.js';
import { oilRoute } from './oilRoute.js';
import { matchesStation, stationOf, stationsOf } from './stations.js';

const RANGES: ReadonlyArray<readonly [keyof EngineLayout, string, number, number, string]> = [
  ['boreMm', 'Bore', 20, 700, 'mm'],
  ['strokeMm', 'Stroke', 20, 2000, 'mm'],
  ['rodLengthMm', 'Rod length', 30, 5000, 'mm'],
  ['compressionRatio', 'Compression ratio', 4, 30, ''],
  ['peakRpm', 'Peak speed', 60, 20000, 'rpm'],
  ['mainDiameterMm', 'Main journal diameter', 10, 900, 'mm'],
  ['pinDiameterMm', 'Crankpin diameter', 10, 900, 'mm'],
  ['rodShellWidthMm', 'Big-end shell width', 5, 500, 'mm'],
  ['mainShellWidthMm', 'Main shell width', 5, 500, 'mm'],
];

/** Every contradiction in a layout, each with the field it belongs to; an empty list means the layout can be built on. */
export function validateLayout(layout: EngineLayout): Problem[] {
  const problems: Problem[] = [];
  const say = (field: keyof EngineLayout, sentence: string): void => {
    problems.push({ code: 'layout-contradiction', field, sentence });
  };
  const n = layout.cylinders;
  if (!Number.isInteger(n) || n < 1 || n > 16) {
    say('cylinders', `${n} cylinders cannot be laid out. Give a whole number from 1 to 16.`);
    return problems;
  }
  if (layout.arrangement === 'single' && n !== 1) say('arrangement', `A single has one cylinder, not ${n}. Choose inline, vee or flat.`);
  if (layout.arrangement === 'inline' && n < 2) say('arrangement', 'One cylinder is a single, not an inline engine.');
  if (bankCount(layout) === 2 && n % 2 !== 0) say('cylinders', `Two banks need an even number of cylinders, not ${n}.`);
  if (layout.arrangement === 'vee' && (layout.bankAngleDeg <= 0 || layout.bankAngleDeg >= 180))
    say('bankAngleDeg', 'The angle between the banks of a V engine lies between 0° and 180°.');
  if (layout.arrangement === 'flat' && layout.bankAngleDeg !== 180) say('bankAngleDeg', 'A flat engine has 180° between its banks.');
  if (bankCount(layout) === 1 && layout.crankpins === 'shared') say('crankpins', 'Rods share a crankpin only where there are two banks.');

  const pins = pinCount(layout);
  const maxMains = pins + 1;
  if (!Number.isInteger(layout.mains) || layout.mains < 1) say('mains', 'Give at least one main bearing.');
  else if (layout.mains > maxMains)
    say(
      'mains',
      `${layout.mains} mains do not fit a crank with ${pins} crankpin${pins > 1 ? 's' : ''}; there is room for ${maxMains} at most.`,
    );
  if (layout.thrustMain < 0 || layout.thrustMain > layout.mains)
    say('thrustMain', `The thrust faces are put on main ${layout.thrustMain}, but there are ${layout.mains}.`);

  const order = [...layout.firingOrder];
  if (order.length !== n) say('firingOrder', `The firing order names ${order.length} cylinders, the engine has ${n}.`);
  else if (new Set(order).size !== n || order.some((c) => !Number.isInteger(c) || c < 1 || c > n))
    say('firingOrder', `The firing order must name each cylinder from 1 to ${n} once.`);
  else if (layout.throwAnglesDeg.length !== pins)
    say('throwAnglesDeg', `There are ${layout.throwAnglesDeg.length} throw angles for ${pins} crankpins.`);
  else if (firingIntervals(layout) === null)
    say(
      'firingOrder',
      `The order ${order.join('-')} does not go round within one cycle on these throw angles. Check the order, the throws and the crank's rotation.`,
    );

  for (const [field, name, low, high, unit] of RANGES) {
    const value = layout[field] as number;
    if (!Number.isFinite(value) || value < low || value > high)
      say(field, `${name} ${value}${unit ? ' ' + unit : ''} is outside ${low}–${high}${unit ? ' ' + unit : ''}.`);
  }
  if (layout.rodLengthMm <= layout.strokeMm / 2) say('rodLengthMm', 'A rod shorter than half the stroke cannot pass the crank.');
  if (layout.lubrication === 'premix' && layout.cycle !== 'two-stroke')
    say('lubrication', 'Oil carried in the fuel belongs to a two-stroke.');
  const shells = stationsOf(layout).filter((s) => s.part === 'shell');
  for (const pattern of Object.keys(layout.otherShells ?? {}))
    if (!shells.some((s) => matchesStation(pattern, s.id)))
      say('otherShells', `“${pattern}” names no shell of this engine. Give a pattern of shells, as main.** or rod.*.shell.upper.`);
  for (const name of layout.unfiltered ?? [])
    if (!isPressureFed(layout) || !(stationOf(layout, name) || oilRoute(layout).feeds[name]))
      say('unfiltered', `Nothing called “${name}” is fed under pressure here. Give mains, as main.2, or parts by their station, as turbo.`);
  if (cylinderPlaces(layout).length !== n) say('cylinders', 'The cylinders could not be placed along the crank.');
  return problems;
}
