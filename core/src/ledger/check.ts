import { validateLayout } from '../engine/validate.js';
import { stationsOf } from '../engine/stations.js';
import { ok, type Problem, type Result } from '../result.js';
import { BODY_SCHEMAS, type EntryBodies, type EntryBody, type EntryKind } from './bodies.js';
import { readLayout } from './views.js';
import type { CaseState } from './state.js';

const STATION_KINDS: ReadonlySet<EntryKind> = new Set([
  'photo-added',
  'corners-set',
  'mark-made',
  'grade-confirmed',
  'state-set',
  'pattern-set',
  'reading-taken',
]);
const EITHER_KINDS: ReadonlySet<EntryKind> = new Set(['remark', 'retracted', 'photo-added', 'evidence-set']);

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
  return ok(value as EntryBody);
}
