import { engineTemplate } from '@true-ledger/core/engine';
import { screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, openShop, Shop } from '../testing/bench.js';
import { NewCase } from './NewCase.js';

// A case is opened with an engine that can exist; what contradicts itself is told at once.
const page = (
  <Routes>
    <Route path="/new" element={<NewCase />} />
    <Route path="/case/:caseId/intake" element={<p>the intake</p>} />
  </Routes>
);
interface Sent {
  readonly id: string;
  readonly title: string;
  readonly layout: { template: string; boreMm: number; firingOrder: number[] };
  readonly sheet: object | null;
  readonly like?: string;
}
function shopOf(answer: (n: number) => Response = () => json(201, { id: 'made' })): Shop & { sent: Sent[] } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[] });
  const { layout } = engineTemplate('vee-8-petrol') ?? engineTemplate('inline-6-petrol')!;
  shop.more.set('GET /api/sheets', () =>
    json(200, [
      { id: 'club-8', version: 3, name: 'Club eight', source: 'Book p. 12', by: 'Mara', time: '2026-10-01', layout, limits: [], specs: {} },
    ]),
  );
  shop.more.set('POST /api/cases', async (request) => {
    shop.sent.push((await request.json()) as Sent);
    return answer(shop.sent.length);
  });
  return shop;
}
const open = (): HTMLButtonElement => screen.getByText('Open case').closest('button')!;

describe('a new case', () => {
  it('needs to say what it is about, and opens at its intake', async () => {
    const shop = shopOf();
    const { user } = openShop(page, { shop, at: '/new' });
    expect(open().disabled).toBe(true);
    await user.type(screen.getByLabelText('What is it about'), 'Winch engine, knock when hot');
    await user.click(open());
    expect(await screen.findByText('the intake')).toBeTruthy();
    expect(shop.sent).toHaveLength(1);
    expect(shop.sent[0]).toMatchObject({ title: 'Winch engine, knock when hot', sheet: null });
  });

  it('is not opened with an engine that contradicts itself, and says which field', async () => {
    const { user } = openShop(page, { shop: shopOf(), at: '/new' });
    await user.type(screen.getByLabelText('What is it about'), 'Knock');
    const order = screen.getByLabelText('Firing order');
    await user.clear(order);
    await user.type(order, '1-2-2-4');
    expect(screen.getByRole('alert').textContent).toMatch(/firing order/i);
    expect(open().disabled).toBe(true);
    await user.clear(order);
    await user.type(order, '1-3-4-2');
    await waitFor(() => expect(open().disabled).toBe(false));
  });

  it('asked again after a lost answer, it is the same case', async () => {
    const shop = shopOf((n) =>
      n === 1 ? json(503, { code: 'busy', sentence: 'The server is busy. Nothing was opened.' }) : json(201, { id: 'made' }),
    );
    const { user } = openShop(page, { shop, at: '/new' });
    await user.type(screen.getByLabelText('What is it about'), 'Knock');
    await user.click(open());
    expect((await screen.findByRole('alert')).textContent).toContain('Nothing was opened');
    await user.click(open());
    await screen.findByText('the intake');
    expect(shop.sent[0]!.id).toBe(shop.sent[1]!.id);
  });

  it('takes the layout of a sheet named in the address, and names its version', async () => {
    const shop = shopOf();
    const { user } = openShop(page, { shop, at: '/new?sheet=club-8' });
    expect(await screen.findByText(/from Club eight, version 3 \(Book p\. 12\)/)).toBeTruthy();
    await user.type(screen.getByLabelText('What is it about'), 'Spun shell');
    await user.click(open());
    await screen.findByText('the intake');
    expect(shop.sent[0]!.sheet).toEqual({ id: 'club-8', version: 3 });
  });

  it('of the same engine as another takes its layout, until another engine is chosen', async () => {
    const shop = shopOf();
    const { user } = openShop(page, { shop, at: '/new?like=c0000000-0000-4000-8000-000000000001' });
    expect(await screen.findByText(/The same engine as in 2026-T01/)).toBeTruthy();
    await user.type(screen.getByLabelText('What is it about'), 'Again');
    await user.click(open());
    await screen.findByText('the intake');
    expect(shop.sent[0]!.like).toBe('c0000000-0000-4000-8000-000000000001');
  });

  it('what was typed and corrected is there again after the page was left', async () => {
    const first = openShop(page, { shop: shopOf(), at: '/new' });
    await first.user.type(screen.getByLabelText('What is it about'), 'Half a title');
    const kept = Object.values({ ...localStorage });
    first.unmount();
    expect(kept).toContain('Half a title');
  });
});
