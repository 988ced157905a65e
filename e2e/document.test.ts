import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { sha256Hex } from '@true-ledger/core/kit';
import { verifyBundle } from '@true-ledger/core/bundle';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { axeFaults } from './axe.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let empty: Shop;
let browser: Browser;
let me: Person;
let other: Person;
let caseId = '';
let bundle = '';

const open = async (path: string, who = me): Promise<void> => {
  await who.page.goto(`${who.shop.url}/case/${caseId}/${path}`);
  await who.page.waitForSelector('.work > .page');
};
const text = (pdf: string): string => execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
const sentence = (key: RegExp): Promise<string> =>
  me.page.evaluate(
    (source: string) =>
      [...document.querySelectorAll<HTMLElement>('.report .sentence button')].find((b) => new RegExp(source).test(b.innerText))
        ?.innerText ?? '',
    key.source,
  );
const takeIn = async (who: Person, file: string): Promise<void> => {
  await who.page.goto(who.shop.url);
  await who.see('Shelf');
  const input = await who.page.waitForSelector('input[type=file][accept*="zip"]');
  await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(file);
};

beforeAll(async () => {
  shop = await Shop.demo('2026-D01');
  empty = await Shop.open();
  browser = await openBrowser();
  me = await Person.arrive(browser, shop);
  await me.signIn('mara');
  other = await Person.owner(browser, empty);
  caseId = await me.page.evaluate(async () => ((await (await fetch('/api/cases')).json()) as Array<{ id: string }>)[0]!.id);
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
  await empty?.stop();
});
afterEach(() => {
  for (const person of [me, other]) {
    expect(person.errors).toEqual([]);
    expect(person.foreign).toEqual([]);
    expect(person.barriers).toEqual([]);
  }
});

