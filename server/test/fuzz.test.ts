import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import type { Test } from 'supertest';
import { draft, newCase, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench({ loginAttempts: 1_000_000 });
  caseId = await newCase(bench.people.builder);
  await bench.people.builder
    .post(`/api/cases/${caseId}/photos`)
    .field({ entryId: randomUUID(), station: 'rod.1.shell.upper', standIn: 'yes' })
    .attach('file', await shellJpeg(3), 'a.jpg')
    .expect(201);
});
afterAll(() => bench.close());

interface Schema {
  readonly type?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly format?: string;
  readonly pattern?: string;
}
interface Operation {
  readonly parameters?: ReadonlyArray<{ readonly name: string; readonly in: string }>;
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}

const NAMES = ['__proto__', 'constructor', 'toString', 'hasOwnProperty', 'valueOf'];
/** What strangers send: names every object has, NUL, halves of characters, figures beyond measure, things of another type. */
const odd = fc.oneof(
  fc.constantFrom(
    ...NAMES,
    '',
    ' ',
    '\0',
    'a\0b',
    '\ud800',
    '😀\n',
    "'; --",
    '../../x',
    '%00',
    'null',
    '-1',
    '1.5',
    '1e400',
    '9'.repeat(30),
  ),
  fc.constantFrom<unknown>(null, true, false, -1, 0.5, 1e21, 1e308, 2 ** 31, [], {}, [[]], { a: 1 }),
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.json({ maxDepth: 3 }).map((text) => JSON.parse(text) as unknown),
);

/** Values after a schema of the API's own description, now and then something else. */
function after(schema: Schema | undefined, depth = 0): fc.Arbitrary<unknown> {
  const fitting = ((): fc.Arbitrary<unknown> => {
    if (!schema || depth > 5) return odd;
    if (schema.enum) return fc.constantFrom(...schema.enum);
    const either = schema.anyOf ?? schema.oneOf;
    if (either) return fc.oneof(...either.map((s) => after(s, depth + 1)));
    switch (schema.type) {
      case 'object': {
        const known = Object.fromEntries(Object.entries(schema.properties ?? {}).map(([k, s]) => [k, after(s, depth + 1)]));
        return Object.keys(known).length > 0
          ? fc.record(known, { requiredKeys: [] })
          : fc.dictionary(fc.constantFrom(...NAMES, 'a', 'station'), odd, { maxKeys: 3 });
      }
      case 'array':
        return fc.array(after(schema.items, depth + 1), { maxLength: 3 });
      case 'integer':
        return fc.integer({ min: schema.minimum ?? -5, max: Math.min(schema.maximum ?? 1000, 1e6) });
      case 'number':
        return fc.double({ min: schema.minimum ?? -5, max: schema.maximum ?? 1e4, noNaN: true });
      case 'boolean':
        return fc.boolean();
      default:
        return fc.oneof(
          fc.constantFrom(caseId, randomUUID(), 'rod.1.shell.upper', 'bore.1', 'journal', 'rod-journal', 'a'.repeat(64)),
          fc.string({ maxLength: 12 }),
        );
    }
  })();
  return fc.oneof({ weight: 6, arbitrary: fitting }, { weight: 1, arbitrary: odd });
}

const WAYS = ['get', 'post', 'put', 'patch', 'delete'] as const;
/** Would end the session it is asked with, or run for ever by design. */
const APART = new Set(['/api/sign-out', '/api/events', '/api/sessions/{id}', '/api/accounts/{id}', '/api/password']);

