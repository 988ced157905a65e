// Sets up what is missing and runs everything: lint, types, core, server on a real PostgreSQL, browser. Last line: `N passed, N failed`.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Cluster } from './database.mjs';
import { build, has, installPackages, needPackages, ROOT, say, sentenceOf } from './lib.mjs';

const SOURCES = ['core/src', 'contract/src', 'server/src', 'web/src', 'cli/src'];
let passed = 0;
let failed = 0;

/** Runs checks two at a time, each with what it printed when it failed. */
async function checks(list) {
  const left = [...list];
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) {
      const [name, command, args] = next;
      const from = Date.now();
      const words = await new Promise((done) => {
        const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], env: process.env });
        let heard = '';
        const hear = (data) => (heard += data.toString());
        child.stdout.on('data', hear);
        child.stderr.on('data', hear);
        child.once('error', (error) => done(error.message));
        child.once('close', (code) => done(code === 0 ? null : heard));
      });
      if (words === null) passed++;
      else failed++;
      say(`${words === null ? 'ok' : `${words}\nFAILED`}  ${name} (${Math.round((Date.now() - from) / 1000)} s)`);
    }
  };
  await Promise.all([lane(), lane()]);
}

/** Where the files of each Jest project lie. */
const PROJECTS = { browser: /\/e2e\//, server: /\/server\/test\//, pages: /\.test\.tsx$/, core: /./ };

/** Runs all Jest projects at once and adds their counts; a project that runs no test has failed. */
function tests() {
  const report = join(ROOT, '.data', 'jest.json');
  rmSync(report, { force: true });
  const from = Date.now();
  const args = ['--json', `--outputFile=${report}`, '--reporters=default', `--maxWorkers=${WORKERS}`, '--forceExit'];
  const done = spawnSync('npx', ['jest', ...args], { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'], env: process.env });
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const broken = result ? result.numRuntimeErrorTestSuites : 1;
  passed += result?.numPassedTests ?? 0;
  failed += (result?.numFailedTests ?? 0) + broken;
  if (done.status !== 0 && (result?.numFailedTests ?? 0) + broken === 0) failed++;
  const left = [...(result?.testResults ?? [])];
  for (const [project, lies] of Object.entries(PROJECTS)) {
    const own = left.filter((file) => lies.test(file.name));
    for (const file of own) left.splice(left.indexOf(file), 1);
    const results = own.flatMap((file) => file.assertionResults);
    const good = results.filter((r) => r.status === 'passed').length;
    if (results.length === 0) failed++;
    const seconds = Math.round(own.reduce((sum, file) => sum + file.endTime - file.startTime, 0) / 1000);
    say(`${good === results.length && good > 0 ? 'ok' : 'FAILED'}  ${project} tests: ${good} of ${results.length} (${seconds} s of work)`);
  }
  say(`${done.status === 0 ? 'ok' : 'FAILED'}  all tests (${Math.round((Date.now() - from) / 1000)} s)`);
}

/** Test files at a time. More than there are processors gain nothing: what one waits for, another has to share (three on two took as long as two). */
const WORKERS = Math.max(2, availableParallelism());

/** Debian's Chromium without a window where this Debian has it, else the whole browser. */
function browser() {
  try {
    needPackages({ 'chromium-headless-shell': () => existsSync(SHELL) });
    return SHELL;
  } catch {
    needPackages({ chromium: () => existsSync(WHOLE) });
    return WHOLE;
  }
}

const SHELL = '/usr/bin/chromium-headless-shell';
const WHOLE = '/usr/bin/chromium';

let cluster = null;
try {
  await installPackages({ whole: true });
  needPackages({
    ffmpeg: () => has('ffmpeg') && has('ffprobe'),
    openssl: () => has('openssl'),
    'poppler-utils': () => has('pdftotext'),
  });
  process.env.CHROMIUM ??= browser();
  await build();
  cluster = new Cluster(join(ROOT, '.data', 'test'));
  await cluster.start();
  cluster.dropLeftovers('t_');
  process.env.TEST_CLUSTER_URL = cluster.url('postgres');
  await checks([
    ['types of core, server and command line', 'npx', ['tsc', '-b', 'core', 'contract', 'server', 'cli']],
    ['prettier', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['types of the pages', 'npx', ['tsc', '-p', 'web', '--noEmit']],
    ['types of the tests', 'npx', ['tsc', '-p', 'tsconfig.tests.json', '--noEmit']],
    ['eslint', 'npx', ['eslint', '.']],
    ['styles beside what they style', 'node', ['scripts/checkStyles.mjs']],
    ['exports and files nobody uses', 'npx', ['knip', '--include', 'exports,types,files', '--no-config-hints']],
    ['import directions', 'npx', ['depcruise', '--config', '.dependency-cruiser.cjs', '--output-type', 'err', ...SOURCES]],
    ['what follows from one definition', 'node', ['scripts/derive.mjs', '--check']],
  ]);
  tests();
} catch (error) {
  failed++;
  console.error(sentenceOf(error));
} finally {
  cluster?.stop();
}
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
