import type { EngineLayout } from './layout.js';

/** What an engine is or has, as far as causes, features and checks ask. */
export type EngineTag =
  | 'pressure-fed'
  | 'splash'
  | 'premix'
  | 'plain-shells'
  | 'four-stroke'
  | 'two-stroke'
  | 'liquid-cooled'
  | 'air-cooled'
  | 'multi-cylinder'
  | 'vee'
  | 'diesel'
  | 'spark'
  | 'head-gasket'
  | 'thrust'
  | 'unfiltered-branch';

/** Tags of an engine that decide which causes and features apply. */
export function engineTags(layout: EngineLayout): ReadonlySet<EngineTag> {
  const tags = new Set<EngineTag>();
  if (layout.lubrication === 'wet-sump' || layout.lubrication === 'dry-sump') tags.add('pressure-fed');
  if (layout.lubrication === 'splash') tags.add('splash');
  if (layout.lubrication === 'premix') tags.add('premix');
  if (layout.bigEnds === 'shells' || layout.mainBearings === 'shells') tags.add('plain-shells');
  tags.add(layout.cycle);
  tags.add(layout.cooling === 'liquid' ? 'liquid-cooled' : 'air-cooled');
  if (layout.cylinders > 1) tags.add('multi-cylinder');
  if (layout.crankpins === 'shared') tags.add('vee');
  tags.add(layout.fuel === 'diesel' ? 'diesel' : 'spark');
  if (layout.valveGear !== 'ports') tags.add('head-gasket');
  if (layout.thrustMain > 0) tags.add('thrust');
  if ((layout.unfiltered?.length ?? 0) > 0) tags.add('unfiltered-branch');
  return tags;
}

export function applies(needs: readonly EngineTag[] | undefined, tags: ReadonlySet<EngineTag>): boolean {
  return !needs || needs.every((tag) => tags.has(tag));
}
