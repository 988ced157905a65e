import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8 } from 'fflate';
import { caseView } from '../case/views.js';
import { foldEntries } from '../entries/entries.js';
import { sha256Hex } from '../kit/hash.js';
import { FIRST_PREV, sealEntry, type LedgerEntry } from '../ledger/entry.js';
import { emptyCase } from '../ledger/state.js';
import { engineTemplate } from '../engine/templates.js';
import { readingsCsv } from '../measured/readingsCsv.js';
import { acceptEntries, readableVersion } from './acceptEntries.js';
import { caseFileOf } from './caseFile/write.js';
import { findingsCsv } from './csv.js';
import { fileOf, fileRefusal, readBundleFiles, verifyBundle, type BundleFiles } from './verifyBundle.js';

// A bundle from outside: every way it can be wrong is told by name, and what holds before the fault is kept apart from what does not.
const CASE = 'c0000000-0000-4000-8000-000000000000';
const PICTURE = strToU8('not a picture, but bytes');
const PDF = strToU8('%PDF-1.7 signed');
const { layout } = engineTemplate('single-splash')!;

type Draft = readonly [kind: string, station: string | null, body: object];
const picture = {
  sha256: sha256Hex(PICTURE),
  name: 'a.jpg',
  mime: 'image/jpeg',
  bytes: PICTURE.length,
  width: 8,
  height: 8,
  takenAt: null,
  standIn: false,
};
const signed = (version: number): object => ({
  version,
  reason: '',
  template: 'private',
  sha256: sha256Hex(PDF),
  bytes: PDF.length,
  head: 'ab'.repeat(32),
  entries: 3,
  sections: {},
  flags: 0,
});
const USUAL: readonly Draft[] = [
  ['case-opened', null, { number: '7', title: 'Pump' }],
  ['layout-set', null, { layout }],
  ['state-set', 'bore.1', { state: 'sound' }],
  ['photo-added', 'bore.1', picture],
  ['account-signed', null, signed(1)],
];
function chain(drafts: readonly Draft[] = USUAL, change: (e: LedgerEntry, k: number) => LedgerEntry = (e) => e): LedgerEntry[] {
  const entries: LedgerEntry[] = [];
  for (const [k, [kind, station, body]] of drafts.entries()) {
    const id = `e0000000-0000-4000-8000-${String(k).padStart(12, '0')}`;
    entries.push(
      change(
        sealEntry(
          { id, kind: kind as never, station, body: body as never, basedOn: null },
          {
            caseId: CASE,
            seq: k + 1,
            prev: entries.at(-1)?.hash ?? FIRST_PREV,
            time: '2026-03-02T08:00:00.000Z',
            salt: `salt${k}`,
            author: { id: 'a0000000-0000-4000-8000-000000000001', name: 'Mara' },
            supersedes: null,
          },
        ),
        k,
      ),
    );
  }
  return entries;
}
function filesOf(entries: readonly LedgerEntry[], more: BundleFiles = {}): BundleFiles {
  const state = foldEntries(emptyCase(CASE), entries);
  const view = caseView(state)!;
  return {
    'ledger.jsonl': strToU8(entries.map((e) => JSON.stringify(e)).join('\n') + '\n'),
    'case.json': strToU8(JSON.stringify(caseFileOf(state, view))),
    'measurements.csv': strToU8(readingsCsv(view)),
    'findings.csv': strToU8(findingsCsv(view)),
    [`photos/${picture.sha256}.jpg`]: PICTURE,
    'accounts/v1.pdf': PDF,
    ...more,
  };
}
const without = (files: BundleFiles, name: string): BundleFiles => Object.fromEntries(Object.entries(files).filter(([n]) => n !== name));
const lines = (files: BundleFiles, change: (lines: string[]) => string[]): BundleFiles => ({
  ...files,
  'ledger.jsonl': strToU8(change(new TextDecoder().decode(files['ledger.jsonl']).split('\n').filter(Boolean)).join('\n')),
});

describe('a bundle that is whole', () => {
  it('holds, counts its pictures, and gives its entries', () => {
    const { verdict, entries } = readBundleFiles(filesOf(chain()));
    expect(verdict).toMatchObject({ ok: true, entries: 5, photos: 1, disagreements: [], seal: { state: 'none' } });
    expect(entries).toHaveLength(5);
    expect(verdict.head).toBe(entries.at(-1)!.hash);
  });
});

