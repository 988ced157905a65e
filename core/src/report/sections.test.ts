import type { CaseFile } from '../bundle/caseFile/format.js';
import type { CaseView } from '../case/views.js';
import { stripStanding } from '../case/stripStanding.js';
import { stripPlan } from '../strip/plan.js';
import { caseOf } from '../testing/caseOf.js';
import { sectionWords } from '../testing/sectionWords.js';
import type { ReportSection } from './blocks.js';
import { findings } from './sections/findings.js';
import { opening } from './sections/opening.js';
import { appendix } from './sections/appendix.js';
import { measured } from './sections/measured.js';

// The sections of the account, each from a case that has just what it tells.
const keys = (s: ReportSection): string[] => s.blocks.flatMap((b) => (b.kind === 'text' && b.key ? [b.key] : []));
const none = new Map<string, number>();

describe('findings', () => {
  it('says that there are none, and what was examined and is sound', () => {
    const s = findings(caseOf({ sound: ['bore.*'] }), none);
    expect(sectionWords(s)).toMatch(/No findings were recorded\..*Examined, nothing found.*Bore 1, Bore 2, Bore 3, Bore 4\./s);
    expect(keys(s)).toEqual(['findings.none', 'findings.sound']);
  });

  it('begins with the worst, and says grade, patterns, what was looked for and what was remarked', () => {
    const s = findings(
      caseOf({
        findings: [
          { station: 'bore.1', grade: 2, patterns: ['bore-scuff-band'] },
          { station: 'rod.1.shell.upper', grade: 4, patterns: ['wiping'], absent: ['lining-fatigue'], note: 'Smelt burnt.' },
        ],
      }),
      none,
    );
    const text = sectionWords(s);
    expect(text.indexOf('Rod 1 upper shell')).toBeLessThan(text.indexOf('Bore 1'));
    expect(text).toMatch(/4 Lost; .*; looked for, not there: /i);
    expect(text).toMatch(/Remark by Case file: Smelt burnt\./);
    expect(keys(s)).toEqual(['findings.rod.1.shell.upper', 'findings.bore.1']);
  });

  it('shows a drawn surface with the shares that are on it, and a grade nobody confirmed as proposed', () => {
    const s = findings(
      caseOf({ findings: [{ station: 'rod.1.shell.upper', wear: [{ class: 'lining', percent: 20, where: 'middle' }] }] }),
      none,
    );
    expect(sectionWords(s)).toMatch(/\(proposed\)/);
    const wear = s.blocks.find((b) => b.kind === 'wear')!;
    expect(wear.kind === 'wear' && wear.caption).toMatch(
      /^Rod 1 upper shell, developed: lining exposed 1\d\.\d %|^Rod 1 upper shell, developed: lining exposed 2\d\.\d %/,
    );
  });
});

