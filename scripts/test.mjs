// Sets up what is missing and runs everything: lint, types, core, server on a real PostgreSQL, browser. Last line: `N passed, N failed`.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { Cluster } from './database.mjs';
import { build, has, installPackages, needPackages, ROOT, say, sentenceOf } from './lib.mjs';

let passed = 0;
let failed = 0;

function step(name, command, args) {
  const from = Date.now();
  const done = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: process.env });
  const ok = done.status === 0;
  if (ok) passed++;
  else failed++;
  say(`${ok ? 'ok' : 'FAILED'}  ${name} (${Math.round((Date.now() - from) / 1000)} s)`);
  return ok;
}

/** Runs one Jest project and adds its counts; a project that runs no test has failed. */
function tests(project, args = []) {
  const report = join(ROOT, '.data', `jest-${project}.json`);
  rmSync(report, { force: true });
  const from = Date.now();
  const done = spawnSync('npx', ['jest', '--selectProjects', project, '--json', `--outputFile=${report}`, '--reporters=default', ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: process.env,
  });
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const broken = result ? result.numRuntimeErrorTestSuites : 1;
  passed += result?.numPassedTests ?? 0;
  failed += (result?.numFailedTests ?? 0) + broken;
  if (!result || result.numTotalTests === 0 || (done.status !== 0 && (result.numFailedTests ?? 0) + broken === 0)) failed++;
  say(
    `${done.status === 0 ? 'ok' : 'FAILED'}  ${project} tests: ${result?.numPassedTests ?? 0} of ${result?.numTotalTests ?? 0} (${Math.round((Date.now() - from) / 1000)} s)`,
  );
}

let cluster = null;
try {
  await installPackages({ whole: true });
  needPackages({
    openssl: () => has('openssl'),
    'poppler-utils': () => has('pdftotext'),
    chromium: () => existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium'),
  });
  await build();
  cluster = new Cluster(join(ROOT, '.data', 'test'));
  await cluster.start();
  cluster.dropLeftovers('t_');
  process.env.TEST_CLUSTER_URL = cluster.url('postgres');
  step('eslint', 'npx', ['eslint', '.']);
  step('prettier', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  step('import directions', 'npx', [
    'depcruise',
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'err',
    'core/src',
    'contract/src',
    'server/src',
    'web/src',
    'cli/src',
  ]);
  step('types of core, server and command line', 'npx', ['tsc', '-b', 'core', 'contract', 'server', 'cli']);
  step('types of the pages', 'npx', ['tsc', '-p', 'web', '--noEmit']);
  step('types of the tests', 'npx', ['tsc', '-p', 'tsconfig.tests.json', '--noEmit']);
  tests('core');
  tests('server', ['--maxWorkers=2', '--forceExit']);
  tests('browser', ['--runInBand', '--forceExit']);
} catch (error) {
  failed++;
  console.error(sentenceOf(error));
} finally {
  cluster?.stop();
}
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