describe('a bundle that does not hold', () => {
  const whole = filesOf(chain());
  it.each<[what: string, files: BundleFiles, seq: number, reason: RegExp]>([
    ['a line that is no entry', lines(whole, (l) => [...l.slice(0, 2), '{"id":"e1', ...l.slice(3)]), 3, /not readable/],
    ['a line that is another thing', lines(whole, (l) => [...l.slice(0, 2), '[1]', ...l.slice(3)]), 3, /./],
    ['a changed word', lines(whole, (l) => l.map((x) => x.replace('"sound"', '"lost"'))), 3, /content|hash|changed/i],
    ['an entry left out', lines(whole, (l) => [...l.slice(0, 2), ...l.slice(3)]), 3, /./],
    ['two entries changed over', lines(whole, (l) => [l[0]!, l[2]!, l[1]!, ...l.slice(3)]), 2, /./],
    ['a picture that is not there', without(whole, `photos/${picture.sha256}.jpg`), 4, /picture is missing/],
    ['another picture in its place', { ...whole, [`photos/${picture.sha256}.jpg`]: PDF }, 4, /picture is not the one/],
    ['a signed account that is not there', without(whole, 'accounts/v1.pdf'), 5, /signed account is missing/],
    ['another account in its place', { ...whole, 'accounts/v1.pdf': PICTURE }, 5, /signed account is not the one/],
  ])('names %s', (_, files, seq, reason) => {
    const { verdict, entries } = readBundleFiles(files);
    expect(verdict.ok).toBe(false);
    expect(verdict.broken?.seq).toBe(seq);
    expect(verdict.broken?.reason).toMatch(reason);
    // What stands before the fault is what was read.
    expect(entries).toHaveLength(seq - 1);
  });

  it('names a kind it does not know as one of a newer version, not as a forgery', () => {
    const { verdict } = readBundleFiles(filesOf(chain([...USUAL.slice(0, 3), ['of-a-later-version', null, { x: 1 }]]).slice(0, 3)));
    expect(verdict.broken).toBeUndefined();
    const newer = chain([...USUAL.slice(0, 2), ['of-a-later-version', null, { x: 1 }]]);
    const files = { ...filesOf(newer.slice(0, 2)), 'ledger.jsonl': strToU8(newer.map((e) => JSON.stringify(e)).join('\n')) };
    expect(verifyBundle(files).broken).toMatchObject({ seq: 3, newer: true });
  });

  it('refuses content that its kind does not have, and an engine that contradicts itself', () => {
    const shape = chain([...USUAL.slice(0, 2), ['state-set', 'bore.1', { state: 'shiny' }]]);
    expect(
      verifyBundle({ ...filesOf(shape.slice(0, 2)), 'ledger.jsonl': strToU8(shape.map((e) => JSON.stringify(e)).join('\n')) }).broken
        ?.reason,
    ).toMatch(/does not hold what its kind needs/);
    const engine = chain([USUAL[0]!, ['layout-set', null, { layout: { ...layout, mains: 9 } }]]);
    expect(
      verifyBundle({ ...filesOf(chain()), 'ledger.jsonl': strToU8(engine.map((e) => JSON.stringify(e)).join('\n')) }).broken?.reason,
    ).toMatch(/its engine contradicts itself/);
  });

  it('a version is signed once', () => {
    const twice = chain([...USUAL, ['account-signed', null, signed(1)]]);
    expect(verifyBundle(filesOf(twice)).broken).toMatchObject({ seq: 6, reason: 'its version was signed before' });
  });

  it('content that is gone needs an entry that says so', () => {
    const gone = chain().map((e, k) => (k === 2 ? { ...e, body: null } : e)) as LedgerEntry[];
    const files = { ...filesOf(chain()), 'ledger.jsonl': strToU8(gone.map((e) => JSON.stringify(e)).join('\n')) };
    expect(verifyBundle(files).broken?.seq).toBe(3);
  });

  it.each<[string, BundleFiles, RegExp]>([
    ['no ledger', without(whole, 'ledger.jsonl'), /ledger.jsonl is missing/],
    ['no case file', without(whole, 'case.json'), /case.json is missing/],
    ['a case file that is none', { ...whole, 'case.json': strToU8('{') }, /case.json is not readable/],
    ['a case file of another case', { ...whole, 'case.json': strToU8('{"format":"true-ledger/case"}') }, /case.json does not agree/],
    ['other readings', { ...whole, 'measurements.csv': strToU8('a,b\n') }, /measurements.csv does not agree/],
    ['other findings', { ...whole, 'findings.csv': strToU8('a,b\n') }, /findings.csv does not agree/],
  ])('says that there is %s', (_, files, words) => {
    const verdict = verifyBundle(files);
    expect(verdict.ok).toBe(false);
    expect(verdict.disagreements.join(', ')).toMatch(words);
  });
});

