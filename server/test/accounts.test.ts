import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { AccountsService } from '../src/accounts/accounts.service.js';
import { draft, FOUR, newCase, PASSWORD, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => {
  bench = await startBench({ loginAttempts: 4, loginWindowSeconds: 60 });
});
afterAll(() => bench.close());

const signedOut = (): ReturnType<typeof request> => request(bench.app.getHttpServer());

describe('a signed-out person', () => {
  it.each([
    '/api/cases',
    '/api/me',
    '/api/gauges',
    '/api/accounts',
    '/api/sessions',
    `/api/cases/${randomUUID()}`,
    `/api/cases/${randomUUID()}/entries`,
    `/api/cases/${randomUUID()}/report.pdf`,
    `/api/cases/${randomUUID()}/bundle.zip`,
    '/api/docs',
    '/api/docs/openapi.json',
  ])('gets nothing from %s', async (path) => {
    const answer = await signedOut().get(path).expect(401);
    expect(answer.body).toMatchObject({ code: 'signed-out' });
    expect(answer.body.sentence.length).toBeGreaterThan(20);
  });
  it('cannot write', () => signedOut().post('/api/cases').send({}).expect(401));
  it('cannot use a made-up session', () =>
    signedOut()
      .get('/api/me')
      .set('Cookie', `true_ledger_session=${'0'.repeat(64)}`)
      .expect(401));
});

describe('signing in', () => {
  it('gives an HttpOnly, SameSite cookie and no password anywhere', async () => {
    const answer = await signedOut().post('/api/sign-in').send({ signIn: 'OWNER', password: PASSWORD }).expect(201);
    expect(answer.headers['set-cookie']?.[0]).toMatch(/HttpOnly/);
    expect(answer.headers['set-cookie']?.[0]).toMatch(/SameSite=Strict/);
    expect(JSON.stringify(answer.body)).not.toMatch(/argon|password/i);
  });
  it('says the same of a wrong name and a wrong password', async () => {
    const name = await signedOut().post('/api/sign-in').send({ signIn: 'nobody', password: 'x' }).expect(401);
    const word = await signedOut().post('/api/sign-in').send({ signIn: 'second', password: 'x' }).expect(401);
    expect(name.body).toEqual(word.body);
  });
  it('is throttled by name, and the right password does not help then', async () => {
    for (let k = 0; k < 4; k++) await signedOut().post('/api/sign-in').send({ signIn: 'reader', password: 'wrong' }).expect(401);
    const answer = await signedOut().post('/api/sign-in').send({ signIn: 'reader', password: PASSWORD }).expect(429);
    expect(answer.body.sentence).toMatch(/Wait \d+ min/);
    await signedOut().post('/api/sign-in').send({ signIn: 'builder', password: PASSWORD }).expect(201);
  });
  it('ends with sign-out and with revoking', async () => {
    const agent = request.agent(bench.app.getHttpServer());
    await agent.post('/api/sign-in').send({ signIn: 'second', password: PASSWORD }).expect(201);
    const sessions = await agent.get('/api/sessions').expect(200);
    const own = sessions.body.find((s: { current: boolean }) => s.current);
    await bench.people.second.delete(`/api/sessions/${own.id}`).expect(200);
    await agent.get('/api/me').expect(401);
  });
});

