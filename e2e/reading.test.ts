import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { surfaceMaps, takeShell, USUAL_SHOT, type ShellSpecimen } from '@true-ledger/core/specimen';
import { FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const caseId = crypto.randomUUID();

/** A picture of a half shell of the case's engine, as a file. */
async function picture(name: string): Promise<string> {
  const specimen: ShellSpecimen = {
    seed: 21,
    radiusMm: 25,
    widthMm: 20,
    damages: [{ kind: 'edge', edge: 'rear', depth: 0.32, fromDeg: 35, toDeg: 150 }],
  };
  const shot = takeShell(specimen, surfaceMaps(specimen, 960, 320), USUAL_SHOT);
  const path = join(me.downloads, name);
  await sharp(Buffer.from(shot.pixels.data.buffer), { raw: { width: 960, height: 720, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toFile(path);
  return path;
}
async function give(path: string): Promise<void> {
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
  await me.page.waitForSelector('.photo img');
}
const open = (station: string): Promise<unknown> => me.page.goto(`${shop.url}/case/${caseId}/station/${station}`);
const entries = (): Promise<Array<{ kind: string; station: string; body: Record<string, unknown> }>> =>
  me.page.evaluate(async (id: string) => (await fetch(`/api/cases/${id}/entries`)).json() as never, caseId);

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.page.evaluate(
    (body: string) => fetch('/api/cases', { method: 'POST', headers: { 'content-type': 'application/json' }, body }),
    JSON.stringify({ id: caseId, title: 'Read', reference: '', layout: FOUR }),
  );
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

it('goes from a file to a confirmed grade in three actions, the last by key', async () => {
  await open('rod.2.shell.upper');
  await give(await picture('upper.jpg'));
  await me.press('Read the picture');
  await me.see('Read with confidence');
  await me.see('The corners were found without help');
  await me.see('lining exposed on');
  await me.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await me.page.keyboard.press('3');
  await me.see('Confirmed by Mara');
  await me.saved();
  const kinds = (await entries()).filter((e) => e.station === 'rod.2.shell.upper').map((e) => e.kind);
  expect(kinds).toEqual(['photo-added', 'corners-set', 'surface-read', 'grade-confirmed']);
  const read = (await entries()).find((e) => e.kind === 'surface-read')!.body as { confidence: number; shares: Record<string, number[]> };
  expect(read.confidence).toBeGreaterThan(0.35);
  expect(read.shares['lining']!.length).toBe(432);
  await me.checkAccess('station read');
});

it('takes a brush of "sound" over what was read wrongly, and u brings it back', async () => {
  const proposal = (): Promise<string> => me.page.$eval('.proposal', (e) => (e as HTMLElement).innerText);
  const before = await proposal();
  await me.page.keyboard.press('d');
  await me.press('Sound');
  const box = (await (await me.page.waitForSelector('.draw-surface'))!.boundingBox())!;
  await me.page.mouse.move(box.x + 60, box.y + 12);
  await me.page.mouse.down();
  for (let x = 60; x < box.width - 40; x += 30) await me.page.mouse.move(box.x + x, box.y + 12);
  await me.page.mouse.up();
  await me.page.waitForFunction((b: string) => document.querySelector<HTMLElement>('.proposal')!.innerText !== b, {}, before);
  await me.page.keyboard.press('u');
  await me.page.waitForFunction((b: string) => document.querySelector<HTMLElement>('.proposal')!.innerText === b, {}, before);
});

it('is stopped when asked, and nothing is recorded of it', async () => {
  await open('rod.3.shell.upper');
  await give(await picture('third.jpg'));
  await me.press('Read the picture');
  await me.press('Stop');
  await me.page.waitForFunction(() => !document.body.innerText.includes('Stop'));
  await me.saved();
  expect((await entries()).some((e) => e.kind === 'surface-read' && e.station === 'rod.3.shell.upper')).toBe(false);
});

it('says that a picture of nothing holds no half shell, and proposes no grade', async () => {
  await open('rod.4.shell.upper');
  const path = join(me.downloads, 'nothing.png');
  writeFileSync(
    path,
    await sharp({ create: { width: 640, height: 480, channels: 3, background: '#777777' } })
      .png()
      .toBuffer(),
  );
  await give(path);
  await me.press('Read the picture');
  await me.see('No half shell was found in the picture. Mark its four corners');
  expect(await me.text()).not.toContain('Proposed:');
});

it('met no error, no foreign request, no barrier', () => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
  expect(me.barriers).toEqual([]);
});
