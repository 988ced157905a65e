import Joi from 'joi';
import { ENTRY_KINDS, GAUGE_KINDS, gradeRulesSchema, layoutSchema, priceLineSchema, sheetSpecSchema, SPEC_KEYS } from '@true-ledger/core';
import { LIMITS, ROLES } from './types.js';

/** As the database keeps it: in small letters. */
const uuid = Joi.string()
  .guid({ version: ['uuidv4'] })
  .lowercase();
const name = Joi.string()
  .trim()
  .min(1)
  .max(80)
  // Nothing that cannot be seen, and no change of direction.
  .pattern(/[\p{Cc}\p{Cf}\p{Cs}\p{Co}]/u, { invert: true });
const signInName = Joi.string()
  .pattern(/^[A-Za-z0-9._-]{1,80}$/)
  .messages({ 'string.pattern.base': '{{#label}} is made of letters a–z, digits, dot, dash and underscore' });
const password = Joi.string().min(10).max(200);

export const signInSchema = Joi.object({ signIn: Joi.string().trim().max(80).required(), password: Joi.string().max(200).required() });
export const claimSchema = Joi.object({
  token: Joi.string().hex().length(64).required(),
  name: name.required(),
  signIn: signInName.required(),
  password: password.required(),
});
export const accountSchema = Joi.object({
  name: name.required(),
  signIn: signInName.required(),
  password: password.required(),
  role: Joi.string()
    .valid(...ROLES)
    .required(),
});
export const accountChangeSchema = Joi.object({
  role: Joi.string().valid(...ROLES),
  active: Joi.boolean(),
  password,
  cases: Joi.array().items(uuid).max(2000).unique().allow(null),
}).min(1);
export const passwordSchema = Joi.object({ current: Joi.string().max(200).required(), fresh: password.required() });
export const recoverSchema = Joi.object({ token: Joi.string().hex().length(64).required(), password: password.required() });

/** Envelope of an append; bodies are checked per kind by core against the case. */
export const appendSchema = Joi.object({
  entries: Joi.array()
    .min(1)
    .max(LIMITS.entriesPerAppend)
    .items(
      Joi.object({
        id: uuid.required(),
        kind: Joi.string()
          .valid(...ENTRY_KINDS)
          .required(),
        station: Joi.string().max(80).allow(null).required(),
        body: Joi.object().unknown(true).required(),
        basedOn: uuid.allow(null).required(),
      }),
    )
    .required(),
});

export const newCaseSchema = Joi.object({
  id: uuid.required(),
  title: Joi.string().trim().min(1).max(160).required(),
  reference: Joi.string().trim().max(160).allow('').required(),
  layout: layoutSchema.required(),
  sheet: Joi.object({ id: Joi.string().max(60).required(), version: Joi.number().integer().min(1).required() }).allow(null),
  like: uuid.when('sheet', { is: Joi.object().required(), then: Joi.forbidden() }),
});

const limit = Joi.number().allow(null).required();
export const sheetSchema = Joi.object({
  id: Joi.string()
    .pattern(/^[a-z0-9-]{1,60}$/)
    .required(),
  basedOn: Joi.number().integer().min(0).required(),
  name: name.required(),
  source: Joi.string()
    .trim()
    .min(1)
    .max(200)
    .required()
    .messages({ 'string.empty': 'Name the source: book and page, data plate, or measured new part' }),
  layout: layoutSchema.required(),
  specs: Joi.object(Object.fromEntries(SPEC_KEYS.map((key) => [key, sheetSpecSchema]))).required(),
  limits: Joi.array()
    .max(40)
    .items(Joi.object({ quantity: Joi.string().max(60).required(), lower: limit, upper: limit, unit: Joi.string().max(12).required() }))
    .required(),
});

const sha256 = Joi.string().hex().length(64);
export const uploadSchema = Joi.object({
  entryId: uuid.required(),
  /** Empty for the engine as a whole. */
  station: Joi.string().max(80).allow('').required(),
  /** Hash the sender computed; refused when the bytes that arrived are others. */
  sha256,
  shot: Joi.string().max(80).allow(''),
  standIn: Joi.string().valid('yes', 'no').default('no'),
});

export const clipSchema = Joi.object({
  entryId: uuid.required(),
  station: Joi.string().max(80).allow('').required(),
  sha256,
  /** As a form field carries it. */
  seconds: Joi.string()
    .pattern(/^\d{1,5}(\.\d{1,3})?$/)
    .allow(''),
});

