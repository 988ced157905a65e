import { engineTemplate } from '../engine/templates.js';
import { applyEntry } from '../entries/entries.js';
import { emptyCase, type CaseState } from '../ledger/state.js';

/** One entry written onto a case, past the gate: for tests of what is read from it. Its time is one second a number. */
export function write(state: CaseState, kind: string, station: string | null, body: object, author = 'Mara'): CaseState {
  const seq = state.seq + 1;
  return applyEntry(state, {
    id: `e${seq}`,
    kind: kind as never,
    station,
    body: body as never,
    author: { id: author.toLowerCase(), name: author },
    time: new Date(Date.UTC(2026, 2, 2, 8, 0, seq)).toISOString(),
    seq,
    hash: `h${seq}`,
  });
}

/** A case that was opened on an engine of a template and has nothing else. */
export function openedCase(template = 'inline-4-petrol'): CaseState {
  const { layout } = engineTemplate(template)!;
  return write(write(emptyCase('c'), 'case-opened', null, { number: '7', title: 'Winch' }), 'layout-set', null, { layout });
}

/** The same with these entries on it, in order. */
export const written = (
  ...entries: ReadonlyArray<readonly [kind: string, station: string | null, body: object, author?: string]>
): CaseState => entries.reduce((state, [kind, station, body, author]) => write(state, kind, station, body, author), openedCase());