describe('from a finished strip to a signed account', () => {
  it('starts where every step is done', async () => {
    await open('strip');
    const steps = await me.page.evaluate(
      () => [...document.querySelectorAll('.stage-line a')].find((a) => a.textContent?.startsWith('Strip'))?.textContent,
    );
    expect(steps).toBe('Strip');
  });
  it('confirms what becomes of the parts and sends the machine shop its sheet', async () => {
    await open('decide/parts');
    const confirm = await me.page.waitForFunction(() =>
      [...document.querySelectorAll('button')].find((b) => /^Confirm \d+ proposed$/.test(b.innerText)),
    );
    await (confirm.asElement() as unknown as { click(): Promise<void> }).click();
    await me.saved();
    const sheet = text(await me.download('Take PDF', 'machine-shop-2026-D01.pdf')).replace(/\s+/g, ' ');
    expect(sheet).toContain('Machine-shop sheet 2026-D01');
    expect(sheet).toMatch(/Crankpins Grind 52\.\d{3} /);
    expect(sheet).toContain('From above, front at left');
  });
  it('takes the account as one HTML file that reads well without the application, at the width of a phone as well', async () => {
    await open('document');
    const file = await me.download('Take HTML', '-draft.html');
    const reader = await browser.newPage();
    try {
      await reader.setBypassCSP(true);
      await reader.setViewport({ width: 390, height: 844 });
      await reader.goto(`file://${file}`);
      expect(await reader.$$eval('h2', (all) => all.length)).toBeGreaterThan(8);
      expect(await reader.$$eval('img', (all) => all.every((i) => i.naturalWidth > 300 && i.alt !== ''))).toBe(true);
      expect(await reader.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
      expect(await axeFaults(reader)).toEqual([]);
    } finally {
      await reader.close();
    }
  });

  it('lays the account out: sections in another order by hand, a picture left out', async () => {
    await open('document');
    await me.page.waitForSelector('.report h2');
    await me.press('Lay out');
    const headings = (): Promise<string[]> => me.page.$$eval('.report h2', (all) => all.map((h) => h.textContent ?? ''));
    expect((await headings()).slice(0, 2)).toEqual(['Question and engine', 'Findings']);
    const grip = await me.find('Move Findings');
    await grip.focus();
    await me.page.keyboard.press('Space');
    await new Promise((r) => setTimeout(r, 300));
    await me.page.keyboard.press('ArrowUp');
    await new Promise((r) => setTimeout(r, 300));
    await me.page.keyboard.press('Space');
    await me.saved();
    await me.page.waitForFunction(() => document.querySelector('.report h2')?.textContent === 'Findings');
    const shown = (): Promise<number> => me.page.$$eval('.report figure img', (all) => all.length);
    const before = await shown();
    expect(before).toBeGreaterThan(5);
    await me.page.evaluate(() => document.querySelector<HTMLElement>('.sortable li:has(img) input[type=checkbox]')!.click());
    await me.page.waitForFunction((n: number) => document.querySelectorAll('.report figure img').length === n - 1, {}, before);
    await me.page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLImageElement>('.report figure img')].every((i) => i.complete && i.naturalWidth > 300),
    );
    await me.checkAccess('account, laid out');
  });
  it('holds a sentence in other words against the figures', async () => {
    const generated = await sentence(/places \(/);
    expect(generated).toMatch(/77 of 78 places/);
    const reword = async (words: string): Promise<void> => {
      await me.page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('.report .sentence button')]
          .find((b) => /places/.test(b.innerText) && /exam|looked/.test(b.innerText))!
          .click(),
      );
      await me.type('textarea[aria-label="The sentence in other words"]', words);
      await me.press('Keep these words');
      await me.saved();
    };
    await reword('All 78 places were examined, which proves it.');
    await me.see('is stronger than the figures');
    await me.checkAccess('account, flagged');
    await me.press('Sign, share (1)');
    await me.see('Passages to look at');
    await reword('We looked at 77 of 78 places (99 %); one was not opened.');
    await me.page.waitForFunction(() => !document.body.innerText.includes('Passages to look at'));
    expect(await sentence(/^We looked at/)).toContain('77 of 78');
  });
  it('signs in three actions and keeps the PDF by its hash', async () => {
    await me.press('Sign the account');
    await me.checkAccess('signing');
    await me.press('Sign');
    await me.page
      .waitForFunction(() => !document.querySelector('.ant-modal-wrap:not([style*="display: none"])'))
      .catch(async () => {
        throw new Error(
          await me.page.evaluate(() =>
            [...document.querySelectorAll<HTMLElement>('.unsettled, .ant-modal')].map((m) => m.innerText).join('\n'),
          ),
        );
      });
    await me.see('PDF of version 1');
    const pdf = await me.download('PDF of version 1', '-v1.pdf');
    const signed = (await me.entries(caseId)).at(-1)!;
    expect(signed.kind).toBe('account-signed');
    expect(sha256Hex(readFileSync(pdf))).toBe((signed.body as { sha256: string }).sha256);
    const words = text(pdf).replace(/\s+/g, ' ');
    for (const w of [
      'Version 1, signed by Mara Quill',
      'We looked at 77 of 78 places',
      '1 sentence made from the ledger was put in other words',
      'Main 2 was not fed',
      'Evidence for one feed blocked',
      'Order of events',
      'Full rebuild',
      '10 mm',
      'page 1 of',
    ])
      expect(words.toLowerCase()).toContain(w.toLowerCase());
    const outline = [
      ...execFileSync('pdftohtml', ['-xml', '-i', '-stdout', pdf], { encoding: 'utf8' }).matchAll(/<item page="\d+">([^<]+)<\/item>/g),
    ].map((m) => m[1]);
    expect(outline.slice(0, 3)).toEqual(['Findings', 'Question and engine', 'Order of events']);
    expect(outline).toEqual(
      expect.arrayContaining(['What was and was not examined', 'Findings', 'Measurements', 'Causes', 'Ways on', 'Method and standing']),
    );
    await me.see('Reads as version 1');
  });
});

