import { usualSetting } from '../running/setting.js';
import { engineTemplate } from '../engine/templates.js';
import { checkEntry } from '../gate/admit.js';
import type { CaseState } from '../ledger/state.js';
import { Log } from '../testing/engineLog.js';
import { openedCase, write } from '../testing/write.js';
import { entryWords, slotOf, type EntryKind } from './entries.js';
import { ENTRY_DEFINITIONS } from './registry.js';

// Every kind of entry by example: what it says in the ledger, which field it writes, and what the engine and the case hold against it.
/** The sheet of a practice engine, with what was answered and what was in it. */
function scored(answer: object[], was: string | null): object {
  return {
    level: 3,
    seed: 7,
    version: 1,
    answer,
    score: {
      causes: was === null ? [] : [{ cause: was, place: null, held: 0, carried: 0.2 }],
      right: was === null,
      own: { log: 1, brier: 0.5 },
      evidence: { log: 1, brier: 0.5 },
      minutes: 42,
      parts: [],
      missed: [],
      best: null,
      untrue: [],
      cost: { currency: 'EUR', bench: 0, again: 0, goneBack: [], goodAway: [] },
    },
  };
}

const SHA = 'ab'.repeat(32);
const ID = '11111111-1111-4111-8111-111111111111';
const { layout } = engineTemplate('inline-4-petrol')!;
const CASE = openedCase();
const GAUGE = {
  id: 'mic',
  name: 'Mic',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.001,
};
const reading = (more: object = {}): object => ({
  sheet: 'journal',
  cell: 'mid.A',
  take: 1,
  text: '52.96',
  unit: 'mm',
  value: 52.96,
  gauge: GAUGE,
  insisted: false,
  ...more,
});
const mark = (more: object = {}): object => ({
  mark: { id: ID, made: 'found-so', radiusMm: 2, shape: 'stroke', class: 'lining', points: [[0.5, 0.5]], ...more },
});

