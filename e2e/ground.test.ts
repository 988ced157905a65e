import type { Browser } from 'puppeteer-core';
import { FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
let caseId: string;

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  caseId = crypto.randomUUID();
  await me.page.evaluate(
    async (body: string) => void (await fetch('/api/cases', { method: 'POST', headers: { 'content-type': 'application/json' }, body })),
    JSON.stringify({ id: caseId, title: 'Ground', reference: '', layout: FOUR }),
  );
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

const open = async (path: string): Promise<void> => {
  await me.page.goto(`${shop.url}/case/${caseId}/${path}`);
  await me.page.waitForSelector('.save-state');
};
const figure = (n: number): Promise<string> => me.page.$$eval('.number-field input', (all, i) => (all[i] as HTMLInputElement).value, n);

describe('a figure', () => {
  it('is read as it was typed: comma, inch, fraction; what is none changes nothing', async () => {
    await me.page.goto(`${shop.url}/new`);
    await me.page.waitForSelector('.number-field input');
    const type = async (n: number, text: string): Promise<void> => {
      const field = (await me.page.$$('.number-field input'))[n]!;
      await field.click({ clickCount: 3 });
      await field.type(text);
    };
    await type(1, '62,50');
    await me.see('= 62.5 mm');
    await me.page.keyboard.press('Tab');
    expect(await figure(1)).toBe('62.5');
    await type(2, '3 3/8"');
    await me.page.keyboard.press('Tab');
    expect(await figure(2)).toBe('85.725');
    await type(3, '1.234,5');
    await me.see('is no figure');
    await me.page.keyboard.press('Escape');
    expect(await figure(3)).toBe(String(FOUR.rodLengthMm));
  });
});

describe('what is typed and not recorded', () => {
  it('is there after a reload, shown as a draft, and no draft once it is recorded', async () => {
    await open('intake');
    const words = 'label.wide textarea';
    await me.page.waitForSelector(words);
    await me.page.focus(words);
    await me.page.keyboard.type('Why did it sei');
    await me.page.reload();
    await me.page.waitForSelector(words);
    await me.see('1 draft');
    expect(await me.page.$eval(words, (e) => (e as HTMLTextAreaElement).value)).toBe('Why did it sei');
    await me.page.focus(words);
    await me.page.keyboard.press('End');
    await me.page.keyboard.type('ze?');
    await me.page.keyboard.press('Tab');
    await me.saved();
    await me.page.waitForFunction(() => !document.body.innerText.includes('draft'));
    await me.checkAccess('intake with drafts');
  });
});

describe('a row of answers', () => {
  const entries = (): Promise<number> =>
    me.page.evaluate(async (id: string) => ((await (await fetch(`/api/cases/${id}/entries`)).json()) as unknown[]).length, caseId);
  it('is gone through by arrows and answered once, by leaving it', async () => {
    await open('intake');
    await me.page.waitForSelector('[aria-label="Onset"] input');
    const before = await entries();
    await me.page.focus('[aria-label="Onset"] input');
    for (let i = 0; i < 3; i++) await me.page.keyboard.press('ArrowRight');
    await new Promise((r) => setTimeout(r, 600));
    expect(await entries()).toBe(before);
    await me.page.keyboard.press('Enter');
    for (let i = 0; i < 40 && (await entries()) === before; i++) await new Promise((r) => setTimeout(r, 100));
    await me.page.keyboard.press('Tab');
    await new Promise((r) => setTimeout(r, 600));
    expect(await entries()).toBe(before + 1);
  });
  it('and the keys of the page work after a box was ticked', async () => {
    await me.page.click('.complaints input');
    await me.page.keyboard.press('?');
    await me.see('Keys on this screen');
    await me.page.keyboard.press('Escape');
    await me.page.waitForFunction(() => !document.querySelector('.ant-modal-wrap:not([style*="display: none"])'));
    expect(me.page.url()).toContain('/intake');
  });
  it('the places are one stop of the keyboard, and the work is reached at once', async () => {
    await me.page.keyboard.press('/');
    await me.page.waitForSelector('#find-station:focus');
    expect(await me.page.$$eval('.places [tabindex="0"]', (all) => all.length)).toBe(1);
    await me.page.keyboard.press('Escape');
    await me.page.waitForFunction(() => !document.querySelector('.places'));
    await me.page.reload();
    await me.page.waitForSelector('.skip-link');
    await me.page.keyboard.press('Tab');
    expect(await me.page.evaluate(() => document.activeElement?.className)).toBe('skip-link');
    await me.page.keyboard.press('Enter');
    expect(await me.page.evaluate(() => document.activeElement?.id)).toBe('work');
  });
});

describe('without the server', () => {
  it('the pages open from the browser with what is known, and go on when it is back', async () => {
    await open('bench');
    await me.page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
    await me.page.reload();
    await me.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await open('bench');
    await me.page.waitForSelector('[data-station].here');
    await shop.stop('SIGKILL');
    await me.page.reload();
    await me.page.waitForSelector('[data-station].here');
    await me.page.keyboard.press('n');
    await me.see('kept here, server away');
    await shop.start();
    await me.saved();
  });
  it('nothing is kept of cases once the session was ended elsewhere', async () => {
    const kept = (): Promise<boolean> => me.page.evaluate(() => caches.has('known'));
    await open('bench');
    await me.page.waitForSelector('[data-station].here');
    expect(await kept()).toBe(true);
    const other = await Person.arrive(browser, shop);
    await other.signIn('mara');
    const ended = await other.page.evaluate(async () => {
      const all = (await (await fetch('/api/sessions')).json()) as Array<{ id: string; current: boolean }>;
      const others = all.filter((s) => !s.current);
      for (const { id } of others) await fetch(`/api/sessions/${id}`, { method: 'DELETE' });
      return others.length;
    });
    expect(ended).toBe(1);
    await me.page.reload();
    await me.page.waitForSelector('#signIn');
    expect(await kept()).toBe(false);
    await me.signIn('mara');
  });
});

describe('before first use', () => {
  it('less than 450 kB of script is fetched, compressed, and nothing of it twice', async () => {
    const fresh = await Person.arrive(browser, shop);
    const sizes = new Map<string, number>();
    const client = await fresh.page.createCDPSession();
    await client.send('Network.enable');
    await client.send('Network.setBypassServiceWorker', { bypass: true });
    const scripts = new Map<string, string>();
    client.on('Network.responseReceived', (e) => void (e.response.url.endsWith('.js') && scripts.set(e.requestId, e.response.url)));
    client.on('Network.loadingFinished', (e) => {
      const url = scripts.get(e.requestId);
      // What the service worker lays in store for later is asked for by it, not by the page.
      if (url && !sizes.has(url)) sizes.set(url, e.encodedDataLength);
    });
    await fresh.page.goto(shop.url);
    await fresh.page.waitForSelector('#password');
    await fresh.quiet();
    const total = [...sizes.values()].reduce((a, b) => a + b, 0);
    expect(sizes.size).toBeGreaterThan(3);
    expect(total).toBeGreaterThan(100_000);
    expect(total).toBeLessThan(450_000);
  });
});

describe('at 1280 px', () => {
  it('every control of the intake can be pressed, and the strip holds all it says', async () => {
    await me.page.setViewport({ width: 1280, height: 800 });
    await open('intake');
    await me.page.waitForSelector('.history-add');
    const covered = await me.page.evaluate(() => {
      const found: string[] = [];
      for (const e of document.querySelectorAll<HTMLElement>('.work button, .work label, .work input, .strip a, .strip button')) {
        e.scrollIntoView({ block: 'center' });
        const box = e.getBoundingClientRect();
        if (box.width < 4) continue;
        const top = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
        if (!top || (!e.contains(top) && !top.contains(e))) found.push(e.innerText || e.getAttribute('aria-label') || e.id);
      }
      return found;
    });
    expect(covered).toEqual([]);
  });
  it('pages have titles of their own, patterns are found by trade words, dialogs begin in their field', async () => {
    await open('station/rod.1.shell.upper');
    expect(await me.page.title()).toMatch(/, Rod 1 upper shell · True Ledger$/);
    await me.page.waitForSelector('#pattern-choice');
    await me.page.keyboard.press('f');
    await me.page.keyboard.type('groove');
    const options = await me.page.waitForFunction(() => {
      const shown = [...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')];
      return shown.length > 0 ? shown.map((o) => (o as HTMLElement).innerText) : null;
    });
    // Found by its look, not by its name.
    expect(((await options.jsonValue()) as string[]).some((name) => !/groove/i.test(name))).toBe(true);
    await me.page.keyboard.press('Escape');
    await open('intake');
    await me.press('Put away …');
    await me.page.waitForFunction(
      () => document.activeElement?.closest('.ant-modal') !== null && document.activeElement?.getAttribute('aria-label') === 'Reason',
    );
    await me.page.keyboard.press('Escape');
  });
  it('many steps are answered at once, with one reason', async () => {
    await open('strip');
    await me.press('It came apart …');
    await me.page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Reason');
    await me.page.keyboard.type('came in boxes');
    await me.press('Up to Drain the oil');
    const steps = await me.page.$eval('.ant-modal-footer .ant-btn-primary', (b) => parseInt((b as HTMLElement).innerText, 10));
    expect(steps).toBeGreaterThan(1);
    await me.page.click('.ant-modal-footer .ant-btn-primary');
    await me.see(`${steps} of `);
    await me.saved();
    const entries = await me.entries(caseId);
    expect(entries.filter((e) => e.kind === 'step-set').map((e) => (e.body as { note: string }).note)).toEqual(
      Array(steps).fill('came in boxes'),
    );
    expect(entries.some((e) => e.kind === 'hold-set' && (e.body as { outcome: string }).outcome === 'lost')).toBe(true);
  });
});

describe('a page whose script cannot be fetched', () => {
  it('leaves the header, says so, and comes when asked again', async () => {
    const fresh = await Person.arrive(browser, shop);
    await fresh.signIn('mara');
    await fresh.page.setBypassServiceWorker(true);
    await fresh.page.setRequestInterception(true);
    let broken = true;
    fresh.page.on('request', (r) => void (broken && /Gauges-[^/]+\.js$/.test(r.url()) ? r.abort() : r.continue()));
    await fresh.press('Gauges');
    await fresh.page.waitForSelector('[role=alert]');
    expect(await fresh.text()).toContain('Patterns');
    // It comes by itself within seconds, or at once when asked.
    broken = false;
    await fresh.press('Try again').catch(() => undefined);
    await fresh.page.waitForFunction(() => document.querySelector('h1')?.textContent === 'Gauges');
  });
});

describe('at 390 px', () => {
  it('no screen is wider than the phone', async () => {
    await me.page.setViewport({ width: 390, height: 800 });
    const wide: string[] = [];
    const look = async (path: string): Promise<void> => {
      await me.page.goto(shop.url + path);
      await me.page.waitForSelector('main');
      await me.quiet();
      const width = await me.page.evaluate(() => document.documentElement.scrollWidth);
      if (width > 390) wide.push(`${path}: ${width}`);
    };
    for (const path of ['/', '/new', '/patterns', '/set-up', '/gauges', '/sheets', '/prices', '/policy', '/grade-book', '/finish'])
      await look(path);
    for (const path of [
      'intake',
      'opening',
      'strip',
      'pictures',
      'bench',
      'measure',
      'cause',
      'decide',
      'document',
      'ledger',
      'station/bore.1',
    ])
      await look(`/case/${caseId}/${path}`);
    expect(wide).toEqual([]);
  });
});

it('met no error', () => expect(me.errors.filter((e) => !/net::ERR|EventSource|503/.test(e))).toEqual([]));
