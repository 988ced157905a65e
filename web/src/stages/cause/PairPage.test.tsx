import { comparePair, diagnose } from '@true-ledger/core/diagnosis';
import { cause as causeOf, isListed } from '@true-ledger/core/cause';
import { screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { Address, address, CASE, open, settled, Shop } from '../../testing/bench.js';
import { PairPage } from './PairPage.js';

// Two causes side by side: every sign that tells them apart, where it stands.
const page = (
  <>
    <Address />
    <Routes>
      <Route path="/case/:caseId/cause/pair/:first?/:second?" element={<PairPage />} />
    </Routes>
  </>
);
const at = (pair = ''): string => `/case/${CASE}/cause/pair${pair}`;

function worn(): Shop {
  const shop = new Shop();
  for (const n of [1, 2, 3, 4]) shop.write('pattern-set', `rod.${n}.shell.lower`, { pattern: 'wiping', present: true });
  shop.write('evidence-set', null, { feature: 'fluid.level-low', present: true, note: '' });
  return shop;
}

describe('two causes side by side', () => {
  it('sets the two that lead against each other, with what each does not do', async () => {
    const shop = worn();
    await open(page, { shop, at: at() });
    const [first, second] = diagnose(shop.view).causes.filter((c) => isListed(c.id));
    const panes = [...document.querySelectorAll('.pair-does-not p')].map((p) => p.textContent);
    expect(panes[0]).toContain(first!.name);
    expect(panes[1]).toContain(second!.name);
    expect(panes[0]).toContain(causeOf(first!.id)!.doesNot);
  });

  it('lists every sign once, where it stands, with its weight either way', async () => {
    const shop = worn();
    await open(page, { shop, at: at('/oil-low/pump-worn') });
    const [a, b] = [document.querySelectorAll('.pair-does-not b')[0]!, document.querySelectorAll('.pair-does-not b')[1]!];
    const ranked = diagnose(shop.view).causes;
    const idOf = (name: string): string => ranked.find((c) => `${c.name}.` === name)!.id;
    const signs = comparePair(shop.view, causeOf(idOf(a.textContent!))!, causeOf(idOf(b.textContent!))!);
    const count = (title: string): number =>
      Number(screen.queryByRole('region', { name: title })?.querySelector('.figure')?.textContent ?? 0);
    expect(count('Still possible')).toBe(signs.filter((s) => s.state === 'still possible').length);
    expect(count('Already seen')).toBe(signs.filter((s) => s.state === 'found' || s.state === 'not there').length);
    expect(count('Still possible') + count('Already seen')).toBeGreaterThan(0);
  });

  it('what was lost with a step is listed as lost, not as still to look at', async () => {
    const shop = worn();
    shop.write('hold-set', null, { item: 'filter-kept', outcome: 'lost', note: 'thrown away' });
    shop.write('step-set', null, { step: 'filter', state: 'done', note: 'by the yard' });
    await open(page, { shop, at: at() });
    await screen.findByRole('region', { name: 'Still possible' });
    const still = screen.getByRole('region', { name: 'Still possible' }).textContent!;
    const lost = screen.queryByRole('region', { name: 'Lost' });
    for (const row of lost?.querySelectorAll('tbody td:first-child') ?? []) expect(still).not.toContain(row.firstChild!.textContent!);
  });

  it('another pair is an address of its own, and never the same twice', async () => {
    const shop = worn();
    const { user } = await open(page, { shop, at: at() });
    const [, , third] = diagnose(shop.view).causes.filter((c) => isListed(c.id));
    await user.click(screen.getByLabelText('Second cause'));
    await user.click(await screen.findByTitle(new RegExp(`^${third!.name}, `)));
    await settled();
    expect(address()).toContain(`/${third!.id}`);
    const [first] = diagnose(shop.view).causes.filter((c) => isListed(c.id));
    await user.click(screen.getByLabelText('Second cause'));
    expect(screen.queryByTitle(new RegExp(`^${first!.name}, `))?.className ?? '').not.toContain('option');
  });
});
