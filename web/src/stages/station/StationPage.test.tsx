import type { ReadPicture, StagePicture } from '@true-ledger/core/photo';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { OpenCase } from '../../app/caseContext.js';
import { store } from '../../app/store.js';
import { nextTask } from '../../frame/nextTask.js';
import { Address, address, CASE, json, open, settled, Shop } from '../../testing/bench.js';
import { photo } from '../../testing/photo.js';
import { StationPage } from './StationPage.js';

// One place under the hand: its pictures, its surface, what it is compared with; every act one entry.
const SHA = 'b'.repeat(64);
const OTHER = 'c'.repeat(64);
type Done = (read: ReadPicture, stages: readonly StagePicture[]) => void;
let answer: ((done: Done) => void) | null = null;
let asked: object | null = null;
jest.mock('../../workers/reading.js', () => ({
  usePictureReader: () => ({
    busy: null,
    problem: null,
    cancel: () => undefined,
    start: (_: unknown, job: object, done: Done) => {
      asked = job;
      answer?.(done);
    },
  }),
}));

// What looks for tags before files are sent runs in a worker; here nothing is sent.
jest.mock('../../workers/filing.js', () => ({ filing: () => ({ prepare: () => new Promise(() => undefined) }) }));

const page = (
  <>
    <Address />
    <Routes>
      <Route path="/case/:caseId/station/:stationId" element={<StationPage />} />
      <Route path="*" element={null} />
    </Routes>
  </>
);
const at = (id: string): string => `/case/${CASE}/station/${id}`;
const SHELL = 'rod.2.shell.lower';
function pictured(): Shop {
  const shop = new Shop();
  shop.write('photo-added', SHELL, photo(SHA));
  shop.write('photo-added', SHELL, photo(OTHER));
  shop.more.set('GET /api/references', () => json(200, []));
  return shop;
}
const pictures = (): HTMLElement => screen.getByRole('region', { name: 'Pictures' });

beforeEach(() => {
  answer = null;
  asked = null;
});

describe('a place of the engine', () => {
  it('is graded by one key, goes on by arrows and back to the bench', async () => {
    const { shop, user } = await open(page, { at: at(SHELL) });
    await user.keyboard('3');
    await settled();
    // A grade that differs from the one proposed asks why; here nothing was proposed.
    expect(shop.view.byId.get(SHELL)!.grade?.value.grade).toBe(3);
    await user.keyboard('{ArrowRight}');
    expect(address()).not.toBe(at(SHELL));
    await user.keyboard('{Escape}');
    expect(address()).toBe(`/case/${CASE}/bench`);
  });

  it('is sound by one key, and goes to its measuring sheet by another', async () => {
    const { shop, user } = await open(page, { at: at('crank.pin.2') });
    await user.keyboard('n');
    await settled();
    expect(shop.view.byId.get('crank.pin.2')!.state).toBe('sound');
    await user.keyboard('m');
    expect(address()).toBe(`/case/${CASE}/measure/crank.pin.2`);
  });

  it('that the engine does not have is said to be none', async () => {
    await open(page, { at: at('rod.9.shell.lower') });
    expect(await screen.findByText(/This engine has no place called “rod.9.shell.lower”/)).toBeTruthy();
  });

  it('flips to what it is compared with, and changes that by brackets', async () => {
    const { user } = await open(page, { at: at(SHELL) });
    const items = [...document.querySelectorAll('.beside-item')];
    expect(items.length).toBeGreaterThan(1);
    await user.keyboard(' ');
    const first = screen.getByRole('region', { name: /^Comparison: / }).getAttribute('aria-label');
    await user.keyboard(']');
    expect(screen.getByRole('region', { name: /^Comparison: / }).getAttribute('aria-label')).not.toBe(first);
    await user.keyboard('[[');
    await user.keyboard(' ');
    expect(screen.queryByRole('region', { name: /^Comparison: / })).toBeNull();
  });
});

