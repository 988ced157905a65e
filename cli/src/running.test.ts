import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './main.js';

// Running engines from files, as others hand them over: an answer as JSON, or a sentence and code 2.
let dir: string;
beforeAll(() => (dir = mkdtempSync(join(tmpdir(), 'running-'))));
afterAll(() => rmSync(dir, { recursive: true }));
const put = (name: string, content: unknown): string => {
  const path = join(dir, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
};
const engine = (more: object = {}): string =>
  put('engine.json', {
    format: 'true-ledger/engine',
    version: 1,
    engine: { template: 'inline-4-petrol' },
    operating: { speedRpm: 4000 },
    ...more,
  });
const bearing = (): string =>
  put('bearing.json', {
    format: 'true-ledger/bearing',
    version: 1,
    diameterMm: 50,
    lengthMm: 20,
    diametralClearanceMm: 0.05,
    viscosityPaS: 0.008,
    speedRpm: 3000,
  });
const TABLE = [
  'angle_deg,fx_N,fy_N',
  ...Array.from({ length: 36 }, (_, i) => `${10 * i},${Math.round(4000 * Math.cos((i * Math.PI) / 18))},3000`),
].join('\n');

async function asked(...args: string[]): Promise<{ code: number; json: Record<string, unknown>; error: string }> {
  const told = { out: '', error: '' };
  const code = await run(args, { out: (t) => (told.out += t), error: (t) => (told.error += `${t}\n`) });
  return { code, json: told.out === '' ? {} : (JSON.parse(told.out) as Record<string, unknown>), error: told.error };
}

describe('a running engine at the command line', () => {
  it('answers with loads, films and its oil circuit, each in its format', async () => {
    const loads = await asked('loads', engine(), '--every', '10');
    expect([loads.code, loads.json['format']]).toEqual([0, 'true-ledger/loads']);
    expect(loads.json['angleDeg']).toHaveLength(72);
    const film = await asked('film', engine(), '--bearing', 'main.3');
    expect(film.json).toMatchObject({ format: 'true-ledger/film', bearings: [{ bearing: 'main.3' }] });
    const oil = await asked('oil', engine({ faults: [{ kind: 'shut-feed', at: 'main.3' }] }));
    expect(oil.json).toMatchObject({
      format: 'true-ledger/oil',
      starved: ['rod.3', 'main.3'],
      driver: expect.stringContaining('as it always does') as string,
    });
  });

  it('answers for a bearing by itself with a table', async () => {
    const { code, json } = await asked('film', bearing(), '--table', put('load.csv', TABLE), '--every', '30');
    expect(code).toBe(0);
    expect(json).toMatchObject({ format: 'true-ledger/film', film: { model: 'reynolds', settled: true } });
    expect((json['orbit'] as { angleDeg: number[] }).angleDeg).toHaveLength(12);
  });

  it.each<[string, () => string[], RegExp]>([
    ['a file that is not there', () => ['loads', join(dir, 'absent.json')], /could not be read/],
    ['no file', () => ['film'], /needs the path of one file/],
    ['a strange option', () => ['oil', engine(), '--swim'], /knows no options/],
    ['an angle that is none', () => ['loads', engine(), '--every', '0'], /--every is an angle/],
    ['a table for an engine', () => ['film', engine(), '--table', put('load.csv', TABLE)], /an engine takes --pressure/],
    ['loads of a bearing', () => ['loads', bearing()], /of a bearing by itself ask film/],
    ['a bearing the engine has not', () => ['film', engine(), '--bearing', 'rod.7'], /no bearing "rod\.7"/],
    ['a fault at no place', () => ['oil', engine({ faults: [{ kind: 'lost-jet', at: 'jet.1' }] })], /lost-jet.*at faults\.0\.at/],
    ['a table without its columns', () => ['film', bearing(), '--table', put('bad.csv', 'a,b\n1,2')], /angle_deg, fx_N, fy_N is missing/],
    ['what is no JSON', () => ['oil', put('no.json', '{')], /is not JSON/],
  ])('says of %s what is wrong', async (_, args, sentence) => {
    const { code, error } = await asked(...args());
    expect(code).toBe(2);
    expect(error).toMatch(sentence);
  });
});
