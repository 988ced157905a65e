import Joi from 'joi';
import { GRADE_BOOK } from '../damage/gradeBook.js';
import { WEAR_CLASSES, type WearClass } from '../damage/classes.js';
import { pattern } from '../damage/patterns.js';
import { school, SCHOOLS } from '../damage/schools.js';
import { surfaceReadSchema, type SurfaceRead } from '../damage/surfaceRead.js';
import type { SurfaceMark } from '../damage/wearMap.js';
import type { EngineLayout } from '../engine/layout.js';
import { engineTemplate, ENGINE_TEMPLATES } from '../engine/templates.js';
import { matchesStation, stationsOf, type Station } from '../engine/stations.js';
import { INTAKE_FIELDS, RELIABILITIES, STATION_STATES, type IntakeField } from '../entries/registry.js';
import { type EntryBodies, type EntryBody, type EntryKind } from '../entries/entries.js';
import { checkEntry } from '../gate/admit.js';
import { applyEntry } from '../entries/entries.js';
import { emptyCase, type CaseState } from '../ledger/state.js';
import { caseView, type CaseView } from '../case/views.js';
import type { Gauge } from '../units/gauge.js';
import { measureProgram, placeOf } from '../measure/program/program.js';
import { placeReadings } from '../measured/caseMeasure.js';
import { cellUnits, readCell } from '../measure/program/readCell.js';
import { SPEC_KEYS, type SheetSpec, type SpecKey } from '../measure/program/specs.js';
import { feature } from '../cause/data/features.js';
import { readAnswer } from '../opening/record.js';
import { parseQuantity } from '../units/quantity.js';
import { fail, ok, type Problem, type Result } from '../kit/result.js';

export const CASE_FILE_FORMAT = 'true-ledger/case';
export const CASE_FILE_VERSION = 1;

/** A wear shorthand a person can write: this class on this share of the face, at this place. */
export interface WearWords {
  readonly class: WearClass;
  readonly percent: number;
  readonly where: 'front-edge' | 'rear-edge' | 'middle' | 'arc';
}

/** The case file: small enough to write by hand, complete enough to diagnose. Documented in `docs/formats/case.md`. */
export interface CaseFile {
  readonly format: typeof CASE_FILE_FORMAT;
  readonly version: typeof CASE_FILE_VERSION;
  readonly case?: { readonly number?: string; readonly title?: string; readonly ledgerHead?: string; readonly entries?: number };
  readonly engine: { readonly template: string } & Partial<EngineLayout>;
  readonly intake?: Readonly<Partial<Record<IntakeField, string | readonly string[]>>>;
  readonly history?: ReadonlyArray<{
    readonly text: string;
    readonly feature?: string | null;
    readonly reliability?: 'told' | 'seen' | 'measured';
    readonly date?: string | null;
  }>;
  /** Station patterns examined and found good, e.g. `rod.*.shell.*`. */
  readonly sound?: readonly string[];
  readonly states?: Readonly<Record<string, (typeof STATION_STATES)[number]>>;
  readonly findings?: ReadonlyArray<{
    /** A station id, or a bearing (`rod.2`, `main.1`) with `half`. */
    readonly station: string;
    readonly half?: 'upper' | 'lower' | 'both';
    /** Where it is worn when nothing is drawn. */
    readonly edge?: 'front' | 'rear' | 'both' | 'centre' | 'diagonal';
    readonly grade?: number;
    readonly patterns?: readonly string[];
    readonly absent?: readonly string[];
    readonly wear?: readonly WearWords[];
    readonly marks?: readonly SurfaceMark[];
    /** What was read in pictures of it, as the ledger keeps it. */
    readonly reads?: readonly SurfaceRead[];
    readonly note?: string;
  }>;
  /** Where builders disagree: the position this case goes by, where it is not the standard one. */
  readonly schools?: Readonly<Record<string, string>>;
  readonly evidence?: ReadonlyArray<{ readonly feature: string; readonly present: boolean; readonly note?: string }>;
  readonly specs?: Readonly<Partial<Record<SpecKey, SheetSpec>>>;
  readonly gauge?: Gauge;
  readonly gauges?: readonly Gauge[];
  /** A cell of a sheet (`true-ledger sheets TEMPLATE`), or plane and axis of a journal. */
  readonly readings?: ReadonlyArray<{
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
  }>;
  /** Answers of the checks before opening: `answer` as typed, or the chosen options. */
  readonly checks?: ReadonlyArray<{
    readonly check: string;
    readonly field: string;
    readonly answer: string | readonly string[];
    readonly unit?: string;
  }>;
  readonly limits?: ReadonlyArray<{
    readonly quantity: string;
    readonly lower?: number | null;
    readonly upper?: number | null;
    readonly unit: string;
  }>;
  readonly strip?: {
    readonly done?: readonly string[];
    /** Hold items that were recorded by a note, and those passed over. */
    readonly recorded?: readonly string[];
    readonly lost?: readonly string[];
    readonly bolts?: ReadonlyArray<{ readonly pattern: string; readonly position: string; readonly value: string; readonly unit?: string }>;
    readonly caps?: ReadonlyArray<{
      readonly cap: string;
      readonly number?: string;
      readonly agrees: boolean;
      readonly joint?: 'imperceptible' | 'step';
    }>;
    /** Turning torque as it came (`cap` '') and after each cap was eased, in order. */
    readonly easing?: ReadonlyArray<{ readonly cap: string; readonly value: string; readonly unit?: string }>;
  };
}

