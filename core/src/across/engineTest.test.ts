import { readCaseFile } from '../bundle/caseFile/read.js';
import type { CaseFile } from '../bundle/caseFile/format.js';
import type { CaseView } from '../case/views.js';
import type { LineBodies, LineOf } from '../engineLog/lines.js';
import { lineDraftSchema } from '../engineLog/lines.js';
import { stripsCsv } from './csv.js';
import { testEffect } from './engineTest.js';
import { twoStrips } from './twoStrips.js';

const strip = (file: Partial<CaseFile>): CaseView => {
  const r = readCaseFile({ format: 'true-ledger/case', version: 2, engine: { template: 'inline-6-petrol' }, ...file });
  if (!r.ok) throw new Error(`${r.problem.field}: ${r.problem.sentence}`);
  return r.value.view;
};
const shells = (grade: (rod: number) => number, halves = ['upper', 'lower']): Partial<CaseFile> => ({
  findings: [1, 2, 3, 4, 5, 6].flatMap((rod) =>
    halves.map((half) => ({ station: `rod.${rod}.shell.${half}`, grade: grade(rod) as 1, patterns: ['wiping'] })),
  ),
});
const test = (body: Partial<LineBodies['test']>): LineOf<'test'> => ({
  id: 't1',
  kind: 'test',
  day: '2026-01-01',
  counter: null,
  supersedes: null,
  by: 'Mara',
  time: '',
  body: { name: 'Coated', changed: 'coating', what: '', part: 'shell', places: [], figure: 'grade', expected: 'less', by: null, ...body },
});
const FRONT = [1, 2, 3].flatMap((rod) => [`rod.${rod}.shell.upper`, `rod.${rod}.shell.lower`]);

describe('two strips of one engine', () => {
  const before = strip(shells(() => 1));
  const after = strip({ ...shells((rod) => (rod > 3 ? 3 : 1), ['upper']), sound: ['main.1.shell.lower'] });
  it('lie side by side at every place that was looked at in one of them', () => {
    const { places } = twoStrips(before, after);
    const at = (id: string) => places.find((p) => p.station.id === id);
    expect(at('rod.4.shell.upper')).toMatchObject({ before: { grade: 1 }, after: { grade: 3 } });
    expect(at('rod.4.shell.lower')).toMatchObject({ before: { grade: 1 }, after: null });
    expect(at('main.1.shell.lower')).toMatchObject({ before: null, after: { grade: 0, damage: 0 } });
    expect(at('bore.1')).toBeUndefined();
  });
  it('carry a change with the uncertainty of both, and call it clear only beyond that', () => {
    const pin = (size: number): Partial<CaseFile> => ({
      readings: ['front.A', 'front.B', 'mid.A', 'mid.B', 'rear.A', 'rear.B'].map((cell) => ({
        station: 'crank.pin.1',
        sheet: 'journal',
        cell,
        value: String(size),
      })),
    });
    const { measured } = twoStrips(strip(pin(52.97)), strip(pin(52.94)));
    const size = measured.find((m) => m.after.id === 'size') ?? measured[0]!;
    expect(size.change).toBeCloseTo(-0.03, 6);
    expect(size.expanded).toBeCloseTo(Math.hypot(size.before.expanded!, size.after.expanded!), 12);
    expect(size.clear).toBe(true);
    expect(twoStrips(strip(pin(52.97)), strip(pin(52.9705))).measured.some((m) => m.clear)).toBe(false);
    const csv = stripsCsv(twoStrips(strip(pin(52.97)), strip(pin(52.94))));
    expect(csv.split('\r\n')[0]).toBe('place,name,figure,at,unit,before,after,change,expanded_k2');
    expect(csv).toContain('-0.03');
  });
});

describe('a test as such', () => {
  const half = strip(shells((rod) => (rod > 3 ? 3 : 1)));
  it('holds the changed places against the others of their kind', () => {
    const e = testEffect(test({ places: FRONT }), twoStrips(half, half), half);
    expect(e).toMatchObject({ how: 'beside', came: 'as expected', shift: { shift: -2 }, mind: [] });
    expect([e.changed.length, e.others.length]).toEqual([6, 6]);
    // Of all 924 ways to divide twelve places only this and its mirror.
    expect(e.chance).toEqual({ asMuch: 2, of: 924, exact: true });
    expect(testEffect(test({ places: FRONT, expected: 'more' }), twoStrips(half, half), half).came).toBe('against what was expected');
  });
  it('shows nothing where nothing differs, and the same only within a stated amount', () => {
    const even = strip(shells((rod) => 1 + (rod % 2)));
    const came = (body: Partial<LineBodies['test']>) => testEffect(test({ places: FRONT, ...body }), twoStrips(even, even), even).came;
    expect(came({})).toBe('not shown');
    expect(came({ expected: 'same' })).toBe('not shown');
    expect(came({ expected: 'same', by: 1.5 })).toBe('as expected');
    expect(testEffect(test({ places: FRONT, expected: 'same', by: 1.5 }), twoStrips(half, half), half).came).toBe(
      'against what was expected',
    );
  });
  it('says that too few places cannot tell, and what is missing', () => {
    const few = testEffect(
      test({ places: FRONT.slice(0, 1) }),
      twoStrips(half, strip(shells((rod) => (rod > 1 ? 3 : 1), ['upper']))),
      half,
    );
    expect(few.came).toBe('cannot be told');
    expect(few.words).toMatch(/So few places cannot tell/);
    const gone = strip(shells(() => 2, ['lower']));
    const missing = testEffect(test({ places: ['rod.1.shell.upper'] }), twoStrips(half, gone), gone);
    expect(missing).toMatchObject({ came: 'cannot be told', shift: null });
    expect(missing.mind.join(' ')).toMatch(/1 changed place was not looked at/);
  });
  it('holds a half against the same half only, and big ends against big ends', () => {
    const uppers = [1, 2, 3].map((rod) => `rod.${rod}.shell.upper`);
    const mains = strip({ ...shells((rod) => (rod > 3 ? 3 : 1)), sound: ['main.1.shell.upper', 'main.2.shell.upper'] });
    const e = testEffect(test({ places: uppers }), twoStrips(mains, mains), mains);
    expect(e.others.map((f) => f.station.id)).toEqual([4, 5, 6].map((rod) => `rod.${rod}.shell.upper`));
    const all = [1, 2, 3, 4, 5, 6].map((rod) => `rod.${rod}.shell.upper`);
    expect(testEffect(test({ places: all }), twoStrips(mains, mains), mains)).toMatchObject({ came: 'cannot be told', shift: null });
  });
  it('of the whole engine holds each place against itself, and says what else is in it', () => {
    const worn = strip(shells((rod) => (rod > 3 ? 3 : 2)));
    const e = testEffect(test({ expected: 'more' }), twoStrips(strip(shells(() => 1)), worn), worn);
    expect(e).toMatchObject({ how: 'before', came: 'as expected' });
    expect(e.changed).toHaveLength(12);
    expect(e.mind[0]).toMatch(/Everything else that changed/);
  });
  it('is refused where it is none', () => {
    const { by: _by, time: _time, ...draft } = test({ places: FRONT });
    const errorOf = (change: object) => lineDraftSchema.validate({ ...draft, ...change }).error?.message ?? '';
    expect(errorOf({})).toBe('');
    expect(errorOf({ body: { ...draft.body, part: 'pan' } })).not.toBe('');
    expect(errorOf({ body: { ...draft.body, expected: 'better' } })).not.toBe('');
    expect(errorOf({ body: { ...draft.body, places: ['<script>'] } })).not.toBe('');
  });
});
