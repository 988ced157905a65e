import { createHash, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { engineTemplate, stationsOf } from '@true-ledger/core/engine';
import { surfaceMaps, takeShell, USUAL_SHOT } from '@true-ledger/core/specimen';
import { FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
// The engine unrolled: real surfaces, one scale, one zoom, by wheel and by keys, wide and narrow.
const PLACE = 'rod.2.shell.upper';
const [four, eight] = [randomUUID(), randomUUID()];
let shop: Shop;
let browser: Browser;
let me: Person;

interface View {
  readonly k: number;
  readonly boxes: Record<string, { x: number; y: number; width: number; height: number }>;
  readonly field: { x: number; y: number; width: number; height: number };
}
const view = (): Promise<View> =>
  me.page.evaluate(() => {
    const box = (e: Element): { x: number; y: number; width: number; height: number } => {
      const { x, y, width, height } = e.getBoundingClientRect();
      return { x, y, width, height };
    };
    const cells = [...document.querySelectorAll<HTMLElement>('[data-station]')];
    return {
      k: Number(/scale\(([\d.]+)\)/.exec(document.querySelector<HTMLElement>('.bench-places')!.style.transform)![1]),
      boxes: Object.fromEntries(cells.map((c) => [c.dataset['station']!, box(c)])),
      field: box(document.querySelector('.bench-field')!),
    };
  });
const frame = (): Promise<void> =>
  me.page.evaluate(() => new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done()))));
