// Takes a picture of every main view of the running application (npm start, demo data) at 1280 × 800.
// node scripts/screenshots.mjs [--port 4310] [--out docs/screenshots] [--width 1280] [name …]
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { withDemoPage } from './demoPage.mjs';
import { ROOT } from './lib.mjs';

const { values, positionals } = parseArgs({
  options: {
    port: { type: 'string', default: '4310' },
    out: { type: 'string', default: join(ROOT, 'docs', 'screenshots') },
    width: { type: 'string', default: '1280' },
    height: { type: 'string', default: '800' },
  },
  allowPositionals: true,
});

const FIRE_PUMP = '2026-D01';
/** Name, path (`:case` is the fire-pump case), what must be there before the picture is taken, size, only when asked for, button pressed first. */
const SHOTS = [
  ['shelf', '/', '.case-card'],
  ['new-case', '/new', '.plan-box svg', null, true],
  ['patterns', '/patterns?pattern=wiping', '.pattern-record'],
  ['oil', '/oil/:oil', '.log-charts .js-plotly-plot .trace'],
  ['across', '/across', '.share-bars'],
  ['studio', '/studio?pattern=wiping&severity=2', '.specimen-canvas[data-shown^="wiping"]'],
  [
    'compare',
    '/case/:case/compare/rod.2.shell.upper,rod.2.shell.lower,rod.1.shell.upper,rod.3.shell.upper',
    '.compared:nth-child(4) canvas[data-shows=picture]',
  ],
  ['grade-book', '/grade-book', '.ant-table-row', null, true],
  ['second-opinion', '/case/:case/second-opinion', '.second-opinion h2', null, true],
  ['set-up', '/set-up', '.page h1', null, true],
  ['intake', '/case/:case/intake', '.intake-grid'],
  ['before-opening', '/case/:case/opening/turning', '.check-drawing'],
  ['strip', '/case/:case/strip/main-cap-2', '.fasteners'],
  ['bench', '/case/:case/bench', '.bench-cell.here'],
  ['station', '/case/:case/station/rod.2.shell.upper', '.surface-pane h2 button'],
  ['measure', '/case/:case/measure/crank.pin.2', '.js-plotly-plot .trace'],
  ['bore', '/case/:case/measure/bore.3~bore', '.js-plotly-plot .hm', null, true],
  ['whole-engine', '/case/:case/measure/all', '.reading-whole', null, true],
  ['gauges', '/gauges/micrometer-50-75', '.gauge-face', null, true],
  ['main-clearance', '/case/:case/measure/main.2.shell.lower~shell-clearance', '.js-plotly-plot .trace', null, true],
  ['deck', '/case/:case/measure/gasket.head~deck.1', '.js-plotly-plot .contour', null, true],
  ['cam', '/case/:case/measure/engine~cam.1', '.js-plotly-plot .trace', null, true],
  ['ring', '/case/:case/measure/rings.1.pack~ring.top', '.result-table', null, true],
  ['bore-round', '/case/:case/measure/bore.3~bore', '.js-plotly-plot .hm', null, true, 'In the round'],
  ['journal-round', '/case/:case/measure/crank.pin.2', '.js-plotly-plot .trace', null, true, 'Round'],
  ['loads', '/case/:case/loads', '.loads .js-plotly-plot .trace'],
  ['cause', '/case/:case/cause', '.ranked li'],
  ['sequence', '/case/:case/cause/sequence', '.event-box'],
  ['pair', '/case/:case/cause/pair', '.pair-table', null, true],
  ['answers', '/case/:case/cause/answers', '.answers', null, true],
  ['policy', '/policy', '.policy-list h2', null, true],
  ['parts', '/case/:case/decide/parts', '.disposition-table', null, true],
  ['routes', '/case/:case/decide/routes', '.js-plotly-plot .trace'],
  ['assembly', '/case/:case/decide/assembly/rod-cap-2', '.proof-row'],
  ['schedule', '/case/:case/decide/schedule', '.gantt-bar', null, true],
  ['document', '/case/:case/document', '.report h2'],
  ['capture', '/capture/:case?station=rod.2.shell.upper', '.shutters', { width: 390, height: 844 }],
  ['dipstick', '/case/:case/opening/dipstick', '.check-drawing', null, true],
  ['pictures', '/case/:case/pictures', '.picture-cell', null, true],
  ['sheets', '/sheets', '.page h1', null, true],
  ['ledger', '/case/:case/ledger', '.ant-table-row', null, true],
];

mkdirSync(values.out, { recursive: true });
await withDemoPage(values.port, { width: Number(values.width), height: Number(values.height) }, async (page, base, signIn) => {
  if (positionals.includes('sign-in')) {
    await page.waitForSelector('#password');
    await page.screenshot({ path: join(values.out, 'sign-in.png') });
  }
  const cases = await signIn();
  const engines = await page.evaluate(async () => (await fetch('/api/engines')).json());
  const oil = engines.find((e) => e.record.mark === 'E-03')?.id ?? '';
  const shown = cases.find((c) => c.number === FIRE_PUMP) ?? cases[0];
  for (const [name, path, ready, viewport, extra, pressed] of SHOTS) {
    // What is marked extra is only taken when asked for by name.
    if (positionals.length > 0 ? !positionals.includes(name) : extra) continue;
    await page.setViewport(viewport ?? { width: Number(values.width), height: Number(values.height) });
    await page.goto(base + path.replace(':case', shown.id).replace(':oil', oil));
    await page.waitForSelector(ready, { timeout: 20_000 });
    if (pressed) {
      await page.locator(`::-p-text(${pressed})`).click();
      await page.waitForSelector('.js-plotly-plot :is(.trace, .polar, canvas)', { timeout: 20_000 });
    }
    await page.waitForNetworkIdle({ idleTime: 400, concurrency: 1, timeout: 8000 }).catch(() => undefined);
    await page.screenshot({ path: join(values.out, `${name}.png`) });
    console.log(name);
  }
});
