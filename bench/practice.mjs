// Notebooks by other hands (bench/practice): made into case files by the notebook line, diagnosed, and scored by what their authors concluded.
// node bench/practice.mjs [--list] [--without-giveaways] [--only a01,b03] [--write: the case files into bench/practice/cases]
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { caseFileOfNotebook, readCaseFile } from '@true-ledger/core/bundle';
import { diagnose } from '@true-ledger/core/diagnosis';
import { engineTemplate } from '@true-ledger/core/engine';
import { readLine } from '@true-ledger/core/notebook';

const { values } = parseArgs({
  options: {
    list: { type: 'boolean', default: false },
    'without-giveaways': { type: 'boolean', default: false },
    only: { type: 'string', default: '' },
    write: { type: 'boolean', default: false },
  },
});
const here = new URL('./practice/', import.meta.url).pathname;
const print = (figure) => console.log(JSON.stringify(figure));
const readHere = (name) => JSON.parse(readFileSync(join(here, name), 'utf8'));

/** A cause is told as sure from this on; below, the case is told as open. */
const SURE = 0.8;

/** Lines of a notebook; those that begin with `!` simply tell the answer. Gauges in brackets are notes of the author. */
function linesOf(id, withGiveaways) {
  return readFileSync(join(here, `${id}.txt`), 'utf8')
    .trim()
    .split('\n')
    .filter((line) => withGiveaways || !line.startsWith('! '))
    .map((line) => line.replace(/^! /, '').replace(/\s*\[[^\]]*\]$/, ''));
}

const expected = readHere('expected.json');
const engines = readHere('engines.json');
const only = values.only === '' ? null : values.only.split(',');
const rows = [];
let lines = 0;
let whole = 0;
let proposing = 0;
for (const id of readdirSync(here)
  .filter((f) => f.endsWith('.txt'))
  .map((f) => f.slice(0, -4))
  .filter((f) => !only || only.includes(f))) {
  const made = caseFileOfNotebook(engines[id], linesOf(id, !values['without-giveaways']));
  if (!made.ok) throw new Error(`${id}: ${made.problem.sentence}`);
  const { file, lines: noted } = made.value;
  lines += noted.length;
  whole += noted.filter((l) => l.left.length === 0).length;
  proposing += noted.filter((l) => l.findings.length + l.features.length > 0 || l.notExamined).length;
  if (values.write) {
    mkdirSync(join(here, 'cases'), { recursive: true });
    writeFileSync(join(here, 'cases', `${id}.json`), `${JSON.stringify(file)}\n`);
  }
  const read = readCaseFile(file);
  if (!read.ok) throw new Error(`${id}: ${read.problem.sentence} (${read.problem.field})`);
  const d = diagnose(read.value.view);
  const want = expected[id];
  // Causes without a record here can be neither found nor missed.
  const wanted = (list) => list.filter((c) => !c.startsWith('other:'));
  const order = d.causes.filter((c) => c.id !== 'something-else');
  const lead = order[0];
  const chance = new Map(d.causes.map((c) => [c.id, c.probability]));
  const right = wanted(want.first).reduce((sum, c) => sum + (chance.get(c) ?? 0), 0);
  const sure = lead.probability >= SURE && d.ending.kind !== 'most likely, not proven' && d.ending.kind !== 'not determined';
  const found = new Set(order.filter((c) => c.probability >= 0.4).map((c) => c.id));
  rows.push({
    id,
    first: want.first.includes(lead.id),
    three: order.slice(0, 3).some((c) => want.three.includes(c.id)),
    wrong: want.wrong.includes(lead.id),
    due: want.unsure,
    sure,
    ending: d.ending.kind === want.ending,
    independent: wanted(want.independent).map((c) => found.has(c)),
    log: Math.log(Math.max(1e-6, Math.min(1, right))),
    brier: order.reduce((sum, c) => sum + (c.probability - (want.first.includes(c.id) ? 1 : 0)) ** 2, 0),
  });
  if (values.list)
    console.log(
      `${id} ${want.first.includes(lead.id) ? 'first' : order.slice(0, 3).some((c) => want.three.includes(c.id)) ? 'three' : '-----'}${want.wrong.includes(lead.id) ? ' WRONG' : ''} ${d.ending.kind === want.ending ? 'end' : `[${d.ending.kind} / ${want.ending}]`} ${want.unsure ? (sure ? 'OVERSURE' : 'unsure') : sure ? 'sure' : 'timid'} want ${want.first.join('+')} got ${d.causes
        .slice(0, 5)
        .map((c) => `${c.id} ${(c.probability * 100).toFixed(0)}`)
        .join(', ')}`,
    );
}
const share = (n, of) => +((100 * n) / of).toFixed(1);
const due = rows.filter((r) => r.due);
const firm = rows.filter((r) => !r.due);
const independent = rows.flatMap((r) => r.independent);
const figure = (name, value, rest) => print({ figure: `practice: ${name}`, value, ...rest });
const among = (name, list, test, rest) =>
  figure(name, share(list.filter(test).length, list.length), { unit: '%', of: list.length, ...rest });
among('leading cause right', rows, (r) => r.first, { aim: 80 });
among('a right cause among three', rows, (r) => r.three, { aim: 95 });
figure('led by one that must not lead', rows.filter((r) => r.wrong).length, { of: rows.length, limit: 0 });
among('ending right', rows, (r) => r.ending, { aim: 70 });
among('unsure where due', due, (r) => !r.sure, { aim: 90 });
among('sure where due', firm, (r) => r.sure, { aim: 70 });
among('independent faults found', independent, Boolean, { aim: 75 });
figure('log score', +rows.reduce((s, r) => s + r.log, 0).toFixed(2), { of: rows.length });
figure('Brier, sum over causes', +(rows.reduce((s, r) => s + r.brier, 0) / rows.length).toFixed(3), { of: rows.length });
figure('lines understood in every clause', share(whole, lines), { unit: '%', of: lines, aim: 70 });
figure('lines that propose something', share(proposing, lines), { unit: '%', of: lines });

// What a keystroke costs: every line read as it would be typed, at its end, after one pass to warm up.
const times = [];
for (const pass of [0, 1])
  for (const id of Object.keys(engines)) {
    const layout = { ...engineTemplate(engines[id].template).layout, ...engines[id] };
    for (const line of linesOf(id, true)) {
      const from = performance.now();
      readLine(line, layout);
      if (pass === 1) times.push(performance.now() - from);
    }
  }
times.sort((a, b) => a - b);
const quantile = (q) => +times[Math.floor(q * (times.length - 1))].toFixed(2);
figure('one line read', quantile(0.5), { unit: 'ms', p95: quantile(0.95), limit: 5, of: times.length });