describe('every route, from its own description', () => {
  it('answers whatever it is sent without failing', async () => {
    const { paths } = (await bench.people.builder.get('/api/docs/openapi.json').expect(200)).body as {
      paths: Record<string, Record<string, Operation>>;
    };
    const routes = Object.entries(paths).flatMap(([path, ways]) =>
      WAYS.filter((way) => ways[way]).map((way) => ({ path, way, operation: ways[way]! })),
    );
    expect(routes.length).toBeGreaterThan(55);
    const failures: string[] = [];
    for (const { path, way, operation } of routes) {
      if (APART.has(path)) continue;
      const content = Object.entries(operation.requestBody?.content ?? {})[0];
      const parameter = fc.oneof(
        { weight: 4, arbitrary: fc.constantFrom(caseId, randomUUID(), '1', 'a'.repeat(64), 'mic') },
        {
          weight: 3,
          arbitrary: fc.constantFrom(
            ...NAMES,
            '%00',
            '%',
            '-1',
            '0.5',
            '1e99',
            '999999999999999999',
            '%F0%9F%98%80',
            '%0A',
            'x'.repeat(300),
          ),
        },
      );
      const asked = fc.record({
        inPath: fc.array(parameter, { minLength: 3, maxLength: 3 }),
        query: fc.dictionary(
          fc.constantFrom(...(operation.parameters ?? []).filter((p) => p.in === 'query').map((p) => p.name), 'after', '__proto__'),
          odd.map(String),
          { maxKeys: 2 },
        ),
        body: content ? after(content[1].schema) : odd,
        how: fc.constantFrom('json', 'json', 'json', 'none', 'text', 'charset', 'encoding', 'cut'),
        cookie: fc.constantFrom('', 'j:{"a":1}', 's:x.y', '%', 'a'.repeat(64)),
        who: fc.constantFrom('owner', 'builder', 'reader') as fc.Arbitrary<'owner' | 'builder' | 'reader'>,
      });
      await fc.assert(
        fc.asyncProperty(asked, async ({ inPath, query, body, how, cookie, who }) => {
          let n = 0;
          const at = path.replace(/\{(\w+)\}/g, (_, name: string) =>
            name === 'caseId' && n === 0 && inPath[2] !== '%' ? (n++, caseId) : inPath[n++ % 3]!,
          );
          let sent: Test = bench.people[who][way](at).query(query).timeout(60_000).redirects(0);
          if (cookie !== '') sent = sent.set('Cookie', `true_ledger_session=${cookie}`);
          if (way !== 'get' && how !== 'none') {
            const text = JSON.stringify(body) ?? '';
            if (how === 'charset') sent = sent.set('Content-Type', 'application/json; charset=klingon').send(text);
            else if (how === 'encoding') sent = sent.set('Content-Type', 'application/json').set('Content-Encoding', 'zzz').send(text);
            else if (how === 'text') sent = sent.set('Content-Type', 'text/plain').send(text);
            else if (how === 'cut')
              sent = sent
                .set('Content-Type', 'multipart/form-data; boundary=x')
                .send(`--x\r\nContent-Disposition: form-data; name="file"; filename="a"\r\n\r\n${text}`);
            else sent = sent.set('Content-Type', 'application/json').send(text);
          }
          const answer = await sent
            .ok(() => true)
            .buffer(true)
            .parse((response, done) => {
              let words = '';
              response.on('data', (d: Buffer) => (words += d.toString('latin1').slice(0, 500)));
              response.on('end', () => done(null, words));
            })
            .catch((error: Error) => ({ status: 599, body: error.message }));
          if (answer.status >= 500)
            failures.push(
              `${answer.status} ${way} ${at} ${JSON.stringify({ query, how, cookie }).slice(0, 120)} ${JSON.stringify(body)?.slice(0, 300)} → ${String(answer.body).slice(0, 160)}`,
            );
        }),
        { numRuns: Number(process.env['FUZZ_RUNS'] ?? 4), seed: Number(process.env['FUZZ_SEED'] ?? 20261129), endOnFailure: true },
      );
    }
    expect(failures).toEqual([]);
  }, 600_000);
});

