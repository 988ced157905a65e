import { readFileSync } from 'node:fs';
import type { Browser } from 'puppeteer-core';
import { draft, FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

// Why the wear is where it is: a feed is shut and the needle does not show it, a setting is pinned and another held against it.
jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const caseId = crypto.randomUUID();
const textOf = (selector: string): Promise<string> => me.page.$eval(selector, (e) => (e as HTMLElement).innerText);
const dry = (): Promise<number> => me.page.$$eval('.circuit .dry', (all) => all.length);
const open = async (): Promise<void> => {
  await me.page.goto(`${shop.url}/case/${caseId}/loads`);
  await me.page.waitForSelector('.circuit');
};

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.post('/api/cases', { id: caseId, title: 'Loads', reference: '', layout: FOUR });
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});
afterEach(() => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
});

it('shows a shut feed on no gauge, while that main and its pin run dry', async () => {
  await open();
  expect(await textOf('.driver')).toMatch(/^The gauge shows \d\.\d bar\.$/);
  const shown = /[\d.]+ bar/.exec(await textOf('.driver'))![0];
  await me.choose('#loads-fault', 'Feed shut');
  await me.choose('#loads-at', 'Main 2');
  await me.see('Rod 2 and main 2 get next to nothing');
  expect(await textOf('.driver')).toMatch(/as it always does/);
  const now = Number.parseFloat(/[\d.]+(?= bar)/.exec(await textOf('.driver'))![0]);
  expect(now - Number.parseFloat(shown)).toBeGreaterThanOrEqual(0);
  expect(await dry()).toBe(2);
  await me.choose('#loads-bearing', 'Rod 2');
  await me.see('It runs dry');
  await me.checkAccess('loads with a shut feed');
});

it('holds another setting against the pinned one', async () => {
  await me.press('Pin this setting');
  await me.see('Pinned');
  await me.choose('#loads-fault', 'More clearance');
  await me.choose('#loads-at', 'Mains, all of them');
  await me.page.waitForFunction(() => document.querySelector('.circuit .dry') === null);
  const gauges = await me.page.$$eval('.run-figures tr:last-child td.figure', (cells) =>
    cells.map((c) => Number.parseFloat((c as HTMLElement).innerText)),
  );
  expect(gauges).toHaveLength(2);
  expect(gauges[0]!).toBeLessThan(gauges[1]!);
  await me.press('Let go');
  await me.page.waitForFunction(() => document.querySelectorAll('.run-figures thead th').length === 2);
});

it('carries the faces of a bearing into the account', async () => {
  await me.choose('#loads-fault', 'None');
  await me.choose('#loads-aslant', 'bent rod');
  await me.type('.keep-run textarea', 'Worn at opposite edges, as under a bent rod.');
  await me.press('Keep for the account');
  await me.saved();
  await me.page.goto(`${shop.url}/case/${caseId}/document`);
  await me.see('How rod 2 would have run');
  await me.see('bent rod by 20 µm');
  await me.see('Worn at opposite edges, as under a bent rod.');
  expect(await me.page.$$eval('.report figcaption', (all) => all.some((e) => e.textContent.startsWith('Predicted wear of rod 2')))).toBe(
    true,
  );
});

it('finds by itself which feed was shut from who was hurt', async () => {
  const sound = ['main.1', 'main.3', 'rod.1', 'rod.3'].flatMap((b) => [draft('state-set', `${b}.shell.upper`, { state: 'sound' })]);
  const hurt = ['main.2', 'rod.2'].map((b) =>
    draft('grade-confirmed', `${b}.shell.lower`, { grade: 4, proposed: null, reason: 'wiped', book: '1' }),
  );
  await me.post(`/api/cases/${caseId}/entries`, { entries: [...sound, ...hurt] });
  await open();
  await me.press('Which fault would explain who was hurt');
  await me.page.waitForSelector('.loads-circuit .explanations li');
  const first = await textOf('.loads-circuit .explanations li');
  expect(first).toMatch(/^Feed shut at main 2/);
  expect(first).toMatch(/short: rod 2, main 2; gauge \+/);
  expect(await textOf('.loads-circuit .explanations')).toMatch(/Shell turned over its hole at main 2\s+> 99 % alike\s*fits as well/);
  await me.press('Feed shut at main 2');
  await me.see('Rod 2 and main 2 get next to nothing');
});

