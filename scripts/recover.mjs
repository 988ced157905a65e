// npm run recover -- SIGN-IN: a one-time link by which an owner who lost his password sets a new one. Only who sits at the server can run it.
import { join } from 'node:path';
import { Cluster } from './database.mjs';
import { ROOT, run, say, sentenceOf } from './lib.mjs';

const signIn = process.argv[2];
let cluster = null;
let startedHere = false;
try {
  if (!signIn) throw new Error('npm run recover -- SIGN-IN   (the name the owner signs in with)');
  let databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) {
    cluster = new Cluster();
    ({ startedHere } = await cluster.start());
    databaseUrl = cluster.url();
  }
  const told = run('node', [join(ROOT, 'server/dist/accounts/recover.js'), signIn], { env: { ...process.env, DATABASE_URL: databaseUrl } });
  const token = /RECOVER ([0-9a-f]{64})/.exec(told)?.[1];
  if (!token) throw new Error(told.trim());
  say(`Open this page of the running application within 24 h, and set a new password: /recover#${token}`);
  say('The link works once. All sessions of the account end when it is used.');
} catch (error) {
  console.error(sentenceOf(error).split('\n').at(-1));
  process.exitCode = 1;
} finally {
  if (startedHere) cluster.stop();
}
