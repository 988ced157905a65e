import { caseView } from '../case/views.js';
import type { CaseState } from '../ledger/state.js';
import { write, written } from '../testing/write.js';
import { collectEvidence, soundContradictions, toObservation } from './evidence.js';
import type { EvidenceItem } from './evidenceItem.js';

// Where evidence comes from, and how much each source is worth; what was not looked at yields nothing.
const of = (state: CaseState, id: string): EvidenceItem | undefined => collectEvidence(caseView(state)!).find((e) => e.feature.id === id);
const cell = (pattern: string, position: string, newtonMetre: number) =>
  ['bolt-torque', null, { pattern, position, text: String(newtonMetre), unit: 'N·m', newtonMetre }] as const;
const cap = (id: string, more: object = {}) =>
  ['cap-checked', null, { cap: id, number: '1', agrees: true, joint: 'imperceptible', note: '', ...more }] as const;
const eased = (index: number, on: string, newtonMetre: number) =>
  ['ease-torque', null, { index, cap: on, text: String(newtonMetre), unit: 'N·m', newtonMetre }] as const;

describe('what was told', () => {
  it('an empty case has no evidence', () => expect(collectEvidence(caseView(written())!)).toEqual([]));

  it.each([
    ['complaint', 'knock,overheating', 'told.overheated'],
    ['complaint', 'oil-level-falling', 'fluid.level-low'],
    ['onset', 'after-work', 'told.recent-work'],
    ['afterFirstSign', 'driven-on', 'told.ran-on'],
  ])('at intake, %s: %s, is worth what telling is worth', (field, value, feature) => {
    const item = of(written(['intake-set', null, { field, value }]), feature);
    expect(item).toMatchObject({ present: true, reliability: 'told' });
    expect(toObservation(item!)).toEqual({ feature, ifPresent: 0.8, ifAbsent: 0.2 });
  });

  it('and seen later is worth what seeing is worth, whatever came first', () => {
    const told = ['intake-set', null, { field: 'complaint', value: 'oil-level-falling' }] as const;
    const seen = ['evidence-set', null, { feature: 'fluid.level-low', present: true, note: 'on the stick' }] as const;
    for (const order of [
      [told, seen],
      [seen, told],
    ])
      expect(of(written(...order), 'fluid.level-low')?.reliability).toBe('certain');
    // What was looked for and is not there outweighs what was told.
    const denied = ['evidence-set', null, { feature: 'fluid.level-low', present: false, note: '' }] as const;
    expect(of(written(told, denied), 'fluid.level-low')).toMatchObject({ present: false, reliability: 'certain' });
  });

  it('in the history, as it is known', () => {
    const line = (reliability: string) =>
      written(['history-line', null, { line: '1'.repeat(8), text: 'ran low', feature: 'fluid.level-low', reliability, date: null }]);
    expect(of(line('told'), 'fluid.level-low')?.reliability).toBe('told');
    expect(of(line('measured'), 'fluid.level-low')?.reliability).toBe('measured');
  });

  it('a single clean sample clears nothing, unless the shop holds that it does', () => {
    const clean = ['evidence-set', null, { feature: 'measured.sample-clean', present: true, note: '' }] as const;
    expect(of(written(clean), 'measured.sample-clean')?.reliability).toBe('told');
    expect(
      of(written(clean, ['school-set', null, { question: 'one-sample', position: 'clears', reason: 'ours' }]), 'measured.sample-clean')
        ?.reliability,
    ).toBe('certain');
  });
});

