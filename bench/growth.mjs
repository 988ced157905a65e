// How answers grow: the shelf with cases, an append and an opening with the entries of a case, and many people at once; each from a tenth of its size.
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { engineTemplate, stationsOf } from '@true-ledger/core/engine';
import pg from 'pg';
import { benchShop } from './shop.mjs';

const shop = await benchShop();
const client = new pg.Client({ connectionString: shop.databaseUrl });
await client.connect();
const layout = engineTemplate('inline-4-petrol').layout;
const stations = stationsOf(layout).map((s) => s.id);
const quantile = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
const round = (x) => Number(x.toFixed(1));
const print = (figure, took, more) =>
  console.log(JSON.stringify({ figure, unit: 'ms', median: round(quantile(took, 0.5)), p95: round(quantile(took, 0.95)), ...more }));

async function times(n, ask) {
  const took = [];
  for (let i = 0; i < n + 3; i++) {
    const from = performance.now();
    await ask(i);
    if (i >= 3) took.push(performance.now() - from);
  }
  return took;
}
/** How long something short takes, again and again, until something long is done. */
async function meanwhile(long, short) {
  const took = [];
  let done = false;
  const ended = long().finally(() => (done = true));
  while (!done) {
    const from = performance.now();
    await short();
    took.push(performance.now() - from);
  }
  await ended;
  return took;
}
const get = async (path) => {
  const answer = await fetch(`${shop.base}${path}`, { headers: { Cookie: shop.cookie } });
  if (!answer.ok) throw new Error(await answer.text());
  return answer.arrayBuffer();
};
const remark = (n) => ({
  id: randomUUID(),
  kind: 'remark',
  station: stations[n % stations.length],
  basedOn: null,
  body: { remark: randomUUID(), text: `bench ${n}` },
});
const open = async () => {
  const id = randomUUID();
  await shop.post('/api/cases', { id, title: 'Growth', reference: '', layout });
  return id;
};
const fill = async (id, from, to) => {
  for (let n = from; n < to; n += 500)
    await shop.post(`/api/cases/${id}/entries`, { entries: Array.from({ length: Math.min(500, to - n) }, (_, k) => remark(n + k)) });
};
const settled = async () => {
  for (;;) {
    const { rows } = await client.query('SELECT count(*)::int AS n FROM cases WHERE "summarySeq" < seq');
    if (rows[0].n === 0) return;
    await new Promise((r) => setTimeout(r, 300));
  }
};

// A case of 500 and of 5 000 entries.
const id = await open();
for (const size of [500, 5000]) {
  await fill(id, size === 500 ? 0 : 560, size);
  await settled();
  print(
    `append of one entry to a case of ${size}`,
    await times(30, (n) => shop.post(`/api/cases/${id}/entries`, { entries: [remark(size + n)] })),
    size === 5000 ? { limit: 30 } : {},
  );
  await settled();
  print(
    `opening a case of ${size} (state over HTTP)`,
    await times(10, () => get(`/api/cases/${id}`)),
    size === 5000 ? { limit: 1500 } : {},
  );
}

