import Joi from 'joi';
import { WEAR_CLASSES } from '../../damage/classes.js';
import { SHARE_WORDS } from '../../damage/wordMark.js';
import { SCHOOLS } from '../../damage/schools.js';
import { surfaceReadSchema, type SurfaceRead } from '../../damage/surfaceRead.js';
import type { SurfaceMark } from '../../damage/wearMap.js';
import type { EngineLayout } from '../../engine/layout.js';
import { ENGINE_TEMPLATES } from '../../engine/templates.js';
import { takenLogSchema } from '../../engineLog/lines.js';
import type { EntryBodies } from '../../entries/entries.js';
import { likenedBearing, likenedForms } from '../../entries/kinds/wearLikened.js';
import { INTAKE_FIELDS, RELIABILITIES, STATION_STATES, type IntakeField } from '../../entries/registry.js';
import {
  pair,
  figure,
  flag,
  list,
  listOf,
  nullable,
  number,
  object,
  oneOf,
  oneOrOther,
  optional,
  record,
  typed,
  whole,
  type Held,
} from '../../kit/schema.js';
import { SPEC_KEYS, type SheetSpec, type SpecKey } from '../../measure/program/specs.js';
import type { Gauge } from '../../units/gauge.js';

export const CASE_FILE_FORMAT = 'true-ledger/case';
/** What is written. Version 1 is read as before. */
export const CASE_FILE_VERSION = 2;

const words = typed<string>(Joi.string().max(4000).allow(''));
/** A word that is looked up. */
const key = typed<string>(Joi.string());
const maybe = optional(words);

/** A wear shorthand a person can write: this class on this share of the face, at this place. */
const wearWords = object({
  class: oneOf(WEAR_CLASSES),
  /** Percent of the face, a word for it, or the least and the most it may be; absent: a patch of it. */
  percent: optional(oneOrOther(oneOrOther(figure(0, 100), oneOf(SHARE_WORDS)), pair(0, 100))),
  where: optional(
    typed<'front-edge' | 'rear-edge' | 'middle' | 'arc'>(Joi.string().valid('front-edge', 'rear-edge', 'middle', 'arc').default('middle')),
  ),
});
export type WearWords = Held<typeof wearWords>;

const finding = object({
  /** A station id, or a bearing (`rod.2`, `main.1`) with `half`. */
  station: key,
  half: optional(oneOf(['upper', 'lower', 'both'])),
  /** Where it is worn when nothing is drawn. */
  edge: optional(oneOf(['front', 'rear', 'both', 'centre', 'diagonal'])),
  grade: optional(whole(0, 4)),
  patterns: optional(listOf(key)),
  absent: optional(listOf(key)),
  wear: optional(listOf(wearWords)),
  marks: optional(list(typed<SurfaceMark>(Joi.object().unknown(true)), 5000)),
  /** What was read in pictures of it, as the ledger keeps it. */
  reads: optional(list(typed<SurfaceRead>(surfaceReadSchema), 50)),
  note: maybe,
});
export type FindingWords = Held<typeof finding>;

const sight = object({
  /** A pattern or a neutral sight. */
  sight: key,
  present: optional(flag),
  /** Stations it may be at, or patterns of stations. */
  among: list(key, 200),
  /** At how many of them; absent: at every one. */
  of: optional(nullable(whole(1, 200))),
  grade: optional(nullable(whole(0, 4))),
  reliability: optional(oneOf(RELIABILITIES)),
  words: maybe,
});
export type SightWords = Held<typeof sight>;

const reading = typed<{
  /** Absent: the engine as a whole. */
  readonly station?: string;
  readonly sheet?: string;
  readonly cell?: string;
  readonly plane?: 'front' | 'mid' | 'rear';
  readonly axis?: 'A' | 'B';
  readonly take?: number;
  readonly value: string | number;
  readonly unit?: string;
  /** Id of one of `gauges`. */
  readonly gauge?: string;
  /** Taken on a second press though it looked wrong. */
  readonly insisted?: boolean;
  /** Sent by a gauge stand-in. */
  readonly simulated?: boolean;
}>(
  object({
    station: optional(key),
    sheet: optional(key),
    cell: optional(key),
    plane: optional(oneOf(['front', 'mid', 'rear'])),
    axis: optional(oneOf(['A', 'B'])),
    take: optional(whole(1, 20)),
    value: oneOrOther(key, number),
    unit: optional(typed<string>(Joi.string().max(10))),
    gauge: optional(key),
    insisted: optional(flag),
    simulated: optional(flag),
  })
    .xor('cell', 'plane')
    .and('plane', 'axis'),
);

