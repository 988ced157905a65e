import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { GaugeMessage } from '@true-ledger/contract';
import { NO_FAULTS } from '@true-ledger/core/measure';
import type request from 'supertest';
import { WebSocket } from 'ws';
import { appOn, draft, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
let other: Bench['app'] | null = null;
beforeAll(async () => void (bench = await startBench()));
afterAll(async () => {
  await other?.close();
  await bench.close();
});

const MIC = {
  id: 'mic',
  name: 'Micrometer 50–75',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.001,
  masterMm: 50,
};
const faults = (change: Partial<typeof NO_FAULTS> = {}) => ({ ...NO_FAULTS, ...change });
const as = (who: keyof Bench['people']): request.Agent => bench.people[who];
const hold = (change: Partial<typeof NO_FAULTS> = {}, id = 'mic') =>
  as('builder').put(`/api/stand-ins/${id}`).send(faults(change)).expect(200);
const press = async (at: unknown): Promise<GaugeMessage> =>
  (await as('builder').post('/api/stand-ins/press').send({ type: 'press', gauge: 'mic', at }).expect(200)).body as GaugeMessage;

describe('gauges', () => {
  it('are kept by builders, read by readers, refused when they make no sense', async () => {
    await as('builder').put('/api/gauges').send(MIC).expect(200);
    await as('reader').put('/api/gauges').send(MIC).expect(403);
    await as('builder')
      .put('/api/gauges')
      .send({ ...MIC, resolutionMm: 0 })
      .expect(400);
    await as('builder')
      .put('/api/gauges')
      .send({ ...MIC, kind: 'stick' })
      .expect(400);
    expect((await as('reader').get('/api/gauges').expect(200)).body).toEqual([MIC]);
  });
  it('carry their checks: each once, the record dated by the last', async () => {
    const check = { id: randomUUID(), masterMm: 50, readMm: 50.001, note: 'after cleaning' };
    await as('builder').post('/api/gauges/mic/checks').send(check).expect(201);
    await as('builder').post('/api/gauges/mic/checks').send(check).expect(201);
    const found = (await as('reader').get('/api/gauges/mic/checks').expect(200)).body;
    expect(found).toEqual([expect.objectContaining({ ...check, gaugeId: 'mic', by: 'The builder' })]);
    expect((await as('reader').get('/api/gauges').expect(200)).body[0].checkedOn).toBe(new Date().toISOString().slice(0, 10));
    await as('reader')
      .post('/api/gauges/mic/checks')
      .send({ ...check, id: randomUUID() })
      .expect(403);
    await as('builder')
      .post('/api/gauges/none/checks')
      .send({ ...check, id: randomUUID() })
      .expect(404);
    await as('builder')
      .post('/api/gauges/mic/checks')
      .send({ ...check, id: randomUUID(), masterMm: -1 })
      .expect(400);
  });
});

describe('a stand-in', () => {
  it('reads its master with bias, noise and drift, sticks and drops out as it is set', async () => {
    await hold({ noise: 0 });
    expect(await press('master')).toEqual({ type: 'reading', gauge: 'mic', text: '50.000', unit: 'mm', at: 'master' });
    await hold({ noise: 0, biasMm: 0.02 });
    expect(await press('master')).toMatchObject({ text: '50.020' });
    await hold({ noise: 0, driftMm: 0.002 });
    const drifting = [await press('master'), await press('master'), await press('master')].map((m) => (m as { text: string }).text);
    expect(drifting).toEqual(['50.000', '50.002', '50.004']);
    await hold({ noise: 0, biasMm: 0.5, stuck: true });
    expect(await press('master')).toMatchObject({ text: '50.004' });
    await hold({ silent: true });
    expect(await press('master')).toEqual({ type: 'silent', gauge: 'mic', at: 'master' });
    expect((await as('reader').get('/api/stand-ins').expect(200)).body).toEqual([
      expect.objectContaining({ gaugeId: 'mic', last: '50.004', faults: faults({ silent: true }) }),
    ]);
  });
  it('agrees with what was read at a place before, and reads the same truth for every gauge', async () => {
    await hold({ noise: 0 });
    const caseId = await newCase(as('builder'));
    const spot = { caseId, station: 'crank.pin.2', sheet: 'journal', cell: 'front.A' };
    const first = (await press(spot)) as { text: string };
    expect(await press(spot)).toMatchObject({ text: first.text });
    expect(Number(first.text)).toBeGreaterThan(40);
    const text = (Number(first.text) - 0.1).toFixed(3);
    await as('builder')
      .post(`/api/cases/${caseId}/entries`)
      .send({
        entries: [
          draft('reading-taken', 'crank.pin.2', {
            sheet: 'journal',
            cell: 'front.A',
            take: 1,
            text,
            unit: 'mm',
            value: Number(text),
            gauge: MIC,
            insisted: false,
          }),
        ],
      })
      .expect(201);
    expect(await press(spot)).toMatchObject({ text });
  });
  it('for a torque wrench reads fasteners in N·m, and nothing else', async () => {
    await as('builder')
      .put('/api/gauges')
      .send({ ...MIC, id: 'wrench', name: 'Wrench', kind: 'torque-wrench', resolutionMm: 0.1 })
      .expect(200);
    await hold({ noise: 0 }, 'wrench');
    const caseId = await newCase(as('builder'));
    const put = (gauge: string, change: object) =>
      as('builder')
        .post('/api/stand-ins/press')
        .send({ type: 'press', gauge, at: { caseId, station: null, sheet: 'break-loose', cell: 'head-0/1', ...change } });
    const read = (await put('wrench', {}).expect(200)).body as { text: string; unit: string };
    expect(read.unit).toBe('N·m');
    expect(Number(read.text)).toBeGreaterThan(60);
    expect((await put('wrench', {}).expect(200)).body.text).toBe(read.text);
    for (const [gauge, change] of [
      ['wrench', { cell: 'head-0/99' }],
      ['wrench', { station: 'crank.pin.1', sheet: 'journal', cell: 'front.A' }],
      ['mic', {}],
    ] as const)
      expect((await put(gauge, change).expect(400)).body.sentence).toMatch(/torque wrench reads fasteners/);
  });
  it.each([
    ['a place the engine has not', { station: 'crank.pin.99', sheet: 'journal', cell: 'front.A' }],
    ['a cell the sheet has not', { station: 'crank.pin.1', sheet: 'journal', cell: 'front.Z' }],
  ])('refuses %s', async (_, where) => {
    const caseId = await newCase(as('builder'));
    const answer = await as('builder')
      .post('/api/stand-ins/press')
      .send({ type: 'press', gauge: 'mic', at: { caseId, ...where } });
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.body.sentence).toMatch(/no such place/);
  });
  it('is set and put away by builders only, and needs a gauge', async () => {
    await as('reader').put('/api/stand-ins/mic').send(faults()).expect(403);
    await as('builder').put('/api/stand-ins/none').send(faults()).expect(404);
    await as('builder')
      .put('/api/stand-ins/mic')
      .send(faults({ noise: -1 }))
      .expect(400);
    await as('builder').delete('/api/stand-ins/mic').expect(204);
    await as('builder').post('/api/stand-ins/press').send({ type: 'press', gauge: 'mic', at: 'master' }).expect(404);
  });
  it('draws a wall with the profilometer: peaks that wear, and nothing when it drops out', async () => {
    const stylus = { ...MIC, id: 'stylus', name: 'Stylus', kind: 'profilometer', resolutionMm: 0.00001 };
    await as('builder').put('/api/gauges').send(stylus).expect(200);
    await as('builder').get('/api/stand-ins/stylus/trace').expect(404);
    await hold({}, 'stylus');
    const trace = (await as('builder').get('/api/stand-ins/stylus/trace?worn=0.5').expect(200)).text.trim().split('\n');
    expect(trace[0]).toBe('x (mm),z (µm)');
    expect(trace).toHaveLength(8001);
    await hold({ silent: true }, 'stylus');
    expect((await as('builder').get('/api/stand-ins/stylus/trace').expect(400)).body.sentence).toMatch(/sent nothing/);
  });
});

