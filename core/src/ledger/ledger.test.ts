import fc from 'fast-check';
import type { SurfaceMark } from '../damage/wearMap.js';
import { engineTemplate } from '../engine/templates.js';
import { checkEntry } from '../gate/admit.js';
import { slotOf, type EntryBodies, type EntryKind } from '../entries/entries.js';
import { entryHash, FIRST_PREV, sealEntry, verifyChain, type EntryDraft, type LedgerEntry } from './entry.js';
import { canonicalJson, sha256Hex } from '../kit/hash.js';
import { shapeFault } from './entrySchema.js';
import { applyDraft, applyEntry, draftConflict, foldEntries } from '../entries/entries.js';
import { currentVersion, emptyCase, type CaseState } from './state.js';
import { caseView, coverage, standingGrade } from '../case/views.js';

const author = { id: 'a0000000-0000-4000-8000-000000000000', name: 'Mara' };
const layout = engineTemplate('inline-4-petrol')!.layout;

const CASE = 'c0000000-0000-4000-8000-000000000000';
const E = (n: number): string => `e0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** Seals drafts one after the other, as the server does. */
function chain(drafts: ReadonlyArray<Partial<EntryDraft> & { kind: EntryKind; body: object }>): LedgerEntry[] {
  const entries: LedgerEntry[] = [];
  drafts.forEach((d, i) => {
    entries.push(
      sealEntry(
        { id: d.id ?? E(i + 1), kind: d.kind, station: d.station ?? null, body: d.body as never, basedOn: d.basedOn ?? null },
        {
          caseId: CASE,
          seq: i + 1,
          prev: entries.at(-1)?.hash ?? FIRST_PREV,
          time: '2026-11-24T10:00:00.000Z',
          salt: `s${i}`,
          author,
          supersedes: null,
        },
      ),
    );
  });
  return entries;
}

const start = [
  { kind: 'case-opened' as const, body: { number: '1', title: 'Winch' } },
  { kind: 'layout-set' as const, body: { layout } },
];
const fold = (entries: readonly LedgerEntry[]): CaseState => foldEntries(emptyCase(CASE), entries);

const PRACTICE_SCORED = {
  level: 3,
  seed: 7,
  version: 1,
  answer: [],
  score: {
    causes: [],
    right: true,
    own: { log: 0, brier: 0 },
    evidence: { log: 0, brier: 0 },
    minutes: 2,
    parts: [],
    missed: [],
    best: null,
    untrue: [],
    cost: { currency: 'EUR', bench: 0, again: 0, goneBack: [], goodAway: [] },
  },
};

describe('hashes', () => {
  it('are SHA-256 and RFC 8785', () => {
    expect(sha256Hex('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    expect(canonicalJson({ b: 1, a: [2, { d: 3, c: 1e21 }] })).toBe('{"a":[2,{"c":1e+21,"d":3}],"b":1}');
  });
  it('hold for a chain as sealed, not for one with content taken out', () => {
    const entries = chain([...start, { kind: 'remark', body: { remark: 'r', text: 'private' } }]);
    expect(verifyChain(entries)).toMatchObject({ ok: true, entries: 3, head: entries[2]!.hash });
    expect(verifyChain([...entries.slice(0, 2), { ...entries[2]!, body: null }])).toMatchObject({ ok: false, broken: { seq: 3 } });
  });
  it('name the first entry whose content, details, order or place was changed', () => {
    const entries = chain([
      ...start,
      { kind: 'remark', body: { remark: 'r', text: 'a' } },
      { kind: 'remark', body: { remark: 's', text: 'b' } },
    ]);
    const broken = (change: (e: LedgerEntry[]) => LedgerEntry[]): unknown => verifyChain(change([...entries])).broken?.seq;
    expect(broken((e) => [e[0]!, e[1]!, { ...e[2]!, body: { remark: 'r', text: 'x' } }, e[3]!])).toBe(3);
    expect(broken((e) => [e[0]!, { ...e[1]!, author: { ...author, name: 'Teo' } }, e[2]!, e[3]!])).toBe(2);
    expect(broken((e) => [e[0]!, e[2]!, e[1]!, e[3]!])).toBe(2);
    expect(broken((e) => [e[0]!, e[1]!, e[3]!])).toBe(3);
    expect(broken((e) => e.slice(1))).toBe(1);
  });
});

describe('fold', () => {
  it('is the same entry by entry and all at once', () => {
    const kinds = fc.constantFrom(
      { kind: 'state-set' as const, station: 'bore.1', body: { state: 'sound' as const } },
      { kind: 'state-set' as const, station: 'bore.2', body: { state: 'lost' as const } },
      { kind: 'grade-confirmed' as const, station: 'bore.1', body: { grade: 2 as const, proposed: null, reason: '', book: '1' } },
      { kind: 'intake-set' as const, station: null, body: { field: 'complaint' as const, value: 'knock' } },
      { kind: 'retracted' as const, station: 'bore.1', body: { target: E(3), slot: 'state', reason: '' } },
    );
    fc.assert(
      fc.property(fc.array(kinds, { maxLength: 30 }), (drafts) => {
        const entries = chain([...start, ...drafts]);
        const stepwise = entries.reduce(applyEntry, emptyCase(CASE));
        expect(fold(entries)).toEqual(stepwise);
        const half = Math.floor(entries.length / 2);
        expect(foldEntries(fold(entries.slice(0, half)), entries.slice(half))).toEqual(stepwise);
      }),
      { numRuns: 60 },
    );
  });

  it('commutes for entries on different fields', () => {
    const a = { kind: 'state-set' as const, station: 'bore.1', body: { state: 'sound' as const } };
    const b = { kind: 'intake-set' as const, station: null, body: { field: 'reference' as const, value: 'R' } };
    const one = caseView(fold(chain([...start, a, b])))!;
    const two = caseView(fold(chain([...start, b, a])))!;
    expect(one.byId.get('bore.1')?.state).toBe(two.byId.get('bore.1')?.state);
    expect(one.intake('reference')).toBe(two.intake('reference'));
  });

  it('brings the earlier value back when the later is taken back', () => {
    const entries = chain([
      ...start,
      { id: 'x', kind: 'intake-set', body: { field: 'reference', value: 'first' } },
      { id: 'y', kind: 'intake-set', body: { field: 'reference', value: 'second' } },
      { kind: 'retracted', body: { target: 'y', slot: 'intake:reference', reason: '' } },
    ]);
    expect(caseView(fold(entries.slice(0, 4)))?.intake('reference')).toBe('second');
    expect(caseView(fold(entries))?.intake('reference')).toBe('first');
  });

  it('leaves groups it does not touch as they are', () => {
    const state = fold(chain([...start, { kind: 'state-set', station: 'bore.1', body: { state: 'sound' } }]));
    const next = applyDraft(state, { id: 'z', kind: 'state-set', station: 'bore.2', body: { state: 'sound' }, basedOn: null }, author, '');
    expect(next.groups['bore.1']).toBe(state.groups['bore.1']);
    expect(next.seq).toBe(state.seq);
  });

  it('does not lose anything when a redacted entry is folded', () => {
    const entries = chain([...start, { kind: 'remark', body: { remark: 'r', text: 'x' } }]);
    expect(caseView(fold([...entries.slice(0, 2), { ...entries[2]!, body: null }]))?.remarks).toEqual([]);
  });
});

describe('conflicts', () => {
  const state = fold(chain([...start, { id: 'x', kind: 'intake-set', body: { field: 'reference', value: 'first' } }]));
  const draft = (basedOn: string | null): EntryDraft => ({
    id: 'n',
    kind: 'intake-set',
    station: null,
    body: { field: 'reference', value: 'mine' },
    basedOn,
  });
  it('lets a draft through that knows the field', () => expect(draftConflict(state, draft('x'))).toBeNull());
  it('stops a draft that rests on an older value', () =>
    expect(draftConflict(state, draft(null))).toMatchObject({ slot: 'intake:reference', current: { entry: 'x' } }));
  it('stops taking back what is no longer current', () => {
    expect(
      draftConflict(state, {
        id: 'n',
        kind: 'retracted',
        station: null,
        body: { target: 'old', slot: 'intake:reference', reason: '' },
        basedOn: null,
      }),
    ).not.toBeNull();
  });
});

describe('checkEntry', () => {
  const state = fold(chain(start));
  const code = (kind: EntryKind, station: string | null, body: unknown): string | null => {
    const r = checkEntry(kind, station, body, state);
    return r.ok ? null : r.problem.code;
  };
  it('takes what fits', () => expect(code('state-set', 'bore.1', { state: 'sound' })).toBeNull());
  it.each<[string, EntryKind, string | null, unknown, string]>([
    ['a place the engine lacks', 'state-set', 'bore.9', { state: 'sound' }, 'entry-station'],
    ['a path for a place', 'state-set', '../../etc', { state: 'sound' }, 'entry-station'],
    ['a station entry without a station', 'grade-confirmed', null, { grade: 1, proposed: null, reason: '', book: '1' }, 'entry-station'],
    ['a case entry with a station', 'intake-set', 'bore.1', { field: 'reference', value: '' }, 'entry-station'],
    ['a grade of 7', 'grade-confirmed', 'bore.1', { grade: 7, proposed: null, reason: '', book: '1' }, 'entry-content'],
    ['an unknown field', 'intake-set', null, { field: 'surname', value: '' }, 'entry-content'],
    ['extra keys', 'state-set', 'bore.1', { state: 'sound', admin: true }, 'entry-content'],
    ['text beyond its limit', 'remark', 'bore.1', { remark: 'r', text: 'x'.repeat(5000) }, 'entry-content'],
    ['a contradictory layout', 'layout-set', null, { layout: { ...layout, firingOrder: [1, 2] } }, 'layout-contradiction'],
    ['an unknown kind', 'free-text' as EntryKind, null, {}, 'entry-kind'],
  ])('refuses %s', (_, kind, station, body, expected) => expect(code(kind, station, body)).toBe(expected));
  it('keeps HTML as text', () =>
    expect(checkEntry('remark', null, { remark: 'r', text: '<script>alert(1)</script>' }, state)).toMatchObject({
      ok: true,
      value: { text: '<script>alert(1)</script>' },
    }));
});

describe('views', () => {
  const at = (drafts: Parameters<typeof chain>[0]): NonNullable<ReturnType<typeof caseView>> =>
    caseView(fold(chain([...start, ...drafts])))!;
  it('tells not examined, sound and findings apart', () => {
    const view = at([
      { kind: 'state-set', station: 'bore.1', body: { state: 'sound' } },
      { kind: 'pattern-set', station: 'rod.1.shell.upper', body: { pattern: 'wiping', present: true } },
    ]);
    expect(view.byId.get('bore.1')?.state).toBe('sound');
    expect(view.byId.get('bore.2')?.state).toBe('not-examined');
    expect(view.byId.get('rod.1.shell.upper')?.state).toBe('findings');
    expect(standingGrade(view.byId.get('bore.1')!)).toBe(0);
    expect(standingGrade(view.byId.get('rod.1.shell.upper')!)).toBeNull();
  });
  it('proposes a grade from marks and lets the builder’s word stand', () => {
    const mark: SurfaceMark = {
      id: 'm',
      shape: 'stroke',
      class: 'lining',
      points: [
        [0, 0.5],
        [1, 0.5],
      ],
      radiusMm: 4,
      made: 'found-so',
    };
    const view = at([{ kind: 'mark-made', station: 'rod.1.shell.upper', body: { mark } }]);
    expect(view.byId.get('rod.1.shell.upper')?.proposal?.grade).toBe(3);
    const confirmed = at([
      { kind: 'mark-made', station: 'rod.1.shell.upper', body: { mark } },
      { kind: 'grade-confirmed', station: 'rod.1.shell.upper', body: { grade: 2, proposed: 3, reason: 'felt', book: '1' } },
    ]);
    expect(standingGrade(confirmed.byId.get('rod.1.shell.upper')!)).toBe(2);
  });
  it('counts coverage without places that are not present', () => {
    const all = coverage(at([])).total;
    const view = at([
      { kind: 'state-set', station: 'bore.1', body: { state: 'not-present' } },
      { kind: 'state-set', station: 'bore.2', body: { state: 'sound' } },
    ]);
    expect(coverage(view)).toMatchObject({ examined: 1, total: all - 1 });
  });
  it('has a slot for every kind', () => {
    const bodies: { [K in EntryKind]: EntryBodies[K] } = {
      'case-opened': { number: '', title: '' },
      'layout-set': { layout },
      'intake-set': { field: 'title', value: '' },
      'history-line': { line: 'l', text: '', feature: null, reliability: 'told', date: null },
      'evidence-set': { feature: 'f', present: true, note: '' },
      'photo-added': { sha256: '0', name: '', mime: 'image/png', bytes: 1, width: 1, height: 1, takenAt: null, standIn: false },
      'corners-set': { sha256: '0', corners: [] },
      'surface-read': {
        sha256: '0',
        columns: 1,
        rows: 1,
        shares: {},
        seen: [100],
        lines: [],
        crazedPercent: 0,
        specks: 0,
        confidence: 1,
        doubts: [],
        reader: '1',
      },
      'mark-made': { mark: { id: 'm', shape: 'line', class: 'lining', points: [], radiusMm: 1, made: 'by-us' } },
      'second-opinion': { grade: 2, note: '' },
      'grade-book-set': {
        book: { version: 'shop 1', rules: [{ parts: ['shell'], on: { kind: 'area', class: 'lining' }, above: 1, grade: 2 }] },
      },
      'grade-confirmed': { grade: 0, proposed: null, reason: '', book: '' },
      'state-set': { state: 'sound' },
      'pattern-set': { pattern: 'p', present: true },
      'sight-set': { note: 'n1', sight: 'p', present: true, among: ['s'], of: null, grade: null, reliability: 'told', words: '' },
      remark: { remark: 'r', text: '' },
      'spec-set': { quantity: 'crank.pin', spec: { minMm: 1, maxMm: 2, undersizesMm: [], source: '' } },
      'reading-taken': {
        sheet: 'journal',
        cell: 'front.A',
        take: 1,
        text: '',
        unit: 'mm',
        value: 1,
        gauge: { id: 'g', name: '', kind: 'other', resolutionMm: 1, expandedUncertaintyMm: 1, repeatabilityMm: 1 },
        insisted: false,
      },
      'cause-decided': { cause: 'c', decision: 'open', reason: '' },
      'sequence-link': { from: 'cause:surge', to: 'find:wiping@many', state: 'drawn', reason: '' },
      'sequence-event': { event: 'e', text: '' },
      'sequence-place': { node: 'cause:surge', x: 1, y: 2 },
      'answer-set': { cause: 'c', part: 'action', item: 'i', state: 'open', note: '' },
      'unexplained-set': { place: 'bore.1', accepted: true, reason: '' },
      'answerable-set': { who: 'use', reason: '' },
      'assembly-set': { step: 'wash', state: 'done', note: '' },
      'proof-set': { proof: 'end-float', text: '', unit: '', value: null },
      'run-kept': { bearing: 'rod.1', setting: null, note: '' },
      'oil-log-taken': { log: null },
      'outcome-set': { on: '2026-11-01', outcome: 'proved', by: 'court', cause: null, service: null, cost: null, days: null, note: '' },
      'priors-taken': { priors: null },
      'practice-set': { level: 3, version: 1, sealed: true },
      'practice-looked': { look: 'check:dipstick', name: 'Dipstick', minutes: 2, words: ['Level: full'], picture: false },
      'practice-scored': PRACTICE_SCORED,
      'wear-likened': { bearing: 'rod.1', of: '0'.repeat(64), forms: null },
      'torque-set': { fasteners: 'pan', text: '', source: '' },
      'case-released': { note: '' },
      'case-shelved': { as: 'archived', reason: '' },
      'school-set': { question: 'one-sample', position: 'trend', reason: '' },
      'disposition-set': { operation: 'reuse', size: '', reason: '' },
      'price-book-set': { book: { version: '1', currency: 'EUR', date: '2026-11-27', lines: [] } },
      'plan-set': { route: null, deadline: null, from: '2026-11-27', hoursPerDay: 6, workdays: [1], budget: null },
      'task-moved': { task: 'strip', notBeforeHours: 0 },
      'quote-sent': { quote: 'q', route: 'repair', currency: 'EUR', cost: 1, costHigh: 2, days: 1, daysHigh: 2, note: '' },
      'report-set': { field: 'conclusion', value: '' },
      'account-laid-out': {
        template: 'private',
        order: [],
        left: [],
        detail: 'full',
        picturesLeft: [],
        pictureOrder: [],
        marks: true,
        insets: true,
      },
      'sentence-set': { sentence: 'causes.ending', text: '', generated: '' },
      'account-signed': {
        version: 1,
        reason: '',
        template: 'private',
        sha256: '0',
        bytes: 1,
        head: '0',
        entries: 1,
        sections: {},
        flags: 0,
      },
      redacted: { target: 't', kind: 'remark', slot: 'remark:r', station: null, reason: '' },
      'part-kept': { kept: true, name: 'n', size: '', place: '', note: '' },
      'part-wanted': { what: 'w', state: 'wanted', from: '', shelf: null },
      'received-item': { item: 'i', text: '', state: 'received', by: '' },
      'build-mark': { mark: 'm', kind: 'paint', text: '', pointsTo: 'unclear' },
      'open-question': { question: 'q', to: 'client', text: '', answer: null, answeredOn: null },
      'check-set': { check: 'dipstick', field: 'level', text: '', chosen: [], value: null, unit: null },
      'limits-set': { sheet: null, limits: [] },
      'step-set': { step: 's', state: 'done', note: '' },
      'step-order': { order: [] },
      'hold-set': { item: 'h', outcome: 'lost', note: '' },
      'bolt-torque': { pattern: 'p', position: '1', text: '', unit: 'N·m', newtonMetre: null },
      'bag-set': { bag: 'b', counted: 1, note: '' },
      'cap-checked': { cap: 'c', number: '', agrees: true, joint: 'imperceptible', note: '' },
      'ease-torque': { index: 0, cap: '', text: '', unit: 'N·m', newtonMetre: 1 },
      expectation: { expectation: 'e', step: '', text: '', held: null },
      'tag-read': { sha256: '0', station: '', corners: [], codeMm: 26, gains: [1, 1, 1] },
      'blur-set': { sha256: '0', regions: [] },
      'clip-added': { sha256: '0', name: '', mime: 'audio/wav', bytes: 1, seconds: null, takenAt: null },
      retracted: { target: 't', slot: 'state', reason: '' },
    };
    const slots = (Object.keys(bodies) as EntryKind[]).map((k) => slotOf(k, bodies[k]));
    expect(slots.every((s) => s.length > 0)).toBe(true);
    expect(currentVersion(emptyCase('c'), null, slots[0]!)).toBeUndefined();
  });
});

describe('the shape of an entry', () => {
  const [good] = chain([{ kind: 'remark', body: { remark: 'r', text: 'x' } }]);
  const rehash = (change: object): LedgerEntry => {
    const bare = { ...good!, ...change };
    return { ...bare, hash: entryHash(bare) };
  };
  it('is held to the letter, though the hashes were made to fit', () => {
    expect(verifyChain([good!])).toMatchObject({ ok: true });
    for (const change of [
      { author: { ...author, shop: 'x' } },
      { author: { id: 'a', name: 'Mara' } },
      { time: 1_764_000_000_000 },
      { time: '2026-11-24' },
      { station: undefined },
      { station: 7 },
      { supersedes: undefined },
      { supersedes: 'none' },
      { supersedes: 3 },
      { salt: {} },
      { id: E(1).toUpperCase() },
      { caseId: 'other' },
      { extra: 1 },
      { seq: '1' },
      { body: [] },
    ]) {
      const forged = { ...good!, ...change } as unknown as LedgerEntry;
      const fits = 'station' in change || 'supersedes' in change || 'author' in change || 'time' in change ? rehash(change) : forged;
      expect([JSON.stringify(change), verifyChain([fits])]).toMatchObject([JSON.stringify(change), { ok: false, broken: { seq: 1 } }]);
    }
  });
  it('does not fall over anything it is given', () => {
    fc.assert(
      fc.property(fc.anything({ withNullPrototype: true, withMap: true }), (thing) => {
        expect(typeof shapeFault(thing)).toBe('string');
      }),
    );
  });
  it('tells who is of another shop apart, in name and id, and takes no release from there', () => {
    const entries = chain([...start, { kind: 'case-released', body: { note: '' } }]);
    const theirs = foldEntries(
      emptyCase(CASE),
      entries.map((e) => ({ ...e, origin: 'another shop' })),
    );
    const version = currentVersion(theirs, null, 'released')!;
    expect(version.author).toEqual({ id: `another shop:${author.id}`, name: 'Mara (another shop)', shop: 'another shop' });
    expect(caseView(theirs)!.released).toBeUndefined();
    expect(caseView(fold(entries))!.released).toBeDefined();
    expect(verifyChain(entries.map((e) => ({ ...e, origin: 'another shop' })))).toMatchObject({ ok: true });
  });
});
