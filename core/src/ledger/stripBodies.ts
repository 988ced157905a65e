import Joi from 'joi';
import { id, text } from './schemaParts.js';

export const RECEIVED_STATES = ['received', 'already-off', 'missing'] as const;
export const MARK_KINDS = ['date-code', 'size-stamp', 'gasket', 'sealant', 'paint', 'fastener', 'other'] as const;
export const MARK_MEANINGS = ['opened-before', 'as-made', 'unclear'] as const;
export const QUESTION_TO = ['client', 'earlier-builder', 'maker'] as const;
export const JOINTS = ['imperceptible', 'step'] as const;

/** What the entries of intake, the checks before opening, the strip and capture carry. */
export interface StripBodies {
  'received-item': { item: string; text: string; state: (typeof RECEIVED_STATES)[number]; by: string };
  'build-mark': { mark: string; kind: (typeof MARK_KINDS)[number]; text: string; pointsTo: (typeof MARK_MEANINGS)[number] };
  'open-question': { question: string; to: (typeof QUESTION_TO)[number]; text: string; answer: string | null; answeredOn: string | null };
  'check-set': { check: string; field: string; text: string; chosen: readonly string[]; value: number | null; unit: string | null };
  'limits-set': {
    sheet: { id: string; version: number; name: string; source: string } | null;
    limits: ReadonlyArray<{ quantity: string; lower: number | null; upper: number | null; unit: string }>;
  };
  'step-set': { step: string; state: 'done' | 'open'; note: string };
  'step-order': { order: readonly string[] };
  'hold-set': { item: string; outcome: 'recorded' | 'lost'; note: string };
  'bolt-torque': { pattern: string; position: string; text: string; unit: string; newtonMetre: number | null };
  'bag-set': { bag: string; counted: number; note: string };
  'cap-checked': { cap: string; number: string; agrees: boolean; joint: (typeof JOINTS)[number]; note: string };
  'ease-torque': { index: number; cap: string; text: string; unit: string; newtonMetre: number };
  expectation: { expectation: string; step: string; text: string; held: boolean | null };
  'tag-read': {
    sha256: string;
    station: string;
    /** Corners of the tag's code in pixels of the upright original: top left, top right, bottom right, bottom left. */
    corners: ReadonlyArray<readonly [number, number]>;
    codeMm: number;
    /** Factors on linear red, green, blue that make the tag's grey neutral. */
    gains: readonly [number, number, number];
  };
  'blur-set': { sha256: string; regions: ReadonlyArray<{ x: number; y: number; r: number }> };
  'clip-added': { sha256: string; name: string; mime: string; bytes: number; seconds: number | null; takenAt: string | null };
}

const torqueUnit = Joi.string().valid('N·m', 'lb·ft', 'lb·in');
const share = Joi.number().min(0).max(1);
const pixel = Joi.number().min(-100000).max(100000);
const sha = Joi.string().hex().length(64).required();
const key = Joi.string().pattern(/^[A-Za-z0-9._:-]{1,60}$/);
/** Kinds of sound and film that are taken, as the file's own bytes say. */
export const CLIP_MIMES = [
  'audio/webm',
  'audio/ogg',
  'audio/mpeg',
  'audio/mp4',
  'audio/wav',
  'video/webm',
  'video/mp4',
  'video/quicktime',
] as const;