const words = Joi.string().max(4000).allow('');
const schema = Joi.object({
  format: Joi.string().valid(CASE_FILE_FORMAT).required(),
  version: Joi.number().valid(CASE_FILE_VERSION).required(),
  $schema: words,
  case: Joi.object({ number: words, title: words, ledgerHead: words, entries: Joi.number() }),
  engine: Joi.object({
    template: Joi.string()
      .valid(...ENGINE_TEMPLATES.map((t) => t.id))
      .required(),
  })
    .unknown(true)
    .required(),
  intake: Joi.object(Object.fromEntries(INTAKE_FIELDS.map((f) => [f, Joi.alternatives(words, Joi.array().items(words))]))),
  history: Joi.array()
    .max(500)
    .items(
      Joi.object({
        text: words.required(),
        feature: words.allow(null),
        reliability: Joi.string().valid(...RELIABILITIES),
        date: words.allow(null),
      }),
    ),
  sound: Joi.array().max(500).items(Joi.string().max(80)),
  states: Joi.object().pattern(Joi.string(), Joi.string().valid(...STATION_STATES)),
  findings: Joi.array()
    .max(1000)
    .items(
      Joi.object({
        station: Joi.string().required(),
        half: Joi.string().valid('upper', 'lower', 'both'),
        edge: Joi.string().valid('front', 'rear', 'both', 'centre', 'diagonal'),
        grade: Joi.number().integer().min(0).max(4),
        patterns: Joi.array().items(Joi.string()),
        absent: Joi.array().items(Joi.string()),
        wear: Joi.array().items(
          Joi.object({
            class: Joi.string()
              .valid(...WEAR_CLASSES)
              .required(),
            percent: Joi.number().min(0).max(100).required(),
            where: Joi.string().valid('front-edge', 'rear-edge', 'middle', 'arc').default('middle'),
          }),
        ),
        marks: Joi.array().max(5000).items(Joi.object().unknown(true)),
        reads: Joi.array().max(50).items(surfaceReadSchema),
        note: words,
      }),
    ),
  evidence: Joi.array()
    .max(500)
    .items(Joi.object({ feature: Joi.string().required(), present: Joi.boolean().required(), note: words })),
  schools: Joi.object().pattern(Joi.string().valid(...SCHOOLS.map((x) => x.id)), Joi.string()),
  specs: Joi.object(Object.fromEntries(SPEC_KEYS.map((key) => [key, Joi.object().unknown(true)]))),
  gauge: Joi.object().unknown(true),
  gauges: Joi.array()
    .max(200)
    .items(Joi.object({ id: Joi.string().required() }).unknown(true)),
  readings: Joi.array()
    .max(5000)
    .items(
      Joi.object({
        station: Joi.string(),
        sheet: Joi.string(),
        cell: Joi.string(),
        plane: Joi.string().valid('front', 'mid', 'rear'),
        axis: Joi.string().valid('A', 'B'),
        take: Joi.number().integer().min(1).max(20),
        value: Joi.alternatives(Joi.string(), Joi.number()).required(),
        unit: Joi.string().max(10),
        gauge: Joi.string(),
        insisted: Joi.boolean(),
        simulated: Joi.boolean(),
      })
        .xor('cell', 'plane')
        .and('plane', 'axis'),
    ),
  checks: Joi.array()
    .max(2000)
    .items(
      Joi.object({
        check: Joi.string().required(),
        field: Joi.string().required(),
        answer: Joi.alternatives(words, Joi.array().items(Joi.string()).max(20)).required(),
        unit: Joi.string(),
      }),
    ),
  limits: Joi.array()
    .max(60)
    .items(
      Joi.object({
        quantity: Joi.string().required(),
        lower: Joi.number().allow(null),
        upper: Joi.number().allow(null),
        unit: Joi.string().required(),
      }),
    ),
  strip: Joi.object({
    done: Joi.array().items(Joi.string()).max(400),
    recorded: Joi.array().items(Joi.string()).max(400),
    lost: Joi.array().items(Joi.string()).max(400),
    bolts: Joi.array()
      .max(1000)
      .items(
        Joi.object({
          pattern: Joi.string().required(),
          position: Joi.string().required(),
          value: Joi.string().required(),
          unit: Joi.string(),
        }),
      ),
    caps: Joi.array()
      .max(100)
      .items(
        Joi.object({
          cap: Joi.string().required(),
          number: words,
          agrees: Joi.boolean().required(),
          joint: Joi.string().valid('imperceptible', 'step'),
        }),
      ),
    easing: Joi.array()
      .max(60)
      .items(Joi.object({ cap: Joi.string().allow('').required(), value: Joi.string().required(), unit: Joi.string() })),
  }),
});

