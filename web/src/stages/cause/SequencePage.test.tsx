import { diagnose, proposeSequence } from '@true-ledger/core/diagnosis';
import { screen, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { SequencePage } from './SequencePage.js';

// The order of events as a list beside its drawing: every act on a link asks for a reason and can be taken back.
const page = (
  <Routes>
    <Route path="/case/:caseId/cause/sequence" element={<SequencePage />} />
    <Route path="*" element={<p>elsewhere</p>} />
  </Routes>
);
const at = `/case/${CASE}/cause/sequence`;
function failed(): Shop {
  const shop = new Shop();
  for (const n of [1, 2, 3, 4]) {
    shop.write('pattern-set', `rod.${n}.shell.lower`, { pattern: 'wiping', present: true });
    shop.write('grade-confirmed', `rod.${n}.shell.lower`, { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
    shop.write('pattern-set', `crank.pin.${n}`, { pattern: 'journal-scoring', present: true });
    shop.write('grade-confirmed', `crank.pin.${n}`, { grade: 2, proposed: null, reason: '', book: shop.view.book.version });
  }
  shop.write('evidence-set', null, { feature: 'fluid.level-low', present: true, note: '' });
  return shop;
}
const links = (): HTMLElement[] => [...screen.getByRole('region', { name: 'Links' }).querySelectorAll<HTMLElement>('li button')];
const give = async (
  user: { type: (e: Element, t: string) => Promise<void>; click: (e: Element) => Promise<void> },
  button: string,
  reason: string,
) => {
  const dialog = await screen.findByRole('dialog');
  const ok = within(dialog).getAllByText(button).at(-1)!.closest('button')!;
  expect(ok.disabled).toBe(true);
  await user.type(within(dialog).getByRole('textbox'), reason);
  await user.click(ok);
  await settled();
};

describe('the order of events', () => {
  it('says where to begin when nothing was found', async () => {
    await open(page, { at });
    expect(await screen.findByText(/Nothing to put in order yet/)).toBeTruthy();
    expect(screen.getByText('No link follows from what was found.')).toBeTruthy();
  });

  it('lists the links core proposes, and how much they explain', async () => {
    const shop = failed();
    await open(page, { shop, at });
    await screen.findByRole('region', { name: 'Links' });
    const proposed = proposeSequence(shop.view, diagnose(shop.view));
    expect(proposed.of).toBeGreaterThan(0);
    expect(document.body.textContent).toContain(`${proposed.explained} of ${proposed.of} findings`);
    expect(links().length).toBeGreaterThan(0);
  });

  it('rejects a link with a reason, lists it among the rejected, and takes it back', async () => {
    const { shop, user } = await open(page, { shop: failed(), at });
    await screen.findByRole('region', { name: 'Links' });
    const before = links().length;
    const first = links()[0]!.textContent;
    await user.click(links()[0]!);
    await user.click(screen.getByText('Reject link'));
    await give(user, 'Reject link', 'the pin was scored before');
    expect(shop.view.sequenceLinks.map((l) => [l.value.state, l.value.reason])).toEqual([['rejected', 'the pin was scored before']]);
    expect(links().map((l) => l.textContent)).not.toContain(first);
    await user.click(await screen.findByText('Take back'));
    await settled();
    expect(shop.view.sequenceLinks).toEqual([]);
    expect(links()).toHaveLength(before);
  });

  it('puts a link in doubt and back', async () => {
    const { shop, user } = await open(page, { shop: failed(), at });
    await screen.findByRole('region', { name: 'Links' });
    await user.click(links()[0]!);
    await user.click(screen.getByText('Put in doubt'));
    await give(user, 'Draw link', 'not sure which was first');
    expect(shop.view.sequenceLinks.map((l) => l.value.state)).toEqual(['doubtful']);
    const doubted = links().find((l) => l.textContent!.includes('in doubt'))!;
    await user.click(doubted);
    await user.click(screen.getByText('Hold it for certain'));
    await give(user, 'Draw link', 'seen under the glass');
    expect(shop.view.sequenceLinks.map((l) => l.value.state)).toEqual(['drawn']);
  });

  it('takes an event of the builder’s own, and a link to it', async () => {
    const { shop, user } = await open(page, { shop: failed(), at });
    await user.type(await screen.findByLabelText('An event of your own'), 'run on for ten miles{Enter}');
    await settled();
    expect(shop.view.sequenceEvents.map((e) => e.value.text)).toEqual(['run on for ten miles']);
    await user.click(screen.getByLabelText('Link from'));
    await user.click(await screen.findByTitle('run on for ten miles'));
    await user.click(screen.getByLabelText('Link to'));
    const options = await screen.findAllByRole('option');
    expect(options.every((o) => !o.getAttribute('aria-label')?.startsWith('run on'))).toBe(true);
    const [target] = document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option');
    await user.click(target!);
    await user.click(screen.getByText('Draw link'));
    await give(user, 'Draw link', 'the client said so');
    expect(shop.view.sequenceLinks).toHaveLength(1);
    expect(shop.view.sequenceLinks[0]!.value).toMatchObject({ state: 'drawn', reason: 'the client said so' });
  });

  it('a reader is offered no act', async () => {
    const { user } = await open(page, { shop: failed(), at, role: 'reader' });
    await screen.findByRole('region', { name: 'Links' });
    await user.click(links()[0]!);
    expect(screen.queryByText('Reject link')).toBeNull();
    expect(screen.queryByRole('region', { name: 'Add to the order' })).toBeNull();
  });
});