describe('an outsider with a link', () => {
  it('reads the signed version and nothing else, until the link is taken back', async () => {
    await me.type('input[aria-label="For whom"]', 'Insurer');
    await me.press('Make a link');
    await me.see('This link is shown once');
    const link = await me.page.$eval('input[aria-label="The link"]', (i) => (i as HTMLInputElement).value);
    const outsider = await Person.arrive(browser, shop);
    await outsider.page.goto(link);
    await outsider.see('Account 2026-D01');
    await outsider.checkAccess('shared account');
    const pdf = await outsider.download('Take the account (PDF)', '.pdf');
    expect(text(pdf)).toContain('Version 1, signed by Mara Quill');
    await outsider.page.goto(`${shop.url}/case/${caseId}/document`);
    await outsider.see('Sign in');
    await open('document');
    await me.press('Sign, share');
    await me.see('opened 1 time');
    await me.press('Take back');
    await me.page.waitForSelector('.ant-popconfirm .ant-btn-primary');
    await me.page.click('.ant-popconfirm .ant-btn-primary');
    await me.see('taken back');
    await outsider.page.goto(link);
    await outsider.see('This link opens nothing');
    expect(outsider.errors).toEqual([]);
    expect(outsider.barriers).toEqual([]);
  });
});

describe('the bundle in an empty shop', () => {
  it('becomes the very same case, and its chain holds there', async () => {
    await open('document');
    bundle = await me.download('Take bundle', '.zip');
    const files = unzipSync(readFileSync(bundle));
    expect(verifyBundle(files)).toMatchObject({ ok: true, photos: 39 });
    expect(Object.keys(files)).toContain('accounts/v1.pdf');
    await takeIn(other, bundle);
    await other.see('The case was taken in');
    await other.checkAccess('bundle taken in');
    await other.press('Open case 2026-D01');
    await other.page.waitForSelector('.bench-cell');
    const [here, there] = [await me.entries(caseId), await other.entries(caseId)];
    expect(there).toEqual(here);
    await open('ledger', other);
    await other.press('Verify the chain here');
    await other.see(`All ${here.length} entries hold`);
    await other.see(here.at(-1)!.hash);
    await open('document', other);
    await other.page.waitForSelector('.report h2');
    const heads = await Promise.all(
      [me, other].map((p) =>
        p.page.$$eval('.report section p, .report section td, .report section li', (all) => all.map((e) => e.textContent).join('\n')),
      ),
    );
    expect(heads[1]).toBe(heads[0]);
  });
  it('is named at the entry when it was tampered with, and changes nothing', async () => {
    const files = unzipSync(readFileSync(bundle));
    const ledger = strFromU8(files['ledger.jsonl']!);
    const seq = ledger.split('\n').findIndex((l) => l.includes('Tab torn away')) + 1;
    const tampered = join(me.downloads, 'tampered.zip');
    writeFileSync(tampered, zipSync({ ...files, 'ledger.jsonl': strToU8(ledger.replace('Tab torn away', 'Tab bent away')) }, { level: 0 }));
    await takeIn(other, tampered);
    await other.see(`does not hold at entry ${seq}`);
    await other.see('Nothing was changed');
    expect(await other.entries(caseId)).toHaveLength((await me.entries(caseId)).length);
  });
  it('is told to be here already when it comes again', async () => {
    await takeIn(other, bundle);
    await other.see('is here already with everything the bundle holds');
  });
});

describe('two at one case', () => {
  it('see each other, and an entry struck by the owner is gone for both', async () => {
    const teo = await Person.arrive(browser, shop);
    await teo.signIn('teo');
    await teo.page.goto(`${shop.url}/case/${caseId}/station/rod.2.shell.upper`);
    await open('ledger');
    await me.page.waitForSelector('.present[aria-label*="Teo Lindqvist, Rod 2 upper shell"]');
    await teo.see('lead beads at the trailing line');
    const remark = (await me.entries(caseId)).find((e) => e.kind === 'remark' && JSON.stringify(e.body).includes('lead beads'))!;
    await me.choose('.ant-select:has([aria-label="Show one place"])', 'Rod 2 upper shell');
    await me.press(`Strike entry ${remark.seq}`);
    await me.type('textarea[aria-label="Why it has to go"]', 'Said by a person who wants it gone');
    await me.checkAccess('striking');
    await me.press('Strike for good');
    await me.page.waitForFunction(() => !document.querySelector('.ant-modal-wrap:not([style*="display: none"])'));
    await teo.page.waitForFunction(() => !document.body.innerText.includes('lead beads'));
    await me.press('Verify the chain here');
    await me.see('entries hold');
    expect(JSON.stringify(await me.entries(caseId))).not.toContain('lead beads');
    expect(teo.errors).toEqual([]);
  });
});
