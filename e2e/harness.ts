import type { LedgerEntry } from '@true-ledger/core/ledger';
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { axeFaults } from './axe.js';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';
import { freshDatabase, ROOT } from '../server/test/database.js';

export const PASSWORD = 'a-long-enough-password';
export const FIXTURES = join(ROOT, 'e2e/fixtures');
/** How long a page is waited for, ms: long enough for a busy machine; only what never comes takes it whole. */
export const PATIENCE = 60_000;

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** The built application as a process of its own, on a database of its own; can be killed and started again on the same port. */
export class Shop {
  private child: ChildProcess | null = null;
  claim = '';

  private constructor(
    readonly port: number,
    private readonly databaseUrl: string,
  ) {}

  static async open(): Promise<Shop> {
    const shop = new Shop(await freePort(), await freshDatabase());
    await shop.start();
    return shop;
  }

  /** A shop with demo cases of these numbers and the demo accounts, all with the password of the tests. */
  static async demo(...numbers: string[]): Promise<Shop> {
    const shop = new Shop(await freePort(), await freshDatabase());
    execFileSync('node', ['server/dist/demo/load.js'], {
      cwd: ROOT,
      env: { ...process.env, DATABASE_URL: shop.databaseUrl, TL_DEMO: 'yes', TL_DEMO_ONLY: numbers.join(','), TL_DEMO_PASSWORD: PASSWORD },
    });
    await shop.start();
    return shop;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  start(): Promise<void> {
    return new Promise((resolve, reject) => {
      const child = spawn('node', ['server/dist/main.js'], {
        cwd: ROOT,
        env: { ...process.env, DATABASE_URL: this.databaseUrl, PORT: String(this.port) },
      });
      this.child = child;
      let output = '';
      child.stdout.on('data', (data: Buffer) => {
        output += data.toString();
        this.claim = /CLAIM (\S+)/.exec(output)?.[1] ?? this.claim;
        if (output.includes('READY')) resolve();
      });
      child.stderr.on('data', (data: Buffer) => (output += data.toString()));
      child.once('exit', () => reject(new Error(`the server ended\n${output}`)));
    });
  }

  stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    return new Promise((resolve) => {
      if (!this.child || this.child.exitCode !== null) return resolve();
      this.child.once('exit', () => resolve());
      this.child.kill(signal);
    });
  }
}

/** Debian's Chromium without a window; the whole browser, which draws its own frame too, takes about twice as long. */
const BROWSER = process.env['CHROMIUM'] ?? '/usr/bin/chromium-headless-shell';

export async function openBrowser(): Promise<Browser> {
  return puppeteer.launch({
    executablePath: BROWSER,
    headless: BROWSER.endsWith('shell') ? 'shell' : true,
    userDataDir: mkdtempSync(join(tmpdir(), 'tl-chromium-')),
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-gpu',
      '--enable-unsafe-swiftshader',
      '--lang=en',
    ],
  });
}

/** A person at a browser: a page with its own cookies, watched for errors and for requests that leave the origin. */
export class Person {
  readonly errors: string[] = [];
  readonly foreign: string[] = [];
  /** Accessibility faults found so far, with the screen they were found on. */
  readonly barriers: string[] = [];
  readonly downloads = mkdtempSync(join(tmpdir(), 'tl-downloads-'));

  private constructor(
    readonly page: Page,
    readonly shop: Shop,
  ) {}

