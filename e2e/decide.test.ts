import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { draft, FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const caseId = crypto.randomUUID();

const open = async (path: string): Promise<void> => {
  await me.page.goto(`${shop.url}/case/${caseId}/${path}`);
  await me.page.waitForSelector('.work > .page');
};

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.post('/api/cases', { id: caseId, title: 'Winch', reference: '', layout: FOUR });
  await me.post(`/api/cases/${caseId}/entries`, {
    entries: [
      ...[1, 2, 4].map((c) => draft('state-set', `bore.${c}`, { state: 'sound' })),
      draft('pattern-set', 'bore.3', { pattern: 'bore-scuff-band', present: true }),
      draft('grade-confirmed', 'bore.3', { grade: 3, proposed: null, reason: '', book: '1' }),
      draft('pattern-set', 'piston.3.skirt.thrust', { pattern: 'mid-bore-scuff', present: true }),
      draft('grade-confirmed', 'piston.3.skirt.thrust', { grade: 3, proposed: null, reason: '', book: '1' }),
    ],
  });
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});
afterEach(() => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
});

describe('deciding', () => {
  it('proposes for every part with what forced it, takes the builder’s word, and makes the machine shop’s sheet', async () => {
    await open('decide/parts');
    await me.see('all bores to one size');
    await me.see('because of bore 3');
    await me.checkAccess('parts');
    await me.choose('tr:has(a[href$="piston.3.skirt.thrust"]) .ant-select', 'Keep as evidence');
    await me.see('proposed: replace');
    await me.page.waitForFunction(() => [...document.querySelectorAll('button')].some((b) => /^Confirm \d+ proposed$/.test(b.innerText)));
    await me.page.evaluate(() => [...document.querySelectorAll('button')].find((b) => /^Confirm \d+ proposed$/.test(b.innerText))!.click());
    await me.saved();
    const decided = (await me.entries(caseId)).filter((e) => e.kind === 'disposition-set');
    expect(decided.length).toBeGreaterThan(8);
    const csv = readFileSync(await me.download('Take CSV', 'machine-shop.csv'), 'utf8');
    expect(csv).toMatch(/^part,operation,size_min_mm/);
    expect(csv).toMatch(/Bores,Rebore oversize/);
  });

  it('reckons routes side by side, the same figures each time, and marks a deadline that has passed', async () => {
    await open('decide/routes');
    await me.page.waitForSelector('.routes-table tbody tr:nth-child(6)');
    const cost = (): Promise<string[]> => me.page.$$eval('.routes-table td:nth-child(2)', (cells) => cells.map((c) => c.textContent ?? ''));
    const first = await cost();
    await me.page.reload();
    await me.page.waitForSelector('.routes-table tbody tr:nth-child(6)');
    expect(await cost()).toEqual(first);
    await me.page.waitForSelector('.js-plotly-plot .trace');
    await me.checkAccess('routes');
    const date = async (name: string, value: string): Promise<void> => {
      const field = await me.page.waitForSelector(`input[aria-label="${name}"]`);
      await field!.focus();
      await me.page.keyboard.down('Control');
      await me.page.keyboard.press('a');
      await me.page.keyboard.up('Control');
      await field!.type(value);
      await me.page.keyboard.press('Enter');
      await me.page.waitForFunction(
        (selector: string, wanted: string) => document.querySelector<HTMLInputElement>(selector)?.value === wanted,
        {},
        `input[aria-label="${name}"]`,
        value,
      );
      await me.saved();
    };
    await date('Start', '2027-02-01');
    await date('Deadline', '2027-01-01');
    await me.see('no route can meet it');
    await date('Deadline', '2027-04-01');
    await me.page.waitForFunction(() => !document.body.innerText.includes('no route can meet it'));
    await me.press('Repair what failed');
    await me.press('Keep as quote');
    await me.see('as promised');
    await me.saved();
    const prices = readFileSync(await me.download('Prices as CSV', 'prices.csv'), 'utf8');
    expect(prices.split('\n')[0]).toContain('lead_likely_days');
    const file = async (text: string): Promise<void> => {
      const path = join(me.downloads, 'own.csv');
      writeFileSync(path, text);
      await ((await me.page.$('input[type=file]')) as never as { uploadFile(path: string): Promise<void> }).uploadFile(path);
    };
    await file('key,what\nx,y\n');
    await me.see('The price book was not read: the columns kind');
    await file(prices.replace(/^labour,.*$/m, 'labour,Bench hour,labour,EUR,100,110,120,0,0,0'));
    await me.see('prices taken over');
    await me.saved();
    expect((await me.entries(caseId)).filter((e) => e.kind === 'price-book-set')).toHaveLength(1);
  });

  it('plans the chosen route, moves a task by keys, and gives it as a calendar', async () => {
    await open('decide/schedule');
    await me.page.waitForSelector('.gantt-bar');
    await me.see('before the deadline');
    await me.checkAccess('schedule');
    const start = (): Promise<string> =>
      me.page.$eval('.gantt-bar[aria-label^="Strip to the end"]', (e) => /: (\S+)/.exec(e.getAttribute('aria-label')!)![1]!);
    expect(await start()).toBe('2027-02-01');
    await me.page.$eval('.gantt-bar[aria-label^="Strip to the end"]', (e) => (e as SVGGElement).focus());
    await me.page.keyboard.press('ArrowRight');
    await me.page.waitForSelector('.gantt-bar[aria-label^="Strip to the end: 2027-02-02"]');
    await me.saved();
    const ics = readFileSync(await me.download('Take calendar', '.ics'), 'utf8');
    expect(ics).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(ics).toContain('DTSTART:20270202T080000');
  });

  it('puts what is to be done and what was promised into the PDF', async () => {
    await open('document');
    await me.see('What is to be done');
    const pdf = await me.download('Take PDF', '.pdf');
    const text = execFileSync('pdftotext', [pdf, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
    expect(text).toContain('What is to be done');
    expect(text).toContain('Rebore oversize');
    expect(text).toMatch(/Quoted \d{4}-\d{2}-\d{2} for the route “repair”/);
  });

  it('puts the engine together by keyboard: a clearance outside its limits is gone over with a reason only, and the book is printed', async () => {
    await me.post(`/api/cases/${caseId}/entries`, {
      entries: [
        draft('spec-set', null, {
          quantity: 'rod.strip',
          spec: { limits: { clearance: { lower: 0.025, upper: 0.065 } }, source: 'sheet' },
        }),
      ],
    });
    await open('decide/assembly/rod-cap-4');
    await me.see('Number to number');
    await me.page.keyboard.press('ArrowDown');
    await me.page.waitForSelector('[data-step="piston-3"]');
    await me.page.keyboard.press('ArrowUp');
    await me.page.waitForSelector('[data-step="rod-cap-4"]');
    await me.type('input[aria-label="Big end 4, running clearance"]', '0.09');
    await me.page.keyboard.press('Enter');
    await me.see('outside');
    await me.page.keyboard.press('Tab');
    await me.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await me.page.keyboard.press('d');
    await me.see('Big end 4, running clearance: outside its limits');
    await me.type('textarea[aria-label="Reason"]', 'run in and measured again');
    await me.press('It is done');
    await me.page.waitForSelector('[data-step="piston-3"]');
    await me.saved();
    expect((await me.entries(caseId)).filter((e) => e.kind === 'assembly-set').map((e) => e.body)).toEqual([
      { step: 'rod-cap-4', state: 'done', note: 'run in and measured again' },
    ]);
    await me.checkAccess('assembly');
    await me.page.setViewport({ width: 390, height: 844 });
    await me.page.waitForFunction(() => document.documentElement.scrollWidth <= 390);
    await me.checkAccess('assembly on a phone');
    await me.page.setViewport({ width: 1280, height: 800 });
    const book = await me.download('Take PDF', 'assembly-2026-001.pdf');
    const text = execFileSync('pdftotext', [book, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
    expect(text).toContain('0.09 mm: outside');
    expect(text).toContain('run in and measured again');
  });

  it('passes the accessibility rules on every screen on the way', () => expect(me.barriers).toEqual([]));
});

describe('the shop’s prices', () => {
  const lowest = 'input[aria-label="Bench hour, low"]';
  it('are changed by hand, refused out of order, and kept with what changed', async () => {
    await me.page.goto(`${shop.url}/prices`);
    await me.see('As it comes');
    await me.checkAccess('prices');
    await me.type(lowest, '500');
    await me.page.keyboard.press('Tab');
    await me.see('the likely price lies outside the lowest and highest');
    expect(await me.page.$eval('button.ant-btn-primary', (b) => (b as HTMLButtonElement).disabled)).toBe(true);
    await me.type(lowest, '70');
    await me.page.keyboard.press('Tab');
    await me.press('Keep as version 1');
    await me.type('textarea[aria-label="What changed"]', 'Bench hour down for the winter');
    await me.press('Keep');
    await me.see('Bench hour down for the winter');
    expect(await me.page.$eval(lowest, (i) => (i as HTMLInputElement).value)).toBe('70');
  });
  it('go out as CSV, are refused with a price under nothing, and come in again', async () => {
    const csv = readFileSync(await me.download('As CSV', 'shop-prices.csv'), 'utf8');
    expect(csv).toMatch(/labour,.*,70,78,86,/);
    const put = async (name: string, text: string): Promise<void> => {
      const file = join(me.downloads, name);
      writeFileSync(file, text);
      const input = await me.page.waitForSelector('input[type=file][accept*="csv"]');
      await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(file);
    };
    await put('wrong.csv', csv.replace(',70,78,86,', ',-1,78,86,'));
    await me.see('greater than or equal to 0');
    expect(await me.page.$eval(lowest, (i) => (i as HTMLInputElement).value)).toBe('70');
    await put('right.csv', csv.replace(',70,78,86,', ',72,78,86,'));
    await me.page.waitForFunction((s: string) => document.querySelector<HTMLInputElement>(s)?.value === '72', {}, lowest);
    await me.press('Leave');
    await me.page.waitForFunction((s: string) => document.querySelector<HTMLInputElement>(s)?.value === '70', {}, lowest);
  });
  it('are copied into a case opened after, and change none that is open', async () => {
    const later = crypto.randomUUID();
    await me.post('/api/cases', { id: later, title: 'Later', reference: '', layout: FOUR });
    const copied = (await me.entries(later)).find((e) => e.kind === 'price-book-set')!;
    expect((copied.body as { book: { version: string } }).book.version).toBe('shop 1');
    const before = (await me.entries(caseId)).filter((e) => e.kind === 'price-book-set' && JSON.stringify(e.body).includes('shop 1'));
    expect(before).toEqual([]);
  });
  it('passes the accessibility rules there as well', () => expect(me.barriers).toEqual([]));
});