describe('names that every object has', () => {
  it.each(NAMES)('"%s" is no slot, sheet, cell, feature, option, station or gauge', async (name) => {
    const gauge = {
      id: 'g',
      name: 'g',
      kind: 'outside-micrometer',
      resolutionMm: 0.001,
      expandedUncertaintyMm: 0.003,
      repeatabilityMm: 0.001,
    };
    const bodies = [
      draft('retracted', null, { target: randomUUID(), slot: name, reason: '' }),
      draft('retracted', 'bore.1', { target: randomUUID(), slot: name, reason: '' }),
      draft('reading-taken', 'bore.1', { sheet: name, cell: name, take: 1, text: '1', unit: 'mm', value: 1, gauge, insisted: false }),
      draft('reading-taken', null, { sheet: name, cell: name, take: 1, text: '1', unit: name, value: 1, gauge, insisted: false }),
      draft('evidence-set', null, { feature: name, present: true, note: '' }),
      draft('check-set', null, { check: name, field: name, text: '1', value: 1, unit: null, chosen: [] }),
      draft('check-set', null, { check: 'oil-level', field: name, text: '', value: null, unit: null, chosen: [name] }),
      draft('state-set', name, { state: 'sound' }),
      draft('pattern-set', 'bore.1', { pattern: name, present: true }),
      draft('cause-decided', null, { cause: name, decision: 'open', reason: '' }),
      draft('school-set', null, { question: name, position: name, reason: '' }),
      draft('step-set', null, { step: name, state: 'done', reason: '' }),
      draft('disposition-set', 'bore.1', { operation: name, size: name, reason: '' }),
      draft('sequence-link', null, { from: name, to: name, state: 'rejected', note: '' }),
      draft('answer-set', null, { cause: name, part: 'action', item: name, state: 'open', note: '' }),
      draft('plan-set', null, { route: name }),
      draft('task-moved', null, { task: name, notBeforeHours: 1 }),
    ];
    const failed: string[] = [];
    for (const entry of bodies) {
      const answer = await bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries: [entry] });
      if (answer.status >= 500) failed.push(entry.kind);
    }
    expect(failed).toEqual([]);
    for (const path of ['', '/differential', '/case.json', '/entries'])
      await bench.people.reader.get(`/api/cases/${caseId}${path}`).expect(200);
    for (const [path, body] of [
      ['/api/measure', { sheet: name, readings: [] }],
      ['/api/measure', { sheet: 'journal', spec: name, readings: { [name === '__proto__' ? 'x' : name]: 1 } }],
      ['/api/diagnose', { format: 'true-ledger/case', version: 1, engine: { template: name } }],
      [
        '/api/diagnose',
        {
          format: 'true-ledger/case',
          version: 1,
          engine: { template: 'inline-4-petrol' },
          evidence: [{ feature: name, present: true }],
          checks: [{ check: name, field: name, answer: name }],
          readings: [{ station: name, sheet: name, cell: name, value: 1, unit: name }],
          limits: [{ quantity: name, unit: name }],
        },
      ],
    ] as const)
      expect([path, (await bench.people.reader.post(path).send(body)).status < 500]).toEqual([path, true]);
  });
});

describe('what is asked twice at once', () => {
  it('is one account, one gauge check, one reference, and no failure', async () => {
    const account = { name: 'Twice Born', signIn: 'twice', password: 'a-long-enough-password', role: 'reader' };
    const made = await Promise.all(Array.from({ length: 6 }, () => bench.people.owner.post('/api/accounts').send(account)));
    expect(made.map((a) => a.status).sort()).toEqual([201, 400, 400, 400, 400, 400]);
    await bench.people.builder
      .put('/api/gauges')
      .send({
        id: 'mic',
        name: 'Mic',
        kind: 'outside-micrometer',
        resolutionMm: 0.001,
        expandedUncertaintyMm: 0.003,
        repeatabilityMm: 0.001,
        masterMm: 50,
      })
      .expect(200);
    const check = { id: randomUUID(), masterMm: 50, readMm: 50, note: '' };
    const checks = await Promise.all(Array.from({ length: 6 }, () => bench.people.builder.post('/api/gauges/mic/checks').send(check)));
    expect(checks.every((a) => a.status === 201 || a.status === 409)).toBe(true);
    expect((await bench.people.builder.get('/api/gauges/mic/checks')).body).toHaveLength(1);
  });
});
