import { engineTemplate } from '@true-ledger/core/engine';
import { stripPlan } from '@true-ledger/core/strip';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import type { Browser } from 'puppeteer-core';
import { FOUR } from '../server/test/harness.js';
import { openBrowser, PASSWORD, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const four = crypto.randomUUID();
const outboard = crypto.randomUUID();
const OUTBOARD = engineTemplate('outboard-twin')!.layout;

const entries = (id: string): Promise<LedgerEntry[]> => me.entries(id);
const open = async (id: string, path: string, person = me): Promise<void> => {
  await person.page.goto(`${shop.url}/case/${id}/${path}`);
  // The page of a stage comes in its own piece of the program: wait until it stands.
  await person.page.waitForSelector('.work > .page, .work > .bench-page, .work > .station-page');
};
const settled = (): Promise<void> => me.saved();

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.post('/api/accounts', { name: 'Teo', signIn: 'teo', password: PASSWORD, role: 'builder' });
  await me.post('/api/cases', { id: four, title: 'Inline', reference: '', layout: FOUR });
  await me.post('/api/cases', { id: outboard, title: 'Outboard', reference: '', layout: OUTBOARD });
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});
afterEach(() => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
});

describe('intake in full', () => {
  it('keeps what was received, what points to an earlier opening, and a question with its answer', async () => {
    await open(four, 'intake');
    await me.page.type('input[aria-label="Part received"]', 'Oil pan');
    await me.press('Off already');
    await me.page.type('input[aria-label="By whom"]', 'the yard');
    await me.page.keyboard.press('Enter');
    await me.see('off already');
    await me.page.type('input[aria-label="Build mark"]', 'Two date codes among the shells');
    await me.press('opened before');
    await me.page.keyboard.press('Tab');
    await me.page.evaluate(() =>
      [...document.querySelectorAll<HTMLButtonElement>('.pane[aria-label="Build marks"] button')].at(-1)!.click(),
    );
    await me.see('1 mark points to it');
    await me.page.type('input[aria-label="Question"]', 'Who fitted the shells?');
    await me.page.keyboard.press('Enter');
    await me.see('1 open of 1');
    await me.page.type('input[aria-label^="Answer to"]', 'A travelling fitter');
    await me.page.keyboard.press('Enter');
    await me.see('0 open of 1');
    await settled();
    await me.checkAccess('intake in full');
  });
});

describe('before opening', () => {
  it('answers by pointer and by figures with units; a slip is told and not kept', async () => {
    await open(four, 'opening/dipstick');
    await me.press('Below the lower mark');
    await me.press('Glitter');
    await settled();
    await me.checkAccess('dipstick');
    await open(four, 'opening/compression');
    await me.page.type('input[aria-label="Dry 1"]', '12');
    await me.page.keyboard.press('Enter');
    await me.page.keyboard.type('7');
    await me.page.keyboard.press('Enter');
    await me.page.keyboard.type('105 psi');
    await me.page.keyboard.press('Enter');
    await me.page.keyboard.type('1200');
    await me.page.keyboard.press('Enter');
    await me.see('cannot be right');
    await me.type('input[aria-label="Dry 4"]', '12,1');
    await me.page.keyboard.press('Tab');
    await me.see('2 and 3 are neighbours: look at the gasket between them');
    await settled();
    const checks = (await entries(four))
      .filter((e) => e.kind === 'check-set')
      .map((e) => e.body as { field: string; text: string; value: number | null });
    expect(checks.find((c) => c.field === 'dry.3')).toMatchObject({ text: '105 psi', value: expect.closeTo(7.239, 2) });
    expect(checks.filter((c) => c.field === 'dry.4')).toHaveLength(1);
    await me.checkAccess('compression');
    await open(four, 'cause');
    await me.see('Causes, most probable first');
    await me.see('Compression low in two neighbours');
  });
  it('fits the engine: an outboard is asked for its fuel, not for a dipstick', async () => {
    await open(outboard, 'opening');
    await me.see('Fuel and mixture');
    expect(await me.text()).not.toContain('Dipstick');
  });
});

