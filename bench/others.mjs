// How long others wait while one request is made to swell: somebody asks who he is every 20 ms meanwhile. Run by `npm run bench`.
import { randomUUID } from 'node:crypto';
import { crc32, deflateSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { engineTemplate } from '@true-ledger/core/engine';
import { benchShop } from './shop.mjs';

const LIMIT_MS = 200;
const shop = await benchShop();
try {
  const id = randomUUID();
  await shop.post('/api/cases', { id, title: 'Others', reference: '', layout: engineTemplate('inline-4-petrol').layout });
  const draft = (kind, station, body) => ({ id: randomUUID(), kind, station, body, basedOn: null });
  const form = (fields, bytes, name, type) => {
    const made = new FormData();
    for (const [key, value] of Object.entries(fields)) made.set(key, value);
    made.set('file', new Blob([bytes], { type }), name);
    return made;
  };
  const ask = (method, path, body) =>
    fetch(`${shop.base}${path}`, {
      method,
      headers: { Cookie: shop.cookie, ...(body instanceof FormData || !body ? {} : { 'Content-Type': 'application/json' }) },
      body: body instanceof FormData ? body : body && JSON.stringify(body),
    }).then(async (answer) => {
      await answer.arrayBuffer();
      return answer.status;
    });

  const clip = (bytes) => () =>
    ask('POST', `/api/cases/${id}/clips`, form({ entryId: randomUUID(), station: '' }, bytes, 'a.webm', 'video/webm'));
  const endless = Buffer.alloc(254);
  Buffer.from('3026b2758e66cf11a6d900aa0062ce6c', 'hex').copy(endless);
  endless.writeBigUInt64LE(230n, 16);
  const chained = Buffer.concat(Array(400_000).fill(Buffer.from('ID3\x04\0\0\0\0\0\0', 'latin1')));

  const chunk = (type, data) => {
    const [head, tail, body] = [Buffer.alloc(4), Buffer.alloc(4), Buffer.concat([Buffer.from(type, 'latin1'), data])];
    head.writeUInt32BE(data.length);
    tail.writeUInt32BE(crc32(body));
    return Buffer.concat([head, body, tail]);
  };
  const profile = Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    chunk('IHDR', Buffer.from('00000002000000020802000000', 'hex')),
    chunk('iCCP', Buffer.concat([Buffer.from('p\0\0', 'latin1'), deflateSync(Buffer.alloc(1500 * 1024 * 1024), { level: 9 })])),
    chunk('IDAT', deflateSync(Buffer.alloc(14))),
    chunk('IEND', Buffer.alloc(0)),
  ]);

  const scribble = (n) => ({
    id: `m${n}`,
    shape: 'stroke',
    class: 'lining',
    points: Array.from({ length: 2000 }, (_, i) => [((i * 7919) % 1000) / 1000, ((i * 104729) % 1000) / 1000]),
    radiusMm: 200,
    made: 'found-so',
  });
  const scribbled = {
    format: 'true-ledger/case',
    version: 1,
    engine: { template: 'inline-4-petrol' },
    findings: [{ station: 'rod.1.shell.upper', grade: 2, marks: Array.from({ length: 10 }, (_, n) => scribble(n)) }],
  };
  const append = (entries) => () => ask('POST', `/api/cases/${id}/entries`, { entries });
  const bundle = (files) => {
    const zip = zipSync(files);
    return () => ask('POST', '/api/bundles', form({}, zip, 'case.zip', 'application/zip'));
  };

  const dear = [
    ['a clip of 254 bytes that sends its reader in circles', clip(endless)],
    ['a clip of 4 MB of headers within headers', clip(chained)],
    [
      'a picture whose colour profile inflates to 1.5 GB',
      () => ask('POST', `/api/cases/${id}/photos`, form({ entryId: randomUUID(), station: 'bore.1' }, profile, 'a.png', 'image/png')),
    ],
    ['a case file with ten strokes of 2 000 points', () => ask('POST', '/api/diagnose', scribbled)],
    [
      'an append of 30 strokes of 2 000 points',
      append(Array.from({ length: 30 }, (_, n) => draft('mark-made', 'rod.1.shell.upper', { mark: scribble(n) }))),
    ],
    ['an append of 4 000 tabs', append([draft('intake-set', null, { field: 'complaint', value: 'it knocked\t'.padEnd(4000, '\t') })])],
    ['the PDF of that case', () => ask('GET', `/api/cases/${id}/report.pdf`)],
    ['tags for every place', () => ask('GET', `/api/cases/${id}/tags.pdf`)],
    [
      'a bundle whose case file unpacks to 60 MB',
      bundle({ 'ledger.jsonl': strToU8('{}\n'), 'case.json': strToU8(`{"format":"true-ledger/case","version":1}${' '.repeat(60e6)}`) }),
    ],
    [
      'a bundle of 30 MB of brackets',
      bundle({ 'ledger.jsonl': strToU8('['.repeat(30e6)), 'case.json': strToU8('{"format":"true-ledger/case","version":1}') }),
    ],
  ];
  // Making the bytes took longer than a connection is kept; what was closed meanwhile is heard of first.
  await new Promise((r) => setTimeout(r, 200));
  let done = false;
  const waits = async () => {
    let longest = 0;
    let count = 0;
    while (!done) {
      const from = performance.now();
      await ask('GET', '/api/me');
      longest = Math.max(longest, performance.now() - from);
      count++;
      await new Promise((r) => setTimeout(r, 20));
    }
    return { longest, count };
  };
  for (const [what, send] of dear) {
    done = false;
    const others = waits();
    await new Promise((r) => setTimeout(r, 100));
    const from = performance.now();
    const status = await send();
    const took = performance.now() - from;
    done = true;
    const { longest, count } = await others;
    console.log(
      JSON.stringify({
        figure: `longest wait of others during ${what}`,
        unit: 'ms',
        value: Number(longest.toFixed(0)),
        limit: LIMIT_MS,
        asked: count,
        itself: Number(took.toFixed(0)),
        status,
      }),
    );
  }
} finally {
  await shop.stop();
}
