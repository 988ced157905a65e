import { engineTemplate, stationsOf, type EngineLayout } from '@true-ledger/core/engine';
import { emptyCase } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { comparisons } from './comparisons.js';

const AUTHOR = { id: 'mara', name: 'Mara' };
function compared(template: string, id: string): Array<[string, string]> {
  const layout: EngineLayout = engineTemplate(template)!.layout;
  const state = foldEntries(emptyCase('c'), [
    {
      id: 'l',
      kind: 'layout-set',
      station: null,
      body: { layout } as never,
      author: AUTHOR,
      time: '2026-03-02T08:00:00.000Z',
      seq: 1,
      hash: '1',
    },
  ]);
  const byId = new Map(caseView(state)!.stations.map((s) => [s.station.id, s]));
  const station = stationsOf(layout).find((s) => s.id === id)!;
  return comparisons(layout, station, byId).map((c) => [c.view.station.id, c.why]);
}

describe('what a place is compared with', () => {
  it('a half shell: its other half, what it runs on, its neighbours', () => {
    expect(compared('inline-4-petrol', 'rod.2.shell.upper')).toEqual([
      ['rod.2.shell.lower', 'other half'],
      ['crank.pin.2', 'what it runs on'],
      ['rod.1.shell.upper', 'neighbour to the front'],
      ['rod.3.shell.upper', 'neighbour to the rear'],
    ]);
  });
  it('the first and the last have a neighbour on one side only', () => {
    const first = compared('inline-4-petrol', 'main.1.shell.lower');
    expect(first).toContainEqual(['crank.main.1', 'what it runs on']);
    expect(first).toContainEqual(['main.2.shell.lower', 'neighbour to the rear']);
    expect(first.filter(([, why]) => why === 'neighbour to the front')).toEqual([]);
    expect(compared('inline-4-petrol', 'main.5.shell.lower').filter(([, why]) => why === 'neighbour to the rear')).toEqual([]);
  });
  it('a journal: the two halves that run on it', () => {
    expect(compared('inline-4-petrol', 'crank.main.3').slice(0, 2)).toEqual([
      ['main.3.shell.upper', 'upper half on it'],
      ['main.3.shell.lower', 'lower half on it'],
    ]);
  });
  it('never with itself, and nothing twice', () => {
    for (const { id } of stationsOf(engineTemplate('inline-4-petrol')!.layout)) {
      const ids = compared('inline-4-petrol', id).map(([other]) => other);
      expect(ids).not.toContain(id);
      expect(new Set(ids).size).toBe(ids.length);
    }
  });
});
