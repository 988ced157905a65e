import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CaseFile } from './format.js';
import { readCaseFile } from './read.js';

// What a case file may say by a slip: it is read as before, and told with what may stand there.
function doubts(file: object, template = 'inline-4-petrol'): string[] {
  const read = readCaseFile({ format: 'true-ledger/case', version: 1, engine: { template }, ...file });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.doubts.map((d) => `${d.field}: ${d.sentence}`);
}
const refusal = (file: object): string => {
  const read = readCaseFile({ format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' }, ...file });
  return read.ok ? '' : read.problem.sentence;
};

describe('a case file without a slip', () => {
  it('raises no doubt', () => {
    const example = JSON.parse(readFileSync(join(__dirname, '../../../../docs/formats/examples/fire-pump.case.json'), 'utf8')) as CaseFile;
    const read = readCaseFile(example);
    expect(read.ok && read.value.doubts).toEqual([]);
  });
});

describe('a slip is told, and the file is read all the same', () => {
  it('a pattern on a part that cannot show it, with those that can', () => {
    const [told] = doubts({ findings: [{ station: 'crank.pin.1', patterns: ['thrust-wiped'] }] });
    expect(told).toMatch(/^findings\.0\.patterns: "thrust-wiped" shows on thrust faces, and crank\.pin\.1 is one of the journals\./);
    expect(told).toContain('journal-scoring');
  });

  it('a shell pattern on a bearing without its half', () => {
    expect(doubts({ findings: [{ station: 'rod.2', patterns: ['wiping'] }] })).toEqual([
      expect.stringMatching(/rod\.2 without "half" is the part itself.*"both"/),
    ]);
    expect(doubts({ findings: [{ station: 'rod.2', half: 'lower', patterns: ['wiping'] }] })).toEqual([]);
    expect(doubts({ findings: [{ station: 'rod.2', absent: ['wiping'] }] })[0]).toMatch(/^findings\.0\.absent/);
  });

  it('states that match nothing', () => {
    expect(doubts({ states: { 'wing.*': 'lost' } })).toEqual([expect.stringMatching(/^states\.wing\.\*: .*matches no place/)]);
    expect(doubts({ states: { 'bore.*': 'lost' } })).toEqual([]);
  });

  it('codes of the intake nobody knows, beside those that are', () => {
    expect(doubts({ intake: { complaint: ['knock', 'rattle'], onset: 'overnight' } })).toEqual([
      expect.stringMatching(/^intake\.complaint: "rattle" is none of the answers.*low-pressure/),
      expect.stringMatching(/^intake\.onset: "overnight".*gradual/),
    ]);
    expect(doubts({ intake: { firstImpression: 'gremlins' } })).toEqual([expect.stringMatching(/^intake\.firstImpression: .*none-yet/)]);
    expect(doubts({ intake: { complaintWords: 'a rattle', complaint: 'knock,smoke', questionOwner: 'the harbour' } })).toEqual([]);
  });

  it('a limit of nothing that is measured, and a cap the engine has not', () => {
    expect(doubts({ limits: [{ quantity: 'sparkle', lower: 1, unit: 'mm' }] })).toEqual([
      expect.stringMatching(/^limits\.0\.quantity: .*end-float/),
    ]);
    expect(doubts({ strip: { caps: [{ cap: 'rod.9', agrees: true }] } })).toEqual([
      expect.stringMatching(/^strip\.caps\.0\.cap: "rod\.9" is no cap.*rod\.1/),
    ]);
  });

  it('a feature the engine cannot have, and one denied beside a finding that shows it', () => {
    const single = doubts({ evidence: [{ feature: 'spread.one-cylinder', present: true }] }, 'single-splash');
    expect(single).toEqual([expect.stringMatching(/^evidence\.0: "spread\.one-cylinder" is nothing this engine can have/)]);
    const both = doubts({
      findings: [{ station: 'rod.2', half: 'lower', patterns: ['wiping'] }],
      evidence: [{ feature: 'seen.wiping', present: false }],
    });
    expect(both).toEqual([
      expect.stringMatching(/^evidence\.0: "seen\.wiping" is given as not there, and a finding shows it \(rod\.2: wiping\)/),
    ]);
  });
});

describe('a place that is none', () => {
  it('is refused with what it may have been meant for', () => {
    expect(refusal({ findings: [{ station: 'main.3', patterns: ['wiping'] }] })).toMatch(/takes "half": "upper", "lower" or "both"/);
    expect(refusal({ findings: [{ station: 'bore.9', grade: 1 }] })).toMatch(/of its kind there are bore\.1, bore\.2, bore\.3, bore\.4/);
    expect(refusal({ findings: [{ station: 'wing', grade: 1 }] })).toMatch(/run "true-ledger stations"/);
  });
});
