import { school } from '../../damage/schools.js';
import type { EngineLayout } from '../../engine/layout.js';
import { engineTemplate } from '../../engine/templates.js';
import { isNamedBy, stationsOf } from '../../engine/stations.js';
import type { IntakeField } from '../../entries/registry.js';
import { applyEntry, type EntryBodies, type EntryBody, type EntryKind } from '../../entries/entries.js';
import { checkEntry } from '../../gate/admit.js';
import { emptyCase, type CaseState } from '../../ledger/state.js';
import { foundWear, foundWearOf } from '../../case/foundWear.js';
import { caseView, type CaseView } from '../../case/views.js';
import { placeOf } from '../../measure/program/program.js';
import { cellUnits, readCell } from '../../measure/program/readCell.js';
import type { SpecKey } from '../../measure/program/specs.js';
import { feature } from '../../cause/data/features.js';
import { readAnswer } from '../../opening/record.js';
import { parseQuantity } from '../../units/quantity.js';
import { fail, ok, type Problem, type Result } from '../../kit/result.js';
import { caseFileDoubts, type CaseFileDoubt } from './doubts.js';
import { addFinding, addSight, contradiction, stationsOfFinding, type Add } from './findings.js';
import { caseFileSchema, DEFAULT_GAUGE, type CaseFile } from './format.js';

const AUTHOR = { id: 'case-file', name: 'Case file' };

/** Reads parsed JSON as a case file and folds it through the same reducer as the ledger. Every fault names its field; nothing is guessed. What was taken and is probably not meant so stands in `doubts`. */
export function readCaseFile(json: unknown): Result<{ state: CaseState; view: CaseView; doubts: readonly CaseFileDoubt[] }> {
  const checked = caseFileSchema.validate(json, { abortEarly: true, convert: false });
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
    const hit = stations.filter((s) => isNamedBy(glob, s));
    if (hit.length === 0)
      problem ??= {
        code: 'case-file-station',
        sentence: `"${glob}" matches no place of this engine; run "true-ledger stations ${file.engine.template}" for the list.`,
        field: `sound.${i}`,
      };
    for (const s of hit) add('state-set', s.id, { state: 'sound' }, `sound.${i}`);
  });
  for (const [station, value] of Object.entries(file.states ?? {})) {
    for (const s of stations.filter((x) => isNamedBy(station, x))) add('state-set', s.id, { state: value }, `states.${station}`);
  }
  problem ??= contradiction(file);
  (file.findings ?? []).forEach((f, i) => {
    for (const id of stationsOfFinding(f)) addFinding({ ...f, station: id }, stations, i, add, (p) => (problem ??= p));
  });
  (file.sights ?? []).forEach((x, i) => addSight(x, stations, i, add, (p) => (problem ??= p)));
  (file.likened ?? []).forEach((l, i) => {
    const view = caseView(state)!;
    if (Object.keys(foundWear(view, l.bearing)).length === 0)
      problem ??= {
        code: 'case-file-contradiction',
        sentence: `No half of "${l.bearing}" was read or drawn in this file, so nothing of it can be likened. Give its "reads" or "marks", or leave it out.`,
        field: `likened.${i}.bearing`,
      };
    add('wear-likened', null, { ...l, of: foundWearOf(view, l.bearing) }, `likened.${i}`);
  });
  if (file.priors) add('priors-taken', null, { priors: file.priors }, 'priors');
  if (file.oilLog) add('oil-log-taken', null, { log: file.oilLog }, 'oilLog');
  (file.notes ?? []).forEach((note, i) => add('remark', null, { remark: `g${i}`, text: note }, `notes.${i}`));
  (file.evidence ?? []).forEach((e, i) => {
    if (!feature(e.feature))
      problem ??= {
        code: 'case-file-feature',
        sentence: `"${e.feature}" is not a feature known here; run "true-ledger features" for the list.`,
        field: `evidence.${i}.feature`,
      };
    add(
      'evidence-set',
      null,
      { feature: e.feature, present: e.present, note: e.note ?? '', ...(e.reliability ? { reliability: e.reliability } : {}) },
      `evidence.${i}`,
    );
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
  const doubts = caseFileDoubts(file, layout);
  // Version 1 let slips pass and still does; from version 2 on they are refused. What a case exports stands in its ledger already.
  if (file.version >= 2 && file.case?.ledgerHead === undefined && doubts[0])
    return fail('case-file-slip', doubts[0].sentence, doubts[0].field);
  return ok({ state, view: caseView(state)!, doubts });
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
        // The unit it was typed in, where it carries one.
        unit: read.value.unit,
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