export const gaugeSchema = Joi.object({
  id: Joi.string()
    .pattern(/^[a-z0-9-]{1,40}$/)
    .required(),
  name: name.required(),
  kind: Joi.string()
    .valid(...GAUGE_KINDS)
    .required(),
  resolutionMm: Joi.number().positive().max(1).required(),
  expandedUncertaintyMm: Joi.number().min(0).max(1).required(),
  repeatabilityMm: Joi.number().min(0).max(1).required(),
  serial: Joi.string()
    .trim()
    .max(60)
    .allow('')
    .pattern(/[\p{Cc}\p{Cf}\p{Cs}\p{Co}]/u, { invert: true }),
  masterMm: Joi.number().positive().max(5000),
  checkedOn: Joi.string().max(20).allow(''),
});

export const readingBatchSchema = Joi.object({ again: Joi.boolean().required() });

export const gradeBookRequestSchema = Joi.object({
  /** Version the changes were made on; a newer one kept meanwhile is not written over. */
  basedOn: Joi.string().max(40).required(),
  rules: gradeRulesSchema.required(),
  note: Joi.string().trim().min(3).max(500).required(),
});

export const policyRequestSchema = Joi.object({
  question: Joi.string().max(40).required(),
  position: Joi.string().max(40).required(),
  reason: Joi.string().trim().min(3).max(500).required(),
});

export const referenceSchema = Joi.object({
  id: uuid.required(),
  name: Joi.string().trim().min(2).max(120).required(),
  note: Joi.string().max(1000).allow('').required(),
  caseId: uuid.required(),
  station: Joi.string().max(80).required(),
  sha256: Joi.string().hex().length(64).required(),
});

const spotSchema = Joi.object({
  caseId: uuid.required(),
  station: Joi.string().max(80).allow(null).required(),
  sheet: Joi.string().max(60).required(),
  cell: Joi.string().max(60).required(),
});

export const gaugeCheckSchema = Joi.object({
  id: uuid.required(),
  masterMm: Joi.number().positive().max(5000).required(),
  readMm: Joi.number().min(-5000).max(5000).required(),
  note: Joi.string().max(500).allow('').required(),
});

export const faultsSchema = Joi.object({
  biasMm: Joi.number().min(-10).max(10).required(),
  noise: Joi.number().min(0).max(100).required(),
  driftMm: Joi.number().min(-1).max(1).required(),
  stuck: Joi.boolean().required(),
  silent: Joi.boolean().required(),
});

/** A message of a page to the gauges. */
export const gaugeCommandSchema = Joi.object({
  type: Joi.string().valid('at', 'press').required(),
  gauge: Joi.string().max(60).required(),
  at: Joi.alternatives(spotSchema, Joi.string().valid('master')).allow(null).required(),
});

const hash = Joi.string()
  .pattern(/^[0-9a-f]{64}$/)
  .required();

/** Id of what is asked for: the same asked again after a lost answer gives the same. */
const asked = uuid;

export const signRequestSchema = Joi.object({
  id: asked,
  /** Head of the ledger the page was looked at with; a newer one is looked at first. */
  head: hash,
  /** What is amended; may be empty for the first version only. */
  reason: Joi.string().trim().max(2000).allow('').required(),
  /** Signs although sentences say what the figures do not. */
  acceptFlags: Joi.boolean().required(),
});

export const shareRequestSchema = Joi.object({
  id: asked,
  version: Joi.number().integer().min(1).max(999).required(),
  days: Joi.number().integer().min(1).max(365).required(),
  note: Joi.string().trim().max(200).allow('').required(),
  cover: Joi.boolean(),
});

export const redactRequestSchema = Joi.object({
  entry: uuid.required(),
  reason: Joi.string().trim().min(3).max(500).required(),
});

export const presenceSchema = Joi.object({
  page: uuid.required(),
  place: Joi.string().max(120).allow('').required(),
});

export const priceBookRequestSchema = Joi.object({
  /** Version the changes were made on; 0: the prices the application starts with. */
  basedOn: Joi.number().integer().min(0).required(),
  currency: Joi.string()
    .pattern(/^[A-Z]{3}$/)
    .required(),
  lines: Joi.array().max(500).items(priceLineSchema).unique('key').required(),
  note: Joi.string().trim().min(3).max(500).required(),
});

/** Words of several lines; nothing that cannot be seen. */
const lines = (max: number): Joi.StringSchema =>
  Joi.string()
    .trim()
    .allow('')
    .max(max)
    .pattern(/[^\P{C}\n]/u, { invert: true })
    .required();
/** Version the change was made on: of two changes at once the second is refused. */
const basedOn = Joi.number().integer().min(0).max(1_000_000).required();

export const shopSchema = Joi.object({
  basedOn,
  letterhead: Joi.object({ name: lines(80), address: lines(400), contact: lines(200), register: lines(200) }).required(),
});
export const partiesSchema = Joi.object({
  basedOn,
  parties: Joi.object({
    client: Joi.object({ name: lines(120), address: lines(400), contact: lines(200) }).required(),
    engine: Joi.object({ make: lines(80), model: lines(80), serial: lines(80), hours: lines(80), fitted: lines(160) }).required(),
  }).required(),
});
