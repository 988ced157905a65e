import { writeFileSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import type { Gauge } from '@true-ledger/core/units';
import { NO_FAULTS } from '@true-ledger/core/measure';
import { FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const caseId = crypto.randomUUID();
const MIC: Gauge = {
  id: 'mic',
  name: 'Micrometer 50–75',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.001,
  masterMm: 50,
};

const send = (method: string, path: string, body?: object): Promise<unknown> =>
  me.page.evaluate(
    async (m: string, p: string, b: string | undefined) => {
      const answer = await fetch(p, { method: m, headers: { 'content-type': 'application/json' }, ...(b ? { body: b } : {}) });
      return answer.headers.get('content-type')?.includes('json') ? answer.json() : answer.text();
    },
    method,
    path,
    body && JSON.stringify(body),
  );
const faults = (change: Partial<typeof NO_FAULTS> = {}): Promise<unknown> => send('PUT', '/api/stand-ins/mic', { ...NO_FAULTS, ...change });
interface Stored {
  readonly station: string;
  readonly cell: string;
  readonly text: string;
}
/** Readings of the case as the server holds them, every version of every slot counted. */
async function stored(): Promise<Stored[]> {
  const entries = (await send('GET', `/api/cases/${caseId}/entries`)) as Array<{ kind: string; station: string; body: Stored }>;
  return entries.flatMap((e) => (e.kind === 'reading-taken' ? [{ ...e.body, station: e.station }] : []));
}
const where = (): Promise<string> => me.page.$eval('.entry h2', (e) => (e as HTMLElement).innerText);

/** Enter on the empty field, which presses the key of the gauge; waits until the sheet asks for the next figure. */
async function press(): Promise<void> {
  const before = await where();
  await me.page.keyboard.press('Enter');
  await me.page.waitForFunction((b: string) => document.querySelector<HTMLElement>('.entry h2')?.innerText !== b, {}, before);
}

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await send('PUT', '/api/gauges', MIC);
  await send('POST', '/api/cases', { id: caseId, title: 'Crank by wire', reference: '', layout: FOUR });
  await faults();
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

describe('a whole crank by a simulated micrometer', () => {
  it('begins at main 1 with the gauge on the wire, and takes nothing but keys', async () => {
    await me.page.goto(`${shop.url}/case/${caseId}/measure`);
    await me.see('Main journal 1: front, axis A');
    await me.see('on the wire');
    for (let k = 0; k < 8; k++) await press();
    expect(await where()).toBe('Main journal 2: mid, axis A');
    await me.saved();
    expect(await stored()).toHaveLength(8);
  });

  it('says by name on the page of the gauges where it stands', async () => {
    const beside = await me.page.browserContext().newPage();
    await beside.goto(`${shop.url}/gauges/${MIC.id}`);
    await beside.waitForFunction(() => /It is on Main journal 2, mid, axis A, of case \d{4}-\d+\./.test(document.body.innerText));
    await beside.close();
    await me.page.bringToFront();
  });

  it('tells a drop-out, keeps what there is, takes a typed figure meanwhile, and goes on', async () => {
    await faults({ silent: true });
    await me.page.keyboard.press('Enter');
    await me.see('Micrometer 50–75 sent nothing at mid, axis A. The 2 readings of this place are kept.');
    expect(await where()).toBe('Main journal 2: mid, axis A');
    const main = (await stored()).at(-1)!.text;
    await me.page.keyboard.type(main);
    await me.page.keyboard.press('Enter');
    await me.see('Main journal 2: mid, axis B');
    await faults();
    await press();
    expect(await where()).toBe('Main journal 2: rear, axis A');
  });

  it('loses the server in the middle of a sheet and goes on where it stood', async () => {
    await me.saved();
    await shop.stop('SIGKILL');
    await me.see('wire down');
    await me.page.keyboard.press('Enter');
    await me.see('The wire to the gauges is down, nothing was read. The 4 readings of this place are kept.');
    await shop.start();
    await me.see('on the wire');
    for (let k = 0; k < 4; k++) await press();
    expect(await where()).toBe('Main journal 3: mid, axis A');
  });

  it('does not take a reading that was made somewhere else', async () => {
    await send('POST', '/api/stand-ins/press', {
      type: 'press',
      gauge: 'mic',
      at: { caseId, station: 'crank.pin.4', sheet: 'journal', cell: 'rear.B' },
    });
    await me.see('for another place (rear.B) than the one asked for here. It was not taken.');
    expect(await where()).toBe('Main journal 3: mid, axis A');
  });

  it('notices a gauge that shows the same figure everywhere, and steps back with Backspace to read again', async () => {
    await press();
    await faults({ stuck: true });
    for (let k = 0; k < 3; k++) await press();
    await me.see('is Micrometer 50–75 stuck?');
    await faults();
    for (let k = 0; k < 4; k++) {
      const before = await where();
      await me.page.keyboard.press('Backspace');
      await me.page.waitForFunction((b: string) => document.querySelector<HTMLElement>('.entry h2')?.innerText !== b, {}, before);
    }
    expect(await where()).toBe('Main journal 3: mid, axis A');
    for (let k = 0; k < 4; k++) await press();
    expect(await where()).toBe('Main journal 4: front, axis A');
  });

  it('holds a reading that cannot be right until Enter is pressed again; Escape lets it go', async () => {
    await faults({ biasMm: 5 });
    await me.page.keyboard.press('Enter');
    await me.see('Not taken yet. Press Enter once more');
    expect(await where()).toBe('Main journal 4: front, axis A');
    await me.page.keyboard.press('Escape');
    await faults();
  });

  it('goes on to the last pin and says that the round is done; every place is stored once as it last stood', async () => {
    for (let k = 0; k < 11; k++) await press();
    await me.page.reload();
    await me.see('on the wire');
    for (let k = 0; k < 40 && !(await where()).startsWith('Crankpin 4: rear, axis B'); k++) await press();
    await me.page.keyboard.press('Enter');
    await me.see('Journals: every place is read.');
    await me.saved();
    const all = await stored();
    const slots = new Set(all.map((r) => `${r.station} ${r.cell}`));
    expect(slots.size).toBe(54);
    // 54 places and the four that were read again.
    expect(all).toHaveLength(58);
    for (const r of all) expect(Number(r.text)).toBeGreaterThan(30);
    await me.checkAccess('gauge entry');
  });

  it('drifts on its master, which is told and no reading', async () => {
    await faults({ biasMm: 0.02, noise: 0 });
    await me.press('On its master');
    await me.see('0.020 mm off, more than its U of 0.003 mm');
    await faults();
    await me.press('On its master');
    await me.see('inside its U of 0.003 mm. No reading was taken.');
    expect(await stored()).toHaveLength(58);
  });
});

describe('the whole engine in one grid', () => {
  const grid = (): Promise<void> => me.page.goto(`${shop.url}/case/${caseId}/measure/all`).then(() => me.see('sheets outside'));
  async function give(name: string, text: string): Promise<void> {
    const path = join(me.downloads, name);
    writeFileSync(path, text);
    const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
  }

  /** Scrolls to a cell first, as a hand does: tables out of sight are drawn when they come in sight. */
  async function choose(cell: string): Promise<void> {
    const found = await me.find(cell);
    await found.evaluate((e) => e.scrollIntoView({ block: 'center' }));
    await me.page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))));
    await found.click();
    await me.page.waitForSelector('.reading-whole td.active input');
  }

  it('goes out and comes in again exactly, whatever the locale', async () => {
    await grid();
    const csv = readFileSync(await me.download('Save CSV', 'readings.csv'), 'utf8');
    expect(csv.trim().split('\n')).toHaveLength(55);
    await give('same.csv', csv);
    await me.see('0 new, 0 that replace what stands (the old ones stay in the ledger), 54 already there');
    await me.press('Take none');
    await give('locale.csv', `\uFEFF${csv.replaceAll(',', ';').replace(/(\d)\.(\d)/g, '$1,$2')}`);
    // The text of a reading is kept as typed, so a decimal comma is another text of the same size.
    await me.see('0 new, 54 that replace what stands');
    await me.press('Take none');
    await give('other.csv', 'a;b\n1;2\n');
    await me.see('This is not a file of readings');
  });

  it('takes a figure typed into a cell, holds a doubtful one, moves by arrows', async () => {
    await grid();
    await choose('Bore 1, unworn, above the ring travel: missing');
    const { boreMm } = FOUR;
    await me.page.keyboard.type(String(boreMm * 10));
    await me.page.keyboard.press('Enter');
    await me.see('Not taken yet');
    await me.page.keyboard.press('Escape');
    await choose('Bore 1, unworn, above the ring travel: missing');
    await me.page.keyboard.type((boreMm + 0.01).toFixed(3));
    await me.page.keyboard.press('Enter');
    await me.see('55 of');
    const at = await me.page.$eval('.reading-whole td.active input', (e) => e.getAttribute('aria-label'));
    expect(at).toBe('Bore 2, unworn, above the ring travel');
  });

  it('pastes a block, mixed units told, what runs over the edge left out', async () => {
    await grid();
    await choose('Bore 3, unworn, above the ring travel: missing');
    const { boreMm } = FOUR;
    const block = `${boreMm.toFixed(3)}\t${(boreMm + 0.03).toFixed(3)}\n${(boreMm / 25.4).toFixed(5)}"\tmud\n1\t2\n`;
    await me.page.evaluate((text: string) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, block);
    await me.see('Readings from the clipboard');
    await me.see('The units are mixed');
    await me.see('runs over the edge of the table');
    await me.see('"mud" is not a reading');
    await me.press('Take 3 readings');
    await me.see('58 of');
    await me.page.keyboard.press('Escape');
    await me.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await me.page.keyboard.press('u');
    await me.see('55 of');
    await me.saved();
    await me.checkAccess('whole engine');
  });
});