describe('its pictures', () => {
  it('are shown one at a time, and each can be taken away and brought back', async () => {
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    const shown = (): string => pictures().querySelector('figure img')!.getAttribute('src')!;
    const first = shown();
    const [, second] = [...pictures().querySelectorAll<HTMLElement>('.thumbs button')];
    await user.click(second!);
    expect(shown()).not.toBe(first);
    await user.click(screen.getByText('Take it away'));
    await settled();
    expect(shop.view.byId.get(SHELL)!.photos).toHaveLength(1);
    const taken = shop.posts.flat().find((e) => e.kind === 'retracted')!;
    expect(taken.body).toMatchObject({ reason: 'filed wrongly' });
  });

  it('what was read in a picture goes with it', async () => {
    const shop = pictured();
    shop.write('surface-read', SHELL, readOf(SHA));
    const { user } = await open(page, { shop, at: at(SHELL) });
    await user.click(screen.getByLabelText(`Show ${photo(SHA).name}`));
    await user.click(screen.getByText('Take it away'));
    await settled();
    expect(shop.view.byId.get(SHELL)!.reads).toHaveLength(0);
    expect(shop.view.byId.get(SHELL)!.photos).toHaveLength(1);
  });

  it('corners that were found are put to the other guess by one key, and back', async () => {
    const corners = (x: number): [number, number][] => [
      [x, 10],
      [x, 500],
      [700, 500],
      [700, 10],
    ];
    answer = (done) =>
      done(
        {
          cornersFound: true,
          corners: corners((asked as { guess?: number }).guess === 2 ? 30 : 10),
          read: readOf(SHA),
        } as unknown as ReadPicture,
        [],
      );
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    await user.click(screen.getByLabelText(`Show ${photo(SHA).name}`));
    expect(screen.queryByText(/Other guess/)).toBeNull();
    await user.click(screen.getByText('Read the picture'));
    await settled();
    const firstCorner = (): readonly [number, number] => shop.view.byId.get(SHELL)!.corners[SHA]!.value.corners[0] as [number, number];
    await user.keyboard('c');
    await settled();
    expect(asked).toMatchObject({ corners: null, guess: 2 });
    expect(firstCorner()).toEqual([30, 10]);
    await user.click(screen.getByText(/Other guess of the corners/));
    await settled();
    expect(asked).toMatchObject({ corners: null, guess: 1 });
    expect(firstCorner()).toEqual([10, 10]);
    // Corners that somebody moved by hand are not put elsewhere by a key.
    await user.click(screen.getByText('Move the corners'));
    fireEvent.keyDown(screen.getAllByRole('slider', { name: /^Corner / })[0]!, { key: 'ArrowRight', shiftKey: true });
    await user.click(screen.getByText('Flatten'));
    await settled();
    expect(firstCorner()).not.toEqual([10, 10]);
    expect(screen.queryByText(/Other guess/)).toBeNull();
  });

  it('that read otherwise than the place is called are told of, and are what is best done next, until a grade is confirmed', async () => {
    const shop = pictured();
    shop.write('surface-read', SHELL, readOf(SHA));
    shop.write('state-set', SHELL, { state: 'sound' });
    shop.write('intake-set', null, { field: 'complaint', value: 'knock' });
    await open(page, { shop, at: at(SHELL) });
    expect(await screen.findByText(/its picture reads 3 Through: confirm a grade, either way/)).toBeTruthy();
    const task = (): string => nextTask({ caseId: CASE, view: shop.view, diagnosis: null } as OpenCase).what;
    expect(task()).toBe('look again');
    shop.write('grade-confirmed', SHELL, { grade: 0, proposed: 3, reason: 'a reflection', book: shop.view.book.version });
    expect(task()).not.toBe('look again');
  });

  it('how one was read is shown stage by stage, and records nothing', async () => {
    answer = (done) =>
      done({ read: readOf(SHA) } as ReadPicture, [
        { name: 'layers', shows: 'sound #b9c2c6, lining #c98b4a', pixels: { width: 2, height: 1, data: new Uint8ClampedArray(8) } },
      ]);
    const shop = pictured();
    shop.write('surface-read', SHELL, readOf(SHA));
    const { user } = await open(page, { shop, at: at(SHELL) });
    await user.click(screen.getByLabelText(`Show ${photo(SHA).name}`));
    await user.click(screen.getByText('How it was read'));
    await settled();
    expect(asked).toMatchObject({ sha256: SHA, explain: true });
    expect(screen.getByRole('img', { name: 'The stage layers' })).toBeTruthy();
    expect(document.querySelectorAll('.stage-strip .stage-colour')).toHaveLength(2);
    expect(document.querySelector('.stage-strip')!.textContent).not.toContain('#');
    expect(shop.view.byId.get(SHELL)!.reads).toHaveLength(1);
    expect(shop.view.byId.get(SHELL)!.corners[SHA]).toBeUndefined();
  });

  it('reading one records what was read, with the corners it found itself', async () => {
    answer = (done) =>
      done(
        {
          cornersFound: true,
          corners: [
            [10, 10],
            [10, 500],
            [700, 500],
            [700, 10],
          ],
          read: readOf(SHA),
        } as unknown as ReadPicture,
        [],
      );
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    await user.click(screen.getByLabelText(`Show ${photo(SHA).name}`));
    await user.click(screen.getByText('Read the picture'));
    await settled();
    expect(asked).toMatchObject({ sha256: SHA, corners: null, part: 'shell', original: { width: 800, height: 600 } });
    const view = shop.view.byId.get(SHELL)!;
    expect(view.reads).toHaveLength(1);
    expect(view.corners[SHA]?.value.corners[0]).toEqual([10, 10]);
    expect(pictures().textContent).toContain('Read with confidence 83 %');
    expect(screen.getByText('Read it again')).toBeTruthy();
  });

  it('four corners are moved by arrows, and crossed ones are not kept', async () => {
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    await user.click(screen.getByText('Place four corners'));
    const [first, second] = screen.getAllByRole('slider', { name: /^Corner / });
    const before = Number(first!.getAttribute('aria-valuenow'));
    fireEvent.keyDown(first!, { key: 'ArrowRight', shiftKey: true });
    expect(Number(first!.getAttribute('aria-valuenow'))).toBeGreaterThan(before);
    for (let k = 0; k < 40; k++) fireEvent.keyDown(second!, { key: 'ArrowDown', shiftKey: true });
    expect(screen.getByText('The corners cross. Go round the face.')).toBeTruthy();
    expect(screen.getByText('Flatten').closest('button')!.disabled).toBe(true);
    for (let k = 0; k < 40; k++) fireEvent.keyDown(second!, { key: 'ArrowUp', shiftKey: true });
    await user.click(screen.getByText('Flatten'));
    await settled();
    const kept = Object.values(shop.view.byId.get(SHELL)!.corners)[0]!.value.corners;
    expect(kept).toHaveLength(4);
    expect(kept[0]![0]).toBeGreaterThan(before);
  });

  it('leaving the corners as they were records nothing', async () => {
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    await user.click(screen.getByText('Place four corners'));
    await user.click(screen.getByText('Leave as it was'));
    await settled();
    expect(shop.posts).toEqual([]);
    expect(pictures().querySelector('figure.photo-shown')).toBeTruthy();
  });

  it('a blur is drawn spot by spot, one can be taken back, and it is kept for others', async () => {
    const { shop, user } = await open(page, { shop: pictured(), at: at(SHELL) });
    await user.click(screen.getByText('Blur'));
    const field = screen.getByRole('application', { name: /Paint over/ });
    Object.assign(SVGElement.prototype, { getScreenCTM: () => ({ inverse: () => ({}) }) });
    Object.assign(globalThis, {
      DOMPoint: class {
        constructor(
          readonly x: number,
          readonly y: number,
        ) {}
        matrixTransform(): { x: number; y: number } {
          return { x: this.x, y: this.y };
        }
      },
    });
    for (const [x, y] of [
      [400, 300],
      [80, 60],
    ]) {
      fireEvent(field, Object.assign(new MouseEvent('pointerdown', { bubbles: true, clientX: x!, clientY: y! })));
      fireEvent(field, new MouseEvent('pointerup', { bubbles: true }));
    }
    expect(field.querySelectorAll('circle')).toHaveLength(2);
    await user.click(screen.getByText('One back'));
    await user.click(screen.getByText('Keep blurred'));
    await settled();
    const [blur] = Object.values(shop.view.byId.get(SHELL)!.blurs);
    expect(blur!.value.regions).toEqual([{ x: 0.5, y: 0.5, r: 0.05 }]);
    expect(screen.getByText('Blur more or less')).toBeTruthy();
    expect(pictures().querySelectorAll('.blur-shown circle')).toHaveLength(1);
  });

  it('files that are dropped go into the queue of this place, films as films', async () => {
    const { user } = await open(page, { shop: new Shop(), at: at(SHELL) });
    expect(pictures().textContent).toContain('No picture yet');
    const input = document.querySelector<HTMLInputElement>('#add-pictures')!;
    await user.upload(input, [new File(['x'], 'one.jpg', { type: 'image/jpeg' }), new File(['y'], 'note.webm', { type: 'audio/webm' })]);
    await waitFor(() => expect(store.getState().uploads.files.filter((f) => f.station === SHELL)).toHaveLength(2));
    expect(
      store
        .getState()
        .uploads.files.map((f) => f.kind)
        .sort(),
    ).toEqual(['clip', 'photo']);
  });

  it('a reader may look at them and change none', async () => {
    await open(page, { shop: pictured(), at: at(SHELL), role: 'reader' });
    for (const words of ['Read the picture', 'Place four corners', 'Blur', 'Take it away', 'Add pictures'])
      expect(within(pictures()).queryByText(words)).toBeNull();
    expect(pictures().querySelector('figure img')).toBeTruthy();
  });
});

