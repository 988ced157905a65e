import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { FIRST_PREV, sealEntry, unexplainedGap, verifyChain, type EntryDraft, type LedgerEntry } from '../ledger/entry.js';
import { checkEntry } from '../gate/admit.js';
import { applyEntry, foldEntries } from '../entries/entries.js';
import { emptyCase } from '../ledger/state.js';
import { caseView, type CaseView } from '../case/views.js';
import { stationsOf } from '../engine/stations.js';
import { ENGINE_TEMPLATES, engineTemplate } from '../engine/templates.js';
import type { MachineLine } from '../salvage/machineSheet.js';
import { simulatedRoutes } from '../salvage/simulate.js';
import { SECTION_IDS } from '../entries/account.js';
import { type ReportBlock, type ReportModel } from './blocks.js';
import { machineDrawing } from './machineDrawing.js';
import { reportMarkdown } from './markdown.js';
import { layoutOf, machineShopModel, pictureNumbers, reportModel, sectionHashes, signatureLines, versionLines } from './model.js';
import { figuresIn, ownWordFlags, sentenceFlags } from './sentences.js';
import { ALWAYS, TEMPLATES, templateFor } from './templates.js';

const EXAMPLE = JSON.parse(readFileSync(join(__dirname, '../../../docs/formats/examples/fire-pump.case.json'), 'utf8')) as CaseFile;
const read = readCaseFile(EXAMPLE);
if (!read.ok) throw new Error(read.problem.sentence);
const { state: START } = read.value;

const body = (kind: EntryDraft['kind'], content: object, station: string | null = null) => ({ kind, content, station });
/** The example with more entries on it. */
function withEntries(...more: Array<ReturnType<typeof body>>): CaseView {
  let state = START;
  more.forEach((m, i) => {
    state = applyEntry(state, {
      id: `more-${i}`,
      kind: m.kind,
      station: m.station,
      author: { id: 'a', name: 'A. Builder' },
      time: '2026-11-27T08:00:00.000Z',
      body: m.content as never,
      seq: state.seq + 1,
      hash: 'h',
    });
  });
  return caseView(state)!;
}
const laidOut = (change: object): ReturnType<typeof body> =>
  body('account-laid-out', {
    template: 'internal',
    order: SECTION_IDS,
    left: [],
    detail: 'full',
    picturesLeft: [],
    pictureOrder: [],
    marks: true,
    insets: true,
    ...change,
  });
const sentences = (model: ReportModel): Array<Extract<ReportBlock, { kind: 'text' }>> =>
  model.sections.flatMap((s) =>
    s.blocks.filter((b): b is Extract<ReportBlock, { kind: 'text' }> => b.kind === 'text' && b.key !== undefined),
  );
const sentence = (model: ReportModel, key: string): Extract<ReportBlock, { kind: 'text' }> => sentences(model).find((b) => b.key === key)!;

describe('figures in words', () => {
  it.each<[string, Array<[number, string]>]>([
    ['14.2 % of the face', [[14.2, '%']]],
    [
      '52.978 mm and 12 µm',
      [
        [52.978, 'mm'],
        [12, 'µm'],
      ],
    ],
    [
      'grade 3, rod 2',
      [
        [3, 'grade'],
        [2, 'rod'],
      ],
    ],
    ['1 250 h of running', [[1250, 'h']]],
    ['a depth of 0,03 mm', [[0.03, 'mm']]],
    ['three shells', [[3, '']]],
    ['on 2026-11-27 nothing', []],
    ['the B612 face', []],
    ['−12 °C', [[-12, '°C']]],
  ])('%s', (words, expected) => expect(figuresIn(words).map((f) => [f.value, f.unit])).toEqual(expected));
});

