import { screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { Bench } from './Bench.js';

// The laid-out engine under keys alone.
function Here(): ReactNode {
  return <output>{useLocation().pathname}</output>;
}
const page = (
  <>
    <Bench />
    <Here />
  </>
);
const cell = (id: string): HTMLElement => document.querySelector<HTMLElement>(`[data-station="${id}"]`)!;
const grades = (shop: Shop): Record<string, number> =>
  Object.fromEntries(shop.view.stations.flatMap((s) => (s.grade ? [[s.station.id, s.grade.value.grade]] : [])));
beforeEach(() => sessionStorage.clear());

describe('the bench', () => {
  it('has a cell for every place of the engine', async () => {
    const { shop } = await open(page);
    for (const s of shop.view.stations) expect([s.station.id, cell(s.station.id) !== null]).toEqual([s.station.id, true]);
  });

  it('is walked by arrows and graded by figures', async () => {
    const { shop, user } = await open(page);
    await user.click(cell('rod.1.shell.upper'));
    cell('rod.1.shell.upper').focus();
    await user.keyboard('2');
    await user.keyboard('{ArrowRight}');
    await user.keyboard('1');
    await settled();
    const held = grades(shop);
    expect(held['rod.1.shell.upper']).toBe(2);
    expect(Object.keys(held)).toHaveLength(2);
  });

  it('a sound place is said so by n, and one with findings is not', async () => {
    const shop = new Shop();
    shop.write('pattern-set', 'rod.1.shell.upper', { pattern: 'wiping', present: true });
    const { user } = await open(page, { shop });
    await user.click(cell('rod.1.shell.upper'));
    await user.keyboard('n');
    await settled();
    expect(shop.posts).toEqual([]);
    expect(await screen.findByText(/has findings\. Take them back first/)).toBeTruthy();
    await user.click(cell('rod.2.shell.upper'));
    await user.keyboard('n');
    await waitFor(() => expect(shop.view.byId.get('rod.2.shell.upper')!.state).toBe('sound'));
  });

  it('opens the place under the cursor with Enter and its sheet with m', async () => {
    const { user } = await open(page);
    await user.click(cell('crank.pin.1'));
    cell('crank.pin.1').focus();
    await user.keyboard('{Enter}');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/station/crank.pin.1`);
    await user.keyboard('m');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/measure/crank.pin.1`);
  });

  it('shows grades, the way of the oil or what nobody looked at instead', async () => {
    const { user } = await open(page);
    for (const mode of ['Grades', 'Oil route', 'Not examined']) {
      await user.click(screen.getByText(mode, { selector: '.ant-segmented-item-label' }));
      expect(screen.getByText(mode, { selector: '.ant-segmented-item-label' }).closest('label')!.className).toMatch(/selected/);
    }
  });

  it('takes nothing from a reader', async () => {
    const { shop, user } = await open(page, { role: 'reader' });
    await user.click(cell('rod.1.shell.upper'));
    await user.keyboard('2n');
    await settled();
    expect(shop.posts).toEqual([]);
  });
});
