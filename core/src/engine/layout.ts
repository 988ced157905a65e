import Joi from 'joi';
import { id } from '../kit/schema.js';

/** Everything the builder says of an engine; stations, bench, oil route and calculations follow from it and nothing else. Lengths mm, angles degrees. */
export interface EngineLayout {
  readonly template: string;
  readonly cycle: 'four-stroke' | 'two-stroke';
  readonly fuel: 'petrol' | 'diesel' | 'gas' | 'alcohol' | 'premix';
  readonly arrangement: 'single' | 'inline' | 'vee' | 'flat';
  readonly cylinders: number;
  /** Angle between banks: 0 in line, 180 flat. */
  readonly bankAngleDeg: number;
  readonly numbering: 'along-each-bank' | 'alternating';
  /** Bank that holds cylinder 1, as seen from the flywheel end looking to the front. */
  readonly firstBank: 'left' | 'right';
  readonly cylinderOneEnd: 'front' | 'flywheel';
  readonly firingOrder: readonly number[];
  /** Crank rotation as seen from the flywheel end. */
  readonly rotation: 'clockwise' | 'anticlockwise';
  readonly shaft: 'level' | 'upright';
  readonly crankpins: 'own' | 'shared';
  /** One angle per crankpin, front to rear, measured from cylinder 1's pin in the direction of rotation. */
  readonly throwAnglesDeg: readonly number[];
  readonly mains: number;
  /** Main that carries the thrust faces, numbered from the front; 0 = none. */
  readonly thrustMain: number;
  readonly mainBearings: BearingKind;
  readonly bigEnds: BearingKind;
  readonly shellConstruction: ShellConstruction;
  readonly ladderFrame: boolean;
  readonly bores: 'integral-iron' | 'dry-liner' | 'wet-liner' | 'coated-aluminium';
  readonly valveGear: 'overhead-cam' | 'pushrod' | 'side-valve' | 'ports';
  readonly followers: 'solid' | 'hydraulic' | 'roller' | 'flat' | 'bucket' | 'none';
  readonly camDrive: 'chain' | 'belt' | 'gear' | 'none';
  readonly lubrication: 'wet-sump' | 'dry-sump' | 'splash' | 'premix' | 'total-loss';
  readonly cooling: 'liquid' | 'air';
  readonly boreMm: number;
  readonly strokeMm: number;
  readonly rodLengthMm: number;
  readonly compressionRatio: number;
  readonly peakRpm: number;
  readonly mainDiameterMm: number;
  readonly pinDiameterMm: number;
  /** Running width of a big-end shell and of a main shell. */
  readonly rodShellWidthMm: number;
  readonly mainShellWidthMm: number;
  /** What follows is stated where it is known. */
  readonly aspiration?: 'natural' | 'turbocharged' | 'supercharged';
  /** What locates the shells in their housings. */
  readonly shellLocation?: 'tab' | 'tabless';
  /** Shells of another construction than the rest, by pattern of their stations: `main.**`, `rod.*.shell.upper`. */
  readonly otherShells?: Readonly<Record<string, ShellConstruction>>;
  /** What a branch before the filter feeds: mains (`main.2`) or parts by their station (`turbo`, `cam.bearings`). */
  readonly unfiltered?: readonly string[];
  /** Service since new, and age. */
  readonly hours?: number;
  readonly distanceKm?: number;
  readonly ageYears?: number;
}

/** How long an engine has served: what an old one shows in the ordinary way says less of it than of a fresh one. */
export type ServiceAge = 'fresh' | 'middling' | 'old';

/** Service from which an engine counts as old, and up to which as fresh. Judgement: a tenth and the half of what a life is commonly held to be, by hours, distance and years. */
const OLD = { hours: 5000, distanceKm: 150_000, ageYears: 15 } as const;
const FRESH = { hours: 500, distanceKm: 15_000, ageYears: 3 } as const;

/** Old by any figure stated, fresh by all of them; middling where none is. */
export function serviceAge(layout: EngineLayout): ServiceAge {
  const stated = (['hours', 'distanceKm', 'ageYears'] as const).filter((f) => layout[f] !== undefined);
  if (stated.some((f) => layout[f]! >= OLD[f])) return 'old';
  return stated.length > 0 && stated.every((f) => layout[f]! <= FRESH[f]) ? 'fresh' : 'middling';
}