describe('an edited sentence is held against the figures', () => {
  const generated = 'Grade 3 Through; exposed lining 14.2 %; 12 of 40 places were not examined. Ending: probable.';
  const known = figuresIn(`${generated} 52.978 mm`);
  it.each<[string, string, RegExp | null]>([
    [
      'the same figures in other words',
      'Of 40 places 12 were not examined; the lining shows on 14.2 % (grade 3), which is probable.',
      null,
    ],
    ['another share', 'Lining shows on 4.2 %; 12 of 40 not examined, grade 3.', /4\.2 %” stands where the ledger gives 14\.2 %/],
    ['another grade', 'Grade 2; lining 14.2 %; 12 of 40 not examined.', /Grade 2” stands where the ledger gives Grade 3/],
    ['a figure from nowhere', 'Grade 3, 14.2 %, 12 of 40 not examined, run dry for 90 min.', /90 min” follows from nothing/],
    ['a figure from elsewhere in the account', 'Grade 3, 14.2 %, 12 of 40 not examined; pin 52.978 mm.', null],
    ['more certainty', 'Grade 3, 14.2 % proves it; 12 of 40 not examined.', /proves” is stronger than the figures: probable/],
    ['less certainty', 'Grade 3, 14.2 %, 12 of 40 not examined; it is possible.', null],
    ['what was not seen left out', 'Grade 3; 14.2 %.', /leaves out what was not seen/],
    ['blame', 'Grade 3, 14.2 %, 12 of 40 not examined; the mechanic was careless.', /lays blame/],
    ['a verdict of its own', 'Grade 3, 14.2 %, 12 of 40 not examined, in limit.', /not the verdict/],
  ])('%s', (_, edited, flag) => {
    const flags = sentenceFlags(edited, generated, known);
    if (flag) expect(flags.join('|')).toMatch(flag);
    else expect(flags).toEqual([]);
  });
  it('says nothing of a sentence left as it is, whatever it is', () =>
    fc.assert(
      fc.property(fc.constantFrom(...sentences(reportModel(withEntries(), 'a'.repeat(64), 9)).map((s) => s.text)), (text) => {
        expect(sentenceFlags(text, text, []).filter((f) => !f.includes('blame'))).toEqual([]);
      }),
    ));
  it('flags any other figure put in place of a percentage', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 99 }), (a, b) => {
        fc.pre(a !== b);
        expect(sentenceFlags(`Lining shows on ${b} %.`, `Exposed lining ${a} %.`, [])).toHaveLength(1);
      }),
    ));
  it('holds words of one’s own against the whole account', () => {
    expect(ownWordFlags('The lining shows on 14.2 %.', known)).toEqual([]);
    expect(ownWordFlags('The lining shows on 77 %.', known)[0]).toMatch(/77 %/);
    expect(ownWordFlags('It is the fault of the driver.', known)[0]).toMatch(/blame/);
  });
});

describe('what is chosen about an account', () => {
  const body = {
    template: 'private',
    order: ['examined'],
    left: [],
    detail: 'full',
    picturesLeft: [],
    pictureOrder: [],
    marks: true,
    insets: true,
  };
  it('is taken with no picture named, and refused with a section or picture that cannot be', () => {
    expect(checkEntry('account-laid-out', null, body, START).ok).toBe(true);
    expect(checkEntry('account-laid-out', null, { ...body, pictureOrder: ['a'.repeat(64)] }, START).ok).toBe(true);
    for (const wrong of [{ order: ['preface'] }, { picturesLeft: ['x'] }, { template: 'glossy' }, { order: ['examined', 'examined'] }])
      expect(checkEntry('account-laid-out', null, { ...body, ...wrong }, START).ok).toBe(false);
  });
});

