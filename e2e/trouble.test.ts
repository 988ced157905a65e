import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { FOUR } from '../server/test/harness.js';
import { FIXTURES, openBrowser, PASSWORD, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let mara: Person;
let teo: Person;
let caseId: string;

/** Calls the API as the person signed in on the page. */
const call = (person: Person, path: string, body: object): Promise<{ id?: string }> =>
  person.page.evaluate(
    async (p: string, b: string) =>
      (await fetch(p, { method: 'POST', headers: { 'content-type': 'application/json' }, body: b })).json() as Promise<{ id?: string }>,
    path,
    JSON.stringify(body),
  );

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  mara = await Person.owner(browser, shop);
  for (const [name, role] of [
    ['teo', 'builder'],
    ['desk', 'reader'],
  ])
    await call(mara, '/api/accounts', { name, signIn: name, password: PASSWORD, role });
  caseId = crypto.randomUUID();
  await call(mara, '/api/cases', { id: caseId, title: 'Two at once', reference: '', layout: FOUR });
  teo = await Person.arrive(browser, shop);
  await teo.signIn('teo');
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});
afterEach(() => {
  for (const person of [mara, teo]) expect(person.errors.filter((e) => !/net::ERR|EventSource/.test(e))).toEqual([]);
});

const open = async (person: Person, path: string): Promise<void> => {
  await person.page.goto(`${shop.url}/case/${caseId}/${path}`);
  await person.page.waitForSelector('.save-state');
};

describe('eight pages of one browser', () => {
  it('all open, and all hear of an entry: they share one line to the server', async () => {
    const pages = [];
    for (let k = 0; k < 8; k++) {
      const page = await teo.page.browserContext().newPage();
      await page.goto(`${shop.url}/case/${caseId}/bench`);
      await page.waitForSelector('[data-station="bore.4"].not-examined');
      pages.push(page);
    }
    await open(mara, 'bench');
    await call(mara, `/api/cases/${caseId}/entries`, {
      entries: [{ id: crypto.randomUUID(), kind: 'state-set', station: 'bore.4', basedOn: null, body: { state: 'sound' } }],
    });
    for (const page of pages) await page.waitForSelector('[data-station="bore.4"].graded');
    // The page that holds the line goes; another takes it over.
    await pages[0]!.close();
    await new Promise((r) => setTimeout(r, 500));
    await call(mara, `/api/cases/${caseId}/entries`, {
      entries: [{ id: crypto.randomUUID(), kind: 'state-set', station: 'rings.4.pack', basedOn: null, body: { state: 'sound' } }],
    });
    for (const page of pages.slice(1)) await page.waitForSelector('[data-station="rings.4.pack"].graded');
    for (const page of pages.slice(1)) await page.close();
  });
});

describe('two people', () => {
  it('see each other’s entries without reloading', async () => {
    await open(mara, 'bench');
    await open(teo, 'bench');
    await teo.page.waitForSelector('[data-station="cam.1"].here');
    await new Promise((r) => setTimeout(r, 500));
    await teo.page.keyboard.press('n');
    await mara.page.waitForSelector('[data-station="cam.1"].graded');
  });
  it('who write one field: the second is told, sees both, and chooses', async () => {
    await open(mara, 'intake');
    await open(teo, 'intake');
    const words = 'label.wide textarea';
    // Teo's page does not hear of Mara's entry: his event stream and fetches of entries are cut, his append is not.
    await teo.page.setRequestInterception(true);
    const cut = (r: { url(): string; method(): string; abort(): Promise<void>; continue(): Promise<void> }): void =>
      void (r.method() === 'GET' && /\/(events|entries)/.test(r.url()) ? r.abort() : r.continue());
    teo.page.on('request', cut as never);
    await teo.page.reload();
    await teo.page.waitForSelector(words);
    const write = async (person: Person, text: string): Promise<void> => {
      const field = await person.page.waitForSelector(words);
      await field!.click();
      await field!.type(text);
      await person.page.keyboard.press('Tab');
    };
    await write(mara, 'Mara asks why');
    await mara.saved();
    await write(teo, 'Teo asks how');
    await teo.see('Mara wrote this field meanwhile');
    await teo.see('Mara asks why');
    await teo.see('Teo asks how');
    teo.page.off('request', cut as never);
    await teo.page.setRequestInterception(false);
    await teo.page.reload();
    await teo.see('Mara wrote this field meanwhile');
    await teo.press('Write mine over it');
    await teo.saved();
    await mara.page.waitForFunction(() => [...document.querySelectorAll('textarea')].some((t) => t.value === 'Teo asks how'));
  });
});