/** Gauge assumed for readings in a case file that names none: an outside micrometer of ordinary quality. */
export const DEFAULT_GAUGE: Gauge = {
  id: 'micrometer',
  name: 'Outside micrometer 0.001',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};

const AUTHOR = { id: 'case-file', name: 'Case file' };

/** Reads parsed JSON as a case file and folds it through the same reducer as the ledger. Every fault names its field; nothing is guessed. */
export function readCaseFile(json: unknown): Result<{ state: CaseState; view: CaseView }> {
  const checked = schema.validate(json, { abortEarly: true, convert: false });
  if (checked.error) {
    const detail = checked.error.details[0];
    return fail(
      'case-file',
      `The case file was not read: ${detail?.message ?? 'it has the wrong shape'}. See docs/formats/case.md.`,
      detail?.path.join('.'),
    );
  }
  const file = checked.value as CaseFile;
  const template = engineTemplate(file.engine.template)!;
  const layout: EngineLayout = { ...template.layout, ...file.engine };
  let state = emptyCase('case-file');
  let problem: Problem | null = null;
  const add = <K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K], field: string): void => {
    if (problem) return;
    const result = checkEntry(kind, station, body, state);
    if (!result.ok) {
      problem = { ...result.problem, field: [field, result.problem.field].filter(Boolean).join('.') };
      return;
    }
    const seq = state.seq + 1;
    state = applyEntry(state, { id: `f${seq}`, kind, station, body: result.value as EntryBody, author: AUTHOR, time: '', seq, hash: '' });
  };
  add('case-opened', null, { number: file.case?.number ?? '', title: file.case?.title ?? '' }, 'case');
  add('layout-set', null, { layout }, 'engine');
  if (problem) return { ok: false, problem };
  const stations = stationsOf(layout);
  for (const [field, value] of Object.entries(file.intake ?? {}))
    add(
      'intake-set',
      null,
      { field: field as IntakeField, value: Array.isArray(value) ? value.join(',') : (value as string) },
      `intake.${field}`,
    );
  (file.history ?? []).forEach((h, i) => {
    if (h.feature && !feature(h.feature))
      problem ??= {
        code: 'case-file-feature',
        sentence: `"${h.feature}" is not a feature known here; run "true-ledger features" for the list.`,
        field: `history.${i}.feature`,
      };
    add(
      'history-line',
      null,
      { line: `h${i}`, text: h.text, feature: h.feature ?? null, reliability: h.reliability ?? 'told', date: h.date ?? null },
      `history.${i}`,
    );
  });
  (file.sound ?? []).forEach((glob, i) => {
    const hit = stations.filter((s) => matchesStation(glob, s.id));
    if (hit.length === 0)
      problem ??= {
        code: 'case-file-station',
        sentence: `"${glob}" matches no place of this engine; run "true-ledger stations ${file.engine.template}" for the list.`,
        field: `sound.${i}`,
      };
    for (const s of hit) add('state-set', s.id, { state: 'sound' }, `sound.${i}`);
  });
  for (const [station, value] of Object.entries(file.states ?? {})) {
    for (const s of stations.filter((x) => matchesStation(station, x.id))) add('state-set', s.id, { state: value }, `states.${station}`);
  }
  problem ??= contradiction(file);
  (file.findings ?? []).forEach((f, i) => {
    for (const id of stationsOfFinding(f)) addFinding({ ...f, station: id }, stations, i, add, (p) => (problem ??= p));
  });
  (file.evidence ?? []).forEach((e, i) => {
    if (!feature(e.feature))
      problem ??= {
        code: 'case-file-feature',
        sentence: `"${e.feature}" is not a feature known here; run "true-ledger features" for the list.`,
        field: `evidence.${i}.feature`,
      };
    add('evidence-set', null, { feature: e.feature, present: e.present, note: e.note ?? '' }, `evidence.${i}`);
  });
  for (const [question, position] of Object.entries(file.schools ?? {})) {
    if (!school(question)?.positions.some((x) => x.id === position))
      problem ??= {
        code: 'case-file-school',
        sentence: `There is no position "${position}" on "${question}"; see docs/formats/case.md.`,
        field: `schools.${question}`,
      };
    add('school-set', null, { question, position, reason: '' }, `schools.${question}`);
  }
  for (const [quantity, spec] of Object.entries(file.specs ?? {}))
    add('spec-set', null, { quantity: quantity as SpecKey, spec }, `specs.${quantity}`);
  addReadings(file, layout, add, (p) => (problem ??= p));
  addOpening(file, layout, add, (p) => (problem ??= p));
  addStrip(file, add, (p) => (problem ??= p));
  if (problem) return { ok: false, problem };
  return ok({ state, view: caseView(state)! });
}

