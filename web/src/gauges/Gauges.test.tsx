import { NO_FAULTS } from '@true-ledger/core/measure';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, MICROMETER, openShop, person, settled, Shop, Wire } from '../testing/bench.js';
import { Gauges } from './Gauges.js';

// The shop's gauges: what each is, when it was checked, and its stand-in on the wire.
const CHECKED = { ...MICROMETER, checkedOn: new Date().toISOString() };
const page = (role: 'owner' | 'reader' = 'owner') => (
  <Routes>
    <Route path="/gauges/:gaugeId?" element={<Gauges me={person(role)} />} />
  </Routes>
);
interface Sent {
  readonly path: string;
  readonly body: Record<string, unknown>;
}
function shopOf(standIns: object[] = []): Shop & { sent: Sent[] } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[] });
  shop.gauges = [CHECKED];
  shop.standIns = standIns;
  const keep = (method: string, path: string, answer: (body: Record<string, unknown>) => Response): void =>
    void shop.more.set(`${method} ${path}`, async (request) => {
      const body = (await request.json()) as Record<string, unknown>;
      shop.sent.push({ path, body });
      return answer(body);
    });
  keep('PUT', '/api/gauges', (body) => {
    shop.gauges = [...shop.gauges.filter((g) => g.id !== body.id), body as never];
    return json(200, body);
  });
  shop.more.set('GET /api/gauges/mic-50/checks', () =>
    json(200, [
      { id: 'c2', time: '2026-11-02T08:00:00Z', masterMm: 50, readMm: 50.02, note: 'dropped', by: 'Mara' },
      { id: 'c1', time: '2026-10-02T08:00:00Z', masterMm: 50, readMm: 50.001, note: '', by: 'Mara' },
    ]),
  );
  keep('POST', '/api/gauges/mic-50/checks', () => json(200, CHECKED));
  keep('PUT', '/api/stand-ins/mic-50', (faults) => {
    shop.standIns = [{ gaugeId: 'mic-50', faults, last: null, count: 0, at: null }];
    return json(200, shop.standIns[0]);
  });
  return shop;
}
const standIn = { gaugeId: 'mic-50', faults: NO_FAULTS, last: '49.981 mm', count: 7, at: null };
const open = async (shop: Shop, role: 'owner' | 'reader' = 'owner') => {
  const drawn = openShop(page(role), { shop, at: '/gauges/mic-50' });
  await screen.findByRole('region', { name: MICROMETER.name });
  return drawn;
};