describe('the developed surface', () => {
  const canvas = (): HTMLElement => screen.getByRole('application', { name: /^Developed surface of/ });

  it('is marked by keys alone: a letter chooses, arrows move, Enter marks', async () => {
    const { shop, user } = await open(page, { at: at(SHELL) });
    canvas().focus();
    await user.keyboard('{ArrowRight}{ArrowUp}{Enter}');
    await settled();
    const [mark] = shop.view.byId.get(SHELL)!.marks;
    expect(mark!.value.mark).toMatchObject({ shape: 'stroke', class: 'lining', made: 'found-so' });
    expect(mark!.value.mark.points[0]![0]).toBeGreaterThan(0.5);
    expect(screen.getByText(/^1 mark;/)).toBeTruthy();
  });

  it('a score line has a depth and two ends', async () => {
    const { shop, user } = await open(page, { at: at(SHELL) });
    await user.click(screen.getByText('Score line'));
    await user.click(screen.getByLabelText('Depth of the line'));
    await user.click(await screen.findByTitle('Catches the nail'));
    act(() => canvas().focus());
    await user.keyboard('{Enter}');
    await settled();
    const { mark } = shop.view.byId.get(SHELL)!.marks[0]!.value;
    expect(mark).toMatchObject({ shape: 'line', depth: 'nail' });
    expect(mark.points).toHaveLength(2);
    expect(mark.points[0]![1]).toBe(mark.points[1]![1]);
  });

  it('damage of our own making is kept as ours', async () => {
    const { shop, user } = await open(page, { at: at(SHELL) });
    await user.click(screen.getByLabelText('Found so or made by us'));
    await user.click(await screen.findByTitle('Done by us on removal'));
    act(() => canvas().focus());
    await user.keyboard('{Enter}');
    await settled();
    expect(shop.view.byId.get(SHELL)!.marks[0]!.value.mark.made).toBe('by-us');
  });

  it('what is drawn is matched with patterns, and one press names it', async () => {
    const { shop, user } = await open(page, { at: at(SHELL) });
    canvas().focus();
    for (const key of ['{Enter}', '{ArrowRight}{ArrowRight}{Enter}', '{ArrowRight}{ArrowRight}{Enter}']) {
      await user.keyboard(key);
      await settled();
    }
    const match = await screen.findByText('Match this finding:', { exact: false });
    const first = match.closest('details')!.querySelector('li a')!.textContent;
    await user.click(screen.getAllByText('It is this')[0]!);
    await settled();
    const { patterns } = shop.view.byId.get(SHELL)!;
    expect(patterns).toHaveLength(1);
    expect(patterns[0]!.value.present).toBe(true);
    expect(first).toBeTruthy();
  });
});

