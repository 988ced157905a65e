import { act, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { outboxActions } from '../app/outboxState.js';
import { store } from '../app/store.js';
import { Address, address, CASE, json, openShop, person, settled, Shop } from '../testing/bench.js';
import { CaseFrame } from './CaseFrame.js';

// The frame of an open case: where one is, what is open, who else is here, and whether all is saved.
const page = (role: 'owner' | 'builder' | 'reader' = 'builder') => (
  <Routes>
    <Route path="/" element={<p>the shelf</p>} />
    <Route path="/case/:caseId" element={<CaseFrame me={person(role)} />}>
      <Route path="*" element={<Address />} />
    </Route>
  </Routes>
);
const at = (path: string): string => `/case/${CASE}/${path}`;
const stage = (name: string): HTMLElement =>
  within(screen.getByRole('navigation', { name: 'Stages' }))
    .getByText(name)
    .closest('a')!;
function shopOf(others: object[] = []): Shop {
  const shop = new Shop();
  shop.more.set(`POST /api/cases/${CASE}/presence`, () => json(200, others));
  shop.more.set('GET /api/network/room', () => json(200, { freeMb: 90_000 }));
  return shop;
}
const open = async (shop = shopOf(), path = 'bench', role: 'builder' | 'reader' = 'builder') => {
  const drawn = openShop(page(role), { shop, at: at(path) });
  await screen.findByRole('navigation', { name: 'Stages' });
  return drawn;
};

describe('the frame of a case', () => {
  it('counts what is open in each stage, and counts less when it is done', async () => {
    const shop = shopOf();
    await open(shop);
    const count = (): number => Number(stage('Bench').querySelector('.count')!.textContent);
    const before = count();
    expect(before).toBe(shop.view.stations.filter((s) => s.state === 'not-examined').length);
    expect(stage('Bench').className).toContain('active');
    expect(document.title).toBe('2026-T01, bench · True Ledger');
  });

  it('goes from stage to stage by two keys', async () => {
    const { user } = await open();
    for (const [keys, path] of [
      ['gi', 'intake'],
      ['go', 'opening'],
      ['gs', 'strip'],
      ['gm', 'measure'],
      ['gc', 'cause'],
      ['gd', 'decide'],
      ['gr', 'document'],
      ['gp', 'pictures'],
      ['gl', 'ledger'],
      ['g2', 'second-opinion'],
      ['gb', 'bench'],
    ]) {
      await user.keyboard(keys!);
      expect(address()).toBe(at(path!));
    }
  });

  it('the next thing worth doing follows from the case', async () => {
    const shop = shopOf();
    const { user } = await open(shop);
    await user.keyboard('.');
    expect(address()).toBe(at('intake'));
  });

  it('lists its keys, and finds a place by typing', async () => {
    const { user } = await open();
    await user.keyboard('?');
    expect((await screen.findByRole('dialog')).textContent).toContain('Take the last entry back');
    await user.keyboard('{Escape}');
    await waitFor(() => expect(document.querySelector('.ant-modal-wrap')?.getAttribute('style') ?? 'display: none').toContain('none'));
    await user.keyboard('/');
    expect(document.activeElement?.id).toBe('find-station');
  });

  it('takes the last entry of this hand back and writes it again', async () => {
    const shop = shopOf();
    const { user } = await open(shop);
    await act(async () => {
      const { record } = await import('../app/outbox.js');
      store.dispatch(record(CASE, person('builder').author, [{ kind: 'state-set', station: 'bore.1', body: { state: 'sound' } }]));
    });
    await settled();
    await waitFor(() => expect(shop.view.byId.get('bore.1')!.state).toBe('sound'));
    await user.keyboard('u');
    await waitFor(() => expect(shop.view.byId.get('bore.1')!.state).toBe('not-examined'));
    await user.keyboard('U');
    await waitFor(() => expect(shop.view.byId.get('bore.1')!.state).toBe('sound'));
  });

  it('says who else is here, and nobody when the line is down', async () => {
    const shop = shopOf([{ name: 'Ida Voss', place: 'Crankpin 2' }]);
    const { unmount } = await open(shop);
    expect(await screen.findByLabelText('Also here: Ida Voss, Crankpin 2')).toBeTruthy();
    unmount();
    shop.more.set(`POST /api/cases/${CASE}/presence`, () => json(503, { code: 'busy', sentence: 'busy' }));
    await open(shop);
    await settled();
    expect(screen.queryByLabelText(/^Also here/)).toBeNull();
  });

  it('warns before the server’s disk is full', async () => {
    const shop = shopOf();
    shop.more.set('GET /api/network/room', () => json(200, { freeMb: 420 }));
    await open(shop);
    expect(await screen.findByText('420 MB left on the server')).toBeTruthy();
  });

  it('tells a reader that nothing he presses is recorded', async () => {
    const { user } = await open(shopOf(), 'bench', 'reader');
    expect(screen.getByText(/You are reading this case/)).toBeTruthy();
    await user.keyboard('u');
    expect(screen.getByText('saved')).toBeTruthy();
  });

  it('a case that is not there is said so, with a way back', async () => {
    const shop = shopOf();
    shop.more.set(`GET /api/cases/${CASE}`, () => json(404, { code: 'case-unknown', sentence: 'There is no such case here.' }));
    const { user } = openShop(page(), { shop, at: at('bench') });
    expect((await screen.findByRole('alert')).textContent).toBe('There is no such case here.');
    await user.click(screen.getByText('Back to the Shelf'));
    expect(await screen.findByText('the shelf')).toBeTruthy();
  });

  it('says what was put away, by whom, and takes it in hand again', async () => {
    const shop = shopOf();
    shop.write('case-shelved', null, { as: 'withdrawn', reason: 'opened twice' });
    const { user } = await open(shop);
    expect(screen.getByText(/Withdrawn by Mara Quill on .*: opened twice/)).toBeTruthy();
    await user.click(screen.getByText('Take in hand again'));
    await settled();
    await waitFor(() => expect(shop.view.shelved?.value.as).toBe('in-hand'));
    expect(screen.queryByText('Take in hand again')).toBeNull();
  });
});

describe('what the server did not take', () => {
  const written = async (shop: Shop): Promise<void> => {
    await act(async () => {
      const { record } = await import('../app/outbox.js');
      store.dispatch(record(CASE, person('builder').author, [{ kind: 'state-set', station: 'bore.1', body: { state: 'sound' } }]));
    });
    await settled();
    expect(shop.posts).toHaveLength(0);
  };

  it('a place somebody else wrote first is shown with both words, and the person chooses', async () => {
    const shop = shopOf();
    shop.refuse = () =>
      ({
        code: 'entry-conflict',
        sentence: 'Ida wrote this place first.',
        conflict: { current: { kind: 'state-set', body: { state: 'lost' }, author: { id: 'ida', name: 'Ida' }, id: 'x', seq: 3 } },
      }) as never;
    const { user } = await open(shop);
    await written(shop);
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toContain('Ida wrote this place first.');
    expect(alert.textContent).toMatch(/Yours:.*sound/);
    await user.click(within(alert).getByText('Keep theirs'));
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(store.getState().outbox.items).toHaveLength(0);
  });

  it('while the server is away entries are kept here and say so', async () => {
    const shop = shopOf();
    shop.refuse = () => 'away';
    await open(shop);
    await written(shop);
    expect(await screen.findByText('1 kept here, server away')).toBeTruthy();
    act(() => {
      for (const item of store.getState().outbox.items) store.dispatch(outboxActions.settled([item.draft.id] as never));
    });
  });
});
