import Joi from 'joi';
import type { EngineLayout } from '../engine/layout.js';
import type { Grade } from '../damage/classes.js';
import { WEAR_CLASSES } from '../damage/classes.js';
import { gradeRulesSchema, type GradeBook } from '../damage/gradeBook.js';
import { surfaceReadSchema, type SurfaceRead } from '../damage/surfaceRead.js';
import { LINE_DEPTHS, type SurfaceMark } from '../damage/wearMap.js';
import { GAUGE_KINDS, type Gauge } from '../measure/gauge.js';
import { SPEC_KEYS, sheetSpecSchema, type SheetSpec, type SpecKey } from '../measure/program/specs.js';
import { DOCUMENT_SCHEMAS, DOCUMENT_SLOTS, type DocumentBodies } from './documentBodies.js';
import { DECIDE_SCHEMAS, DECIDE_SLOTS, type DecideBodies } from './decideBodies.js';
import { id, line, text } from './schemaParts.js';
import { CAUSE_SCHEMAS, CAUSE_SLOTS, type CauseBodies } from './causeBodies.js';
import { STRIP_SCHEMAS, STRIP_SLOTS, type StripBodies } from './stripBodies.js';

export type Reliability = 'told' | 'seen' | 'measured';
export const RELIABILITIES: readonly Reliability[] = ['told', 'seen', 'measured'];

export const STATION_STATES = ['not-examined', 'sound', 'findings', 'before-us', 'lost', 'not-present'] as const;
export type StationState = (typeof STATION_STATES)[number];

export const INTAKE_FIELDS = [
  'title',
  'reference',
  'questionOwner',
  'question',
  'complaint',
  'complaintWords',
  'complaintPlace',
  'complaintWhen',
  'smokeColour',
  'onset',
  'afterFirstSign',
  'ranOnFor',
  'received',
  'openedBy',
  'evidenceHolder',
  'familyExperience',
  'firstImpression',
] as const;
export type IntakeField = (typeof INTAKE_FIELDS)[number];

export const REPORT_FIELDS = ['conclusion', 'actions'] as const;
export type ReportField = (typeof REPORT_FIELDS)[number];

/** What each kind of entry carries. */
export interface EntryBodies extends StripBodies, CauseBodies, DecideBodies, DocumentBodies {
  'case-opened': { number: string; title: string; demo?: boolean };
  'layout-set': { layout: EngineLayout };
  'intake-set': { field: IntakeField; value: string };
  'history-line': {
    line: string;
    text: string;
    feature: string | null;
    reliability: Reliability;
    date: string | null;
    /** Was it said before or after the finding was put to the person? Absent where it does not matter. */
    said?: 'before-finding' | 'after-finding' | null;
  };
  'evidence-set': { feature: string; present: boolean; note: string };
  'photo-added': {
    sha256: string;
    name: string;
    mime: string;
    bytes: number;
    width: number;
    height: number;
    takenAt: string | null;
    standIn: boolean;
    /** Which shot of the list it is, when it was taken for one. */
    shot?: string | null;
  };
  'corners-set': {
    sha256: string;
    corners: ReadonlyArray<readonly [number, number]>;
    /** Pieces of a full turn: the arc in the middle of the picture, and how much of it a strip shows. */
    facingDeg?: number;
    arcDeg?: number;
  };
  'mark-made': { mark: SurfaceMark };
  'surface-read': SurfaceRead;
  'grade-confirmed': { grade: Grade; proposed: Grade | null; reason: string; book: string };
  /** A grade given by another hand without seeing the first. */
  'second-opinion': { grade: Grade; note: string };
  /** The grade book this case goes by, whole, so that it stands by itself. */
  'grade-book-set': { book: GradeBook };
  'state-set': { state: StationState };
  'pattern-set': { pattern: string; present: boolean };
  remark: { remark: string; text: string };
  'spec-set': { quantity: SpecKey; spec: SheetSpec };
  'reading-taken': {
    /** Sheet, cell and take name the place (`measureProgram`); takes are repeats, from 1. */
    sheet: string;
    cell: string;
    take: number;
    text: string;
    unit: string;
    /** Canonical unit of the cell; null: not read. */
    value: number | null;
    gauge: Gauge;
    insisted: boolean;
    /** Sent by a stand-in that ships with the application, not by a gauge on a part. */
    simulated?: boolean;
  };
  'report-set': { field: ReportField; value: string };
  retracted: { target: string; slot: string; reason: string };
}

export type EntryKind = keyof EntryBodies;
export type EntryBody = EntryBodies[EntryKind];

const share = Joi.number().min(-0.05).max(1.05);
const mm = Joi.number().min(0).max(5000);