describe('what was not there', () => {
  const sound = (...ids: string[]) => ids.map((id) => ['state-set', id, { state: 'sound' }] as const);
  /** Something that was run on to the end, so that what comes late is missed where it is not there. */
  const RUN_ON = ['grade-confirmed', 'piston.1.crown', { grade: 3, proposed: null, reason: '', book: '1' }] as const;
  const JOURNALS = ['1', '2', '3', '4'].map((n) => `crank.pin.${n}`).concat(['1', '2', '3', '4', '5'].map((n) => `crank.main.${n}`));

  it('is a silence once most of its parts were looked at, and weighs less where nothing but “sound” was said', () => {
    expect(of(written(RUN_ON, ...sound(...JOURNALS.slice(0, 4))), 'seen.journal-heat')).toBeUndefined();
    const glanced = of(written(RUN_ON, ...sound(...JOURNALS)), 'seen.journal-heat')!;
    expect(glanced).toMatchObject({ present: false, reliability: 'silent', missed: 0.25 });
    const graded = JOURNALS.map((id) => ['grade-confirmed', id, { grade: 0, proposed: null, reason: '', book: '1' }] as const);
    expect(of(written(RUN_ON, ...sound(...JOURNALS), ...graded), 'seen.journal-heat')!.missed).toBeCloseTo(0.15, 9);
  });

  it('a silence is kept by everybody where there is nothing, so that it never says more than the same thing said', () => {
    const item = of(written(RUN_ON, ...sound(...JOURNALS)), 'seen.journal-heat')!;
    expect(toObservation(item)).toEqual({ feature: 'seen.journal-heat', ifPresent: item.missed, ifAbsent: 1 });
    const said = toObservation(
      of(written(RUN_ON, ['pattern-set', 'crank.pin.1', { pattern: 'journal-heat', present: false }]), 'seen.journal-heat')!,
    );
    expect(said.ifPresent / said.ifAbsent).toBeLessThan(item.missed!);
  });

  it('says less the fewer places were looked at', () => {
    const missed = (n: number): number => of(written(RUN_ON, ...sound(...JOURNALS.slice(0, n))), 'seen.journal-heat')!.missed!;
    expect(missed(9)).toBeLessThan(missed(8));
    expect(missed(8)).toBeLessThan(missed(7));
  });

  it('naming one sight hardly speaks against what it is taken for, and a destroyed part hides finer ones', () => {
    const named = (pattern: string, grade: number) =>
      written(
        RUN_ON,
        ...sound(...JOURNALS.slice(1)),
        ['pattern-set', JOURNALS[0]!, { pattern, present: true }],
        ['grade-confirmed', JOURNALS[0]!, { grade, proposed: null, reason: '', book: '1' }],
      );
    // A smear on a pin is taken for heat; what is worn to one side is not.
    const missed = (pattern: string, grade: number): number => of(named(pattern, grade), 'seen.journal-heat')!.missed!;
    expect(missed('journal-transfer', 2)).toBeCloseTo(0.6, 9);
    expect(missed('journal-one-side', 2)).toBeCloseTo(0.15, 9);
    expect(missed('journal-one-side', 4)).toBeCloseTo(0.5, 9);
  });

  it('named as not there by a builder is certain', () => {
    const state = written(RUN_ON, ['pattern-set', 'crank.pin.1', { pattern: 'journal-heat', present: false }]);
    expect(of(state, 'seen.journal-heat')).toMatchObject({ present: false, reliability: 'certain' });
  });

  it('in an engine opened early, what comes late is missed by nobody, and a denial of it says little', () => {
    expect(of(written(...sound(...JOURNALS)), 'seen.journal-heat')).toBeUndefined();
    expect(of(written(...sound(...JOURNALS)), 'seen.journal-scored')?.reliability).toBe('silent');
    const denied = ['pattern-set', 'crank.pin.1', { pattern: 'journal-heat', present: false }] as const;
    expect(of(written(denied), 'seen.journal-heat')).toMatchObject({ present: false, reliability: 'told' });
    // Once something of the kind was found it was run on.
    const spun = ['pattern-set', 'main.1.shell.upper', { pattern: 'spun-shell', present: true }] as const;
    expect(of(written(denied, spun), 'seen.journal-heat')?.reliability).toBe('certain');
  });

  it('a level tells nothing once oil was put in afterwards', () => {
    const level = ['evidence-set', null, { feature: 'fluid.level-low', present: false, note: 'on the mark' }] as const;
    const topped = ['evidence-set', null, { feature: 'told.topped-up-after', present: true, note: 'a litre' }] as const;
    expect(of(written(level), 'fluid.level-low')).toBeDefined();
    expect(of(written(level, topped), 'fluid.level-low')).toBeUndefined();
  });

  it('is not said while a damaged place has no name yet', () => {
    const state = write(written(RUN_ON, ...sound(...JOURNALS.slice(1))), 'grade-confirmed', JOURNALS[0]!, {
      grade: 3,
      proposed: null,
      reason: '',
      book: '1',
    });
    expect(of(state, 'seen.journal-heat')).toBeUndefined();
  });

  it('a place cannot be sound when what was recorded says otherwise', () => {
    const state = write(written(...sound(...JOURNALS)), 'evidence-set', null, { feature: 'seen.journal-heat', present: true, note: '' });
    const against = soundContradictions(caseView(state)!);
    expect(against.map((c) => c.feature)).toContain('seen.journal-heat');
    expect(against[0]!.words).toContain('Both cannot hold');
    expect(soundContradictions(caseView(written(...sound(...JOURNALS)))!)).toEqual([]);
  });
});

