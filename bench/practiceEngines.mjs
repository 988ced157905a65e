// Strips practice engines by two rules and prints, by level: causes found, minutes spent, features that nothing can decide any more because what showed them was passed over, and the score of what the evidence carried.
// node bench/practiceEngines.mjs [--engines 200] [--level N]   (a run of 200 takes some six minutes)
// The engines are drawn from the program's own table: this weighs one rule against the other, and says nothing of whether the table is right.
import { parseArgs } from 'node:util';
import { drawEngine, PRACTICE_LEVELS, stripByNextCheck, stripPlainly } from '@true-ledger/core/practiceEngine';

const { values } = parseArgs({ options: { engines: { type: 'string', default: '200' }, level: { type: 'string' } } });
const levels = PRACTICE_LEVELS.filter((l) => !values.level || l.level === Number(values.level));
const each = Math.ceil(Number(values.engines) / levels.length);
const RULES = { plain: stripPlainly, 'next check': stripByNextCheck };
const round = (x, digits = 2) => Number(x.toFixed(digits));

const all = Object.fromEntries(Object.keys(RULES).map((rule) => [rule, []]));
for (const { level } of levels) {
  const here = Object.fromEntries(Object.keys(RULES).map((rule) => [rule, []]));
  for (let seed = 1; seed <= each; seed++) {
    // Seeds no test and no demonstration uses.
    const hidden = drawEngine(level, 10_000 + seed);
    for (const [rule, strip] of Object.entries(RULES)) here[rule].push(strip(hidden));
  }
  for (const [rule, runs] of Object.entries(here)) {
    all[rule].push(...runs);
    tell(rule, runs, { level });
  }
}
for (const [rule, runs] of Object.entries(all)) tell(rule, runs, { level: 'all' });

function tell(rule, runs, where) {
  const mean = (of) => runs.reduce((s, r) => s + of(r), 0) / runs.length;
  console.log(
    JSON.stringify({
      bench: 'practice engines',
      ...where,
      rule,
      engines: runs.length,
      leadingRight: round(mean((r) => (r.leadingRight ? 1 : 0))),
      found: round(runs.reduce((s, r) => s + r.found, 0) / runs.reduce((s, r) => s + r.of, 0)),
      minutes: round(
        mean((r) => r.minutes),
        0,
      ),
      looks: round(
        mean((r) => r.looks),
        1,
      ),
      lost: round(
        mean((r) => r.lost),
        1,
      ),
      logScore: round(mean((r) => -r.logScore)),
    }),
  );
}