describe('roles', () => {
  it('lets a reader read and not write', async () => {
    const id = await newCase(bench.people.builder);
    await bench.people.reader.get(`/api/cases/${id}`).expect(200);
    for (const attempt of [
      bench.people.reader.post('/api/cases').send({ id: randomUUID(), title: 'x', reference: '', layout: FOUR }),
      bench.people.reader.post(`/api/cases/${id}/entries`).send({ entries: [draft('state-set', 'bore.1', { state: 'sound' })] }),
      bench.people.reader
        .post(`/api/cases/${id}/photos`)
        .field('entryId', randomUUID())
        .field('station', 'bore.1')
        .attach('file', Buffer.from('x'), 'a.jpg'),
      bench.people.reader.put('/api/gauges').send({}),
      bench.people.reader.get(`/api/cases/${id}/bundle.zip`),
    ]) {
      expect((await attempt).body).toMatchObject({ code: 'forbidden' });
    }
  });
  it('keeps accounts to the owner', async () => {
    await bench.people.builder.get('/api/accounts').expect(403);
    await bench.people.builder.post('/api/accounts').send({}).expect(403);
    const made = await bench.people.owner
      .post('/api/accounts')
      .send({ name: 'Ines', signIn: 'ines', password: PASSWORD, role: 'builder' })
      .expect(201);
    await bench.people.owner.post('/api/accounts').send({ name: 'Ines', signIn: 'Ines', password: PASSWORD, role: 'builder' }).expect(400);
    const agent = request.agent(bench.app.getHttpServer());
    await agent.post('/api/sign-in').send({ signIn: 'ines', password: PASSWORD }).expect(201);
    await bench.people.owner.patch(`/api/accounts/${made.body.id}`).send({ active: false }).expect(200);
    await agent.get('/api/me').expect(401);
  });
  it('never loses the last owner', async () => {
    const me = await bench.people.owner.get('/api/me');
    const answer = await bench.people.owner.patch(`/api/accounts/${me.body.account.id}`).send({ role: 'reader' }).expect(400);
    expect(answer.body.code).toBe('last-owner');
    await bench.people.owner.get('/api/accounts').expect(200);
  });
  it('refuses short passwords with the field named', async () => {
    const answer = await bench.people.owner
      .post('/api/accounts')
      .send({ name: 'X', signIn: 'x', password: 'short', role: 'reader' })
      .expect(400);
    expect(answer.body).toMatchObject({ code: 'request', field: 'password' });
  });
});

describe('origin', () => {
  it('refuses a change that comes from another site', async () => {
    const answer = await bench.people.owner.post('/api/sign-out').set('Origin', 'https://elsewhere.example').expect(403);
    expect(answer.body.code).toBe('origin');
    await bench.people.owner.post('/api/sign-out').set('Sec-Fetch-Site', 'cross-site').expect(403);
    await bench.people.owner.get('/api/me').expect(200);
  });
  it('sends a strict content policy', async () => {
    const answer = await signedOut().get('/api/health').expect(200);
    expect(answer.headers['content-security-policy']).toContain("script-src 'self'");
    expect(answer.headers['content-security-policy']).toContain("frame-ancestors 'none'");
  });
});

describe('the first owner', () => {
  it('uses a link once', async () => {
    const token = await bench.app.get(AccountsService).makeClaim();
    const body = { token, name: 'First', signIn: 'first', password: PASSWORD };
    await signedOut().post('/api/claim').send(body).expect(201);
    const again = await signedOut()
      .post('/api/claim')
      .send({ ...body, signIn: 'other' })
      .expect(400);
    expect(again.body.code).toBe('claim');
  });
});

describe('the API description', () => {
  it('is there for signed-in people', async () => {
    const answer = await bench.people.builder.get('/api/docs/openapi.json').expect(200);
    expect(Object.keys(answer.body.paths)).toEqual(expect.arrayContaining(['/api/cases', '/api/cases/{caseId}/entries', '/api/diagnose']));
    const bodyOf = (path: string, method: string) => {
      const { content } = answer.body.paths[path][method].requestBody as {
        content: Record<string, { schema: { properties: object; required?: string[] } }>;
      };
      return Object.values(content)[0]!.schema;
    };
    expect(bodyOf('/api/cases', 'post').required).toEqual(expect.arrayContaining(['id', 'title', 'layout']));
    expect(Object.keys(bodyOf('/api/cases/{caseId}/photos', 'post').properties)).toEqual(
      expect.arrayContaining(['entryId', 'station', 'file']),
    );
    expect(answer.body.paths['/api/cases/{caseId}/entries'].post.responses.default.content['application/json'].schema.$ref).toBe(
      '#/components/schemas/Problem',
    );
  });
});