describe('what the strip told', () => {
  it('torque is even or not, and nothing while none was read', () => {
    expect(of(written(), 'measured.torque-uneven')).toBeUndefined();
    const even = of(written(cell('rod.1', 'a', 60), cell('rod.1', 'b', 58)), 'measured.torque-uneven');
    expect(even).toMatchObject({ present: false });
    const odd = of(written(cell('rod.1', 'a', 60), cell('rod.1', 'b', 20)), 'measured.torque-uneven');
    expect(odd).toMatchObject({ present: true });
    expect(odd!.sources[0]!.words).toMatch(/a against b/);
  });

  it('one wrong cap is enough, and many right ones deny it', () => {
    expect(of(written(cap('rod.1')), 'measured.cap-mismatch')).toBeUndefined();
    expect(of(written(cap('rod.1', { joint: 'step' })), 'measured.cap-mismatch')).toMatchObject({ present: true });
    const all = ['rod.1', 'rod.2', 'rod.3', 'rod.4', 'main.1'].map((id) => cap(id));
    expect(of(written(...all), 'measured.cap-mismatch')).toMatchObject({ present: false });
  });

  it('the cap whose easing lets the crank go is told from three figures on', () => {
    expect(of(written(eased(0, '', 80), eased(1, 'main.1', 20)), 'measured.cap-binding')).toBeUndefined();
    expect(of(written(eased(0, '', 80), eased(1, 'main.1', 78), eased(2, 'main.2', 20)), 'measured.cap-binding')).toMatchObject({
      present: true,
    });
    expect(of(written(eased(0, '', 30), eased(1, 'main.1', 29), eased(2, 'main.2', 28)), 'measured.cap-binding')).toMatchObject({
      present: false,
    });
  });
});

describe('where builders disagree', () => {
  const smear = ['pattern-set', 'crank.pin.1', { pattern: 'journal-transfer', present: true }] as const;
  const heat = ['pattern-set', 'crank.pin.1', { pattern: 'journal-heat', present: true }] as const;
  const school = (question: string, position: string) => ['school-set', null, { question, position, reason: 'ours' }] as const;

  it('alloy on a pin alone needs a second sign, by one position', () => {
    expect(of(written(smear, school('alloy-on-pin', 'second-sign')), 'seen.journal-transfer')?.reliability).toBe('told');
    expect(of(written(smear, heat, school('alloy-on-pin', 'second-sign')), 'seen.journal-transfer')?.reliability).toBe('certain');
  });

  it('a wide edge on big ends alone is not end float, by one position', () => {
    const worn = ['pattern-set', 'rod.2.shell.lower', { pattern: 'edge-loading', present: true }] as const;
    const other = of(written(worn, school('end-float', 'mains-only')), 'seen.edge-wear');
    const rods = of(written(worn, school('end-float', 'mains-only')), 'seen.edge-wear-rods');
    expect(other).toBeUndefined();
    expect(rods).toMatchObject({ present: true });
  });
});
