#!/usr/bin/env node
import { existsSync } from 'node:fs';

const main = new URL('../dist/main.js', import.meta.url);
if (!existsSync(main)) {
  console.error('true-ledger is not built yet. Run "npm run build" in the project folder first; nothing was read or changed.');
  process.exit(2);
}
const { run } = await import(main.href);
process.exitCode = await run(process.argv.slice(2));
