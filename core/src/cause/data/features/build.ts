import type { Feature } from '../../types.js';
import type { EngineTag } from '../../../engine/tags.js';
import type { PartClass } from '../../../engine/stations.js';

export const PS: readonly EngineTag[] = ['plain-shells'];
export const PF: readonly EngineTag[] = ['pressure-fed'];

export const seen = (
  id: string,
  name: string,
  parts: readonly PartClass[],
  leak: number,
  leakReason: string,
  minutes: number,
  extra: Partial<Feature> = {},
): Feature => ({
  id,
  name,
  kind: 'seen',
  leak,
  leakReason,
  parts,
  damage: true,
  check: { step: `Look for it on the ${parts.map((p) => PART_WORDS[p]).join(' and ')}`, minutes },
  ...extra,
});
const PART_WORDS: Readonly<Record<PartClass, string>> = {
  shell: 'shells',
  journal: 'journals',
  thrust: 'thrust faces',
  rolling: 'rolling bearings',
  bore: 'bores',
  skirt: 'skirts',
  crown: 'crowns',
  rings: 'rings',
  rod: 'rods',
  gasket: 'gasket and deck',
  pump: 'pump',
  pickup: 'pickup',
  filter: 'cut-open filter',
  debris: 'pan',
  timing: 'timing drive',
  chamber: 'chambers',
  valve: 'valves',
  cam: 'lobes and followers',
  gallery: 'galleries',
  cooler: 'oil cooler',
  fastener: 'fasteners',
  housing: 'housings and caps',
  block: 'block',
  cambearing: 'camshaft bearings',
  pan: 'oil pan',
  balancer: 'balancer',
  seal: 'seals',
  coolant: 'coolant side',
  turbo: 'turbocharger',
  clutch: 'clutch',
};
export const spread = (
  id: string,
  name: string,
  leak: number,
  leakReason: string,
  minutes: number,
  extra: Partial<Feature> = {},
): Feature => ({
  id,
  name,
  kind: 'spread',
  leak,
  leakReason,
  damage: true,
  check: { step: 'Examine and grade the parts it is computed from', minutes },
  ...extra,
});
export const asked = (
  kind: 'told' | 'fluid' | 'measured',
  id: string,
  name: string,
  leak: number,
  leakReason: string,
  step: string,
  minutes: number,
  extra: Partial<Feature> = {},
): Feature => ({
  id,
  name,
  kind,
  leak,
  leakReason,
  damage: kind === 'measured',
  check: { step, minutes },
  ...extra,
});
