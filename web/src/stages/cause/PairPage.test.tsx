import { comparePair, diagnose } from '@true-ledger/core/diagnosis';
import { cause as causeOf, CAUSES, isListed } from '@true-ledger/core/cause';
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
    shop.write('hold-set', null, { item: 'coolant', outcome: 'lost', note: 'drained by the yard' });
    shop.write('step-set', null, { step: 'drain-coolant', state: 'done', note: 'by the yard' });
    // Two causes that the coolant would have told apart.
    const [a, b] = CAUSES.flatMap((x) => CAUSES.map((y) => [x, y] as const)).find(
      ([x, y]) => x !== y && isListed(x.id) && isListed(y.id) && comparePair(shop.view, x, y).some((s) => s.state === 'lost'),
    )!;
    await open(page, { shop, at: at(`/${a.id}/${b.id}`) });
    const lost = await screen.findByRole('region', { name: 'Lost' });
    const rows = [...lost.querySelectorAll('tbody td:first-child')].map((cell) => cell.firstChild!.textContent!);
    expect(rows.length).toBeGreaterThan(0);
    const still = screen.getByRole('region', { name: 'Still possible' });
    const possible = [...still.querySelectorAll('tbody td:first-child')].map((cell) => cell.firstChild!.textContent!);
    for (const name of rows) expect(possible).not.toContain(name);
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
    const offered = [...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')].map(
      (o) => o.getAttribute('title')!,
    );
    expect(offered.length).toBeGreaterThan(0);
    expect(offered.filter((name) => name.startsWith(`${first!.name}, `))).toEqual([]);
  });
});
