import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { engineTemplate, type EngineLayout } from '@true-ledger/core/engine';
import type { EntryDraft } from '@true-ledger/core/ledger';
import type { EntryKind } from '@true-ledger/core/entries';
import { surfaceMaps, takeShell, USUAL_SHOT, type Damage } from '@true-ledger/core/specimen';
import request from 'supertest';
import { AccountsService } from '../src/accounts/accounts.service.js';
import { makeApp } from '../src/app.js';
import { HeldAnswers } from '../src/http/answers.js';
import type { ServerConfig } from '../src/config.js';
import { standInJpeg } from '../src/photos/standInJpeg.js';
import { freshDatabase, ROOT } from './database.js';

export { clusterCommand, freshDatabase, ROOT } from './database.js';

export interface Bench {
  readonly app: NestExpressApplication;
  readonly url: string;
  readonly people: Readonly<Record<'owner' | 'builder' | 'second' | 'reader', request.Agent>>;
  close(): Promise<void>;
}

export const PASSWORD = 'a-long-enough-password';

/** The application on a database, listening on loopback. */
export async function appOn(databaseUrl: string, change: Partial<ServerConfig> = {}): Promise<NestExpressApplication> {
  const app = await makeApp({
    databaseUrl,
    port: 0,
    host: '127.0.0.1',
    root: ROOT,
    loginAttempts: 50,
    loginWindowSeconds: 60,
    secureCookies: false,
    trustedProxies: [],
    keysFolder: mkdtempSync(join(tmpdir(), 'tl-keys-')),
    ...change,
  });
  app.useGlobalInterceptors(new HeldAnswers());
  await app.listen(0, '127.0.0.1');
  return app;
}

/** The whole application on a database of its own, with one signed-in agent a role. */
export async function startBench(change: Partial<ServerConfig> = {}): Promise<Bench> {
  const url = change.databaseUrl ?? (await freshDatabase());
  const app = await appOn(url, change);
  const accounts = app.get(AccountsService);
  const people = {} as Record<'owner' | 'builder' | 'second' | 'reader', request.Agent>;
  for (const [who, role] of [
    ['owner', 'owner'],
    ['builder', 'builder'],
    ['second', 'builder'],
    ['reader', 'reader'],
  ] as const) {
    await accounts.create({ name: `The ${who}`, signIn: who, password: PASSWORD, role });
    people[who] = request.agent(app.getHttpServer());
    await people[who].post('/api/sign-in').send({ signIn: who, password: PASSWORD }).expect(201);
  }
  return { app, url, people, close: () => app.close() };
}

export function draft(kind: EntryKind, station: string | null, body: object, basedOn: string | null = null): EntryDraft {
  return { id: randomUUID(), kind, station, body: body as never, basedOn };
}

/** A picture of a half shell, 640 × 480, another one for another seed. */
export function shellJpeg(seed: number, damages: readonly Damage[] = []): Promise<Buffer> {
  const specimen = { seed, radiusMm: 25, widthMm: 20, damages };
  return standInJpeg(takeShell(specimen, surfaceMaps(specimen, 480, 160), { ...USUAL_SHOT, width: 640, height: 480 }).pixels);
}

export const FOUR: EngineLayout = engineTemplate('inline-4-petrol')!.layout;

export async function newCase(agent: request.Agent, change: Partial<EngineLayout> = {}): Promise<string> {
  const id = randomUUID();
  await agent
    .post('/api/cases')
    .send({ id, title: 'Slipway winch', reference: 'W 1', layout: { ...FOUR, ...change } })
    .expect(201);
  return id;
}

/** Body of an answer as the bytes it came in. */
export async function bytesOf(asked: request.Test): Promise<Buffer> {
  const answer = await asked.buffer(true).parse((response, done) => {
    const parts: Buffer[] = [];
    response.on('data', (part: Buffer) => parts.push(part));
    response.on('end', () => done(null, Buffer.concat(parts)));
  });
  return answer.body as Buffer;
}
