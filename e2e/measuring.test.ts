import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { engineTemplate } from '@true-ledger/core/engine';
import { ROOT } from '../server/test/database.js';

import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const FOUR = engineTemplate('inline-4-petrol')!.layout;
const EXAMPLES = join(ROOT, 'docs/formats/examples/finish');

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.press('Surface finish');
  await me.see('No trace yet');
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

/** Hands a file to one of the two openings. */
async function give(which: 0 | 1, path: string): Promise<void> {
  const inputs = await me.page.$$('input[type=file]');
  await (inputs[which] as ElementHandle<HTMLInputElement>).uploadFile(path);
}
function written(name: string, text: string): string {
  const path = join(me.downloads, name);
  writeFileSync(path, text);
  return path;
}

it('shows a trace against one below ring travel, by another cut-off as well, and saves the figures', async () => {
  await give(0, join(EXAMPLES, 'ring-travel.csv'));
  await me.see('a plateau that still holds oil');
  await give(1, join(EXAMPLES, 'below-travel.csv'));
  await me.see('Against the unworn reference: peaks 8 %');
  await me.page.waitForFunction(() => document.querySelectorAll('.js-plotly-plot .trace').length >= 7);
  await me.choose('[aria-label="Cut-off"]', '0.25 mm');
  await me.see('cut-off 0.25 mm');
  await me.choose('[aria-label="Cut-off"]', '0.8 mm');
  await me.see('cut-off 0.8 mm');
  const saved = JSON.parse(readFileSync(await me.download('Save figures', 'finish.json'), 'utf8')) as Record<string, number>;
  expect(saved).toMatchObject({ format: 'true-ledger/finish', cutoffMm: 0.8 });
  expect((await me.text()).includes(`${saved['Rvk']!.toFixed(3)} µm`)).toBe(true);
  await me.checkAccess('surface finish');
  await me.press('Take away below-travel.csv');
  await me.page.waitForFunction(() => !document.body.innerText.includes('Against the unworn'));
});

it('takes a semicolon locale with a byte-order mark', async () => {
  const text = readFileSync(join(EXAMPLES, 'ring-travel.csv'), 'utf8').replaceAll(',', ';').replaceAll('.', ',');
  await give(0, written('locale.csv', `\uFEFF${text}`));
  await me.see('locale.csv');
  await me.see('a plateau that still holds oil');
});

it.each([
  ['a trace too short for the cut-off', 'short.csv', (rows: string[]) => rows.slice(0, 900), 'mm long; a cut-off of 0.8 mm needs'],
  ['a trace with a gap', 'gap.csv', (rows: string[]) => [...rows.slice(0, 2000), ...rows.slice(2100)], 'A gap is not bridged'],
  ['words for figures', 'words.csv', (rows: string[]) => [...rows.slice(0, 80), 'sand,paper'], 'not two figures'],
  ['a file of something else', 'empty.csv', () => ['hello'], 'a trace needs at least 50'],
])('tells %s and keeps the screen', async (_what, name, change, words) => {
  const rows = readFileSync(join(EXAMPLES, 'ring-travel.csv'), 'utf8').trim().split('\n');
  await give(0, written(name, change(rows).join('\n')));
  await me.see(words);
  expect(await me.text()).not.toContain('Rpk');
  await give(0, join(EXAMPLES, 'ring-travel.csv'));
  await me.see('Rpk');
});

it('tells that a gauge is overdue before a reading rests on it, and on the readings it took', async () => {
  const caseId = crypto.randomUUID();
  const gauge = {
    id: 'old',
    name: 'Old micrometer',
    kind: 'outside-micrometer',
    resolutionMm: 0.01,
    expandedUncertaintyMm: 0.006,
    repeatabilityMm: 0.004,
  };
  const statuses = await me.page.evaluate(
    async (bodies: ReadonlyArray<readonly [string, string, string]>) =>
      Promise.all(
        bodies.map(
          async ([method, path, body]) => (await fetch(path, { method, headers: { 'content-type': 'application/json' }, body })).status,
        ),
      ),
    [
      ['PUT', '/api/gauges', JSON.stringify({ ...gauge, checkedOn: '2025-03-18' })],
      ['POST', '/api/cases', JSON.stringify({ id: caseId, title: 'Gauge', reference: '', layout: FOUR })],
    ] as const,
  );
  expect(statuses).toEqual([200, 201]);
  await me.page.goto(`${shop.url}/case/${caseId}/measure/crank.pin.1`);
  await me.see('Old micrometer was last checked on 2025-03-18');
  await me.page.keyboard.type('47.98');
  await me.page.keyboard.press('Enter');
  await me.see('Largest');
  await me.saved();
  await me.page.reload();
  await me.see('Largest');
  await me.see('Old micrometer was last checked on 2025-03-18');
});

it('met no error, no foreign request, no barrier', () => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
  expect(me.barriers).toEqual([]);
});
