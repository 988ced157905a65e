import Joi from 'joi';
import type { Reference, ReferenceKind } from '../sheets/line.js';
import type { SheetPlace } from './cells.js';

export interface LineLimit {
  readonly lower?: number;
  readonly upper?: number;
  readonly kind?: Exclude<ReferenceKind, 'rule of thumb'>;
}

/** What is known of a kind of place (`crank.pin`, `bore`): sizes, steps and limits by result, in mm or the unit of the result, with one source. */
export interface SheetSpec {
  readonly minMm?: number;
  readonly maxMm?: number;
  readonly outOfRoundMaxMm?: number;
  readonly taperMaxMm?: number;
  readonly undersizesMm?: readonly number[];
  readonly oversizesMm?: readonly number[];
  readonly newWallMm?: number;
  readonly limits?: Readonly<Record<string, LineLimit>>;
  readonly source: string;
}

export const SPEC_KEYS = [
  'crank.pin',
  'crank.main',
  'crank.runout',
  'end-float',
  'main.clearance',
  'main.strip',
  'main.fit',
  'main.housing',
  'main.line',
  'rod.clearance',
  'rod.strip',
  'rod.fit',
  'rod.housing',
  'rod',
  'rod.side',
  'bore',
  'piston',
  'ring.top',
  'ring.second',
  'ring.oil',
  'deck',
  'head',
  'cam',
  'valve-seat',
  'oil-pump',
] as const;
export type SpecKey = (typeof SPEC_KEYS)[number];

const size = Joi.number().min(0).max(5000);
const steps = Joi.array().items(Joi.number().positive().max(10)).max(12);

/** Shape of a specification of a kind of place. */
export const sheetSpecSchema = Joi.object({
  minMm: size,
  maxMm: Joi.when('minMm', {
    is: Joi.exist(),
    then: size.min(Joi.ref('minMm')).required().messages({ 'number.min': 'The upper size is smaller than the lower size.' }),
    otherwise: size,
  }),
  outOfRoundMaxMm: Joi.number().positive().max(5),
  taperMaxMm: Joi.number().positive().max(5),
  undersizesMm: steps,
  oversizesMm: steps,
  newWallMm: Joi.number().positive().max(20),
  limits: Joi.object()
    .max(40)
    .pattern(
      Joi.string().max(60),
      Joi.object({
        lower: Joi.number().min(-5000).max(5000),
        upper: Joi.number()
          .max(5000)
          .when('lower', { is: Joi.exist(), then: Joi.number().min(Joi.ref('lower')) })
          .messages({ 'number.min': 'The upper limit is below the lower limit.' }),
        kind: Joi.string().valid('limit', 'target', 'typical'),
      }).or('lower', 'upper'),
    ),
  source: Joi.string().max(200).allow('').required(),
});

/** A result that can be given a limit. */
export interface SpecLine {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly side: 'lower' | 'upper' | 'both';
}

export interface SpecFields {
  readonly sizes: boolean;
  readonly roundness: boolean;
  readonly steps: 'undersizesMm' | 'oversizesMm' | null;
  readonly newWall: boolean;
  readonly lines: readonly SpecLine[];
}

const upper = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'upper' });
const both = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'both' });
const lower = (id: string, name: string, unit = 'mm'): SpecLine => ({ id, name, unit, side: 'lower' });

const NO_FIELDS: SpecFields = { sizes: false, roundness: false, steps: null, newWall: false, lines: [] };

/** What a specification of each kind of sheet can hold, for its form. */
export const SPEC_FIELDS: Readonly<Record<string, SpecFields>> = {
  journal: { ...NO_FIELDS, sizes: true, roundness: true, steps: 'undersizesMm' },
  bore: {
    ...NO_FIELDS,
    sizes: true,
    steps: 'oversizesMm',
    lines: [upper('wear', 'Wear'), upper('ovality', 'Ovality'), upper('taper', 'Taper'), upper('ridge', 'Ridge, a side')],
  },
  piston: { ...NO_FIELDS, lines: [both('clearance', 'Piston to bore'), upper('collapse', 'Skirt collapse')] },
  ring: {
    ...NO_FIELDS,
    lines: [both('gap', 'End gap'), both('side', 'Side clearance'), lower('back', 'Back clearance'), both('tension', 'Tension', 'N')],
  },
  'shell-clearance': {
    ...NO_FIELDS,
    newWall: true,
    lines: [both('vertical', 'Clearance, vertical'), upper('wallLoss.lower', 'Wall loss, lower')],
  },
  'crushed-strip': { ...NO_FIELDS, lines: [both('clearance', 'Least clearance'), upper('taper', 'Taper of clearance')] },
  'shell-fit': { ...NO_FIELDS, lines: [both('crush', 'Crush'), lower('spread', 'Free spread')] },
  housing: { ...NO_FIELDS, sizes: true, lines: [upper('outOfRound', 'Out-of-round'), upper('stretch', 'Stretch')] },
  'main-line': { ...NO_FIELDS, lines: [upper('line', 'Greatest gap'), upper('step', 'Greatest step')] },
  rod: {
    ...NO_FIELDS,
    lines: [both('bend', 'Bend per 100 mm'), both('twist', 'Twist per 100 mm'), both('centres', 'Length between centres')],
  },
  'side-clearance': { ...NO_FIELDS, lines: [both('sideClearance', 'Side clearance')] },
  'end-float': { ...NO_FIELDS, lines: [both('endFloat', 'End float')] },
  'crank-runout': { ...NO_FIELDS, lines: [upper('runout', 'Greatest runout'), upper('bow', 'Bow')] },
  flatness: { ...NO_FIELDS, lines: [upper('flatness', 'Deviation from flat'), upper('scratch', 'Fire-ring scratch')] },
  cam: NO_FIELDS,
  'valve-seat': { ...NO_FIELDS, lines: [upper('loss', 'Vacuum lost in 10 s', '%')] },
  'oil-pump': {
    ...NO_FIELDS,
    lines: [
      upper('end', 'End clearance'),
      upper('tip', 'Tip clearance'),
      upper('side', 'Side clearance'),
      lower('springLength', 'Relief spring, free'),
      both('popPressure', 'Relief opens', 'bar'),
    ],
  },
};

/** The specification as a sheet file holds it (`docs/formats/measure.md`), for one place. */
export function specForSheet(place: SheetPlace, spec: SheetSpec | null): Record<string, unknown> {
  if (!spec) return {};
  const { limits, newWallMm: _wall, outOfRoundMaxMm, taperMaxMm, ...rest } = spec;
  const fields = SPEC_FIELDS[place.kind] ?? NO_FIELDS;
  const sizes = fields.sizes
    ? Object.fromEntries((['minMm', 'maxMm'] as const).flatMap((k) => (rest[k] === undefined ? [] : [[k, rest[k]]])))
    : {};
  const steps = fields.steps && rest[fields.steps] ? { [fields.steps]: rest[fields.steps] } : {};
  const round = fields.roundness
    ? { ...(outOfRoundMaxMm === undefined ? {} : { outOfRoundMaxMm }), ...(taperMaxMm === undefined ? {} : { taperMaxMm }) }
    : {};
  const bands = Object.fromEntries(Object.entries(limits ?? {}).map(([id, l]): [string, Reference] => [id, { ...l, source: spec.source }]));
  return { ...sizes, ...steps, ...round, ...bands, source: spec.source };
}
