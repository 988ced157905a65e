import { DRILL_CARDS, drillCard, drillOf, type DrillAnswer } from '@true-ledger/core/practice';
import { screen, waitFor } from '@testing-library/react';
import { json, openShop, Shop, person } from '../testing/bench.js';
import { Practice } from './Practice.js';

// Painting and drawing in space are looked at in the browser tests; here what is asked, kept and told.
jest.mock('../studio/Specimen3D.js', () => ({ Specimen3D: () => null }));
jest.mock('../studio/usePainted.js', () => ({
  usePainted: (_: unknown, form: string, key: string) => ({ maps: { key, maps: { form } }, problem: '' }),
}));

function shopWith(answers: DrillAnswer[]): { shop: Shop; sent: Array<{ card: string; seed: number; given: string; tookMs: number }> } {
  const shop = new Shop();
  const sent: Array<{ card: string; seed: number; given: string; tookMs: number }> = [];
  shop.more.set('GET /api/practice/answers', () => json(200, { answers }));
  shop.more.set('POST /api/practice/answers', async (request) => {
    const body = (await request.json()) as (typeof sent)[number];
    sent.push(body);
    const right = drillOf(drillCard(body.card)!, body.seed).right === body.given;
    answers.push({ ...body, right, time: new Date().toISOString() });
    return json(201, { answers });
  });
  return { shop, sent };
}

describe('practice', () => {
  it('asks, takes a key for an answer, tells what decides, and goes on by Enter', async () => {
    const { shop, sent } = shopWith([]);
    const { user } = openShop(<Practice me={person('builder')} />, { shop });
    await screen.findByText('What is it?');
    await user.keyboard('1');
    await waitFor(() => expect(sent).toHaveLength(1));
    const { card, seed, given } = sent[0]!;
    const drill = drillOf(drillCard(card)!, seed);
    expect(card).toBe(DRILL_CARDS[0]!.id);
    expect(given).toBe(drill.options[0]!.id);
    await screen.findByText(given === drill.right ? 'Right.' : /^No: /);
    // A second key changes nothing: the answer was given.
    await user.keyboard('2');
    expect(sent).toHaveLength(1);
    await screen.findByText(/1 answered today/);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(screen.queryByText(/^Right\.|^No: /)).toBeNull());
    expect(screen.getByText('By pattern', { exact: false })).toBeTruthy();
  });

  it('says so when an answer was not kept, and when today’s are done', async () => {
    const { shop } = shopWith([]);
    shop.more.set('POST /api/practice/answers', () =>
      json(503, { code: 'store-unavailable', sentence: 'The ledger cannot be reached just now.' }),
    );
    const failing = openShop(<Practice me={person('builder')} />, { shop });
    await screen.findByText('What is it?');
    await failing.user.keyboard('1');
    await screen.findByText(/The answer was not kept. The ledger cannot be reached/);
    failing.unmount();
    const time = new Date(Date.now() - 1000).toISOString();
    const known = DRILL_CARDS.slice(0, 8).flatMap((c) =>
      [3, 2, 0].map((days): DrillAnswer => ({
        card: c.id,
        seed: 1,
        given: '',
        right: true,
        tookMs: 10,
        time: new Date(Date.parse(time) - days * 86_400_000).toISOString(),
      })),
    );
    // Eight cards were begun today and are known by now.
    const begun = DRILL_CARDS.slice(8, 16).flatMap((c) =>
      [0, 1].map((k): DrillAnswer => ({
        card: c.id,
        seed: 1,
        given: '',
        right: true,
        tookMs: 10,
        time: new Date(Date.parse(time) + k).toISOString(),
      })),
    );
    openShop(<Practice me={person('builder')} />, {
      shop: shopWith([...known.sort((a, b) => a.time.localeCompare(b.time)), ...begun]).shop,
    });
    await screen.findByText(/Today’s drills are done/);
  });
});
