import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { FOUR } from '../server/test/harness.js';
import { FIXTURES, openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const caseId = crypto.randomUUID();
const truth = JSON.parse(readFileSync(join(FIXTURES, 'turning-journal.json'), 'utf8')) as {
  width: number;
  height: number;
  corners: [number, number][];
};
const entries = (): Promise<Array<{ kind: string; body: Record<string, unknown> }>> =>
  me.page.evaluate(async (id: string) => (await fetch(`/api/cases/${id}/entries`)).json() as never, caseId);

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.page.evaluate(
    (body: string) => fetch('/api/cases', { method: 'POST', headers: { 'content-type': 'application/json' }, body }),
    JSON.stringify({ id: caseId, title: 'Film', reference: '', layout: FOUR }),
  );
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

/** Drags the four handles of the first frame to where the part lies. */
async function placeCorners({ corners, width, height }: Pick<typeof truth, 'corners' | 'width' | 'height'>): Promise<void> {
  for (const [k, name] of ['left, front edge', 'left, rear edge', 'right, rear edge', 'right, front edge'].entries()) {
    const circle = (await me.page.$(`.film-panel circle[aria-label="Corner ${name}"]`))!;
    await circle.evaluate((c) => c.scrollIntoView({ block: 'center' }));
    const box = (await circle.boundingBox())!;
    const image = (await (await me.page.$('.film-panel .photo img'))!.boundingBox())!;
    const [x, y] = corners[k]!;
    await me.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await me.page.mouse.down();
    await me.page.mouse.move(image.x + (x * image.width) / width, image.y + (y * image.height) / height, { steps: 4 });
    await me.page.mouse.up();
  }
}

it('makes the surface all round of a journal from a film of it being turned', async () => {
  await me.page.goto(`${shop.url}/case/${caseId}/station/crank.pin.2`);
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(join(FIXTURES, 'turning-journal.webm'));
  await me.press('Read the film');
  await me.see('This is its first frame');
  await placeCorners(truth);
  await me.page.click('.film-panel .ant-btn-primary');
  await me.see('following the turn');
  await me.page.waitForSelector('.made-surface', { timeout: 240_000 });
  expect(await me.text()).toMatch(/The turn closed [\d.]+° off and was made to meet/);
  await me.press('Keep this surface');
  await me.see('Read with confidence');
  await me.saved();
  const all = await entries();
  expect(all.find((e) => e.kind === 'photo-added')!.body).toMatchObject({ shot: 'made from a film', mime: 'image/png' });
  expect(all.find((e) => e.kind === 'corners-set')!.body).toMatchObject({ facingDeg: 180, arcDeg: 360 });
  const read = all.find((e) => e.kind === 'surface-read')!.body as { seen: number[]; shares: Record<string, number[]> };
  expect(read.seen.filter((v) => v > 50).length).toBeGreaterThan(0.9 * read.seen.length);
  expect(Math.max(...read.shares['heat']!)).toBeGreaterThan(50);
  await me.checkAccess('film unrolled');
});

it('takes the glare out of a film in which a lamp is led over a shell, and reads it', async () => {
  const led = JSON.parse(readFileSync(join(FIXTURES, 'led-lamp.json'), 'utf8')) as Pick<typeof truth, 'corners' | 'width' | 'height'>;
  await me.page.goto(`${shop.url}/case/${caseId}/station/rod.1.shell.upper`);
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(join(FIXTURES, 'led-lamp.webm'));
  await me.press('Read the film');
  await me.see('Part and phone should stay');
  await placeCorners(led);
  await me.page.click('.film-panel .ant-btn-primary');
  await me.page.waitForSelector('.made-surface', { timeout: 240_000 });
  expect(await me.text()).toMatch(/\d+ % of the face seen without glare, from \d+ frames/);
  await me.press('Keep this surface');
  await me.see('Read with confidence');
  await me.saved();
  const here = (await entries()).filter((e) => (e as { station?: string }).station === 'rod.1.shell.upper');
  expect(here.find((e) => e.kind === 'photo-added')!.body).toMatchObject({ shot: 'made from a film', mime: 'image/png' });
  const read = here.find((e) => e.kind === 'surface-read')!.body as { shares: Record<string, number[]> };
  const lining = read.shares['lining']!;
  expect(lining.reduce((a, b) => a + b, 0) / lining.length).toBeGreaterThan(12);
  await me.checkAccess('film of a led lamp');
});

it('stacks the wall of a bore from a film of a borescope drawn out of it, and reads it', async () => {
  await me.page.goto(`${shop.url}/case/${caseId}/station/bore.2`);
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(join(FIXTURES, 'drawn-scope.webm'));
  await me.press('Read the film');
  await me.see('The scope should look along the bore');
  // By keyboard alone from here: the arc at the top, then the button.
  await me.page.focus('input[aria-label="Arc at the top of this frame"]');
  await me.page.keyboard.press('End');
  await me.page.keyboard.press('Backspace');
  await me.page.keyboard.type('270');
  for (let k = 0; k < 3; k++) await me.page.keyboard.press('Tab');
  await me.page.keyboard.press('Enter');
  await me.see('following the scope');
  await me.page.waitForSelector('.made-surface', { timeout: 240_000 });
  expect(await me.text()).toMatch(/\d+ mm of the wall, \d+ % of it seen/);
  expect(await me.text()).toMatch(/not seen to end where the scope came out/);
  await me.press('Keep this surface');
  await me.see('Read with confidence');
  await me.saved();
  const here = (await entries()).filter((e) => (e as { station?: string }).station === 'bore.2');
  expect(here.find((e) => e.kind === 'photo-added')!.body).toMatchObject({ shot: 'made from a film', mime: 'image/png' });
  expect(here.find((e) => e.kind === 'corners-set')!.body).toMatchObject({ facingDeg: 180, arcDeg: 360 });
  const read = here.find((e) => e.kind === 'surface-read')!.body as { columns: number; shares: Record<string, number[]> };
  const scuffed = read.shares['scuffed']!;
  const byArc = Array.from({ length: read.columns }, (_, c) => scuffed.reduce((sum, v, i) => sum + (i % read.columns === c ? v : 0), 0));
  const most = byArc.indexOf(Math.max(...byArc)) * (360 / read.columns);
  expect(most).toBeGreaterThan(75);
  expect(most).toBeLessThan(125);
  await me.checkAccess('bore stacked');
});
