import { createHash, randomBytes } from 'node:crypto';
import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream, mkdtempSync, renameSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import yauzl from 'yauzl';
import { ZipFile } from 'yazl';
import { postgresFolder } from './lib.mjs';

const FORMAT = 'true-ledger/backup';
const VERSION = 1;
/** Rows that belong to this machine and moment, and none of anybody's business elsewhere. */
const LEFT_OUT = ['sessions', 'claims', 'login_attempts', 'presence'];

/** Runs a PostgreSQL tool; the password goes through the environment, never through the list of processes. */
function tool(name, url, args) {
  const { password, hostname, port, username, pathname } = new URL(url);
  const child = spawn(
    join(postgresFolder(), name),
    [...args, '-h', hostname, '-p', port || '5432', '-U', username, '-d', pathname.slice(1)],
    {
      cwd: '/',
      env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
      stdio: ['ignore', 'ignore', 'pipe'],
    },
  );
  return new Promise((done, fail) => {
    let words = '';
    child.stderr.on('data', (d) => (words += d.toString()));
    child.once('error', fail);
    child.once('exit', (code) =>
      code === 0 ? done() : fail(new Error(`${name} failed: ${words.trim().split('\n').slice(-5).join(' ')}`)),
    );
  });
}

const HEADS = `SELECT c.id, c.number, c.seq, c.head, (SELECT count(*)::int FROM entries e WHERE e."caseId" = c.id) AS entries FROM cases c ORDER BY c.id`;

