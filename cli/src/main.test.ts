import { join } from 'node:path';
import { run } from './main.js';

const EXAMPLE = join(__dirname, '../../docs/formats/examples/fire-pump.case.json');

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
  it('lists places, patterns, features and templates', async () => {
    expect((await call('stations', 'inline-4-petrol')).out).toContain('main.2.shell.upper\tMain 2 upper shell');
    expect((await call('patterns')).out).toContain('wiping\t');
    expect((await call('features')).out).toContain('spread.one-bearing\t');
    expect((await call('templates')).out).toContain('twin-premix\t');
  });
  it.each([
    [['diagnose', 'nowhere.json'], 'could not be read'],
    [['diagnose', join(__dirname, 'main.ts')], 'is not JSON'],
    [['diagnose'], 'needs the path'],
    [['verify', EXAMPLE], 'damaged or is not one'],
    [['stations', 'steam'], 'not an engine template'],
    [['dance'], 'not a command'],
  ])('answers %j with a sentence and code 2', async (args, words) => {
    const { code, error } = await call(...args);
    expect(code).toBe(2);
    expect(error).toContain(words);
  });
  it('helps', async () => expect((await call()).out).toContain('verify BUNDLE.zip'));
});