const open = async (id: string): Promise<void> => {
  await me.page.goto(`${shop.url}/case/${id}/bench`);
  await me.page.waitForSelector('.bench-cell.here');
  await frame();
};
/** Mean of red over blue in the middle of a place as it is drawn. */
const warmth = (id: string): Promise<number> =>
  me.page.evaluate((station: string) => {
    const canvas = document.querySelector<HTMLCanvasElement>('.bench-field canvas')!;
    const at = document.querySelector(`[data-station="${station}"]`)!.getBoundingClientRect();
    const from = canvas.getBoundingClientRect();
    const [x, y] = [at.x - from.x + at.width * 0.46, at.y - from.y + at.height * 0.4];
    const { data } = canvas.getContext('2d')!.getImageData(x, y, Math.max(1, at.width * 0.08), Math.max(1, at.height * 0.2));
    let [red, blue] = [0, 0];
    for (let i = 0; i < data.length; i += 4) [red, blue] = [red + data[i]!, blue + data[i + 2]!];
    return red / Math.max(1, blue);
  }, id);

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  const vee = engineTemplate('vee-8-petrol')!.layout;
  expect(await me.post('/api/cases', { id: four, title: 'Unrolled', reference: '', layout: FOUR })).toBe(201);
  expect(await me.post('/api/cases', { id: eight, title: 'Two banks', reference: '', layout: vee })).toBe(201);
  const surface = stationsOf(FOUR).find((s) => s.id === PLACE)!.surface!;
  const specimen = {
    seed: 3,
    radiusMm: surface.widthMm / Math.PI,
    widthMm: surface.heightMm,
    damages: [{ kind: 'wipe', arc: 90, halfDeg: 40, amount: 1.2 }] as const,
  };
  const taken = takeShell(specimen, surfaceMaps(specimen), { ...USUAL_SHOT, width: 1000, height: 750 });
  const path = join(me.downloads, 'wiped.jpg');
  await sharp(Buffer.from(taken.pixels.data.buffer), { raw: { width: 1000, height: 750, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toFile(path);
  await me.page.goto(`${shop.url}/case/${four}/station/${PLACE}`);
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
  await me.page.waitForSelector('.photo img');
  await me.saved();
  const sha256 = createHash('sha256').update(readFileSync(path)).digest('hex');
  const entry = { id: randomUUID(), kind: 'corners-set', station: PLACE, basedOn: null, body: { sha256, corners: taken.corners } };
  expect(await me.post(`/api/cases/${four}/entries`, { entries: [entry] })).toBe(201);
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

it('shows the whole of an inline four without scrolling, the photographed surface in its cell', async () => {
  await open(four);
  const { boxes, field } = await view();
  for (const [id, b] of Object.entries(boxes))
    expect([
      id,
      b.x >= field.x,
      b.y >= field.y,
      b.x + b.width <= field.x + field.width + 1,
      b.y + b.height <= field.y + field.height + 1,
    ]).toEqual([id, true, true, true, true]);
  const scrolls = await me.page.evaluate(
    () => document.documentElement.scrollHeight > innerHeight || document.documentElement.scrollWidth > innerWidth,
  );
  expect(scrolls).toBe(false);
  await me.page.waitForFunction(() => performance.getEntriesByType('resource').some((e) => e.name.includes('/surfaces/')));
  await expect(
    (async () => {
      for (let k = 0; k < 100; k++) {
        if ((await warmth('rod.2.shell.upper')) > 1.25) return 'copper';
        await new Promise((r) => setTimeout(r, 200));
      }
      return 'grey';
    })(),
  ).resolves.toBe('copper');
  await me.checkAccess('bench unrolled');
});

it('zooms by wheel about the pointer, by keys to one surface, and back to the whole', async () => {
  const whole = await view();
  const at = whole.boxes[PLACE]!;
  await me.page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  for (let k = 0; k < 6; k++) await me.page.mouse.wheel({ deltaY: -240 });
  await frame();
  const near = await view();
  expect(near.k).toBeGreaterThan(2 * whole.k);
  const now = near.boxes[PLACE]!;
  expect(Math.abs(now.x + now.width / 2 - at.x - at.width / 2)).toBeLessThan(3);
  await me.page.keyboard.press('w');
  await frame();
  expect((await view()).k).toBeCloseTo(whole.k, 5);
  await me.page.evaluate((id: string) => document.querySelector<HTMLElement>(`[data-station="${id}"]`)!.click(), PLACE);
  await me.page.keyboard.press('z');
  await frame();
  const alone = await view();
  expect(alone.boxes[PLACE]!.width).toBeGreaterThan(0.7 * alone.field.width);
  // Arrows bring the next surface into view at the same scale.
  await me.page.keyboard.press('ArrowRight');
  await frame();
  const next = await view();
  expect(next.k).toBeCloseTo(alone.k, 5);
  const beside = next.boxes['rod.3.shell.upper']!;
  expect(beside.x).toBeGreaterThanOrEqual(next.field.x - 1);
  await me.page.keyboard.press('Escape');
  await frame();
  expect((await view()).k).toBeCloseTo(whole.k, 5);
});

it('a drag moves the bench and opens nothing; a press goes there, a second one opens it', async () => {
  await me.page.keyboard.press('+');
  await frame();
  const before = await view();
  const at = before.boxes['piston.3.crown']!;
  await me.page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await me.page.mouse.down();
  await me.page.mouse.move(at.x + at.width / 2 - 60, at.y + at.height / 2 - 30, { steps: 5 });
  await me.page.mouse.up();
  await frame();
  const moved = (await view()).boxes['piston.3.crown']!;
  expect(Math.abs(moved.x - at.x)).toBeGreaterThan(20);
  expect(me.page.url()).toContain('/bench');
  // The library of the zoom takes the press that ends a drag for none.
  await new Promise((r) => setTimeout(r, 300));
  const middle = [moved.x + moved.width / 2, moved.y + moved.height / 2] as const;
  await me.page.mouse.click(...middle);
  await me.page.waitForSelector('[data-station="piston.3.crown"].here');
});

it('lays chosen surfaces side by side, and the rear edges of all shells one below the other', async () => {
  await open(four);
  await me.page.evaluate((id: string) => document.querySelector<HTMLElement>(`[data-station="${id}"]`)!.click(), PLACE);
  await me.page.keyboard.press('x');
  await me.page.keyboard.press('ArrowRight');
  await me.page.keyboard.press('x');
  await me.see('2 side by side');
  await me.page.keyboard.press('=');
  await me.page.waitForFunction(() => location.pathname.includes('/compare/rod.2.shell.upper,rod.3.shell.upper'));
  await me.page.waitForSelector('.compared canvas[data-shows=picture]');
  await open(four);
  await me.page.keyboard.press('a');
  await me.page.keyboard.press('e');
  await me.page.waitForFunction(() => document.querySelectorAll('.compare-grid.edges .compared').length === 8);
  await me.checkAccess('edges side by side');
});

it('a V lies with a bank on either side of its crank, both in view', async () => {
  await open(eight);
  const { boxes, field } = await view();
  const crank = boxes['crank.main.1']!;
  const bores = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => boxes[`bore.${n}`]!);
  expect(bores.filter((b) => b.y < crank.y)).toHaveLength(4);
  for (const b of bores) expect(b.y >= field.y && b.y + b.height <= field.y + field.height).toBe(true);
});

it('fits a phone, one cylinder at a time, and twice the size of the letters', async () => {
  await me.page.setViewport({ width: 390, height: 844, hasTouch: true, isMobile: true });
  await open(four);
  const { boxes, field } = await view();
  expect(boxes['bore.1']!.width).toBeGreaterThan(0.5 * field.width);
  expect(await me.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await me.page.setViewport({ width: 640, height: 400, deviceScaleFactor: 2 });
  await open(four);
  expect(await me.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640);
  await me.page.setViewport({ width: 1280, height: 800 });
});

it('passes the accessibility rules', () => expect(me.barriers).toEqual([]));
