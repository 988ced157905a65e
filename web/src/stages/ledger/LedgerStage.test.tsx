import type { KeptEntry } from '@true-ledger/core/ledger';
import { screen, waitFor, within } from '@testing-library/react';
import { CASE, json, open, openShop, Shop } from '../../testing/bench.js';
import { LedgerStage } from './LedgerStage.js';
import { Strike } from './Strike.js';

// Who saw what when: the chain is verified here, and what is struck is struck for good.
function kept(): { shop: Shop; entries: KeptEntry[] } {
  const shop = new Shop();
  const entries: KeptEntry[] = [
    shop.write('intake-set', null, { field: 'reference', value: 'Job 7' }),
    shop.write('pattern-set', 'rod.2.shell.lower', { pattern: 'wiping', present: true }),
  ];
  shop.more.set(`GET /api/cases/${CASE}/entries`, () => json(200, entries));
  return { shop, entries };
}

describe('the ledger', () => {
  it('names the first entry that does not hold, with its reason', async () => {
    const { shop } = kept();
    const { user } = await open(<LedgerStage />, { shop });
    expect(await screen.findByText('2 entries')).toBeTruthy();
    await user.click(screen.getByText('Verify the chain here'));
    // The entries of this bench carry no hashes: verified, the first of them must be refused.
    await waitFor(() => expect(document.querySelector('.verdict')?.textContent).toMatch(/^Entry \d+ does not hold: /));
  });

  it('has nothing to verify while it is empty, and tells what the server says', async () => {
    const { shop } = kept();
    shop.more.set(`GET /api/cases/${CASE}/entries`, () => json(503, { code: 'busy', sentence: 'The server is busy. Try again.' }));
    await open(<LedgerStage />, { shop });
    expect((await screen.findByRole('alert')).textContent).toBe('The server is busy. Try again.');
    expect(screen.getByText('Verify the chain here').closest('button')!.disabled).toBe(true);
  });
});

describe('striking', () => {
  const [entry] = kept().entries;

  it('needs a reason, and says what goes and what stays', async () => {
    const shop = new Shop();
    const sent: object[] = [];
    shop.more.set(`POST /api/cases/${CASE}/redactions`, async (request) => {
      sent.push((await request.json()) as object);
      return json(201, {});
    });
    const { user } = openShop(<Strike entry={entry!} caseId={CASE} signed={1} />, { shop });
    await user.click(screen.getByLabelText(`Strike entry ${entry!.seq}`));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('It cannot be taken back.');
    expect(dialog.textContent).toContain('Signed accounts and bundles given out before keep what they hold.');
    const strike = within(dialog).getByText('Strike for good').closest('button')!;
    expect(strike.disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Why it has to go'), 'names the client');
    await user.click(strike);
    await waitFor(() => expect(sent).toEqual([{ entry: entry!.id, reason: 'names the client' }]));
  });

  it('tells what the server refuses, and keeps the reason that was typed', async () => {
    const shop = new Shop();
    shop.more.set(`POST /api/cases/${CASE}/redactions`, () => json(403, { code: 'not-owner', sentence: 'Only the owner strikes.' }));
    const { user } = openShop(<Strike entry={entry!} caseId={CASE} signed={0} />, { shop });
    await user.click(screen.getByLabelText(`Strike entry ${entry!.seq}`));
    const dialog = await screen.findByRole('dialog');
    const why = within(dialog).getByLabelText<HTMLInputElement>('Why it has to go');
    await user.type(why, 'names the client');
    await user.click(within(dialog).getByText('Strike for good'));
    expect((await within(dialog).findByRole('alert')).textContent).toBe('Only the owner strikes.');
    expect(why.value).toBe('names the client');
  });

  it('is not offered where the content is gone already or carries the case', () => {
    const gone = openShop(<Strike entry={{ ...entry!, body: null } as never} caseId={CASE} signed={0} />);
    expect(screen.queryByRole('button')).toBeNull();
    gone.unmount();
    openShop(<Strike entry={{ ...entry!, kind: 'layout-set', body: {} } as never} caseId={CASE} signed={0} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