type BearingKind = 'shells' | 'bush' | 'direct' | 'rolling';
const SHELL_CONSTRUCTIONS = ['trimetal', 'coated', 'aluminium-bimetal', 'bush', 'unknown'] as const;
export type ShellConstruction = (typeof SHELL_CONSTRUCTIONS)[number];

/** Where one cylinder sits: its bank (0 = the bank with cylinder 1), its crankpin and its place along the bank, both counted from the front (0-based). */
export interface CylinderPlace {
  readonly cylinder: number;
  readonly bank: 0 | 1;
  readonly pin: number;
  readonly along: number;
}

export function bankCount(layout: EngineLayout): 1 | 2 {
  return layout.arrangement === 'vee' || layout.arrangement === 'flat' ? 2 : 1;
}

/** A bank in words after a comma; nothing where there is one. */
export function bankName(layout: EngineLayout, bank: number): string {
  if (bankCount(layout) === 1) return '';
  return bank === 0 ? ', bank of 1' : ', other bank';
}

/** Cylinders in number order with their places. */
export function cylinderPlaces(layout: EngineLayout): CylinderPlace[] {
  const n = layout.cylinders;
  const banks = bankCount(layout);
  const perBank = Math.ceil(n / banks);
  const places: CylinderPlace[] = [];
  for (let cylinder = 1; cylinder <= n; cylinder++) {
    const index = cylinder - 1;
    const bank = banks === 1 ? 0 : layout.numbering === 'alternating' ? index % 2 : Math.floor(index / perBank);
    const fromOne = banks === 1 ? index : layout.numbering === 'alternating' ? Math.floor(index / 2) : index % perBank;
    const along = layout.cylinderOneEnd === 'front' ? fromOne : perBank - 1 - fromOne;
    const pin = layout.crankpins === 'shared' || banks === 1 ? along : along * 2 + bank;
    places.push({ cylinder, bank: bank as 0 | 1, pin, along });
  }
  return places;
}

/** Number of crankpins: one a cylinder, or one for two where rods share. */
export function pinCount(layout: EngineLayout): number {
  return layout.crankpins === 'shared' && bankCount(layout) === 2 ? Math.ceil(layout.cylinders / 2) : layout.cylinders;
}

/**
 * Number shown for a crankpin: its cylinder's number where each rod has its own pin (so `crank.pin.3` belongs to `rod.3`),
 * counted from the front where two rods share one.
 */
export function pinNumber(layout: EngineLayout, place: CylinderPlace): number {
  return layout.crankpins === 'shared' && bankCount(layout) === 2 ? place.pin + 1 : place.cylinder;
}

/** Position of each main along the crank in pin steps: 0 = in front of the first pin, `pinCount` = behind the last. */
export function mainPositions(layout: EngineLayout): number[] {
  const pins = pinCount(layout);
  if (layout.mains === 1) return [0];
  return Array.from({ length: layout.mains }, (_, k) => Math.round((k * pins) / (layout.mains - 1)));
}

/** Mains on either side of a pin (1-based), nearest first in front, then behind. */
export function mainsBesidePin(layout: EngineLayout, pin: number): number[] {
  const at = mainPositions(layout);
  const front = at.findLastIndex((p) => p <= pin);
  const rear = at.findIndex((p) => p >= pin + 1);
  return [front, rear].filter((k) => k >= 0).map((k) => k + 1);
}

/** True when the crank runs in plain shells fed under pressure. */
export function isPressureFed(layout: EngineLayout): boolean {
  return layout.lubrication === 'wet-sump' || layout.lubrication === 'dry-sump';
}

/** Angle of a cylinder's axis from that of the bank of cylinder 1, degrees with the rotation of the crank. */
export function axisDeg(layout: EngineLayout, bank: 0 | 1): number {
  if (bank === 0 || bankCount(layout) === 1) return 0;
  const lean = layout.firstBank === 'left' ? layout.bankAngleDeg : -layout.bankAngleDeg;
  return layout.rotation === 'clockwise' ? lean : -lean;
}

/** Phase of each cylinder's top dead centre on the crank circle, degrees 0–360, by cylinder number. Rotation sense cancels in the intervals. */
function deadCentrePhases(layout: EngineLayout): number[] {
  return cylinderPlaces(layout).map((place) => {
    const throwDeg = layout.throwAnglesDeg[place.pin] ?? 0;
    return (((axisDeg(layout, place.bank) - throwDeg) % 360) + 360) % 360;
  });
}

