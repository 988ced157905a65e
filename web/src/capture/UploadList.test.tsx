import { act, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { store } from '../app/store.js';
import { Address, address, CASE, open, openShop, person, settled, Shop } from '../testing/bench.js';
import { CapturePage } from './Capture.js';
import { uploadActions, type QueuedFile } from './queueState.js';
import { UploadList } from './UploadList.js';

// What is on its way: nothing is lost without a word, and what was set aside is filed by a hand.
jest.mock('../workers/filing.js', () => ({ filing: () => ({ prepare: () => new Promise(() => undefined) }) }));
let n = 0;
const file = (more: Partial<QueuedFile>): QueuedFile => ({
  id: `f${++n}`,
  caseId: CASE,
  station: null,
  shot: '',
  kind: 'photo',
  name: `p${n}.jpg`,
  type: 'image/jpeg',
  bytes: 10,
  seconds: null,
  order: n,
  status: 'waiting',
  share: 0,
  problem: null,
  sha256: null,
  tag: null,
  settled: false,
  kept: true,
  ...more,
});
const queue = (...files: QueuedFile[]): void => act(() => void store.dispatch(uploadActions.added(files)));
const left = (): readonly QueuedFile[] => store.getState().uploads.files;
afterEach(() => act(() => void store.dispatch(uploadActions.dropped(left().map((f) => f.id)))));

describe('what is on its way', () => {
  it('is counted, told apart, and cleared when it is stored', async () => {
    queue(file({ status: 'done' }), file({ status: 'already' }), file({ status: 'waiting' }), file({ status: 'sending', share: 0.4 }));
    const { user } = await open(<UploadList caseId={CASE} />);
    const list = screen.getByRole('status');
    expect(list.textContent).toContain('2 of 4 stored');
    for (const words of ['stored', 'was here already', 'waits', 'sending']) expect(list.textContent).toContain(words);
    await user.click(screen.getByText('Clear the list'));
    expect(left().map((f) => f.status)).toEqual(['waiting', 'sending']);
  });

  it('says when the server is away, and when only this page holds a file', async () => {
    queue(file({ status: 'waiting', kept: false }));
    act(() => void store.dispatch(uploadActions.awayChanged(true)));
    await open(<UploadList caseId={CASE} />);
    expect(screen.getByText(/server away: the rest is kept in this browser/)).toBeTruthy();
    expect(screen.getByText(/1 file is held by this page alone/)).toBeTruthy();
    act(() => void store.dispatch(uploadActions.awayChanged(false)));
  });

  it('what the server refuses is told with its sentence, sent again or given up', async () => {
    queue(file({ status: 'refused', problem: { code: 'picture-damaged', sentence: 'It breaks off in the middle.' } as never }));
    const { user } = await open(<UploadList caseId={CASE} />);
    expect(screen.getByText('It breaks off in the middle.')).toBeTruthy();
    expect(screen.getByText('Send again')).toBeTruthy();
    await user.click(screen.getByText('Give it up'));
    expect(left()).toEqual([]);
  });

  it('a file that is too large is not offered to be sent again', async () => {
    queue(file({ status: 'refused', problem: { code: 'file-too-large', sentence: 'It has 90 MB.' } as never }));
    await open(<UploadList caseId={CASE} />);
    expect(screen.queryByText('Send again')).toBeNull();
  });

  it('what was set aside is filed where a hand says, with the places its tag named first', async () => {
    const tag = { kind: 'tag', caseId: CASE, station: 'bore.3' } as never;
    queue(
      file({
        id: 'aside',
        status: 'tray',
        station: 'bore.1',
        tag,
        problem: { code: 'tag-contradicts', sentence: 'The tag says bore 3.' } as never,
      }),
    );
    const { user } = await open(<UploadList caseId={CASE} />);
    await user.click(screen.getByRole('combobox'));
    const options = [...document.querySelectorAll('.ant-select-item-option')].slice(0, 2).map((o) => o.getAttribute('title'));
    expect(options).toEqual(['Bore 1', 'Bore 3']);
    await user.click(screen.getByTitle('Bore 3'));
    await settled();
    expect(left().find((f) => f.id === 'aside')).toMatchObject({ station: 'bore.3', settled: true });
  });

  it('of another case or place is not shown here', async () => {
    queue(file({ caseId: 'other' }), file({ station: 'bore.1' }));
    await open(
      <div>
        <p>beside it</p>
        <UploadList caseId={CASE} station="bore.2" />
      </div>,
    );
    expect(screen.getByText('beside it')).toBeTruthy();
    expect(screen.queryByRole('status')).toBeNull();
  });
});

const page = (role: 'builder' | 'reader' = 'builder') => (
  <Routes>
    <Route
      path="/capture/:caseId"
      element={
        <>
          <Address />
          <CapturePage me={person(role)} />
        </>
      }
    />
  </Routes>
);

describe('the page for the phone', () => {
  it('files by the tag unless a place was chosen', async () => {
    const { user } = openShop(page(), { at: `/capture/${CASE}` });
    await screen.findByLabelText('Choose files');
    await user.upload(screen.getByLabelText('Choose files'), new File(['x'], 'a.jpg', { type: 'image/jpeg' }));
    await waitFor(() => expect(left()).toHaveLength(1));
    expect(left()[0]).toMatchObject({ station: null, kind: 'photo', shot: '' });
  });

  it('at a place a shot of the list is kept with the picture, and a film is filed there too', async () => {
    const { user } = openShop(page(), { at: `/capture/${CASE}?station=pickup.screen` });
    await screen.findByRole('radiogroup', { name: 'Shot' });
    await user.click(screen.getByRole('radio', { name: /screen, both sides/ }));
    expect(decodeURIComponent(address()).replaceAll('+', ' ')).toContain('shot=screen, both sides');
    await user.upload(screen.getByLabelText('Choose files'), [
      new File(['x'], 'a.jpg', { type: 'image/jpeg' }),
      new File(['y'], 'b.mp4', { type: 'video/mp4' }),
    ]);
    await waitFor(() => expect(left()).toHaveLength(2));
    expect(left().map((f) => [f.kind, f.station])).toEqual([
      ['photo', 'pickup.screen'],
      ['clip', 'pickup.screen'],
    ]);
    expect(left()[0]!.shot).toBe('screen, both sides');
    await user.click(screen.getByRole('radio', { name: /screen, both sides/ }));
    expect(address()).toMatch(/shot=(&|$)/);
  });

  it('a reader takes no pictures', async () => {
    openShop(page('reader'), { at: `/capture/${CASE}` });
    expect(await screen.findByText(/pictures are taken by builders/)).toBeTruthy();
    expect(screen.queryByLabelText('Choose files')).toBeNull();
  });

  it('of a case that is not there says so', async () => {
    const shop = new Shop();
    shop.more.set(
      `GET /api/cases/${CASE}`,
      () => new Response(JSON.stringify({ code: 'case-unknown', sentence: 'There is no such case.' }), { status: 404 }),
    );
    openShop(page(), { shop, at: `/capture/${CASE}` });
    expect((await screen.findByRole('alert')).textContent).toBe('There is no such case.');
  });
});
