import type { EngineLogAnswer } from '@true-ledger/contract';
import type { LogLine } from '@true-ledger/core/engineLog';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { EngineLogPage } from './EngineLogPage.js';
import { OilList } from './OilList.js';

const ID = '9aea29f8-0846-4c1a-89e5-9336c342b2da';
const RECORD = {
  mark: 'E-7',
  name: 'Launch',
  counter: 'h',
  fuel: 'diesel',
  cooling: 'liquid',
  sumpL: 9,
  marksL: 2,
  changeEvery: 250,
} as const;
let n = 0;
const line = (kind: LogLine['kind'], day: string, counter: number | null, body: object): LogLine =>
  ({ id: `l${++n}`, kind, day, counter, supersedes: null, body, by: 'Mara', time: `${day}T08:00:00Z` }) as LogLine;
const level = (day: string, counter: number, share: number): LogLine =>
  line('level', day, counter, { share, look: 'dark', stick: '', note: '' });
const answer = (lines: LogLine[], more: Partial<EngineLogAnswer> = {}): EngineLogAnswer => ({
  id: ID,
  record: RECORD,
  version: 1,
  mergedInto: null,
  merged: [],
  lines,
  cases: [],
  others: [],
  awaited: [],
  ...more,
});

/** A shop with one engine, whose log takes what is written into it. */
function shopWith(lines: LogLine[], more: Partial<EngineLogAnswer> = {}): { shop: Shop; written: LogLine[] } {
  const shop = new Shop();
  const written: LogLine[] = [];
  const now = (): EngineLogAnswer => answer([...lines, ...written], more);
  shop.more.set(`GET /api/engines/${ID}`, () => json(200, now()));
  shop.more.set('GET /api/engines', () =>
    json(200, [
      {
        id: ID,
        record: RECORD,
        version: 1,
        cases: 0,
        lines: 2,
        newest: '2026-02-01',
        counter: 60,
        urgent: ['The level is rising.'],
        due: null,
      },
    ]),
  );
  shop.more.set(`POST /api/engines/${ID}/lines`, async (request) => {
    const { lines: drafts } = (await request.json()) as { lines: LogLine[] };
    written.push(...drafts.map((d) => ({ ...d, by: 'Mara', time: '2026-03-01T08:00:00Z' })));
    return json(201, now());
  });
  return { shop, written };
}
const page = (role: 'owner' | 'reader' = 'owner') => (
  <Routes>
    <Route path="/oil" element={<OilList me={person(role)} />} />
    <Route path="/oil/:engineId" element={<EngineLogPage me={person(role)} />} />
  </Routes>
);

describe('the oil of the shop', () => {
  it('lists its engines by what their logs say, and finds one by its words', async () => {
    const { user } = openShop(page(), { shop: shopWith([]).shop, at: '/oil' });
    await screen.findByText('The level is rising.');
    await user.type(screen.getByLabelText('Find an engine'), 'ferry');
    await screen.findByText(/No engine has these words/);
  });

  it('says what to do while there is no engine, and makes one only when it has a mark and a name', async () => {
    const shop = new Shop();
    let made: unknown = null;
    shop.more.set('GET /api/engines', () => json(200, []));
    shop.more.set('POST /api/engines', async (request) => {
      made = await request.json();
      return json(400, { code: 'engine-mark', sentence: 'Ferry has the mark E-9 already.' });
    });
    const { user } = openShop(page(), { shop, at: '/oil' });
    await screen.findByText(/No engine has a log yet/);
    await user.click(screen.getByText('New engine'));
    const dialog = await screen.findByRole('dialog');
    const keep = within(dialog).getByText('Make the record').closest('button')!;
    expect(keep.disabled).toBe(true);
    // The dialog puts the hand in its first field once it stands open.
    await waitFor(() => expect(document.activeElement).toBe(within(dialog).getByLabelText('Mark')));
    await user.type(within(dialog).getByLabelText('Mark'), 'E-9');
    await user.type(within(dialog).getByLabelText(/^Name/), 'Dredger');
    expect(keep.disabled).toBe(false);
    await user.click(keep);
    await screen.findByText('Ferry has the mark E-9 already.');
    expect(made).toMatchObject({ record: { mark: 'E-9', name: 'Dredger', counter: 'h' } });
  });
});

