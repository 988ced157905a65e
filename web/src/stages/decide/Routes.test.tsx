import { planOf, simulatedRoutes } from '@true-ledger/core/salvage';
import { diagnose } from '@true-ledger/core/diagnosis';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes as Ways } from 'react-router';
import { CASE, open, Shop } from '../../testing/bench.js';
import { DecideStage } from './DecideStage.js';

// Routes side by side: every figure is core's, the chosen one is kept as a promise and held against later ones.
const page = (
  <Ways>
    <Route path="/case/:caseId/decide/:page?" element={<DecideStage />} />
  </Ways>
);
const at = `/case/${CASE}/decide/routes`;
function broken(): Shop {
  const shop = new Shop();
  shop.write('pattern-set', 'rod.2.shell.lower', { pattern: 'spun-shell', present: true });
  shop.write('grade-confirmed', 'rod.2.shell.lower', { grade: 4, proposed: null, reason: '', book: shop.view.book.version });
  return shop;
}
const table = async (): Promise<HTMLElement> => screen.findByRole('region', { name: 'Routes' }, { timeout: 20_000 });

describe('the routes', () => {
  it('are those core reckons, with their median cost and chance of the same again', async () => {
    const shop = broken();
    await open(page, { shop, at });
    const rows = [...(await table()).querySelectorAll('tbody tr')];
    const reckoned = simulatedRoutes(shop.view, diagnose(shop.view), new Date());
    expect(rows.map((r) => r.querySelector('.ant-radio-label, label')!.textContent)).toEqual(reckoned.map((r) => r.route.name));
    for (const [i, { result }] of reckoned.entries()) {
      const shown = Number(rows[i]!.querySelector('td:nth-child(2) b')!.textContent!.replaceAll(' ', ''));
      expect(Math.abs(shown - result.cost.p50)).toBeLessThanOrEqual(0.5);
    }
  });

  it('one is chosen, kept as a quote, and later told by how much it has grown', async () => {
    const shop = broken();
    const { user } = await open(page, { shop, at });
    await table();
    await user.click(within(await table()).getAllByRole('radio')[0]!);
    await waitFor(() => expect(shop.view.plan?.route).toBeTruthy());
    const keep = await screen.findByText('Keep as quote', {}, { timeout: 20_000 });
    await waitFor(() => expect(keep.closest('button')!.disabled).toBe(false), { timeout: 20_000 });
    await user.click(keep);
    await waitFor(() => expect(shop.view.quotes).toHaveLength(1));
    const quote = shop.view.quotes[0]!.value;
    expect(quote.route).toBe(shop.view.plan!.route);
    expect(quote.costHigh).toBeGreaterThanOrEqual(quote.cost);
    await waitFor(() => expect(screen.getByRole('region', { name: 'Quote' }).textContent).toContain('as promised'), { timeout: 20_000 });
  });

  it('a deadline before the start is told, not reckoned away', async () => {
    const shop = broken();
    const today = new Date().toISOString().slice(0, 10);
    shop.write('plan-set', null, { ...planOf(shop.view, new Date()), from: today, deadline: '2020-01-01' });
    await open(page, { shop, at });
    await table();
    expect(screen.getByRole('alert').textContent).toContain('no route can meet it');
  });

  it('hours and budget are kept when the hand leaves the field', async () => {
    const { shop, user } = await open(page, { shop: broken(), at });
    await table();
    const hours = screen.getByLabelText('Bench hours a day');
    await user.clear(hours);
    await user.type(hours, '4.5');
    await user.tab();
    await waitFor(() => expect(shop.view.plan?.hoursPerDay).toBe(4.5));
    const budget = screen.getByLabelText('Budget');
    await user.type(budget, '2500');
    await user.tab();
    await waitFor(() => expect(shop.view.plan?.budget).toBe(2500));
  });

  it('prices come from a file, and one that is none is told and changes nothing', async () => {
    const { shop } = await open(page, { shop: broken(), at });
    await table();
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
    fireEvent.change(input, { target: { files: [new File(['not,a,price\n1,2,3\n'], 'list.csv', { type: 'text/csv' })] } });
    await waitFor(() => expect(document.querySelector('.ant-message')?.textContent ?? '').not.toBe(''));
    expect(shop.posts).toEqual([]);
  });

  it('a reader sees figures and promises none', async () => {
    await open(page, { shop: broken(), at, role: 'reader' });
    const radios = within(await table()).getAllByRole<HTMLInputElement>('radio');
    expect(radios.every((r) => r.disabled)).toBe(true);
    expect(screen.queryByText('Take prices from CSV')).toBeNull();
  });
});
