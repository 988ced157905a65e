import { caseView, readLayout } from '../case/views.js';
import { releaseCheck } from '../diagnosis/answers.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { stationsOf } from '../engine/stations.js';
import { entryDefinition, type EntryBody } from '../entries/entries.js';
import type { Standing } from '../entries/define.js';
import { fail, ok, type Result } from '../kit/result.js';
import type { Author } from '../ledger/entry.js';
import { versionsOf, type CaseState } from '../ledger/state.js';

/**
 * The one gate of the ledger: holds the content of an entry against its schema, its place and the case. Names the field that does not fit.
 * `author`: who writes; null where nobody in particular does, as in a case file.
 */
export function checkEntry(
  kind: string,
  station: string | null,
  body: unknown,
  state: CaseState,
  author: Author | null = null,
): Result<EntryBody> {
  const definition = entryDefinition(kind);
  if (!definition) return fail('entry-kind', `"${kind}" is not a kind of entry known here. Nothing was recorded.`, 'kind');
  const { error, value } = definition.body.validate(body, { abortEarly: true, convert: false });
  if (error) {
    const detail = error.details[0];
    return fail(
      'entry-content',
      `${detail?.message ?? 'The content does not fit'}. Nothing was recorded; what was there is unchanged.`,
      detail?.path.join('.') ?? 'body',
    );
  }
  const layout = readLayout(state);
  if (station === null && definition.stands === 'station')
    return fail('entry-station', 'This kind of entry belongs to a station. Nothing was recorded; name the station.', 'station');
  if (station !== null && definition.stands === 'case')
    return fail('entry-station', 'This kind of entry belongs to the whole case, not to a station. Nothing was recorded.', 'station');
  if (station !== null && (!layout || !stationsOf(layout).some((s) => s.id === station)))
    return fail('entry-station', `This engine has no place called "${station.slice(0, 60)}". Nothing was recorded.`, 'station');
  const at: Standing = {
    station,
    layout,
    author,
    slot: (name) => versionsOf(state, station, name),
    stripStarted: () => [...(caseView(state)?.steps.values() ?? [])].some((s) => s.value.state === 'done'),
    releaseBlocks: () => {
      const view = caseView(state);
      return view ? releaseCheck(view, diagnose(view)).blocks : ['It has no engine yet.'];
    },
  };
  const problem = definition.admit?.(value as object, at) ?? null;
  return problem ? { ok: false, problem } : ok(value as EntryBody);
}
