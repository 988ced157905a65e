import { STARTING_PRICES } from '@true-ledger/core/workshop';
import { screen, waitFor, within } from '@testing-library/react';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { Prices } from './Prices.js';

const LINE = STARTING_PRICES.lines[0]!;
const FEW = { ...STARTING_PRICES, lines: STARTING_PRICES.lines.slice(0, 3) };
function shopWith(answer: (body: { basedOn: number; lines: Array<{ key: string; price: { low: number } }> }) => Response): Shop {
  const shop = new Shop();
  shop.more.set('GET /api/prices', () => json(200, [{ version: 0, book: FEW, note: 'As it comes', by: '', time: '' }]));
  shop.more.set('POST /api/prices', async (request) => answer((await request.json()) as never));
  return shop;
}

describe('the prices of the shop', () => {
  it('are changed line by line and kept as the next version, with a note', async () => {
    const sent: Array<{ basedOn: number; low: number }> = [];
    const shop = shopWith((body) => {
      sent.push({ basedOn: body.basedOn, low: body.lines.find((l) => l.key === LINE.key)!.price.low });
      return json(201, [{ version: 1, book: FEW, note: 'dearer', by: 'Mara', time: '2026-03-02T08:00:00Z' }]);
    });
    const { user } = openShop(<Prices me={person('owner')} />, { shop });
    const field = (await screen.findAllByRole<HTMLInputElement>('textbox')).find((f) => f.value === String(LINE.price.low))!;
    await user.clear(field);
    await user.type(field, '1,5');
    await user.tab();
    await user.click(screen.getByText('Keep as version 1'));
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByRole('textbox'), 'dearer');
    await user.click(within(dialog).getAllByRole('button').at(-1)!);
    await waitFor(() => expect(sent).toEqual([{ basedOn: 0, low: 1.5 }]));
  });

  it('whose low is above their high are not kept', async () => {
    const { user } = openShop(<Prices me={person('owner')} />, { shop: shopWith(() => json(500, {})) });
    const field = (await screen.findAllByRole<HTMLInputElement>('textbox')).find((f) => f.value === String(LINE.price.low))!;
    await user.clear(field);
    await user.type(field, '99999');
    await user.tab();
    expect(screen.getByText('Keep as version 1').closest('button')!.disabled).toBe(true);
  });

  it('are read by a builder', async () => {
    openShop(<Prices me={person('builder')} />, { shop: shopWith(() => json(500, {})) });
    await screen.findByText('Prices');
    expect(screen.queryByText('From CSV')).toBeNull();
    expect(screen.queryByText(/^Keep as version/)).toBeNull();
  });
});