/** Does every step in turn by its key; where the page asks why, a reason is given. Returns what was told as lost. */
async function stripAll(id: string, steps: readonly string[]): Promise<string[]> {
  const told: string[] = [];
  for (const step of steps) {
    // The page goes on to the next step by itself.
    if (!me.page.url().endsWith(`/${id}/strip/${step}`)) await open(id, `strip/${step}`);
    await me.page.waitForSelector(`.step-head[data-step="${step}"]`);
    if (await me.page.$('.step-head .verdict-word')) continue;
    await me.page.keyboard.press('d');
    const asked = await me.page
      .waitForFunction(
        (s: string) =>
          document.querySelector('.ant-modal-container input, .ant-modal input')
            ? 'ask'
            : document.querySelector('.step-head .verdict-word') || !window.location.pathname.endsWith(`/${s}`)
              ? 'moved'
              : null,
        {},
        step,
      )
      .then((h) => h.jsonValue());
    if (asked === 'ask') {
      told.push(...(await me.page.$$eval('.ant-modal li', (l) => l.map((x) => x.textContent ?? ''))));
      await me.page.type('.ant-modal input', 'came like this');
      await me.page.keyboard.press('Enter');
      await me.page.waitForFunction(
        (s: string) => document.querySelector('.step-head .verdict-word') !== null || !window.location.pathname.endsWith(`/${s}`),
        {},
        step,
      );
      await me.page.waitForFunction(() => document.querySelector('.ant-modal-wrap:not([style*="none"])') === null);
    }
    await settled();
  }
  return told;
}

describe('the strip', () => {
  it('shows what is at risk, records by one key, and what is passed over is asked for no more', async () => {
    await open(four, 'cause');
    await me.see('Causes, most probable first');
    await open(four, 'strip/isolate');
    await me.page.keyboard.press('d');
    await me.page.waitForFunction(() =>
      /^[1-9]\d* at risk$/.test(document.querySelector('.case-figures .at-risk-count')?.getAttribute('aria-label') ?? ''),
    );
    await settled();
    // First impression is locked from here on, on the page and in the ledger.
    expect(
      await me.post(`/api/cases/${four}/entries`, {
        entries: [
          {
            id: crypto.randomUUID(),
            kind: 'intake-set',
            station: null,
            basedOn: null,
            body: { field: 'firstImpression', value: 'oil-low' },
          },
        ],
      }),
    ).toBe(400);
    await open(four, 'strip/filter');
    await me.see('Record this first');
    await me.checkAccess('strip');
    await me.page.keyboard.press('1');
    await me.page.waitForSelector('.holds li.recorded');
    await settled();
    expect((await entries(four)).filter((e) => e.kind === 'hold-set')).toMatchObject([
      { body: { item: 'filter-kept', outcome: 'recorded' } },
    ]);

    // Coolant was not looked at: the page says what is lost, wants a reason, and the causes stop asking.
    const diagnosis = (): Promise<{ nextChecks: Array<{ feature: string }> }> =>
      me.page.evaluate(async (c: string) => (await fetch(`/api/cases/${c}/differential`)).json() as Promise<never>, four);
    await open(four, 'strip/drain-coolant');
    await me.see('Coolant level and film');
    await me.page.keyboard.press('d');
    await me.see('this will be lost');
    const go = await me.find('Go on, it is lost');
    expect(await go.evaluate((b) => (b as HTMLButtonElement).disabled)).toBe(true);
    await me.page.type('.ant-modal input', 'drained by the yard');
    await me.checkAccess('hold question');
    await me.press('Go on, it is lost');
    await settled();
    const lost = (await entries(four)).filter((e) => e.kind === 'hold-set').at(-1);
    expect(lost).toMatchObject({ body: { item: 'coolant', outcome: 'lost', note: 'drained by the yard' } });
    const asked = (await diagnosis()).nextChecks.map((n) => n.feature);
    for (const f of ['fluid.coolant-low', 'fluid.oil-in-coolant', 'measured.gas-in-coolant']) expect(asked).not.toContain(f);
    await open(four, 'cause');
    await me.see('Look at next');
    expect(await me.page.$eval('.next', (n) => (n as HTMLElement).innerText)).not.toMatch(
      /Coolant low|Oil film on the coolant|Gas in the coolant/,
    );
    await open(four, 'document');
    await me.see('drained by the yard');
  });

  it('takes torques by position, finds the uneven pair, and names the cap that binds', async () => {
    await open(four, 'strip/main-cap-3');
    await me.page.type('.fasteners .torque-entry input', '80');
    await me.page.keyboard.press('Enter');
    await me.page.keyboard.type('45 lb·ft');
    await me.page.keyboard.press('Enter');
    await me.see('% apart');
    await me.page.click('.easing .torque-entry input');
    for (const value of ['70', '66', '62', '16']) {
      await me.page.keyboard.type(value);
      await me.page.keyboard.press('Enter');
      await new Promise((r) => setTimeout(r, 150));
    }
    await me.see('Cap main 3 binds');
    await me.page.type('.cap-check input', '3');
    await me.press('Keep the cap');
    await me.see('Correct the cap');
    await settled();
    await me.checkAccess('cap');
  });

  it('refuses an impossible order with its reason and keeps a possible one', async () => {
    await open(four, 'strip/head-0');
    for (let k = 0; k < 3; k++) await me.press('Head off earlier');
    await me.see('cannot come before');
    await open(four, 'strip/pan');
    await me.press('Pan off, right way up earlier');
    await settled();
    expect((await entries(four)).some((e) => e.kind === 'step-order')).toBe(true);
  });

  it('two people taking the same step: the second is told, nothing is done twice', async () => {
    const teo = await Person.arrive(browser, shop);
    await teo.signIn('teo');
    await open(four, 'strip/pan', teo);
    await teo.page.setRequestInterception(true);
    teo.page.on('request', (r) =>
      r.url().endsWith('/events') || (r.method() === 'GET' && /entries\?after/.test(r.url())) ? r.abort() : r.continue(),
    );
    await teo.page.reload();
    await teo.page.waitForSelector('.step-head');
    await open(four, 'strip/pan');
    await me.page.keyboard.press('d');
    await me.page.waitForFunction(() => !window.location.pathname.endsWith('/pan') || document.querySelector('.ant-modal input') !== null);
    if (await me.page.$('.ant-modal input')) {
      await me.page.type('.ant-modal input', 'mine');
      await me.page.keyboard.press('Enter');
    }
    await settled();
    await teo.page.keyboard.press('d');
    await new Promise((r) => setTimeout(r, 400));
    if (await teo.page.$('.ant-modal input')) {
      await teo.page.type('.ant-modal input', 'mine too');
      await teo.page.keyboard.press('Enter');
    }
    await teo.see('wrote this field meanwhile');
    expect((await entries(four)).filter((e) => e.kind === 'step-set' && (e.body as { step: string }).step === 'pan')).toHaveLength(1);
  });

  it('goes to the end of an inline four and of an outboard, each with its own steps', async () => {
    const ofFour = stripPlan(FOUR).steps.map((s) => s.id);
    await stripAll(four, ofFour);
    const ofOutboard = stripPlan(OUTBOARD).steps.map((s) => s.id);
    const told = await stripAll(outboard, ofOutboard);
    expect(told).toEqual(expect.arrayContaining(['Fuel, its colour and oil', 'Crank seals: which way round, which dry']));
    const done = async (id: string): Promise<Set<string>> =>
      new Set((await entries(id)).filter((e) => e.kind === 'step-set').map((e) => (e.body as { step: string }).step));
    expect(await done(four)).toEqual(new Set(ofFour));
    expect(await done(outboard)).toEqual(new Set(ofOutboard));
    expect(ofOutboard).not.toContain('pan');
    await open(outboard, 'strip');
    await me.see(`${ofOutboard.length} of ${ofOutboard.length}`);
    expect(await me.page.$('.at-risk-count')).toBeNull();
  }, 240_000);

  it('passes the accessibility rules on every screen on the way', () => expect(me.barriers).toEqual([]));
});

