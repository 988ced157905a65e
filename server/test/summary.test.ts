import { written } from '../../core/src/testing/write.js';
import { summarise } from '../src/ledger/summary.js';

type Line = readonly [kind: string, station: string | null, body: object, author?: string];
const ID = '11111111-1111-4111-8111-111111111111';
const question = (to: string, answer: string | null): Line => [
  'open-question',
  null,
  { question: ID, to, text: 'which oil?', answer, answeredOn: null },
];
const decided = (station: string, operation: string): Line => ['disposition-set', station, { operation, size: '', reason: 'worn' }];
const route: Line = [
  'plan-set',
  null,
  { route: 'repair', deadline: null, from: '2026-12-01', hoursPerDay: 7, workdays: [1, 2], budget: null },
];
const waits = (...lines: Line[]) => summarise(written(...lines)).waits;

describe('what a case waits for outside', () => {
  it('is whoever was asked, until he answers', () => {
    expect(waits()).toEqual([]);
    expect(waits(question('client', null))).toEqual(['client']);
    expect(waits(question('earlier-builder', null))).toEqual(['earlier builder']);
    expect(waits(question('client', null), question('client', 'the old one'))).toEqual([]);
  });

  it('is machine shop and parts once a route is chosen, until the engine begins to go together', () => {
    const work = [decided('crank.pin.2', 'grind'), decided('rod.2.shell.lower', 'replace')];
    const wash: Line = ['assembly-set', null, { step: 'wash', state: 'done', note: '' }];
    expect(waits(...work)).toEqual([]);
    expect(waits(...work, route)).toEqual(['machine shop', 'parts']);
    expect(waits(decided('rod.2.shell.lower', 'reuse'), route)).toEqual([]);
    expect(waits(...work, route, wash)).toEqual([]);
  });
});

describe('who wrote in a case', () => {
  it('is every account of this shop, once', () => {
    const remark = (author: string): Line => ['state-set', 'bore.1', { state: 'sound' }, author];
    expect(summarise(written(remark('Tom'), remark('Ida'), remark('Tom'))).writers).toEqual(['ida', 'mara', 'tom']);
  });
});