function addReadings(file: CaseFile, layout: EngineLayout, add: Add, report: (p: Problem) => void): void {
  const gauges = new Map((file.gauges ?? []).map((g) => [g.id, g]));
  (file.readings ?? []).forEach((r, i) => {
    const at = `readings.${i}`;
    const sheet = r.sheet ?? 'journal';
    const key = r.cell ?? `${r.plane}.${r.axis}`;
    const cell = placeOf(layout, r.station ?? null, sheet)?.cells.find((c) => c.key === key);
    if (!cell)
      return report({
        code: 'case-file-reading',
        sentence: `This engine has no place "${r.station ?? 'engine'} / ${sheet} / ${key}"; run "true-ledger sheets ${file.engine.template}" for the list.`,
        field: at,
      });
    const gauge = (r.gauge === undefined ? undefined : gauges.get(r.gauge)) ?? file.gauge ?? DEFAULT_GAUGE;
    const unit = r.unit ?? cellUnits(cell)[0]!;
    const read = readCell(cell, String(r.value), unit, gauge);
    if (!read.ok) return report({ ...read.problem, field: `${at}.value` });
    add(
      'reading-taken',
      r.station ?? null,
      {
        sheet,
        cell: key,
        take: r.take ?? 1,
        text: String(r.value),
        unit,
        value: read.value.value,
        gauge,
        insisted: r.insisted ?? false,
        ...(r.simulated ? { simulated: true } : {}),
      },
      at,
    );
  });
}

function addOpening(file: CaseFile, layout: EngineLayout, add: Add, report: (p: Problem) => void): void {
  (file.checks ?? []).forEach((c, i) => {
    const read = readAnswer(layout, c.check, c.field, c.answer, c.unit);
    if (read.ok) add('check-set', null, read.value, `checks.${i}`);
    else report({ ...read.problem, field: `checks.${i}.${read.problem.field ?? 'answer'}` });
  });
  if (file.limits && file.limits.length > 0)
    add(
      'limits-set',
      null,
      {
        sheet: null,
        limits: file.limits.map((l) => ({ quantity: l.quantity, lower: l.lower ?? null, upper: l.upper ?? null, unit: l.unit })),
      },
      'limits',
    );
}