describe('a file in a bundle', () => {
  it.each([
    ['../etc/passwd', 10, /does not belong/],
    ['photos/short.jpg', 10, /does not belong/],
    ['accounts/v0.pdf', 10, /does not belong/],
    ['ledger.jsonl', 65 * 1024 ** 2, /more than 64 MB/],
    [`clips/${'ab'.repeat(32)}.webm`, 129 * 1024 ** 2, /more than 128 MB/],
  ])('%s is refused before it is unpacked', (name, size, words) => expect(fileRefusal(name, size, 1, size)).toMatch(words));

  it('is refused when there are more than a case can hold', () => {
    expect(fileRefusal('case.json', 10, 5001, 10)).toMatch(/more than a case can hold/);
    expect(fileRefusal('case.json', 10, 1, 5 * 1024 ** 3)).toMatch(/more than a case can hold/);
    expect(fileRefusal('case.json', 10, 1, 10)).toBeNull();
  });

  it('belongs to the entry it stands for, or to none', () => {
    const [opened, , , photo, account] = chain();
    expect(fileOf(opened!)).toBeNull();
    expect(fileOf({ ...photo!, body: null } as LedgerEntry)).toBeNull();
    expect(fileOf(photo!)).toEqual({ name: `photos/${picture.sha256}.jpg`, sha256: picture.sha256, what: 'picture' });
    expect(fileOf(account!)?.name).toBe('accounts/v1.pdf');
    const clip = { ...photo!, kind: 'clip-added', body: { sha256: 'cd'.repeat(32), mime: 'audio/other' } } as unknown as LedgerEntry;
    expect(fileOf(clip)).toMatchObject({ name: `clips/${'cd'.repeat(32)}.bin`, what: 'clip' });
  });
});

describe('what comes from outside', () => {
  it('is one case that is opened first, with no id twice', () => {
    const entries = chain();
    expect(acceptEntries(entries)).toEqual({ ok: true, value: { caseId: CASE, number: '7' } });
    const refusal = (list: readonly LedgerEntry[]): string => {
      const answer = acceptEntries(list);
      return answer.ok ? '' : answer.problem.sentence;
    };
    expect(refusal([])).toMatch(/does not begin with the opening/);
    expect(refusal(entries.slice(1))).toMatch(/does not begin with the opening/);
    expect(refusal([entries[0]!, { ...entries[1]!, caseId: 'other' }])).toMatch(/entry 2 belongs to another case/);
    expect(refusal([entries[0]!, { ...entries[1]!, id: entries[0]!.id }])).toMatch(/entry 2 carries the id of an entry before it/);
  });

  it.each<[string | null, string | true]>([
    [null, 'bundle-refused'],
    ['{', 'bundle-refused'],
    ['null', 'bundle-refused'],
    ['{"format":"other","version":1}', 'bundle-refused'],
    ['{"format":"true-ledger/case","version":99}', 'bundle-newer'],
    ['{"format":"true-ledger/case","version":1}', true],
  ])('a case file %s is read, or told from one of a newer version', (json, code) => {
    const answer = readableVersion(json);
    expect(answer.ok || answer.problem.code).toBe(code);
    if (!answer.ok) expect(answer.problem.sentence).toMatch(/Nothing was changed/);
  });

  it('the published example is one this version reads', () =>
    expect(readableVersion(readFileSync(join(__dirname, '../../../docs/formats/examples/fire-pump.case.json'), 'utf8')).ok).toBe(true));
});
