import type { AcrossAnswer } from '@true-ledger/contract';
import { acrossStatistics, type CaseFacts, type CountedCase } from '@true-ledger/core/across';
import { screen, waitFor, within } from '@testing-library/react';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { Across } from './Across.js';

const facts = (more: Partial<CaseFacts>): CaseFacts => ({
  family: 'inline-4-petrol',
  familyName: 'Inline four',
  confirmed: ['oil-low'],
  proven: null,
  program: [['oil-low', 0.7]],
  outcome: null,
  places: [],
  patterns: [],
  hands: [],
  reader: [],
  cost: null,
  days: null,
  givenBack: null,
  words: '',
  ...more,
});
/** A shop with so many cases. */
function shopWith(all: readonly CaseFacts[], more: Partial<AcrossAnswer> = {}): { shop: Shop; switched: boolean[] } {
  const cases: CountedCase[] = all.map((f, i) => ({ id: `c${i}`, number: `2026-${i}`, title: `Case ${i}`, engine: null, facts: f }));
  const shop = new Shop();
  const switched: boolean[] = [];
  shop.more.set('GET /api/across', () =>
    json(200, {
      statistics: acrossStatistics(cases),
      cases: Object.fromEntries(cases.map((c) => [c.id, { number: c.number, title: c.title }])),
      engines: {},
      asked: [],
      ownPriors: switched.at(-1) ?? true,
      ...more,
    }),
  );
  shop.more.set('PUT /api/across/priors', async (request) => {
    switched.push(((await request.json()) as { on: boolean }).on);
    return json(200, { ok: true });
  });
  shop.more.set('GET /api/across/search', () =>
    json(200, {
      total: 60,
      cases: [{ id: 'c9', number: '2024-009', title: 'Ferry', engine: 'Inline four', where: 'Injector 2 dribbles' }],
    }),
  );
  return { shop, switched };
}

describe('across cases', () => {
  it('says what it will count while there is nothing, and divides by nothing', async () => {
    openShop(<Across me={person('owner')} />, { shop: shopWith([]).shop });
    await screen.findByText(/No case is counted yet/);
  });

  it('lists few cases and makes no shares of them; many get bars, and a bar opens its cases', async () => {
    const few = openShop(<Across me={person('owner')} />, { shop: shopWith([facts({}), facts({})]).shop });
    await screen.findByText(/2 of them: too few to make shares of/);
    expect(screen.getByText(/nobody here knows how right anybody was/)).toBeTruthy();
    few.unmount();
    const many = [...Array.from({ length: 5 }, () => facts({})), facts({ confirmed: ['surge'] })];
    const { user } = openShop(<Across me={person('owner')} />, { shop: shopWith(many).shop });
    await user.click(await screen.findByRole('button', { name: /^Oil level run low or none: 5 of 6/ }));
    const behind = await screen.findByRole('region', { name: 'Cases behind it' });
    expect(within(behind).getAllByRole('link').map((a) => a.getAttribute('href'))).toEqual(['c0', 'c1', 'c2', 'c3', 'c4'].map((c) => `/case/${c}/cause`)); // prettier-ignore
  });

  it('tells how right builder and program were, with how many that is', async () => {
    const proven = [...Array.from({ length: 4 }, () => facts({ proven: ['oil-low'] })), facts({ proven: ['surge'] })];
    openShop(<Across me={person('builder')} />, { shop: shopWith(proven).shop });
    const pane = await screen.findByRole('region', { name: 'How right' });
    expect(within(pane).getAllByText('4 of 5')).toHaveLength(2);
    expect(screen.getByText(/bits a cause/)).toBeTruthy();
  });

  it('lets the owner alone switch the priors off', async () => {
    const reader = openShop(<Across me={person('builder')} />, { shop: shopWith([facts({})]).shop });
    expect((await screen.findByLabelText<HTMLButtonElement>('Own frequencies as priors')).disabled).toBe(true);
    reader.unmount();
    const { shop, switched } = shopWith([facts({})]);
    const { user } = openShop(<Across me={person('owner')} />, { shop });
    await user.click(await screen.findByLabelText('Own frequencies as priors'));
    await waitFor(() => expect(switched).toEqual([false]));
    await waitFor(() => expect(screen.getByLabelText('Own frequencies as priors').getAttribute('aria-checked')).toBe('false'));
  });

  it('finds words in all cases, with where they stand', async () => {
    const { user } = openShop(<Across me={person('builder')} />, { shop: shopWith([facts({})]).shop });
    await user.type(await screen.findByLabelText('Find in all cases'), 'injector');
    await screen.findByText('Injector 2 dribbles');
    expect(screen.getByText(/the 1 written in last are shown/)).toBeTruthy();
  });
});
