import { screen, within } from '@testing-library/react';
import { json, open, settled, Shop } from '../../testing/bench.js';
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

describe('the parts shelf', () => {
  const OTHER = 'a0000000-0000-4000-8000-000000000009';
  const onShelf = {
    caseId: OTHER,
    number: '2025-T07',
    family: 'inline-4-petrol',
    familyName: 'Inline four, petrol',
    station: 'rod.3',
    part: 'rod',
    name: 'Rod, straight',
    size: 'centres 140.02 mm',
    place: 'rack 2',
    promised: [],
  };
  it('keeps a part of this strip, and lets it go again', async () => {
    const shop = seized();
    shop.more.set('GET /api/across/parts', () => json(200, { kept: [], wanted: [] }));
    const { user } = await open(<Parts />, { shop });
    await user.click(await screen.findByRole('button', { name: 'Keep a part' }));
    const dialog = await screen.findByRole('dialog');
    await user.click(within(dialog).getByRole('combobox', { name: 'Which part' }));
    await user.type(within(dialog).getByRole('combobox', { name: 'Which part' }), 'Rod 1 upper');
    await user.click((await screen.findAllByText('Rod 1 upper shell', { selector: '.ant-select-item-option-content' }))[0]!);
    await user.type(within(dialog).getByLabelText('Where it lies'), 'rack 3');
    await user.click(within(dialog).getByRole('button', { name: 'Keep it' }));
    await settled();
    expect(shop.view.byId.get('rod.1.shell.upper')!.kept?.value).toMatchObject({ kept: true, name: 'Rod 1 upper shell', place: 'rack 3' });
    await user.click(await screen.findByRole('button', { name: 'Not on the shelf any more' }));
    await settled();
    expect(shop.view.byId.get('rod.1.shell.upper')!.kept?.value.kept).toBe(false);
  });

  it('offers what lies on the shelf for a part that is wanted, and takes it', async () => {
    const shop = seized();
    shop.more.set('GET /api/across/parts', () => json(200, { kept: [onShelf, { ...onShelf, station: 'crank.pin.1' }], wanted: [] }));
    shop.write('part-wanted', 'rod.2', { what: 'A rod', state: 'wanted', from: '', shelf: null });
    const { user } = await open(<Parts />, { shop });
    expect(await screen.findByText(/On the shelf: Rod, straight, centres 140.02 mm, lies rack 2/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take it' }));
    await settled();
    expect(shop.view.byId.get('rod.2')!.wanted?.value).toMatchObject({
      state: 'had',
      shelf: `${OTHER}/rod.3`,
      from: '2025-T07, Rod, straight',
    });
    expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Not after all' }));
    await settled();
    expect(shop.view.byId.get('rod.2')!.wanted?.value).toMatchObject({ state: 'wanted', shelf: null });
  });
});
