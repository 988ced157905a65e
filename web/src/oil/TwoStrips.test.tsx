import type { EngineLogAnswer } from '@true-ledger/contract';
import type { LogLine } from '@true-ledger/core/engineLog';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, json, openShop, person, Shop } from '../testing/bench.js';
import { TwoStripsPage } from './TwoStripsPage.js';

// Two strips of one engine, and what was changed between them on purpose.
const ID = '9aea29f8-0846-4c1a-89e5-9336c342b2da';
const BEFORE = 'c0000000-0000-4000-8000-000000000002';
const RECORD = {
  mark: 'E-7',
  name: 'Launch',
  counter: 'h',
  fuel: 'petrol',
  cooling: 'liquid',
  sumpL: 9,
  marksL: 2,
  changeEvery: 250,
} as const;
const listed = (id: string, number: string) => ({
  id,
  number,
  title: 'Launch',
  stage: 'strip',
  leading: null,
  updated: '2026-03-01T08:00:00Z',
});
const RODS = [1, 2, 3, 4];

/** A shop with an engine that was stripped once or twice. */
function shopWith(twice: boolean): { shop: Shop; written: LogLine[] } {
  const shop = new Shop();
  for (const rod of RODS)
    for (const half of ['upper', 'lower'])
      shop.write('grade-confirmed', `rod.${rod}.shell.${half}`, { grade: rod > 2 ? 3 : 1, proposed: null, reason: '', book: '1' });
  const first = new Shop();
  for (const rod of RODS) first.write('grade-confirmed', `rod.${rod}.shell.upper`, { grade: 1, proposed: null, reason: '', book: '1' });
  const written: LogLine[] = [];
  const answer = (): EngineLogAnswer => ({
    id: ID,
    record: RECORD,
    version: 1,
    mergedInto: null,
    merged: [],
    lines: written,
    cases: [listed(CASE, '2026-T01'), ...(twice ? [listed(BEFORE, '2024-T01')] : [])],
    others: [],
    awaited: [],
  });
  shop.more.set(`GET /api/engines/${ID}`, () => json(200, answer()));
  shop.more.set(`GET /api/cases/${BEFORE}`, () => json(200, { id: BEFORE, state: { ...first.state, caseId: BEFORE } }));
  shop.more.set(`GET /api/cases/${BEFORE}/entries`, () => json(200, []));
  shop.more.set(`POST /api/engines/${ID}/lines`, async (request) => {
    const { lines } = (await request.json()) as { lines: LogLine[] };
    written.push(...lines.map((l) => ({ ...l, by: 'Mara', time: '2026-01-01T08:00:00Z' })));
    return json(201, answer());
  });
  return { shop, written };
}
const page = (role: 'owner' | 'reader' = 'owner') => (
  <Routes>
    <Route path="/oil/:engineId/strips" element={<TwoStripsPage me={person(role)} />} />
  </Routes>
);
const at = `/oil/${ID}/strips`;

describe('two strips of one engine', () => {
  it('lie side by side, the earlier number first, with what changed at each place', async () => {
    await openShop(page(), { shop: shopWith(true).shop, at });
    const places = await screen.findByRole('region', { name: 'Place by place' });
    const row = (name: string): string =>
      [...[...places.querySelectorAll('tr')].find((r) => r.textContent.startsWith(name))!.cells].map((c) => c.textContent).join(' | ');
    expect(row('Rod 3 upper shell')).toMatch(/1 Witness.* \| 3 Through.* \| \+2 grades/);
    expect(row('Rod 1 upper shell')).toMatch(/same grade/);
    expect(row('Rod 1 lower shell')).toMatch(/not looked at \| 1 Witness/);
  });

  it('of an engine that was stripped once say so', async () => {
    await openShop(page('reader'), { shop: shopWith(false).shop, at });
    expect(await screen.findByText(/nothing to lay beside it yet/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Set up a test' })).toBeNull();
  });
});

describe('a test', () => {
  it('is written down with what is expected, and held against what was found', async () => {
    const { shop, written } = shopWith(true);
    const { user } = await openShop(page(), { shop, at });
    await user.click(await screen.findByRole('button', { name: 'Set up a test' }));
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getByRole<HTMLButtonElement>('button', { name: 'Write it down' }).disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Name'), 'Coated big ends');
    await user.click(within(dialog).getByRole('combobox', { name: 'By which figure' }));
    await user.click(await screen.findByTitle('Grade'));
    const places = within(dialog).getByRole('combobox', { name: 'Changed places; none: the whole engine' });
    await user.click(places);
    for (const name of ['Rod 1 upper shell', 'Rod 1 lower shell', 'Rod 2 upper shell', 'Rod 2 lower shell']) {
      await user.type(places, name);
      const options = await screen.findAllByText(name, { selector: '.ant-select-item-option-content' });
      await user.click(options[0]!);
    }
    await user.click(within(dialog).getByRole('button', { name: 'Write it down' }));
    await waitFor(() => expect(written).toHaveLength(1));
    expect(written[0]).toMatchObject({
      kind: 'test',
      body: {
        name: 'Coated big ends',
        figure: 'grade',
        expected: 'less',
        places: [1, 2].flatMap((r) => [`rod.${r}.shell.upper`, `rod.${r}.shell.lower`]),
      },
    });
    const tests = await screen.findByRole('region', { name: 'Tests' });
    await waitFor(() => expect(tests.querySelector('[data-came="as expected"]')).toBeTruthy());
    expect(tests.textContent).toMatch(/1\.0 at the 4 changed places, 3\.0 at 4 others like them/);
    expect(tests.textContent).toMatch(/2 of 70 ways/);
  });
});