describe('the account', () => {
  it('is laid out for who asks', () => {
    expect(templateFor('insurer').id).toBe('insurer');
    expect(templateFor('own').id).toBe('internal');
    const model = reportModel(withEntries(laidOut({ template: 'warranty', order: templateFor('warranty').order })), 'h', 3);
    expect(model.heading).toBe('Failure account for warranty');
    expect(model.sections.map((s) => s.id)).not.toContain('routes');
  });
  it.each(TEMPLATES)('has what was not examined and how far it stands: $name', (t) => {
    const model = reportModel(withEntries(laidOut({ template: t.id, order: t.order, left: SECTION_IDS })), 'h', 3);
    expect(model.sections.map((s) => s.id)).toEqual(t.order.filter((s) => ALWAYS.has(s)));
  });
  it('keeps the order and leaves out what is left out', () => {
    const order = ['conclusion', 'findings', 'question'];
    const model = reportModel(withEntries(laidOut({ order, left: ['findings'] })), 'h', 3);
    expect(model.sections.map((s) => s.id)).toEqual(['conclusion', 'question', 'examined', 'standing']);
  });
  it('puts sentences in other words, says how many, and flags what the figures do not carry', () => {
    const plain = reportModel(withEntries(), 'h', 3);
    const { text } = sentence(plain, 'examined.share');
    const honest = reportModel(
      withEntries(body('sentence-set', { sentence: 'examined.share', text: `We looked: ${text}`, generated: text })),
      'h',
      3,
    );
    expect(sentence(honest, 'examined.share')).toMatchObject({ text: `We looked: ${text}`, edited: { generated: text, flags: [] } });
    expect(honest.flags).toEqual([]);
    expect(JSON.stringify(honest.sections.at(-1))).toContain('1 sentence made from the ledger was put in other words');
    const wrong = reportModel(
      withEntries(body('sentence-set', { sentence: 'examined.share', text: 'All 200 places were examined (100 %).', generated: text })),
      'h',
      3,
    );
    expect(wrong.flags).toHaveLength(1);
    expect(JSON.stringify(wrong.sections.at(-1))).toContain('1 passage says what the figures do not carry');
    const moved = reportModel(
      withEntries(body('sentence-set', { sentence: 'examined.share', text: `So: ${text}`, generated: 'of old' })),
      'h',
      3,
    );
    expect(sentence(moved, 'examined.share').edited?.flags).toEqual(['the ledger has moved on since it was put in these words']);
  });
  it('does not take the builder’s own words for a source of their figures', () => {
    const model = reportModel(withEntries(body('report-set', { field: 'conclusion', value: 'It ran 987 min without oil.' })), 'h', 3);
    expect(model.flags).toEqual([
      expect.objectContaining({ section: 'conclusion', flags: ['“987 min” follows from nothing that was recorded'] }),
    ]);
  });
  it('says so when no cause is confirmed, and not when one is', () => {
    const words = (view: CaseView): string => JSON.stringify(reportModel(view, 'h', 3).sections.find((s) => s.id === 'conclusion'));
    expect(words(withEntries())).toContain('No cause has been confirmed by the builder');
    const confirmed = withEntries(body('cause-decided', { cause: 'local-feed', decision: 'confirmed', reason: 'seen' }));
    expect(words(confirmed)).not.toContain('No cause has been confirmed');
  });
  it('gives every sentence a key of its own', () => {
    const keys = sentences(reportModel(withEntries(), 'h', 3)).map((s) => s.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.length).toBeGreaterThan(8);
  });
  it('numbers pictures in the order given and leaves out those left out', () => {
    const photo = (sha256: string): ReturnType<typeof body> =>
      body('photo-added', { sha256, name: '', mime: 'image/jpeg', bytes: 1, width: 1, height: 1, takenAt: null, standIn: false }, 'bore.1');
    const [a, b, c] = ['a', 'b', 'c'].map((x) => x.repeat(64)) as [string, string, string];
    const laid = laidOut({ pictureOrder: [c], picturesLeft: [a] });
    const worn = body('grade-confirmed', { grade: 2, proposed: null, reason: '', book: '1' }, 'bore.1');
    const view = withEntries(photo(a), photo(b), photo(c), worn, laid);
    expect([...pictureNumbers(view, layoutOf(view))]).toEqual([
      [c, 1],
      [b, 2],
    ]);
    // Of a place that is sound there is no picture in the account.
    const sound = withEntries(photo(a), photo(b), photo(c), laid);
    expect([...pictureNumbers(sound, layoutOf(sound))]).toEqual([]);
  });
  it('shows ways on once one is chosen or promised, with the chart', () => {
    const plan = { route: 'rebuild', deadline: '2027-03-01', from: '2026-12-01', hoursPerDay: 6, workdays: [1, 2, 3, 4, 5], budget: 9000 };
    const view = withEntries(body('plan-set', plan));
    const routes = simulatedRoutes(view, diagnose(view), new Date('2026-11-27'));
    const model = reportModel(view, 'h', 3, { routes });
    const section = model.sections.find((s) => s.id === 'routes')!;
    expect(JSON.stringify(section)).toContain('Full rebuild (chosen)');
    expect(section.blocks.filter((b) => b.kind === 'drawing')).toHaveLength(1);
    expect(reportModel(withEntries(), 'h', 3, { routes }).sections.some((s) => s.id === 'routes')).toBe(false);
  });
  it('draws the evidence so that the last bar ends at the sum', () => {
    const d = diagnose(withEntries());
    const drawing = reportModel(withEntries(), 'h', 3)
      .sections.find((s) => s.id === 'causes')!
      .blocks.find((b) => b.kind === 'drawing')!;
    const sum = d.causes[0]!.evidence.slice(0, 12).reduce((t, e) => t + e.decibans, 0);
    expect(JSON.stringify(drawing)).toContain(`in all ${sum > 0 ? '+' : '−'}${Math.abs(sum).toFixed(1)} decibans`);
  });
});