describe('the gauges of the shop', () => {
  it('a corrected figure is kept only when asked, and can be left as it was', async () => {
    const shop = shopOf();
    const { user } = await open(shop);
    const field = screen.getByLabelText(/^Resolution/);
    await user.clear(field);
    await user.type(field, '0.01');
    await user.tab();
    await user.click(screen.getByText('Leave as it was'));
    expect(shop.sent).toEqual([]);
    expect(screen.queryByText('Keep the gauge')).toBeNull();
    await user.clear(screen.getByLabelText(/^Resolution/));
    await user.type(screen.getByLabelText(/^Resolution/), '0.01');
    await user.tab();
    await user.click(screen.getByText('Keep the gauge'));
    await waitFor(() => expect(shop.sent.map((s) => s.body.resolutionMm)).toEqual([0.01]));
  });

  it('a new one needs a name the shop has not yet, and is told so', async () => {
    const shop = shopOf();
    shop.gauges = [{ ...CHECKED, id: 'bore-gauge', name: 'Bore gauge' }];
    const { user } = openShop(page(), { shop, at: '/gauges' });
    await user.click(await screen.findByText('New gauge'));
    const pane = await screen.findByRole('region', { name: 'New gauge' });
    const name = within(pane).getByLabelText('Name');
    await user.type(name, 'Bore  gauge');
    expect(pane.textContent).toContain('The shop has a gauge of that name already.');
    expect(within(pane).getByText('Keep the gauge').closest('button')!.disabled).toBe(true);
    await user.type(name, ' two');
    await user.click(within(pane).getByText('Keep the gauge'));
    await waitFor(() => expect(shop.sent.map((s) => s.body.id)).toEqual(['bore-gauge-two']));
  });

  it('says when there is none, and what that means for readings', async () => {
    const shop = shopOf();
    shop.gauges = [];
    openShop(page(), { shop, at: '/gauges' });
    expect(await screen.findByText(/readings are taken with an assumed resolution/)).toBeTruthy();
  });

  it('a check tells whether the gauge read its master within its own uncertainty', async () => {
    await open(shopOf());
    const rows = await waitFor(() => {
      const found = screen.getByRole('region', { name: 'Checks' }).querySelectorAll('tbody tr');
      expect(found).toHaveLength(2);
      return found;
    });
    expect(rows[0]!.textContent).toContain('more than its U');
    expect(rows[0]!.textContent).toContain('+0.0200');
    expect(rows[1]!.textContent).toContain('inside its U');
  });

  it('a new check is kept with both figures, and words are refused without a loss', async () => {
    const shop = shopOf();
    const { user } = await open(shop);
    const read = screen.getByLabelText<HTMLInputElement>('What the gauge reads on it');
    await user.type(read, 'about fifty');
    await user.click(screen.getByText('Keep the check'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/about fifty/);
    expect(shop.sent).toEqual([]);
    await user.clear(read);
    await user.type(read, '50.002{Enter}');
    await waitFor(() => expect(shop.sent).toHaveLength(1));
    expect(shop.sent[0]!.body).toMatchObject({ masterMm: 50, readMm: 50.002 });
    await waitFor(() => expect(read.value).toBe(''));
  });

  it('warns of a gauge whose check is long ago', async () => {
    const shop = shopOf();
    shop.gauges = [{ ...MICROMETER, checkedOn: '2020-01-01' }];
    await open(shop);
    expect(screen.getByRole('navigation', { name: 'Gauges' }).textContent).toContain('overdue');
    expect(screen.getByRole('region', { name: 'Checks' }).querySelector('.ant-alert')).toBeTruthy();
  });

  it('a reader sees record, checks and stand-in and changes none', async () => {
    await open(shopOf([standIn]), 'reader');
    await screen.findByText('7 readings since it was last set');
    for (const words of ['New gauge', 'Keep the check', 'Press its key', 'Take it off the wire'])
      expect(screen.queryByText(words)).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>('Name').disabled).toBe(true);
  });
});

describe('the stand-in on the wire', () => {
  it('is put there, presses its key down the wire, and lists what was sent', async () => {
    const shop = shopOf();
    const { user } = await open(shop);
    await user.click(screen.getByText('Put a stand-in on the wire'));
    await screen.findByText('Press its key');
    await settled();
    await user.click(screen.getByText('On its master'));
    expect(Wire.last!.said.at(-1)).toEqual({ type: 'press', gauge: 'mic-50', at: 'master' });
    Wire.last!.hear({ type: 'reading', gauge: 'mic-50', at: 'master', text: '50.001', unit: 'mm' });
    Wire.last!.hear({ type: 'reading', gauge: 'other', at: 'master', text: '1', unit: 'mm' });
    Wire.last!.hear({ type: 'silent', gauge: 'mic-50', at: 'master' });
    const list = screen.getByRole('list', { name: 'Sent' });
    await waitFor(() =>
      expect([...list.querySelectorAll('li')].map((l) => l.textContent)).toEqual(['sent nothing', 'sent 50.001 mm on its master']),
    );
  });

  it('is given a fault and made sound again', async () => {
    const shop = shopOf([standIn]);
    const { user } = await open(shop);
    await user.click(await screen.findByText('sticks on its last figure', { exact: false }));
    await waitFor(() => expect(shop.sent.at(-1)?.body).toEqual({ ...NO_FAULTS, stuck: true }));
    await user.click(await screen.findByText('Sound again'));
    await waitFor(() => expect(shop.sent.at(-1)?.body).toEqual(NO_FAULTS));
    await waitFor(() => expect(screen.queryByText('Sound again')).toBeNull());
  });

  it('says that nothing was sent while the wire is down', async () => {
    const { user } = await open(shopOf([standIn]));
    await screen.findByText('Press its key');
    Wire.last!.readyState = 3;
    await user.click(screen.getByText('Press its key'));
    expect((await screen.findByRole('alert')).textContent).toContain('nothing was sent');
  });
});
