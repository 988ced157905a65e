import { engineTemplate } from '../engine/templates.js';
import { applyEntry } from '../entries/entries.js';
import { emptyCase, type CaseState } from '../ledger/state.js';
import { caseView, type CaseView } from './views.js';
import type { WearClass } from '../damage/classes.js';
import { looksLike } from './likeness.js';

function caseWith(
  strokes: ReadonlyArray<
    readonly [station: string, cls: WearClass, from: readonly [number, number], to: readonly [number, number], radius: number]
  >,
): CaseView {
  let state: CaseState = emptyCase('00000000-0000-4000-8000-000000000001');
  let seq = 0;
  const add = (kind: string, station: string | null, body: object): void => {
    seq++;
    state = applyEntry(state, {
      id: `e${seq}`,
      seq,
      hash: `h${seq}`,
      kind: kind as never,
      station,
      body: body as never,
      author: { id: 'a', name: 'A' },
      time: '2026-01-01T00:00:00Z',
    });
  };
  add('layout-set', null, { layout: engineTemplate('inline-4-petrol')!.layout });
  strokes.forEach(([station, cls, from, to, radiusMm], k) =>
    add('mark-made', station, { mark: { id: `m${k}`, shape: 'stroke', class: cls, points: [from, to], radiusMm, made: 'found-so' } }),
  );
  return caseView(state)!;
}
const wipeAt = (station: string, u: number) => [station, 'lining', [u, 0.2], [u, 0.8], 4] as const;

describe('which surfaces look alike', () => {
  it('the same wear at the same place comes first, another kind of wear last', () => {
    const view = caseWith([
      wipeAt('rod.1.shell.upper', 0.5),
      wipeAt('rod.2.shell.upper', 0.5),
      wipeAt('rod.3.shell.upper', 0.9),
      ['rod.4.shell.upper', 'rust', [0.5, 0.2], [0.5, 0.8], 4],
      ['crank.pin.1', 'heat', [0.5, 0.5], [0.6, 0.5], 6],
    ]);
    const found = looksLike(view.byId.get('rod.1.shell.upper')!, view.stations);
    expect(found[0]!.view.station.id).toBe('rod.2.shell.upper');
    expect(found[0]!.alike).toBeCloseTo(1, 5);
    expect(found[0]!.why).toBe('lining exposed on both');
    expect(found[1]!.view.station.id).toBe('rod.3.shell.upper');
    expect(found[1]!.alike).toBeLessThan(0.9);
    // Rust shares nothing with bare lining, and a journal is no shell.
    expect(found.map((f) => f.view.station.id)).not.toContain('rod.4.shell.upper');
    expect(found.map((f) => f.view.station.id)).not.toContain('crank.pin.1');
  });
  it('is the same both ways', () => {
    const view = caseWith([wipeAt('rod.1.shell.upper', 0.4), wipeAt('rod.2.shell.upper', 0.6)]);
    const [one, two] = ['rod.1.shell.upper', 'rod.2.shell.upper'].map((id) => view.byId.get(id)!);
    expect(looksLike(one!, view.stations)[0]!.alike).toBeCloseTo(looksLike(two!, view.stations)[0]!.alike, 6);
  });
  it('nothing was looked at, nothing is alike', () => {
    const view = caseWith([wipeAt('rod.1.shell.upper', 0.4)]);
    expect(looksLike(view.byId.get('rod.2.shell.upper')!, view.stations)).toEqual([]);
    expect(looksLike(view.byId.get('rod.1.shell.upper')!, view.stations)).toEqual([]);
  });
});
