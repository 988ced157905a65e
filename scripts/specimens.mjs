// Renders the reference pictures of the catalogue with the specimen studio of the running application (npm start): every pattern at three severities, kept small in web/public/reference.
// node scripts/specimens.mjs [--port 4310] [--out web/public/reference] [pattern …]
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { RECIPES, SEVERITIES } from '@true-ledger/core/specimen';
import { withDemoPage } from './demoPage.mjs';
import { ROOT } from './lib.mjs';

const { values, positionals } = parseArgs({
  options: { port: { type: 'string', default: '4310' }, out: { type: 'string', default: join(ROOT, 'web', 'public', 'reference') } },
  allowPositionals: true,
});
mkdirSync(values.out, { recursive: true });
await withDemoPage(values.port, { width: 760, height: 460 }, async (page, base, signIn) => {
  await signIn();
  // What the page hands out as a file is taken from it before it is gone.
  await page.evaluateOnNewDocument(() => {
    const make = URL.createObjectURL;
    URL.createObjectURL = (blob) => {
      if (blob.type === 'image/jpeg') blob.arrayBuffer().then((b) => (globalThis.saved = Array.from(new Uint8Array(b))));
      return make.call(URL, blob);
    };
  });
  await page.goto(`${base}/studio?size=640`);
  await page.waitForSelector('.specimen-canvas');
  const wanted = RECIPES.filter((r) => positionals.length === 0 || positionals.includes(r.pattern));
  for (const recipe of wanted)
    for (const severity of SEVERITIES) {
      // Without fetching the page anew.
      await page.evaluate((to) => {
        window.history.pushState(null, '', to);
        window.dispatchEvent(new window.PopStateEvent('popstate'));
      }, `/studio?pattern=${recipe.pattern}&severity=${severity}&size=640`);
      await page.waitForSelector(`.specimen-canvas[data-shown^="${recipe.pattern} ${severity} "]`, { timeout: 60_000 });
      await page.evaluate(() => {
        globalThis.saved = null;
        [...document.querySelectorAll('button')].find((b) => b.textContent === 'Save picture').click();
      });
      const bytes = await page.waitForFunction(() => globalThis.saved, { timeout: 60_000 }).then((h) => h.jsonValue());
      const small = await sharp(Buffer.from(bytes)).resize(400, 300).webp({ quality: 62 }).toBuffer();
      writeFileSync(join(values.out, `${recipe.pattern}-${severity}.webp`), small);
      console.log(`${recipe.pattern}-${severity}.webp ${small.length} bytes`);
    }
});