const gauge = Joi.object({
  id: id.required(),
  name: text(80).required(),
  kind: Joi.string()
    .valid(...GAUGE_KINDS)
    .required(),
  resolutionMm: Joi.number().positive().max(1).required(),
  expandedUncertaintyMm: Joi.number().min(0).max(1).required(),
  repeatabilityMm: Joi.number().min(0).max(1).required(),
  serial: text(60),
  masterMm: mm,
  checkedOn: text(20),
});

/** Shape of a layout as data; contradictions between its fields are found by `validateLayout`. */
export const layoutSchema = Joi.object({
  template: id.required(),
  cycle: Joi.string().valid('four-stroke', 'two-stroke').required(),
  fuel: Joi.string().valid('petrol', 'diesel', 'gas', 'alcohol', 'premix').required(),
  arrangement: Joi.string().valid('single', 'inline', 'vee', 'flat').required(),
  cylinders: Joi.number().integer().min(1).max(16).required(),
  bankAngleDeg: Joi.number().min(0).max(180).required(),
  numbering: Joi.string().valid('along-each-bank', 'alternating').required(),
  firstBank: Joi.string().valid('left', 'right').required(),
  cylinderOneEnd: Joi.string().valid('front', 'flywheel').required(),
  firingOrder: Joi.array().items(Joi.number().integer()).min(1).max(16).required(),
  rotation: Joi.string().valid('clockwise', 'anticlockwise').required(),
  shaft: Joi.string().valid('level', 'upright').required(),
  crankpins: Joi.string().valid('own', 'shared').required(),
  throwAnglesDeg: Joi.array().items(Joi.number().min(-360).max(360)).min(1).max(16).required(),
  mains: Joi.number().integer().min(1).max(17).required(),
  thrustMain: Joi.number().integer().min(0).max(17).required(),
  mainBearings: Joi.string().valid('shells', 'bush', 'direct', 'rolling').required(),
  bigEnds: Joi.string().valid('shells', 'bush', 'direct', 'rolling').required(),
  shellConstruction: Joi.string().valid('trimetal', 'coated', 'aluminium-bimetal', 'bush', 'unknown').required(),
  ladderFrame: Joi.boolean().required(),
  bores: Joi.string().valid('integral-iron', 'dry-liner', 'wet-liner', 'coated-aluminium').required(),
  valveGear: Joi.string().valid('overhead-cam', 'pushrod', 'side-valve', 'ports').required(),
  followers: Joi.string().valid('solid', 'hydraulic', 'none').required(),
  camDrive: Joi.string().valid('chain', 'belt', 'gear', 'none').required(),
  lubrication: Joi.string().valid('wet-sump', 'dry-sump', 'splash', 'premix', 'total-loss').required(),
  cooling: Joi.string().valid('liquid', 'air').required(),
  boreMm: Joi.number().required(),
  strokeMm: Joi.number().required(),
  rodLengthMm: Joi.number().required(),
  compressionRatio: Joi.number().required(),
  peakRpm: Joi.number().required(),
  mainDiameterMm: Joi.number().required(),
  pinDiameterMm: Joi.number().required(),
  rodShellWidthMm: Joi.number().required(),
  mainShellWidthMm: Joi.number().required(),
});

const mark = Joi.object({
  id: id.required(),
  shape: Joi.string().valid('stroke', 'line').required(),
  class: Joi.string()
    .valid(...WEAR_CLASSES, 'unseen', 'erase')
    .required(),
  points: Joi.array().items(Joi.array().ordered(share.required(), share.required()).length(2)).min(1).max(2000).required(),
  radiusMm: Joi.number().positive().max(200).required(),
  depth: Joi.string().valid(...LINE_DEPTHS),
  made: Joi.string().valid('found-so', 'by-us').required(),
});

const sha = Joi.string().hex().length(64).required();
const pixel = Joi.number().min(-100000).max(100000);

