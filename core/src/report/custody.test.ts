import { caseView } from '../case/views.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { answerItems, releaseCheck } from '../diagnosis/answers.js';
import { proposeSequence } from '../diagnosis/sequence/propose.js';
import type { CaseState } from '../ledger/state.js';
import { write, written } from '../testing/write.js';
import { sectionWords } from '../testing/sectionWords.js';
import { answers } from './sections/answers.js';
import { opening } from './sections/opening.js';
import { question } from './sections/question.js';
import { sequence } from './sections/sequence.js';

// What the account tells of how the engine came, of the order of events and of what answers the causes: only what was recorded, in words.
const view = (state: CaseState): NonNullable<ReturnType<typeof caseView>> => caseView(state)!;
const intake = (field: string, value: string) => ['intake-set', null, { field, value }] as const;
const ID = '11111111-1111-4111-8111-11111111111';

describe('the question', () => {
  it('leaves a dash where nothing was said and no row where nothing is usual', () => {
    const text = sectionWords(question(view(written())));
    expect(text).toContain('Question owner | –');
    expect(text).toContain('Complaint | –');
    for (const row of ['Where and when', 'Smoke', 'Opened by', 'Evidence held by', 'Experience of this family'])
      expect(text).not.toContain(row);
    expect(text).toContain('No history was given.');
    expect(text).toMatch(/Engine \| 4 cylinders, inline, four-stroke, petrol; bore [\d.]+ mm/);
  });

  it('says codes in words, several of them, and an older code as it stands', () => {
    const text = sectionWords(
      question(
        view(
          written(
            intake('complaint', 'knock,smoke,of-an-older-list'),
            intake('smokeColour', 'blue'),
            intake('complaintPlace', 'bottom'),
            intake('complaintWhen', 'hot,load'),
            intake('afterFirstSign', 'driven-on'),
            intake('ranOnFor', 'ten miles'),
            intake('openedBy', 'the yard'),
          ),
        ),
      ),
    );
    expect(text).toContain('Complaint | Knock, Smoke, of-an-older-list');
    expect(text).toContain('Smoke | Blue');
    expect(text).toContain('Where and when | Bottom; Hot, Under load');
    expect(text).toContain('After the first sign | Run on, ten miles');
    expect(text).toContain('Opened by | the yard');
  });

  it('tells history with how it is known, and what was received, marked and asked', () => {
    const text = sectionWords(
      question(
        view(
          written(
            ['history-line', null, { line: `${ID}1`, text: 'ran low twice', feature: null, reliability: 'told', date: '2025' }],
            ['history-line', null, { line: `${ID}2`, text: 'a plug missing', feature: null, reliability: 'seen', date: null }],
            ['received-item', null, { item: `${ID}3`, text: 'oil filter', state: 'already-off', by: '' }],
            ['build-mark', null, { mark: `${ID}4`, kind: 'paint', text: 'yellow dot', pointsTo: 'opened-before' }],
            ['open-question', null, { question: `${ID}5`, to: 'client', text: 'which oil?', answer: null, answeredOn: null }],
            ['open-question', null, { question: `${ID}6`, to: 'client', text: 'how far?', answer: 'ten miles', answeredOn: '2026-11-02' }],
          ),
        ),
      ),
    );
    expect(text).toContain('ran low twice | told to us | 2025');
    expect(text).toContain('a plug missing | seen by us | –');
    expect(text).toContain('oil filter | already off | –');
    expect(text).toContain('yellow dot | opened before');
    expect(text).toContain('which oil? | client | open');
    expect(text).toContain('how far? | client | ten miles (2026-11-02)');
    expect(text).not.toContain('No history was given.');
  });
});

const wiped = (n: number) =>
  [
    ['pattern-set', `rod.${n}.shell.lower`, { pattern: 'wiping', present: true }],
    ['grade-confirmed', `rod.${n}.shell.lower`, { grade: 3, proposed: null, reason: '', book: '1' }],
    ['pattern-set', `crank.pin.${n}`, { pattern: 'journal-scoring', present: true }],
    ['grade-confirmed', `crank.pin.${n}`, { grade: 2, proposed: null, reason: '', book: '1' }],
  ] as const;
