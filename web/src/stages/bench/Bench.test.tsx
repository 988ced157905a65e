import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { usualSetting } from '@true-ledger/core/running';
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
/** Pressed without the way down and up of the pointer, which the library of the zoom watches and the simulated browser does not carry. */
const press = (id: string): void => void fireEvent.click(cell(id));
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
    press('rod.1.shell.upper');
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
    press('rod.1.shell.upper');
    await user.keyboard('n');
    await settled();
    expect(shop.posts).toEqual([]);
    expect(await screen.findByText(/has findings\. Take them back first/)).toBeTruthy();
    press('rod.2.shell.upper');
    await user.keyboard('n');
    await waitFor(() => expect(shop.view.byId.get('rod.2.shell.upper')!.state).toBe('sound'));
  });

  it('opens the place under the cursor with Enter and its sheet with m', async () => {
    const { user } = await open(page);
    press('crank.pin.1');
    cell('crank.pin.1').focus();
    await user.keyboard('{Enter}');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/station/crank.pin.1`);
    await user.keyboard('m');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/measure/crank.pin.1`);
  });

  it('lays over the surfaces what is asked for, by key in turn', async () => {
    const { user } = await open(page);
    press('rod.1.shell.upper');
    const over = (): string => document.querySelector('.bench-bar .ant-select')!.textContent!;
    expect(over()).toContain('Nothing over it');
    await user.keyboard('o');
    expect(over()).toContain('Not examined');
    await user.keyboard('o');
    expect(over()).toContain('Oil order');
    expect(screen.getByText(/how far along the oil route/)).toBeTruthy();
  });

  it('shows what every bearing would wear at the usual setting, and says that it is that', async () => {
    const { user } = await open(page);
    press('rod.1.shell.upper');
    await user.keyboard('oooooo');
    expect(await screen.findByText(/The usual setting; keep another on Loads/)).toBeTruthy();
  });

  it('shows what every bearing would wear at the setting kept last', async () => {
    const shop = new Shop();
    const setting = { ...usualSetting(shop.view.layout, 'rod.2', {}), speedRpm: 1000, oilTemperatureC: 130 };
    shop.write('run-kept', null, { bearing: 'rod.2', setting, note: '' });
    const { user } = await open(page, { shop });
    press('rod.1.shell.upper');
    await user.keyboard('oooooo');
    expect(await screen.findByText(/^At 1000 rpm, .* at 130 °C: \d bearings wear\. The setting kept last on Loads\.$/)).toBeTruthy();
  });

  it('puts the chosen ones side by side, and whole kinds by keys of their own', async () => {
    const { user } = await open(page);
    press('rod.1.shell.upper');
    await user.keyboard('x{ArrowRight}x=');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/compare/rod.1.shell.upper,rod.2.shell.upper`);
    await user.keyboard('ae');
    expect(screen.getByRole('status').textContent).toContain('rod.4.shell.lower');
  });

  it('leaves out of a choice what has no surface', async () => {
    const { user } = await open(page);
    press('oil.gallery');
    await user.keyboard('x');
    expect(screen.queryByText(/side by side/)).toBeNull();
  });

  it('takes nothing from a reader', async () => {
    const { shop, user } = await open(page, { role: 'reader' });
    press('rod.1.shell.upper');
    await user.keyboard('2n');
    await settled();
    expect(shop.posts).toEqual([]);
  });
});