function addStrip(file: CaseFile, add: Add, report: (p: Problem) => void): void {
  const strip = file.strip ?? {};
  const torque = (value: string, unit: string | undefined, field: string): { unit: 'N·m'; text: string; newtonMetre: number } | null => {
    const read = parseQuantity(value, 'torque', unit ?? 'N·m');
    if (!read.ok) {
      report({ ...read.problem, field });
      return null;
    }
    return { unit: read.value.unit as 'N·m', text: value, newtonMetre: read.value.value };
  };
  (strip.bolts ?? []).forEach((b, i) => {
    const t = torque(b.value, b.unit, `strip.bolts.${i}.value`);
    if (t) add('bolt-torque', null, { pattern: b.pattern, position: b.position, ...t }, `strip.bolts.${i}`);
  });
  (strip.caps ?? []).forEach((c, i) =>
    add(
      'cap-checked',
      null,
      { cap: c.cap, number: c.number ?? '', agrees: c.agrees, joint: c.joint ?? 'imperceptible', note: '' },
      `strip.caps.${i}`,
    ),
  );
  (strip.easing ?? []).forEach((e, i) => {
    const t = torque(e.value, e.unit, `strip.easing.${i}.value`);
    if (t) add('ease-torque', null, { index: i, cap: e.cap, ...t }, `strip.easing.${i}`);
  });
  for (const [outcome, items] of [
    ['recorded', strip.recorded ?? []],
    ['lost', strip.lost ?? []],
  ] as const)
    items.forEach((item, i) => add('hold-set', null, { item, outcome, note: '' }, `strip.${outcome}.${i}`));
  (strip.done ?? []).forEach((s, i) => add('step-set', null, { step: s, state: 'done', note: '' }, `strip.done.${i}`));
}

/** Stations a finding speaks of: a bearing with `half` stands for its shell halves. */
function stationsOfFinding(f: NonNullable<CaseFile['findings']>[number]): string[] {
  if (!f.half) return [f.station];
  return (f.half === 'both' ? ['upper', 'lower'] : [f.half]).map((half) => `${f.station}.shell.${half}`);
}

/** A case that says a thing and its contrary: which of the two was meant cannot be guessed. */
function contradiction(file: CaseFile): Problem | null {
  const refuse = (field: string, sentence: string): Problem => ({ code: 'case-file-contradiction', sentence, field });
  const said = new Map<string, boolean>();
  for (const [i, e] of (file.evidence ?? []).entries()) {
    if (said.has(e.feature) && said.get(e.feature) !== e.present)
      return refuse(`evidence.${i}`, `"${e.feature}" is given as found and as not there. Keep the one that was seen; nothing was read.`);
    said.set(e.feature, e.present);
  }
  const shown = new Map<string, boolean>();
  const grades = new Map<string, number>();
  for (const [i, f] of (file.findings ?? []).entries()) {
    for (const station of stationsOfFinding(f)) {
      for (const [ids, present] of [
        [f.patterns ?? [], true],
        [f.absent ?? [], false],
      ] as const)
        for (const id of ids) {
          const key = `${station} ${id}`;
          if (shown.has(key) && shown.get(key) !== present)
            return refuse(
              `findings.${i}`,
              `${station} is given as showing "${id}" and as not showing it. Keep the one that was seen; nothing was read.`,
            );
          shown.set(key, present);
        }
      if (f.grade === undefined) continue;
      if (grades.has(station) && grades.get(station) !== f.grade)
        return refuse(`findings.${i}.grade`, `${station} is graded ${grades.get(station)} and ${f.grade}. Keep one; nothing was read.`);
      grades.set(station, f.grade);
      if (f.grade >= 2 && (file.sound ?? []).includes(station))
        return refuse(`findings.${i}.grade`, `${station} is listed as sound and graded ${f.grade}. Keep one; nothing was read.`);
    }
  }
  return null;
}

type Add = <K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K], field: string) => void;

