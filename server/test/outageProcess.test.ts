import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { WebSocket } from 'ws';
import { clusterCommand, FOUR, freshDatabase, PASSWORD, ROOT, shellJpeg } from './harness.js';

const FOLDER = 'test-outage-process';
let databaseUrl: string;
const servers: ChildProcess[] = [];

beforeAll(async () => {
  databaseUrl = await freshDatabase(clusterCommand(FOLDER, 'start'));
});
afterAll(() => {
  for (const s of servers) s.kill('SIGKILL');
  clusterCommand(FOLDER, 'stop');
});

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  await new Promise((done) => server.close(done));
  return port;
}

interface Running {
  readonly process: ChildProcess;
  readonly base: string;
  readonly claim: string | null;
  words(): string;
}

async function start(): Promise<Running> {
  const port = await freePort();
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      TL_KEYS: mkdtempSync(join(tmpdir(), 'tl-keys-')),
      LOGIN_ATTEMPTS: '100',
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  servers.push(child);
  let words = '';
  await new Promise<void>((done, fail) => {
    const hear = (data: Buffer): void => {
      words += data.toString();
      if (words.includes('READY')) done();
    };
    child.stdout!.on('data', hear);
    child.stderr!.on('data', hear);
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}: ${words}`)));
  });
  return { process: child, base: `http://127.0.0.1:${port}`, claim: /claim#([0-9a-f]{64})/.exec(words)?.[1] ?? null, words: () => words };
}

const closed = (url: string, headers: Record<string, string>): Promise<number> =>
  new Promise((done) => {
    const socket = new WebSocket(url, { headers });
    socket.on('close', (code) => done(code));
    socket.on('error', () => done(0));
  });

describe('a server whose database goes away', () => {
  it('two of them on an empty database both start', async () => {
    const [a, b] = await Promise.all([start(), start()]);
    for (const s of [a, b]) await request(s.base).get('/api/health').expect(200);
    b.process.kill('SIGTERM');
  });

  it('lives on through sockets, readings, sign-ins and appends, and works again when it is back', async () => {
    const server = await start();
    expect(server.claim).not.toBeNull();
    const agent = request.agent(server.base);
    const made = await agent.post('/api/claim').send({ token: server.claim, name: 'First', signIn: 'first', password: PASSWORD });
    expect(made.status).toBe(201);
    const cookie = made.headers['set-cookie']![0]!.split(';')[0]!;
    const caseId = randomUUID();
    await agent.post('/api/cases').send({ id: caseId, title: 'T', reference: '', layout: FOUR }).expect(201);
    for (const n of [1, 2])
      await agent
        .post(`/api/cases/${caseId}/photos`)
        .field({ entryId: randomUUID(), station: `rod.${n}.shell.upper`, standIn: 'yes' })
        .attach('file', await shellJpeg(n), 'a.jpg')
        .expect(201);
    await agent.post(`/api/cases/${caseId}/readings-of-pictures`).send({ again: true }).expect(201);
    await new Promise((r) => setTimeout(r, 1500));
    clusterCommand(FOLDER, 'kill');
    const ws = server.base.replace('http', 'ws') + '/api/gauges/live';
    const origin = { Origin: server.base };
    expect(await closed(ws, { ...origin, Cookie: cookie })).toBe(1013);
    expect(await closed(ws, origin)).toBe(4401);
    expect((await request(server.base).post('/api/sign-in').send({ signIn: 'first', password: PASSWORD })).body).toMatchObject({
      code: 'store-unavailable',
    });
    expect((await agent.get('/api/cases')).body).toMatchObject({ code: 'store-unavailable' });
    await new Promise((r) => setTimeout(r, 6000));
    expect(server.process.exitCode).toBeNull();
    clusterCommand(FOLDER, 'start');
    let status = 0;
    for (let i = 0; i < 60 && status !== 201; i++) {
      status = (await request(server.base).post('/api/sign-in').send({ signIn: 'first', password: PASSWORD })).status;
      if (status !== 201) await new Promise((r) => setTimeout(r, 500));
    }
    expect(status).toBe(201);
    expect(server.process.exitCode).toBeNull();
    expect(server.words()).not.toContain('Not handled');
    let running = true;
    for (let i = 0; i < 120 && running; i++) {
      running = ((await agent.get(`/api/cases/${caseId}/readings-of-pictures`)).body as { running: boolean }).running;
      if (running) await new Promise((r) => setTimeout(r, 500));
    }
    expect(running).toBe(false);
  });
});
