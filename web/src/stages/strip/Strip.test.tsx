import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, open, settled, Shop, Wire } from '../../testing/bench.js';
import { photo } from '../../testing/photo.js';
import { Strip } from './Strip.js';

// The strip: what a step destroys is asked for before it is gone, and what is lost is lost with a reason.
const page = (
  <Routes>
    <Route path="/case/:caseId/strip/:stepId?" element={<Strip />} />
    <Route path="*" element={<p>elsewhere</p>} />
  </Routes>
);
const at = (step: string): string => `/case/${CASE}/strip/${step}`;
const step = (): string => document.querySelector('[data-step]')!.getAttribute('data-step')!;
const doneSteps = (shop: Shop): string[] =>
  shop.view.steps ? [...shop.view.steps.values()].filter((s) => s.value.state === 'done').map((s) => s.value.step) : [];

describe('the order of the strip', () => {
  it('opens at the first step that is free, and goes through them by the arrows', async () => {
    const { user } = await open(page, { at: `/case/${CASE}/strip` });
    await screen.findByRole('navigation', { name: 'Steps' });
    expect(step()).toBe('arrival');
    await user.keyboard('{ArrowDown}');
    expect(step()).toBe('isolate');
    await user.keyboard('{ArrowUp}{ArrowUp}');
    expect(step()).toBe('arrival');
  });

  it('records a step that destroys nothing by one key, and goes on to the next', async () => {
    const { shop, user } = await open(page, { at: at('arrival') });
    await user.keyboard('d');
    await settled();
    expect(doneSteps(shop)).toEqual(['arrival']);
    expect(step()).toBe('isolate');
    expect(screen.getByText(/steps done; made from/).textContent).toMatch(/^1 of /);
  });

  it('pressed twice before the page has moved on, a step is done once', async () => {
    const { shop, user } = await open(page, { at: at('arrival') });
    const button = screen.getByText('Step done (d)');
    await user.dblClick(button);
    await settled();
    expect(shop.posts.flat().filter((e) => e.kind === 'step-set' && (e.body as { step: string }).step === 'arrival')).toHaveLength(1);
  });

  it('a step taken out of order asks why, and keeps the reason', async () => {
    const { shop, user } = await open(page, { at: at('crank') });
    await user.keyboard('d');
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('out of order');
    const done = within(dialog).getByText('It is done').closest('button')!;
    expect(done.disabled).toBe(true);
    await user.type(within(dialog).getByRole('combobox'), 'came without caps');
    await user.click(done);
    await settled();
    expect([...shop.view.steps!.values()].map((s) => [s.value.step, s.value.note])).toEqual([['crank', 'came without caps']]);
  });

  it('what the step destroys unrecorded is lost with it, each thing by name, and the reason stands with each', async () => {
    const { shop, user } = await open(page, { at: at('filter') });
    await user.keyboard('d');
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('this will be lost');
    const named = [...dialog.querySelectorAll('li')].map((li) => li.textContent);
    expect(named).toHaveLength(1);
    await user.type(within(dialog).getByRole('combobox'), 'thrown away by the yard');
    await user.click(within(dialog).getByText('Go on, it is lost'));
    await settled();
    expect([...shop.view.holds.values()].map((h) => [h.value.item, h.value.outcome, h.value.note])).toEqual([
      ['filter-kept', 'lost', 'thrown away by the yard'],
    ]);
    expect(screen.getByText(/^lost: 1/)).toBeTruthy();
  });

  it('going back to record it leaves everything as it was', async () => {
    const { shop, user } = await open(page, { at: at('roll') });
    await user.keyboard('d');
    await user.click(await screen.findByText('Back to record it'));
    await settled();
    expect(shop.posts).toEqual([]);
    expect(step()).toBe('roll');
  });

  it('a step that was not done after all is open again', async () => {
    const shop = new Shop();
    shop.write('step-set', null, { step: 'arrival', state: 'done', note: '' });
    const { user } = await open(page, { shop, at: at('arrival') });
    await user.click(screen.getByText('Not done after all'));
    await settled();
    expect(doneSteps(shop)).toEqual([]);
    expect(screen.getByText('Step done (d)')).toBeTruthy();
  });

  it('moves a step up, and at the top there is nowhere to go', async () => {
    const { shop, user } = await open(page, { at: at('isolate') });
    await user.click(screen.getByTitle('Earlier'));
    await settled();
    expect(shop.posts.flat().map((e) => e.kind)).toEqual(['step-order']);
    const names = [...screen.getByRole('navigation', { name: 'Steps' }).querySelectorAll('a')].slice(0, 2).map((a) => a.textContent);
    expect(names[0]).toBe('Make it safe');
    await user.click(screen.getByTitle('Earlier'));
    await settled();
    expect(shop.posts).toHaveLength(1);
  });

  it('says why a step cannot stand before one it needs, and leaves the order', async () => {
    const { shop, user } = await open(page, { at: at('turn') });
    await user.click(screen.getByTitle('Earlier'));
    await settled();
    expect(shop.posts).toEqual([]);
    expect((await screen.findByText(/cannot come before/)).textContent).toContain('The order was left as it is');
  });

  it('a reader sees the steps and can do none', async () => {
    const { shop, user } = await open(page, { at: at('arrival'), role: 'reader' });
    await user.keyboard('d');
    await settled();
    expect(screen.queryByText('Step done (d)')).toBeNull();
    expect(shop.posts).toEqual([]);
  });
});