// A shelf of 1 000 and of 10 000 cases, with 200 entries each (200 000 and 2 000 000), words of their own, and an outcome in every third.
const ENTRIES_EACH = Number(process.env.ENTRIES_EACH ?? 200);
const CAUSES = ['oil-low', 'normal-wear', 'fuel-in-oil', 'gasket-fault', 'foreign-debris'];
for (const size of [1000, 10_000]) {
  const { rows } = await client.query('SELECT count(*)::int AS n FROM cases');
  await client.query(
    `INSERT INTO cases (id, number, title, reference, seq, head, state, "stateSeq", summary, "summarySeq", updated, facts)
     SELECT gen_random_uuid(), 'B-' || g, 'Bench case ' || g, 'R ' || (g % 97), 0, repeat('0', 64), '{}', 0, (SELECT summary FROM cases WHERE id = $3), 0, now() - g * interval '1 minute',
            (SELECT facts FROM cases WHERE id = $3)
              || jsonb_build_object('confirmed', jsonb_build_array($4::jsonb -> (g % 5)), 'proven', CASE WHEN g % 3 = 0 THEN jsonb_build_array($4::jsonb -> ((g / 3) % 5)) END,
                   'program', jsonb_build_array(jsonb_build_array($4::jsonb -> (g % 5), 0.7), jsonb_build_array($4::jsonb -> ((g / 3) % 5), 0.2)),
                   'words', 'Bench case ' || g || E'\\nscored pin of berth ' || (g % 211) || E'\\n' || repeat('rod upper shell wiped, copper shows; ', 20))
     FROM generate_series($1::int, $2::int) g`,
    [rows[0].n, size - 1, id, JSON.stringify(CAUSES)],
  );
  await client.query(
    `INSERT INTO entries (id, "caseId", seq, kind, station, "authorId", "authorName", time, body, salt, "bodyHash", prev, hash)
     SELECT gen_random_uuid(), c.id, e, 'remark', 'rod.2', '6d617261-0000-4000-8000-000000000001', 'Bench', '2026-01-01T00:00:00Z', '{"text": "scored", "remark": "r"}', '', repeat('0', 64), repeat('0', 64), repeat('0', 64)
       FROM cases c, generate_series(1, $1::int) e WHERE c.number LIKE 'B-%' AND NOT EXISTS (SELECT 1 FROM entries x WHERE x."caseId" = c.id)`,
    [ENTRIES_EACH],
  );
  await client.query('ANALYZE cases, entries');
  print(`first page of a shelf of ${size}`, await times(20, () => get('/api/cases/page?size=50')), size === 10_000 ? { limit: 100 } : {});
  print(
    `search in a shelf of ${size}`,
    await times(20, (n) => get(`/api/cases/page?size=50&words=bench%20${n}7`)),
    size === 10_000 ? { limit: 100 } : {},
  );
  print(
    `words found in everything of ${size} cases`,
    await times(20, (n) => get(`/api/across/search?words=scored%20berth%20${n}7`)),
    size === 10_000 ? { limit: 100 } : {},
  );
  print(`statistics across ${size} cases`, await times(8, () => get('/api/across')), size === 10_000 ? { limit: 1000 } : {});
  const others = await meanwhile(
    () => times(8, () => get('/api/across')),
    () => get('/api/me'),
  );
  print(`a small answer to another while statistics across ${size} cases are asked for`, others, {
    longest: round(Math.max(...others)),
    ...(size === 10_000 ? { limit: 50 } : {}),
  });
}

// People at once: each looks at the shelf, opens his case and writes, with a pause as a hand makes; memory of the server before, along the way and after.
const SECONDS = Number(process.env.LOAD_SECONDS ?? 60);
const rss = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${shop.pid}/status`, 'utf8'))[1]) / 1024;
for (const [people, seconds] of [
  [5, SECONDS / 10],
  [50, SECONDS],
]) {
  const cases = await Promise.all(Array.from({ length: people }, open));
  const took = [];
  let faults = 0;
  const before = rss();
  const until = Date.now() + seconds * 1000;
  // Every tenth of the time: what grows without end rises to the last, what fills up comes to rest.
  const along = [];
  const sampled = setInterval(() => along.push(round(rss())), (seconds * 1000) / 10);
  await Promise.all(
    cases.map(async (own, p) => {
      for (let n = 0; Date.now() < until; n++) {
        for (const ask of [
          () => shop.post(`/api/cases/${own}/entries`, { entries: [remark(n * people + p)] }),
          () => get(n % 5 === 0 ? '/api/cases/page' : `/api/cases/${own}/entries?after=${n}`),
        ]) {
          const from = performance.now();
          await ask().catch(() => faults++);
          took.push(performance.now() - from);
        }
        await new Promise((r) => setTimeout(r, 700 + ((p * 37 + n * 101) % 600)));
      }
    }),
  );
  clearInterval(sampled);
  print(`a request while ${people} people work for ${seconds} s`, took, {
    requests: took.length,
    faults,
    memoryBeforeMb: round(before),
    memoryAfterMb: round(rss()),
    memoryAlongMb: along,
    ...(people === 50 ? { limit: 300 } : {}),
  });
}
await client.end();
await shop.stop();
