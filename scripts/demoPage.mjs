import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { ROOT } from './lib.mjs';

/** Opens a browser at the running application with demo data, not signed in; runs the work with its page and a way to sign in as the owner, and closes it. */
export async function withDemoPage(port, viewport, work) {
  const base = `http://127.0.0.1:${port}`;
  const owner = JSON.parse(readFileSync(join(ROOT, '.data', 'demo-accounts.json'), 'utf8')).find((a) => a.role === 'owner');
  const profile = mkdtempSync(join(tmpdir(), 'tl-demo-'));
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    userDataDir: profile,
    args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update'].concat([
      '--disable-sync',
      '--disable-gpu',
      '--enable-unsafe-swiftshader',
      '--lang=en',
    ]),
  });
  try {
    const page = await browser.newPage();
    await page.setViewport(viewport);
    await page.goto(base);
    const signIn = () =>
      page.evaluate(
        async (body) => {
          await fetch('/api/sign-in', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
          return (await fetch('/api/cases')).json();
        },
        { signIn: owner.signIn, password: owner.password },
      );
    await work(page, base, signIn);
  } finally {
    await browser.close();
    rmSync(profile, { recursive: true, force: true });
  }
}
