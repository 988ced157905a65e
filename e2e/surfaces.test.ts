import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import type { Pixels, Point } from '@true-ledger/core/photo';
import { surfaceMaps, takeRound, takeShell, USUAL_SHOT, type Damage } from '@true-ledger/core/specimen';
import { FOUR, PASSWORD } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
let other: Person;
const caseId = crypto.randomUUID();
const base = (): string => `${shop.url}/case/${caseId}`;

async function file(name: string, { width, height, data }: Pixels): Promise<string> {
  const path = join(me.downloads, name);
  await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toFile(path);
  return path;
}
function shell(seed: number, damages: readonly Damage[]): Pixels {
  const specimen = { seed, radiusMm: 25, widthMm: 20, damages };
  return takeShell(specimen, surfaceMaps(specimen, 720, 240), { ...USUAL_SHOT, seed, width: 800, height: 600 }).pixels;
}
async function give(station: string, path: string): Promise<void> {
  await me.page.goto(`${base()}/station/${station}`);
  const input = (await me.page.waitForSelector('#add-pictures')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
  await me.page.waitForSelector('.photo img');
  await me.saved();
}
const entries = (): Promise<Array<{ kind: string; station: string | null; author: { name: string }; body: Record<string, never> }>> =>
  me.page.evaluate(async (id: string) => (await fetch(`/api/cases/${id}/entries`)).json() as never, caseId);
const WIPED: Damage[] = [{ kind: 'wipe', arc: 95, halfDeg: 30, amount: 0.95 }];

beforeAll(async () => {
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  await me.page.evaluate(
    (body: string) => fetch('/api/cases', { method: 'POST', headers: { 'content-type': 'application/json' }, body }),
    JSON.stringify({ id: caseId, title: 'Surfaces', reference: '', layout: FOUR }),
  );
}, 240_000);
afterAll(async () => {
  await browser?.close();
  await shop?.stop();
});

it('reads all pictures of a case on the server while one does something else', async () => {
  await give('rod.1.shell.upper', await file('one.jpg', shell(3, WIPED)));
  await give('rod.2.shell.upper', await file('two.jpg', shell(5, WIPED)));
  await give('rod.3.shell.upper', await file('three.jpg', shell(7, [])));
  await me.page.goto(`${base()}/pictures`);
  await me.press('Read the pictures');
  await me.see('of 3 read on the server');
  await me.page.goto(`${base()}/ledger`);
  await me.page.goto(`${base()}/pictures`);
  await me.see('by Mara: 3 read');
  expect((await entries()).filter((e) => e.kind === 'surface-read')).toHaveLength(3);
  // A second time there is nothing to do, and it says so.
  await me.press('Read the pictures');
  await me.see('No picture waits to be read');
  await me.checkAccess('pictures');
});

it('finds what looks alike, and puts it side by side under one cursor', async () => {
  await me.page.goto(`${base()}/compare/rod.1.shell.upper`);
  await me.see('Looks like it in this engine');
  const alike = await me.page.$$eval('.alike li', (l) => l.map((e) => e.textContent));
  expect(alike[0]).toMatch(/Rod 2 upper shell.*% alike/);
  await me.page.click('.alike li button');
  await me.page.waitForFunction(() => document.querySelectorAll('.compared canvas[data-shows=picture]').length === 2);
  const canvas = (await me.page.$('.compared canvas'))!;
  await canvas.focus();
  await me.page.keyboard.press('ArrowRight');
  const words = await me.page.$$eval('.cursor-words', (l) => l.map((e) => e.textContent));
  expect(words[0]).toMatch(/95° *, 10\.0 mm from the front edge|9\d°, 10\.\d mm from the front edge/);
  expect(words[0]!.split(':')[0]).toBe(words[1]!.split(':')[0]);
  expect(words[0]).toContain('lining exposed');
  await me.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await me.page.keyboard.press('Space');
  await me.page.waitForFunction(() => document.querySelectorAll('.compared canvas[data-shows=map]').length === 2);
  await me.checkAccess('side by side');
  await me.page.keyboard.press('Escape');
  await me.page.waitForFunction(() => location.pathname.endsWith('/station/rod.1.shell.upper'));
});

it('draws on the picture what appears on the developed surface, under one cursor', async () => {
  await me.page.goto(`${base()}/station/rod.1.shell.upper`);
  await me.see('px/° in the middle');
  await me.press('Draw on it');
  const box = (await (await me.page.waitForSelector('.photo img'))!.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await me.page.mouse.move(x, y);
  await me.page.waitForSelector('.cursor-on-picture');
  await me.page.mouse.down();
  await me.page.mouse.move(x + 25, y, { steps: 5 });
  await me.page.mouse.up();
  await me.page.waitForSelector('.mark-on-picture');
  await me.saved();
  const mark = (await entries()).find((e) => e.kind === 'mark-made' && e.station === 'rod.1.shell.upper')!.body as unknown as {
    mark: { points: Array<[number, number]> };
  };
  const [first, last] = [mark.mark.points[0]!, mark.mark.points.at(-1)!];
  // The middle of the picture is near the middle of the face; to the right is onward along the arc.
  expect(Math.abs(first[0] - 0.5)).toBeLessThan(0.1);
  expect(Math.abs(first[1] - 0.5)).toBeLessThan(0.35);
  expect(last[0] - first[0]).toBeGreaterThan(0.01);
  await me.page.keyboard.press('u');
  await me.page.waitForFunction(() => !document.querySelector('.mark-on-picture'));
});

it('reads a journal from its four corners onto the half turn that faced the camera', async () => {
  const specimen = {
    seed: 7,
    radiusMm: 25,
    widthMm: 22,
    spanDeg: 360,
    finish: 'ground-steel' as const,
    damages: [0.3, 0.65].map((axial): Damage => ({ kind: 'score', axial, fromDeg: 0, toDeg: 360, widthMm: 0.45, through: false })),
  };
  const shot = { ...USUAL_SHOT, width: 900, height: 675, fill: 0.42, rollDeg: 0, tiltDeg: 3, tiltTowardsDeg: 90 };
  const taken = takeRound(specimen, surfaceMaps(specimen, 1440, 240), shot, 'journal', 180);
  await give('crank.pin.1', await file('pin.jpg', taken.pixels));
  // It would be looked for; here its corners are placed.
  await me.see('Read the picture');
  await me.press('Place four corners');
  await me.see('Where the sides of the journal meet its two fillets');
  const handle = async (name: string, to: Point): Promise<void> => {
    const circle = (await me.page.$(`circle[aria-label="Corner ${name}"]`))!;
    const box = (await circle.boundingBox())!;
    const image = (await (await me.page.$('.corner-editor img'))!.boundingBox())!;
    await me.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await me.page.mouse.down();
    await me.page.mouse.move(image.x + (to[0] * image.width) / 900, image.y + (to[1] * image.height) / 675, { steps: 4 });
    await me.page.mouse.up();
  };
  for (const [k, name] of ['left, front edge', 'left, rear edge', 'right, rear edge', 'right, front edge'].entries())
    await handle(name, taken.corners[k]!);
  await me.press('Flatten');
  await me.see('px/° in the middle');
  await me.press('Read the picture');
  await me.see('Read with confidence');
  await me.saved();
  const read = (await entries()).find((e) => e.kind === 'surface-read' && e.station === 'crank.pin.1')!.body as unknown as {
    lines: Array<{ axial: number; fromDeg: number; toDeg: number }>;
    seen: number[];
    columns: number;
  };
  expect(read.lines.map((l) => l.axial).sort()).toEqual([expect.closeTo(0.3, 1), expect.closeTo(0.65, 1)]);
  for (const l of read.lines) {
    expect(l.fromDeg).toBeGreaterThan(85);
    expect(l.toDeg).toBeLessThan(275);
  }
  expect(read.seen[0]).toBe(0);
  expect(read.seen[Math.floor(read.columns / 2)]).toBeGreaterThan(95);
  await me.see('lines felt with a probe');
});

it('keeps a part as it should be, and offers it beside others of its kind', async () => {
  await me.page.goto(`${base()}/station/rod.3.shell.upper`);
  await me.press('Keep as reference part');
  await me.page.type('input[aria-label="Name"]', 'New rod shell');
  await me.press('Keep it');
  await me.see('kept as “New rod shell”');
  await me.page.goto(`${base()}/compare/rod.1.shell.upper`);
  await me.page.waitForSelector('input[aria-label="Put another beside it"]');
  await me.page.click('input[aria-label="Put another beside it"]');
  await me.page.type('input[aria-label="Put another beside it"]', 'New rod');
  await me.page.keyboard.press('Enter');
  await me.page.waitForFunction(() => document.querySelectorAll('.compared canvas[data-shows=picture]').length === 2);
  await me.see('New rod shell');
});

it('takes a second opinion from another builder, who does not see the first', async () => {
  await me.page.goto(`${base()}/station/rod.1.shell.upper`);
  await me.see('Proposed: lining exposed');
  await me.page.keyboard.press('3');
  await me.see('Confirmed by');
  await me.saved();
  await me.page.goto(`${base()}/second-opinion`);
  await me.see('You gave every grade of this case yourself');
  await me.page.evaluate(
    (body: string) => fetch('/api/accounts', { method: 'POST', headers: { 'content-type': 'application/json' }, body }),
    JSON.stringify({ name: 'Teo', signIn: 'teo', password: PASSWORD, role: 'builder' }),
  );
  other = await Person.arrive(browser, shop);
  await other.signIn('teo');
  await other.page.goto(`${base()}/second-opinion`);
  await other.press('Rod 1 upper shell');
  await other.see('graded blind');
  expect(await other.text()).not.toMatch(/Proposed|Confirmed|3 Through, lining/);
  await other.page.bringToFront();
  await other.press('2 Worn');
  await other.see('0 of 1 the same, 1 within one grade');
  await other.saved();
  const given = (await entries()).find((e) => e.kind === 'second-opinion')!;
  expect(given.author.name).not.toBe((await entries()).find((e) => e.kind === 'grade-confirmed')!.author.name);
  await other.checkAccess('second opinion');
  await me.page.bringToFront();
});

it('keeps an edit of the grade book as a version, refuses contradictions, and a case takes it over by hand', async () => {
  await me.page.goto(`${shop.url}/grade-book`);
  const cell = 'input[aria-label="lining exposed, percent of the face, grade 3 above"]';
  const put = async (value: string): Promise<void> => {
    await me.page.waitForSelector(cell);
    await me.page.click(cell, { count: 3 });
    await me.page.keyboard.type(value);
    await me.page.keyboard.press('Tab');
  };
  await put('70');
  await me.see('A higher grade needs a higher threshold');
  await put('40');
  await me.page.waitForFunction(() => !document.querySelector('.grade-book .fault'));
  await me.page.type('input[aria-label="Why it is changed"]', 'Workboats run on');
  await me.press('Keep as a new version');
  await me.see('shop 1');
  await me.checkAccess('grade book');
  await me.page.goto(`${base()}/station/rod.2.shell.upper`);
  await me.see('→ 3 Through');
  await me.press('Go by “shop 1” in this case');
  await me.see('→ 2 Worn');
  await me.see('Grade book shop 1');
});

it('turns a specimen in hand and saves it with what is true of it', async () => {
  await me.page.goto(`${shop.url}/patterns?pattern=wiping`);
  await me.page.waitForSelector('.reference-pictures img');
  await me.page.click('a[aria-label="Wiping from too little oil, clear: rendered specimen, turn it in hand"]');
  await me.page.waitForSelector('.specimen-canvas[data-shown^="wiping 2"]');
  const colours = (): Promise<number> =>
    me.page.$eval('.specimen-canvas', (c) => {
      const copy = document.createElement('canvas');
      copy.width = copy.height = 40;
      const ink = copy.getContext('2d')!;
      ink.drawImage(c as HTMLCanvasElement, 0, 0, 40, 40);
      return [...ink.getImageData(0, 0, 40, 40).data].reduce((s, v, i) => s + v * ((i % 7) + 1), 0);
    });
  await me.page.waitForFunction(() => true);
  const before = await colours();
  await me.page.focus('.specimen-canvas');
  for (let k = 0; k < 4; k++) await me.page.keyboard.press('ArrowLeft');
  await me.page.waitForFunction(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(true)))));
  expect(await colours()).not.toBe(before);
  const saved = JSON.parse(readFileSync(await me.download('Save what is true', 'wiping-2.json'), 'utf8')) as {
    format: string;
    shares: Record<string, number[][]>;
  };
  expect(saved.format).toBe('true-ledger/specimen');
  expect(saved.shares['lining']).toHaveLength(36);
  await me.checkAccess('studio');
});

it('met no error, no foreign request, no barrier', () => {
  for (const person of [me, other]) {
    expect(person.errors).toEqual([]);
    expect(person.foreign).toEqual([]);
    expect(person.barriers).toEqual([]);
  }
});
