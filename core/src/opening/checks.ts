import type { EngineLayout } from '../engine/layout.js';
import { applies, engineTags, type EngineTag } from '../engine/tags.js';
import type { Quantity } from '../units/quantity.js';

interface CheckOption {
  readonly value: string;
  readonly label: string;
  /** Feature this answer shows to be there. */
  readonly feature?: string;
}

/** One thing asked in a check. `per` repeats it: once a cylinder, or at twelve positions round one turn of the crank. */
export interface CheckField {
  readonly id: string;
  readonly label: string;
  readonly kind: 'choice' | 'choices' | 'quantity' | 'words';
  readonly per?: 'cylinder' | 'turn';
  readonly options?: readonly CheckOption[];
  readonly quantity?: Quantity;
}

type CheckId =
  | 'arrival'
  | 'dipstick'
  | 'oil-sample'
  | 'fuel'
  | 'coolant'
  | 'filter'
  | 'magnet'
  | 'compression'
  | 'leak-down'
  | 'oil-pressure'
  | 'turning'
  | 'end-float'
  | 'borescope'
  | 'knock';

/** A check made before anything is opened. */
export interface OpeningCheck {
  readonly id: CheckId;
  readonly name: string;
  readonly minutes: number;
  readonly how: string;
  readonly caution?: string;
  readonly needs?: readonly EngineTag[];
  /** Kinds of lubrication or arrangement the check does not fit. */
  readonly without?: readonly EngineTag[];
  readonly fields: readonly CheckField[];
  /** Features its figures decide, beside those of its options. */
  readonly reckons?: readonly string[];
}

/** Place of a check that says why it was not made; every check has it. */
export const NOT_DONE: CheckField = { id: 'not-done', label: 'Not done, because', kind: 'words' };

/** Positions at which turning torque is read, every 30° of one turn. */
export const TURN_POSITIONS = 12;

const o = (value: string, label: string, feature?: string): CheckOption => ({ value, label, ...(feature ? { feature } : {}) });

