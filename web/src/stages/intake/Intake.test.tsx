import { FEATURES } from '@true-ledger/core/cause';
import { NO_PARTIES } from '@true-ledger/core/report';
import { screen, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, json, open, settled, Shop } from '../../testing/bench.js';
import { Intake } from './Intake.js';

// The intake: what was asked and told, each line with how it is known, and the first impression before the evidence.
const page = (
  <Routes>
    <Route path="/case/:caseId/intake" element={<Intake />} />
    <Route path="*" element={<p>elsewhere</p>} />
  </Routes>
);
const at = `/case/${CASE}/intake`;
function shopOf(): Shop {
  const shop = new Shop();
  shop.more.set(`GET /api/cases/${CASE}/parties`, () => json(200, { version: 0, parties: NO_PARTIES }));
  return shop;
}
const pane = (heading: string): HTMLElement => screen.getByRole('heading', { name: heading }).closest('section')!;

describe('the intake', () => {
  it('keeps words when the hand leaves the field, and only once', async () => {
    const { shop, user } = await open(page, { shop: shopOf(), at });
    await user.type(screen.getByLabelText('Client reference (no names)'), 'Job 7{Enter}');
    await user.tab();
    await settled();
    expect(shop.posts.flat().map((e) => e.body)).toEqual([{ field: 'reference', value: 'Job 7' }]);
  });

  it('takes several complaints, and asks for the colour only of smoke', async () => {
    const { shop, user } = await open(page, { shop: shopOf(), at });
    expect(screen.getAllByText('Smoke')).toHaveLength(1);
    await user.click(screen.getByLabelText('Knock'));
    await settled();
    await user.click(screen.getByLabelText('Smoke'));
    await settled();
    expect(shop.view.intake('complaint')).toBe('knock,smoke');
    const smoke = screen.getAllByText('Smoke').at(-1)!.closest('label')!;
    await user.click(within(smoke).getByRole('combobox'));
    await user.click(await screen.findByTitle('Blue'));
    await settled();
    expect(shop.view.intake('smokeColour')).toBe('blue');
  });

  it('asks how far it was run only when it was run on', async () => {
    const { shop, user } = await open(page, { shop: shopOf(), at });
    expect(screen.queryByLabelText('For how long or how far')).toBeNull();
    await user.click(screen.getByText('Run on'));
    await settled();
    await user.type(screen.getByLabelText('For how long or how far'), 'ten miles');
    await user.tab();
    await settled();
    expect([shop.view.intake('afterFirstSign'), shop.view.intake('ranOnFor')]).toEqual(['driven-on', 'ten miles']);
  });

  it('an answer pressed again is taken back', async () => {
    const { shop, user } = await open(page, { shop: shopOf(), at });
    await user.click(screen.getByText('Sudden'));
    await settled();
    expect(shop.view.intake('onset')).toBe('sudden');
    await user.click(screen.getByText('Gradual'));
    await settled();
    expect(shop.view.intake('onset')).toBe('gradual');
  });

  it('the first impression is written before the evidence, and locked by the first step of the strip', async () => {
    const shop = shopOf();
    const first = await open(page, { shop, at });
    expect(screen.getByText(/First impression, written down before the evidence/)).toBeTruthy();
    first.unmount();
    shop.write('step-set', null, { step: 'arrival', state: 'done', note: '' });
    await open(page, { shop, at });
    const label = screen.getByText(/First impression, locked since the strip began/).closest('label')!;
    expect(within(label).getByRole<HTMLInputElement>('combobox').disabled).toBe(true);
  });

  it('a line of history is kept with how it is known, sorted by date, and can be taken back', async () => {
    const shop = shopOf();
    const line = (text: string, date: string | null) =>
      shop.write('history-line', null, { line: crypto.randomUUID(), text, feature: null, reliability: 'told', date });
    line('stood for a year', null);
    line('bearings renewed', '2025-03-01');
    const { user } = await open(page, { shop, at });
    const rows = (): string[] => [...pane('History').querySelectorAll('tbody tr')].map((r) => r.querySelector('td')!.textContent!);
    expect(rows().slice(0, 2)).toEqual(['bearings renewed', 'stood for a year']);
    await user.click(within(pane('History')).getAllByText('Take back')[0]!);
    await settled();
    expect(shop.view.history.map((h) => h.value.text)).toEqual(['stood for a year']);
  });

  it('what is told in the history counts as evidence where it is one of the things asked after', async () => {
    const shop = shopOf();
    const told = FEATURES.find((f) => f.id === 'told.recent-work')!;
    shop.write('history-line', null, {
      line: crypto.randomUUID(),
      text: 'new rings',
      feature: told.id,
      reliability: 'seen',
      date: null,
      said: 'after-finding',
    });
    await open(page, { shop, at });
    const row = pane('History').querySelector('tbody tr')!.textContent!;
    expect(row).toContain(told.name);
    expect(row).toContain('Seen by us');
    expect(row).toContain('after the finding was put');
  });

  it('is put away with a reason when it should not have been opened', async () => {
    const { shop, user } = await open(page, { shop: shopOf(), at });
    await user.click(screen.getByText('Put away …'));
    const dialog = await screen.findByRole('dialog');
    await user.click(within(dialog).getByText('It is withdrawn'));
    const ok = within(dialog).getByText('Withdraw it').closest('button')!;
    expect(ok.disabled).toBe(true);
    await user.type(within(dialog).getByLabelText('Reason'), 'opened twice');
    await user.click(ok);
    await settled();
    expect(shop.view.shelved?.value).toEqual({ as: 'withdrawn', reason: 'opened twice' });
    expect(screen.queryByText('Put away …')).toBeNull();
  });

  it('a reader sees all of it and changes none', async () => {
    await open(page, { shop: shopOf(), at, role: 'reader' });
    expect(screen.getByLabelText<HTMLInputElement>('Client reference (no names)').disabled).toBe(true);
    expect(screen.queryByText('Put away …')).toBeNull();
  });
});