  static async arrive(browser: Browser, shop: Shop): Promise<Person> {
    const context = await browser.createBrowserContext({ downloadBehavior: { policy: 'deny' } });
    const page = await context.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    page.setDefaultTimeout(PATIENCE);
    const person = new Person(page, shop);
    page.on('pageerror', (e) => person.errors.push(e instanceof Error ? e.message : String(e)));
    page.on('console', (m) => {
      if (m.type() === 'error' && !m.text().startsWith('Failed to load resource')) person.errors.push(m.text());
    });
    page.on('request', (r) => {
      if (!/^(data|blob|about):/.test(r.url()) && !r.url().startsWith(shop.url)) person.foreign.push(r.url());
    });
    const client = await page.createCDPSession();
    await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: person.downloads, browserContextId: context.id });
    return person;
  }

  /** A person who makes herself the owner of the new shop by its one-time link. */
  static async owner(browser: Browser, shop: Shop): Promise<Person> {
    const person = await Person.arrive(browser, shop);
    await person.page.goto(shop.claim);
    await person.type('#name', 'Mara');
    await person.type('#signIn', 'mara');
    await person.type('#password', PASSWORD);
    await person.press('Make the owner');
    await person.see('No case yet');
    return person;
  }

  async signIn(name: string): Promise<void> {
    await this.page.goto(this.shop.url);
    await this.type('#signIn', name);
    await this.type('#password', PASSWORD);
    await this.press('Sign in');
    await this.see('Shelf');
  }

  async type(selector: string, text: string): Promise<void> {
    const field = await this.page.waitForSelector(selector);
    await field!.click({ count: 3 });
    await field!.type(text);
  }

  /** Waits until the page shows the words. */
  async see(words: string, timeout = PATIENCE): Promise<void> {
    await this.page
      .waitForFunction(
        (w: string) => {
          // What is shown has the page laid out; what is there at all has not, and mostly answers it.
          const bare = (text: string): string => text.replace(/\s/g, '').toLowerCase();
          return bare(document.body.textContent).includes(bare(w)) && document.body.innerText.includes(w);
        },
        { timeout, polling: 100 },
        words,
      )
      .catch(async () => {
        throw new Error(`did not see "${words}" in:\n${(await this.text()).slice(0, 3000)}`);
      });
  }

  /** Waits until the page has fetched nothing for half a second. Asked of the page: requests a navigation gave up are never reported as ended. */
  async quiet(): Promise<void> {
    await this.page.waitForFunction(
      () => {
        const page = window as Window & { seen?: [count: number, since: number] };
        const count = performance.getEntriesByType('resource').length;
        if (page.seen?.[0] !== count) page.seen = [count, performance.now()];
        return performance.now() - page.seen[1] > 500;
      },
      { polling: 50 },
    );
  }

  text(): Promise<string> {
    return this.page.evaluate(() => document.body.innerText);
  }

  /** The visible button, link or label with exactly this text, or this accessible name; `free`: once it can be pressed, neither disabled nor covered nor on the move. */
  async find(name: string, free = false): Promise<ElementHandle<Element>> {
    const handle = await this.page
      .waitForFunction(
        (wanted: string, mustBeFree: boolean) => {
          const isFree = (e: Element): boolean => {
            if ((e as HTMLButtonElement).disabled) return false;
            e.scrollIntoView({ block: 'nearest', inline: 'nearest' });
            const box = e.getBoundingClientRect();
            // What still moves, because a picture above it comes in, would be missed.
            const at = `${box.x},${box.y}`;
            const seen = e as Element & { seenAt?: [place: string, since: number] };
            if (seen.seenAt?.[0] !== at) seen.seenAt = [at, performance.now()];
            if (performance.now() - seen.seenAt[1] < 100) return false;
            const hit = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
            return hit !== null && (e.contains(hit) || hit.contains(e));
          };
          // Shown text has the page laid out, element by element; what is there at all rules out nearly all of them.
          const bare = (text: string): string => text.replace(/\s/g, '').toLowerCase();
          const asked = bare(wanted);
          const found = [
            ...document.querySelectorAll(
              'button, a, label, [role=radio], [role=tab], .ant-segmented-item, .ant-checkbox-wrapper, .ant-radio-wrapper',
            ),
          ].find(
            (e) =>
              (e.getAttribute('aria-label') === wanted ||
                (bare(e.textContent).includes(asked) && (e as HTMLElement).innerText?.trim() === wanted)) &&
              (e as HTMLElement).offsetParent !== null,
          );
          return found && (!mustBeFree || isFree(found)) ? found : null;
        },
        { polling: 50 },
        name,
        free,
      )
      .catch(async () => {
        throw new Error(`no ${free ? 'free ' : ''}control called "${name}" in:\n${(await this.text()).slice(0, 2500)}`);
      });
    return handle.asElement() as ElementHandle<Element>;
  }

  async press(name: string): Promise<void> {
    await (await this.find(name, true)).click();
  }

  /** Picks an option of a drop-down by its label. */
  async choose(selector: string, option: string): Promise<void> {
    const box = await this.page.waitForSelector(selector);
    await box!.click();
    // Long lists draw only what is in view; typing narrows them.
    await this.page.keyboard.type(option.slice(0, 24));
    const item = await this.page.waitForFunction(
      (wanted: string) =>
        [...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')].find(
          (e) => (e as HTMLElement).innerText.trim() === wanted,
        ) ?? null,
      {},
      option,
    );
    await (item.asElement() as ElementHandle<Element>).click();
  }

  async saved(): Promise<void> {
    await this.page.waitForFunction(() => document.querySelector('.save-state')?.getAttribute('data-waiting') === '0');
  }

  download(button: string, ending: string): Promise<string> {
    return this.taken(ending, () => this.press(button));
  }

  /** Path of the file that comes of it. */
  async taken(ending: string, start: () => Promise<void>): Promise<string> {
    await start();
    for (let k = 0; k < 150; k++) {
      const done = readdirSync(this.downloads).filter((f) => f.endsWith(ending));
      const [file] = done;
      if (file) {
        const path = join(this.downloads, file);
        if (readFileSync(path).length > 0) return path;
      }
      await new Promise((r) => setTimeout(r, 200));
    }
    throw new Error(`no file came that ends in ${ending}`);
  }

  /** Sends a body over the API as this person, past the pages; returns the status. */
  post(path: string, body: object): Promise<number> {
    return this.page.evaluate(
      async (p: string, b: string) => (await fetch(p, { method: 'POST', headers: { 'content-type': 'application/json' }, body: b })).status,
      path,
      JSON.stringify(body),
    );
  }

  entries(caseId: string): Promise<LedgerEntry[]> {
    return this.page.evaluate(async (c: string) => (await fetch(`/api/cases/${c}/entries`)).json() as Promise<never>, caseId);
  }

  /** Looks for accessibility faults in what is shown now. */
  async checkAccess(screen: string): Promise<void> {
    for (const fault of await axeFaults(this.page)) this.barriers.push(`${screen}: ${fault}`);
  }
}
