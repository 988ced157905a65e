// One change in a V12 with 300 findings, on the path the application takes: a grade pressed on a page of a real Chromium, the entry folded, the case in
// the compute worker brought up by a delta, the differential back on the page. Run by `npm run bench`.
import { randomUUID } from 'node:crypto';
import puppeteer from 'puppeteer-core';
import { patternsFor } from '@true-ledger/core/damage';
import { engineTemplate, stationsOf } from '@true-ledger/core/engine';
import { benchShop, watchedPage } from './shop.mjs';

const FINDINGS = 300;
const CHANGES = 30;
const shop = await benchShop();
const { base, post } = shop;
const browser = await puppeteer.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--no-first-run', '--disable-background-networking', '--disable-gpu'],
});
try {
  const id = randomUUID();
  const { layout } = engineTemplate('vee-12-petrol');
  await post('/api/cases', { id, title: 'Twelve', reference: '', layout });
  const stations = stationsOf(layout);
  const findings = stations.flatMap((s, k) => [
    { kind: 'grade-confirmed', station: s.id, body: { grade: k % 4, proposed: null, reason: '', book: '1' } },
    ...patternsFor(s.part)
      .slice(k % 3, (k % 3) + 3)
      .map((p) => ({ kind: 'pattern-set', station: s.id, body: { pattern: p.id, present: true } })),
  ]);
  const entries = findings.slice(0, FINDINGS).map((f) => ({ id: randomUUID(), basedOn: null, ...f }));
  for (let from = 0; from < entries.length; from += 100)
    await post(`/api/cases/${id}/entries`, { entries: entries.slice(from, from + 100) });

  const page = await watchedPage(browser, shop);
  await page.evaluateOnNewDocument(() => {
    // Calls of the differential and their answers, as they pass between page and worker.
    window.answered = [];
    const asked = new Set();
    const send = window.Worker.prototype.postMessage;
    window.Worker.prototype.postMessage = function (message, ...rest) {
      if (message?.path?.at(-1) === 'diagnose') asked.add(message.id);
      if (!this.heard) {
        this.heard = true;
        this.addEventListener('message', ({ data }) => asked.delete(data?.id) && window.answered.push(performance.now()));
      }
      return send.call(this, message, ...rest);
    };
  });
  await page.goto(`${base}/case/${id}/station/${stations.at(-1).id}`);
  await page.waitForSelector('.grade-button');
  await page.waitForNetworkIdle({ idleTime: 1000 });
  const { shown, whole, tasks } = await page.evaluate(async (changes) => {
    const sleep = (ms) => new Promise((r) => setTimeout(r, ms));
    window.longTasks.length = 0;
    const shown = [];
    const whole = [];
    for (let k = 0; k < changes; k++) {
      const answers = window.answered.length;
      const from = performance.now();
      document.querySelectorAll('.grade-button')[k % 5].click();
      await new Promise((r) => requestAnimationFrame(() => setTimeout(r)));
      shown.push(performance.now() - from);
      while (window.answered.length === answers) await sleep(1);
      whole.push(window.answered.at(-1) - from);
      await sleep(300);
    }
    return { shown, whole, tasks: window.longTasks };
  }, CHANGES);
  const figure = (name, values, limit) => {
    const sorted = [...values].sort((a, b) => a - b);
    const at = (share) => Number(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))].toFixed(1));
    console.log(JSON.stringify({ figure: name, unit: 'ms', median: at(0.5), p95: at(0.95), max: at(1), ...limit, runs: sorted.length }));
  };
  const what = `one change, V12, ${entries.length} findings`;
  figure(`${what}: press to next frame`, shown, { limit: 50 });
  figure(`${what}: press to the differential back from the worker`, whole, { limit: 500 });
  console.log(JSON.stringify({ figure: `${what}: longest task in the page`, unit: 'ms', value: Math.max(0, ...tasks), limit: 50 }));
} finally {
  await browser.close();
  await shop.stop();
}
