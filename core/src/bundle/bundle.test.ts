import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { diagnose } from '../diagnosis/diagnose.js';
import { diagnosisJson } from '../diagnosis/diagnosisJson.js';
import { FIRST_PREV, sealEntry, type LedgerEntry } from '../ledger/entry.js';
import { sha256Hex } from '../kit/hash.js';
import { ENTRY_KINDS, type EntryKind } from '../entries/entries.js';
import { emptyCase } from '../ledger/state.js';
import { foldEntries } from '../entries/entries.js';
import { caseView } from '../case/views.js';
import { engineTemplate } from '../engine/templates.js';
import { reportModel } from '../report/model.js';
import { STANDING_STATEMENT } from '../report/words.js';
import { readCaseFile } from './caseFile/read.js';
import { caseFileOf } from './caseFile/write.js';
import { type CaseFile } from './caseFile/format.js';
import { readingsCsv } from '../measured/readingsCsv.js';
import { findingsCsv } from './csv.js';
import { openBundle, verifyBundle } from './verifyBundle.js';

const CASE = 'c0000000-0000-4000-8000-000000000000';
const EXAMPLE = JSON.parse(readFileSync(join(__dirname, '../../../docs/formats/examples/fire-pump.case.json'), 'utf8')) as CaseFile;
const SCHEMA = JSON.parse(readFileSync(join(__dirname, '../../../docs/formats/case.schema.json'), 'utf8')) as {
  properties: Record<string, unknown>;
  required: string[];
};
const read = (file: unknown): ReturnType<typeof readCaseFile> => readCaseFile(file);
const opened = (file: unknown) => {
  const r = read(file);
  if (!r.ok) throw new Error(r.problem.sentence);
  return r.value;
};

describe('case file', () => {
  it('reads back to the same case and the same differential', () => {
    const { state, view } = opened(EXAMPLE);
    const again = opened(JSON.parse(JSON.stringify(caseFileOf(state, view))));
    expect(diagnosisJson(again.view, diagnose(again.view)).causes).toEqual(diagnosisJson(view, diagnose(view)).causes);
    expect(again.view.stations.map((s) => [s.station.id, s.state])).toEqual(view.stations.map((s) => [s.station.id, s.state]));
  });
  it.each([
    ['half', 50],
    [[40, 60], 50],
    [undefined, 10],
  ])('takes the share %p for %d percent', (percent, means) => {
    const shell = (wear: object): object => ({
      ...{ format: 'true-ledger/case', version: 2, engine: { template: 'inline-4-petrol' } },
      findings: [{ station: 'main.1.shell.upper', wear: [{ class: 'lining', ...wear }] }],
    });
    const mark = (file: object): unknown => {
      const read = readCaseFile(file);
      return read.ok ? read.value.view.byId.get('main.1.shell.upper')!.marks[0]!.value.mark : read.problem.sentence;
    };
    expect(mark(shell(percent === undefined ? {} : { percent }))).toEqual(mark(shell({ percent: means })));
    expect(mark(shell({ percent: [60, 40] }))).toContain('lesser figure first');
    expect(mark(shell({ percent: 'much' }))).toContain('percent');
  });

  it('turns wear in words into that share of the face', () => {
    const shell = opened(EXAMPLE).view.byId.get('rod.2.shell.upper')!;
    expect(shell.summary!.percent.lining).toBeGreaterThan(31);
    expect(shell.summary!.percent.lining).toBeLessThan(39);
  });
  it('takes readings as typed, in any unit', () => {
    const { view } = opened({
      ...EXAMPLE,
      readings: [
        { station: 'crank.pin.1', plane: 'front', axis: 'A', value: '2.0855"' },
        { station: 'crank.pin.1', plane: 'front', axis: 'B', value: '-' },
      ],
    });
    expect(view.byId.get('crank.pin.1')!.readings.map((r) => r.value.value)).toEqual([expect.closeTo(52.9717, 6), null]);
  });
  it.each<[string, unknown, RegExp, string | undefined]>([
    ['something else', { hello: 1 }, /not read/, undefined],
    ['another version', { ...EXAMPLE, version: 9 }, /version/, 'version'],
    ['an unknown template', { ...EXAMPLE, engine: { template: 'steam' } }, /template/, 'engine.template'],
    [
      'an engine that contradicts itself',
      { ...EXAMPLE, engine: { template: 'inline-4-petrol', firingOrder: [1, 2] } },
      /names 2 cylinders/,
      'engine.firingOrder',
    ],
    [
      'a place the engine lacks',
      { ...EXAMPLE, findings: [{ station: 'rod.9.shell.upper', grade: 1 }] },
      /not a place/,
      'findings.0.station',
    ],
    ['an unknown pattern', { ...EXAMPLE, findings: [{ station: 'bore.1', patterns: ['curse'] }] }, /not a pattern/, 'findings.0.patterns'],
    ['a sound pattern that matches nothing', { ...EXAMPLE, sound: ['wing.*'] }, /matches no place/, 'sound.0'],
    ['an unknown feature', { ...EXAMPLE, evidence: [{ feature: 'x', present: true }] }, /not a feature/, 'evidence.0.feature'],
    [
      'a reading of a place the engine lacks',
      { ...EXAMPLE, readings: [{ station: 'bore.1', sheet: 'bore', cell: 'nowhere', value: 84 }] },
      /no place/,
      'readings.0',
    ],
    [
      'a reading that is none',
      { ...EXAMPLE, readings: [{ station: 'crank.pin.1', plane: 'front', axis: 'A', value: 'abc' }] },
      /is not a reading/,
      'readings.0.value',
    ],
    ['null', null, /not read/, undefined],
  ])('refuses %s, naming the field', (_, file, words, field) => {
    const r = read(file);
    expect(r.ok).toBe(false);
    if (r.ok) return;
    expect(r.problem.sentence).toMatch(words);
    if (field) expect(r.problem.field).toBe(field);
  });
  it('has a published schema that knows every part of it', () => {
    const { state, view } = opened(EXAMPLE);
    expect(Object.keys(SCHEMA.properties)).toEqual(expect.arrayContaining(Object.keys(caseFileOf(state, view))));
    expect(SCHEMA.required).toEqual(['format', 'version', 'engine']);
  });
});