it('takes the head bolts from a torque wrench on the wire, tells its drop-out', async () => {
  await send('PUT', '/api/gauges', { ...MIC, id: 'wrench', name: 'Wrench', kind: 'torque-wrench', resolutionMm: 0.1 });
  await send('PUT', '/api/stand-ins/wrench', NO_FAULTS);
  await me.page.goto(`${shop.url}/case/${caseId}/strip/head-0`);
  await me.see('Press the wrench');
  await me.see('on the wire');
  const count = (): Promise<string> => me.page.$eval('.fasteners h3 .figure', (e) => (e as HTMLElement).innerText);
  await me.press('Press the wrench');
  await me.page.waitForFunction(() => document.querySelector<HTMLElement>('.fasteners h3 .figure')!.innerText.startsWith('1 of'));
  await me.page.keyboard.press('Enter');
  await me.page.waitForFunction(() => document.querySelector<HTMLElement>('.fasteners h3 .figure')!.innerText.startsWith('2 of'));
  await send('PUT', '/api/stand-ins/wrench', { ...NO_FAULTS, silent: true });
  await me.page.keyboard.press('Enter');
  await me.see('Wrench sent nothing at fastener');
  expect(await count()).toMatch(/^2 of/);
  await me.checkAccess('break-loose by wire');
});

