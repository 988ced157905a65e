import { caseView, type CaseView } from '../case/views.js';
import { assemblyModel } from '../report/assemblyModel.js';
import { written } from '../testing/write.js';
import { assemblyBook, limitWords, unproved, type AssemblyStanding } from './assembly.js';

const SPEC = { limits: { clearance: { lower: 0.03, upper: 0.07 } }, source: 'sheet of the shop' };
type Line = readonly [kind: string, station: string | null, body: object];
const viewOf = (...lines: Line[]): CaseView => caseView(written(...lines))!;
const stepOf = (view: CaseView, id: string): AssemblyStanding => assemblyBook(view).steps.find((s) => s.step.id === id)!;
const proof = (proof: string, text: string, value: number | null, unit = 'mm'): Line => ['proof-set', null, { proof, text, unit, value }];
const limited: Line = ['spec-set', null, { quantity: 'main.strip', spec: SPEC }];
const clearance = (view: CaseView) => stepOf(view, 'main-cap-2').proofs.find((p) => p.proof.id === 'clearance:main.2')!;

describe('what goes in', () => {
  const decided = (operation: string, size = ''): Line => ['disposition-set', 'main.2.shell.lower', { operation, size, reason: 'wiped' }];
  it.each([
    ['replace', 'new: −0.25, wiped', '−0.25'],
    ['keep', 'new: wiped', ''],
    ['reuse', 'goes back where it was: wiped', ''],
    ['clean', 'goes back where it was, cleaned: wiped', ''],
    ['check', 'still to be checked: wiped', ''],
    ['polish', 'back from the work, measured: polish: wiped', ''],
  ])('%s', (operation, words, size) => {
    const part = stepOf(viewOf(decided(operation, size)), 'main-cap-2').parts.find((p) => p.station === 'main.2.shell.lower')!;
    expect(part.words).toBe(words);
  });
  it('is open while nobody confirmed what becomes of it', () => {
    const wiped: Line = ['grade-confirmed', 'main.2.shell.lower', { grade: 3, proposed: null, reason: '', book: '1' }];
    expect(stepOf(viewOf(), 'main-cap-2').parts[0]!.words).toBe('not examined, not decided');
    expect(stepOf(viewOf(wiped), 'main-cap-2').parts[0]).toMatchObject({
      how: 'open',
      words: expect.stringMatching(/^not decided; proposed: /) as string,
    });
  });
});

describe('a proof', () => {
  it.each([
    ['0.05', 0.05, 'within'],
    ['0.07', 0.07, 'within'],
    ['0.071', 0.071, 'outside'],
    ['0.02', 0.02, 'outside'],
  ] as const)('of %s mm against 0.03 to 0.07', (text, value, state) => {
    const p = clearance(viewOf(limited, proof('clearance:main.2', text, value)));
    expect(p.state).toBe(state);
    expect(limitWords(p)).toBe('0.030 to 0.070 mm');
    expect(p.limit.source).toBe('sheet of the shop');
  });
  it('without a limit is read and judged by nothing', () => {
    const p = clearance(viewOf(proof('clearance:main.2', '0.5', 0.5)));
    expect(p.state).toBe('no limit');
    expect(limitWords(p)).toMatch(/No limit is known/);
  });
  it('that was emptied is open again', () => {
    expect(clearance(viewOf(proof('clearance:main.2', '0.05', 0.05), proof('clearance:main.2', '', null, ''))).state).toBe('open');
  });
  it('by eye holds when it was answered yes', () => {
    const feeds = (text: string) => stepOf(viewOf(proof('seen:feeds', text, null, '')), 'shells').proofs[0]!.state;
    expect([feeds('yes'), feeds('no')]).toEqual(['within', 'no']);
  });
  it('takes the limits of the checks for end float and pressure', () => {
    const view = viewOf(['limits-set', null, { sheet: null, limits: [{ quantity: 'end-float', lower: 0.05, upper: 0.25, unit: 'mm' }] }]);
    expect(limitWords(stepOf(view, 'play').proofs.find((p) => p.proof.id === 'end-float')!)).toBe('0.050 to 0.250 mm');
  });
  it('of end float is held against the specification of its sheet as well', () => {
    const spec = { limits: { endFloat: { lower: 0.06, upper: 0.2 } }, source: 'plate' };
    const view = viewOf(['spec-set', null, { quantity: 'end-float', spec }]);
    expect(limitWords(stepOf(view, 'play').proofs.find((p) => p.proof.id === 'end-float')!)).toBe('0.060 to 0.200 mm');
  });
  it('that does not carry its step is told', () => {
    const step = stepOf(viewOf(limited, proof('clearance:main.2', '0.09', 0.09)), 'main-cap-2');
    expect(unproved(step).map((p) => `${p.proof.id} ${p.state}`)).toEqual(['clearance:main.2 outside', 'turning:main.2 open']);
  });
});