describe('sheets', () => {
  it('has one line a place and disarms formulas', () => {
    const { view } = opened({ ...EXAMPLE, findings: [{ station: 'bore.1', grade: 2, note: '=HYPERLINK("x")' }] });
    const lines = findingsCsv(view).trim().split('\n');
    expect(lines).toHaveLength(view.stations.length + 1);
    expect(lines.find((l) => l.includes('HYPERLINK'))).toContain(`"'=HYPERLINK`);
  });
});

describe('bundle', () => {
  const picture = strToU8('not really a picture');
  const drafts: Array<{ kind: EntryKind; station: string | null; body: object }> = [
    { kind: 'case-opened', station: null, body: { number: '1', title: 'Winch' } },
    { kind: 'layout-set', station: null, body: { layout: engineTemplate('inline-4-petrol')!.layout } },
    {
      kind: 'photo-added',
      station: 'bore.1',
      body: {
        sha256: sha256Hex(picture),
        name: 'a.jpg',
        mime: 'image/jpeg',
        bytes: picture.length,
        width: 1,
        height: 1,
        takenAt: null,
        standIn: false,
      },
    },
  ];
  const entries: LedgerEntry[] = [];
  drafts.forEach((d, i) =>
    entries.push(
      sealEntry(
        {
          id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
          kind: d.kind,
          station: d.station,
          body: d.body as never,
          basedOn: null,
        },
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
  const state = foldEntries(emptyCase(CASE), entries);
  const view = caseView(state)!;
  const files = {
    'ledger.jsonl': strToU8(entries.map((e) => JSON.stringify(e)).join('\n') + '\n'),
    'case.json': strToU8(JSON.stringify(caseFileOf(state, view))),
    'measurements.csv': strToU8(readingsCsv(view)),
    'findings.csv': strToU8(findingsCsv(view)),
    [`photos/${sha256Hex(picture)}.jpg`]: picture,
  };
  it('verifies', () => expect(verifyBundle(files)).toMatchObject({ ok: true, entries: 3, photos: 1, head: entries[2]!.hash }));
  it('names the entry of a missing or swapped picture', () => {
    const { [`photos/${sha256Hex(picture)}.jpg`]: _gone, ...rest } = files;
    expect(verifyBundle(rest).broken).toMatchObject({
      seq: 3,
      id: '00000000-0000-4000-8000-000000000002',
      reason: 'its picture is missing from the bundle',
    });
  });
  it('names an unreadable line', () => {
    const text = new TextDecoder()
      .decode(files['ledger.jsonl'])
      .replace('{"id":"00000000-0000-4000-8000-000000000001"', '{"id":"00000000-0000-4000-8000-000000000001');
    expect(verifyBundle({ ...files, 'ledger.jsonl': strToU8(text) }).broken).toMatchObject({ seq: 2 });
    expect(verifyBundle({ ...files, 'ledger.jsonl': strToU8('null\n') }).broken).toMatchObject({
      seq: 1,
      reason: 'its shape is not that of an entry (the line)',
    });
  });
  it('finds derived files that do not follow from the ledger', () => {
    expect(verifyBundle({ ...files, 'findings.csv': strToU8('x') })).toMatchObject({
      ok: false,
      disagreements: ['findings.csv does not agree with the ledger'],
    });
    expect(verifyBundle({ ...files, 'case.json': strToU8('{}') }).disagreements).toEqual(['case.json does not agree with the ledger']);
    expect(verifyBundle({}).disagreements).toEqual(['ledger.jsonl is missing']);
  });
  it.each<[string, Record<string, Uint8Array>, string]>([
    ['a name that climbs', { '../evil.sh': strToU8('x') }, 'does not belong'],
    ['a program', { 'run.exe': strToU8('x') }, 'does not belong'],
    ['a bomb', { 'ledger.jsonl': new Uint8Array(130 * 1024 * 1024) }, 'unpacks to more than'],
  ])('refuses %s before unpacking', (_, content, words) => {
    const r = openBundle(zipSync(content, { level: 1 }));
    expect(r.ok ? '' : r.problem.sentence).toContain(words);
  });
  it('says so when it is no archive', () => expect(openBundle(strToU8('hello')).ok).toBe(false));
});

describe('report', () => {
  const { view } = opened({
    ...EXAMPLE,
    readings: [52.978, 52.971, 52.975, 52.966, 52.981, 52.976].map((value, i) => ({
      station: 'crank.pin.2',
      plane: (['front', 'mid', 'rear'] as const)[Math.floor(i / 2)]!,
      axis: (['A', 'B'] as const)[i % 2]!,
      value,
    })),
  });
  const model = reportModel(view, 'abc', 12);
  const words = JSON.stringify(model.sections.map((s) => s.blocks.filter((b) => b.kind !== 'wear')));
  it('holds every section with its heading', () =>
    expect(model.sections.map((s) => s.id)).toEqual([
      'question',
      'opening',
      'examined',
      'findings',
      'sheets',
      'causes',
      'sequence',
      'conclusion',
      'standing',
      'appendix',
    ]));
  it('says what was and was not examined', () => {
    expect(words).toContain('places (');
    expect(words).toContain('Not examined: ');
    expect(words).toContain('Oil pump gears');
  });
  it('gives causes with evidence for and against, alternatives, the unexplained and the next check', () => {
    for (const w of [
      'One feed blocked',
      'decibans',
      'Against it',
      'Alternatives considered',
      'Left unexplained',
      'The check that would tell most',
    ])
      expect(words).toContain(w);
  });
  it('gives no verdict without a specification', () => expect(words).toContain('No specification was entered'));
  it('ends with the standing statement and the ledger head', () => {
    expect(words).toContain(STANDING_STATEMENT);
    expect(words).toContain('12 entries, head abc');
  });
});

describe('the published schema of a ledger line', () => {
  const schema = JSON.parse(readFileSync(join(__dirname, '../../../docs/formats/ledger-entry.schema.json'), 'utf8')) as {
    properties: Record<string, { enum?: string[] }>;
    required: string[];
  };
  it('names every kind of entry and every part of one', () => {
    expect(schema.properties['kind']!.enum).toEqual([...ENTRY_KINDS]);
    const entry = sealEntry(
      { id: 'e', kind: 'remark', station: null, body: { remark: 'r', text: '' }, basedOn: null },
      { caseId: 'c', seq: 1, prev: FIRST_PREV, time: 't', salt: 's', author: { id: 'a', name: 'A' }, supersedes: null },
    );
    expect([...schema.required].sort()).toEqual(Object.keys(entry).sort());
  });
});
