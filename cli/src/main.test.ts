import { join } from 'node:path';
import { run } from './main.js';

const FORMATS = join(__dirname, '../../docs/formats/examples');
const EXAMPLE = join(FORMATS, 'fire-pump.case.json');

async function call(...args: string[]): Promise<{ code: number; out: string; error: string }> {
  const said = { out: '', error: '' };
  const code = await run(args, { out: (t) => void (said.out += t), error: (t) => void (said.error += t) });
  return { code, ...said };
}

describe('true-ledger', () => {
  it('diagnoses a case file written by hand', async () => {
    const { code, out } = await call('diagnose', EXAMPLE);
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      format: 'true-ledger/diagnosis',
      causes: expect.arrayContaining([expect.objectContaining({ id: 'local-feed' })]),
    });
  });
  it('computes a measuring sheet', async () => {
    const { code, out } = await call('measure', join(FORMATS, 'measure/journal.json'));
    expect(code).toBe(0);
    const result = JSON.parse(out) as { lines: Array<{ id: string; verdict?: { word: string } }> };
    expect(result).toMatchObject({ format: 'true-ledger/measure', version: 1, sheet: 'journal' });
    expect(result.lines.find((l) => l.id === 'outOfRound')?.verdict?.word).toBe('too close to call');
  });
  it('computes a trace, alone and against an unworn one', async () => {
    const trace = join(FORMATS, 'finish/ring-travel.csv');
    const alone = await call('finish', trace, '--cutoff', '0.25');
    expect(alone.code).toBe(0);
    expect(JSON.parse(alone.out)).toMatchObject({ format: 'true-ledger/finish', version: 1, unit: 'µm', cutoffMm: 0.25 });
    const both = await call('finish', trace, '--reference', join(FORMATS, 'finish/below-travel.csv'));
    expect(both.code).toBe(0);
    const { says } = JSON.parse(both.out) as { says: string[] };
    expect(says.join(' ')).toMatch(/plateau.*peaks \d+ %/);
  });
  it('lists places, patterns, features and templates', async () => {
    expect((await call('stations', 'inline-4-petrol')).out).toContain('main.2.shell.upper\tMain 2 upper shell');
    expect((await call('patterns')).out).toContain('wiping\t');
    expect((await call('features')).out).toContain('spread.one-bearing\t');
    expect((await call('sheets')).out).toContain('crushed-strip\tShell clearance by crushed strip');
    expect((await call('sheets', 'inline-4-petrol')).out).toContain('crank.main.2\tjournal\tfront.A\tMain journal 2: front, axis A');
    expect((await call('templates')).out).toContain('twin-premix\t');
  });
  it.each([
    [['diagnose', 'nowhere.json'], 'could not be read'],
    [['diagnose', join(__dirname, 'main.ts')], 'is not JSON'],
    [['diagnose'], 'needs the path'],
    [['verify', EXAMPLE], 'damaged or is not one'],
    [['stations', 'steam'], 'not an engine template'],
    [['sheets', 'steam'], 'not an engine template'],
    [['measure'], 'needs the path'],
    [['measure', EXAMPLE], '"sheet" is required'],
    [['finish', EXAMPLE], 'trace'],
    [['finish', 'x.csv', '--cutoff', 'wide'], 'cut-off lies between'],
    [['finish', 'x.csv', '--polish'], 'not an option'],
    [['dance'], 'not a command'],
  ])('answers %j with a sentence and code 2', async (args, words) => {
    const { code, error } = await call(...args);
    expect(code).toBe(2);
    expect(error).toContain(words);
  });
  it('helps', async () => expect((await call()).out).toContain('verify BUNDLE.zip'));
});