describe('a part as it should be', () => {
  it('is kept for the whole shop, and what was typed for it is not left behind as a draft', async () => {
    const shop = pictured();
    const sent: object[] = [];
    shop.more.set('POST /api/references', async (request) => {
      sent.push((await request.json()) as object);
      return json(201, {});
    });
    const { user } = await open(page, { shop, at: at(SHELL) });
    await user.click(screen.getByText('Keep as reference part'));
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByLabelText('Name'), 'new rod shell');
    await user.type(within(dialog).getByLabelText('Note'), 'from the box');
    await user.click(within(dialog).getByText('Keep it'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ name: 'new rod shell', note: 'from the box', caseId: CASE, station: SHELL });
    await settled();
    expect(Object.values({ ...localStorage })).not.toContain('new rod shell');
  });
});

/** A reading as the worker gives it: lining bare on the left quarter. */
function readOf(sha256: string): object {
  return {
    sha256,
    columns: 36,
    rows: 12,
    shares: { lining: Array.from({ length: 36 * 12 }, (_, i) => (i % 36 < 9 ? 100 : 0)) },
    seen: Array.from({ length: 36 * 12 }, () => 100),
    lines: [],
    crazedPercent: 0,
    specks: 0,
    confidence: 0.83,
    doubts: [],
    reader: '3',
  };
}