it('keeps gauges: a new one, a check against its master, an overdue one told', async () => {
  await me.page.goto(`${shop.url}/gauges`);
  await me.press('New gauge');
  const field = async (label: string, value: string): Promise<void> => {
    const input = await me.page.waitForFunction(
      (l: string) =>
        [...document.querySelectorAll('.fields label')].find((e) => e.querySelector('span')?.textContent === l)?.querySelector('input') ??
        null,
      {},
      label,
    );
    const handle = input.asElement() as ElementHandle<HTMLInputElement>;
    await handle.click({ count: 3 });
    await handle.type(value);
  };
  await field('Name', 'Depth gauge');
  await field('Master it is set by', '25');
  await me.press('Keep the gauge');
  await me.page.waitForSelector('a[href="/gauges/depth-gauge"]');
  await me.page.click('a[href="/gauges/depth-gauge"]');
  await me.type('[aria-label="What the gauge reads on it"]', '25.012');
  await me.press('Keep the check');
  await me.see('more than its U: set it before it is used');
  await me.type('[aria-label="What the gauge reads on it"]', 'wet');
  await me.press('Keep the check');
  await me.see('"wet" is not a figure the gauge can have shown');
  await me.press('Put a stand-in on the wire');
  await me.see('0 readings since it was last set');
  await me.press('On its master');
  await me.see('on its master');
  await me.checkAccess('gauges');
});

it('met no error, no foreign request, no barrier', () => {
  expect(me.errors.filter((e) => !/WebSocket connection|net::ERR/.test(e))).toEqual([]);
  expect(me.foreign.filter((u) => !u.startsWith(shop.url.replace('http', 'ws')))).toEqual([]);
  expect(me.barriers).toEqual([]);
});