function addFinding(
  f: NonNullable<CaseFile['findings']>[number],
  stations: readonly Station[],
  index: number,
  add: Add,
  report: (p: Problem) => void,
): void {
  const at = `findings.${index}`;
  const station = stations.find((s) => s.id === f.station);
  if (!station)
    return report({
      code: 'case-file-station',
      sentence: `"${f.station}" is not a place of this engine; run "true-ledger stations" for the list.`,
      field: `${at}.station`,
    });
  const worn = f.edge ? EDGE_PATTERN[f.edge] : undefined;
  for (const [list, present] of [
    [[...(f.patterns ?? []), ...(worn ? [worn] : [])], true],
    [f.absent ?? [], false],
  ] as const) {
    for (const id of list) {
      if (!pattern(id))
        return report({
          code: 'case-file-pattern',
          sentence: `"${id}" is not a pattern known here; run "true-ledger patterns" for the list.`,
          field: `${at}.${present ? 'patterns' : 'absent'}`,
        });
      add('pattern-set', station.id, { pattern: id, present }, at);
    }
  }
  const edge: WearWords[] =
    (f.edge === 'front' || f.edge === 'rear') && !f.wear ? [{ class: 'lining', percent: 5, where: `${f.edge}-edge` }] : [];
  [...(f.wear ?? []), ...edge].forEach((w, i) => {
    const mark = markOfWords(station, w, `${index}-${i}`);
    if (mark) add('mark-made', station.id, { mark }, `${at}.wear.${i}`);
  });
  (f.reads ?? []).forEach((read, i) => add('surface-read', station.id, read, `${at}.reads.${i}`));
  (f.marks ?? []).forEach((mark, i) => add('mark-made', station.id, { mark }, `${at}.marks.${i}`));
  if (f.grade !== undefined)
    add('grade-confirmed', station.id, { grade: f.grade as 0, proposed: null, reason: '', book: GRADE_BOOK.version }, `${at}.grade`);
  if (f.note) add('remark', station.id, { remark: `n${index}`, text: f.note }, `${at}.note`);
}

const EDGE_PATTERN: Readonly<Partial<Record<string, string>>> = {
  front: 'edge-loading',
  rear: 'edge-loading',
  both: 'both-edges',
  centre: 'centre-band',
  diagonal: 'diagonal-edge',
};

/** Turns "lining on 20 % at the rear edge" into a brush stroke of that area on the developed surface. */
function markOfWords(station: Station, w: WearWords, id: string): SurfaceMark | null {
  const frame = station.surface;
  if (!frame || w.percent === 0) return null;
  const s = w.percent / 100;
  if (w.where === 'arc') {
    const side = s * frame.widthMm;
    const radius = Math.max(side, frame.heightMm) / 2;
    const points: Array<[number, number]> = [];
    for (let k = 0; k <= 8; k++) points.push([0.5, k / 8]);
    return { id: `w${id}`, shape: 'stroke', class: w.class, points, radiusMm: Math.min(radius, side / 2 || radius), made: 'found-so' };
  }
  const v = w.where === 'front-edge' ? s / 2 : w.where === 'rear-edge' ? 1 - s / 2 : 0.5;
  return {
    id: `w${id}`,
    shape: 'stroke',
    class: w.class,
    points: [
      [0, v],
      [1, v],
    ],
    radiusMm: (s * frame.heightMm) / 2,
    made: 'found-so',
  };
}

function stripOf(view: CaseView): NonNullable<CaseFile['strip']> {
  const { steps, holds, bolts, caps, easing } = view;
  const held = (outcome: 'recorded' | 'lost'): string[] =>
    [...holds.values()].filter((h) => h.value.outcome === outcome).map((h) => h.value.item);
  return {
    done: [...steps.values()].filter((s) => s.value.state === 'done').map((s) => s.value.step),
    recorded: held('recorded'),
    lost: held('lost'),
    bolts: bolts.flatMap(({ value: b }) =>
      b.newtonMetre === null ? [] : [{ pattern: b.pattern, position: b.position, value: b.text, unit: b.unit }],
    ),
    caps: [...caps.values()].map(({ value: c }) => ({ cap: c.cap, number: c.number, agrees: c.agrees, joint: c.joint })),
    easing: easing.map(({ value: e }) => ({ cap: e.cap, value: e.text, unit: e.unit })),
  };
}