/** What is looked at before anything is opened. */
export const OPENING_CHECKS: readonly OpeningCheck[] = [
  {
    id: 'arrival',
    name: 'As it arrived',
    minutes: 5,
    how: 'Photograph all sides, the data plate out of the picture, before a spanner is lifted.',
    fields: [{ id: 'seen', label: 'What strikes the eye', kind: 'words' }],
  },
  {
    id: 'dipstick',
    name: 'Dipstick',
    minutes: 2,
    how: 'Level first, then look, feel and smell. Before the engine is turned or drained.',
    caution: 'Used oil is a skin hazard: gloves.',
    without: ['premix'],
    fields: [
      {
        id: 'level',
        label: 'Level',
        kind: 'choice',
        options: [
          o('none', 'Not on the stick', 'fluid.level-low'),
          o('below', 'Below the lower mark', 'fluid.level-low'),
          o('between', 'Between the marks'),
          o('full', 'At the upper mark'),
          o('above', 'Above the upper mark', 'fluid.level-high'),
        ],
      },
      {
        id: 'look',
        label: 'Look',
        kind: 'choices',
        options: [
          o('clean', 'Clean, as oil'),
          o('dark', 'Dark, thin film'),
          o('milky', 'Milky', 'fluid.milky'),
          o('fuel', 'Thin, smells of fuel', 'fluid.fuel-smell'),
          o('glitter', 'Glitter', 'fluid.glitter'),
          o('sludge', 'Black sludge', 'fluid.black-sludge'),
          o('paste', 'Grey paste', 'fluid.grey-paste'),
        ],
      },
    ],
  },
  {
    id: 'oil-sample',
    name: 'Oil sample',
    minutes: 4,
    how: 'From the middle of the stream, into a clean labelled bottle; own reference only, no name.',
    without: ['premix'],
    fields: [
      {
        id: 'taken',
        label: 'Taken',
        kind: 'choice',
        options: [o('mid-stream', 'Mid-stream'), o('pan', 'From the pan afterwards'), o('none', 'No oil to take')],
      },
      { id: 'reference', label: 'Own reference', kind: 'words' },
    ],
  },
  {
    id: 'fuel',
    name: 'Fuel and mixture',
    minutes: 3,
    how: 'A glass of what is in the carburettor or tank: colour, oil in it, water under it.',
    caution: 'Fuel vapour: no flame, no sparks, isolate the battery.',
    needs: ['premix'],
    fields: [
      {
        id: 'look',
        label: 'Look',
        kind: 'choices',
        options: [
          o('oiled', 'Oil in it, as mixed'),
          o('lean', 'Little oil', 'told.premix-missed'),
          o('none', 'No oil in it', 'told.premix-missed'),
          o('water', 'Water under it', 'told.water-in'),
          o('stale', 'Stale'),
        ],
      },
      { id: 'ratio', label: 'Ratio as told', kind: 'words' },
    ],
  },
  {
    id: 'coolant',
    name: 'Coolant',
    minutes: 2,
    how: 'Cold. Level in the header tank, film on the surface, bubbles when cranked.',
    caution: 'Never open a hot system. Coolant poisons animals: catch it.',
    needs: ['liquid-cooled'],
    fields: [
      {
        id: 'level',
        label: 'Level',
        kind: 'choice',
        options: [o('full', 'Full'), o('low', 'Low', 'fluid.coolant-low'), o('gone', 'Gone', 'fluid.coolant-low')],
      },
      {
        id: 'film',
        label: 'Surface',
        kind: 'choices',
        options: [
          o('clear', 'Clear'),
          o('oil', 'Oil film', 'fluid.oil-in-coolant'),
          o('rust', 'Rust'),
          o('bubbles', 'Bubbles when cranked', 'measured.gas-in-coolant'),
        ],
      },
    ],
  },
  {
    id: 'filter',
    name: 'Filter cut open',
    minutes: 8,
    how: 'Cut with a tool that makes no swarf, stretch the media, look at the outer pleats first.',
    needs: ['pressure-fed'],
    fields: [
      {
        id: 'found',
        label: 'On the media',
        kind: 'choices',
        options: [
          o('clean', 'Clean'),
          o('copper', 'Copper flake', 'debris.copper'),
          o('aluminium', 'Bright aluminium', 'debris.aluminium'),
          o('steel', 'Magnetic slivers', 'debris.steel'),
          o('grit', 'Grit or sand', 'debris.grit'),
          o('sealant', 'Sealant', 'debris.sealant'),
        ],
      },
      {
        id: 'bypass',
        label: 'Bypass valve',
        kind: 'choice',
        options: [
          o('seated', 'Seated'),
          o('open', 'Stuck open', 'seen.filter-bypassed'),
          o('burst', 'Media burst', 'seen.filter-bypassed'),
        ],
      },
    ],
  },
  {
    id: 'magnet',
    name: 'Magnet',
    minutes: 2,
    how: 'A clean magnet through the drained oil or along the plug.',
    fields: [
      {
        id: 'clings',
        label: 'What clings',
        kind: 'choices',
        options: [
          o('nothing', 'Nothing'),
          o('fuzz', 'Fine fuzz'),
          o('slivers', 'Slivers', 'debris.steel'),
          o('pieces', 'Pieces', 'debris.steel'),
        ],
      },
    ],
  },
  {
    id: 'compression',
    name: 'Compression',
    minutes: 15,
    how: 'All plugs out, throttle open, same number of turns each; then a spoon of oil and again.',
    caution: 'Fuel and ignition off. Do not crank an engine that turned tight or locked.',
    reckons: ['measured.compression-one-low', 'measured.compression-adjacent-low', 'measured.compression-all-low', 'measured.wet-rise'],
    fields: [
      { id: 'dry', label: 'Dry', kind: 'quantity', quantity: 'pressure', per: 'cylinder' },
      { id: 'wet', label: 'Wet', kind: 'quantity', quantity: 'pressure', per: 'cylinder' },
    ],
  },
  {
    id: 'leak-down',
    name: 'Leak-down',
    minutes: 20,
    how: 'Piston at top dead centre, crank held; read the loss and listen where it goes.',
    caution: 'Air pressure turns the crank: hold it, keep hands out.',
    without: ['two-stroke'],
    fields: [
      { id: 'loss', label: 'Loss', kind: 'quantity', quantity: 'share', per: 'cylinder' },
      {
        id: 'goes',
        label: 'Where it goes',
        kind: 'choices',
        per: 'cylinder',
        options: [
          o('intake', 'Intake'),
          o('exhaust', 'Exhaust'),
          o('crankcase', 'Crankcase', 'measured.leak-rings'),
          o('coolant', 'Coolant', 'measured.gas-in-coolant'),
          o('neighbour', 'Neighbour', 'seen.gasket-leak'),
        ],
      },
    ],
  },
  {
    id: 'oil-pressure',
    name: 'Oil pressure',
    minutes: 10,
    how: 'A gauge of your own in the gallery, if the engine still runs safely.',
    caution: 'Do not start an engine that knocks or turned tight.',
    needs: ['pressure-fed'],
    reckons: ['measured.pressure-low'],
    fields: [
      { id: 'cold-idle', label: 'Cold, idle', kind: 'quantity', quantity: 'pressure' },
      { id: 'cold-rated', label: 'Cold, rated speed', kind: 'quantity', quantity: 'pressure' },
      { id: 'hot-idle', label: 'Hot, idle', kind: 'quantity', quantity: 'pressure' },
      { id: 'hot-rated', label: 'Hot, rated speed', kind: 'quantity', quantity: 'pressure' },
    ],
  },
  {
    id: 'turning',
    name: 'Turning by hand',
    minutes: 6,
    how: 'Bar on the crank nose, plugs out, one slow turn each way. Note where it binds.',
    caution: 'Never force a locked engine; never start it to hear the knock.',
    reckons: ['measured.turning-notchy'],
    fields: [
      {
        id: 'feel',
        label: 'Feel',
        kind: 'choice',
        options: [
          o('free', 'Free'),
          o('tight', 'Tight', 'measured.turning-tight'),
          o('notchy', 'Notchy', 'measured.turning-notchy'),
          o('locked', 'Locked', 'measured.turning-locked'),
        ],
      },
      { id: 'ahead', label: 'With rotation', kind: 'quantity', quantity: 'torque', per: 'turn' },
      { id: 'back', label: 'Against it', kind: 'quantity', quantity: 'torque', per: 'turn' },
    ],
  },
  {
    id: 'end-float',
    name: 'End float and nose play',
    minutes: 5,
    how: 'Indicator on the nose: push end to end, then lift and let down.',
    without: ['premix'],
    reckons: ['measured.end-float-high', 'measured.nose-play'],
    fields: [
      { id: 'float', label: 'End float', kind: 'quantity', quantity: 'length' },
      { id: 'play', label: 'Up and down at the nose', kind: 'quantity', quantity: 'length' },
    ],
  },
  {
    id: 'borescope',
    name: 'Through the plug hole',
    minutes: 12,
    how: 'Wall, crown and valves of each cylinder; the exhaust port too. Pictures go to the bore.',
    fields: [
      {
        id: 'seen',
        label: 'Seen',
        kind: 'choices',
        per: 'cylinder',
        options: [
          o('clear', 'Clear wall, dry crown'),
          o('scored', 'Scored wall'),
          o('wet', 'Liquid on the crown', 'seen.liquid-in-cylinder'),
          o('washed', 'Steam-cleaned crown', 'seen.steam-cleaned'),
          o('struck', 'Struck crown', 'seen.crown-strike'),
          o('holed', 'Melted or holed', 'seen.crown-melted'),
          o('rust', 'Rust band', 'seen.rust'),
        ],
      },
    ],
  },
  {
    id: 'knock',
    name: 'Where it knocks',
    minutes: 3,
    how: 'Only from the client’s words or a recording; the engine is not started to hear it.',
    fields: [
      {
        id: 'where',
        label: 'Where',
        kind: 'choices',
        options: [o('top', 'Top'), o('bottom', 'Bottom'), o('front', 'Front'), o('rear', 'Flywheel end'), o('one', 'One cylinder')],
      },
      {
        id: 'when',
        label: 'When',
        kind: 'choices',
        options: [o('cold', 'Cold'), o('hot', 'Hot'), o('load', 'Under load', 'told.knock-under-load'), o('idle', 'At idle')],
      },
    ],
  },
];

