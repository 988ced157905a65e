import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, MICROMETER, open, settled, Shop, Wire } from '../../testing/bench.js';
import { Measure } from './Measure.js';

// One figure at a time, as a hand at the bench types it.
const page = (
  <Routes>
    <Route path="/case/:caseId/measure/:placePath?" element={<Measure />} />
  </Routes>
);
const at = (place: string): string => `/case/${CASE}/measure/${place}`;
const PIN = 'crank.pin.1~journal';
const field = (): Promise<HTMLInputElement> => screen.findByRole<HTMLInputElement>('textbox', { name: /^Reading/ });
const readings = (shop: Shop, station = 'crank.pin.1') =>
  shop.view.byId.get(station)!.readings.map((r) => [r.value.cell, r.value.take, r.value.value, r.value.insisted]);

describe('entry by hand', () => {
  it('takes a figure on Enter, goes to the next spot and is ready for the next figure', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    const input = await field();
    expect(input).toHaveProperty('ariaLabel', 'Reading, front, axis A');
    await user.type(input, '49.98{Enter}');
    await settled();
    expect(readings(shop)).toEqual([['front.A', 1, 49.98, false]]);
    expect((await field()).getAttribute('aria-label')).toBe('Reading, front, axis B');
    expect((await field()).value).toBe('');
    expect(document.activeElement).toBe(await field());
  });

  it('reads a decimal comma and an inch as they are meant', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    await user.type(await field(), '49,981{Enter}');
    await user.type(await field(), '1.9677"{Enter}');
    await settled();
    expect(readings(shop)).toEqual([
      ['front.A', 1, 49.981, false],
      ['front.B', 1, expect.closeTo(49.97958, 6), false],
    ]);
  });

  it('holds back a slipped decimal point, takes it on a second Enter and says that it was insisted on', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    await user.type(await field(), '4.998{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/slipped decimal point.*Not taken yet/);
    await settled();
    expect(readings(shop)).toEqual([]);
    await user.keyboard('{Enter}');
    await settled();
    expect(readings(shop)).toEqual([['front.A', 1, 4.998, true]]);
  });

  it('what is held back is selected: digits typed again replace it', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    await user.type(await field(), '4.998{Enter}');
    await screen.findByRole('alert');
    await user.keyboard('49.98');
    expect((await field()).value).toBe('49.98');
    await user.keyboard('{Enter}');
    await settled();
    expect(readings(shop)).toEqual([['front.A', 1, 49.98, false]]);
  });

  it('says what is wrong with words and takes nothing', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    await user.type(await field(), 'about 50{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/not a reading|not a number|unit/i);
    await user.clear(await field());
    await user.type(await field(), '{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/Nothing was typed/);
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('a dash is a place that was not read, and Backspace on the empty field goes back', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    await user.type(await field(), '-{Enter}');
    await settled();
    expect(readings(shop)).toEqual([['front.A', 1, null, false]]);
    expect((await field()).getAttribute('aria-label')).toMatch(/axis B$/);
    await user.keyboard('{Backspace}');
    expect((await field()).getAttribute('aria-label')).toMatch(/axis A$/);
  });

  it('the last spot of a place leads to the next open place of the round, and each figure is taken once', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    for (const text of ['49.981', '49.982', '49.979', '49.980', '49.981', '49.983']) await user.type(await field(), `${text}{Enter}`);
    await settled();
    expect(readings(shop)).toHaveLength(6);
    expect(await screen.findByRole('heading', { name: /^Crankpin 2|^Pin 2|Crankpin 2/ })).toBeTruthy();
    await user.tab();
    await settled();
    expect(readings(shop)).toHaveLength(6);
    expect(readings(shop, 'crank.pin.2')).toEqual([]);
  });

  it('four places that read the same to the last digit are questioned, and kept', async () => {
    const { shop, user } = await open(page, { at: at(PIN) });
    for (let k = 0; k < 4; k++) await user.type(await field(), '49.980{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/last 4 places all read 49\.980.*stuck/);
    await settled();
    expect(readings(shop)).toHaveLength(4);
  });

  it('a correction takes the place of what stood there', async () => {
    const shop = new Shop();
    shop.write('reading-taken', 'crank.pin.1', {
      sheet: 'journal',
      cell: 'front.A',
      take: 1,
      text: '49.98',
      unit: 'mm',
      value: 49.98,
      gauge: MICROMETER,
      insisted: false,
    });
    const { user } = await open(page, { at: at(PIN), shop });
    await field();
    await user.keyboard('{Backspace}');
    await user.type(await field(), '49.975{Enter}');
    await settled();
    expect(readings(shop)).toEqual([['front.A', 1, 49.975, false]]);
  });

  it('is closed to a reader', async () => {
    const { shop } = await open(page, { at: at(PIN), role: 'reader' });
    expect((await field()).disabled).toBe(true);
    expect(shop.posts).toEqual([]);
  });

  it('keeps what was typed while the server is away and sends it when it answers', async () => {
    const shop = new Shop();
    let away = true;
    shop.refuse = () => (away ? 'away' : null);
    const { user } = await open(page, { at: at(PIN), shop });
    await user.type(await field(), '49.98{Enter}');
    await settled();
    expect(readings(shop)).toEqual([]);
    // What the hand wrote is on the page all the same.
    expect(within(screen.getByRole('region', { name: 'Gauge entry' })).getAllByText(/49\.980/).length).toBeGreaterThan(0);
    away = false;
    await waitFor(() => expect(readings(shop)).toEqual([['front.A', 1, 49.98, false]]), { timeout: 4000 });
  });
});

