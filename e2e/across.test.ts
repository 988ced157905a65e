import type { Browser } from 'puppeteer-core';
import { draft, FOUR } from '../server/test/harness.js';
import { openBrowser, Person, Shop } from './harness.js';

jest.setTimeout(300_000);
let shop: Shop;
let browser: Browser;
let me: Person;
const cases = [crypto.randomUUID(), crypto.randomUUID()];

beforeAll(async () => {
  // The stand-in of the laboratory answers at once.
  process.env['TL_LABORATORY_SECONDS'] = '0';
  shop = await Shop.open();
  browser = await openBrowser();
  me = await Person.owner(browser, shop);
  for (const [i, id] of cases.entries()) {
    await me.post('/api/cases', { id, title: `Launch, strip ${i + 1}`, reference: '', layout: FOUR });
    await me.post(`/api/cases/${id}/entries`, {
      entries: [
        draft('grade-confirmed', 'rod.2.shell.upper', { grade: 3, proposed: null, reason: '', book: '1' }),
        draft('cause-decided', null, { cause: 'oil-low', decision: 'confirmed', reason: 'ran dry' }),
      ],
    });
  }
}, 240_000);
afterAll(async () => {
  delete process.env['TL_LABORATORY_SECONDS'];
  await browser?.close();
  await shop?.stop();
});
afterEach(() => {
  expect(me.errors).toEqual([]);
  expect(me.foreign).toEqual([]);
  expect(me.barriers).toEqual([]);
});

const field = (label: string): string => `[aria-label="${label}"]`;
/** Sets a field that holds something already. */
async function put(label: string, text: string): Promise<void> {
  const box = await me.page.waitForSelector(field(label));
  await box!.click({ count: 3 });
  await box!.type(text);
}

let log = '';
describe('an engine over its years', () => {
  it('has a log that says at once that its level rises', async () => {
    await me.page.goto(`${shop.url}/oil`);
    await me.see('No engine has a log yet');
    await me.checkAccess('oil, empty');
    await me.press('New engine');
    await me.page.waitForSelector('.ant-modal .fields input');
    // From here on by keys alone: the hand is in the first field.
    await me.page.keyboard.type('E-LAUNCH');
    await me.page.keyboard.press('Tab');
    await me.page.keyboard.type('Launch, four cylinders');
    await me.page.keyboard.press('Enter');
    await me.see('Nothing yet: the log is empty');
    log = me.page.url();
    await put('Level: 0 lower mark, 1 upper', '1');
    await put('Counter', '100');
    await me.page.keyboard.press('Enter');
    await me.see('1 stand, 1 were written');
    await put('Level: 0 lower mark, 1 upper', '1,6');
    await put('Counter', '130');
    await me.page.keyboard.press('Enter');
    await me.see('The level is rising: 0.9 l more');
    await me.checkAccess('a log');
  });

  it('catches the result that is another’s', async () => {
    const id = log.split('/').at(-1)!;
    const oil = { Ca: 3100, Mg: 40, Mo: 5, Zn: 1150, P: 1000, B: 60, visc100: 14.1, Fe: 20, Cu: 5 };
    const line = (kind: string, day: string, counter: number | null, body: object) => ({
      id: crypto.randomUUID(),
      kind,
      day,
      counter,
      supersedes: null,
      body,
    });
    const runs = [1, 2, 3].flatMap((k) => [
      line('oil-change', `2025-0${k}-01`, 200 * k, { litres: 8, oil: 'Quay 10W-40', filter: true }),
      line('sample', `2025-0${k}-20`, 200 * k + 190, { reference: `OLD-${k}`, drawn: 'tube', laboratory: '' }),
      line('result', `2025-0${k}-28`, null, {
        reference: `OLD-${k}`,
        reported: `2025-0${k}-28`,
        laboratory: '',
        figures: oil,
        insisted: false,
      }),
    ]);
    expect(
      await me.post(`/api/engines/${id}/lines`, {
        lines: [...runs, line('oil-change', '2025-05-01', 800, { litres: 8, oil: 'Quay 10W-40', filter: true })],
      }),
    ).toBe(201);
    await me.page.reload();
    await me.choose(field('What'), 'Sample drawn');
    await put('Counter', '990');
    await me.choose(field('Drawn from'), 'tube');
    await me.press('Write the line');
    await me.see('Send to the stand-in');
    await me.choose(field('What the laboratory does'), 'swaps the reference');
    await me.press('Send to the stand-in');
    await me.press('Ask the laboratory for 1');
    await me.see('is held back');
    await me.see('and no other oil was filled in');
    await me.press('Take it back');
    await me.see('no result yet');
  });

  it('speaks in the strip of its engine, beside what it was last time', async () => {
    for (const [i, id] of cases.entries()) {
      await me.page.goto(`${shop.url}/case/${id}/intake`);
      await me.choose(field('This engine is'), 'E-LAUNCH Launch, four cylinders');
      await me.see('Take the log into the case');
      if (i === 1) await me.see('Stripped before:');
    }
    await me.press('Take the log into the case');
    await me.saved();
    await me.see('The log is in the case');
    await me.page.goto(`${shop.url}/case/${cases[1]}/cause`);
    await me.see('Causes, most probable first');
    const evidence = (await (await fetchIn(`/api/cases/${cases[1]}/differential`)).text()) ?? '';
    expect(evidence).toContain('Oil log: The level is rising');
  });
});