/** Joi schema of every entry body; the one place where content is checked, on the server, in the importer and in the command-line tool. */
export const BODY_SCHEMAS: Readonly<Record<EntryKind, Joi.ObjectSchema>> = {
  ...STRIP_SCHEMAS,
  ...CAUSE_SCHEMAS,
  ...DECIDE_SCHEMAS,
  ...DOCUMENT_SCHEMAS,
  'case-opened': Joi.object({ number: line(40).required(), title: text(160).required(), demo: Joi.boolean() }),
  'layout-set': Joi.object({ layout: layoutSchema.required() }),
  'intake-set': Joi.object({
    field: Joi.string()
      .valid(...INTAKE_FIELDS)
      .required(),
    value: text(4000).required(),
  }),
  'history-line': Joi.object({
    line: id.required(),
    text: text(2000).required(),
    feature: id.allow(null).required(),
    reliability: Joi.string()
      .valid(...RELIABILITIES)
      .required(),
    date: text(40).allow(null).required(),
    said: Joi.string().valid('before-finding', 'after-finding').allow(null),
  }),
  'evidence-set': Joi.object({ feature: id.required(), present: Joi.boolean().required(), note: text(2000).required() }),
  'photo-added': Joi.object({
    sha256: sha,
    name: text(200).required(),
    mime: Joi.string().valid('image/jpeg', 'image/png', 'image/webp', 'image/heic').required(),
    bytes: Joi.number().integer().positive().required(),
    width: Joi.number().integer().positive().required(),
    height: Joi.number().integer().positive().required(),
    takenAt: text(40).allow(null).required(),
    standIn: Joi.boolean().required(),
    shot: text(80).allow(null),
  }),
  'corners-set': Joi.object({
    sha256: sha,
    corners: Joi.array().items(Joi.array().ordered(pixel.required(), pixel.required()).length(2)).length(4).required(),
    facingDeg: Joi.number().min(0).max(360),
    arcDeg: Joi.number().min(5).max(360),
  }),
  'mark-made': Joi.object({ mark: mark.required() }),
  'surface-read': surfaceReadSchema,
  'second-opinion': Joi.object({ grade: Joi.number().integer().min(0).max(4).required(), note: text(500).allow('').required() }),
  'grade-book-set': Joi.object({ book: Joi.object({ version: text(40).required(), rules: gradeRulesSchema.required() }).required() }),
  'grade-confirmed': Joi.object({
    grade: Joi.number().integer().min(0).max(4).required(),
    proposed: Joi.number().integer().min(0).max(4).allow(null).required(),
    reason: text(500).required(),
    book: text(20).required(),
  }),
  'state-set': Joi.object({
    state: Joi.string()
      .valid(...STATION_STATES)
      .required(),
  }),
  'pattern-set': Joi.object({ pattern: id.required(), present: Joi.boolean().required() }),
  remark: Joi.object({ remark: id.required(), text: text(4000).required() }),
  'spec-set': Joi.object({
    quantity: Joi.string()
      .valid(...SPEC_KEYS)
      .required(),
    spec: sheetSpecSchema.required(),
  }),
  'reading-taken': Joi.object({
    sheet: text(60).required(),
    cell: text(60).required(),
    take: Joi.number().integer().min(1).max(20).required(),
    text: text(40).required(),
    unit: text(10).required(),
    value: Joi.number().min(-5000).max(5000).allow(null).required(),
    gauge: gauge.required(),
    insisted: Joi.boolean().required(),
    simulated: Joi.boolean(),
  }),
  'report-set': Joi.object({
    field: Joi.string()
      .valid(...REPORT_FIELDS)
      .required(),
    value: text(20000).required(),
  }),
  retracted: Joi.object({ target: id.required(), slot: text(160).required(), reason: text(500).required() }),
};

export const ENTRY_KINDS = Object.keys(BODY_SCHEMAS) as EntryKind[];

type SlotRules = { readonly [K in EntryKind]: (body: EntryBodies[K]) => string };

const SLOTS: SlotRules = {
  ...STRIP_SLOTS,
  ...CAUSE_SLOTS,
  ...DECIDE_SLOTS,
  ...DOCUMENT_SLOTS,
  'case-opened': () => 'case',
  'layout-set': () => 'layout',
  'intake-set': (b) => `intake:${b.field}`,
  'history-line': (b) => `history:${b.line}`,
  'evidence-set': (b) => `evidence:${b.feature}`,
  'photo-added': (b) => `photo:${b.sha256}`,
  'corners-set': (b) => `corners:${b.sha256}`,
  'surface-read': (b) => `surface:${b.sha256}`,
  'mark-made': (b) => `mark:${b.mark.id}`,
  'grade-confirmed': () => 'grade',
  'second-opinion': () => 'second-opinion',
  'grade-book-set': () => 'grade-book',
  'state-set': () => 'state',
  'pattern-set': (b) => `pattern:${b.pattern}`,
  remark: (b) => `remark:${b.remark}`,
  'spec-set': (b) => `spec:${b.quantity}`,
  'reading-taken': (b) => `reading:${b.sheet}:${b.cell}:${b.take}`,
  'report-set': (b) => `report:${b.field}`,
  retracted: (b) => b.slot,
};

/** The field an entry writes. Two entries on different slots commute; on the same slot the later must know the earlier. */
export function slotOf(kind: EntryKind, body: EntryBody): string {
  return (SLOTS[kind] as (b: EntryBody) => string)(body);
}