describe('a spec sheet', () => {
  it('is entered once, versioned, and starts the next case with its limits', async () => {
    await me.page.goto(`${shop.url}/sheets`);
    await me.see('No sheet yet');
    await me.press('New sheet');
    const field = async (label: string, value: string, nth = 0): Promise<void> => {
      const input = await me.page.waitForFunction(
        (l: string, n: number) =>
          [...document.querySelectorAll('.sheet-form label')]
            .filter((e) => e.querySelector('span')?.textContent === l)
            .at(n)
            ?.querySelector('input') ?? null,
        {},
        label,
        nth,
      );
      const handle = input.asElement() as never as { click(o: object): Promise<void>; type(t: string): Promise<void> };
      await handle.click({ count: 3 });
      await handle.type(value);
    };
    await field('Name', 'Quay four');
    await me.see('Name the source');
    await field('Source of the figures', 'Data plate');
    await field('Least size new', '2.0860"');
    await field('Largest size new', '2.0866"');
    await field('Crank end float, most (mm)', '10 thou');
    await me.checkAccess('sheet form');
    await me.press('Keep the sheet');
    await me.see('52.984–53.000 mm');
    await me.see('≤ 10.00 thou');
    await me.press('Open a case with it');
    await me.see('limits from Quay four, version 1 (Data plate)');
    await me.type('input[placeholder^="Winch"]', 'From the sheet');
    await me.press('Open case');
    await me.see('The complaint');
    const id = /case\/([0-9a-f-]{36})/.exec(me.page.url())![1]!;
    expect((await entries(id)).map((e) => e.kind)).toEqual(expect.arrayContaining(['spec-set', 'limits-set']));
    expect(me.barriers).toEqual([]);
  });
});
