import { screen } from '@testing-library/react';
import { CASE, json, open, settled, Shop } from '../../testing/bench.js';
import { PriorsLine } from './PriorsLine.js';

const PRIORS = { cases: 30, ofFamily: 9, family: 'inline-4-petrol', on: '2026-12-01', factors: { surge: 3, 'oil-low': 0.7 } };

describe('where a judgement begins', () => {
  it('is the table until the shop’s own frequencies are taken, and again when they are left', async () => {
    const shop = new Shop();
    let asked = '';
    shop.more.set('GET /api/across/priors', (request) => {
      asked = new URL(request.url).search;
      return json(200, { on: true, priors: PRIORS });
    });
    const { user } = await open(<PriorsLine />, { shop });
    await screen.findByText(/Begins with the table alone/);
    await user.click(screen.getByText('Begin with the shop’s own frequencies'));
    await screen.findByText(/30 proven cases up to 2026-12-01, 9 of this kind of engine \(oil surge.* × 3\.0/);
    await settled();
    expect(asked).toContain(`without=${CASE}`);
    expect(shop.view.priors!.value.priors).toEqual(PRIORS);
    await user.click(screen.getByText('The table alone'));
    await screen.findByText(/Begins with the table alone/);
    await settled();
    expect(shop.view.priors).toBeUndefined();
  });

  it('stays the table where nothing was proved', async () => {
    const shop = new Shop();
    shop.more.set('GET /api/across/priors', () => json(200, { on: true, priors: null }));
    const { user } = await open(<PriorsLine />, { shop });
    await user.click(await screen.findByText('Begin with the shop’s own frequencies'));
    await screen.findByText(/nothing to move the table by/);
    expect(shop.posts).toEqual([]);
  });
});
