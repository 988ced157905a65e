import { SCHOOLS } from '@true-ledger/core/damage';
import { screen, waitFor, within } from '@testing-library/react';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { Policy } from './Policy.js';

function shopWith(answer: (body: unknown) => Response): Shop {
  const shop = new Shop();
  shop.more.set('GET /api/policy', () => json(200, []));
  shop.more.set('POST /api/policy', async (request) => answer(await request.json()));
  return shop;
}
const first = SCHOOLS[0]!;
const other = first.positions.find((p) => p.id !== first.standard)!;

describe('the policy of the shop', () => {
  it('stands at the standard until the owner says otherwise, with a reason', async () => {
    const sent: unknown[] = [];
    const shop = shopWith((body) => {
      sent.push(body);
      return json(201, []);
    });
    const { user } = openShop(<Policy me={person('owner')} />, { shop });
    const pane = await screen.findByRole('region', { name: first.question });
    // In a test every group of the library has one name, so the boxes themselves do not tell; the one drawn as chosen does.
    expect(pane.querySelector('.ant-radio-wrapper-checked')!.textContent).toMatch(/\(standard\)$/);
    await user.click(within(pane).getByRole('radio', { name: other.text }));
    const dialog = await screen.findByRole('dialog');
    const keep = within(dialog).getByText('Keep as policy').closest('button')!;
    expect(keep.disabled).toBe(true);
    await user.type(within(dialog).getByRole('textbox', { name: 'Reason' }), 'Two came back.');
    await user.click(keep);
    await waitFor(() => expect(sent).toEqual([{ question: first.id, position: other.id, reason: 'Two came back.' }]));
  });

  it('says what the server says when it is not kept', async () => {
    const shop = shopWith(() => json(403, { code: 'forbidden', sentence: 'Only the owner sets the policy.' }));
    const { user } = openShop(<Policy me={person('owner')} />, { shop });
    const pane = await screen.findByRole('region', { name: first.question });
    await user.click(within(pane).getByRole('radio', { name: other.text }));
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByRole('textbox', { name: 'Reason' }), 'Two came back.');
    await user.click(within(dialog).getByText('Keep as policy'));
    expect(await screen.findByText('The policy was not kept. Only the owner sets the policy.')).toBeTruthy();
  });

  it('is closed to all but the owner', async () => {
    openShop(<Policy me={person('builder')} />, { shop: shopWith(() => json(500, {})) });
    await screen.findByRole('region', { name: first.question });
    for (const radio of screen.getAllByRole<HTMLInputElement>('radio')) expect(radio.disabled).toBe(true);
  });
});