describe('an engine that came apart', () => {
  it('is answered in one go up to a step, with one reason, and says what was lost with it', async () => {
    const { shop, user } = await open(page, { at: at('arrival') });
    await user.click(screen.getByText('It came apart …'));
    const dialog = await screen.findByRole('dialog');
    await user.click(within(dialog).getAllByText('up to here')[6]!);
    await user.type(within(dialog).getByRole('combobox'), 'came in boxes');
    expect(dialog.querySelector('details')!.textContent).toMatch(/not recorded/);
    await user.click(within(dialog).getByText('7 steps done'));
    await settled();
    expect(doneSteps(shop)).toHaveLength(7);
    expect([...shop.view.holds.values()].every((h) => h.value.outcome === 'lost' && h.value.note === 'came in boxes')).toBe(true);
    expect(shop.view.holds.size).toBeGreaterThan(0);
  });

  it('leaves out what is unticked', async () => {
    const { shop, user } = await open(page, { at: at('arrival') });
    await user.click(screen.getByText('It came apart …'));
    const dialog = await screen.findByRole('dialog');
    await user.click(within(dialog).getAllByText('up to here')[1]!);
    await user.click(within(dialog).getAllByRole('checkbox')[0]!);
    await user.type(within(dialog).getByRole('combobox'), 'by the yard');
    await user.click(within(dialog).getByText('1 step done'));
    await settled();
    expect(doneSteps(shop)).toEqual(['isolate']);
  });
});

describe('what is recorded first', () => {
  it('a note is kept by its own button, with what was seen', async () => {
    const { shop, user } = await open(page, { at: at('bores-look') });
    await user.type(screen.getByRole('textbox', { name: /^Note: / }), 'rocks a little{Enter}');
    await settled();
    expect([...shop.view.holds.values()].map((h) => [h.value.item, h.value.outcome, h.value.note])).toEqual([
      ['piston-rock', 'recorded', 'rocks a little'],
    ]);
  });

  it('an empty note says that nothing was to be noted', async () => {
    const { shop, user } = await open(page, { at: at('filter') });
    await user.click(screen.getByText('Noted'));
    await settled();
    expect([...shop.view.holds.values()][0]!.value.note).toBe('looked at, nothing to note');
  });

  it('number keys bring the hand to what is open', async () => {
    const { user } = await open(page, { at: at('rod-cap-1') });
    await user.keyboard('1');
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Number stamped on the cap');
  });

  it('a cap with a step to feel warns and is kept as it was found', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-2') });
    await user.type(screen.getByLabelText('Number stamped on the cap'), ' 4 ');
    await user.click(screen.getByText('Number and direction agree'));
    expect(screen.getByText(/A wrong cap or one turned round/)).toBeTruthy();
    await user.click(screen.getByText('A step to feel'));
    await user.click(screen.getByText('Keep the cap'));
    await settled();
    expect([...shop.view.caps.values()].map((c) => c.value)).toEqual([
      { cap: 'rod.2', number: '4', agrees: false, joint: 'step', note: '' },
    ]);
    expect(screen.getByText('Correct the cap').closest('button')!.disabled).toBe(true);
  });
});

