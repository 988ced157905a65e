import { surfaceMaps, takeRound, takeShell, USUAL_SHOT } from '@true-ledger/core/specimen';
import { readCaseFile, type CaseFile } from '@true-ledger/core/bundle';
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import sharp from 'sharp';
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
  it('tells what in a case file is probably not meant so, a line each, and diagnoses it as written', async () => {
    const slip = join(mkdtempSync(join(tmpdir(), 'tl-cli-')), 'slip.json');
    const findings = [{ station: 'rod.2', patterns: ['wiping'], grade: 3 }];
    writeFileSync(slip, JSON.stringify({ format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' }, findings }));
    for (const command of ['diagnose', 'report']) {
      const { code, error, out } = await call(command, slip);
      expect(code).toBe(0);
      expect(error).toMatch(/^findings\.0\.patterns: .*add "half"/);
      expect(out.length).toBeGreaterThan(100);
    }
  });
  it('makes a case file of the lines of a notebook, says what it did not understand, and diagnoses what it made', async () => {
    const notebook = [
      '# Why did it knock?',
      'crankpin 2 blue at the fillets',
      'R2 upper wiped, humming like a top',
      'one of the centre mains turned, tab gone',
      'told: the lamp came on',
      '',
    ];
    const said = { out: '', error: '' };
    const code = await run(['note', '--template', 'inline-4-petrol'], {
      out: (t) => void (said.out += t),
      error: (t) => void (said.error += `${t}\n`),
      input: () => Promise.resolve(notebook.join('\n')),
    });
    expect(code).toBe(0);
    const file = JSON.parse(said.out) as { version: number; findings: object[]; sights: object[]; history: object[] };
    expect(file).toMatchObject({ version: 2, case: { title: 'Why did it knock?' } });
    expect(file.findings).toContainEqual(expect.objectContaining({ station: 'crank.pin.2', patterns: ['journal-heat'], grade: 3 }));
    expect(file.sights).toEqual([expect.objectContaining({ sight: 'spun-shell', of: 1 })]);
    expect(file.history).toEqual([expect.objectContaining({ feature: 'told.pressure-lost', reliability: 'told' })]);
    expect(said.error).toMatch(/line 2, not understood, kept as a remark: "humming like a top"/);
    expect(said.error).toMatch(/4 lines, 3 of them understood in every clause/);
    const path = join(mkdtempSync(join(tmpdir(), 'tl-cli-')), 'note.json');
    writeFileSync(path, said.out);
    expect((await call('diagnose', path)).code).toBe(0);
    expect((await call('note', '--template', 'no-such-engine')).error).toMatch(/note needs --template, one of: inline-4-petrol/);
    expect((await call('note', '--nonsense')).code).toBe(2);
  });
  describe('of a notebook that is none', () => {
    const noted = async (notebook: string, ...args: string[]): Promise<{ code: number; error: string; file: CaseFile }> => {
      const said = { out: '', error: '' };
      const code = await run(['note', '--template', 'inline-4-petrol', ...args], {
        out: (t) => void (said.out += t),
        error: (t) => void (said.error += `${t}\n`),
        input: () => Promise.resolve(notebook),
      });
      return { code, error: said.error, file: JSON.parse(said.out || '{}') as CaseFile };
    };
    it.each([{ cylinders: 100_000 }, { cylinders: 'four' }, { firingOrder: [] }])(
      'refuses an engine that is none with one sentence: %j',
      async (engine) => {
        const path = join(mkdtempSync(join(tmpdir(), 'tl-cli-')), 'engine.json');
        writeFileSync(path, JSON.stringify(engine));
        const { code, error, file } = await noted('R2 upper wiped', '--engine', path);
        expect([code, file]).toEqual([2, {}]);
        expect(error).toMatch(/Nothing was recorded/);
      },
    );
    it('keeps a line as long as a book as remarks, and reads the others', async () => {
      const { code, error, file } = await noted(`${'told me all of it '.repeat(3000)}\nR2 upper wiped`);
      expect(code).toBe(0);
      expect(file.notes?.join('').length).toBe('told me all of it '.length * 3000 - 1);
      expect(file.findings).toEqual([expect.objectContaining({ station: 'rod.2.shell.upper', patterns: ['wiping'] })]);
      expect(error).toMatch(/line 1, not understood, kept as a remark: "told me all[^"]*\(53999 characters, not read\)"/);
    });
    it('takes blanks for what cannot be written down', async () => {
      const { code, file } = await noted('R2\u0000upper\u0007wiped\n\ud800R3 upper wiped');
      expect(code).toBe(0);
      expect(file.findings?.map((f) => f.station)).toEqual(['rod.2.shell.upper', 'rod.3.shell.upper']);
    });
    it('keeps more lines than a case has history, open sights, or remarks for, and a question longer than a title', async () => {
      const many = (line: string): string[] => Array.from({ length: 1200 }, () => line);
      const lines = [
        `# ${'why did it knock '.repeat(20)}`,
        ...many('told: the lamp came on'),
        ...many('one of the mains spun'),
        ...many('R2 upper wiped'),
        'timing wheels: cam late by a tooth',
        'timing wheels: marks right',
      ];
      const { code, file } = await noted(lines.join('\n'));
      expect(code).toBe(0);
      expect([file.history?.length, file.sights?.length]).toEqual([500, 500]);
      const kept = (line: string): number => JSON.stringify(file).split(line).length - 1;
      expect(['told: the lamp came on', 'one of the mains spun', 'R2 upper wiped', 'marks right'].map(kept)).toEqual([1200, 1200, 1200, 1]);
      expect(file.intake?.question).toHaveLength('why did it knock '.length * 20 - 1);
      expect(readCaseFile(file)).toMatchObject({ ok: true });
    });
  });
  it('refuses from version 2 of a case file what version 1 only tells', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tl-cli-'));
    const write = (name: string, file: object): string => {
      writeFileSync(
        join(folder, name),
        JSON.stringify({ format: 'true-ledger/case', version: 2, engine: { template: 'inline-4-petrol' }, ...file }),
      );
      return join(folder, name);
    };
    const slip = await call('diagnose', write('slip.json', { findings: [{ station: 'rod.2', patterns: ['wiping'] }] }));
    expect([slip.code, slip.error]).toEqual([2, expect.stringContaining('add "half"')]);
    const many = await call('diagnose', write('many.json', { sights: [{ sight: 'sight-scored', among: ['bore.1'], of: 2 }] }));
    expect([many.code, many.error]).toEqual([2, expect.stringContaining('2 of 1 places')]);
    const nowhere = await call('diagnose', write('nowhere.json', { sights: [{ sight: 'sight-scored', among: ['wing.*'] }] }));
    expect([nowhere.code, nowhere.error]).toEqual([2, expect.stringContaining('"wing.*" is not a place of this engine')]);
    const good = await call(
      'diagnose',
      write('good.json', { sights: [{ sight: 'sight-scored', among: ['bore.*'], of: 1, reliability: 'told' }], notes: ['as it came'] }),
    );
    expect(good.code).toBe(0);
  });
  it('writes the account of a case file in words, for whom it is', async () => {
    const { code, out } = await call('report', EXAMPLE);
    expect(code).toBe(0);
    for (const w of [
      '# Workshop account',
      'Draft, not signed.',
      '## What was and was not examined',
      '## Causes',
      '| Cause | Probability |',
      'One feed blocked',
    ])
      expect(out).toContain(w);
    const maker = await call('report', EXAMPLE, '--template', 'warranty');
    expect(maker.out).toContain('# Failure account for warranty');
    expect((await call('report', EXAMPLE, '--template', 'glossy')).code).toBe(2);
    expect((await call('report', '/nowhere.json')).code).toBe(2);
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
  it('grades a picture with and without corners, and says what it assumed', async () => {
    const specimen = { seed: 8, radiusMm: 26, widthMm: 20, damages: [{ kind: 'wipe', arc: 80, halfDeg: 20, amount: 0.95 }] } as const;
    const shot = takeShell(specimen, surfaceMaps(specimen, 720, 240), { ...USUAL_SHOT, width: 800, height: 600, tiltTowardsDeg: 100 });
    const folder = mkdtempSync(join(tmpdir(), 'tl-grade-'));
    const path = join(folder, 'shell.jpg');
    await sharp(Buffer.from(shot.pixels.data.buffer), { raw: { width: 800, height: 600, channels: 4 } })
      .removeAlpha()
      .jpeg()
      .toFile(path);
    const strip = join(folder, 'strip');
    const corners = shot.corners.flat().join(',');
    const given = await call('grade', path, '--part', 'shell', '--corners', corners, '--radius', '26', '--width', '20', '--explain', strip);
    expect(given.code).toBe(0);
    expect(JSON.parse(given.out)).toMatchObject({
      format: 'true-ledger/grade',
      version: 1,
      part: 'shell',
      grade: 3,
      scale: { radiusMm: 26, widthMm: 20, assumed: false },
      map: { columns: 36, rows: 12 },
    });
    // A larger file of the same is read in the same rendition, and corners are told in its own pixels.
    const large = join(folder, 'large.png');
    await sharp(path).resize(3200).png().toFile(large);
    const half = join(folder, 'half.png');
    await sharp(path).resize(1600).png().toFile(half);
    const by = (times: number): string =>
      shot.corners
        .flat()
        .map((v) => v * times)
        .join(',');
    const [whole, work] = [
      JSON.parse((await call('grade', large, '--corners', by(4))).out),
      JSON.parse((await call('grade', half, '--corners', by(2))).out),
    ] as Array<{
      corners: number[][];
      scale: { pxPerMm: number };
      percent: { lining: number };
    }>;
    expect(whole!.corners[0]![0]).toBeCloseTo(4 * shot.corners[0]![0], 0);
    expect(whole!.scale.pxPerMm).toBeCloseTo(work!.scale.pxPerMm, 0);
    expect(Math.abs(whole!.percent.lining - work!.percent.lining)).toBeLessThan(0.5);
    expect(readdirSync(strip).map((f) => f.replace(/^\d\d-/, ''))).toEqual(
      ['corners', 'developed', 'light', 'colour', 'corrected', 'sure', 'layers', 'lines'].map((n) => `${n}.png`).concat('stages.txt'),
    );
    // The lining that is read lies where the layers show it.
    const layers = await sharp(join(strip, '07-layers.png')).removeAlpha().raw().toBuffer();
    let lining = 0;
    for (let i = 0; i < layers.length; i += 3) if (layers.readUIntBE(i, 3) === 0xc98b4a) lining++;
    const { percent } = JSON.parse(given.out) as { percent: Record<string, number> };
    expect((300 * lining) / layers.length).toBeGreaterThan(0.5 * percent['lining']!);
    expect((await call('grade', path, '--explain', path)).code).toBe(2);
    const second = await call('grade', path, '--guess', '2');
    expect(JSON.parse(second.out)).toMatchObject({ format: 'true-ledger/grade', part: 'shell' });
    expect((await call('grade', path, '--guess', '3')).code).toBe(2);
    const alone = await call('grade', path);
    const answer = JSON.parse(alone.out) as { scale: { assumed: boolean }; doubts: string[] };
    expect(answer.scale.assumed).toBe(true);
    expect(answer.doubts.join(' ')).toMatch(/corners were found without help/);
    const sixteen = join(folder, 'sixteen.png');
    await sharp(path).toColourspace('rgb16').png().toFile(sixteen);
    expect((await call('grade', sixteen, '--corners', shot.corners.flat().join(','))).code).toBe(0);
    const bilevel = join(folder, 'bilevel.png');
    await sharp(path).threshold(128).png({ palette: true, colours: 2 }).toFile(bilevel);
    const refused = await call('grade', bilevel, '--corners', shot.corners.flat().join(','));
    expect([refused.code, refused.error]).toEqual([2, expect.stringMatching(/holds no colour|No bare metal/)]);
    const [a, b, c, d] = shot.corners;
    const crossed = await call('grade', path, '--corners', [a, c, b, d].flat().join(','));
    expect([crossed.code, crossed.error]).toEqual([2, expect.stringMatching(/corners cross/)]);
  });
  it('grades a journal from its corners or finds it, and says that a bore needs them', async () => {
    const specimen = {
      seed: 8,
      radiusMm: 25,
      widthMm: 22,
      spanDeg: 360,
      finish: 'ground-steel' as const,
      damages: [{ kind: 'score', axial: 0.5, fromDeg: 0, toDeg: 360, widthMm: 0.45, through: false }] as const,
    };
    const shot = takeRound(
      specimen,
      surfaceMaps(specimen, 1080, 180),
      { ...USUAL_SHOT, width: 760, height: 570, fill: 0.42 },
      'journal',
      180,
    );
    const path = join(mkdtempSync(join(tmpdir(), 'tl-grade-')), 'pin.png');
    await sharp(Buffer.from(shot.pixels.data.buffer), { raw: { width: 760, height: 570, channels: 4 } })
      .png()
      .toFile(path);
    const r = await call('grade', path, '--part', 'journal', '--corners', shot.corners.flat().join(','), '--radius', '25');
    expect(r.code).toBe(0);
    const answer = JSON.parse(r.out) as {
      part: string;
      grade: number;
      lines: Array<{ axial: number }>;
      features: { linesPercent: number };
      scale: { widthMm: number };
    };
    expect(answer).toMatchObject({ part: 'journal', grade: 2, lines: [{ axial: expect.closeTo(0.5, 1) as number }] });
    expect(answer.features.linesPercent).toBeGreaterThan(0.8);
    expect(Math.abs(answer.scale.widthMm - 22)).toBeLessThan(1.5);
    const alone = await call('grade', path, '--part', 'journal', '--radius', '25');
    expect(alone.code).toBe(0);
    expect((JSON.parse(alone.out) as { doubts: string[] }).doubts.join(' ')).toMatch(/corners were found without help/);
    const bore = await call('grade', path, '--part', 'bore');
    expect([bore.code, bore.error]).toEqual([2, expect.stringMatching(/Place the four corners first/)]);
  });
  it.each([
    [['grade'], 'needs the path'],
    [['grade', join(__dirname, 'main.ts')], 'not a picture that can be read'],
    [['grade', 'x.jpg', '--corners', '1,2,3'], 'takes eight figures'],
    [['grade', 'x.jpg', '--part', 'spoon'], 'shell, journal, skirt, bore, thrust, crown are'],
    [['grade', 'x.jpg', '--part', 'bore', '--arc', '2'], '5 to 360 degrees'],
    [['grade', 'x.jpg', '--radius', '-3'], 'millimetres, 1 to 500'],
    [['grade', 'x.jpg', '--construction', 'paper'], 'A shell is trimetal'],
    [['grade', 'x.jpg', '--shine'], 'not an option'],
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