const OUTCOME = { on: '2026-11-01', outcome: 'proved', by: 'court', cause: null, service: null, cost: null, days: null, note: '' };
type Example = readonly [kind: EntryKind, station: string | null, body: object, words: string, slot: string];
const EXAMPLES: readonly Example[] = [
  ['case-opened', null, { number: '7', title: 'Winch' }, '7 Winch', 'case'],
  ['layout-set', null, { layout }, `4 cylinders inline, ${layout.boreMm} × ${layout.strokeMm} mm, 5 mains`, 'layout'],
  ['intake-set', null, { field: 'complaint', value: 'knock' }, 'complaint: knock', 'intake:complaint'],
  ['intake-set', null, { field: 'complaint', value: '' }, 'complaint: (emptied)', 'intake:complaint'],
  [
    'history-line',
    null,
    { line: ID, text: 'ran low twice', feature: null, reliability: 'told', date: null },
    'ran low twice – told',
    `history:${ID}`,
  ],
  [
    'part-kept',
    'crank.pin.1',
    { kept: true, name: 'Crank', size: 'pins 0.25 under', place: 'rack 3', note: '' },
    'Crank, pins 0.25 under, lies rack 3',
    'kept',
  ],
  ['part-kept', 'crank.pin.1', { kept: false, name: 'Crank', size: '', place: '', note: '' }, 'not on the shelf any more', 'kept'],
  ['part-wanted', 'bore.1', { what: 'Liner', state: 'wanted', from: '', shelf: null }, 'Liner', 'wanted'],
  ['part-wanted', 'bore.1', { what: 'Liner', state: 'had', from: 'the maker', shelf: null }, 'Liner: had from the maker', 'wanted'],
  ['part-wanted', 'bore.1', { what: 'Liner', state: 'given-up', from: '', shelf: null }, 'Liner: given up', 'wanted'],
  ['state-set', 'bore.1', { state: 'not-present' }, 'not present', 'state'],
  ['grade-confirmed', 'bore.1', { grade: 2, proposed: 2, reason: '', book: '1' }, '2 Worn', 'grade'],
  [
    'grade-confirmed',
    'bore.1',
    { grade: 3, proposed: 2, reason: 'deeper than it looks', book: '1' },
    '3 Through, 2 Worn was proposed: deeper than it looks',
    'grade',
  ],
  ['second-opinion', 'bore.1', { grade: 1, note: '' }, '1 Witness', 'second-opinion'],
  [
    'sight-set',
    null,
    {
      note: 'n1',
      sight: 'sight-scored',
      present: true,
      among: ['bore.1', 'bore.2'],
      of: 1,
      grade: 2,
      reliability: 'told',
      words: 'one of them',
    },
    'Scored: there at 1 of bore.1, bore.2 (told)',
    'sight:n1',
  ],
  [
    'sight-set',
    null,
    { note: 'n2', sight: 'wiping', present: false, among: ['rod.1.shell.upper'], of: null, grade: null, reliability: 'seen', words: '' },
    'Wiping from too little oil: not there at rod.1.shell.upper (seen)',
    'sight:n2',
  ],
  ['pattern-set', 'rod.2.shell.lower', { pattern: 'wiping', present: true }, 'Wiping from too little oil: there', 'pattern:wiping'],
  [
    'pattern-set',
    'rod.2.shell.lower',
    { pattern: 'of-a-later-version', present: false },
    'of-a-later-version: not there',
    'pattern:of-a-later-version',
  ],
  [
    'evidence-set',
    null,
    { feature: 'of-a-later-version', present: true, note: 'seen' },
    'of-a-later-version: found; seen',
    'evidence:of-a-later-version',
  ],
  [
    'cause-decided',
    null,
    { cause: 'oil-low', decision: 'rejected', reason: 'it was full' },
    'Oil level run low or none rejected: it was full',
    'cause:oil-low',
  ],
  ['answerable-set', null, { who: 'use', reason: 'run low' }, 'use: run low', 'answerable'],
  [
    'answer-set',
    null,
    { cause: 'oil-low', part: 'action', item: 'find the leak', state: 'not-needed', note: 'none' },
    'Oil level run low or none: find the leak not needed; none',
    'answer:oil-low:action:find the leak',
  ],
  [
    'unexplained-set',
    null,
    { place: 'bore.3', accepted: true, reason: 'old' },
    'bore.3 accepted as unexplained: old',
    'unexplained:bore.3',
  ],
  ['unexplained-set', null, { place: 'bore.3', accepted: false, reason: '' }, 'bore.3 not accepted: ', 'unexplained:bore.3'],
  ['remark', 'bore.1', { remark: ID, text: '' }, '(emptied)', `remark:${ID}`],
  ['reading-taken', 'crank.pin.2', reading(), 'journal, mid.A: 52.96 mm', 'reading:journal:mid.A:1'],
  [
    'reading-taken',
    'crank.pin.2',
    reading({ take: 2, text: '2.0850"', value: 52.959, insisted: true, simulated: true }),
    'journal, mid.A, take 2: 2.0850" (insisted) (simulated)',
    'reading:journal:mid.A:2',
  ],
  ['mark-made', 'bore.1', mark(), 'lining', `mark:${ID}`],
  [
    'mark-made',
    'bore.1',
    mark({
      shape: 'line',
      depth: 'nail',
      points: [
        [0.1, 0.5],
        [0.4, 0.5],
      ],
    }),
    'lining line, nail',
    `mark:${ID}`,
  ],
  ['assembly-set', null, { step: 'rod-cap-2', state: 'done', note: 'over' }, 'rod-cap-2 done: over', 'assembly:rod-cap-2'],
  [
    'run-kept',
    null,
    {
      bearing: 'rod.2',
      setting: {
        speedRpm: 900,
        loadShare: 1,
        oilGrade: '10W-40',
        oilTemperatureC: 120,
        fuelShare: 0.1,
        clearancesMm: { 'rod.2': 0.08 },
        faults: [],
        aslant: null,
        bearing: 'rod.2',
      },
      note: 'lugging',
    },
    'rod.2: 900 rpm, load 100 %, oil 120 °C; lugging',
    'run:rod.2',
  ],
  ['run-kept', null, { bearing: 'main.3', setting: null, note: '' }, 'main.3: taken out', 'run:main.3'],
  [
    'outcome-set',
    null,
    { on: '2026-11-01', outcome: 'proved', by: 'court', cause: null, service: null, cost: null, days: null, note: '' },
    '2026-11-01: proved, by court',
    'outcome:2026-11-01:court',
  ],
  [
    'outcome-set',
    null,
    { on: '2026-11-01', outcome: 'disproved', by: 'later-strip', cause: 'surge', service: 40, cost: null, days: null, note: 'seen' },
    '2026-11-01: disproved, by later strip; it was Oil surge in turns, on slopes or heeled; seen',
    'outcome:2026-11-01:later-strip',
  ],
  ['outcome-set', null, { ...OUTCOME, outcome: null }, 'of 2026-11-01: taken back', 'outcome:2026-11-01:court'],
  ['priors-taken', null, { priors: null }, 'the table alone', 'priors'],
  ['practice-set', null, { level: 3, version: 1, sealed: true }, 'level 3, seed not shown', 'practice'],
  ['practice-set', null, { level: 3, version: 1, sealed: false }, 'level 3', 'practice'],
  [
    'practice-looked',
    null,
    { look: 'check:dipstick', name: 'Dipstick', minutes: 2, words: ['Level: full'], picture: false },
    'Dipstick, 2 min: Level: full',
    'look:check:dipstick',
  ],
  [
    'practice-scored',
    null,
    scored([{ cause: 'oil-low', percent: 70 }], 'surge'),
    'not right: Oil level run low or none 70 %; it was Oil surge in turns, on slopes or heeled; 42 min',
    'practice-scored',
  ],
  ['practice-scored', null, scored([], null), 'right: none named; it was nothing; 42 min', 'practice-scored'],
  ['oil-log-taken', null, { log: null }, 'taken out', 'oil-log'],
  ['oil-log-taken', null, { log: new Log().level('2024-03-01', 10, 1).taken() }, 'E-7, 1 line from 2024-03-01 to 2024-03-01', 'oil-log'],
  ['wear-likened', null, { bearing: 'main.3', of: '0'.repeat(64), forms: null }, 'main.3: taken back', 'likened:main.3'],
  ['proof-set', null, { proof: 'end-float', text: '0.12', unit: 'mm', value: 0.12 }, 'end-float: 0.12 mm', 'proof:end-float'],
  ['proof-set', null, { proof: 'seen:feeds', text: 'no', unit: '', value: null }, 'seen:feeds: no', 'proof:seen:feeds'],
  ['proof-set', null, { proof: 'end-float', text: '', unit: '', value: null }, 'end-float: open again', 'proof:end-float'],
  [
    'torque-set',
    null,
    { fasteners: 'rod-bolts', text: '20 N·m; 60°', source: 'maker' },
    'rod-bolts: 20 N·m; 60°, maker',
    'torque:rod-bolts',
  ],
  ['torque-set', null, { fasteners: 'rod-bolts', text: '', source: '' }, 'rod-bolts: not known', 'torque:rod-bolts'],
  ['bag-set', null, { bag: 'pan', counted: 19, note: 'one in the pan' }, 'pan: 19 counted; one in the pan', 'bag:pan'],
  ['blur-set', 'bore.1', { sha256: SHA, regions: [{ x: 0.5, y: 0.5, r: 0.1 }] }, '1 regions of abababab', `blur:${SHA}`],
  ['bolt-torque', null, { pattern: 'rod.1', position: 'a', text: '60', unit: 'N·m', newtonMetre: 60 }, 'rod.1 a: 60 N·m', 'bolt:rod.1:a'],
  [
    'build-mark',
    null,
    { mark: ID, kind: 'paint', text: 'yellow dot', pointsTo: 'opened-before' },
    'yellow dot – opened before',
    `build:${ID}`,
  ],
  [
    'cap-checked',
    null,
    { cap: 'rod.2', number: '', agrees: false, joint: 'step', note: '' },
    'rod.2: no number, does not agree, joint step',
    'cap:rod.2',
  ],
  ['case-shelved', null, { as: 'in-hand', reason: '' }, 'in hand', 'shelved'],
  ['case-shelved', null, { as: 'withdrawn', reason: 'opened twice' }, 'withdrawn: opened twice', 'shelved'],
  [
    'clip-added',
    null,
    { sha256: SHA, name: 'knock.webm', mime: 'audio/webm', bytes: 9, seconds: 12.4, takenAt: null },
    'knock.webm, 12 s',
    `clip:${SHA}`,
  ],
  [
    'corners-set',
    'bore.1',
    {
      sha256: SHA,
      corners: [
        [0, 0],
        [0, 9],
        [9, 9],
        [9, 0],
      ],
    },
    'four corners on abababab',
    `corners:${SHA}`,
  ],
  ['ease-torque', null, { index: 0, cap: '', text: '80', unit: 'N·m', newtonMetre: 80 }, 'as it came: 80 N·m', 'ease:0'],
  ['ease-torque', null, { index: 1, cap: 'main.2', text: '20', unit: 'N·m', newtonMetre: 20 }, 'main.2 eased: 20 N·m', 'ease:1'],
  ['expectation', null, { expectation: ID, step: 'pan', text: 'bronze', held: null }, 'bronze', `expectation:${ID}`],
  ['expectation', null, { expectation: ID, step: 'pan', text: 'bronze', held: false }, 'bronze – did not hold', `expectation:${ID}`],
  [
    'open-question',
    null,
    { question: ID, to: 'client', text: 'which oil?', answer: null, answeredOn: null },
    'which oil? (open)',
    `question:${ID}`,
  ],
  [
    'open-question',
    null,
    { question: ID, to: 'client', text: 'which oil?', answer: 'the old', answeredOn: '2026-11-02' },
    'which oil? – the old',
    `question:${ID}`,
  ],
  [
    'plan-set',
    null,
    { route: null, deadline: '2026-12-24', from: '2026-12-01', hoursPerDay: 7, workdays: [1, 2], budget: null },
    'no route, from 2026-12-01, deadline 2026-12-24, 7 h a day',
    'plan',
  ],
  ['received-item', null, { item: ID, text: 'oil filter', state: 'already-off', by: '' }, 'oil filter: already off', `received:${ID}`],
  ['report-set', null, { field: 'conclusion', value: 'No oil.' }, 'conclusion: No oil.', 'report:conclusion'],
  ['sentence-set', null, { sentence: 'cause.1', text: '', generated: 'It ran dry.' }, 'cause.1: as generated', 'sentence:cause.1'],
  ['sequence-event', null, { event: ID, text: '' }, '(emptied)', `event:${ID}`],
  ['step-order', null, { order: ['arrival', 'isolate'] }, '2 steps in their own order', 'step-order'],
  ['step-set', null, { step: 'pan', state: 'done', note: 'by the yard' }, 'pan done: by the yard', 'step:pan'],
  [
    'tag-read',
    'bore.1',
    {
      sha256: SHA,
      station: 'bore.1',
      corners: [
        [0, 0],
        [9, 0],
        [9, 9],
        [0, 9],
      ],
      codeMm: 20,
      gains: [1, 1, 1],
    },
    'tag of bore.1 in abababab',
    `tag:${SHA}`,
  ],
  ['task-moved', null, { task: 'grind', notBeforeHours: 30 }, 'grind not before hour 30', 'task:grind'],
];