it('counts the likeness of found to predicted wear as evidence, whose bar opens the one over the other', async () => {
  const band = draft('mark-made', 'rod.3.shell.upper', {
    mark: {
      id: 'band',
      shape: 'stroke',
      class: 'lining',
      points: [
        [0.5, 0.05],
        [0.5, 0.95],
      ],
      radiusMm: 3,
      made: 'found-so',
    },
  });
  const grade = draft('grade-confirmed', 'rod.3.shell.upper', { grade: 2, proposed: null, reason: '', book: '1' });
  await me.post(`/api/cases/${caseId}/entries`, { entries: [band, grade] });
  await open();
  await me.choose('#loads-bearing', 'Rod 3');
  await me.press('Which setting would explain it');
  await me.page.waitForSelector('.half-shell ~ .explanations li, .loads .explanations li b');
  expect(await textOf('.loads .explanations li b')).toBe('a film too thin all over');
  await me.press('Count it as evidence');
  await me.saved();
  await me.see('Its likeness counts as evidence on the causes.');
  await me.page.goto(`${shop.url}/case/${caseId}/cause/fuel-in-oil`);
  await me.see('A bearing worn as a film too thin all over would wear it');
  const bar = await me.page.$$eval('.waterfall summary', (all) =>
    all.map((e) => (e as HTMLElement).innerText).find((t) => t.includes('worn as a film too thin')),
  );
  // Never more than a named sight is worth: 19 to 1.
  const decibans = Number.parseFloat(/\+([\d.]+)/.exec(bar!)![1]!);
  expect(decibans).toBeGreaterThan(1);
  expect(decibans).toBeLessThan(12.8);
  await me.page.$$eval('.waterfall summary', (all) =>
    (all.find((e) => (e as HTMLElement).innerText.includes('worn as a film too thin')) as HTMLElement).click(),
  );
  await me.press('predicted over found');
  await me.page.waitForSelector('.half-shell');
  await me.page.waitForFunction(() => /\d+ % alike/.test(document.querySelector('.half-shell figcaption')?.textContent ?? ''));
});

it('is set and turned by keyboard, and drawn and written out', async () => {
  await open();
  await me.page.focus('[role=slider][aria-label="Speed"]');
  const before = await me.page.$eval('[role=slider][aria-label="Speed"]', (e) => e.getAttribute('aria-valuetext'));
  await me.page.keyboard.press('ArrowRight');
  await me.page.waitForFunction(
    (was: string | null) => document.querySelector('[role=slider][aria-label="Speed"]')?.getAttribute('aria-valuetext') !== was,
    {},
    before,
  );
  await me.page.focus('[role=slider][aria-label^="Angle of the crank"]');
  const arm = await me.page.$eval('.now', (e) => e.getAttribute('y2'));
  await me.page.keyboard.press('End');
  await me.page.waitForFunction((was: string | null) => document.querySelector('.now')?.getAttribute('y2') !== was, {}, arm);
  const csv = await me.download('Take CSV', '.csv');
  expect(csv).toMatch(/film-rod\.2/);
  const drawing = readFileSync(await me.download('Take drawing', '.svg'), 'utf8');
  expect(
    readFileSync(await me.download('Take picture', '.png'))
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG');
  // It is drawn where no style sheet of ours reaches: every shape says its own colours.
  expect(drawing).toMatch(/^<svg[^>]*xmlns=/);
  for (const shape of drawing.match(/<(rect|circle|path)[^>]*>/g)!) expect(shape).toMatch(/ fill="#| fill="none"| stroke="#/);
  expect(drawing).not.toMatch(/var\(|color-mix|<(rect|circle)(?![^>]* fill=)/);
});

it('fits on a phone', async () => {
  await me.page.setViewport({ width: 390, height: 844 });
  await open();
  expect(await me.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await me.checkAccess('loads on a phone');
});