export const STRIP_SCHEMAS: Readonly<Record<keyof StripBodies, Joi.ObjectSchema>> = {
  'received-item': Joi.object({
    item: id.required(),
    text: text(300).required(),
    state: Joi.string()
      .valid(...RECEIVED_STATES)
      .required(),
    by: text(120).required(),
  }),
  'build-mark': Joi.object({
    mark: id.required(),
    kind: Joi.string()
      .valid(...MARK_KINDS)
      .required(),
    text: text(500).required(),
    pointsTo: Joi.string()
      .valid(...MARK_MEANINGS)
      .required(),
  }),
  'open-question': Joi.object({
    question: id.required(),
    to: Joi.string()
      .valid(...QUESTION_TO)
      .required(),
    text: text(1000).required(),
    answer: text(4000).allow(null).required(),
    answeredOn: text(20).allow(null).required(),
  }),
  'check-set': Joi.object({
    check: key.required(),
    field: key.required(),
    text: text(1000).required(),
    chosen: Joi.array().items(Joi.string().max(40)).max(20).required(),
    value: Joi.number().allow(null).required(),
    unit: text(12).allow(null).required(),
  }),
  'limits-set': Joi.object({
    sheet: Joi.object({
      id: Joi.string().max(60).required(),
      version: Joi.number().integer().min(1).required(),
      name: text(120).required(),
      source: text(200).required(),
    })
      .allow(null)
      .required(),
    limits: Joi.array()
      .max(60)
      .items(
        Joi.object({
          quantity: key.required(),
          lower: Joi.number().allow(null).required(),
          upper: Joi.number().allow(null).required(),
          unit: text(12).required(),
        }),
      )
      .required(),
  }),
  'step-set': Joi.object({ step: key.required(), state: Joi.string().valid('done', 'open').required(), note: text(1000).required() }),
  'step-order': Joi.object({ order: Joi.array().items(key).max(300).required() }),
  'hold-set': Joi.object({ item: key.required(), outcome: Joi.string().valid('recorded', 'lost').required(), note: text(1000).required() }),
  'bolt-torque': Joi.object({
    pattern: key.required(),
    position: key.required(),
    text: text(40).required(),
    unit: torqueUnit.required(),
    newtonMetre: Joi.number().min(0).max(5000).allow(null).required(),
  }),
  'bag-set': Joi.object({ bag: key.required(), counted: Joi.number().integer().min(0).max(999).required(), note: text(200).required() }),
  'cap-checked': Joi.object({
    cap: key.required(),
    number: text(40).required(),
    agrees: Joi.boolean().required(),
    joint: Joi.string()
      .valid(...JOINTS)
      .required(),
    note: text(500).required(),
  }),
  'ease-torque': Joi.object({
    index: Joi.number().integer().min(0).max(60).required(),
    cap: key.allow('').required(),
    text: text(40).required(),
    unit: torqueUnit.required(),
    newtonMetre: Joi.number().min(0).max(5000).required(),
  }),
  expectation: Joi.object({
    expectation: id.required(),
    step: key.allow('').required(),
    text: text(500).required(),
    held: Joi.boolean().allow(null).required(),
  }),
  'tag-read': Joi.object({
    sha256: sha,
    station: Joi.string().max(80).required(),
    corners: Joi.array().items(Joi.array().ordered(pixel.required(), pixel.required()).length(2)).length(4).required(),
    codeMm: Joi.number().positive().max(200).required(),
    gains: Joi.array().items(Joi.number().min(0.2).max(5)).length(3).required(),
  }),
  'blur-set': Joi.object({
    sha256: sha,
    regions: Joi.array()
      .max(500)
      .items(Joi.object({ x: share.required(), y: share.required(), r: Joi.number().min(0.002).max(0.5).required() }))
      .required(),
  }),
  'clip-added': Joi.object({
    sha256: sha,
    name: text(200).required(),
    mime: Joi.string()
      .valid(...CLIP_MIMES)
      .required(),
    bytes: Joi.number().integer().positive().required(),
    seconds: Joi.number().min(0).max(36000).allow(null).required(),
    takenAt: text(40).allow(null).required(),
  }),
};

type SlotRules = { readonly [K in keyof StripBodies]: (body: StripBodies[K]) => string };

export const STRIP_SLOTS: SlotRules = {
  'received-item': (b) => `received:${b.item}`,
  'build-mark': (b) => `build:${b.mark}`,
  'open-question': (b) => `question:${b.question}`,
  'check-set': (b) => `check:${b.check}:${b.field}`,
  'limits-set': () => 'limits',
  'step-set': (b) => `step:${b.step}`,
  'step-order': () => 'step-order',
  'hold-set': (b) => `hold:${b.item}`,
  'bolt-torque': (b) => `bolt:${b.pattern}:${b.position}`,
  'bag-set': (b) => `bag:${b.bag}`,
  'cap-checked': (b) => `cap:${b.cap}`,
  'ease-torque': (b) => `ease:${b.index}`,
  expectation: (b) => `expectation:${b.expectation}`,
  'tag-read': (b) => `tag:${b.sha256}`,
  'blur-set': (b) => `blur:${b.sha256}`,
  'clip-added': (b) => `clip:${b.sha256}`,
};
