import type { PartClass } from '../engine/stations.js';
import { pattern, type DamagePattern } from './patterns.js';

/**
 * A neutral sight: what anybody sees before he can say which pattern it is. It stands above the patterns that look so; whoever names it says "one of these".
 * One may name either level.
 */
export interface NeutralSight {
  readonly id: string;
  readonly name: string;
  /** Patterns that look so, on any part. */
  readonly patterns: readonly string[];
}

const sight = (id: string, name: string, ...patterns: string[]): NeutralSight => ({ id: `sight-${id}`, name, patterns });

/** Neutral sights. A pattern may stand under several: a blued, smeared journal is both. */
export const NEUTRAL_SIGHTS: readonly NeutralSight[] = [
  sight(
    'worn',
    'Worn',
    'long-wear',
    'edge-loading',
    'centre-band',
    'thrust-wiped',
    'thrust-both',
    'journal-one-side',
    'journal-form',
    'journal-oval',
    'pin-boss-worn',
    'ring-edge-lost',
    'ring-tension-lost',
    'ring-ridge',
    'hatch-gone-top',
    'mid-bore-oval',
    'guide-leak',
    'lobe-flat',
    'pushrod-worn',
    'retainer-worn',
    'chain-stretched',
    'pump-scored',
    'skirt-print',
  ),
  sight(
    'scored',
    'Scored',
    'scoring',
    'own-debris-scoring',
    'journal-scoring',
    'bore-scoring',
    'pump-scored',
    'fire-ring-scratch',
    'ring-scuffed',
    'full-round-scuff',
    'thrust-scuff',
    'bore-scuff-band',
  ),
  sight(
    'scuffed',
    'Scuffed',
    'full-round-scuff',
    'four-corner-scuff',
    'thrust-scuff',
    'diagonal-skirt',
    'exhaust-side-scuff',
    'both-ports-scuff',
    'mid-bore-scuff',
    'bore-scuff-band',
    'bore-scoring',
    'ring-scuffed',
    'lobe-flat',
    'follower-pitted',
  ),
  sight(
    'picked-up',
    'Metal picked up',
    'journal-transfer',
    'dry-seizure',
    'thrust-transfer',
    'full-round-scuff',
    'four-corner-scuff',
    'exhaust-side-scuff',
    'both-ports-scuff',
    'bore-scuff-band',
    'pin-boss-worn',
  ),
  sight('smeared', 'Smeared', 'wiping', 'dry-seizure', 'heat-short', 'thrust-wiped', 'thrust-both', 'journal-transfer', 'ring-scuffed'),
  sight(
    'layer-gone',
    'Layer worn through',
    'long-wear',
    'wiping',
    'edge-loading',
    'corrosion',
    'overlay-fatigue',
    'centre-band',
    'crown-contact',
    'thrust-wiped',
    'thrust-both',
  ),
  sight(
    'bright-patch',
    'Bright patch',
    'crown-contact',
    'edge-loading',
    'centre-band',
    'both-edges',
    'parting-contact',
    'dirt-behind',
    'journal-one-side',
    'diagonal-skirt',
    'thrust-scuff',
    'crown-strike',
  ),
  sight('spread', 'Thinned or spread', 'dry-seizure', 'heat-short', 'spun-shell', 'wiping'),
  sight(
    'pitted',
    'Pitted',
    'corrosion',
    'cavitation',
    'overlay-fatigue',
    'bore-pitting',
    'crown-pepper',
    'follower-pitted',
    'race-spalling',
    'journal-rust',
    'journal-haze',
  ),
  sight(
    'flaked',
    'Flaked or crazed',
    'overlay-fatigue',
    'lining-fatigue',
    'bond-loss',
    'heat-short',
    'race-spalling',
    'follower-pitted',
    'lobe-flat',
  ),
  sight('dented', 'Dented', 'crown-strike', 'crown-pepper', 'embedded', 'race-brinell', 'damper-loose'),
  sight(
    'cracked',
    'Cracked',
    'piston-broken',
    'bore-crack',
    'head-crack',
    'fillet-crack',
    'follower-cracked',
    'pickup-leak',
    'cage-failure',
    'overlay-fatigue',
    'crown-pepper',
    'flutter-broken-land',
    'pin-boss-worn',
    'rod-broken',
  ),
  sight(
    'broken',
    'Broken',
    'rod-broken',
    'ring-broken',
    'piston-broken',
    'crown-pepper',
    'flutter-broken-land',
    'valve-battered',
    'valve-clean-off',
    'retainer-worn',
    'timing-broken',
    'pump-seized',
    'dipper-broken',
    'bolt-broken',
    'cage-failure',
    'follower-cracked',
    'damper-loose',
    'jet-fault',
    'fillet-crack',
    'block-holed',
  ),
  sight('holed', 'Holed', 'crown-melt', 'piston-broken', 'block-holed', 'bore-pitting', 'bore-crack'),
  sight('struck', 'Struck by another part', 'crown-strike', 'valve-battered', 'valve-bent'),
  sight('bent', 'Bent', 'rod-bent', 'valve-bent', 'pushrod-worn'),
  sight(
    'dark',
    'Dark or coloured',
    'heat-short',
    'lacquered-shell',
    'journal-heat',
    'rod-blued',
    'underside-dark',
    'race-blueing',
    'bore-heat',
    'dry-seizure',
    'corrosion',
  ),
  sight('dry', 'Dry, no oil film', 'dry-seizure', 'race-blueing', 'wiping'),
  sight('rusty', 'Rusty or stained', 'water-rust', 'journal-rust', 'bore-rust', 'race-rust', 'corrosion', 'rust-mud', 'steam-cleaned'),
  sight('deposits', 'Deposits', 'gallery-sludge', 'port-deposits', 'carbon-wedge', 'lacquered-shell', 'rings-stuck', 'crown-wet'),
  sight(
    'blocked',
    'Blocked',
    'gallery-blocked',
    'gallery-sludge',
    'screen-choked',
    'jet-fault',
    'cooling-fault',
    'cooler-debris',
    'feed-missed',
  ),
  sight(
    'loose',
    'Loose or slack',
    'bolt-loose',
    'insufficient-crush',
    'spun-shell',
    'cam-bolt-loose',
    'damper-loose',
    'coupling-worked',
    'pin-boss-worn',
    'pickup-leak',
    'chain-stretched',
    'guide-leak',
    'ring-tension-lost',
    'retainer-worn',
  ),
  sight('shifted', 'Moved in its seat', 'spun-shell', 'insufficient-crush', 'shell-contracted'),
  sight('missing', 'Missing', 'seal-misfit', 'dipper-broken', 'jet-fault', 'retainer-worn'),
  sight('misfitted', 'Fitted wrongly', 'seal-misfit', 'feed-missed', 'ring-wrong-way', 'thread-locked-wrong', 'dipper-broken'),
  sight('leaking', 'Leaking', 'gasket-leak', 'guide-leak', 'seal-misfit', 'valve-burnt'),
  sight('burnt', 'Burnt or melted', 'crown-melt', 'valve-burnt', 'gasket-leak', 'bore-heat', 'rod-blued'),
  sight('washed', 'Washed clean', 'crown-washed', 'bore-washed', 'steam-cleaned'),
  sight('polished', 'Polished', 'bore-glaze', 'normal-bedding', 'long-wear', 'skirt-print', 'hatch-gone-top'),
  sight(
    'metal',
    'Metal of unknown kind',
    'copper-flake',
    'bright-aluminium',
    'steel-sliver',
    'magnetic-fuzz',
    'grey-paste',
    'ring-pieces',
    'embedded',
    'own-debris-scoring',
  ),
  sight('particles', 'Foreign particles', 'grit', 'embedded', 'sealant', 'casting-sand', 'timing-plastic', 'rust-mud', 'gallery-swarf'),
  sight('fretted', 'Fretted', 'insufficient-crush', 'bolt-loose', 'damper-loose', 'coupling-worked', 'cam-bolt-loose'),
];

const byId = new Map(NEUTRAL_SIGHTS.map((s) => [s.id, s]));

/** A neutral sight by its id; undefined for the id of a pattern. */
export function neutralSight(id: string): NeutralSight | undefined {
  return byId.get(id);
}

/** Patterns a neutral sight may be on a part of this class, in the order of its record. */
export function sightPatterns(id: string, part: PartClass): DamagePattern[] {
  return (byId.get(id)?.patterns ?? []).flatMap((p) => pattern(p) ?? []).filter((p) => p.parts.includes(part));
}

/** Neutral sights that may be a pattern of this class of parts, in the order of the list. */
export function sightsFor(part: PartClass): NeutralSight[] {
  return NEUTRAL_SIGHTS.filter((s) => sightPatterns(s.id, part).length > 0);
}

/** Name of what was seen, pattern or neutral sight; its id where this version does not know it. */
export function sightName(id: string): string {
  return pattern(id)?.name ?? byId.get(id)?.name ?? id;
}
