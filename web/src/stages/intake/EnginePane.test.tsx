import { screen } from '@testing-library/react';
import { CASE, json, open, settled, Shop } from '../../testing/bench.js';
import { EnginePane } from './EnginePane.js';

const RECORD = {
  mark: 'E-7',
  name: 'Launch',
  counter: 'h',
  fuel: 'petrol',
  cooling: 'liquid',
  sumpL: 5,
  marksL: 1,
  changeEvery: null,
} as const;
const level = (id: string, day: string, share: number) => ({
  id,
  kind: 'level',
  day,
  counter: null,
  supersedes: null,
  by: 'Mara',
  time: `${day}T08:00:00Z`,
  body: { share, look: null, stick: '', note: '' },
});

function shopWith(lines: object[]): Shop {
  const shop = new Shop();
  shop.more.set(`GET /api/cases/${CASE}/engine`, () => json(200, { engine: { id: 'e7', mark: 'E-7', name: 'Launch' } }));
  shop.more.set('GET /api/engines', () => json(200, []));
  shop.more.set('GET /api/engines/e7', () =>
    json(200, {
      id: 'e7',
      record: RECORD,
      version: 1,
      mergedInto: null,
      merged: [],
      lines,
      cases: [
        { id: CASE, number: '2026-T01', title: 'On the bench', stage: 'Bench', leading: null, updated: '' },
        { id: 'before', number: '2022-D01', title: 'Coolant on deck', stage: 'Document', leading: 'Head gasket', updated: '' },
      ],
      others: [],
      awaited: [],
    }),
  );
  return shop;
}

describe('the engine of a case', () => {
  it('is shown with what it was last time, and its log is taken over whole', async () => {
    const lines = [level('l1', '2026-01-01', 0.4), level('l2', '2026-02-01', 0.9)];
    const shop = shopWith(lines);
    const { user } = await open(<EnginePane />, { shop });
    await screen.findByText(/2 lines, the last on 2026-02-01/);
    expect(
      screen
        .getByText(/Head gasket/)
        .closest('a')!
        .getAttribute('href'),
    ).toBe('/case/before/cause');
    await user.click(screen.getByText('Take the log into the case'));
    await screen.findByText('The log is in the case');
    await settled();
    expect(shop.view.oilLog!.value.log).toEqual({ engine: RECORD, lines });
    await user.click(screen.getByText('Take it out'));
    await screen.findByText('Take the log into the case');
  });

  it('says when lines were written since', async () => {
    const shop = shopWith([level('l1', '2026-01-01', 0.4), level('l2', '2026-02-01', 0.9)]);
    shop.write('oil-log-taken', null, { log: { engine: RECORD, lines: [level('l1', '2026-01-01', 0.4)] } });
    await open(<EnginePane />, { shop });
    await screen.findByText(/Lines were written since it was taken/);
  });
});
