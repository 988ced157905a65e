import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import type { Letter, ShopRecord } from '@true-ledger/contract';
import { LETTER_TEMPLATES, NO_PARTIES, type Parties } from '@true-ledger/core/report';
import { readBundleFiles } from '@true-ledger/core/bundle';
import { unzipSync } from 'fflate';
import request from 'supertest';
import { bytesOf, draft, newCase, startBench, type Bench } from './harness.js';

const LETTERHEAD = { name: 'Quay Street Engines', address: 'Shed 2\nQuay Street', contact: 'shed@quay.example', register: 'No. 12' };
const PARTIES: Parties = {
  client: { name: 'Nobody & Daughters', address: 'Lane 3', contact: 'nobody@lane.example' },
  engine: { make: 'Invented', model: 'Four', serial: 'SN-4711-X', hours: '812 h', fitted: 'workboat' },
};
const GAUGE = {
  id: 'mic',
  name: 'Micrometer of the test',
  serial: 'MIC-0815',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.001,
  checkedOn: '2026-09-02',
};
const folder = mkdtempSync(join(tmpdir(), 'tl-shop-'));
let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  await bench.people.builder
    .post(`/api/cases/${caseId}/entries`)
    .send({
      entries: [
        draft('reading-taken', 'crank.pin.1', {
          sheet: 'journal',
          cell: 'front.A',
          take: 1,
          text: '52.981',
          unit: 'mm',
          value: 52.981,
          gauge: GAUGE,
          insisted: false,
        }),
      ],
    })
    .expect(201);
});
afterAll(async () => {
  await bench.close();
  rmSync(folder, { recursive: true, force: true });
});

const at = (path: string): string => `/api/cases/${caseId}/${path}`;
const textOf = (pdf: Buffer): string => {
  const file = join(folder, `${randomUUID()}.pdf`);
  writeFileSync(file, pdf);
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
};

describe('the paper of the shop', () => {
  it('is entered by the owner, and of two changes at once the second is told', async () => {
    expect((await bench.people.reader.get('/api/shop').expect(200)).body).toMatchObject({ version: 0, letterhead: { name: '' } });
    await bench.people.builder.put('/api/shop').send({ basedOn: 0, letterhead: LETTERHEAD }).expect(403);
    const both = await Promise.all([1, 2].map(() => bench.people.owner.put('/api/shop').send({ basedOn: 0, letterhead: LETTERHEAD })));
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    await bench.people.owner.put('/api/shop').send({ basedOn: 0, letterhead: LETTERHEAD }).expect(409);
    const hidden = { ...LETTERHEAD, name: 'Quay\u202eStreet' };
    await bench.people.owner.put('/api/shop').send({ basedOn: 1, letterhead: hidden }).expect(400);
  });
  it('stands on the account with days, gauges and a place to sign', async () => {
    const words = textOf(await bytesOf(bench.people.builder.get(at('report.pdf')).expect(200)));
    const { fingerprint } = (await bench.people.reader.get('/api/seals/keys').expect(200)).body as { fingerprint: string };
    const [entry] = ((await bench.people.reader.get(at('entries')).expect(200)).body as LedgerEntry[]).filter(
      (e) => e.kind === 'reading-taken',
    );
    for (const said of [
      'Quay Street Engines',
      'shed@quay.example',
      'MIC-0815',
      '2026-09-02',
      'Place and date',
      fingerprint,
      entry!.time.slice(0, 10),
    ])
      expect(words).toContain(said);
  });
  it('gives its name to the seal of a bundle', async () => {
    const files = unzipSync(await bytesOf(bench.people.builder.get(at('bundle.zip')).expect(200)));
    expect(readBundleFiles(files).verdict.seal).toMatchObject({ state: 'holds', shop: 'Quay Street Engines' });
  });
});

describe('client and engine', () => {
  it('are kept beside the ledger, for those who work on the case', async () => {
    expect((await bench.people.builder.get(at('parties')).expect(200)).body).toEqual({ parties: NO_PARTIES, version: 0 });
    await bench.people.builder.put(at('parties')).send({ basedOn: 0, parties: PARTIES }).expect(200);
    await bench.people.builder.put(at('parties')).send({ basedOn: 0, parties: NO_PARTIES }).expect(409);
    await bench.people.reader.get(at('parties')).expect(403);
    await bench.people.reader.get(at('report-with-cover.pdf')).expect(403);
    await bench.people.builder.get(`/api/cases/${randomUUID()}/parties`).expect(404);
  });
  it('are in nothing that is given out, unless with the cover sheet', async () => {
    const head = ((await bench.people.builder.get(at('entries')).expect(200)).body as LedgerEntry[]).at(-1)!.hash;
    await bench.people.builder.post(at('account/sign')).send({ head, reason: '', acceptFlags: true }).expect(201);
    const bundle = unzipSync(await bytesOf(bench.people.builder.get(at('bundle.zip')).expect(200)));
    const given = [
      JSON.stringify((await bench.people.reader.get(at('entries')).expect(200)).body),
      textOf(await bytesOf(bench.people.builder.get(at('account/1/account.pdf')).expect(200))),
      ...Object.entries(bundle).map(([name, bytes]) =>
        name.endsWith('.pdf') ? textOf(Buffer.from(bytes)) : Buffer.from(bytes).toString('utf8'),
      ),
    ];
    for (const words of given) for (const secret of ['Nobody', 'SN-4711-X']) expect(words).not.toContain(secret);
    const signed = await bytesOf(bench.people.builder.get(at('account/1/account.pdf')).expect(200));
    const covered = textOf(await bytesOf(bench.people.builder.get(at('account/1/account-with-cover.pdf')).expect(200)));
    const [first = '', ...rest] = covered.split('\f');
    for (const said of ['Quay Street Engines', 'Nobody & Daughters', 'SN-4711-X', 'Version 1 of the account'])
      expect(first).toContain(said);
    expect(rest.join('\f')).toBe(textOf(signed));
  });
  it('go with a link only where it was chosen', async () => {
    const link = async (more: object): Promise<string> =>
      (
        (
          await bench.people.builder
            .post(at('shares'))
            .send({ version: 1, days: 2, note: '', ...more })
            .expect(201)
        ).body as { path: string }
      ).path.replace('/shared/', '/api/shared/');
    const outside = request(bench.app.getHttpServer() as Parameters<typeof request>[0]);
    const [bare, covered] = [await link({}), await link({ cover: true })];
    expect(textOf(await bytesOf(outside.get(`${bare}/account.pdf`).expect(200)))).not.toContain('Nobody');
    expect(textOf(await bytesOf(outside.get(`${covered}/account.pdf`).expect(200)))).toContain('Nobody & Daughters');
    expect((await outside.get(covered).expect(200)).body).toMatchObject({ cover: true });
  });
});

