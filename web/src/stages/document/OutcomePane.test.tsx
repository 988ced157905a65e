import { screen } from '@testing-library/react';
import { open, settled, Shop } from '../../testing/bench.js';
import { OutcomePane } from './OutcomePane.js';

describe('what became of it', () => {
  it('is written down on its day, and taken back', async () => {
    const shop = new Shop();
    const { user } = await open(<OutcomePane />, { shop });
    await screen.findByText(/Nothing is known yet/);
    expect(screen.getByText('Write it down').closest('button')!.disabled).toBe(true);
    for (const [field, option] of [
      ['It', 'ran on'],
      ['Told by', 'owner'],
    ] as const) {
      await user.click(screen.getByLabelText(field));
      await user.click(await screen.findByTitle(option));
    }
    await user.type(screen.getByLabelText('Run since'), '340');
    await user.click(screen.getByText('Write it down'));
    await settled();
    expect(shop.view.outcomes.map((o) => o.value)).toMatchObject([{ outcome: 'ran-on', by: 'owner', service: 340, cost: null }]);
    await user.click(await screen.findByText('Take back'));
    await settled();
    expect(shop.view.outcomes).toEqual([]);
  });

  it('that disproves a signed account asks for an amendment and changes no version', async () => {
    const shop = new Shop();
    shop.write('account-signed', null, {
      version: 1,
      reason: '',
      template: 'private',
      sha256: 'd'.repeat(64),
      bytes: 1000,
      head: 'e'.repeat(64),
      entries: 3,
      flags: 0,
      sections: {},
    });
    shop.write('outcome-set', null, {
      on: '2026-12-01',
      outcome: 'disproved',
      by: 'court',
      cause: 'surge',
      service: null,
      cost: null,
      days: null,
      note: '',
    });
    await open(<OutcomePane />, { shop });
    await screen.findByText(/Version 1 of the account was signed before the outcome/);
    expect(screen.getByText(/it was oil surge/i)).toBeTruthy();
    expect(shop.view.signed).toHaveLength(1);
  });

  it('a reader reads it', async () => {
    await open(<OutcomePane />, { shop: new Shop(), role: 'reader' });
    await screen.findByText(/Nothing is known yet/);
    expect(screen.queryByText('Write it down')).toBeNull();
  });
});
