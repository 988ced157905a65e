import { spawnSync } from 'node:child_process';
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const ROOT = join(__dirname, '../..');
const places: { folder: string; clone: string }[] = [];

/** A clone's scripts in a folder that only its owner may look into, with a space in its name. */
function closedClone(): string {
  const folder = mkdtempSync(join(tmpdir(), 'tl closed-'));
  chmodSync(folder, 0o700);
  const clone = join(folder, 'a clone');
  mkdirSync(clone, { mode: 0o700 });
  cpSync(join(ROOT, 'scripts'), join(clone, 'scripts'), { recursive: true });
  cpSync(join(ROOT, 'package.json'), join(clone, 'package.json'));
  symlinkSync(join(ROOT, 'node_modules'), join(clone, 'node_modules'));
  places.push({ folder, clone });
  return clone;
}

function node(clone: string, code: string): string {
  const script = `import { Cluster } from ${JSON.stringify(pathToFileURL(join(clone, 'scripts/database.mjs')).href)};\nconst cluster = new Cluster();\n${code}`;
  const done = spawnSync('node', ['--input-type=module', '-e', script], { cwd: clone, encoding: 'utf8', timeout: 50_000 });
  if (done.status !== 0) throw new Error(done.stderr);
  return done.stdout.trim();
}

const startAndAsk = "await cluster.start(); cluster.ensureDatabase('kept'); console.log(cluster.sql('SELECT 40 + 2', 'kept'));";

afterAll(() => {
  for (const { folder, clone } of places) {
    const cluster = node(clone, "cluster.stop('immediate'); console.log(cluster.folder);");
    if (cluster.startsWith('/var/lib/true-ledger-')) rmSync(join(cluster, '..'), { recursive: true });
    rmSync(folder, { recursive: true });
  }
});

describe('the database of a clone', () => {
  it('starts where only the owner of the folder may look, and a second clone beside it has its own', () => {
    const first = closedClone();
    const second = closedClone();
    expect(node(first, startAndAsk)).toBe('42');
    expect(node(second, startAndAsk)).toBe('42');
    const address = 'console.log(cluster.url());';
    expect(node(first, address)).not.toBe(node(second, address));
  });

  it('starts with its data after a crash, also where the number in the lock left behind is another program now', () => {
    const clone = closedClone();
    node(clone, `${startAndAsk} cluster.sql('CREATE TABLE held AS SELECT 7 AS figure', 'kept');`);
    const folder = node(clone, 'console.log(cluster.folder);');
    const lock = join(folder, 'postmaster.pid');
    const held = readFileSync(lock, 'utf8');
    node(clone, "cluster.stop('immediate');");
    writeFileSync(lock, held.replace(/^\d+/, String(process.pid)));
    expect(node(clone, 'console.log(cluster.status());')).toBe('false');
    expect(node(clone, "await cluster.start(); console.log(cluster.sql('SELECT figure FROM held', 'kept'));")).toBe('7');
  });

  it('is made anew where its secret is gone while the old one still runs', () => {
    const clone = closedClone();
    node(clone, startAndAsk);
    rmSync(join(clone, '.data'), { recursive: true });
    expect(node(clone, startAndAsk)).toBe('42');
  });
});