describe('the book', () => {
  it('goes on from the first step that is not done, and takes one back', () => {
    const done = (state: string): Line => ['assembly-set', null, { step: 'wash', state, note: '' }];
    expect(assemblyBook(viewOf()).next?.step.id).toBe('wash');
    expect(assemblyBook(viewOf(done('done')))).toMatchObject({ done: 1, next: { step: { id: 'galleries' } } });
    expect(assemblyBook(viewOf(done('done'), done('open')))).toMatchObject({ done: 0 });
  });
  it('says what a cap was like, how it is tightened, and what bolts are new', () => {
    const view = viewOf(
      ['cap-checked', null, { cap: 'rod.3', number: '3', agrees: false, joint: 'step', note: '' }],
      ['torque-set', null, { fasteners: 'rod-bolts', text: '20 N·m; 60°', source: 'maker' }],
      ['bag-set', null, { bag: 'rod-bolts-3', counted: 2, note: '' }],
    );
    const step = stepOf(view, 'rod-cap-3');
    expect(step.cap).toBe('3, not as the rod or block is marked, joint with a step');
    expect(step.fasteners[0]).toMatchObject({ counted: 2, source: 'maker', stages: [{ newtonMetre: 20 }, { degrees: 60 }] });
    // Fasteners of a kind are tightened alike.
    expect(stepOf(view, 'rod-cap-1').fasteners[0]!.stages).toHaveLength(2);
    expect(stepOf(view, 'head-0').fasteners[0]!.words).toMatch(/new, the old ones are not used again/);
  });
  it('shows the first picture of a place, as it came apart', () => {
    const photo = (sha: string): Line => [
      'photo-added',
      'main.2.shell.lower',
      { sha256: sha.repeat(32), name: 'p', mime: 'image/jpeg', bytes: 1, width: 9, height: 9, takenAt: null, standIn: true },
    ];
    expect(stepOf(viewOf(photo('aa'), photo('bb')), 'main-cap-2').pictures).toEqual([
      { station: 'main.2.shell.lower', sha256: 'aa'.repeat(32), what: 'in the cap, face and back', standIn: true },
    ]);
  });
  it('asks for the first start what the confirmed cause asks', () => {
    const texts = (...lines: Line[]) => stepOf(viewOf(...lines), 'start').start.map((s) => s.what);
    expect(texts().length).toBeGreaterThan(4);
    expect(texts(['cause-decided', null, { cause: 'cam-lubrication', decision: 'confirmed', reason: '' }]).length).toBeGreaterThanOrEqual(
      texts().length,
    );
  });
  it('is printed with a cell for what is not proved, and with what was found for what is', () => {
    const model = assemblyModel(
      viewOf(limited, proof('clearance:main.2', '0.09', 0.09), [
        'assembly-set',
        null,
        { step: 'main-cap-2', state: 'done', note: 'new shells ordered' },
      ]),
      'head',
      9,
    );
    const rows = model.sections.flatMap((s) => s.blocks.flatMap((b) => (b.kind === 'table' ? b.rows : [])));
    expect(rows).toContainEqual(['Main 2, running clearance', '0.030 to 0.070 mm', '0.09 mm: outside']);
    expect(rows.find((r) => r[0] === 'Main 3, running clearance')![2]).toMatch(/^_+$/);
    const words = model.sections.flatMap((s) => s.blocks.flatMap((b) => (b.kind === 'text' ? [b.text] : [])));
    expect(words).toContainEqual('Done by Mara, 2026-03-02: new shells ordered.');
    expect(words.filter((w) => /^\d+ {2}/.test(w))).toHaveLength(29);
    expect(model.sections.map((s) => s.heading)).toEqual([
      'Before the first step',
      'Block',
      'Crank',
      'Rods',
      'Bottom',
      'Top',
      'Outside',
      'First start',
    ]);
  });
});