const strip = object({
  done: optional(list(key, 400)),
  /** Hold items that were recorded by a note, and those passed over. */
  recorded: optional(list(key, 400)),
  lost: optional(list(key, 400)),
  bolts: optional(list(object({ pattern: key, position: key, value: key, unit: optional(key) }), 1000)),
  caps: optional(list(object({ cap: key, number: maybe, agrees: flag, joint: optional(oneOf(['imperceptible', 'step'])) }), 100)),
  /** Turning torque as it came (`cap` '') and after each cap was eased, in order. */
  easing: optional(list(object({ cap: typed<string>(Joi.string().allow('')), value: key, unit: optional(key) }), 60)),
});

/**
 * The case file: small enough to write by hand, complete enough to diagnose. Documented in `docs/formats/case.md`; its JSON schema is written from this one.
 */
export const caseFileSchema = object({
  format: typed<typeof CASE_FILE_FORMAT>(Joi.string().valid(CASE_FILE_FORMAT)),
  version: typed<1 | typeof CASE_FILE_VERSION>(Joi.number().valid(1, CASE_FILE_VERSION)),
  $schema: maybe,
  case: optional(object({ number: maybe, title: maybe, ledgerHead: maybe, entries: optional(number) })),
  /** A template, and what differs from it. */
  engine: typed<{ readonly template: string } & Partial<EngineLayout>>(
    object({ template: typed<string>(Joi.string().valid(...ENGINE_TEMPLATES.map((t) => t.id))) }).unknown(true),
  ),
  intake: optional(
    typed<Readonly<Partial<Record<IntakeField, string | readonly string[]>>>>(
      Joi.object(Object.fromEntries(INTAKE_FIELDS.map((f) => [f, oneOrOther(words, listOf(words))]))),
    ),
  ),
  history: optional(
    list(
      object({
        text: words,
        feature: optional(nullable(words)),
        reliability: optional(oneOf(RELIABILITIES)),
        date: optional(nullable(words)),
      }),
      500,
    ),
  ),
  /** Station patterns examined and found good, e.g. `rod.*.shell.*`. */
  sound: optional(list(typed<string>(Joi.string().max(80)), 500)),
  states: optional(record(oneOf(STATION_STATES))),
  findings: optional(list(finding, 1000)),
  /** Sights whose place is not certain, or that somebody told of. Version 2. */
  sights: optional(list(sight, 500)),
  evidence: optional(list(object({ feature: key, present: flag, note: maybe, reliability: optional(oneOf(RELIABILITIES)) }), 500)),
  /** Likeness of what was read of a bearing to the wear that load and film predict. Version 2. */
  likened: optional(list(object({ bearing: likenedBearing, forms: likenedForms }), 64)),
  /** The log of the engine as the case took it over. Version 2. */
  oilLog: optional(takenLogSchema),
  /** How often the shop proved each cause, as factors on the odds of the table. Version 2. */
  priors: optional(typed<NonNullable<EntryBodies['priors-taken']['priors']>>(Joi.object().unknown(true))),
  /** Remarks on the engine as a whole. Version 2. */
  notes: optional(list(words, 1000)),
  /** Where builders disagree: the position this case goes by, where it is not the standard one. */
  schools: optional(
    typed<Readonly<Record<string, string>>>(Joi.object().pattern(Joi.string().valid(...SCHOOLS.map((x) => x.id)), Joi.string())),
  ),
  specs: optional(
    typed<Readonly<Partial<Record<SpecKey, SheetSpec>>>>(
      Joi.object(Object.fromEntries(SPEC_KEYS.map((k) => [k, Joi.object().unknown(true)]))),
    ),
  ),
  gauge: optional(typed<Gauge>(Joi.object().unknown(true))),
  gauges: optional(list(typed<Gauge>(object({ id: key }).unknown(true)), 200)),
  /** A cell of a sheet (`true-ledger sheets TEMPLATE`), or plane and axis of a journal. */
  readings: optional(list(reading, 5000)),
  /** Answers of the checks before opening: `answer` as typed, or the chosen options. */
  checks: optional(list(object({ check: key, field: key, answer: oneOrOther(words, list(key, 20)), unit: optional(key) }), 2000)),
  limits: optional(list(object({ quantity: key, lower: optional(nullable(number)), upper: optional(nullable(number)), unit: key }), 60)),
  strip: optional(strip),
});
export type CaseFile = Held<typeof caseFileSchema>;

/** Gauge assumed for readings in a case file that names none: an outside micrometer of ordinary quality. */
export const DEFAULT_GAUGE: Gauge = {
  id: 'micrometer',
  name: 'Outside micrometer 0.001',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};
