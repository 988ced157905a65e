import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';

export const ROOT = join(__dirname, '../..');

export function clusterCommand(folder: string, action: 'start' | 'stop' | 'kill'): string {
  return execFileSync('node', ['scripts/cluster.mjs', join('.data', folder), action], { cwd: ROOT, encoding: 'utf8' }).trim();
}

/** A fresh database on the test cluster (started by the test command, or here when a test runs alone). */
export async function freshDatabase(base: string = process.env['TEST_CLUSTER_URL'] ?? clusterCommand('test', 'start')): Promise<string> {
  const name = `t_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  return base.replace(/\/postgres$/, `/${name}`);
}
