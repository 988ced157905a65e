import { LETTER_TEMPLATES } from '@true-ledger/core/report';
import { screen, waitFor } from '@testing-library/react';
import { ShopLetters } from '../../account/ShopLetters.js';
import { CASE, json, open, openShop, Shop } from '../../testing/bench.js';
import { Letters } from './Letters.js';

// Letters are read over before they go out: what is changed is what is sent, and no more than that letter.
const MADE = { addressee: 'A client', subject: 'Your engine', body: 'Good day,\n\nit failed.' };
function shopOf(): Shop & { sent: unknown[] } {
  const shop = Object.assign(new Shop(), { sent: [] as unknown[] });
  for (const to of ['client', 'warranty']) shop.more.set(`GET /api/cases/${CASE}/letters/${to}`, () => json(200, { ...MADE, subject: to }));
  shop.more.set(`POST /api/cases/${CASE}/letter.pdf`, async (request) => {
    shop.sent.push(await request.json());
    return json(400, { code: 'account-failed', sentence: 'The pages were not set.' });
  });
  return shop;
}
const body = (): HTMLTextAreaElement => screen.getByLabelText('Letter');

describe('letters', () => {
  beforeEach(() => localStorage.clear());

  it('sends what was worded by hand, and says why a letter was not made', async () => {
    const shop = shopOf();
    const { user } = await open(<Letters />, { shop });
    await waitFor(() => expect(body().value).toBe(MADE.body));
    await user.clear(body());
    await user.type(body(), 'Ours.');
    await user.click(screen.getByText('Take letter'));
    await screen.findByText(/The letter was not made. The pages were not set/);
    expect(shop.sent).toEqual([{ ...MADE, subject: 'client', body: 'Ours.' }]);
    await user.click(screen.getByText('Word it anew'));
    expect(body().value).toBe(MADE.body);
  });

  it('takes no empty letter', async () => {
    const { user } = await open(<Letters />, { shop: shopOf() });
    await waitFor(() => expect(body().value).toBe(MADE.body));
    await user.clear(body());
    expect(screen.getByText('Take letter').closest('button')!.disabled).toBe(true);
  });

  it('are worded for the shop, and put back to how they ship', async () => {
    const shop = new Shop();
    const kept: unknown[] = [];
    let letters = { ...LETTER_TEMPLATES, client: { subject: 'Own', body: 'Own words' } };
    const record = (): Response =>
      json(200, { letterhead: { name: '', address: '', contact: '', register: '' }, letters, version: 3 + kept.length });
    shop.more.set('GET /api/shop', record);
    shop.more.set('PUT /api/shop/letters', async (request) => {
      const sent = (await request.json()) as { letters: typeof letters };
      kept.push(sent);
      letters = sent.letters;
      return record();
    });
    const { user } = openShop(<ShopLetters mayWrite />, { shop });
    await user.click(await screen.findByText('As it ships'));
    await waitFor(() => expect(kept).toEqual([{ basedOn: 3, letters: LETTER_TEMPLATES }]));
    await waitFor(() => expect(screen.getByLabelText<HTMLTextAreaElement>('Client: letter').value).toBe(LETTER_TEMPLATES.client.body));
  });
});