describe('an entry in the words of the ledger', () => {
  it.each(EXAMPLES)('%s', (kind, station, body, words, slot) => {
    const checked = checkEntry(
      kind,
      station,
      body as never,
      kind === 'second-opinion'
        ? write(CASE, 'grade-confirmed', 'bore.1', { grade: 1, proposed: null, reason: '', book: '1' }, 'Tom')
        : CASE,
    );
    expect(checked.ok ? '' : checked.problem.sentence).toBe('');
    expect(entryWords(kind, body as never)).toBe(words);
    expect(slotOf(kind, body)).toBe(slot);
  });

  it('says of a kind that a later version wrote what it is called there, and falls over nothing', () => {
    expect(entryWords('of-a-later-version' as never, { a: 1 } as never)).toEqual(expect.any(String));
    expect(entryWords('remark', null as never)).toEqual(expect.any(String));
  });

  it('every kind has an example here, or is made of a file of its own and tested there', () => {
    const shown = new Set(EXAMPLES.map(([kind]) => kind));
    const elsewhere = [
      'account-laid-out',
      'account-signed',
      'case-released',
      'check-set',
      'disposition-set',
      'grade-book-set',
      'hold-set',
      'limits-set',
      'photo-added',
      'price-book-set',
      'quote-sent',
      'redacted',
      'retracted',
      'school-set',
      'sequence-link',
      'sequence-place',
      'spec-set',
      'surface-read',
    ];
    expect(
      ENTRY_DEFINITIONS.map((d) => d.kind as string)
        .filter((k) => !shown.has(k as never))
        .sort(),
    ).toEqual(elsewhere);
  });
});