/** Crank degrees from each firing to the next, in firing order; null when the order cannot belong to these throws. */
export function firingIntervals(layout: EngineLayout): number[] | null {
  const total = layout.cycle === 'four-stroke' ? 720 : 360;
  const phases = deadCentrePhases(layout);
  const order = layout.firingOrder;
  if (order.length === 1) return [total];
  const intervals = order.map((cylinder, i) => {
    const from = phases[cylinder - 1] ?? 0;
    const to = phases[(order[(i + 1) % order.length] ?? 1) - 1] ?? 0;
    const gap = (((to - from) % 360) + 360) % 360;
    return gap < 1e-6 ? (layout.cycle === 'four-stroke' ? 360 : 0) : gap;
  });
  const sum = intervals.reduce((a, b) => a + b, 0);
  const left = total - sum;
  if (left < -1e-6 || Math.abs(left / 360 - Math.round(left / 360)) > 1e-6) return null;
  intervals[intervals.length - 1] = (intervals.at(-1) ?? 0) + left;
  return intervals;
}

/** Shape of a layout as data; contradictions between its fields are found by `validateLayout`. */
export const layoutSchema = Joi.object({
  template: id.required(),
  cycle: Joi.string().valid('four-stroke', 'two-stroke').required(),
  fuel: Joi.string().valid('petrol', 'diesel', 'gas', 'alcohol', 'premix').required(),
  arrangement: Joi.string().valid('single', 'inline', 'vee', 'flat').required(),
  cylinders: Joi.number().integer().min(1).max(16).required(),
  bankAngleDeg: Joi.number().min(0).max(180).required(),
  numbering: Joi.string().valid('along-each-bank', 'alternating').required(),
  firstBank: Joi.string().valid('left', 'right').required(),
  cylinderOneEnd: Joi.string().valid('front', 'flywheel').required(),
  firingOrder: Joi.array().items(Joi.number().integer()).min(1).max(16).required(),
  rotation: Joi.string().valid('clockwise', 'anticlockwise').required(),
  shaft: Joi.string().valid('level', 'upright').required(),
  crankpins: Joi.string().valid('own', 'shared').required(),
  throwAnglesDeg: Joi.array().items(Joi.number().min(-360).max(360)).min(1).max(16).required(),
  mains: Joi.number().integer().min(1).max(17).required(),
  thrustMain: Joi.number().integer().min(0).max(17).required(),
  mainBearings: Joi.string().valid('shells', 'bush', 'direct', 'rolling').required(),
  bigEnds: Joi.string().valid('shells', 'bush', 'direct', 'rolling').required(),
  shellConstruction: Joi.string()
    .valid(...SHELL_CONSTRUCTIONS)
    .required(),
  ladderFrame: Joi.boolean().required(),
  bores: Joi.string().valid('integral-iron', 'dry-liner', 'wet-liner', 'coated-aluminium').required(),
  valveGear: Joi.string().valid('overhead-cam', 'pushrod', 'side-valve', 'ports').required(),
  followers: Joi.string().valid('solid', 'hydraulic', 'roller', 'flat', 'bucket', 'none').required(),
  camDrive: Joi.string().valid('chain', 'belt', 'gear', 'none').required(),
  lubrication: Joi.string().valid('wet-sump', 'dry-sump', 'splash', 'premix', 'total-loss').required(),
  cooling: Joi.string().valid('liquid', 'air').required(),
  boreMm: Joi.number().required(),
  strokeMm: Joi.number().required(),
  rodLengthMm: Joi.number().required(),
  compressionRatio: Joi.number().required(),
  peakRpm: Joi.number().required(),
  mainDiameterMm: Joi.number().required(),
  pinDiameterMm: Joi.number().required(),
  rodShellWidthMm: Joi.number().required(),
  mainShellWidthMm: Joi.number().required(),
  aspiration: Joi.string().valid('natural', 'turbocharged', 'supercharged'),
  shellLocation: Joi.string().valid('tab', 'tabless'),
  otherShells: Joi.object()
    .pattern(Joi.string().pattern(/^[a-z0-9.*]{1,60}$/), Joi.string().valid(...SHELL_CONSTRUCTIONS))
    .max(20),
  unfiltered: Joi.array().items(Joi.string().max(60)).max(20),
  hours: Joi.number().min(0).max(1_000_000),
  distanceKm: Joi.number().min(0).max(10_000_000),
  ageYears: Joi.number().min(0).max(200),
});
