import fc from 'fast-check';
import { caseView } from '../case/views.js';
import { engineTemplate } from '../engine/templates.js';
import { foldEntries, applyDraft } from '../entries/entries.js';
import { stationsOf } from '../engine/stations.js';
import { applyDelta, stateDelta } from './delta.js';
import { emptyCase, type CaseState } from './state.js';

const { layout } = engineTemplate('inline-4-petrol')!;
const places = [
  null,
  ...stationsOf(layout)
    .slice(0, 6)
    .map((s) => s.id),
];
const author = { id: '1', name: 'A' };
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let count = 0;
const write = (state: CaseState, station: string | null, kind: string, body: object): CaseState =>
  applyDraft(state, { id: id(++count), kind, station, body, basedOn: null }, author, '2026-11-29T08:00:00.000Z');
const start = write(write(emptyCase(id(0)), null, 'case-opened', { number: '1', title: 'T' }), null, 'layout-set', { layout });

describe('what changed between two states', () => {
  it('leads from one to the other, whatever was written, taken back or struck, and however often it was sent between', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ place: fc.nat(places.length - 1), what: fc.nat(4), send: fc.boolean() }), { maxLength: 30 }),
        (acts) => {
          let here = start;
          let sent: CaseState | null = null;
          let there: CaseState | null = null;
          const send = (): void => {
            // As it comes out of another thread: nothing of it is the same object.
            there = applyDelta(there, structuredClone(stateDelta(sent, here)));
            sent = here;
          };
          for (const { place, what, send: now } of acts) {
            const station = places[place]!;
            const slot = `remark:r${what}`;
            const held = here.groups[station ?? '']?.[slot]?.at(-1);
            if (what === 3 && held) here = write(here, station, 'retracted', { target: held.entry, slot, reason: '' });
            else if (what === 4 && held)
              here = write(here, null, 'redacted', { target: held.entry, kind: 'remark', slot, station, reason: 'private' });
            else here = write(here, station, 'remark', { remark: `r${what}`, text: String(count) });
            if (now) send();
          }
          send();
          expect(there).toEqual(here);
        },
      ),
    );
  });
  it('names only the places that were written at, and leaves what was derived from the others', () => {
    const first = write(start, 'bore.1', 'remark', { remark: 'a', text: 'x' });
    const held = applyDelta(null, structuredClone(stateDelta(null, first)));
    const before = caseView(held)!;
    const second = write(first, 'bore.2', 'remark', { remark: 'b', text: 'y' });
    const delta = stateDelta(first, second);
    expect(Object.keys(delta.groups)).toEqual(['bore.2']);
    const after = caseView(applyDelta(held, structuredClone(delta)))!;
    expect(after.byId.get('bore.1')).toBe(before.byId.get('bore.1'));
    expect(after.byId.get('bore.2')).not.toBe(before.byId.get('bore.2'));
    // Nothing was written: the whole view stays.
    expect(caseView(applyDelta(held, structuredClone(stateDelta(first, first))))).toBe(before);
  });
  it('of another case, is all of it', () => {
    const other = { ...start, caseId: id(99) };
    expect(stateDelta(other, start)).toMatchObject({ whole: true });
    expect(applyDelta(other, structuredClone(stateDelta(other, start)))).toEqual(start);
  });
});

it('folds entries in one go as one by one', () => {
  const entries = [1, 2, 3].map((n) => ({
    id: id(900 + n),
    kind: 'remark',
    station: 'bore.1',
    author,
    time: '2026-11-29T08:00:00.000Z',
    body: { remark: `r${n % 2}`, text: String(n) },
    seq: n,
    hash: String(n),
  }));
  const once = foldEntries(start, entries);
  expect(entries.reduce((s, e) => foldEntries(s, [e]), start)).toEqual(once);
});
