// npm run backup -- FILE: everything the shop has, in one file.
import { existsSync } from 'node:fs';
import { backup } from './backups.mjs';
import { Cluster } from './database.mjs';
import { say } from './lib.mjs';

const HELP = `npm run backup -- FILE [--over]
  FILE    where to write; refused when it is there already, unless --over
  DATABASE_URL names the database; without it, the one "npm start" uses`;
const over = process.argv.includes('--over');
const file = process.argv.slice(2).find((a) => !a.startsWith('--'));
let cluster = null;
let startedHere = false;
try {
  if (!file) throw new Error(HELP);
  if (existsSync(file) && !over) throw new Error(`"${file}" is there already. Choose another name, or say --over.`);
  if (!process.env.DATABASE_URL) {
    cluster = new Cluster();
    ({ startedHere } = await cluster.start());
  }
  const { cases, bytes } = await backup(process.env.DATABASE_URL ?? cluster.url(), file);
  say(`${cases} case${cases === 1 ? '' : 's'} in ${file}, ${(bytes / 1e6).toFixed(1)} MB. Keep it where the ledger is not.`);
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  if (startedHere) cluster.stop();
}