describe('measurements', () => {
  const PIN: CaseFile['readings'] = ['front', 'mid', 'rear'].flatMap((plane) =>
    ['A', 'B'].map((axis) => ({
      station: 'crank.pin.2',
      plane: plane as 'front',
      axis: axis as 'A',
      value: plane === 'mid' ? '2.0835"' : '52.96',
    })),
  );
  const SPEC = { 'crank.pin': { minMm: 52.98, maxMm: 53, undersizesMm: [0.25], source: 'page 9' } };

  it('says that nothing was measured', () => {
    const s = measured(caseOf(), 'full');
    expect(sectionWords(s)).toBe('Nothing was measured.');
    expect(keys(s)).toEqual(['sheets.none']);
    expect(appendix(caseOf())).toEqual([]);
  });

  it('in full has readings, results with verdict and uncertainty, gauges, limits and what was typed in other units', () => {
    const text = sectionWords(appendix(caseOf({ readings: PIN!, specs: SPEC }))[0]!);
    expect(text).toMatch(/Crankpin 2/);
    expect(text).toMatch(/ \| front \| mid \| rear/);
    expect(text).toMatch(/Least \| 52\.921 mm ± 0\.00\d\d mm \| mid, axis [AB] \| outside \(limit\)/);
    expect(text).toMatch(/Limits: page 9\./);
    expect(text).toMatch(/Typed in other units: 2\.0835", 2\.0835"\./);
    expect(text).toMatch(/Gauges: Outside micrometer 0\.001, resolution 0\.001 mm, U 0\.003 mm/);
  });

  it('in one table has a place a line, the mark of its verdict behind each result, and uncertainty once', () => {
    const text = sectionWords(measured(caseOf({ readings: PIN!, specs: SPEC }), 'full'));
    expect(text).toMatch(/Crankpin 2 \| .*52\.921 ✗/);
    expect(text).toMatch(/U \(k = 2\) \| ±0\.00\d/);
    expect(text).toMatch(/Crankpin 2, least: outside \(limit\); 52\.921/);
    expect(text).toMatch(/Further results stand in the appendix/);
    expect(text).not.toMatch(/ \| front \| mid \| rear/);
  });

  it('in short leaves no result out, says what follows, and gives readings nothing was computed from', () => {
    const text = sectionWords(measured(caseOf({ readings: PIN!, specs: SPEC }), 'short'));
    const lines = sectionWords(appendix(caseOf({ readings: PIN!, specs: SPEC }))[0]!);
    for (const name of ['Largest', 'Least', 'Taper', 'Wear']) {
      expect(lines).toContain(name);
      expect(text).toContain(name);
    }
    expect(text).toMatch(/What follows\n/);
    expect(text).not.toMatch(/appendix/);
    const waiting = caseOf({
      readings: [{ station: 'rod.1.shell.lower', sheet: 'shell-clearance', cell: 'housing.vertical', value: '56.036' }],
    });
    expect(sectionWords(measured(waiting, 'short'))).toMatch(/56\.036 mm/);
  });

  it('marks what was only held against a rule of thumb as such', () => {
    const play = ['towards', 'away'].map((cell, k) => ({ station: 'rod.1', sheet: 'side-clearance', cell, value: k === 0 ? '0' : '0.2' }));
    const text = sectionWords(measured(caseOf({ readings: play }), 'full'));
    expect(text).toMatch(/ \((✓|✗|≈)\)/);
    expect(text).not.toMatch(/\d (✓|✗|≈)( |$)/m);
  });

  it('says what a sheet still waits for, without limits that only rules of thumb are held against it, and what a stand-in sent', () => {
    const view = caseOf({
      readings: [
        { station: 'rod.1.shell.lower', sheet: 'shell-clearance', cell: 'housing.vertical', value: '56.036' },
        { station: 'rod.1', sheet: 'side-clearance', cell: 'towards', value: '0', simulated: true },
        { station: 'rod.1', sheet: 'side-clearance', cell: 'away', value: '0.2', simulated: true },
      ],
    });
    const text = sectionWords(appendix(view)[0]!);
    expect(text).toMatch(/Not read: upper wall at the crown; lower wall at the crown; its journal/);
    expect(text).toMatch(/No specification was entered: only rules of thumb/);
    expect(text).toMatch(/All readings of this place come from a gauge stand-in: they were not taken on the part\./);
    expect(text).toMatch(/Place \| Reading/);
  });
});

describe('before opening and strip', () => {
  it('says so where nothing was checked', () => expect(sectionWords(opening(caseOf()))).toBe('No check was made before opening.'));

  it('lists what was found by check, by cylinder and round the turn, with units, and what was not made', () => {
    const text = sectionWords(
      opening(
        caseOf({
          checks: [
            { check: 'compression', field: 'dry.1', answer: '12' },
            { check: 'compression', field: 'dry.2', answer: '174 psi' },
            { check: 'leak-down', field: 'not-done', answer: 'no air at hand' },
          ],
        }),
      ),
    );
    expect(text).toMatch(/Compression \| .* \| 1: 12 bar; 2: 174 psi/);
    expect(text).toMatch(/Checks not made\nLeak-down: no air at hand/);
  });

  it('says how far the strip came, what torques were read and what was gone before it was recorded', () => {
    const view = caseOf();
    const plan = stripPlan(view.layout);
    const pattern = plan.steps.find((s) => s.pattern)!.pattern!;
    const hold = stripStanding(view).steps.flatMap((s) => s.holds)[0]!.item;
    const text = sectionWords(
      opening(
        caseOf({
          strip: {
            lost: [hold.id],
            bolts: [
              { pattern: pattern.id, position: pattern.positions[0]!.id, value: '82' },
              { pattern: pattern.id, position: pattern.positions[1]!.id, value: '60', unit: 'lb·ft' },
            ],
          },
        }),
      ),
    );
    expect(text).toContain(`${pattern.name} | ${pattern.positions[0]!.id}: 82 N·m, ${pattern.positions[1]!.id}: 60 lb·ft`);
    expect(text).toContain(`Not recorded before it was gone\n${hold.name}`);
  });
});

describe('every section of every template', () => {
  it('is made of a case of which nothing is known without falling over', () => {
    for (const template of ['inline-4-petrol', 'single-splash', 'twin-premix', 'vee-12-petrol']) {
      const view: CaseView = caseOf({}, template);
      for (const made of [findings(view, none), measured(view, 'short'), opening(view)]) expect(made.blocks.length).toBeGreaterThan(0);
    }
  });
});
