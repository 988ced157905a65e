import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
export const isRoot = process.getuid?.() === 0;

export function say(text) {
  console.log(text);
}

/** What went wrong in one sentence a person can act on; the message as it stands where the cause is another. */
export function sentenceOf(error) {
  const text = error.message;
  if (/ENOSPC|No space left on device|EDQUOT|Disk quota exceeded/i.test(text))
    return `The disk that holds ${ROOT} or the database is full. What was recorded is safe. Free some space and start again; what was begun goes on.`;
  if (/EROFS|Read-only file system/i.test(text)) return `${ROOT} can only be read. Clone it to a folder you may write to and start there.`;
  if (error.code === 'EACCES' || error.code === 'EPERM')
    return `${error.path ?? ROOT} belongs to another user (${error.code}). Start as the user who started it before, or clone into a folder of your own.`;
  return text;
}

/** Runs a command to its end; throws with its last lines when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024, ...options });
  if (done.status !== 0) {
    const tail = `${done.stdout ?? ''}\n${done.stderr ?? ''}`.trim().split('\n').slice(-25).join('\n');
    throw new Error(`${command} ${args.join(' ')} failed${done.error ? `: ${done.error.message}` : ''}\n${tail}`);
  }
  return done.stdout ?? '';
}

export function has(command) {
  return spawnSync('which', [command], { encoding: 'utf8' }).status === 0;
}

/** Installs Debian packages that are missing; needs root, otherwise says what to install. */
export function needPackages(wanted) {
  const missing = Object.entries(wanted)
    .filter(([, present]) => !present())
    .map(([name]) => name);
  if (missing.length === 0) return;
  if (!isRoot || !has('apt-get'))
    throw new Error(
      `These Debian packages are missing: ${missing.join(' ')}. Install them (apt-get install ${missing.join(' ')}) and start again.`,
    );
  say(`Installing ${missing.join(', ')} from Debian …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env });
}

export function postgresFolder() {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).filter((v) => existsSync(join(base, v, 'bin', 'initdb'))) : [];
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest ? join(base, newest, 'bin') : null;
}

function hashFiles(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    const stat = statSync(path, { throwIfNoEntry: false });
    if (!stat) return;
    if (stat.isDirectory()) {
      for (const name of readdirSync(path).sort()) if (!['node_modules', 'dist', '.data'].includes(name)) visit(join(path, name));
    } else hash.update(path.slice(ROOT.length)).update(readFileSync(path));
  };
  for (const path of paths) visit(join(ROOT, path));
  return hash.digest('hex');
}

/** Runs a command beside others; rejects with its last lines when it fails. */
function runBeside(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let words = '';
    const hear = (data) => (words = (words + data.toString()).slice(-20_000));
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('error', fail);
    child.once('exit', (code) =>
      code === 0 ? done() : fail(new Error(`${command} ${args.join(' ')} failed\n${words.trim().split('\n').slice(-25).join('\n')}`)),
    );
  });
}

const stampFileOf = (name) => join(ROOT, 'node_modules', `.stamp-${name}`);

/** Whether what `whenChanged` did under this name still stands. */
function isDone(name, paths, outputs) {
  const stampFile = stampFileOf(name);
  return existsSync(stampFile) && readFileSync(stampFile, 'utf8') === hashFiles(paths) && outputs.every((o) => existsSync(join(ROOT, o)));
}

/** Does `work` unless the files it depends on are unchanged since the last time; stopped half-way, it is done again. */
async function whenChanged(name, paths, outputs, work) {
  if (isDone(name, paths, outputs)) return;
  const stamp = hashFiles(paths);
  const from = Date.now();
  await work();
  say(`  ${name}: ${Math.round((Date.now() - from) / 1000)} s`);
  mkdirSync(dirname(stampFileOf(name)), { recursive: true });
  writeFileSync(stampFileOf(name), stamp);
}

/** Installs what building and running needs, half of all packages; what tests, lint and benches need as well when `whole`. */
export async function installPackages({ whole }) {
  const from = ['package-lock.json', '.npmrc'];
  const some = ['packages', from, ['node_modules/typescript']];
  const all = ['all-packages', from, ['node_modules/jest']];
  if (isDone(...all)) return;
  // Where the tests were set up before, they stay so.
  if (!whole && !existsSync(join(ROOT, 'node_modules/jest')))
    return whenChanged(...some, () => {
      say('Installing packages (the longest part of a first start) …');
      return runBeside('npm', ['ci', '--omit=dev', '--ignore-scripts', '--no-fund', '--no-audit']);
    });
  // Beside an application that runs from this folder, packages are added and none is taken away.
  const add = isDone(...some);
  return whenChanged(...all, () => {
    say(add ? 'Adding the packages of the tests …' : 'Installing packages …');
    return runBeside('npm', [...(add ? ['install', '--no-save'] : ['ci']), '--ignore-scripts', '--no-fund', '--no-audit']);
  });
}

/** Builds server and pages side by side. */
export async function build() {
  const shared = ['tsconfig.base.json', 'tsconfig.json', 'core', 'contract'];
  const server = whenChanged(
    'server',
    [...shared, 'server/src', 'server/tsconfig.json', 'cli', 'scripts/unpackFonts.mjs', 'package-lock.json'],
    ['server/dist/main.js', 'server/dist/fonts', 'cli/dist/main.js'],
    async () => {
      say('Building server and command-line tool …');
      // Types are checked by the tests; a start need not wait for it.
      await runBeside('npx', ['tsc', '-b', 'core', 'contract', 'server', 'cli', '--noCheck']);
      await runBeside('node', ['scripts/unpackFonts.mjs']);
    },
  );
  const pages = whenChanged('pages', [...shared, 'web', 'scripts/compress.mjs', 'package-lock.json'], ['web/dist/index.html'], async () => {
    say('Building pages …');
    await runBeside('npx', ['vite', 'build', 'web', '--logLevel', 'warn']);
    await runBeside('node', ['scripts/compress.mjs']);
  });
  await Promise.all([server, pages]);
}

/** A free port, trying `wanted` first; on loopback unless told otherwise. */
export async function freePort(wanted, host = '127.0.0.1') {
  const tryPort = (port) =>
    new Promise((resolve) => {
      const server = createServer();
      server.once('error', () => resolve(null));
      server.listen(port, host, () => {
        const { port: got } = server.address();
        server.close(() => resolve(got));
      });
    });
  return (wanted ? await tryPort(wanted) : null) ?? (await tryPort(0));
}

/** Starts a long-running child and resolves when it prints `word`; rejects when it ends first. */
export function startUntil(word, command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    const onData = (data) => {
      output += data.toString();
      if (output.includes(word)) resolve({ child, output });
    };
    child.stdout.on('data', onData);
    child.stderr.on('data', (data) => {
      output += data.toString();
      options.onError?.(data.toString());
    });
    child.once('exit', (code) => reject(new Error(`${command} ended with ${code}\n${output.split('\n').slice(-25).join('\n')}`)));
  });
}
