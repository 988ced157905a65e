// node scripts/demoBundles.mjs [--missing]: makes the demo cases anew, pictures and all, as bundles in server/demo, which takes some minutes; or only those that are not there yet.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Cluster } from './database.mjs';
import { build, installPackages, ROOT } from './lib.mjs';

await installPackages({ whole: true });
await build();
const cluster = new Cluster(join(ROOT, '.data', 'bench'));
const { startedHere } = await cluster.start();
const name = 'demo_bundles';
const folder = join(ROOT, 'server', 'demo');
const keys = mkdtempSync(join(tmpdir(), 'tl-demo-keys-'));
try {
  cluster.dropDatabase(name);
  cluster.ensureDatabase(name);
  if (!process.argv.includes('--missing')) rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const child = spawn('node', ['server/dist/demo/make.js', folder], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: cluster.url(name), TL_KEYS: keys },
    stdio: 'inherit',
  });
  process.exitCode = await new Promise((done) => child.once('exit', done));
} finally {
  cluster.dropDatabase(name);
  rmSync(keys, { recursive: true, force: true });
  if (startedHere) cluster.stop();
}
