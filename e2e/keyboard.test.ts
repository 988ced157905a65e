import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { ENGINE_TEMPLATES } from '@true-ledger/core/engine';
import type { Browser } from 'puppeteer-core';
import { draft } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

/** What has the focus: its own words, or its name. */
const focused = (): Promise<string> =>
  me.page.evaluate(() => {
    const at = document.activeElement as HTMLInputElement | null;
    if (at?.getAttribute('role') === 'tabpanel') return '';
    return (at?.getAttribute('aria-label') ?? (at?.labels?.[0]?.innerText || at?.innerText || at?.placeholder || ''))
      .replace(/^Tab \d+ of \d+\s+/, '')
      .trim();
  });

/** Goes on by Tab until the control of this name has the focus; the number of stops it took. */
async function reach(name: string, most = 40): Promise<number> {
  for (let stops = 0; stops <= most; stops++) {
    if ((await focused()).startsWith(name)) return stops;
    await me.page.keyboard.press('Tab');
  }
  throw new Error(`${most} stops and no "${name}" in:\n${(await me.text()).slice(0, 1500)}`);
}

describe('by keyboard alone', () => {
  it('a new case is opened, a place graded, a journal read, the account signed and its PDF taken', async () => {
    const { keyboard } = me.page;
    await me.page.goto(shop.url);
    await me.see('No case yet');
    await reach('Open a new case');
    await keyboard.press('Enter');
    await me.see('What is it about');
    await reach('What is it about');
    await keyboard.type('Walked without a mouse');
    await keyboard.down('Shift');
    for (let i = 0; i < 6 && !(await focused()).startsWith('Open case'); i++) await keyboard.press('Tab');
    await keyboard.up('Shift');
    await keyboard.press('Enter');
    await me.page.waitForFunction(() => location.pathname.endsWith('/intake'));
    await me.see('The question');

    // A place, found by its name.
    await keyboard.press('/');
    await keyboard.type('big end 2 upper');
    await keyboard.press('Enter');
    await me.page.waitForFunction(() => location.pathname.includes('/station/'));
    await me.page.waitForSelector('.grade-row');
    await keyboard.press('3');
    await me.page.waitForSelector('.grade-button.here');
    await keyboard.press('f');
    await keyboard.type('fatigue');
    await me.page.waitForSelector('.ant-select-item-option-active');
    await keyboard.press('Enter');
    await me.page.waitForFunction(() => document.querySelector('.finding .ant-select-selection-item') !== null);
    // Once to close the list, once to leave the field.
    await keyboard.press('Escape');
    await me.page.waitForFunction(() => document.querySelector('.ant-select-open') === null);
    await keyboard.press('Escape');
    await me.page.waitForFunction(() => document.activeElement === document.body);
    await me.saved();

    // A journal, a figure with a comma.
    await keyboard.press('g');
    await keyboard.press('m');
    await me.page.waitForSelector('.reading-input');
    await me.page.waitForFunction(() => document.activeElement?.classList.contains('reading-input'));
    const mm = (ENGINE_TEMPLATES[0]!.layout.mainDiameterMm - 0.018).toFixed(3);
    await keyboard.type(mm.replace('.', ','));
    await keyboard.press('Enter');
    await me.page.waitForFunction(
      (said: string) => [...document.querySelectorAll('.reading-grid button')].some((b) => b.textContent?.includes(said)),
      {},
      mm,
    );
    await me.saved();

    // The account.
    await keyboard.press('Escape');
    await me.page.waitForFunction(() => !document.activeElement?.classList.contains('reading-input'));
    await keyboard.press('g');
    await keyboard.press('r');
    await me.see('Method and standing');
    await reach('Words', 60);
    for (let i = 0; i < 4 && !(await focused()).startsWith('Sign, share'); i++) await keyboard.press('ArrowRight');
    await keyboard.press('Enter');
    await reach('Sign the account');
    await keyboard.press('Enter');
    await me.see('signs what the page shows now');
    await me.page.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA');
    await reach('Sign', 4);
    await keyboard.press('Enter');
    await me.see('Version 1');
    await me.page.waitForFunction(() => document.querySelector('.ant-modal-wrap:not([style*="none"])') === null);
    await reach('PDF of version 1', 120);
    const pdf = await me.taken('-v1.pdf', () => keyboard.press('Enter'));
    expect(readFileSync(pdf).subarray(0, 5).toString()).toBe('%PDF-');
    const words = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
    for (const said of ['Walked without a mouse', 'Version 1, signed by Mara', mm]) expect(words).toContain(said);
    expect(me.errors).toEqual([]);
  });

  it('a practice engine is brought in, looked at for minutes, named, answered, and its truth opened', async () => {
    const { keyboard } = me.page;
    await me.page.goto(`${shop.url}/practice`);
    await me.see('A whole engine');
    await reach('Seed', 60);
    await keyboard.type('12');
    await reach('Bring in an engine');
    await keyboard.press('Enter');
    await me.page.waitForFunction(() => location.pathname.endsWith('/intake'));
    await me.see('Practice engine, level 1');
    await me.see('0 min');
    await me.checkAccess('intake of a practice engine');
    const caseId = me.page.url().split('/')[4]!;

    // What there is before anything is opened.
    await keyboard.press('g');
    await keyboard.press('o');
    await me.page.waitForSelector('.check-list .here');
    await keyboard.press('ArrowDown');
    await me.page.waitForFunction(() => location.pathname.endsWith('/dipstick'));
    await me.see('Make the check (2 min)');
    await me.page.waitForSelector('.practice-line button:not([disabled])');
    await keyboard.press('v');
    await me.see('Level: ');
    await me.see('2 min');

    // A part: not before it is laid bare, then its picture is taken as any other.
    await keyboard.press('/');
    await keyboard.type('big end 1 upper');
    await keyboard.press('Enter');
    await me.page.waitForFunction(() => location.pathname.includes('/station/'));
    await me.see('is not laid bare yet');
    await me.post(`/api/cases/${caseId}/entries`, { entries: [draft('step-set', null, { step: 'rod-cap-1', state: 'done', note: '' })] });
    await me.page.waitForFunction(() => document.querySelector('.practice-line button:not([disabled])') !== null);
    await keyboard.press('v');
    await me.page.waitForSelector('.thumbs img', { timeout: 60_000 });
    await me.see('14 min');
    await me.checkAccess('a part of a practice engine');
    await keyboard.press('3');
    await me.page.waitForSelector('.grade-button.here');
    await me.saved();

    // The answer, and the truth beside it.
    await keyboard.press('g');
    await keyboard.press('t');
    await me.see('What failed in it');
    await reach('Cause 1', 60);
    await keyboard.type('oil level run low');
    await me.page.waitForSelector('.ant-select-item-option-active');
    await keyboard.press('Enter');
    await reach('How sure of cause 1');
    await keyboard.type('60');
    await me.checkAccess('the answer');
    await reach('Open the truth');
    await keyboard.press('Enter');
    await me.see('stay there');
    await me.page.waitForFunction(() => document.activeElement?.closest('.ant-modal') !== null);
    await reach('Open the truth', 6);
    await keyboard.press('Enter');
    await me.see('What it would have cost', 60_000);
    await me.see('level 1, seed 12');
    await me.see('14 minutes at the bench');
    await me.checkAccess('the truth');
    expect(me.errors).toEqual([]);
  });
});
