import { screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { NewCase } from './NewCase.js';
import { Shelf } from './Shelf.js';

const line = (number: string, change: object = {}): object => ({
  id: `c-${number}`,
  number,
  title: `Engine ${number}`,
  reference: '',
  engine: 'Inline four, petrol',
  stage: 'bench',
  waitingOn: '',
  signed: 0,
  coverage: 0.4,
  unexplained: 0,
  leading: null,
  leadingProbability: null,
  updated: '2026-03-02T08:00:00.000Z',
  behind: 0,
  demo: false,
  ...change,
});
function Here(): ReactNode {
  return <output>{useLocation().pathname}</output>;
}
const door = (role: 'builder' | 'reader'): ReactNode => (
  <>
    <Routes>
      <Route path="/" element={<Shelf me={person(role)} />} />
      <Route path="/new" element={<NewCase />} />
    </Routes>
    <Here />
  </>
);
/** A shelf that answers by the words it is asked for. */
function shelved(cases: object[]): { shop: Shop; asked: URLSearchParams[] } {
  const shop = new Shop();
  const asked: URLSearchParams[] = [];
  shop.more.set('GET /api/demo', () => json(200, { taken: 0, total: 0 }));
  shop.more.set('GET /api/cases/page', (request) => {
    const query = new URL(request.url).searchParams;
    asked.push(query);
    const words = query.get('words') ?? '';
    const found = cases.filter((c) => JSON.stringify(c).includes(words) && query.get('shelved') === 'no');
    return json(200, { total: found.length, cases: found });
  });
  return { shop, asked };
}

describe('the shelf', () => {
  it('lists the cases and opens one', async () => {
    const { shop } = shelved([line('2026-001'), line('2026-002', { behind: 3 })]);
    const { user } = openShop(door('builder'), { shop });
    expect(await screen.findByText('Engine 2026-001')).toBeTruthy();
    expect(document.body.textContent).toContain('figures from 3 entries ago');
    await user.click(screen.getByText('Engine 2026-002'));
    expect(screen.getAllByRole('status').at(-1)!.textContent).toBe('/case/c-2026-002/bench');
  });

  it('shows what each waits for and how much of it was looked at, and asks the server for a stage and an order', async () => {
    const bench = { widthMm: 100, heightMm: 50, cells: [0, 0, 40, 20, 3, 50, 0, 40, 20, -1] };
    const { shop, asked } = shelved([line('2026-001', { bench, waitingOn: '4 places to look at' })]);
    const { user } = openShop(door('builder'), { shop });
    expect(await screen.findByRole('img', { name: '1 of 2 places examined; worst grade 3' })).toBeTruthy();
    expect(document.body.textContent).toMatch(/Waits for 4 places to look at · for \d+ days/);
    await user.click(screen.getByRole('combobox', { name: 'Order' }));
    await user.click(await screen.findByText('Least examined first'));
    await waitFor(() => expect(asked.at(-1)!.get('order')).toBe('examined'));
    await user.click(screen.getByRole('combobox', { name: 'Stage' }));
    await user.click(await screen.findByText('Before opening'));
    await waitFor(() => expect(asked.at(-1)!.get('stage')).toBe('Before opening'));
  });

  it('asks the server for one’s own cases, and for those that wait for somebody outside', async () => {
    const { shop, asked } = shelved([line('2026-001')]);
    const { user } = openShop(door('builder'), { shop });
    await screen.findByText('Engine 2026-001');
    const choose = async (name: string): Promise<void> => {
      await user.click(screen.getByRole('combobox', { name: 'Whose' }));
      await user.click(await screen.findByText(name));
    };
    await choose('Mine');
    await waitFor(() => expect([asked.at(-1)!.get('mine'), asked.at(-1)!.get('waits')]).toEqual(['yes', '']));
    await choose('Waits for the machine shop');
    await waitFor(() => expect([asked.at(-1)!.get('mine'), asked.at(-1)!.get('waits')]).toEqual(['no', 'machine shop']));
  });

  it('looks for words at the server and says so where no case holds them', async () => {
    const { shop, asked } = shelved([line('2026-001')]);
    const { user } = openShop(door('builder'), { shop });
    await screen.findByText('Engine 2026-001');
    await user.type(screen.getByRole('searchbox', { name: 'Find a case' }), 'winch');
    expect(await screen.findByText('No case holds these words.')).toBeTruthy();
    expect(asked.at(-1)!.get('words')).toBe('winch');
    expect(asked.at(-1)!.get('page')).toBe('0');
  });

  it('tells an empty shop what to do, and one that has put nothing away that it has not', async () => {
    const { user } = openShop(door('builder'), { shop: shelved([]).shop });
    expect(await screen.findByText(/No case yet\. Open one/)).toBeTruthy();
    await user.click(screen.getByText('Put away'));
    expect(await screen.findByText('No case is put away.')).toBeTruthy();
  });

  it('offers a reader nothing to write', async () => {
    openShop(door('reader'), { shop: shelved([line('2026-001')]).shop });
    await screen.findByText('Engine 2026-001');
    expect(screen.queryByText('Open a new case')).toBeNull();
  });

  it('says why when it cannot be fetched', async () => {
    const { shop } = shelved([]);
    shop.more.set('GET /api/cases/page', () =>
      json(503, { code: 'store-unavailable', sentence: 'The ledger cannot be reached just now.' }),
    );
    openShop(door('builder'), { shop });
    expect((await screen.findByRole('alert')).textContent).toBe('The ledger cannot be reached just now.');
  });
});

describe('a new case', () => {
  it('is opened once with a name and the layout chosen, and leads to its intake', async () => {
    const { shop } = shelved([]);
    const sent: Array<Record<string, unknown>> = [];
    shop.more.set('GET /api/sheets', () => json(200, []));
    shop.more.set('POST /api/cases', async (request) => {
      sent.push((await request.json()) as Record<string, unknown>);
      return json(201, { id: 'made', state: shop.state });
    });
    const { user } = openShop(door('builder'), { shop, at: '/new' });
    const button = (await screen.findByText('Open case')).closest('button')!;
    expect(button.disabled).toBe(true);
    await user.type(screen.getByPlaceholderText('Winch engine, knock when hot'), 'Pump, no pressure');
    await user.click(button);
    await waitFor(() => expect(screen.getAllByRole('status').at(-1)!.textContent).toBe('/case/made/intake'));
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({ title: 'Pump, no pressure', reference: '', sheet: null, layout: { template: 'inline-4-petrol' } });
  });

  it('keeps what was typed when the server refuses, and says why', async () => {
    const { shop } = shelved([]);
    shop.more.set('GET /api/sheets', () => json(200, []));
    shop.more.set('POST /api/cases', () => json(400, { code: 'layout-contradiction', sentence: 'A vee has an even number of cylinders.' }));
    const { user } = openShop(door('builder'), { shop, at: '/new' });
    const field = await screen.findByPlaceholderText<HTMLInputElement>('Winch engine, knock when hot');
    await user.type(field, 'Pump');
    await user.click(screen.getByText('Open case'));
    expect((await screen.findByRole('alert')).textContent).toBe('A vee has an even number of cylinders.');
    expect(field.value).toBe('Pump');
  });
});