describe('signed versions', () => {
  const hashes = sectionHashes(reportModel(withEntries(), 'a'.repeat(64), 9));
  const signature = (version: number, sections: object, reason = ''): ReturnType<typeof body> =>
    body('account-signed', {
      version,
      reason,
      template: 'internal',
      sha256: 'b'.repeat(64),
      bytes: 9,
      head: 'a'.repeat(64),
      entries: 9,
      sections,
      flags: 0,
    });
  it('do not differ because the ledger has a later head', () =>
    expect(sectionHashes(reportModel(withEntries(), 'c'.repeat(64), 12))).toEqual(hashes));
  it('name the sections that read differently', () => {
    const view = withEntries(signature(1, hashes), body('report-set', { field: 'conclusion', value: 'The feed was blocked.' }));
    const model = reportModel(view, 'd'.repeat(64), 12, {
      signing: { by: 'B', time: '2026-11-28T10:00:00.000Z', reason: 'Conclusion written.' },
    });
    expect(model.signing).toMatchObject({ version: 2, changed: ['Conclusion'] });
    expect(versionLines(model)).toEqual([
      'Version 1, signed by A. Builder, 2026-11-27 08:00 UTC.',
      'Version 2, signed by B, 2026-11-28 10:00 UTC; amends version 1: Conclusion written. Sections that read differently: Conclusion.',
    ]);
  });
  it('a draft says how it reads beside the last version, and who signed before', () => {
    const same = versionLines(reportModel(withEntries(signature(1, hashes)), 'd'.repeat(64), 12));
    expect(same[0]).toBe('Draft, not signed. Reads as version 1.');
    expect(same[1]).toMatch(/^Signed before: Version 1, signed by A\. Builder/);
    const changed = withEntries(signature(1, hashes), body('report-set', { field: 'conclusion', value: 'The feed was blocked.' }));
    expect(versionLines(reportModel(changed, 'd'.repeat(64), 12))[0]).toBe(
      'Draft, not signed. Reads differently from version 1: Conclusion.',
    );
  });
  it('say who signs with what: a draft nobody, a signed one by name, with the key of the shop where there is one', () => {
    const draft = reportModel(withEntries(), 'h', 3);
    expect(signatureLines(draft)).toEqual(['Not signed.']);
    const signing = { by: 'B', time: '2026-11-28T10:00:00.000Z', reason: '' };
    const kept = reportModel(withEntries(), 'h', 3, { signing, key: 'ab cd' });
    expect(signatureLines(kept)).toEqual(['Signed in the ledger by B, 2026-11-28 10:00 UTC.', 'Key of the shop: ab cd.']);
    const sheet = machineShopModel(withEntries(), 'h', 3);
    expect(signatureLines(sheet)).toEqual([]);
    expect(versionLines(sheet)).toEqual(['Not an account: it is handed on with the work.']);
  });
  it('say that a draft is one', () => expect(versionLines(reportModel(withEntries(), 'h', 3))[0]).toBe('Draft, not signed.'));
});

describe('the account in words', () => {
  const text = reportMarkdown(reportModel(withEntries(), 'h', 3));
  it('holds every section and whole tables', () => {
    for (const { heading } of reportModel(withEntries(), 'h', 3).sections) expect(text).toContain(`## ${heading}`);
    for (const block of text.split('\n\n').filter((b) => b.startsWith('|'))) {
      const widths = block
        .trim()
        .split('\n')
        .map((l) => l.replace(/\\\|/g, '').split('|').length);
      expect(new Set(widths).size).toBe(1);
    }
  });
  it('keeps a bar in a cell from ending it', () => {
    const noted = reportMarkdown(
      reportModel(withEntries(body('history-line', { line: 'x', text: 'a | b', feature: null, reliability: 'told', date: null })), 'h', 3),
    );
    expect(noted).toContain('a \\| b');
  });
});

