// Sets up what is missing and starts everything: packages, build, database, demo data, server. Ctrl-C stops all it started.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Cluster } from './database.mjs';
import { ownAddresses, ownCertificate } from './tls.mjs';
import { build, freePort, installPackages, ROOT, say, sentenceOf, startUntil } from './lib.mjs';

const HELP = `npm start [-- options]
  --port N     port to serve on (4310, or the next free one)
  --fresh      throw the kept data away and load the demo data anew
  --empty      no demo data: a one-time link makes the first owner
  --lan        let phones in the shop's network in, by TLS with a certificate of our own
  DATABASE_URL an existing PostgreSQL instead of our own`;

let options;
try {
  options = parseArgs({
    options: {
      port: { type: 'string' },
      fresh: { type: 'boolean' },
      empty: { type: 'boolean' },
      lan: { type: 'boolean' },
      help: { type: 'boolean' },
    },
  }).values;
} catch (error) {
  console.error(`${error.message}\n\n${HELP}`);
  process.exit(2);
}
if (options.help) {
  say(HELP);
  process.exit(0);
}
const wanted = options.port === undefined ? 4310 : Number(options.port);
if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65535) {
  console.error(`"${options.port}" is not a port. Give a number from 1 to 65535.`);
  process.exit(2);
}

const accountsFile = join(ROOT, '.data', 'demo-accounts.json');
const runningFile = join(ROOT, '.data', 'running.json');

/** Starts our own cluster, making it when there is none. */
async function ownDatabase() {
  cluster = new Cluster();
  ({ startedHere } = await cluster.start());
}

/** Address at which another `npm start` of this folder serves, or null. */
function servedAt() {
  if (!existsSync(runningFile)) return null;
  const { pid, address } = JSON.parse(readFileSync(runningFile, 'utf8'));
  const commandLine = `/proc/${pid}/cmdline`;
  return existsSync(commandLine) && readFileSync(commandLine, 'utf8').includes('start.mjs') ? address : null;
}
let cluster = null;
let startedHere = false;
let server = null;
let stopping = false;

async function stop(code = 0) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null) {
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    const timer = setTimeout(() => server.kill('SIGKILL'), 8000);
    await ended;
    clearTimeout(timer);
  }
  if (cluster && startedHere) cluster.stop();
  if (server) rmSync(runningFile, { force: true });
  process.exit(code);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

try {
  const elsewhere = servedAt();
  if (elsewhere)
    throw new Error(
      `True Ledger already runs from this folder, at ${elsewhere}. Use it there, or end it with Ctrl-C before starting again.`,
    );
  // The database is set up while packages come in.
  const database = process.env.DATABASE_URL ? null : ownDatabase();
  database?.catch(() => undefined);
  await installPackages({ whole: false });
  await build();
  let databaseUrl = process.env.DATABASE_URL;
  if (database) {
    await database;
    if (options.fresh) {
      cluster.dropDatabase();
      rmSync(accountsFile, { force: true });
    }
    cluster.ensureDatabase();
    databaseUrl = cluster.url();
  } else if (options.fresh) throw new Error('--fresh would empty a database that is not ours; empty it yourself.');
  const port = await freePort(wanted, options.lan ? '0.0.0.0' : '127.0.0.1');
  if (options.port !== undefined && port !== wanted) throw new Error(`Port ${wanted} is taken. Choose another with --port.`);
  const env = { ...process.env, DATABASE_URL: databaseUrl, PORT: String(port), TL_DEMO_ACCOUNTS_FILE: accountsFile };
  let address = `http://127.0.0.1:${port}`;
  let tls = null;
  if (options.lan) {
    const addresses = ownAddresses();
    if (addresses.length === 0) throw new Error('This machine is in no network, so no phone can reach it. Start without --lan.');
    tls = await ownCertificate(join(ROOT, '.data', 'tls'), addresses);
    const reached = addresses.map((a) => `https://${a}:${port}`);
    address = reached.join('  ');
    Object.assign(env, {
      HOST: '0.0.0.0',
      SECURE_COOKIES: 'yes',
      TL_TLS_CERT: tls.cert,
      TL_TLS_KEY: tls.key,
      TL_TLS_AUTHORITY: tls.authority,
      TL_ADDRESSES: reached.join(','),
    });
  }
  if (!options.empty) env.TL_DEMO = 'yes';
  const started = await startUntil('READY', 'node', ['server/dist/main.js'], { env, onError: (text) => process.stderr.write(text) });
  server = started.child;
  server.stdout.on('data', (data) => {
    for (const [, taken, total, number] of data.toString().matchAll(/DEMO (\d+) of (\d+) (\S+)/g))
      say(taken === total ? `All ${total} demo cases are in.` : `Demo cases: ${taken} of ${total} are in (${number})`);
  });
  server.once('exit', (code) => {
    if (!stopping) {
      console.error(`The server ended by itself (${code}).`);
      void stop(1);
    }
  });
  mkdirSync(join(ROOT, '.data'), { recursive: true });
  writeFileSync(runningFile, JSON.stringify({ pid: process.pid, address }));
  say(`\nTrue Ledger is running at ${address}\n`);
  if (tls)
    say(`Phones: open the address in the shop's network. The first time the browser warns, because the certificate is our own.
To trust it for good, open ${address.split(' ')[0]}/authority.crt on the phone, check the fingerprint below, and install it as a
certificate authority (docs/phones.md says where each phone keeps that). Without it the page works after the warning is passed.
  SHA-256 ${tls.fingerprint}\n`);
  const claim = /CLAIM (\S+)/.exec(started.output);
  if (claim) say(`Make the first owner with this one-time link (24 h): ${claim[1]}\n`);
  else if (existsSync(accountsFile)) {
    say('Demo accounts:');
    for (const a of JSON.parse(readFileSync(accountsFile, 'utf8'))) say(`  ${a.signIn.padEnd(6)} ${a.password}  (${a.role})`);
    say('');
  }
  say('Ctrl-C stops it.');
} catch (error) {
  console.error(sentenceOf(error));
  await stop(1);
}
