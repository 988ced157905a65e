import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { AccountsService } from '../src/accounts/accounts.service.js';
import { appOn, draft, FOUR, freshDatabase, newCase, PASSWORD, startBench, type Bench } from './harness.js';

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
  it.each(['j:{"a":1}', 's:x.y', '%', 'x'.repeat(5000), '__proto__'])('with the cookie %s is signed out, not a failure', (cookie) =>
    signedOut().get('/api/me').set('Cookie', `true_ledger_session=${cookie}`).expect(401),
  );
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
  it('uses the newest link once; a name or password that is not taken leaves it alive; no link makes an owner beside another', async () => {
    const empty = await appOn(await freshDatabase());
    const accounts = empty.get(AccountsService);
    const claim = (token: string, more: object = {}): request.Test =>
      request(empty.getHttpServer())
        .post('/api/claim')
        .send({ token, name: 'First', signIn: 'first', password: PASSWORD, ...more });
    const old = await accounts.makeClaim();
    const newest = await accounts.makeClaim();
    expect((await claim(old).expect(400)).body.code).toBe('claim');
    expect((await claim(newest, { password: 'password1234' }).expect(400)).body.code).toBe('password-weak');
    await claim(newest).expect(201);
    expect((await claim(newest, { signIn: 'other' }).expect(400)).body.code).toBe('claim');
    const late = await accounts.makeClaim();
    expect((await claim(late, { signIn: 'other', name: 'Other' }).expect(400)).body.code).toBe('claim');
    await empty.close();
  });
});

describe('passwords', () => {
  const signIn = (who: string, password: string): request.Test => signedOut().post('/api/sign-in').send({ signIn: who, password });
  const make = async (who: string, change: object = {}): Promise<request.Response> =>
    bench.people.owner.post('/api/accounts').send({ name: `${who} Brandt`, signIn: who, password: PASSWORD, role: 'builder', ...change });
  it.each([
    ['common', 'password1234'],
    ['common with signs at its ends', '!!Qwertyuiop99'],
    ['the name of the person', 'brandt1234'],
    ['one short thing over and over', 'abcabcabcabc'],
  ])('that are %s are not taken', async (_, password) => {
    expect((await make('piet', { password })).body).toMatchObject({ code: 'password-weak', field: 'password' });
  });
  it('are changed by who has one, with the old one; his other sessions end and this one stays', async () => {
    expect((await make('jule')).status).toBe(201);
    const [here, there] = [request.agent(bench.app.getHttpServer()), request.agent(bench.app.getHttpServer())];
    for (const a of [here, there]) await a.post('/api/sign-in').send({ signIn: 'jule', password: PASSWORD }).expect(201);
    const fresh = 'copper tin lead nickel';
    expect((await here.post('/api/password').send({ current: 'no', fresh })).body).toMatchObject({
      code: 'password-wrong',
      field: 'current',
    });
    await here.post('/api/password').send({ current: PASSWORD, fresh }).expect(201);
    await here.get('/api/me').expect(200);
    await there.get('/api/me').expect(401);
    await signIn('jule', PASSWORD).expect(401);
    await signIn('jule', fresh).expect(201);
  });
  it('of an owner are recovered by a link of the server’s console, once', async () => {
    const made = await make('odile', { role: 'owner' });
    expect(made.status).toBe(201);
    const accounts = bench.app.get(AccountsService);
    await expect(accounts.makeRecovery('jule')).rejects.toThrow('No owner signs in');
    const token = await accounts.makeRecovery('odile');
    const recover = (password: string): request.Test => signedOut().post('/api/recover').send({ token, password });
    expect((await recover('password1234')).body).toMatchObject({ code: 'password-weak' });
    await recover('seven grey herons asleep').expect(201);
    expect((await recover('seven grey herons awake')).body).toMatchObject({ code: 'claim' });
    await signIn('odile', PASSWORD).expect(401);
    await signIn('odile', 'seven grey herons asleep').expect(201);
  });
});

describe('names', () => {
  it.each([
    ['looks like another in letters of another alphabet', { name: 'The оwner', signIn: 'look1' }, 'account-exists', 'name'],
    ['differs from another in spaces and case only', { name: 'THE  OWNER', signIn: 'look2' }, 'account-exists', 'name'],
    ['holds what cannot be seen', { name: 'A\u202eB', signIn: 'look3' }, 'request', 'name'],
    ['signs in with letters of another alphabet', { name: 'Lew', signIn: 'lеw' }, 'request', 'signIn'],
  ])('are not taken when one %s', async (_, who, code, field) => {
    const answer = await bench.people.owner.post('/api/accounts').send({ password: PASSWORD, role: 'reader', ...who });
    expect(answer.body).toMatchObject({ code, field });
  });
});

describe('attempts', () => {
  it('are counted per name whatever address a request claims to come from, and per address whatever the names', async () => {
    const own = await startBench({ loginAttempts: 3, loginWindowSeconds: 60 });
    const attempt = (signIn: string, from: string): request.Test =>
      request(own.app.getHttpServer()).post('/api/sign-in').set('X-Forwarded-For', from).send({ signIn, password: 'wrong' });
    const byName = [];
    for (let i = 0; i < 5; i++) byName.push((await attempt('owner', `10.0.0.${i}`)).status);
    expect(byName).toEqual([401, 401, 401, 429, 429]);
    const byAddress = [];
    for (let i = 0; i < 12; i++) byAddress.push((await attempt(`nobody${i}`, `10.0.1.${i}`)).status);
    expect(byAddress.at(-1)).toBe(429);
    await own.close();
  });
});

describe('a reader with chosen cases', () => {
  it('sees these and nothing of any other, by any road', async () => {
    const [chosen, other] = [await newCase(bench.people.builder), await newCase(bench.people.builder)];
    const made = await bench.people.owner
      .post('/api/accounts')
      .send({ name: 'Client of the winch', signIn: 'client', password: PASSWORD, role: 'reader' })
      .expect(201);
    const client = request.agent(bench.app.getHttpServer());
    await client.post('/api/sign-in').send({ signIn: 'client', password: PASSWORD }).expect(201);
    expect((await client.get('/api/cases').expect(200)).body.length).toBeGreaterThan(1);
    await bench.people.owner
      .patch(`/api/accounts/${made.body.id}`)
      .send({ cases: [chosen] })
      .expect(200);
    expect((await bench.people.owner.get(`/api/accounts/${made.body.id}/cases`).expect(200)).body).toEqual({ cases: [chosen] });
    expect(((await client.get('/api/cases').expect(200)).body as { id: string }[]).map((c) => c.id)).toEqual([chosen]);
    const description = (await bench.people.builder.get('/api/docs/openapi.json').expect(200)).body as { paths: Record<string, object> };
    const roads = Object.entries(description.paths).filter(([path, ways]) => path.includes('{caseId}') && 'get' in ways);
    expect(roads.length).toBeGreaterThan(12);
    for (const [path] of roads) {
      const at = (id: string): string =>
        path.replace('{caseId}', id).replace('{sha}', 'a'.repeat(64)).replace('{version}', '1').replace('{id}', randomUUID());
      const { status } = await client.get(at(other));
      expect([path, status === 403 || status === 404]).toEqual([path, true]);
    }
    await client.get(`/api/cases/${chosen}/entries`).expect(200);
    await client.get(`/api/cases/${other}/entries`).expect(404);
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