describe('the machine shop’s sheet', () => {
  const decided = withEntries(
    body('disposition-set', { operation: 'grind', size: '-0.25', reason: 'scored' }, 'crank.pin.2'),
    body('disposition-set', { operation: 'face', size: '', reason: 'dished' }, 'gasket.head'),
    body('disposition-set', { operation: 'replace', size: '', reason: 'wiped' }, 'rod.2.shell.upper'),
  );
  const model = machineShopModel(decided, 'h', 3);
  it('numbers the lines, marks their places and names those the plan does not show', () => {
    const blocks = model.sections[0]!.blocks;
    const table = blocks.find((b) => b.kind === 'table')!;
    expect(table.kind === 'table' && table.rows.map((r) => r.slice(0, 3))).toEqual(
      expect.arrayContaining([
        ['1', 'Crankpin 2', 'Grind undersize'],
        ['2', 'Head gasket and deck', 'Face'],
      ]),
    );
    const drawing = blocks.find((b) => b.kind === 'drawing')!;
    expect(drawing.kind === 'drawing' && drawing.caption).toContain('Not on the plan: 2: Head gasket and deck');
    const filled = drawing.kind === 'drawing' ? drawing.shapes.filter((s) => s.kind === 'box' && s.fill === '#c3c9e4') : [];
    expect(filled).toHaveLength(1);
  });
  it('lists what is to be bought, and what is only proposed apart', () => {
    expect(JSON.stringify(model.sections[1])).toContain('Rod shells, pair');
    expect(model.flags).toEqual([]);
    expect(versionLines(model)[0]).not.toContain('Draft');
  });
  it('marks a pin two rods share once', () => {
    const { layout } = engineTemplate('vee-8-petrol')!;
    const pins = stationsOf(layout)
      .filter((s) => /^crank\.pin\./.test(s.id))
      .map((s) => s.id);
    const lines: MachineLine[] = [
      { part: 'pins', stations: pins, work: 'grind', operation: '', sizeMm: null, finish: '', limits: '', quantity: 4, notes: '' },
    ];
    const drawing = machineDrawing(layout, lines);
    expect(drawing.shapes.filter((s) => s.kind === 'box' && s.fill === '#c3c9e4')).toHaveLength(pins.length);
    expect(drawing.caption).not.toContain('Not on the plan');
  });
  it('keeps every mark inside the drawing, whatever the engine', () => {
    for (const t of ENGINE_TEMPLATES) {
      const stations = stationsOf(t.layout).map((s) => s.id);
      const line = (part: string, list: string[]): MachineLine => ({
        part,
        stations: list,
        work: 'grind',
        operation: '',
        sizeMm: null,
        finish: '',
        limits: '',
        quantity: 1,
        notes: '',
      });
      const lines = [
        line(
          'pins',
          stations.filter((s) => s.startsWith('crank.pin')),
        ),
        line(
          'bores',
          stations.filter((s) => s.startsWith('bore.')),
        ),
      ];
      const { shapes, width, height } = machineDrawing(t.layout, lines);
      for (const s of shapes) {
        if (s.kind !== 'box') continue;
        expect(s.x).toBeGreaterThanOrEqual(0);
        expect(s.y).toBeGreaterThanOrEqual(0);
        expect(s.x + s.w).toBeLessThanOrEqual(width);
        expect(s.y + s.h).toBeLessThanOrEqual(height);
      }
    }
  });
});

describe('redaction', () => {
  const CASE = 'c0000000-0000-4000-8000-000000000000';
  const E = (n: number): string => `e0000000-0000-4000-8000-00000000000${n}`;
  const drafts: Array<[EntryDraft['kind'], string | null, object]> = [
    ['case-opened', null, { number: '1', title: 'Winch' }],
    ['layout-set', null, { layout: engineTemplate('inline-4-petrol')!.layout }],
    ['remark', 'bore.1', { remark: 'r', text: 'Belongs to Mr Nobody, Quay 3' }],
    ['remark', null, { remark: 's', text: 'Stays' }],
    ['redacted', null, { target: E(2), kind: 'remark', slot: 'remark:r', station: 'bore.1', reason: 'personal data' }],
  ];
  const entries: LedgerEntry[] = [];
  drafts.forEach(([kind, station, content], i) =>
    entries.push(
      sealEntry(
        { id: E(i), kind, station, body: content as never, basedOn: null },
        {
          caseId: CASE,
          seq: i + 1,
          prev: entries.at(-1)?.hash ?? FIRST_PREV,
          time: '2026-11-24T10:00:00.000Z',
          salt: 's',
          author: { id: CASE, name: 'A' },
          supersedes: null,
        },
      ),
    ),
  );
  const struck = entries.map((e) => (e.id === E(2) ? { ...e, body: null, salt: '' } : e));
  it('keeps the chain', () => {
    expect(verifyChain(entries).ok).toBe(true);
    expect(verifyChain(struck)).toMatchObject({ ok: true, head: entries.at(-1)!.hash });
  });
  it('folds to one state, lived through or read afterwards', () => {
    const lived = entries.reduce((s, e) => applyEntry(s, e), emptyCase(CASE));
    expect(lived).toEqual(foldEntries(emptyCase(CASE), struck));
    expect(foldEntries(emptyCase(CASE), entries)).toEqual(lived);
    expect(JSON.stringify(lived)).not.toContain('Nobody');
    expect(JSON.stringify(lived)).toContain('Stays');
  });
  it('finds content that was taken out without one', () => {
    const emptied = entries.map((e) => (e.id === E(3) ? { ...e, body: null } : e));
    expect(unexplainedGap(emptied)?.id).toBe(E(3));
    expect(verifyChain(emptied)).toMatchObject({ ok: false, broken: { seq: 4, reason: 'its content is gone and no redaction says why' } });
  });
});