describe('the gate refuses, with the field and a sentence', () => {
  const stripped = write(CASE, 'step-set', null, { step: 'pan', state: 'done', note: '' });
  const graded = write(CASE, 'grade-confirmed', 'bore.1', { grade: 1, proposed: null, reason: '', book: '1' }, 'Mara');
  it.each<[what: string, kind: EntryKind, station: string | null, body: object, code: string, state?: CaseState]>([
    ['an entry without content', 'remark', null, undefined as never, 'entry-content'],
    ['a kind nobody knows', 'curse' as never, null, {}, 'entry-kind'],
    ['a place of another engine', 'state-set', 'rod.9.shell.upper', { state: 'sound' }, 'entry-station'],
    ['a grade of the case as a whole', 'grade-confirmed', null, { grade: 1, proposed: null, reason: '', book: '1' }, 'entry-station'],
    ['a step the assembly has not', 'assembly-set', null, { step: 'arrival', state: 'done', note: '' }, 'step-unknown'],
    ['a run of a bearing the engine has not', 'run-kept', null, { bearing: 'rod.9', setting: null, note: '' }, 'no-film'],
    ['an outcome of a cause nobody knows', 'outcome-set', null, { ...OUTCOME, cause: 'gremlins' }, 'outcome-cause'],
    ['a likeness of a bearing the engine has not', 'wear-likened', null, { bearing: 'main.9', of: '0'.repeat(64), forms: null }, 'no-film'],
    [
      'a likeness whose setting is of another bearing',
      'wear-likened',
      null,
      {
        bearing: 'rod.2',
        of: '0'.repeat(64),
        forms: [{ form: 'dry', alike: 0.5, setting: usualSetting(engineTemplate('inline-4-petrol')!.layout, 'rod.9', {}) }],
      },
      'no-film',
    ],
    ['a proof the assembly has not', 'proof-set', null, { proof: 'gap:9.top', text: '1', unit: 'mm', value: 1 }, 'proof-unknown'],
    ['a proof that was not typed', 'proof-set', null, { proof: 'end-float', text: '0.1', unit: 'mm', value: 0.2 }, 'value-text'],
    ['a proof in no unit', 'proof-set', null, { proof: 'end-float', text: '3 bar', unit: 'mm', value: 3 }, 'unit'],
    ['a figure for what is looked at', 'proof-set', null, { proof: 'seen:feeds', text: '3', unit: '', value: 3 }, 'proof-seen'],
    ['stages that are none', 'torque-set', null, { fasteners: 'rod-bolts', text: 'tight', source: '' }, 'stages'],
    ['fasteners the engine has not', 'torque-set', null, { fasteners: 'winch', text: '20', source: '' }, 'fasteners-unknown'],
    ['a step the plan has not', 'step-set', null, { step: 'polish', state: 'done', note: '' }, 'step-unknown'],
    [
      'a fastener the pattern has not',
      'bolt-torque',
      null,
      { pattern: 'rod.1', position: 'z', text: '60', unit: 'N·m', newtonMetre: 60 },
      'bolt-unknown',
    ],
    [
      'a torque that was not typed',
      'bolt-torque',
      null,
      { pattern: 'rod.1', position: 'a', text: '60', unit: 'N·m', newtonMetre: 61 },
      'value-text',
    ],
    [
      'a torque of easing that was not typed',
      'ease-torque',
      null,
      { index: 0, cap: '', text: '8', unit: 'N·m', newtonMetre: 80 },
      'value-text',
    ],
    ['a reading that was not typed', 'reading-taken', 'crank.pin.2', reading({ value: 53 }), 'value-text'],
    ['a reading of a cell the sheet has not', 'reading-taken', 'crank.pin.2', reading({ cell: 'nowhere.A' }), 'reading-place'],
    [
      'a check of another engine',
      'check-set',
      null,
      { check: 'curse', field: 'x', text: '1', chosen: [], value: 1, unit: null },
      'check-unknown',
    ],
    [
      'a first impression after the strip has begun',
      'intake-set',
      null,
      { field: 'firstImpression', value: 'dry' },
      'first-impression-locked',
      stripped,
    ],
    ['a second opinion where there is no first', 'second-opinion', 'bore.1', { grade: 1, note: '' }, 'no-first-grade'],
    ['an engine that contradicts itself', 'layout-set', null, { layout: { ...layout, firingOrder: [1, 2] } }, 'layout-contradiction'],
    ['taking back the opening of the case', 'retracted', null, { target: ID, slot: 'case', reason: 'x' }, 'entry-kind'],
    ['a release with nothing confirmed', 'case-released', null, { note: '' }, 'release-blocked', graded],
    ['a withdrawal without a reason', 'case-shelved', null, { as: 'withdrawn', reason: '' }, 'entry-content'],
    [
      'a link from an event to itself',
      'sequence-link',
      null,
      { from: 'event:a', to: 'event:a', state: 'drawn', reason: 'x' },
      'entry-content',
    ],
  ])('%s', (_, kind, station, body, code, state = CASE) => {
    const answer = checkEntry(
      kind,
      station,
      body as never,
      state,
      kind === 'second-opinion' ? ({ id: 'mara', name: 'Mara' } as never) : undefined,
    );
    expect(answer.ok).toBe(false);
    if (answer.ok) return;
    // What an engine has against itself is said by its form too, where nothing is recorded yet.
    if (kind !== 'layout-set') expect(answer.problem.sentence).toMatch(/[Nn]othing was recorded|was not|cannot/);
    expect(answer.problem.code).toBe(code);
  });
});
