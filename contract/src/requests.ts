import Joi from 'joi';
import { schema as s, type Held, type Schema } from '@true-ledger/core/kit';
import { GAUGE_KINDS, type Gauge } from '@true-ledger/core/units';
import { layoutSchema, type EngineLayout } from '@true-ledger/core/engine';
import { engineRecordSchema, LABORATORY_FAULTS, lineDraftSchema, type LineDraft } from '@true-ledger/core/engineLog';
import { gradeRulesSchema, type GradeRule } from '@true-ledger/core/damage';
import { priceLineSchema, type PriceBook } from '@true-ledger/core/workshop';
import { sheetSpecSchema, SPEC_KEYS, type GaugeFaults, type SpecSheet } from '@true-ledger/core/measure';
import type { EntryDraft } from '@true-ledger/core/ledger';
import { ENTRY_KINDS } from '@true-ledger/core/entries';
import {
  LETTERS,
  unknownFields,
  type Letterhead,
  type LetterTemplate,
  type LetterTemplates,
  type LetterTo,
  type Parties,
} from '@true-ledger/core/report';
import { LIMITS, ROLES } from './limits.js';

const { optional, typed } = s;

/** As the database keeps it: in small letters. */
const uuid = typed<string>(
  Joi.string()
    .guid({ version: ['uuidv4'] })
    .lowercase(),
);
/** Nothing that cannot be seen, and no change of direction. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Cs}\p{Co}]/u;
const name = typed<string>(Joi.string().trim().min(1).max(80).pattern(UNSEEN, { invert: true }));
const said = (min: number, max: number): Schema<string> => typed(Joi.string().trim().min(min).max(max));
const told = (max: number): Schema<string> => typed(Joi.string().max(max).allow(''));
const signInName = typed<string>(
  Joi.string()
    .pattern(/^[A-Za-z0-9._-]{1,80}$/)
    .messages({ 'string.pattern.base': '{{#label}} is made of letters a–z, digits, dot, dash and underscore' }),
);
const password = typed<string>(Joi.string().min(10).max(200));
const oldPassword = typed<string>(Joi.string().max(200));
const token = typed<string>(Joi.string().hex().length(64));
const sha256 = typed<string>(Joi.string().hex().length(64));
const layout = typed<EngineLayout>(layoutSchema);
const role = s.oneOf(ROLES);

export const signInSchema = s.object({ signIn: typed<string>(Joi.string().trim().max(80)), password: oldPassword });
export const claimSchema = s.object({ token, name, signIn: signInName, password });
export const accountSchema = s.object({ name, signIn: signInName, password, role });
export const accountChangeSchema = s
  .object({
    role: optional(role),
    active: optional(s.flag),
    password: optional(password),
    cases: optional(typed<readonly string[] | null>(Joi.array().items(uuid).max(2000).unique().allow(null))),
  })
  .min(1);
export const passwordSchema = s.object({ current: oldPassword, fresh: password });
export const recoverSchema = s.object({ token, password });

/** Envelope of an append; bodies are checked per kind by core against the case. */
export const appendSchema = s.object({
  entries: typed<readonly EntryDraft[]>(
    Joi.array()
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
      ),
  ),
});

export const newCaseSchema = s.object({
  id: uuid,
  title: said(1, 160),
  reference: typed<string>(Joi.string().trim().max(160).allow('')),
  layout,
  /** Shop sheet whose limits the case takes a copy of. */
  sheet: optional(s.nullable(s.object({ id: typed<string>(Joi.string().max(60)), version: s.whole(1, Number.MAX_SAFE_INTEGER) }))),
  /** Case of the same engine whose sizes and limits it takes a copy of, where it takes no sheet. */
  like: optional(typed<string>(uuid.when('sheet', { is: Joi.object().required(), then: Joi.forbidden() }))),
});

const limit = s.nullable(s.number);
/** A new sheet, or the next version of one: `basedOn` is the version it was edited from, 0 for a new sheet. */
export const sheetSchema = s.object({
  id: s.matching(/^[a-z0-9-]{1,60}$/),
  basedOn: s.whole(0, Number.MAX_SAFE_INTEGER),
  name,
  source: typed<string>(said(1, 200).messages({ 'string.empty': 'Name the source: book and page, data plate, or measured new part' })),
  layout,
  specs: typed<SpecSheet['specs']>(Joi.object(Object.fromEntries(SPEC_KEYS.map((key) => [key, sheetSpecSchema])))),
  limits: s.list(s.object({ quantity: s.name(60), lower: limit, upper: limit, unit: s.name(12) }), 40),
});

export const uploadSchema = s.object({
  entryId: uuid,
  /** Empty for the engine as a whole. */
  station: told(80),
  /** Hash the sender computed; refused when the bytes that arrived are others. */
  sha256: optional(sha256),
  shot: optional(told(80)),
  standIn: optional(typed<'yes' | 'no'>(Joi.string().valid('yes', 'no').default('no'))),
});