describe('the pages of an account', () => {
  it('never end with a heading, nor part a figure', async () => {
    for (let i = 0; i < 6; i++) {
      // A few lines more each time, so that every heading comes to lie at the foot of a page once.
      const entries = Array.from({ length: 4 }, (_, k) =>
        draft('history-line', null, {
          line: `line-${i}-${k}`,
          text: `Ran ${i}.${k}25 hours`,
          feature: null,
          reliability: 'told',
          date: null,
        }),
      );
      await bench.people.builder.post(at('entries')).send({ entries }).expect(201);
      const pages = textOf(await bytesOf(bench.people.builder.get(at('report.pdf')).expect(200))).split('\f');
      for (const page of pages.slice(0, -1)) {
        const lines = page
          .split('\n')
          .map((line) => line.trim())
          .filter((line) => line && !/page \d+ of \d+$/.test(line));
        expect(lines.at(-1)).not.toMatch(
          /^(Question and engine|Before opening|What was|Findings|Measurements|Causes|Order of events|What answers|What is to be done|Ways on|Conclusion|Method and standing|Gauges|Crankpin 1)/,
        );
        lines.forEach((line, k) => expect(/\d\.$/.test(line) && /^\d/.test(lines[k + 1] ?? '')).toBe(false));
      }
    }
  });
});

describe('letters', () => {
  const letters = (more: object): object => ({ ...LETTER_TEMPLATES, ...more });
  it('are made from the case and the client, and set as they were worded', async () => {
    const made = (await bench.people.builder.get(at('letters/client')).expect(200)).body as Letter;
    expect(made.addressee).toMatch(/^Nobody & Daughters\nLane 3/);
    expect(made.body).toMatch(/^Good day Nobody & Daughters,/);
    expect(made.body).toContain('Version 1 of our account');
    const own = { ...made, body: 'In my own words.\n\n– one ≤ 2\n– two' };
    const words = textOf(await bytesOf(bench.people.builder.post(at('letter.pdf')).send(own).expect(200)));
    for (const said of ['Quay Street Engines', 'Nobody & Daughters', made.subject, 'In my own words.', 'one ≤ 2'])
      expect(words).toContain(said);
    expect(words).not.toContain('Good day');
  });
  it('are not for readers, and go to whom there is a letter', async () => {
    await bench.people.reader.get(at('letters/client')).expect(403);
    await bench.people.reader.post(at('letter.pdf')).send({ addressee: '', subject: '', body: 'x' }).expect(403);
    expect((await bench.people.builder.get(at('letters/nobody')).expect(404)).body).toMatchObject({
      sentence: expect.stringContaining('machine-shop') as string,
    });
    await bench.people.builder
      .post(at('letter.pdf'))
      .send({ addressee: '', subject: '', body: 'x'.repeat(8001) })
      .expect(400);
  });
  it('are worded by the owner, who is told of a field there is not; what is put back follows what ships', async () => {
    const { version } = (await bench.people.owner.get('/api/shop').expect(200)).body as ShopRecord;
    const say = (client: object, basedOn: number) =>
      bench.people.owner.put('/api/shop/letters').send({ basedOn, letters: letters({ client }) });
    await bench.people.builder
      .put('/api/shop/letters')
      .send({ basedOn: version, letters: letters({}) })
      .expect(403);
    expect((await say({ subject: 'Case {case}', body: '{colour}' }, version).expect(400)).body).toMatchObject({
      sentence: expect.stringContaining('{colour} is no field') as string,
    });
    await say({ subject: 'Case {case}', body: 'Short and plain: {failed}' }, version).expect(200);
    await say({ subject: 'late', body: 'late' }, version).expect(409);
    expect((await bench.people.builder.get(at('letters/client')).expect(200)).body).toMatchObject({
      body: expect.stringMatching(/^Short and plain: /) as string,
    });
    const back = (await say(LETTER_TEMPLATES.client, version + 1).expect(200)).body as ShopRecord;
    expect(back.letters).toEqual(LETTER_TEMPLATES);
    expect(back.letterhead).toMatchObject({ name: 'Quay Street Engines' });
  });
});