describe('torque as fasteners break loose', () => {
  const sheet = (): HTMLElement => screen.getByRole('region', { name: /^Break-loose torque/ });
  const field = (): HTMLInputElement => within(sheet()).getByRole('textbox');

  it('takes one after the other in the order they are eased, and tells a pair that is uneven', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-1') });
    await user.type(field(), '60{Enter}');
    await settled();
    await user.type(field(), '30{Enter}');
    await settled();
    expect(shop.view.bolts.map((b) => [b.value.position, b.value.newtonMetre])).toEqual([
      ['a', 60],
      ['b', 30],
    ]);
    expect(sheet().textContent).toMatch(/a against b: \d+ % apart/);
  });

  it('a figure of another unit is told to it, and what is no torque is refused in the field', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-1') });
    await user.type(field(), '44 lb·ft{Enter}');
    await settled();
    expect(shop.view.bolts[0]!.value.newtonMetre).toBeCloseTo(44 * 1.3558, 2);
    await user.type(field(), 'tight{Enter}');
    await settled();
    expect(within(sheet()).getByRole('alert').textContent).toMatch(/tight/);
    expect(shop.view.bolts).toHaveLength(1);
    expect(field().value).toBe('tight');
  });

  it('a dash says that it could not be read, and goes on', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-1') });
    await user.type(field(), '-{Enter}');
    await settled();
    expect(shop.view.bolts.map((b) => b.value.newtonMetre)).toEqual([null]);
    expect(field().getAttribute('aria-label')).toBe('Break-loose torque of fastener b');
    await user.type(field(), '{Backspace}');
    expect(field().getAttribute('aria-label')).toBe('Break-loose torque of fastener a');
  });

  it('takes what the wrench sends for this fastener, and nothing of another', async () => {
    const shop = new Shop();
    shop.gauges = [...shop.gauges, { ...shop.gauges[0]!, id: 'wrench', name: 'Torque wrench', kind: 'torque-wrench' }];
    shop.standIns = [{ gaugeId: 'wrench', faults: {} }];
    const { user } = await open(page, { shop, at: at('rod-cap-1') });
    await user.click(await screen.findByText('Press the wrench'));
    expect(Wire.last!.said.at(-1)).toMatchObject({ type: 'press', gauge: 'wrench' });
    const asked = (Wire.last!.said.at(-1) as { at: object }).at;
    Wire.last!.hear({ type: 'reading', gauge: 'wrench', at: { ...asked, cell: 'rod.9.1' }, text: '90', unit: 'N·m' });
    await settled();
    expect(shop.view.bolts).toEqual([]);
    Wire.last!.hear({ type: 'reading', gauge: 'wrench', at: asked, text: '58', unit: 'N·m' });
    await settled();
    expect(shop.view.bolts.map((b) => b.value.newtonMetre)).toEqual([58]);
    await user.click(screen.getByText('Press the wrench'));
    const again = (Wire.last!.said.at(-1) as { at: object }).at;
    Wire.last!.hear({ type: 'silent', gauge: 'wrench', at: again });
    expect((await screen.findByRole('alert')).textContent).toMatch(
      /Torque wrench sent nothing at fastener b\. What was read before is kept/,
    );
    expect(shop.view.bolts).toHaveLength(1);
  });

  it('counts what went into the bag, and asks after one too few', async () => {
    const { shop, user } = await open(page, { at: at('rod-cap-1') });
    await user.type(screen.getByLabelText(/, counted$/), '1{Enter}');
    await settled();
    expect([...shop.view.bags.values()].map((b) => [b.value.bag, b.value.counted])).toEqual([['rod-bolts-1', 1]]);
    expect(screen.getByText(/2 are usual: one missing or an extra/)).toBeTruthy();
  });
});

describe('turning while caps are eased', () => {
  const sheet = (): HTMLElement => screen.getByRole('region', { name: /^Turning torque/ });
  const field = (): HTMLElement => within(sheet()).getByRole('textbox', { name: 'Turning torque' });

  it('names the cap whose easing lets the crank go', async () => {
    const { shop, user } = await open(page, { at: at('play') });
    for (const text of ['80', '78', '20']) {
      await user.type(field(), `${text}{Enter}`);
      await settled();
    }
    expect(shop.view.easing.map((e) => [e.value.cap, e.value.newtonMetre])).toEqual([
      ['', 80],
      ['main.1', 78],
      ['main.2', 20],
    ]);
    expect(sheet().textContent).toMatch(/Cap main 2 binds/);
  });

  it('takes the last figure back, and refuses words', async () => {
    const { shop, user } = await open(page, { at: at('play') });
    await user.type(field(), '80{Enter}');
    await settled();
    await user.type(field(), 'stiff{Enter}');
    expect(within(sheet()).getByRole('alert').textContent).toMatch(/stiff/);
    await user.click(within(sheet()).getByText('Take the last back'));
    await settled();
    expect(shop.view.easing).toEqual([]);
    expect(within(sheet()).getByText('All caps tight')).toBeTruthy();
  });
});

describe('what is expected', () => {
  it('is written before and answered after, and is no answer until then', async () => {
    const { shop, user } = await open(page, { at: at('pan') });
    await user.type(screen.getByLabelText('Expectation'), 'bronze in the pan{Enter}');
    await settled();
    expect(shop.view.expectations.map((e) => [e.value.text, e.value.held])).toEqual([['bronze in the pan', null]]);
    await user.click(screen.getByText('did not hold'));
    await settled();
    expect(shop.view.expectations.map((e) => e.value.held)).toEqual([false]);
  });

  it('shows which pictures a step wants, and how many there are', async () => {
    const shop = new Shop();
    shop.write('photo-added', 'pickup.screen', photo('a'.repeat(64)));
    await open(page, { shop, at: at('pickup') });
    await waitFor(() => expect(document.querySelectorAll('.shot.taken')).toHaveLength(1));
    expect(document.querySelectorAll('.shot')).toHaveLength(2);
  });
});