export const clipSchema = s.object({
  entryId: uuid,
  station: told(80),
  sha256: optional(sha256),
  /** As a form field carries it. */
  seconds: optional(
    typed<string>(
      Joi.string()
        .pattern(/^\d{1,5}(\.\d{1,3})?$/)
        .allow(''),
    ),
  ),
});

export const gaugeSchema = typed<Gauge>(
  s.object({
    id: s.matching(/^[a-z0-9-]{1,40}$/),
    name,
    kind: s.oneOf(GAUGE_KINDS),
    resolutionMm: s.positive(1),
    expandedUncertaintyMm: s.figure(0, 1),
    repeatabilityMm: s.figure(0, 1),
    serial: optional(typed<string>(Joi.string().trim().max(60).allow('').pattern(UNSEEN, { invert: true }))),
    masterMm: optional(s.positive(5000)),
    checkedOn: optional(told(20)),
  }),
);

export const readingBatchSchema = s.object({ again: s.flag });

export const gradeBookRequestSchema = s.object({
  /** Version the changes were made on; a newer one kept meanwhile is not written over. */
  basedOn: s.name(40),
  rules: typed<readonly GradeRule[]>(gradeRulesSchema),
  note: said(3, 500),
});

export const policyRequestSchema = s.object({ question: s.name(40), position: s.name(40), reason: said(3, 500) });

export const referenceSchema = s.object({
  id: uuid,
  name: said(2, 120),
  note: told(1000),
  caseId: uuid,
  station: s.name(80),
  sha256,
});

const spot = s.object({ caseId: uuid, station: s.nullable(s.name(80)), sheet: s.name(60), cell: s.name(60) });
/** Where a gauge is put: a cell of a sheet of a case. */
export type GaugeSpot = Held<typeof spot>;

export const gaugeCheckSchema = s.object({ id: uuid, masterMm: s.positive(5000), readMm: s.figure(-5000, 5000), note: told(500) });

export const faultsSchema = typed<GaugeFaults>(
  s.object({ biasMm: s.figure(-10, 10), noise: s.figure(0, 100), driftMm: s.figure(-1, 1), stuck: s.flag, silent: s.flag }),
);

/** What a page says to the gauges: the hand has put one on a place, or pressed its data key there. */
export type GaugeCommand =
  | { readonly type: 'at'; readonly gauge: string; readonly at: GaugeSpot | null }
  | { readonly type: 'press'; readonly gauge: string; readonly at: GaugeSpot | 'master' | null };
export const gaugeCommandSchema = typed<GaugeCommand>(
  s.object({ type: s.oneOf(['at', 'press']), gauge: s.name(60), at: s.nullable(s.oneOrOther(spot, s.oneOf(['master']))) }),
);

const hash = s.matching(/^[0-9a-f]{64}$/);

/** Id of what is asked for: the same asked again after a lost answer gives the same. */
const asked = optional(uuid);

export const signRequestSchema = s.object({
  id: asked,
  /** Head of the ledger the page was looked at with; a newer one is looked at first. */
  head: hash,
  /** What is amended; may be empty for the first version only. */
  reason: typed<string>(Joi.string().trim().max(2000).allow('')),
  /** Signs although sentences say what the figures do not. */
  acceptFlags: s.flag,
});

export const shareRequestSchema = s.object({
  id: asked,
  version: s.whole(1, 999),
  days: s.whole(1, 365),
  note: typed<string>(Joi.string().trim().max(200).allow('')),
  cover: optional(s.flag),
});

export const redactRequestSchema = s.object({ entry: uuid, reason: said(3, 500) });

export const presenceSchema = s.object({ page: uuid, place: told(120) });

export const priceBookRequestSchema = s.object({
  /** Version the changes were made on; 0: the prices the application starts with. */
  basedOn: s.whole(0, Number.MAX_SAFE_INTEGER),
  currency: s.matching(/^[A-Z]{3}$/),
  lines: typed<PriceBook['lines']>(Joi.array().max(500).items(priceLineSchema).unique('key')),
  note: said(3, 500),
});

/** An answer to a drill; whether it was right the server finds itself. */
export const drillAnswerSchema = s.object({
  id: uuid,
  card: s.id,
  seed: s.whole(0, 2_147_483_647),
  given: s.id,
  tookMs: s.whole(0, 86_400_000),
});

/** A practice engine to be made; without a seed the server draws one and shows it to nobody until the truth is opened. */
export const practiceEngineSchema = s.object({ id: uuid, level: s.whole(1, 10), seed: s.nullable(s.whole(0, 2_147_483_647)) });
/** A look at a practice engine. */
export const practiceLookSchema = s.object({ look: s.id });
/** What is answered before the truth of a practice engine is opened: the causes held to be in it, and how sure; none, where it is held to have no cause. */
export const practiceAnswerSchema = s.object({ answer: s.list(s.object({ cause: s.id, percent: s.whole(0, 100) }), 10) });

/** Whether the shop's own frequencies move the priors of cases opened from now on. */
export const priorSwitchSchema = s.object({ on: s.flag });

