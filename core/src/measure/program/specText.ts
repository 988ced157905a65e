import { fail, ok, type Result } from '../../kit/result.js';
import { parseLength } from '../../units/length.js';
import { USUAL_STEPS_MM } from '../sheets/sizes.js';
import { SPEC_KINDS, specFields, type LineLimit, type SheetSpec, type SpecKey } from './specs.js';

/** A specification as typed: `minMm`, `maxMm`, `steps` …, and `wear.lower`, `wear.upper` by result. */
export type SpecTexts = Readonly<Record<string, string>>;

const SIZE_FIELDS = ['minMm', 'maxMm', 'outOfRoundMaxMm', 'taperMaxMm', 'newWallMm'] as const;
/** What stands in the fields of a form for a specification. */
export function specTexts(key: SpecKey, spec: SheetSpec | null): SpecTexts {
  const fields = specFields(key);
  const texts: Record<string, string> = {};
  for (const field of SIZE_FIELDS) texts[field] = spec?.[field] === undefined ? '' : String(spec[field]);
  if (fields.steps) texts['steps'] = spec?.[fields.steps]?.join(', ') ?? USUAL_STEPS_MM.join(', ');
  for (const line of fields.lines)
    for (const side of ['lower', 'upper'] as const) {
      const value = spec?.limits?.[line.id]?.[side];
      texts[`${line.id}.${side}`] = value === undefined ? '' : String(value);
    }
  return texts;
}

/** Reads the fields of a form. Lengths may carry a unit; other results are in the unit the form names. An empty form is no specification: null. */
export function specFromTexts(key: SpecKey, texts: SpecTexts, source: string): Result<SheetSpec | null> {
  const { name } = SPEC_KINDS[key];
  const fields = specFields(key);
  let problem: string | null = null;
  const figure = (field: string, what: string, unit = 'mm'): number | undefined => {
    const text = texts[field]?.trim() ?? '';
    if (text === '') return undefined;
    if (unit === 'mm') {
      const sign = /^[-−]/.test(text) ? -1 : 1;
      const read = parseLength(text.replace(/^[-−+]\s*/, ''), { unit: 'mm' });
      if (read.ok && read.value.kind === 'value') return sign * read.value.mm;
    } else {
      const value = Number(text.replace(',', '.'));
      if (Number.isFinite(value)) return value;
    }
    problem ??= `${name}, ${what}: "${text.slice(0, 20)}" is not a figure in ${unit}.`;
    return undefined;
  };
  const spec: { -readonly [K in keyof SheetSpec]: SheetSpec[K] } = { source: source.trim() };
  if (fields.sizes) {
    const minMm = figure('minMm', 'least size new');
    const maxMm = figure('maxMm', 'largest size new');
    if ((minMm === undefined) !== (maxMm === undefined)) problem ??= `${name}: both sizes are needed, or none.`;
    else if (minMm !== undefined && maxMm !== undefined) {
      if (minMm > maxMm) problem ??= `${name}: the largest size is smaller than the least.`;
      Object.assign(spec, { minMm, maxMm });
    }
  }
  if (fields.roundness) {
    const round = figure('outOfRoundMaxMm', 'out-of-round');
    const taper = figure('taperMaxMm', 'taper');
    if (round) spec.outOfRoundMaxMm = round;
    if (taper) spec.taperMaxMm = taper;
  }
  if (fields.newWall) {
    const wall = figure('newWallMm', 'wall of a new half');
    if (wall) spec.newWallMm = wall;
  }
  const limits: Record<string, LineLimit> = {};
  for (const line of fields.lines) {
    const lower = line.side === 'upper' ? undefined : figure(`${line.id}.lower`, line.name, line.unit);
    const upper = line.side === 'lower' ? undefined : figure(`${line.id}.upper`, line.name, line.unit);
    if (lower !== undefined && upper !== undefined && lower > upper)
      problem ??= `${name}, ${line.name}: the lower limit is above the upper.`;
    if (lower !== undefined || upper !== undefined)
      limits[line.id] = { ...(lower === undefined ? {} : { lower }), ...(upper === undefined ? {} : { upper }) };
  }
  if (Object.keys(limits).length > 0) spec.limits = limits;
  const said = Object.keys(spec).length > 1;
  if (fields.steps) {
    const steps = (texts['steps'] ?? '')
      .split(/[\s;]+|,\s+|,(?=0?\.)/)
      .filter(Boolean)
      .map((t) => Number(t.replace(',', '.')));
    if (steps.some((v) => !(v > 0))) problem ??= `${name}: steps are figures in mm, parted by commas.`;
    else if (said) spec[fields.steps] = steps;
  }
  if (problem) return fail('spec', `${problem} Nothing was changed.`, key);
  return ok(said ? spec : null);
}

/** A specification in one line of words. */
export function specWords(specKey: SpecKey, spec: SheetSpec): string {
  const fields = specFields(specKey);
  const steps = fields.steps ? spec[fields.steps] : undefined;
  return [
    spec.minMm !== undefined && spec.maxMm !== undefined && `${spec.minMm.toFixed(3)}–${spec.maxMm.toFixed(3)} mm`,
    spec.outOfRoundMaxMm !== undefined && `out-of-round ≤ ${spec.outOfRoundMaxMm.toFixed(3)} mm`,
    spec.taperMaxMm !== undefined && `taper ≤ ${spec.taperMaxMm.toFixed(3)} mm`,
    spec.newWallMm !== undefined && `wall new ${spec.newWallMm.toFixed(3)} mm`,
    ...fields.lines.map((line) => {
      const limit = spec.limits?.[line.id];
      if (!limit) return false;
      const { lower, upper } = limit;
      const range = lower !== undefined && upper !== undefined ? `${lower}–${upper}` : lower !== undefined ? `≥ ${lower}` : `≤ ${upper}`;
      return `${line.name.toLowerCase()} ${range} ${line.unit}`;
    }),
    steps && steps.length > 0 && `${fields.steps === 'undersizesMm' ? 'undersizes' : 'oversizes'} ${steps.join(', ')}`,
  ]
    .filter(Boolean)
    .join('; ');
}
