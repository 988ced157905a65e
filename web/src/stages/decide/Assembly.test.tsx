import { screen, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { Assembly } from './Assembly.js';

// The assembly book: each step says what goes in, how tight, and what is proved before the next.
const page = (
  <Routes>
    <Route path="/case/:caseId/decide/:page?/:stepId?" element={<Assembly />} />
  </Routes>
);
const at = (step = ''): string => `/case/${CASE}/decide/assembly/${step}`;
const step = (): string => document.querySelector('[data-step]')!.getAttribute('data-step')!;
const assembled = (shop: Shop) => [...shop.view.assembly.values()].map((s) => [s.value.step, s.value.state, s.value.note]);

function limited(): Shop {
  const shop = new Shop();
  shop.write('spec-set', null, { quantity: 'rod.strip', spec: { limits: { clearance: { lower: 0.025, upper: 0.065 } }, source: 'sheet' } });
  return shop;
}

describe('the assembly book', () => {
  it('opens at the first step that is not done, and goes through them by the arrows', async () => {
    const { user } = await open(page, { at: at() });
    await screen.findByRole('navigation', { name: 'Steps' });
    expect(step()).toBe('wash');
    await user.keyboard('{ArrowDown}');
    expect(step()).toBe('galleries');
  });

  it('asks for a reason to go on over what is not proved, and keeps it with the step', async () => {
    const { shop, user } = await open(page, { at: at('front') });
    await user.keyboard('d');
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toMatch(
      /Everything clean and on the bench: not done.*Crank and cam drive stand at their marks: not proved/s,
    );
    const done = within(dialog).getByText('It is done').closest('button')!;
    expect(done.disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Reason'), 'put together before us');
    await user.click(done);
    await settled();
    expect(assembled(shop)).toEqual([['front', 'done', 'put together before us']]);
    expect(step()).not.toBe('front');
  });

  it('a step that is proved is done by one key, once, and can be opened again', async () => {
    const shop = new Shop();
    for (const [s, b] of [
      ['oil.cooler', 'reuse'],
      ['block.case', 'reuse'],
      ['coolant.side', 'reuse'],
      ['clutch.side', 'reuse'],
      ['balancer', 'reuse'],
    ] as const)
      shop.write('disposition-set', s, { operation: b, size: '', reason: 'sound' });
    const { user } = await open(page, { shop, at: at('wash') });
    await user.click(await screen.findByRole('radio', { name: 'Yes' }));
    await settled();
    await user.dblClick(screen.getByText('Step done (d)'));
    await settled();
    expect(assembled(shop)).toEqual([['wash', 'done', '']]);
    expect(shop.posts.flat().filter((e) => e.kind === 'assembly-set')).toHaveLength(1);
    await user.keyboard('{ArrowUp}');
    await user.click(await screen.findByText('Not done after all'));
    await settled();
    expect(assembled(shop)).toEqual([['wash', 'open', 'not done after all']]);
  });

  it('holds a clearance against the limits of the sheet, in any unit, and refuses what is no figure', async () => {
    const { shop, user } = await open(page, { shop: limited(), at: at('rod-cap-2') });
    const cell = await screen.findByLabelText('Big end 2, running clearance');
    await user.type(cell, '0.08{Enter}');
    await settled();
    expect(cell.closest('.proof-row')!.textContent).toMatch(/0\.025 to 0\.065 mm \(sheet\).*outside/s);
    await user.clear(cell);
    await user.type(cell, '2 thou{Enter}');
    await settled();
    expect(shop.view.proofs.get('clearance:rod.2')!.value).toEqual({
      proof: 'clearance:rod.2',
      text: '2 thou',
      unit: 'thou',
      value: 2 * 0.0254,
    });
    expect(cell.closest('.proof-row')!.textContent).toContain('within');
    await user.clear(cell);
    await user.type(cell, 'tight{Enter}');
    expect(cell.closest('.proof-row')!.textContent).toContain('"tight" is not a figure');
    await settled();
    expect(shop.view.proofs.get('clearance:rod.2')!.value.text).toBe('2 thou');
    await user.clear(cell);
    await user.type(cell, '{Enter}');
    await settled();
    expect(shop.view.proofs.get('clearance:rod.2')!.value.text).toBe('');
  });

  it('writes the stages of a kind of bolt once for all, and refuses what are none', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-2') });
    const field = await screen.findByLabelText('Rod bolts: stages of tightening');
    await user.type(field, 'tight{Enter}');
    expect(document.body.textContent).toContain('neither a torque nor an angle');
    await user.clear(field);
    await user.type(field, '20 N·m; 60°{Enter}');
    await settled();
    expect(shop.view.torques.get('rod-bolts')!.value.text).toBe('20 N·m; 60°');
    expect(document.body.textContent).toContain('20.0 N·m, then 60° on');
    expect(document.body.textContent).not.toContain('neither a torque');
  });

  it('shows a reader everything and lets him change nothing', async () => {
    await open(page, { shop: limited(), at: at('rod-cap-2'), role: 'reader' });
    expect(await screen.findByText(/Number to number/)).toBeTruthy();
    expect(screen.queryByText('Step done (d)')).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>('Big end 2, running clearance').readOnly).toBe(true);
  });
});
