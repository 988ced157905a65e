import type { Station } from '../engine/stations.js';

/** How a hold item counts as recorded. */
type RecordedBy =
  | { readonly kind: 'check'; readonly check: string; readonly fields?: readonly string[] }
  | { readonly kind: 'photos'; readonly stations: readonly string[] }
  | { readonly kind: 'bolts'; readonly pattern: string }
  | { readonly kind: 'cap'; readonly cap: string }
  | { readonly kind: 'easing' }
  | { readonly kind: 'note' };

/** A piece of evidence that a step destroys. `kindOf` groups the same item at several places (`cap-marks:main.2`). */
export interface HoldItem {
  readonly id: string;
  readonly kindOf: string;
  readonly name: string;
  readonly by: RecordedBy;
  /** Features that cannot be decided any more once every item of this kind is lost. */
  readonly features: readonly string[];
}

interface HoldRecord {
  readonly kindOf: string;
  readonly name: string;
  readonly by: (part: string) => RecordedBy;
  readonly features: readonly string[];
}

const r = (kindOf: string, name: string, by: HoldRecord['by'], features: readonly string[] = []): HoldRecord => ({
  kindOf,
  name,
  by,
  features,
});
const check =
  (id: string, ...fields: string[]): HoldRecord['by'] =>
  () => ({ kind: 'check', check: id, ...(fields.length > 0 ? { fields } : {}) });
const note: HoldRecord['by'] = () => ({ kind: 'note' });

/** What perishes, what records it, and which evidence goes with it. */
export const HOLD_RECORDS: readonly HoldRecord[] = [
  r('oil-level', 'Oil level', check('dipstick', 'level'), ['fluid.level-low', 'fluid.level-high']),
  r('oil-look', 'Look of the oil', check('dipstick', 'look'), ['fluid.milky', 'fluid.fuel-smell', 'fluid.grey-paste', 'fluid.glitter']),
  r('oil-sample', 'Oil sample', check('oil-sample', 'taken')),
  r('fuel-look', 'Fuel, its colour and oil', check('fuel', 'look'), ['told.premix-missed']),
  r('coolant', 'Coolant level and film', check('coolant'), ['fluid.coolant-low', 'fluid.oil-in-coolant', 'measured.gas-in-coolant']),
  r('turning', 'Turning by hand', check('turning', 'feel'), [
    'measured.turning-tight',
    'measured.turning-notchy',
    'measured.turning-locked',
  ]),
  r('compression', 'Compression or leak-down', check('compression', 'dry'), [
    'measured.compression-one-low',
    'measured.compression-adjacent-low',
    'measured.compression-all-low',
    'measured.wet-rise',
    'measured.leak-rings',
  ]),
  r('arrival', 'Pictures of the whole engine', () => ({ kind: 'photos', stations: [''] })),
  r('filter-kept', 'Filter kept, not drained upside down', note),
  r('head-torque', 'Break-loose torque of the head', (part) => ({ kind: 'bolts', pattern: part }), ['measured.torque-uneven']),
  r('liquid', 'Which cylinder holds liquid', check('borescope', 'seen'), ['seen.liquid-in-cylinder', 'seen.steam-cleaned']),
  r('gasket-faces', 'Both faces of the gasket, pictured', () => ({ kind: 'photos', stations: ['gasket.head'] })),
  r('piston-rock', 'Rock of each piston at the top', note),
  r('contact-order', 'Rockers, rods and followers kept in order', note),
  r('pan-as-found', 'The pan as found, right way up', () => ({ kind: 'photos', stations: ['pan.debris'] })),
  r('end-float', 'Crank end float', check('end-float', 'float'), ['measured.end-float-high']),
  r('rod-play', 'Side play of the rods', note),
  r('easing', 'Turning torque as each cap is eased', () => ({ kind: 'easing' }), ['measured.cap-binding']),
  r('cap-marks', 'Number, direction and joint of the cap', (part) => ({ kind: 'cap', cap: part }), ['measured.cap-mismatch']),
  r('cap-torque', 'Break-loose torque of the cap', (part) => ({ kind: 'bolts', pattern: part }), ['measured.torque-uneven']),
  r(
    'shells-in-place',
    'Shells pictured in place, face and back',
    (part) => ({ kind: 'photos', stations: [`${part}.shell.upper`, `${part}.shell.lower`] }),
    ['measured.feed-hole-shut'],
  ),
  r('skirts-as-found', 'Skirt and rings as found', (part) => ({
    kind: 'photos',
    stations: [`piston.${part}.skirt.thrust`, `piston.${part}.skirt.antithrust`],
  })),
  r('liner-height', 'Height of each liner above the deck', note, ['measured.liner-low']),
  r('dipper', 'Dipper: whole, and which way round', note),
  r('seal-direction', 'Crank seals: which way round, which dry', note),
  r('all-recorded', 'Pictures, readings and bags are complete', note),
];

/** The hold item of a kind at a part. */
export function holdItem(kindOf: string, part = ''): HoldItem {
  const record = HOLD_RECORDS.find((x) => x.kindOf === kindOf);
  if (!record) throw new RangeError(`no hold is called ${kindOf}`);
  return {
    id: part === '' ? kindOf : `${kindOf}:${part}`,
    kindOf,
    name: part === '' ? record.name : `${record.name}, ${partWords(part)}`,
    by: record.by(part),
    features: record.features,
  };
}

/** `main.2` → `main 2`; `head-0` stays out of sight where an engine has one head. */
function partWords(part: string): string {
  if (part.startsWith('head-')) return part === 'head-0' ? 'first bank' : 'second bank';
  return /^\d+$/.test(part) ? `cylinder ${part}` : part.replace('.', ' ').replace(/^rod/, 'big end');
}

/** Stations whose pictures an item asks for, as far as the engine has them. */
export function itemStations(item: HoldItem, stations: readonly Station[]): string[] {
  if (item.by.kind !== 'photos') return [];
  const wanted = item.by.stations;
  return wanted.filter((id) => id === '' || stations.some((s) => s.id === id));
}

/** The item of an id such as `cap-marks:main.2`, whatever the plan; for words in lists. */
export function holdName(itemId: string): string {
  const [kindOf = '', ...rest] = itemId.split(':');
  return HOLD_RECORDS.some((r) => r.kindOf === kindOf) ? holdItem(kindOf, rest.join(':')).name : itemId;
}