describe('a server that dies', () => {
  it('keeps what was written in the browser, over a reload, and sends it when it is back', async () => {
    await open(teo, 'bench');
    await teo.page.waitForSelector('[data-station].here');
    await shop.stop('SIGKILL');
    await teo.page.keyboard.press('ArrowRight');
    await teo.page.keyboard.press('2');
    await teo.page.keyboard.press('ArrowRight');
    await teo.page.keyboard.press('3');
    await teo.see('2 kept here, server away');
    await shop.start();
    await teo.page.reload();
    await teo.saved();
    await teo.page.waitForSelector('[data-station="cam.2"][aria-label*="grade 2"]');
    await teo.page.waitForSelector('[data-station="cam.3"][aria-label*="grade 3"]');
  });
  it('killed during an upload: a sentence, nothing lost, sent again by itself', async () => {
    await open(teo, 'station/bore.1');
    const input = await teo.page.waitForSelector('#add-pictures');
    await teo.page.emulateNetworkConditions({ download: 1e6, upload: 60_000, latency: 20 });
    await (input as never as { uploadFile(...p: string[]): Promise<void> }).uploadFile(join(FIXTURES, 'journal.jpg'));
    await teo.see('sending');
    await teo.page.waitForSelector('.ant-progress');
    await shop.stop('SIGKILL');
    await teo.see('server away: the rest is kept in this browser');
    await teo.page.emulateNetworkConditions(null);
    await shop.start();
    await teo.see('1 of 1 stored');
    await teo.page.waitForFunction(() => document.querySelectorAll('.thumbs img').length === 1);
  });
});

describe('wrong files', () => {
  it('each get their own sentence in the list', async () => {
    await open(teo, 'station/bore.2');
    await teo.page.waitForSelector('#add-pictures');
    await teo.page.evaluate(() => {
      const input = document.querySelector<HTMLInputElement>('#add-pictures')!;
      const files = new DataTransfer();
      files.items.add(new File(['<html>no picture</html>'], 'page.jpg', { type: 'image/jpeg' }));
      files.items.add(new File([new Uint8Array(60 * 1024 * 1024)], 'large.jpg', { type: 'image/jpeg' }));
      input.files = files.files;
      input.dispatchEvent(new Event('change', { bubbles: true }));
    });
    await teo.see('the file is not a JPEG, PNG, WebP or HEIC picture');
    await teo.see('more than the 40 MB that are taken');
    await teo.see('0 of 2 stored');
  });
});

describe('a reader', () => {
  it('sees everything and finds nothing to press that writes', async () => {
    const desk = await Person.arrive(browser, shop);
    await desk.signIn('desk');
    expect(await desk.text()).not.toContain('Open a new case');
    for (const path of ['bench', 'station/bore.1', 'intake', 'cause', 'document', 'measure', 'ledger']) {
      await open(desk, path);
      await desk.see('You are reading this case');
    }
    await open(desk, 'bench');
    await desk.page.waitForSelector('[data-station].here');
    await desk.page.keyboard.press('4');
    await new Promise((r) => setTimeout(r, 500));
    expect(await desk.page.$eval('.save-state', (e) => e.getAttribute('data-waiting'))).toBe('0');
    expect(desk.errors).toEqual([]);
  });
  it('and a signed-out person gets the sign-in page at every address', async () => {
    const nobody = await Person.arrive(browser, shop);
    for (const path of ['/', `/case/${caseId}/bench`, '/set-up', '/patterns']) {
      await nobody.page.goto(shop.url + path);
      await nobody.page.waitForSelector('#password');
    }
    await nobody.checkAccess('sign-in');
    expect(nobody.barriers).toEqual([]);
    await nobody.type('#signIn', 'teo');
    await nobody.type('#password', 'wrong');
    await nobody.press('Sign in');
    await nobody.see('Name and password do not fit together');
    // The answer stays: nothing that loads afterwards may take it from the page.
    await nobody.quiet();
    expect(await nobody.text()).toContain('Name and password do not fit together');
  });
});

describe('other screens', () => {
  it('pass axe and show no error', async () => {
    for (const path of ['/patterns', '/set-up', '/new']) {
      await mara.page.goto(shop.url + path);
      await mara.page.waitForSelector('.page h1');
      await mara.checkAccess(path);
    }
    expect(mara.barriers).toEqual([]);
    await open(mara, 'bench');
    await mara.page.waitForSelector('[data-station].here');
    await mara.page.keyboard.press('?');
    await mara.see('Keys on this screen');
    await mara.see('Towards the front');
  });
});
