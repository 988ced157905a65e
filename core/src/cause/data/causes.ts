import type { Cause, OriginRecord } from '../types.js';
import { FEATURES } from './features.js';
import { ASSEMBLY } from './origins/assembly.js';
import { FATIGUE, FORM, USE } from './origins/form.js';
import { COMBUSTION, HEAT } from './origins/heatAndCombustion.js';
import { rare } from './origins/link.js';
import { LOAD } from './origins/load.js';
import { OIL_QUALITY } from './origins/oilQuality.js';
import { OIL_SUPPLY } from './origins/oilSupply.js';

/** Every cause not listed here: a small prior and a weak tie to every sign of damage, so that the sum stays honest. */
const SOMETHING_ELSE: OriginRecord = {
  id: 'something-else',
  unlisted: true,
  name: 'Something else',
  family: 'Open',
  mechanisms: ['unknown'],
  priorOdds: 0.06,
  answerable: 'not determined',
  links: FEATURES.filter((f) => f.damage && f.kind !== 'told' && f.kind !== 'spread').map((f) => rare(f.id, 'open')),
  doesNot: 'It stands for every cause not listed here.',
  collateral: [],
  actions: ['Get a second opinion'],
};

/** Root causes by kind, with all their links: those seen on parts, and those found before opening and while stripping. */
export const CAUSES: readonly Cause[] = [
  ...OIL_SUPPLY,
  ...OIL_QUALITY,
  ...HEAT,
  ...COMBUSTION,
  ...LOAD,
  ...ASSEMBLY,
  ...FORM,
  ...FATIGUE,
  ...USE,
  SOMETHING_ELSE,
].map(({ inOpening = [], ...c }: OriginRecord): Cause => {
  const own = new Set(c.links.map((l) => l.feature));
  return { ...c, links: [...c.links, ...inOpening.filter((l) => !own.has(l.feature))] };
});

export const CAUSE_TABLE_VERSION = '7';

const byId = new Map(CAUSES.map((c) => [c.id, c]));

/** The record of a cause by its id; undefined for an id of another version. */
export function cause(id: string): Cause | undefined {
  return byId.get(id);
}

/** Has this cause a record of its own, or does it stand for all that have none? */
export function isListed(id: string): boolean {
  return !byId.get(id)?.unlisted;
}