const DRY = written(
  ...[1, 2, 3, 4].flatMap(wiped),
  ['evidence-set', null, { feature: 'fluid.level-low', present: true, note: '' }],
  ['cause-decided', null, { cause: 'oil-low', decision: 'confirmed', reason: 'no oil came out' }],
);

describe('the order of events', () => {
  it('is none where nothing was found, and no origin stands for nothing', () => {
    const text = sectionWords(sequence(view(written()), diagnose(view(written()))));
    expect(text).toBe('No order of events follows from what was found.');
  });

  it('is drawn and said, with how much of the damage follows', () => {
    const s = sequence(view(DRY), diagnose(view(DRY)));
    expect(s.blocks[0]!.kind).toBe('drawing');
    expect(sectionWords(s)).toMatch(/\d+ of \d+ findings of grade 2 or more follow from an origin/);
    expect(sectionWords(s)).toContain('Oil level run low or none → ');
  });

  it('says what the builder drew and why, and what he rejected', () => {
    const first = sequence(view(DRY), diagnose(view(DRY)));
    const list = first.blocks.find((b) => b.kind === 'list') as { items: readonly string[] };
    expect(list.items.length).toBeGreaterThan(0);
    const event = `event:${ID}7`;
    const state = write(write(DRY, 'sequence-event', null, { event: `${ID}7`, text: 'run on for ten miles' }), 'sequence-link', null, {
      from: 'cause:oil-low',
      to: event,
      state: 'doubtful',
      reason: 'the client said so',
    });
    const text = sectionWords(sequence(view(state), diagnose(view(state))));
    expect(text).toContain('run on for ten miles (in doubt); drawn by the builder: the client said so');
    const rejected = write(state, 'sequence-link', null, { from: event, to: 'finding:gone', state: 'rejected', reason: 'it came later' });
    expect(sectionWords(sequence(view(rejected), diagnose(view(rejected))))).toMatch(
      /Links considered and rejected\n.*finding:gone: it came later/s,
    );
  });
});

describe('what stands against an order', () => {
  const of = (...links: ReadonlyArray<readonly [from: string, to: string]>): string => {
    const state = links.reduce(
      (s, [from, to]) => write(s, 'sequence-link', null, { from, to, state: 'drawn', reason: 'as I see it' }),
      DRY,
    );
    const text = sectionWords(sequence(view(state), diagnose(view(state))));
    return text.includes('Against this order') ? text.slice(text.indexOf('Against this order')) : '';
  };
  const nodes = proposeSequence(view(DRY), diagnose(view(DRY))).nodes;
  const finding = (pattern: string): string => nodes.find((n) => n.pattern === pattern)!.id;

  it('an origin to which something leads, and events that lead back to themselves', () => {
    expect(of([finding('wiping'), 'cause:oil-low'])).toMatch(/is an origin; nothing leads to it/);
    expect(of([finding('wiping'), finding('journal-scoring')], [finding('journal-scoring'), finding('wiping')])).toMatch(
      /lead back to themselves/,
    );
  });

  it('a way the catalogue does not know is asked a reason of', () => {
    const head = [
      ['pattern-set', { pattern: 'head-crack', present: true }],
      ['grade-confirmed', { grade: 3, proposed: null, reason: '', book: '1' }],
    ] as const;
    const state = head.reduce((s, [kind, body]) => write(s, kind, 'head.1', body), DRY);
    const cracked = proposeSequence(view(state), diagnose(view(state))).nodes.find((n) => n.pattern === 'head-crack')!.id;
    const drawn = write(state, 'sequence-link', null, { from: finding('wiping'), to: cracked, state: 'drawn', reason: 'I say so' });
    expect(sectionWords(sequence(view(drawn), diagnose(view(drawn))))).toMatch(
      /The catalogue knows no way from .* the reason should say how/,
    );
  });
});