describe('the log of an engine', () => {
  it('says at once that a level rises which was just written', async () => {
    const { shop, written } = shopWith([level('2026-01-01', 10, 0.5), level('2026-02-01', 60, 0.5)]);
    const { user } = openShop(page(), { shop, at: `/oil/${ID}` });
    await screen.findByText('Nothing stands out.');
    const form = screen.getByRole('form', { name: 'New line' });
    // Nothing is written that nobody read.
    expect(within(form).getByText('Write the line').closest('button')!.disabled).toBe(true);
    expect(within(form).getByText('Type the level.')).toBeTruthy();
    await user.type(within(form).getByLabelText(/^Level: 0 lower/), '1,4');
    await user.type(within(form).getByLabelText('Counter'), '80{Enter}');
    await screen.findByText(/The level is rising: 1\.8 l more/);
    expect(written).toMatchObject([{ kind: 'level', counter: 80, body: { share: 1.4 }, supersedes: null }]);
  });

  it('holds a doubted result back until somebody lets it stand or takes it back', async () => {
    const sample = line('sample', '2026-02-01', 60, { reference: 'S-0001', drawn: 'tube', laboratory: '' });
    const result = line('result', '2026-02-10', null, {
      reference: 'S-0001',
      reported: '2026-01-20',
      laboratory: '',
      figures: { Fe: 12 },
      insisted: false,
    });
    const { shop, written } = shopWith([sample, result]);
    const { user } = openShop(page(), { shop, at: `/oil/${ID}` });
    const pane = await screen.findByRole('region', { name: 'Samples' });
    await within(pane).findByText(/reported on 2026-01-20, before the sample was drawn/);
    await user.click(within(pane).getByText('Let it stand'));
    await waitFor(() => expect(written).toMatchObject([{ kind: 'result', supersedes: result.id, body: { insisted: true } }]));
    await waitFor(() => expect(within(pane).queryByText('Let it stand')).toBeNull());
  });

  it('takes a line back with a reason, and keeps it', async () => {
    const { shop, written } = shopWith([level('2026-01-01', 10, 0.5)]);
    const { user } = openShop(page(), { shop, at: `/oil/${ID}` });
    await user.click(await screen.findByText('Take back'));
    const dialog = await screen.findByRole('dialog');
    const take = within(dialog).getByText('Take it back').closest('button')!;
    expect(take.disabled).toBe(true);
    await user.type(within(dialog).getByLabelText(/^Why/), 'of another engine');
    await user.click(take);
    await screen.findByText('No line yet');
    expect(written).toMatchObject([{ kind: 'struck', supersedes: expect.any(String), body: { why: 'of another engine' } }]);
    expect(screen.getByText(/0 stand, 2 were written/)).toBeTruthy();
  });

  it('that was merged is shown with where it went, and is not written in', async () => {
    const { shop } = shopWith([], { mergedInto: { id: 'other', mark: 'E-1' } });
    openShop(page(), { shop, at: `/oil/${ID}` });
    await screen.findByText('Part them again');
    expect(screen.queryByRole('form')).toBeNull();
  });

  it('is only read by a reader', async () => {
    const { shop } = shopWith([level('2026-01-01', 10, 0.5)], { merged: [{ id: 'm', mark: 'E-2' }] });
    openShop(page('reader'), { shop, at: `/oil/${ID}` });
    await screen.findByText(/Two lines of one kind/);
    for (const name of ['Write the line', 'Take back', 'Change the record', 'Merge into it', 'Part them again'])
      expect(screen.queryByText(name)).toBeNull();
  });
});
