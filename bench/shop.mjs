import { randomBytes } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Cluster } from '../scripts/database.mjs';
import { freePort, ROOT, startUntil } from '../scripts/lib.mjs';

/** An empty shop with a signed-in owner, for a benchmark: the server as it runs, on a database of its own. `stop` ends it and drops the database. */
export async function benchShop() {
  const cluster = new Cluster(join(ROOT, '.data', 'bench'));
  await cluster.start();
  const name = `b_${randomBytes(4).toString('hex')}`;
  cluster.ensureDatabase(name);
  const port = await freePort();
  const { child, output } = await startUntil('READY', 'node', ['server/dist/main.js'], {
    env: { ...process.env, DATABASE_URL: cluster.url(name), PORT: String(port), TL_KEYS: mkdtempSync(join(tmpdir(), 'tl-bench-keys-')) },
  });
  const base = `http://127.0.0.1:${port}`;
  const claim = /CLAIM \S+#([0-9a-f]{64})/.exec(output)[1];
  const me = await fetch(`${base}/api/claim`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ token: claim, name: 'Bench', signIn: 'bench', password: 'a-long-enough-password' }),
  });
  const cookie = me.headers.get('set-cookie').split(';')[0];
  return {
    base,
    cookie,
    databaseUrl: cluster.url(name),
    pid: child.pid,
    async post(path, body) {
      const form = body instanceof FormData;
      const answer = await fetch(`${base}${path}`, {
        method: 'POST',
        headers: { Cookie: cookie, ...(form ? {} : { 'Content-Type': 'application/json' }) },
        body: form ? body : JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(await answer.text());
    },
    async stop() {
      child.kill('SIGTERM');
      await new Promise((r) => child.once('exit', r));
      cluster.dropDatabase(name);
      cluster.stop();
    },
  };
}

/** A page of a browser signed in to the shop, 1280 × 800, that counts its long tasks in `window.longTasks` (ms each). */
export async function watchedPage(browser, { cookie }) {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const [name, value] = cookie.split('=');
  await browser.setCookie({ name, value, domain: '127.0.0.1', path: '/' });
  await page.evaluateOnNewDocument(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => window.longTasks.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
  });
  return page;
}
