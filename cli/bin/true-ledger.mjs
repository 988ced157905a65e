#!/usr/bin/env node
// Starts the command-line tool; builds core and tool first when they were never built.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../..', import.meta.url));
const main = new URL('../dist/main.js', import.meta.url);
if (!existsSync(main)) {
  try {
    console.error('Building the command-line tool once …');
    const tsc = join(dirname(createRequire(import.meta.url).resolve('typescript/package.json')), 'bin', 'tsc');
    execFileSync(process.execPath, [tsc, '-b', 'core', 'cli'], { cwd: root, stdio: ['ignore', 2, 2] });
  } catch {
    console.error('The command-line tool could not be built. Run "npm ci" in the project folder first; nothing was read or changed.');
    process.exit(2);
  }
}
const { run } = await import(main.href);
process.exitCode = await run(process.argv.slice(2));
