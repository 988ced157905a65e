import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { request } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { AccountsService } from '../src/accounts/accounts.service.js';
import { makeApp } from '../src/app.js';
import { freshDatabase, PASSWORD, ROOT } from './harness.js';

interface Tls {
  readonly cert: string;
  readonly key: string;
  readonly authority: string;
  readonly fingerprint: string;
}

const folder = mkdtempSync(join(tmpdir(), 'tl-tls-'));
const make = (...addresses: string[]): Tls =>
  JSON.parse(
    execFileSync(
      'node',
      [
        '-e',
        `import('./scripts/tls.mjs').then(async (m) => console.log(JSON.stringify(await m.ownCertificate(${JSON.stringify(folder)}, ${JSON.stringify(addresses)}))))`,
      ],
      { cwd: ROOT, encoding: 'utf8' },
    ),
  ) as Tls;

let app: NestExpressApplication;
let tls: Tls;
beforeAll(async () => {
  tls = make('192.168.7.9');
  app = await makeApp({
    databaseUrl: await freshDatabase(),
    port: 0,
    host: '127.0.0.1',
    root: ROOT,
    trustedProxies: [],
    keysFolder: folder,
    loginAttempts: 50,
    loginWindowSeconds: 60,
    secureCookies: true,
    addresses: ['https://192.168.7.9:4310'],
    tls: { cert: readFileSync(tls.cert, 'utf8'), key: readFileSync(tls.key, 'utf8') },
    authority: readFileSync(tls.authority, 'utf8'),
  });
  await app.listen(0, '127.0.0.1');
  await app.get(AccountsService).create({ name: 'The builder', signIn: 'builder', password: PASSWORD, role: 'builder' });
});
afterAll(() => app?.close());

/** A phone that trusts our authority and nothing else. */
function ask(
  path: string,
  body?: object,
): Promise<{ status: number; headers: Record<string, string | string[] | undefined>; text: string }> {
  const { port } = app.getHttpServer().address() as AddressInfo;
  return new Promise((resolve, reject) => {
    const call = request(
      {
        host: '127.0.0.1',
        port,
        path,
        method: body ? 'POST' : 'GET',
        ca: readFileSync(tls.authority),
        headers: body ? { 'content-type': 'application/json' } : {},
      },
      (response) => {
        let text = '';
        response.on('data', (d: Buffer) => (text += d.toString()));
        response.on('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }));
      },
    );
    call.on('error', reject);
    call.end(body ? JSON.stringify(body) : undefined);
  });
}

describe('the shop’s network', () => {
  it('is served by TLS with a certificate a phone can trust; sessions never leave it', async () => {
    const answer = await ask('/api/sign-in', { signIn: 'builder', password: PASSWORD });
    expect(answer.status).toBe(201);
    expect(String(answer.headers['set-cookie'])).toMatch(/HttpOnly.*Secure.*SameSite=Strict/);
  });
  it('gives the certificate of its own authority, and not the key', async () => {
    const answer = await ask('/authority.crt');
    expect(answer.headers['content-type']).toBe('application/x-x509-ca-cert');
    expect(answer.text).toBe(readFileSync(tls.authority, 'utf8'));
    expect(answer.text).not.toContain('PRIVATE');
    expect(statSync(join(folder, 'authority.key')).mode & 0o077).toBe(0);
  });
  it('keeps the authority when addresses change, and the certificate while they do not', () => {
    expect(readFileSync(make('192.168.7.9').cert, 'utf8')).toBe(readFileSync(tls.cert, 'utf8'));
    const before = readFileSync(tls.cert, 'utf8');
    const moved = make('192.168.7.20');
    expect(moved.fingerprint).toBe(tls.fingerprint);
    expect(readFileSync(moved.cert, 'utf8')).not.toBe(before);
  });
});