describe('what was expected and what was lost', () => {
  it('is told with how it turned out, and why it was not recorded', () => {
    const state = written(
      ['expectation', null, { expectation: '1'.repeat(8), step: 'pan', text: 'bronze in the pan', held: null }],
      ['expectation', null, { expectation: '2'.repeat(8), step: 'pan', text: 'a dry gallery', held: true }],
      ['expectation', null, { expectation: '3'.repeat(8), step: 'pan', text: 'a broken ring', held: false }],
      ['hold-set', null, { item: 'filter-kept', outcome: 'lost', note: 'thrown away' }],
      ['step-set', null, { step: 'filter', state: 'done', note: 'by the yard' }],
    );
    const text = sectionWords(opening(view(state)));
    expect(text).toMatch(/Strip: 1 of \d+ steps were done\./);
    expect(text).toContain('bronze in the pan: not settled');
    expect(text).toContain('a dry gallery: held');
    expect(text).toContain('a broken ring: did not hold');
    expect(text).toMatch(/Not recorded before it was gone\n.*: thrown away/s);
  });
});

describe('what answers the causes', () => {
  it('is no section where nothing is confirmed', () => expect(answers(view(written()), diagnose(view(written())), false)).toEqual([]));

  it('lists actions and checks with their state, and the first start with its cautions', () => {
    const [item] = answerItems(view(DRY));
    const state = write(DRY, 'answer-set', null, {
      cause: item!.cause,
      part: item!.part,
      item: item!.item,
      state: 'not-needed',
      note: 'new gauge',
    });
    const [section] = answers(view(state), diagnose(view(state)), false);
    const text = sectionWords(section);
    expect(text).toContain(`Oil level run low or none | ${item!.item} | not needed | new gauge`);
    expect(text).toContain('Check: ');
    expect(text).toContain('First start');
    expect(text).toContain('Caution: ');
    expect(text).not.toContain('For the maker');
  });

  it('keeps who answers apart from the cause, and shows a maker what his desk asks for', () => {
    const state = write(DRY, 'answerable-set', null, { who: 'use', reason: 'Run below the mark.' });
    const text = sectionWords(answers(view(state), diagnose(view(state)), true)[0]);
    expect(text).toContain('stated apart from the cause and without finding fault: use. Run below the mark.');
    expect(text).toContain('Asked for | Recorded');
  });

  it('a release stands with its day, and what was recorded since is told to stand against it', () => {
    let state = DRY;
    for (const { cause, part, item } of answerItems(view(DRY)))
      state = write(state, 'answer-set', null, { cause, part, item, state: 'done', note: '' });
    for (const u of diagnose(view(state)).unexplained)
      state = write(state, 'unexplained-set', null, { place: u.station, accepted: true, reason: 'seen before' });
    expect(releaseCheck(view(state), diagnose(view(state)))).toEqual({ ready: true, blocks: [] });
    state = write(state, 'case-released', null, { note: 'to the client' });
    expect(sectionWords(answers(view(state), diagnose(view(state)), false)[0])).toMatch(/Released by Mara on 2026-03-02\. to the client$/);
    state = write(state, 'grade-confirmed', 'head.1', { grade: 3, proposed: null, reason: '', book: '1' });
    expect(sectionWords(answers(view(state), diagnose(view(state)), false)[0])).toContain('What was recorded since stands against it.');
  });

  it('what is accepted as unexplained says by whom', () => {
    let state = DRY;
    state = write(state, 'grade-confirmed', 'head.1', { grade: 3, proposed: null, reason: '', book: '1' });
    state = write(state, 'unexplained-set', null, { place: 'head.1', accepted: true, reason: 'cracked years ago' }, 'Tom');
    expect(sectionWords(answers(view(state), diagnose(view(state)), false)[0])).toMatch(
      /Accepted as unexplained\n.*grade 3: cracked years ago \(Tom\)/s,
    );
  });
});