/** The case file of a folded case; reading it back gives the same differential. */
export function caseFileOf(state: CaseState, view: CaseView): CaseFile {
  const intake = Object.fromEntries(INTAKE_FIELDS.map((f) => [f, view.intake(f)] as const).filter(([, v]) => v !== ''));
  const read = measureProgram(view.layout).flatMap((place) =>
    placeReadings(view, place).map((r) => ({ station: place.station, r: r.value })),
  );
  const gauges = gaugesOf(read.map(({ r }) => r.gauge));
  return {
    format: CASE_FILE_FORMAT,
    version: CASE_FILE_VERSION,
    case: { number: view.number, title: view.title, ledgerHead: state.head, entries: state.seq },
    engine: view.layout,
    intake,
    history: view.history.map((h) => ({
      text: h.value.text,
      feature: h.value.feature,
      reliability: h.value.reliability,
      date: h.value.date,
    })),
    sound: view.stations.filter((s) => s.state === 'sound' && s.marks.length === 0 && !s.grade).map((s) => s.station.id),
    states: Object.fromEntries(
      view.stations
        .filter((s) => s.state === 'lost' || s.state === 'before-us' || s.state === 'not-present')
        .map((s) => [s.station.id, s.state]),
    ),
    findings: view.stations
      .filter((s) => s.grade || s.marks.length > 0 || s.reads.length > 0 || s.patterns.length > 0 || s.remarks.length > 0)
      .map((s) => ({
        station: s.station.id,
        ...(s.grade ? { grade: s.grade.value.grade } : {}),
        patterns: s.patterns.filter((p) => p.value.present).map((p) => p.value.pattern),
        absent: s.patterns.filter((p) => !p.value.present).map((p) => p.value.pattern),
        marks: s.marks.map((m) => m.value.mark),
        ...(s.reads.length > 0 ? { reads: s.reads.map((r) => r.value) } : {}),
        ...(s.remarks.length > 0
          ? {
              note: s.remarks
                .map((r) => r.value.text)
                .join('\n')
                .slice(0, 4000),
            }
          : {}),
      })),
    ...(view.schools.size > 0 ? { schools: Object.fromEntries([...view.schools].map(([id, x]) => [id, x.value.position])) } : {}),
    evidence: view.evidence.map((e) => ({ feature: e.value.feature, present: e.value.present, note: e.value.note })),
    specs: Object.fromEntries(Object.entries(view.specs).map(([q, s]) => [q, s!.value.spec])),
    gauges: gauges.map(({ name, gauge }) => ({ ...gauge, id: name })),
    readings: read.map(({ station, r }) => ({
      ...(station === null ? {} : { station }),
      sheet: r.sheet,
      cell: r.cell,
      take: r.take,
      value: r.text,
      unit: r.unit,
      gauge: gauges.find((g) => g.key === JSON.stringify(r.gauge))!.name,
      ...(r.insisted ? { insisted: true } : {}),
      ...(r.simulated ? { simulated: true } : {}),
    })),
    checks: [...view.checks.values()]
      .filter((c) => c.value.text !== '')
      .map(({ value: c }) => ({
        check: c.check,
        field: c.field,
        answer: c.chosen.length > 0 ? c.chosen : c.text,
        ...(c.unit ? { unit: c.unit } : {}),
      })),
    limits: view.limits?.value.limits ?? [],
    strip: stripOf(view),
  };
}

/** Gauges of readings under names that tell them apart: a gauge whose record was corrected between two readings is two here, so no verdict changes. */
function gaugesOf(used: readonly Gauge[]): Array<{ readonly key: string; readonly name: string; readonly gauge: Gauge }> {
  const found: Array<{ key: string; name: string; gauge: Gauge }> = [];
  for (const gauge of used) {
    const key = JSON.stringify(gauge);
    if (found.some((f) => f.key === key)) continue;
    const same = found.filter((f) => f.gauge.id === gauge.id).length;
    found.push({ key, name: same === 0 ? gauge.id : `${gauge.id}:${same + 1}`, gauge });
  }
  return found;
}