describe('the wire', () => {
  const address = (app = bench.app): string => `127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  async function cookieOf(who: string, app = bench.app): Promise<string> {
    const answer = await fetch(`http://${address(app)}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ signIn: who, password: 'a-long-enough-password' }),
    });
    return answer.headers.getSetCookie()[0]!.split(';')[0]!;
  }
  /** A page on the wire: what it heard, and the code when it was closed. */
  class Line {
    readonly heard: GaugeMessage[] = [];
    closed: number | null = null;
    constructor(readonly socket: WebSocket) {
      socket.on('message', (data: Buffer) => this.heard.push(JSON.parse(data.toString()) as GaugeMessage));
      socket.on('close', (code) => (this.closed = code));
      socket.on('error', () => undefined);
    }
    static async open(who: string | null, { origin, app = bench.app }: { origin?: string; app?: Bench['app'] } = {}): Promise<Line> {
      const socket = new WebSocket(`ws://${address(app)}/api/gauges/live`, {
        headers: { origin: origin ?? `http://${address(app)}`, ...(who ? { cookie: await cookieOf(who, app) } : {}) },
      });
      const line = new Line(socket);
      await new Promise((resolve) => socket.once('open', resolve).once('close', resolve));
      return line;
    }
    async until(done: () => boolean): Promise<void> {
      for (let k = 0; k < 100 && !done(); k++) await new Promise((r) => setTimeout(r, 30));
      if (!done()) throw new Error(`heard ${JSON.stringify(this.heard)}, closed ${this.closed}`);
    }
  }

  beforeAll(async () => {
    await as('builder').put('/api/gauges').send(MIC).expect(200);
    await hold({ noise: 0 });
  });

  it('carries a press to every open page, in the order they were made', async () => {
    const [one, two] = [await Line.open('builder'), await Line.open('second')];
    const caseId = await newCase(as('builder'));
    const at = { caseId, station: 'crank.pin.1', sheet: 'journal', cell: 'front.A' };
    one.socket.send(JSON.stringify({ type: 'at', gauge: 'mic', at }));
    one.socket.send(JSON.stringify({ type: 'press', gauge: 'mic', at: null }));
    one.socket.send(JSON.stringify({ type: 'press', gauge: 'mic', at: 'master' }));
    await two.until(() => two.heard.filter((m) => m.type === 'reading').length === 2);
    await one.until(() => one.heard.length >= 2);
    expect(two.heard.map((m) => (m as { at: unknown }).at)).toEqual([at, 'master']);
    one.socket.close();
    two.socket.close();
  });
  it('reaches a page that hangs on another process of the same shop', async () => {
    const second = await startSecond();
    const far = await Line.open('second', { app: second });
    await press('master');
    await far.until(() => far.heard.some((m) => m.type === 'reading'));
    far.socket.close();
  });
  it.each([
    ['nobody', null, {}, 4401],
    ['a page of another site', 'builder', { origin: 'http://elsewhere.example' }, 4403],
  ])('is closed to %s', async (_, who, options, code) => {
    const line = await Line.open(who, options);
    await line.until(() => line.closed !== null);
    expect(line.closed).toBe(code);
  });
  it('lets readers hear, not press, and tells what it does not understand', async () => {
    const reader = await Line.open('reader');
    reader.socket.send(JSON.stringify({ type: 'press', gauge: 'mic', at: 'master' }));
    await reader.until(() => reader.heard.length === 1);
    expect(reader.heard[0]).toMatchObject({ type: 'refused', sentence: expect.stringMatching(/Readers take no readings/) });
    await press('master');
    await reader.until(() => reader.heard.some((m) => m.type === 'reading'));
    const builder = await Line.open('builder');
    for (const text of ['{', '[]', JSON.stringify({ type: 'melt' }), JSON.stringify({ type: 'press', gauge: 'none', at: 'master' })])
      builder.socket.send(text);
    await builder.until(() => builder.heard.filter((m) => m.type === 'refused').length === 4);
    builder.socket.send('x'.repeat(5000));
    await builder.until(() => builder.closed !== null);
    expect(builder.closed).toBe(1009);
    reader.socket.close();
  });

  async function startSecond(): Promise<Bench['app']> {
    other = await appOn(bench.url);
    return other;
  }
});
