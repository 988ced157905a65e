import { ENGINE_TEMPLATES } from '@true-ledger/core/engine';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { Sheets } from './Sheets.js';

// Sheets of an engine: typed in any unit, refused with the field's own name, kept as versions.
const page = (role: 'owner' | 'reader' = 'owner') => (
  <Routes>
    <Route path="/sheets/:sheetId?" element={<Sheets me={person(role)} />} />
    <Route path="*" element={<p>elsewhere</p>} />
  </Routes>
);
interface Sent {
  readonly id: string;
  readonly basedOn: number;
  readonly name: string;
  readonly specs: Record<string, Record<string, unknown>>;
  readonly limits: Array<{ quantity: string; lower: number | null; upper: number | null; unit: string }>;
}
const LAYOUT = ENGINE_TEMPLATES[0]!.layout;
const SHEET = {
  id: 'club-four',
  version: 2,
  name: 'Club four',
  source: 'Book p. 7',
  by: 'Mara Quill',
  time: '2026-10-02T08:00:00Z',
  layout: LAYOUT,
  specs: {},
  limits: [{ quantity: 'end-float', lower: 0.05, upper: 0.25, unit: 'mm' }],
};
function shopOf(sheets: object[] = [], answer?: () => Response): Shop & { sent: Sent[] } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[] });
  shop.more.set('GET /api/sheets', () => json(200, sheets));
  shop.more.set('GET /api/sheets/club-four', () => json(200, [SHEET, { ...SHEET, version: 1, source: 'Data plate', time: '2026-09-01' }]));
  shop.more.set('POST /api/sheets', async (request) => {
    const body = (await request.json()) as Sent;
    shop.sent.push(body);
    return answer?.() ?? json(201, { ...SHEET, ...body, version: body.basedOn + 1 });
  });
  return shop;
}

describe('sheets of the shop', () => {
  it('say what a sheet is for while there is none', async () => {
    openShop(page(), { shop: shopOf(), at: '/sheets' });
    expect(await screen.findByText(/Enter an engine once/)).toBeTruthy();
  });

  it('are begun with a name and where the figures come from, in whatever unit stands in the book', async () => {
    const shop = shopOf();
    const { user } = openShop(page(), { shop, at: '/sheets' });
    await user.click(await screen.findByText('New sheet'));
    const form = await screen.findByRole('region', { name: 'Sheet' });
    expect(form.textContent).toContain('Give the sheet a name.');
    await user.type(within(form).getByLabelText('Name'), 'Club Four');
    await user.type(within(form).getByLabelText('Source of the figures'), 'Book p. 7');
    const limit = within(form).getByLabelText(/^Crank end float.*most/i);
    await user.type(limit, '10 thou');
    await user.click(within(form).getByText('Keep the sheet'));
    await waitFor(() => expect(shop.sent).toHaveLength(1));
    expect(shop.sent[0]).toMatchObject({ id: 'club-four', basedOn: 0, name: 'Club Four' });
    expect(shop.sent[0]!.limits).toHaveLength(1);
    expect(shop.sent[0]!.limits[0]!.upper).toBeCloseTo(0.254, 6);
  });

  it('refuse a limit that is none or upside down, and say which', async () => {
    const shop = shopOf([SHEET]);
    const { user } = openShop(page(), { shop, at: '/sheets/club-four' });
    await user.click(await screen.findByText('Write the next version'));
    const form = await screen.findByRole('region', { name: 'Sheet' });
    const least = within(form).getByLabelText<HTMLInputElement>(/^Crank end float.*least/i);
    expect(least.value).toBe('0.05 mm');
    await user.clear(least);
    await user.type(least, '0.5');
    expect(form.textContent).toContain('the lower limit is above the upper');
    const keep = within(form).getByText('Keep as version 3').closest('button')!;
    expect(keep.disabled).toBe(true);
    await user.clear(least);
    await user.type(least, 'tight');
    expect(form.textContent).toMatch(/Crank end float.*: .*tight/i);
    await user.click(within(form).getByText('Leave as it was'));
    expect(shop.sent).toEqual([]);
    expect(await screen.findByRole('region', { name: 'Club four' })).toBeTruthy();
  });

  it('show an older version when it is asked for', async () => {
    const { user } = openShop(page(), { shop: shopOf([SHEET]), at: '/sheets/club-four' });
    const pane = await screen.findByRole('region', { name: 'Club four' });
    expect(pane.textContent).toContain('Source: Book p. 7');
    expect(pane.textContent).toMatch(/≥ 0\.05.*≤ 0\.25/);
    await user.click(await within(pane).findByLabelText('Version'));
    await user.click(await screen.findByTitle(/^version 1/));
    await waitFor(() => expect(pane.textContent).toContain('Source: Data plate'));
  });

  it('tell who was faster, and keep what was typed', async () => {
    const shop = shopOf([SHEET], () => json(409, { code: 'sheet-conflict', sentence: 'Tom kept version 3 meanwhile.' }));
    const { user } = openShop(page(), { shop, at: '/sheets/club-four' });
    await user.click(await screen.findByText('Write the next version'));
    const form = await screen.findByRole('region', { name: 'Sheet' });
    await user.type(within(form).getByLabelText('Name'), ' of the club');
    await user.click(within(form).getByText('Keep as version 3'));
    expect((await within(form).findByRole('alert')).textContent).toContain('Tom kept version 3 meanwhile.');
    expect(within(form).getByLabelText<HTMLInputElement>('Name').value).toBe('Club four of the club');
  });

  it('take sizes of one more kind of place, and take them out again', async () => {
    const { user } = openShop(page(), { shop: shopOf([SHEET]), at: '/sheets/club-four' });
    await user.click(await screen.findByText('Write the next version'));
    const form = await screen.findByRole('region', { name: 'Sheet' });
    const before = form.querySelectorAll('fieldset').length;
    await user.click(within(form).getByLabelText('Add sizes and limits'));
    const options = document.querySelectorAll<HTMLElement>('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option');
    await user.click(options[0]!);
    await waitFor(() => expect(form.querySelectorAll('fieldset')).toHaveLength(before + 1));
    await user.click(within(form).getByLabelText(/^Take out /));
    await waitFor(() => expect(form.querySelectorAll('fieldset')).toHaveLength(before));
  });

  it('are read by a reader', async () => {
    openShop(page('reader'), { shop: shopOf([SHEET]), at: '/sheets/club-four' });
    await screen.findByRole('region', { name: 'Club four' });
    expect(screen.queryByText('New sheet')).toBeNull();
    expect(screen.queryByText('Write the next version')).toBeNull();
  });
});
