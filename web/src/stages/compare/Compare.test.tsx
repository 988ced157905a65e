import { fireEvent, screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { Address, address, CASE, json, open, Shop } from '../../testing/bench.js';
import { Compare } from './Compare.js';

// Surfaces of one kind side by side, on one scale and under one cursor.
const page = (
  <>
    <Address />
    <Routes>
      <Route path="/case/:caseId/compare/:ids?" element={<Compare />} />
      <Route path="*" element={null} />
    </Routes>
  </>
);
const at = (...ids: string[]): string => `/case/${CASE}/compare/${ids.join(',')}`;
const UPPER = 'rod.2.shell.upper';
const LOWER = 'rod.2.shell.lower';
const mark = (id: string) => ({ mark: { id, made: 'found-so', radiusMm: 6, shape: 'stroke', class: 'lining', points: [[0.5, 0.5]] } });
function shopOf(): Shop {
  const shop = new Shop();
  shop.more.set('GET /api/references', () =>
    json(200, [
      {
        id: 'r1',
        name: 'new rod shell',
        note: 'from the box',
        part: 'shell',
        caseId: CASE,
        station: UPPER,
        sha256: 'ab'.repeat(32),
        corners: null,
        width: 8,
        height: 6,
        readings: [{ what: 'Wall at the crown', value: '1.985 mm' }],
        by: 'Mara',
        time: '2026-10-01',
      },
    ]),
  );
  for (const [n, station] of [UPPER, LOWER, 'rod.3.shell.upper'].entries())
    shop.write('mark-made', station, mark(`1111111${n}-1111-4111-8111-111111111111`));
  return shop;
}
const shown = (): string[] => [...document.querySelectorAll('.compared')].map((s) => s.getAttribute('aria-label')!);

describe('side by side', () => {
  it('says how to begin where no place with a surface is chosen', async () => {
    await open(page, { at: `/case/${CASE}/compare` });
    expect(screen.getByText(/Choose a place with a surface/)).toBeTruthy();
  });

  it('offers what looks like it in this engine, and puts it beside', async () => {
    const { user } = await open(page, { shop: shopOf(), at: at(UPPER) });
    const alike = screen.getByRole('region', { name: 'Looks like it' });
    expect(alike.querySelectorAll('li').length).toBeGreaterThan(0);
    await user.click(alike.querySelector('li button')!);
    expect(shown()).toHaveLength(2);
    expect(address()).toContain(`${UPPER},`);
  });

  it('takes twelve at most, and takes one away', async () => {
    const all = ['upper', 'lower'].flatMap((half) => [
      ...[1, 2, 3, 4].map((n) => `rod.${n}.shell.${half}`),
      ...[1, 2, 3].map((n) => `main.${n}.shell.${half}`),
    ]);
    const { user } = await open(page, { shop: shopOf(), at: at(...all) });
    expect(shown()).toHaveLength(12);
    expect(screen.queryByLabelText('Put another beside it')).toBeNull();
    await user.click(screen.getByLabelText('Take away Rod 1 upper shell'));
    expect(shown()).not.toContain('Rod 1 upper shell');
    expect(screen.getByLabelText('Put another beside it')).toBeTruthy();
  });

  it('shows one part of each, and the cursor stays on it', async () => {
    const { user } = await open(page, { shop: shopOf(), at: `${at(UPPER, LOWER)}?part=rear-edge` });
    const canvas = document.querySelector<HTMLCanvasElement>('.compared canvas')!;
    fireEvent.keyDown(canvas, { key: 'ArrowRight' });
    const fromFront = (): number => Number(/, ([\d.]+) mm/.exec(document.querySelector('.cursor-words')!.textContent!)![1]);
    expect(fromFront()).toBeGreaterThan(0.7 * 20);
    await user.click(screen.getByText('Whole surface'));
    expect(address()).not.toContain('part=');
  });

  it('one cursor goes over all of them, by keys too, and says what lies under it', async () => {
    await open(page, { shop: shopOf(), at: at(UPPER, 'rod.4.shell.upper') });
    const [first, second] = [...document.querySelectorAll<HTMLCanvasElement>('.compared canvas')];
    fireEvent.keyDown(first!, { key: 'ArrowRight' });
    const words = [...document.querySelectorAll('.cursor-words')].map((w) => w.textContent!);
    expect(words[0]).toMatch(/^9[0-9]°, .* mm from the .*: lining exposed \d+ %/);
    expect(words[1]).toMatch(/^9[0-9]°, .* mm from the [a-z ]+$/);
    fireEvent.pointerLeave(second!);
    expect(document.querySelector('.cursor-words')!.textContent!.trim()).toBe('');
  });

  it('Space changes what is shown, Escape goes back to the place', async () => {
    const { user } = await open(page, { shop: shopOf(), at: at(UPPER) });
    await user.keyboard(' ');
    expect(document.querySelector('.ant-segmented-item-selected')!.textContent).toBe('What was read and drawn');
    await user.keyboard('{Escape}');
    expect(address()).toBe(`/case/${CASE}/station/${UPPER}`);
  });

  it('a part as it should be stands beside it with what was measured on it', async () => {
    await open(page, { shop: shopOf(), at: at(UPPER, 'ref-r1') });
    expect(await screen.findByText('1.985 mm')).toBeTruthy();
    expect(shown()).toEqual(['Rod 2 upper shell', 'new rod shell']);
  });
});