describe('entry over the wire', () => {
  const wired = (): Shop => {
    const shop = new Shop();
    shop.standIns = [{ gaugeId: MICROMETER.id, faults: {}, count: 0, last: null, at: null }];
    return shop;
  };
  const spot = { caseId: CASE, station: 'crank.pin.1', sheet: 'journal', cell: 'front.A' };

  it('tells the gauge where it lies, and Enter on the empty field presses its key', async () => {
    const { user } = await open(page, { at: at(PIN), shop: wired() });
    await field();
    await screen.findByText('on the wire');
    await waitFor(() => expect(Wire.last!.said).toContainEqual({ type: 'at', gauge: MICROMETER.id, at: spot }));
    await user.type(await field(), '{Enter}');
    expect(Wire.last!.said).toContainEqual({ type: 'press', gauge: MICROMETER.id, at: spot });
  });

  it('takes what it sends as simulated, and goes on', async () => {
    const { shop } = await open(page, { at: at(PIN), shop: wired() });
    await screen.findByText('on the wire');
    Wire.last!.hear({ type: 'reading', gauge: MICROMETER.id, text: '49.977', unit: 'mm', at: spot });
    await settled();
    expect(shop.view.byId.get('crank.pin.1')!.readings.map((r) => [r.value.value, r.value.simulated])).toEqual([[49.977, true]]);
    expect((await field()).getAttribute('aria-label')).toMatch(/axis B$/);
  });

  it('takes nothing sent for another place, by another gauge or for another case', async () => {
    const { shop } = await open(page, { at: at(PIN), shop: wired() });
    await screen.findByText('on the wire');
    Wire.last!.hear({ type: 'reading', gauge: MICROMETER.id, text: '49.9', unit: 'mm', at: { ...spot, cell: 'rear.B' } });
    expect((await screen.findByRole('alert')).textContent).toMatch(/for another place \(rear\.B\).*not taken/);
    Wire.last!.hear({ type: 'reading', gauge: 'other', text: '49.9', unit: 'mm', at: spot });
    Wire.last!.hear({ type: 'reading', gauge: MICROMETER.id, text: '49.9', unit: 'mm', at: { ...spot, caseId: 'another' } });
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('says of a silent gauge what was kept, and of its master whether it can be trusted', async () => {
    await open(page, { at: at(PIN), shop: wired() });
    await screen.findByText('on the wire');
    Wire.last!.hear({ type: 'silent', gauge: MICROMETER.id, at: spot });
    expect((await screen.findByRole('alert')).textContent).toMatch(/sent nothing at front, axis A.*Nothing of this place is taken yet/);
    Wire.last!.hear({ type: 'reading', gauge: MICROMETER.id, text: '50.002', unit: 'mm', at: 'master' });
    expect((await screen.findByRole('alert')).textContent).toMatch(/0\.002 mm off, inside its U/);
    Wire.last!.hear({ type: 'reading', gauge: MICROMETER.id, text: '50.020', unit: 'mm', at: 'master' });
    expect((await screen.findByRole('alert')).textContent).toMatch(/0\.020 mm off, more than its U.*in doubt/);
  });
});
