import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { run } from './main.js';

const FIXTURE = join(__dirname, '../../e2e/fixtures/turning-journal');
const truth = JSON.parse(readFileSync(`${FIXTURE}.json`, 'utf8')) as { corners: [number, number][]; facingDeg: number; turnedDeg: number };
const CORNERS = truth.corners.flat().join();
let dir: string;
beforeAll(() => (dir = mkdtempSync(join(tmpdir(), 'unroll-'))));
afterAll(() => rmSync(dir, { recursive: true }));

async function unrolled(...args: string[]): Promise<{ code: number; out: string; error: string }> {
  const told = { out: '', error: '' };
  const code = await run(['unroll', ...args], { out: (t) => (told.out += `${t}\n`), error: (t) => (told.error += `${t}\n`) });
  return { code, ...told };
}

describe('true-ledger unroll', () => {
  it('gives the surface all round, closed on itself, and writes it', async () => {
    const out = join(dir, 'surface.png');
    const args = ['--part', 'journal', '--turn', '--corners', CORNERS, '--radius', '25', '--facing', `${truth.facingDeg}`, '--out', out];
    const { code, out: said } = await unrolled(`${FIXTURE}.webm`, ...args);
    expect(code).toBe(0);
    const json = JSON.parse(said) as {
      format: string;
      percent: { heat: number };
      turn: { closed: boolean; closingErrorPercent: number; seenDeg: number; turnedDeg: number };
      damage: { fromDeg: number; toDeg: number };
      surface: { width: number; height: number };
    };
    expect(json.format).toBe('true-ledger/unroll');
    expect(json.turn.closed).toBe(true);
    expect(json.turn.closingErrorPercent).toBeLessThan(3);
    expect(json.turn.seenDeg).toBeGreaterThan(350);
    expect(Math.abs(json.turn.turnedDeg - truth.turnedDeg)).toBeLessThan(20);
    expect(json.percent.heat).toBeGreaterThan(8);
    expect(json.damage.fromDeg).toBeGreaterThan(15);
    expect(json.damage.toDeg).toBeLessThan(160);
    expect(await sharp(out).metadata()).toMatchObject({ width: json.surface.width, height: json.surface.height });
    expect(JSON.parse(readFileSync(join(dir, 'surface.json'), 'utf8'))).toEqual(json);
  }, 240_000);

  it('takes the glare out of a film in which a lamp is led over a half shell, and writes what it made', async () => {
    const film = join(__dirname, '../../e2e/fixtures/led-lamp');
    const { corners } = JSON.parse(readFileSync(`${film}.json`, 'utf8')) as { corners: [number, number][] };
    const out = join(dir, 'lit.png');
    const how = ['--part', 'shell', '--lamp', '--radius', '25', '--width', '20', '--out', out];
    const { code, out: said } = await unrolled(`${film}.webm`, ...how, '--corners', corners.flat().join());
    expect(code).toBe(0);
    const json = JSON.parse(said) as {
      percent: { lining: number };
      glarePercent: number;
      lines: { axial: number }[];
      lamp: { framesUsed: number; seenPercent: number; walls: (boolean | null)[] };
    };
    expect(json).toMatchObject({ format: 'true-ledger/unroll', version: 1, made: 'lamp' });
    expect(json.lamp.framesUsed).toBeGreaterThan(30);
    expect(json.lamp.seenPercent).toBeGreaterThan(95);
    expect(json.glarePercent).toBeLessThan(1);
    expect(json.percent.lining).toBeGreaterThan(18);
    expect(json.percent.lining).toBeLessThan(27);
    expect(json.lines.some((l) => Math.abs(l.axial - 0.3) < 0.03)).toBe(true);
    expect(json.lamp.walls).toHaveLength(json.lines.length);
    for (const end of ['', '-relief', '-picture'])
      expect((await sharp(join(dir, `lit${end}.png`)).metadata()).width).toBeGreaterThanOrEqual(420);
    expect(JSON.parse(readFileSync(join(dir, 'lit.json'), 'utf8'))).toEqual(json);
  }, 240_000);

  it('says of a film in which the part turns that the lamp did not wander over a part that stayed', async () => {
    const { code, error } = await unrolled(`${FIXTURE}.webm`, '--part', 'journal', '--lamp', '--corners', CORNERS);
    expect(code).toBe(2);
    expect(error).toMatch(/The light hardly changes|could be laid over the first/);
  }, 240_000);

  it('stacks the wall of a bore from a film of a scope drawn out of it, and writes it', async () => {
    const scoped = join(__dirname, '../../e2e/fixtures/drawn-scope');
    const { drawnMm, radiusMm } = JSON.parse(readFileSync(`${scoped}.json`, 'utf8')) as { drawnMm: number; radiusMm: number };
    const out = join(dir, 'wall.png');
    const how = ['--part', 'bore', '--drawn', '--radius', `${radiusMm}`, '--facing', '270', '--length', '110', '--out', out];
    const { code, out: said } = await unrolled(`${scoped}.webm`, ...how);
    expect(code).toBe(0);
    const json = JSON.parse(said) as {
      percent: { scuffed: number };
      map: { shares: { scuffed: number[][] } };
      drawn: { byMm: number; followedPercent: number };
      surface: { width: number; height: number; lengthGiven: boolean };
    };
    expect(json).toMatchObject({
      format: 'true-ledger/unroll',
      version: 1,
      made: 'drawn',
      drawn: { farEndSeen: true, nearEndSeen: false },
    });
    // Its two ends are not both seen, so the length that was told is not taken.
    expect(json.surface.lengthGiven).toBe(false);
    expect(Math.abs(json.drawn.byMm - drawnMm)).toBeLessThan(0.03 * drawnMm);
    expect(json.drawn.followedPercent).toBeGreaterThan(90);
    const byArc = json.map.shares.scuffed.map((column) => column.reduce((a, b) => a + b, 0));
    expect(Math.abs(byArc.indexOf(Math.max(...byArc)) * 10 + 5 - 100)).toBeLessThan(25);
    expect(await sharp(out).metadata()).toMatchObject({ width: json.surface.width, height: json.surface.height });
  }, 240_000);

  it('says before it reads a film that its surface could not be written', async () => {
    const args = ['--part', 'journal', '--turn', '--corners', CORNERS, '--out', join(dir, 'no', 'such', 'folder.png')];
    const { code, error } = await unrolled(`${FIXTURE}.webm`, ...args);
    expect(code).toBe(2);
    expect(error).toMatch(/folder\.png cannot be written: its folder is not there.*Nothing was read/);
  });

  it.each([
    ['a file that is no film', ['nothing.webm', '--part', 'journal', '--turn', '--corners', CORNERS], /is not a film that can be read/],
    ['a film that is not there', ['absent.webm', '--part', 'journal', '--turn'], /could not be read/],
    ['a part that is not unrolled', ['nothing.webm', '--part', 'gasket', '--turn'], /journal and skirt are/],
    ['a journal out of which a scope is drawn', ['nothing.webm', '--part', 'journal', '--drawn'], /bore is/],
    ['a view no scope has', ['nothing.webm', '--part', 'bore', '--drawn', '--view', '200'], /30 to 150 degrees/],
    ['a length that is none', ['nothing.webm', '--part', 'bore', '--drawn', '--length', '0'], /The length of the bore/],
    ['no word of how it was taken', ['nothing.webm', '--part', 'journal'], /Say how the film was taken/],
    ['two words of how it was taken', ['nothing.webm', '--part', 'journal', '--turn', '--lamp'], /Say how the film was taken/],
    ['a part whose face is not read', ['nothing.webm', '--part', 'gasket', '--lamp'], /shell, journal, skirt, bore, thrust and crown are/],
    ['a width that is none', ['nothing.webm', '--part', 'shell', '--lamp', '--width', '0.5'], /The width is millimetres/],
    ['too few corners', ['nothing.webm', '--part', 'journal', '--turn', '--corners', '1,2'], /eight figures/],
    ['a strange option', ['nothing.webm', '--swim'], /unroll takes/],
  ])('says of %s what is wrong', async (_, [file, ...rest], sentence) => {
    writeFileSync(join(dir, 'nothing.webm'), 'no film at all');
    const { code, error } = await unrolled(join(dir, file!), ...rest);
    expect(code).toBe(2);
    expect(error).toMatch(sentence);
  });
});
