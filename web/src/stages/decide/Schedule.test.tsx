import type { CaseState } from '@true-ledger/core/ledger';
import { planOf } from '@true-ledger/core/salvage';
import { screen, waitFor } from '@testing-library/react';
import { open, settled, Shop } from '../../testing/bench.js';
import { Schedule } from './Schedule.js';

// The plan on the calendar, and what is told of figures that are older than it.
let held: Promise<void> = Promise.resolve();
jest.mock('../../workers/compute.js', () => {
  const here = jest.requireActual('../../workers/compute.js');
  return { ...here, reckonRoutes: (state: CaseState) => held.then(() => here.reckonRoutes(state)) };
});

function planned(): Shop {
  const shop = new Shop();
  shop.write('pattern-set', 'rod.2.shell.lower', { pattern: 'spun-shell', present: true });
  shop.write('grade-confirmed', 'rod.2.shell.lower', { grade: 4, proposed: null, reason: '', book: shop.view.book.version });
  shop.write('plan-set', null, { ...planOf(shop.view, new Date('2027-02-01')), from: '2027-02-01', route: 'repair' });
  return shop;
}

describe('the plan on the calendar', () => {
  it('says that the spread is from before a change until it is reckoned anew', async () => {
    const shop = planned();
    const { user } = await open(<Schedule />, { shop });
    const spread = await screen.findByLabelText('Spread of the finish');
    expect(spread.textContent).toMatch(/as likely as not by 20\d\d-\d\d-\d\d, nine times of ten by 20\d\d-\d\d-\d\d/);
    expect(spread.textContent).not.toMatch(/anew/);
    const before = spread.textContent;
    let go = (): void => undefined;
    held = new Promise((resolve) => (go = resolve));
    await user.click(screen.getByRole('checkbox', { name: 'Fr' }));
    await settled();
    expect(planOf(shop.view, new Date()).workdays).not.toContain(5);
    expect(spread.textContent).toMatch(/being reckoned anew: from before the last change/);
    go();
    await waitFor(() => expect(spread.textContent).not.toMatch(/anew/), { timeout: 20_000 });
    // Fewer days a week end later.
    expect(spread.textContent! > before!).toBe(true);
  });

  it('asks for a route where none is chosen', async () => {
    await open(<Schedule />);
    expect(await screen.findByText(/Choose a route first/)).toBeTruthy();
  });
});
