import { diagnose } from '@true-ledger/core/diagnosis';
import { screen, waitFor, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Route, Routes } from 'react-router';
import { CaseContext, useCase } from '../../app/caseContext.js';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { CauseStage } from './CauseStage.js';

// The differential on the page: what the core says, nothing else, and the builder's own word beside it.
const page = (
  <Routes>
    <Route path="/case/:caseId/cause/:causeId?" element={<CauseStage />} />
  </Routes>
);
const at = `/case/${CASE}/cause`;
function dry(): Shop {
  const shop = new Shop();
  for (const n of [1, 2, 3, 4]) {
    shop.write('pattern-set', `rod.${n}.shell.lower`, { pattern: 'wiping', present: true });
    shop.write('grade-confirmed', `rod.${n}.shell.lower`, { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
  }
  shop.write('evidence-set', null, { feature: 'fluid.level-low', present: true, note: '' });
  return shop;
}
const list = (): HTMLElement => screen.getByRole('region', { name: 'Ranked causes' });

describe('the differential', () => {
  it('lists the causes as they are ranked, with how probable each is', async () => {
    const shop = dry();
    await open(page, { shop, at });
    await screen.findByRole('region', { name: 'Ranked causes' });
    const ranked = diagnose(shop.view).causes.slice(0, 9);
    const shown = [...list().querySelectorAll('li .cause-name')].map((n) => n.firstChild!.textContent);
    expect(shown).toEqual(ranked.map((c) => c.name));
    expect(screen.getByRole('status').textContent).toContain(diagnose(shop.view).ending.sentence);
  });

  it('is grey while it is the last one computed, and says that a new one is under way', async () => {
    function Old(): ReactNode {
      return (
        <CaseContext.Provider value={{ ...useCase(), lastKnown: true }}>
          <CauseStage />
        </CaseContext.Provider>
      );
    }
    await open(<Old />, { shop: dry(), at });
    expect((await screen.findByText('as last computed; being computed anew')).closest('.cause')!.className).toContain('last-known');
    expect(list().querySelectorAll('li').length).toBeGreaterThan(1);
  });

  it('goes through them by arrows, with the evidence of the one in hand', async () => {
    const { user, shop } = await open(page, { shop: dry(), at });
    await screen.findByRole('region', { name: 'Ranked causes' });
    const [first, second] = diagnose(shop.view).causes;
    expect(screen.getByRole('region', { name: `Evidence on ${first!.name}` })).toBeTruthy();
    await user.keyboard('{ArrowDown}');
    expect(await screen.findByRole('region', { name: `Evidence on ${second!.name}` })).toBeTruthy();
    await user.keyboard('{ArrowUp}');
    expect(await screen.findByRole('region', { name: `Evidence on ${first!.name}` })).toBeTruthy();
  });

  it('lets the builder confirm one only with a reason, and shows that it was he', async () => {
    const { user, shop } = await open(page, { shop: dry(), at });
    const pane = await screen.findByRole('region', { name: /^Evidence on/ });
    await user.click(within(pane).getByText('Confirm'));
    const dialog = await screen.findByRole('dialog');
    const keep = [...dialog.querySelectorAll('button')].at(-1)!;
    expect(keep.disabled).toBe(true);
    await user.type(within(dialog).getByRole('textbox'), 'No oil came out of it.');
    await user.click(keep);
    await waitFor(() => expect(shop.view.decisions).toHaveLength(1));
    expect(shop.view.decisions[0]!.value).toMatchObject({ decision: 'confirmed', reason: 'No oil came out of it.' });
    await settled();
    expect(list().textContent).toContain('confirmed');
  });

  it('changes with what is written while it is open', async () => {
    const shop = dry();
    const { user } = await open(page, { shop, at });
    const before = (await screen.findByRole('region', { name: 'Ranked causes' })).textContent;
    const next = screen.queryAllByText('Found')[0];
    expect(next).toBeTruthy();
    await user.click(next!);
    await waitFor(() => expect(shop.posts.length).toBeGreaterThan(0));
    await settled();
    expect(list().textContent).not.toBe(before);
  });

  it('is read by a reader, who decides nothing', async () => {
    await open(page, { shop: dry(), at, role: 'reader' });
    const pane = await screen.findByRole('region', { name: /^Evidence on/ });
    expect(within(pane).queryByText('Confirm')).toBeNull();
    expect(screen.queryByText('Found')).toBeNull();
  });
});
