import { act, createEvent, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { CASE, open, settled, type Shop } from '../../testing/bench.js';
import { ReadingGrid } from './ReadingGrid.js';

// Every reading of the engine in one grid.
const at = `/case/${CASE}/measure/all`;
// By the label itself: asking a table of hundreds of buttons for their names takes a browser of this kind seconds.
const cell = (label: string): HTMLElement => {
  const found = document.querySelector<HTMLElement>(`button[aria-label^="${label}"]`);
  if (!found) throw new Error(`There is no cell "${label}".`);
  return found;
};
const typing = (): HTMLInputElement => {
  const found = document.querySelector<HTMLInputElement>('td.active input');
  if (!found) throw new Error('No cell is typed into.');
  return found;
};
const values = (shop: Shop, station: string) => shop.view.byId.get(station)!.readings.map((r) => [r.value.cell, r.value.value]);

function paste(target: Element, text: string): void {
  const event = createEvent.paste(target, { clipboardData: { getData: () => text } });
  act(() => void fireEvent(target, event));
}

describe('the grid of readings', () => {
  it('takes a figure in a cell and moves on with Enter', async () => {
    const { shop, user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(cell('Pin 1, front, axis A: missing'));
    await user.keyboard('49.981{Enter}');
    await settled();
    expect(values(shop, 'crank.pin.1')).toEqual([['front.A', 49.981]]);
    expect(cell('Pin 1, front, axis A: 49.981')).toBeTruthy();
    // The next place of the same column has the hand now.
    expect(typing().getAttribute('aria-label')).toMatch(/^Pin 2, front, axis A/);
  });

  it('goes through the cells by arrows without writing anything', async () => {
    const { shop, user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(cell('Pin 1, front, axis A: missing'));
    await user.keyboard('{ArrowRight}');
    expect(typing().getAttribute('aria-label')).toMatch(/^Pin 1, front, axis B/);
    await user.keyboard('{ArrowDown}{ArrowLeft}');
    expect(typing().getAttribute('aria-label')).toMatch(/^Pin 2, front, axis A/);
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('holds a slip back in its cell until Enter is pressed again', async () => {
    const { shop, user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(cell('Pin 1, front, axis A: missing'));
    await user.keyboard('4.998{Enter}');
    await settled();
    expect(shop.posts).toEqual([]);
    expect(screen.getByText(/slipped decimal point.*Not taken yet/)).toBeTruthy();
    await user.keyboard('{Enter}');
    await settled();
    expect(shop.view.byId.get('crank.pin.1')!.readings.map((r) => [r.value.value, r.value.insisted])).toEqual([[4.998, true]]);
  });

  it('says which figure was left behind that could not be taken, and takes nothing else', async () => {
    const { shop, user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(cell('Pin 1, front, axis A: missing'));
    await user.keyboard('abc');
    await user.click(screen.getByText('Whole engine'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/abc/);
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('takes a block from a spreadsheet from the chosen cell on, after it was looked at', async () => {
    const { shop, user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(cell('Pin 1, front, axis A: missing'));
    paste(typing(), '49.981\t49.978\n49.982\t49,979');
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getByText(/clipboard/)).toBeTruthy();
    await settled();
    expect(shop.posts).toEqual([]);
    await user.click(within(dialog).getByText('Take 4 readings'));
    await waitFor(() => expect(values(shop, 'crank.pin.2')).toHaveLength(2));
    expect(values(shop, 'crank.pin.1')).toEqual([
      ['front.A', 49.981],
      ['front.B', 49.978],
    ]);
    expect(values(shop, 'crank.pin.2')).toEqual([
      ['front.A', 49.982],
      ['front.B', 49.979],
    ]);
  });

  it('shows only what is begun, or says that nothing is', async () => {
    const { user } = await open(<ReadingGrid />, { at });
    await screen.findByText('Whole engine');
    await user.click(screen.getByText('Begun, something missing'));
    expect(await screen.findByText('No place is of that kind just now.')).toBeTruthy();
    await user.click(screen.getByText('All places'));
    await user.click(cell('Pin 1, front, axis A: missing'));
    await user.keyboard('49.981{Enter}');
    await settled();
    await user.click(screen.getByText('Begun, something missing'));
    await waitFor(() => expect(screen.getAllByRole('table')).toHaveLength(1));
    expect(screen.getByText('Pin 1')).toBeTruthy();
    expect(screen.queryByText('Pin 2')).toBeNull();
  });

  it('is read, not written, by a reader', async () => {
    const { user, shop } = await open(<ReadingGrid />, { at, role: 'reader' });
    await screen.findByText('Whole engine');
    expect(screen.queryByText('Bring in CSV')).toBeNull();
    await user.click(cell('Pin 1, front, axis A: missing'));
    expect(document.querySelector('td.active')).toBeNull();
    expect(shop.posts).toEqual([]);
  });
});