async function sha256Of(path) {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** Writes everything a shop has into one file: a dump, and the heads of all ledgers as they stood at the same moment. */
export async function backup(url, target) {
  const path = resolve(target);
  const folder = mkdtempSync(join(tmpdir(), 'tl-backup-'));
  const client = new pg.Client({ connectionString: url });
  try {
    await client.connect();
    // One snapshot for the dump and the list, so that they agree while others write.
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    const snapshot = (await client.query('SELECT pg_export_snapshot() AS s')).rows[0].s;
    const cases = (await client.query(HEADS)).rows;
    const dump = join(folder, 'database.dump');
    await tool('pg_dump', url, [
      '-Fc',
      '--no-owner',
      '--no-privileges',
      `--snapshot=${snapshot}`,
      ...LEFT_OUT.map((t) => `--exclude-table-data=${t}`),
      '-f',
      dump,
    ]);
    await client.query('COMMIT');
    const list = { format: FORMAT, version: VERSION, made: new Date().toISOString(), dump: await sha256Of(dump), cases };
    const zip = new ZipFile();
    zip.addBuffer(Buffer.from(JSON.stringify(list, null, 2)), 'backup.json');
    zip.addFile(dump, 'database.dump', { compress: false });
    zip.end();
    // Written beside and renamed: a backup cut off in the middle never bears the name of a whole one.
    const part = join(dirname(path), `.${randomBytes(6).toString('hex')}.part`);
    try {
      await pipeline(zip.outputStream, createWriteStream(part, { mode: 0o600 }));
      renameSync(part, path);
    } finally {
      rmSync(part, { force: true });
    }
    return { cases: cases.length, bytes: statSync(path).size };
  } finally {
    await client.end().catch(() => undefined);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Every entry of every case against its own hashes and the one before it, by the same rule as `verify`. */
async function checkChains(client) {
  const { entryFault, FIRST_PREV, GAP_REASON, unexplainedGap } = await import('@true-ledger/core/ledger');
  for (const { id } of (await client.query('SELECT id FROM cases ORDER BY id')).rows) {
    const { rows } = await client.query('SELECT * FROM entries WHERE "caseId" = $1 ORDER BY seq', [id]);
    let prev = FIRST_PREV;
    const entries = rows.map(({ authorId, authorName, origin: _origin, ...e }) => ({ ...e, author: { id: authorId, name: authorName } }));
    for (const [i, entry] of entries.entries()) {
      const fault = entryFault(entry, prev, i + 1);
      if (fault) throw new Error(`Entry ${i + 1} of case ${id} is not what was put away: ${fault}.`);
      prev = entry.hash;
    }
    const gap = unexplainedGap(entries);
    if (gap) throw new Error(`Entry ${gap.seq} of case ${id} is not what was put away: ${GAP_REASON}.`);
  }
}

async function unpack(path, folder) {
  const refuse = (why) => new Error(`The backup was not read: ${why}. Nothing was changed.`);
  let zip;
  try {
    zip = await yauzl.openPromise(path, { lazyEntries: true, autoClose: false });
  } catch (error) {
    throw refuse(error.code === 'ENOENT' ? `there is no file "${path}"` : 'the file is damaged or is not a backup');
  }
  try {
    let list = null;
    for await (const entry of zip.eachEntry()) {
      const stream = await zip.openReadStreamPromise(entry);
      if (entry.fileName === 'database.dump') await pipeline(stream, createWriteStream(join(folder, 'database.dump'), { mode: 0o600 }));
      else if (entry.fileName === 'backup.json') {
        const parts = [];
        for await (const part of stream) parts.push(part);
        list = JSON.parse(Buffer.concat(parts).toString('utf8'));
      }
    }
    if (list?.format !== FORMAT) throw refuse('it is not a backup of this application');
    if (list.version > VERSION) throw refuse('it was made by a newer version; bring this one up to date first');
    if ((await sha256Of(join(folder, 'database.dump')).catch(() => '')) !== list.dump)
      throw refuse('its dump is not the one that was written');
    return list;
  } catch (error) {
    throw error.message.startsWith('The backup') ? error : refuse('the file is damaged or is not a backup');
  } finally {
    zip.close();
  }
}

/** Fills an empty database from a backup and holds it against the list of heads, the hash of every entry's predecessor, and every picture against its name. */
export async function restoreInto(url, source) {
  const folder = mkdtempSync(join(tmpdir(), 'tl-restore-'));
  const client = new pg.Client({ connectionString: url });
  try {
    const list = await unpack(resolve(source), folder);
    await client.connect();
    const tables = (await client.query(`SELECT count(*)::int AS n FROM information_schema.tables WHERE table_schema = 'public'`)).rows[0].n;
    if (tables > 0) throw new Error('The database is not empty. Nothing was changed; give an empty one.');
    await tool('pg_restore', url, ['--no-owner', '--no-privileges', '--exit-on-error', join(folder, 'database.dump')]);
    const held = (await client.query(HEADS)).rows;
    const differ = list.cases.filter((c) => {
      const here = held.find((h) => h.id === c.id);
      return !here || here.head !== c.head || here.seq !== c.seq || here.entries !== c.entries;
    });
    if (differ.length > 0 || held.length !== list.cases.length)
      throw new Error(
        `The ledgers that came back are not those that were put away: ${differ.map((c) => c.number).join(', ') || 'there are others'}.`,
      );
    await checkChains(client);
    const loose = (
      await client.query(
        `SELECT e."caseId", e.seq FROM entries e LEFT JOIN entries p ON p."caseId" = e."caseId" AND p.seq = e.seq - 1
         WHERE e.prev <> COALESCE(p.hash, repeat('0', 64)) LIMIT 1`,
      )
    ).rows[0];
    if (loose) throw new Error(`Entry ${loose.seq} of case ${loose.caseId} does not follow the one before it.`);
    const strange = (await client.query(`SELECT sha256 FROM photos WHERE encode(sha256(original), 'hex') <> sha256 LIMIT 1`)).rows[0];
    if (strange) throw new Error(`Picture ${strange.sha256} is not the one that was put away.`);
    for (const [table, column, what] of [
      ['clips', 'bytes', 'Clip'],
      ['signed_accounts', 'pdf', 'Signed account'],
    ]) {
      const odd = (await client.query(`SELECT sha256 FROM ${table} WHERE encode(sha256(${column}), 'hex') <> sha256 LIMIT 1`)).rows[0];
      if (odd) throw new Error(`${what} ${odd.sha256} is not the one that was put away.`);
    }
    const unsigned = (
      await client.query(
        `SELECT e."caseId", e.seq FROM entries e LEFT JOIN signed_accounts a ON a."caseId" = e."caseId" AND a.version = (e.body->>'version')::int
         WHERE e.kind = 'account-signed' AND a.sha256 IS DISTINCT FROM e.body->>'sha256' LIMIT 1`,
      )
    ).rows[0];
    if (unsigned) throw new Error(`The account that entry ${unsigned.seq} of case ${unsigned.caseId} signed is another or is gone.`);
    return { cases: held.length, made: list.made };
  } finally {
    await client.end().catch(() => undefined);
    rmSync(folder, { recursive: true, force: true });
  }
}
