// npm run restore -- FILE: a shop from its backup, checked before it takes the place of what is here.
import { Cluster } from './database.mjs';
import { restoreInto } from './backups.mjs';
import { say } from './lib.mjs';

const HELP = `npm run restore -- FILE [--over]
  --over  take the place of the cases that are here (they are gone then; make a backup first)
  DATABASE_URL names an empty database to fill; without it, the one "npm start" uses. Stop the server first.`;
const over = process.argv.includes('--over');
const file = process.argv.slice(2).find((a) => !a.startsWith('--'));
const BESIDE = 'true_ledger_restoring';
let cluster = null;
let startedHere = false;
try {
  if (!file) throw new Error(HELP);
  let done;
  if (process.env.DATABASE_URL) done = await restoreInto(process.env.DATABASE_URL, file);
  else {
    cluster = new Cluster();
    ({ startedHere } = await cluster.start());
    const there = cluster.sql(`SELECT 1 FROM pg_database WHERE datname = 'true_ledger'`).trim() === '1';
    const tables = there ? cluster.sql(`SELECT to_regclass('public.cases') IS NOT NULL`, 'true_ledger').trim() === 't' : false;
    const cases = tables ? Number(cluster.sql('SELECT count(*) FROM cases', 'true_ledger').trim()) : 0;
    if (cases > 0 && !over) throw new Error(`${cases} cases are here. Nothing was changed; say --over to put the backup in their place.`);
    // Filled and checked beside; only a whole one takes the name.
    cluster.dropDatabase(BESIDE);
    cluster.ensureDatabase(BESIDE);
    done = await restoreInto(cluster.url(BESIDE), file);
    cluster.dropDatabase();
    cluster.sql(`ALTER DATABASE ${BESIDE} RENAME TO true_ledger`);
  }
  say(
    `${done.cases} case${done.cases === 1 ? '' : 's'} from the backup of ${done.made}: every head as it was, every entry follows the one before it, every picture is itself.`,
  );
  say('Everybody signs in anew.');
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  if (startedHere) cluster.stop();
}
