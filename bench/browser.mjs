// Figures of the page itself: a real Chromium on the built application, a case with 300 pictures of 4 MB. Run by `npm run bench`.
import { randomBytes, randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import sharp from 'sharp';
import * as core from '@true-ledger/core';
import { Cluster } from '../scripts/database.mjs';
import { freePort, ROOT, startUntil } from '../scripts/lib.mjs';

const PICTURES = 300;
const cluster = new Cluster(join(ROOT, '.data', 'bench'));
await cluster.start();
const name = `b_${randomBytes(4).toString('hex')}`;
cluster.ensureDatabase(name);
const port = await freePort();
const { child, output } = await startUntil('READY', 'node', ['server/dist/main.js'], {
  env: { ...process.env, DATABASE_URL: cluster.url(name), PORT: String(port) },
});
const base = `http://127.0.0.1:${port}`;
const profile = mkdtempSync(join(tmpdir(), 'tl-bench-'));
const browser = await puppeteer.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  userDataDir: profile,
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-gpu',
    '--enable-unsafe-swiftshader',
  ],
});
try {
  const claim = /CLAIM \S+#([0-9a-f]{64})/.exec(output)[1];
  const me = await fetch(`${base}/api/claim`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ token: claim, name: 'Bench', signIn: 'bench', password: 'a-long-enough-password' }),
  });
  const cookie = me.headers.get('set-cookie').split(';')[0];
  const id = randomUUID();
  const { layout } = core.engineTemplate('inline-4-petrol');
  await fetch(`${base}/api/cases`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: cookie },
    body: JSON.stringify({ id, title: 'Bench', reference: '', layout }),
  });
  const stations = core.stationsOf(layout);
  // One noisy picture of about 4 MB; a comment of its own makes each file another.
  const noisy = await sharp({
    create: { width: 2400, height: 1800, channels: 3, background: '#888888', noise: { type: 'gaussian', mean: 128, sigma: 40 } },
  })
    .jpeg({ quality: 90 })
    .toBuffer();
  const comment = (k) => {
    const text = Buffer.from(`picture ${k}`);
    return Buffer.concat([noisy.subarray(0, 2), Buffer.from([0xff, 0xfe, 0, text.length + 2]), text, noisy.subarray(2)]);
  };
  const from = performance.now();
  for (let k = 0; k < PICTURES; k++) {
    const form = new FormData();
    form.set('entryId', randomUUID());
    form.set('station', stations[k % stations.length].id);
    form.set('file', new Blob([comment(k)], { type: 'image/jpeg' }), `p${k}.jpg`);
    const answer = await fetch(`${base}/api/cases/${id}/photos`, { method: 'POST', headers: { Cookie: cookie }, body: form });
    if (!answer.ok) throw new Error(await answer.text());
  }
  console.log(
    JSON.stringify({
      figure: `picture stored with its renditions, ${(noisy.length / 1e6).toFixed(1)} MB, one after the other`,
      unit: 'ms',
      mean: Number(((performance.now() - from) / PICTURES).toFixed(1)),
    }),
  );
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await browser.setCookie({ name: cookie.split('=')[0], value: cookie.split('=')[1], domain: '127.0.0.1', path: '/' });
  await page.evaluateOnNewDocument(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => window.longTasks.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
  });
  await page.goto(`${base}/case/${id}/pictures`);
  await page.waitForSelector('.picture-cell img');
  await page.waitForNetworkIdle({ idleTime: 800 });
  const scrolled = await page.evaluate(async () => {
    window.longTasks.length = 0;
    const wall = document.querySelector('.picture-wall');
    const gaps = [];
    let last = performance.now();
    for (let k = 0; k < 180; k++) {
      wall.scrollTop += 70;
      await new Promise((r) => requestAnimationFrame(r));
      const now = performance.now();
      gaps.push(now - last);
      last = now;
    }
    gaps.sort((a, b) => a - b);
    return {
      tasks: window.longTasks,
      median: gaps[90],
      p95: gaps[171],
      cells: document.querySelectorAll('.picture-cell').length,
      bottom: wall.scrollTop,
    };
  });
  const worst = Math.max(0, ...scrolled.tasks);
  console.log(
    JSON.stringify({
      figure: `scrolling the wall of ${PICTURES} pictures: longest task in the page`,
      unit: 'ms',
      value: Number(worst.toFixed(1)),
      limit: 50,
      framesMedian: Number(scrolled.median.toFixed(1)),
      framesP95: Number(scrolled.p95.toFixed(1)),
      cellsDrawn: scrolled.cells,
    }),
  );
} finally {
  await browser.close();
  child.kill('SIGTERM');
  await new Promise((r) => child.once('exit', r));
  cluster.dropDatabase(name);
  cluster.stop();
  rmSync(profile, { recursive: true, force: true });
}
