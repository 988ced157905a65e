import { screen } from '@testing-library/react';
import { open, settled, Shop } from '../../testing/bench.js';
import { Parts } from './Parts.js';

// What becomes of each part.
function seized(): Shop {
  const shop = new Shop();
  const book = shop.view.book.version;
  for (const [station, pattern, grade] of [
    ['rod.2.shell.lower', 'spun-shell', 4],
    ['crank.pin.2', 'journal-scoring', 3],
  ] as const) {
    shop.write('pattern-set', station, { pattern, present: true });
    shop.write('grade-confirmed', station, { grade, proposed: null, reason: '', book });
  }
  return shop;
}
const disposition = (shop: Shop, station: string) => shop.view.dispositions.find((d) => d.station === station)?.value;

describe('what becomes of each part', () => {
  it('proposes from what was found, with what follows for others and why', async () => {
    await open(<Parts />, { shop: seized() });
    expect(await screen.findByText('Crankpin 2')).toBeTruthy();
    const page = document.body.textContent!;
    // A moved shell has its rod's housing measured; metal went round, so the oil side is opened.
    expect(page).toMatch(/its shell moved: housing measured.*because of rod 2 lower shell/s);
    expect(page).toMatch(/metal or grit went round/);
    expect(page).toMatch(/all crankpins to one size.*because of crankpin 2/s);
  });

  it('confirms one, and takes it back', async () => {
    const shop = seized();
    const { user } = await open(<Parts />, { shop });
    const row = (await screen.findByText('Crankpin 2')).closest('tr')!;
    await user.click([...row.querySelectorAll('button')].find((b) => b.textContent === 'Confirm')!);
    await settled();
    expect(disposition(shop, 'crank.pin.2')).toMatchObject({ operation: 'grind' });
    await user.click(await screen.findByText('confirmed ✓'));
    await settled();
    expect(disposition(shop, 'crank.pin.2')).toBeUndefined();
  });

  it('confirms all that is proposed in one step', async () => {
    const shop = seized();
    const { user } = await open(<Parts />, { shop });
    const all = await screen.findByText(/^Confirm \d+ proposed$/);
    const n = Number(/\d+/.exec(all.textContent!)![0]);
    await user.click(all);
    await settled();
    expect(shop.view.dispositions).toHaveLength(n);
    expect(shop.posts).toHaveLength(1);
  });

  it('keeps a size the builder writes', async () => {
    const shop = seized();
    const { user } = await open(<Parts />, { shop });
    const field = await screen.findByLabelText('Crankpin 2: size');
    await user.clear(field);
    await user.type(field, '−0.50 mm{Enter}');
    await settled();
    expect(disposition(shop, 'crank.pin.2')).toMatchObject({ size: '−0.50 mm' });
  });

  it('says so where nothing asks for work, and a part nobody looked at is not judged', async () => {
    const { user } = await open(<Parts />);
    expect(await screen.findByText(/Nothing has been found that asks for work yet/)).toBeTruthy();
    await user.click(screen.getByText('also those to check, clean or reuse'));
    expect(screen.getAllByText(/not examined: nothing is known of it/).length).toBeGreaterThan(40);
  });

  it('shows a reader what was decided and lets him change nothing', async () => {
    await open(<Parts />, { shop: seized(), role: 'reader' });
    await screen.findByText('Crankpin 2');
    expect(screen.queryByText(/^Confirm/)).toBeNull();
  });
});
