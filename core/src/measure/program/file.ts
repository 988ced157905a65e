import Joi from 'joi';
import { fail, ok, type Result } from '../../kit/result.js';
import { checkDoubt, GAUGE_KINDS, type Gauge } from '../../units/gauge.js';
import { Reader } from '../sheets/define.js';
import type { SheetOutcome } from '../sheets/line.js';
import { readSpec } from './fileSpec.js';
import { ASSUMED_GAUGE, outcomeOf } from './outcome.js';
import { SHEETS } from './sheetOf.js';

/** What `true-ledger measure` reads (`docs/formats/measure.md`). */
interface SheetFile {
  readonly sheet: string;
  /** Day of the readings, `YYYY-MM-DD`; with it, gauges whose check was overdue are told. */
  readonly takenOn?: string;
  readonly readings: unknown;
  readonly spec?: Readonly<Record<string, unknown>>;
  /** Gauge records by role; `default` stands for every role without its own. */
  readonly gauges?: Readonly<Record<string, Partial<Gauge>>>;
}

const fileSchema = Joi.object({
  $schema: Joi.string(),
  sheet: Joi.string().required(),
  takenOn: Joi.string().isoDate(),
  readings: Joi.any().required(),
  spec: Joi.object().unknown(true),
  gauges: Joi.object().pattern(
    Joi.string().max(40),
    Joi.object({
      id: Joi.string().max(80),
      name: Joi.string().max(80),
      kind: Joi.string().valid(...GAUGE_KINDS),
      resolutionMm: Joi.number().positive().max(1),
      expandedUncertaintyMm: Joi.number().min(0).max(1),
      repeatabilityMm: Joi.number().min(0).max(1),
      serial: Joi.string().max(60),
      masterMm: Joi.number().positive(),
      checkedOn: Joi.string().max(20),
    }),
  ),
});

/** Reads a sheet file, computes and judges. Every fault names its place; nothing is guessed. */
export function runSheet(json: unknown): Result<SheetOutcome> {
  const checked = fileSchema.validate(json, { abortEarly: true, convert: false });
  const first = (e: Joi.ValidationError, under = ''): Result<never> => {
    const detail = e.details[0];
    return fail(
      'sheet-file',
      `The sheet was not computed: ${detail?.message ?? 'it has the wrong shape'}. See docs/formats/measure.md.`,
      [under, detail?.path.join('.')].filter(Boolean).join('.'),
    );
  };
  if (checked.error) return first(checked.error);
  const file = checked.value as SheetFile;
  const sheet = SHEETS[file.sheet];
  if (!sheet)
    return fail(
      'sheet-unknown',
      `"${file.sheet.slice(0, 40)}" is not a sheet known here. Known: ${Object.keys(SHEETS).join(', ')}.`,
      'sheet',
    );
  const readings = sheet.file.validate(file.readings, { abortEarly: true, convert: false });
  if (readings.error) return first(readings.error, 'readings');
  const spec = readSpec(file.spec ?? {});
  if (!spec.ok) return spec;
  const { sizes, bands, unused } = spec.value;
  const reader = new Reader();
  const compute = sheet.ofFile(readings.value, reader);
  if (reader.problem) return { ok: false, problem: reader.problem };
  const assumed = new Set<string>();
  const overdue = new Set<string>();
  const gauge = (role: string): Gauge => {
    if (!file.gauges?.[role] && !file.gauges?.['default']) assumed.add(role);
    const record: Gauge = { ...ASSUMED_GAUGE, id: role, ...file.gauges?.['default'], ...file.gauges?.[role] };
    const doubt = file.takenOn ? checkDoubt(record, file.takenOn) : null;
    if (doubt) overdue.add(doubt);
    return record;
  };
  const run = compute({ gauge, sizes });
  if (run.refused) return { ok: false, problem: run.refused.problem };
  const outcome = outcomeOf(file.sheet, run, bands);
  return ok({
    ...outcome,
    questions: [
      ...outcome.questions,
      ...overdue,
      ...[...unused, ...Object.keys(bands).filter((id) => !run.lines.some((l) => l.id === id))].map(
        (key) => `"${key}" of the specification was not used: this sheet has no such result or size.`,
      ),
      ...[...assumed].map(
        (role) =>
          `No gauge is recorded for "${role}": resolution ${ASSUMED_GAUGE.resolutionMm} mm, U ${ASSUMED_GAUGE.expandedUncertaintyMm} mm and repeatability ${ASSUMED_GAUGE.repeatabilityMm} mm were assumed.`,
      ),
    ],
  });
}

/** The answer as a file (`docs/formats/measure.md`). */
export function sheetJson(outcome: SheetOutcome): object {
  return { format: 'true-ledger/measure', version: 1, ...outcome };
}
