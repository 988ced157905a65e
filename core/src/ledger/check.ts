import { validateLayout } from '../engine/validate.js';
import { stationsOf } from '../engine/stations.js';
import { ok, type Problem, type Result } from '../result.js';
import { BODY_SCHEMAS, type EntryBodies, type EntryBody, type EntryKind } from './bodies.js';
import { placeOf } from '../measure/program/program.js';
import { readCell } from '../measure/program/readCell.js';
import { readAnswer } from '../opening/record.js';
import { stripPlan } from '../strip/plan.js';
import { parseQuantity } from '../units/quantity.js';
import { releaseCheck } from '../cause/answers.js';
import { diagnose } from '../cause/diagnose.js';
import { caseView, readLayout } from './views.js';
import type { CaseState } from './state.js';

const STATION_KINDS: ReadonlySet<EntryKind> = new Set([
  'photo-added',
  'corners-set',
  'mark-made',
  'surface-read',
  'grade-confirmed',
  'second-opinion',
  'state-set',
  'pattern-set',
  'disposition-set',
  'reading-taken',
  'tag-read',
  'blur-set',
  'clip-added',
]);
const EITHER_KINDS: ReadonlySet<EntryKind> = new Set([
  'remark',
  'retracted',
  'photo-added',
  'evidence-set',
  'blur-set',
  'clip-added',
  'tag-read',
  'reading-taken',
]);

/** Checks the content of an entry against its schema and the case: body shape, layout without contradiction, station that the layout has. */
export function checkEntry(kind: EntryKind, station: string | null, body: unknown, state: CaseState): Result<EntryBody> {
  const schema = BODY_SCHEMAS[kind];
  if (!schema)
    return {
      ok: false,
      problem: {
        code: 'entry-kind',
        sentence: `"${String(kind)}" is not a kind of entry known here. Nothing was recorded.`,
        field: 'kind',
      },
    };
  const { error, value } = schema.validate(body, { abortEarly: true, convert: false });
  if (error) {
    const field = error.details[0]?.path.join('.') ?? 'body';
    return {
      ok: false,
      problem: {
        code: 'entry-content',
        sentence: `${error.details[0]?.message ?? 'The content does not fit'}. Nothing was recorded; what was there is unchanged.`,
        field,
      },
    };
  }
  if (kind === 'layout-set') {
    const problem: Problem | undefined = validateLayout((value as EntryBodies['layout-set']).layout)[0];
    if (problem) return { ok: false, problem };
  }
  if (station === null && STATION_KINDS.has(kind) && !EITHER_KINDS.has(kind))
    return {
      ok: false,
      problem: { code: 'entry-station', sentence: 'This kind of entry belongs to a station. Name the station.', field: 'station' },
    };
  if (station !== null && !STATION_KINDS.has(kind) && !EITHER_KINDS.has(kind))
    return {
      ok: false,
      problem: { code: 'entry-station', sentence: 'This kind of entry belongs to the whole case, not to a station.', field: 'station' },
    };
  if (station !== null) {
    const layout = readLayout(state);
    if (!layout || !stationsOf(layout).some((s) => s.id === station))
      return {
        ok: false,
        problem: {
          code: 'entry-station',
          sentence: `This engine has no place called "${station.slice(0, 60)}". Nothing was recorded.`,
          field: 'station',
        },
      };
  }
  const problem = stripProblem(kind, value as EntryBody, state) ?? readingProblem(kind, station, value as EntryBody, state);
  return problem ? { ok: false, problem } : ok(value as EntryBody);
}

/** What the layout and the case say against an entry of the checks before opening or the strip. */
function stripProblem(kind: EntryKind, body: EntryBody, state: CaseState): Problem | null {
  if (kind === 'intake-set' && (body as EntryBodies['intake-set']).field === 'firstImpression' && stripStarted(state))
    return {
      code: 'first-impression-locked',
      sentence: 'The strip has started: the first impression stays as it was written down before. Nothing was recorded.',
      field: 'value',
    };
  const layout = readLayout(state);
  if (!layout) return null;
  switch (kind) {
    case 'case-released': {
      const view = caseView(state);
      const release = view ? releaseCheck(view, diagnose(view)) : null;
      return release?.ready
        ? null
        : {
            code: 'release-blocked',
            sentence: `The case was not released. ${release?.blocks.join(' ') ?? 'It has no engine yet.'}`,
            field: 'kind',
          };
    }
    case 'check-set': {
      const b = body as EntryBodies['check-set'];
      const read = readAnswer(layout, b.check, b.field, b.chosen.length > 0 ? b.chosen : b.text, b.unit ?? undefined);
      if (!read.ok) return read.problem;
      return near(read.value.value, b.value) ? null : mismatch(b.text);
    }
    case 'step-set': {
      const { step } = body as EntryBodies['step-set'];
      return stripPlan(layout).byId.has(step)
        ? null
        : { code: 'step-unknown', sentence: `The strip of this engine has no step called "${step}". Nothing was recorded.`, field: 'step' };
    }
    case 'bolt-torque': {
      const b = body as EntryBodies['bolt-torque'];
      const pattern = stripPlan(layout).steps.find((s) => s.pattern?.id === b.pattern)?.pattern;
      if (!pattern?.positions.some((p) => p.id === b.position))
        return {
          code: 'bolt-unknown',
          sentence: `This engine has no fastener ${b.position} in "${b.pattern}". Nothing was recorded.`,
          field: 'position',
        };
      return b.newtonMetre === null ? null : torqueProblem(b);
    }
    case 'ease-torque':
      return torqueProblem(body as EntryBodies['ease-torque']);
    default:
      return null;
  }
}

const near = (a: number | null, b: number | null): boolean =>
  a === null || b === null ? a === b : Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));

const mismatch = (typed: string): Problem => ({
  code: 'value-text',
  sentence: `The value does not follow from "${typed.slice(0, 40)}". Nothing was recorded.`,
  field: 'value',
});

function torqueProblem(b: { readonly text: string; readonly unit: string; readonly newtonMetre: number | null }): Problem | null {
  const read = parseQuantity(b.text, 'torque', b.unit);
  if (!read.ok) return read.problem;
  return near(read.value.value, b.newtonMetre) ? null : mismatch(b.text);
}

function stripStarted(state: CaseState): boolean {
  return Object.entries(state.groups[''] ?? {}).some(
    ([slot, versions]) => slot.startsWith('step:') && (versions.at(-1)?.body as { state?: string } | undefined)?.state === 'done',
  );
}

/** A reading belongs to a cell of the program of this engine, and its value follows from what was typed. */
function readingProblem(kind: EntryKind, station: string | null, body: EntryBody, state: CaseState): Problem | null {
  if (kind !== 'reading-taken') return null;
  const layout = readLayout(state);
  if (!layout) return null;
  const b = body as EntryBodies['reading-taken'];
  const cell = placeOf(layout, station, b.sheet)?.cells.find((c) => c.key === b.cell);
  if (!cell)
    return {
      code: 'reading-place',
      sentence: `This engine has no place "${b.cell.slice(0, 40)}" on a sheet "${b.sheet.slice(0, 40)}" there. Nothing was recorded.`,
      field: 'cell',
    };
  const read = readCell(cell, b.text, b.unit, b.gauge);
  if (!read.ok) return read.problem;
  return near(read.value.value, b.value) ? null : mismatch(b.text);
}