describe('two strips of it', () => {
  it('lie side by side, and a test is set up by keys alone and held against what was found', async () => {
    await me.page.goto(log);
    await me.press('Strips side by side, tests');
    await me.see('same grade');
    await me.checkAccess('two strips');
    await (await me.find('Set up a test', true)).focus();
    await me.page.keyboard.press('Enter');
    await me.page.waitForSelector('.ant-modal .fields input');
    // The hand is in the name; Enter writes it down, for the whole engine, less damage expected.
    await me.page.waitForFunction(() => document.activeElement?.closest('.ant-modal') !== null);
    await me.checkAccess('a test');
    await me.page.keyboard.type('Oil of another grade');
    await me.page.keyboard.press('Enter');
    await me.page.waitForSelector('.engine-test[data-came]');
    await me.see('Nothing can be said: no place has this figure in both strips.');
    const narrow = await widthAt390();
    expect(narrow).toBeLessThanOrEqual(390);
  });
});

describe('the parts shelf', () => {
  it('is filled by one case and offered to another', async () => {
    const [keeps, wants] = cases;
    await me.page.goto(`${shop.url}/case/${keeps}/decide/parts`);
    await me.press('Keep a part');
    await me.choose(field('Which part'), 'Oil pump gears');
    await me.press('Keep it');
    await me.saved();
    await me.see('Not on the shelf any more');
    await me.post(`/api/cases/${wants}/entries`, {
      entries: [draft('part-wanted', 'pump.gears', { what: 'A pump', state: 'wanted', from: '', shelf: null })],
    });
    for (let k = 0; k < 80; k++) {
      if ((await (await fetchIn('/api/across/parts')).text()).includes('pump.gears"]')) break;
      await new Promise((r) => setTimeout(r, 250));
    }
    await me.page.goto(`${shop.url}/parts`);
    await me.see('A pump');
    await me.checkAccess('the parts shelf');
    expect(await widthAt390()).toBeLessThanOrEqual(390);
    await me.page.goto(`${shop.url}/case/${wants}/decide/parts`);
    await me.press('Take it');
    await me.saved();
    await me.see('Not after all');
    await me.checkAccess('a part taken');
  });
});

/** How wide what is shown is on a phone. */
async function widthAt390(): Promise<number> {
  await me.page.setViewport({ width: 390, height: 800 });
  await me.quiet();
  const width = await me.page.evaluate(() => document.documentElement.scrollWidth);
  await me.page.setViewport({ width: 1280, height: 800 });
  return width;
}

const fetchIn = async (path: string): Promise<{ text: () => Promise<string> }> => {
  const text = await me.page.evaluate(async (p: string) => (await fetch(p)).text(), path);
  return { text: () => Promise.resolve(text) };
};

describe('what became of it', () => {
  it('is written down, counted, moves the priors of the next case, and can be switched off', async () => {
    await me.page.goto(`${shop.url}/case/${cases[0]}/document`);
    await me.see('What became of it');
    await me.choose(field('It'), 'the cause was disproved');
    await me.choose(field('Told by'), 'later strip');
    await me.choose(field('It was instead'), 'Oil surge in turns, on slopes or heeled');
    await me.press('Write it down');
    await me.saved();
    await me.see('it was oil surge');
    await me.page.goto(`${shop.url}/across`);
    for (let k = 0; k < 60; k++) {
      const text = await (await fetchIn('/api/across')).text();
      if (text.includes('"proven":1')) break;
      await new Promise((r) => setTimeout(r, 250));
    }
    await me.page.reload();
    await me.see('0 of 1');
    await me.checkAccess('across cases');
    const next = async (title: string): Promise<string[]> => {
      const id = crypto.randomUUID();
      await me.post('/api/cases', { id, title, reference: '', layout: FOUR });
      await me.page.goto(`${shop.url}/case/${id}/cause`);
      await me.see('Begins with');
      return (await me.entries(id)).map((e) => e.kind);
    };
    expect(await next('The next one')).toContain('priors-taken');
    await me.see('Begins with the shop’s own frequencies: 1 proven case');
    await me.press('The table alone');
    await me.see('Begins with the table alone');
    await me.page.goto(`${shop.url}/across`);
    await (await me.page.waitForSelector(field('Own frequencies as priors')))!.click();
    await me.page.waitForSelector(`${field('Own frequencies as priors')}[aria-checked=false]`);
    expect(await next('And one more')).not.toContain('priors-taken');
    await me.page.goto(`${shop.url}/across`);
    await me.type(field('Find in all cases'), 'launch rod');
    await me.see('2 cases');
  });
});

describe('a drill', () => {
  it('is asked, answered by a key and told, and what was answered is there after a reload', async () => {
    await me.page.goto(`${shop.url}/practice`);
    await me.see('What is it?');
    await me.page.waitForSelector('.specimen-canvas:not([data-shown=""])');
    await me.page.waitForSelector('.drill-options button:not([disabled])');
    await me.checkAccess('a drill');
    await me.page.keyboard.press('1');
    await me.page.waitForFunction(() => /Right\.|No: /.test(document.querySelector('.drill [role=status]')?.textContent ?? ''));
    await me.see('1 answered today');
    await me.checkAccess('an answered drill');
    await me.page.keyboard.press('Enter');
    await me.page.waitForFunction(() => document.querySelector('.drill [role=status]') === null);
    await me.page.reload();
    await me.see('1 answered today');
    await me.see('1 of 1', 5000).catch(() => me.see('0 of 1'));
  });
});