/** An engine's own record: made, or changed from the version that was looked at. */
export const engineSchema = s.object({ id: uuid, record: engineRecordSchema });
export const engineChangeSchema = s.object({ basedOn: s.whole(1, Number.MAX_SAFE_INTEGER), record: engineRecordSchema });
/** Lines for the log of an engine; sent once more, they are there once. */
export const logLinesSchema = s.object({
  lines: typed<readonly LineDraft[]>(
    Joi.array()
      .min(1)
      .max(200)
      .items(lineDraftSchema.keys({ id: uuid.required() })),
  ),
});
/** The engine it turned out to be; null: they are two after all. */
export const engineMergeSchema = s.object({ into: s.nullable(uuid) });
/** The engine a case is of; null: none that has a record. */
export const caseEngineSchema = s.object({ engine: s.nullable(uuid) });
/** A sample for the stand-in of a laboratory, and what shall go wrong with it. */
export const laboratorySchema = s.object({ reference: s.name(24), fault: s.oneOf(LABORATORY_FAULTS) });

/** Words of several lines; nothing that cannot be seen. */
const lines = (max: number): Schema<string> =>
  typed(
    Joi.string()
      .trim()
      .allow('')
      .max(max)
      .pattern(/[^\P{C}\n]/u, { invert: true }),
  );
/** Most characters of a letter. */
const LETTER = 8000;
/** Version the change was made on: of two changes at once the second is refused. */
const basedOn = s.whole(0, 1_000_000);

export const shopSchema = s.object({
  basedOn,
  letterhead: typed<Letterhead>(s.object({ name: lines(80), address: lines(400), contact: lines(200), register: lines(200) })),
});
const letterTemplate = typed<LetterTemplate>(
  (s.object({ subject: lines(200), body: lines(LETTER) }) as Joi.Schema).custom((template: LetterTemplate, helpers) => {
    const [unknown] = unknownFields(template);
    return unknown === undefined
      ? template
      : helpers.message({ custom: '{{#field}} is no field of a letter; take one of the list' }, { field: `{${unknown}}` });
  }),
);
/** Templates of all letters at once. */
export const lettersSchema = s.object({
  basedOn,
  letters: typed<LetterTemplates>(
    s.object(Object.fromEntries(LETTERS.map((to) => [to, letterTemplate])) as Record<LetterTo, typeof letterTemplate>),
  ),
});
/** A letter as it goes out. */
export const letterSchema = s.object({ addressee: lines(600), subject: lines(300), body: lines(LETTER) });
export const partiesSchema = s.object({
  basedOn,
  parties: typed<Parties>(
    s.object({
      client: s.object({ name: lines(120), address: lines(400), contact: lines(200) }),
      engine: s.object({ make: lines(80), model: lines(80), serial: lines(80), hours: lines(80), fitted: lines(160) }),
    }),
  ),
});

export type SignInRequest = Held<typeof signInSchema>;
export type ClaimRequest = Held<typeof claimSchema>;
export type AccountRequest = Held<typeof accountSchema>;
export type AccountChange = Held<typeof accountChangeSchema>;
export type PasswordRequest = Held<typeof passwordSchema>;
export type RecoverRequest = Held<typeof recoverSchema>;
export type AppendRequest = Held<typeof appendSchema>;
export type NewCaseRequest = Held<typeof newCaseSchema>;
export type SheetRequest = Held<typeof sheetSchema>;
export type UploadRequest = Held<typeof uploadSchema>;
export type ClipRequest = Held<typeof clipSchema>;
export type ReadingBatchRequest = Held<typeof readingBatchSchema>;
export type GradeBookRequest = Held<typeof gradeBookRequestSchema>;
export type PolicyRequest = Held<typeof policyRequestSchema>;
export type ReferenceRequest = Held<typeof referenceSchema>;
export type GaugeCheckRequest = Held<typeof gaugeCheckSchema>;
export type SignRequest = Held<typeof signRequestSchema>;
export type ShareRequest = Held<typeof shareRequestSchema>;
export type RedactRequest = Held<typeof redactRequestSchema>;
export type PresenceRequest = Held<typeof presenceSchema>;
export type PriceBookRequest = Held<typeof priceBookRequestSchema>;
export type DrillAnswerRequest = Held<typeof drillAnswerSchema>;
export type PracticeEngineRequest = Held<typeof practiceEngineSchema>;
export type PracticeLookRequest = Held<typeof practiceLookSchema>;
export type PracticeAnswerRequest = Held<typeof practiceAnswerSchema>;
export type PriorSwitch = Held<typeof priorSwitchSchema>;
export type EngineRequest = Held<typeof engineSchema>;
export type EngineChange = Held<typeof engineChangeSchema>;
export type LogLinesRequest = Held<typeof logLinesSchema>;
export type EngineMerge = Held<typeof engineMergeSchema>;
export type CaseEngineRequest = Held<typeof caseEngineSchema>;
export type LaboratoryRequest = Held<typeof laboratorySchema>;
export type ShopRequest = Held<typeof shopSchema>;
export type LettersRequest = Held<typeof lettersSchema>;
export type LetterRequest = Held<typeof letterSchema>;
export type PartiesRequest = Held<typeof partiesSchema>;