/** Checks that fit an engine. */
export function checksFor(layout: EngineLayout): OpeningCheck[] {
  const tags = engineTags(layout);
  return OPENING_CHECKS.filter((c) => applies(c.needs, tags) && !c.without?.some((t) => tags.has(t)));
}

/** Features a check can show. */
export function featuresOf(check: OpeningCheck): string[] {
  return [...check.fields.flatMap((f) => f.options ?? []).flatMap((option) => option.feature ?? []), ...(check.reckons ?? [])];
}

/** Check by id; undefined where there is none. */
export function openingCheck(id: string): OpeningCheck | undefined {
  return OPENING_CHECKS.find((c) => c.id === id);
}

/** Keys of a field's values: the field itself, or `field.n` for each cylinder or position. */
export function fieldKeys(field: CheckField, layout: EngineLayout): string[] {
  const n = field.per === 'cylinder' ? layout.cylinders : field.per === 'turn' ? TURN_POSITIONS : 0;
  return n === 0 ? [field.id] : Array.from({ length: n }, (_, i) => `${field.id}.${i + 1}`);
}

/** The field behind a key such as `dry.3`; undefined when the check has no such place. */
export function fieldOfKey(check: OpeningCheck, key: string, layout: EngineLayout): CheckField | undefined {
  return key === NOT_DONE.id ? NOT_DONE : check.fields.find((f) => fieldKeys(f, layout).includes(key));
}
