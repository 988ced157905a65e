import { caseView, type CaseView } from '../case/views.js';
import { foundWearOf } from '../case/foundWear.js';
import { readCaseFile } from '../bundle/caseFile/read.js';
import { caseFileOf } from '../bundle/caseFile/write.js';
import type { CaseFile } from '../bundle/caseFile/format.js';
import { CAUSES } from '../cause/data/causes.js';
import { LIKENED_FEATURES } from '../cause/data/features/likened.js';
import { engineTemplate } from '../engine/templates.js';
import type { CaseState } from '../ledger/state.js';
import { usualSetting, WEAR_FORMS, type WearForm } from '../running/setting.js';
import { write, written } from '../testing/write.js';
import { diagnose } from './diagnose.js';
import { collectEvidence, toObservation } from './evidence.js';
import { likenedBearings, likenedSetting, MOST_LIKENED } from './likenedEvidence.js';

// The likeness of found to predicted wear as evidence: never more than a named sight is worth, never of what was read anew, and silent where nothing tells.
const setting = usualSetting(engineTemplate('inline-4-petrol')!.layout, 'rod.2', {});
const mark = (half: 'upper' | 'lower', id: string) =>
  [
    'mark-made',
    `rod.2.shell.${half}`,
    {
      mark: {
        id,
        shape: 'stroke',
        class: 'lining',
        points: [
          [0.4, 0.5],
          [0.6, 0.5],
        ],
        radiusMm: 6,
        made: 'found-so',
      },
    },
  ] as const;
const worn = written(mark('upper', 'a'), mark('lower', 'b'));
const likened = (state: CaseState, alike: Partial<Record<WearForm, number>>, bearing = 'rod.2', of?: string): CaseState =>
  write(state, 'wear-likened', null, {
    bearing,
    of: of ?? foundWearOf(caseView(state)!, bearing),
    forms: Object.entries(alike).map(([form, value]) => ({ form, alike: value, setting: { ...setting, bearing } })),
  });
const evidence = (state: CaseState) => collectEvidence(caseView(state)!).filter((e) => e.feature.id.startsWith('likened.'));
const view = (state: CaseState): CaseView => caseView(state)!;

describe('likeness as evidence', () => {
  it('has a feature for every form, and every feature a cause that brings it about', () => {
    expect(LIKENED_FEATURES.map((f) => f.id).sort()).toEqual(WEAR_FORMS.map((f) => `likened.${f}`).sort());
    for (const f of LIKENED_FEATURES) expect(CAUSES.some((c) => c.links.some((l) => l.feature === f.id && !l.prevents))).toBe(true);
  });

  it('speaks for the form that leads, against those that are unlike, and for no more than a named sight', () => {
    const items = evidence(likened(worn, { combustion: 0.97, 'over-speed': 0.2, 'bent-rod': 0.4 }));
    const by = Object.fromEntries(items.map((e) => [e.feature.id, e]));
    expect(by['likened.combustion']).toMatchObject({ present: true, reliability: 'likened', likelihoodRatio: MOST_LIKENED });
    expect(by['likened.over-speed']).toMatchObject({ present: false });
    const { ifPresent, ifAbsent } = toObservation(by['likened.combustion']!);
    expect([ifPresent, ifAbsent]).toEqual([0.95, expect.closeTo(0.05, 12)]);
    expect(by['likened.combustion']!.sources[0]!.words).toBe('rod 2: 0.97 alike to what heavy combustion would leave, bent rod 0.40');
  });

  it('says little where two forms are as like as each other, and less of one bearing among many', () => {
    const clear = evidence(likened(worn, { combustion: 0.6, 'thin-film': 0.3 }));
    const twins = evidence(likened(worn, { combustion: 0.6, 'thin-film': 0.59 }));
    const weight = (items: typeof clear, id: string): number => {
      const item = items.find((e) => e.feature.id === id);
      return item ? (item.present ? 1 : -1) * Math.log(item.likelihoodRatio!) : 0;
    };
    expect(weight(clear, 'likened.combustion')).toBeGreaterThan(weight(twins, 'likened.combustion'));
    expect(Math.abs(weight(twins, 'likened.thin-film'))).toBeLessThan(Math.log(MOST_LIKENED));
    const [alone] = evidence(likened(worn, { 'bent-rod': 0.05 }));
    // A bent rod that did not wear this bearing may have worn one of the three others.
    expect(alone!.present).toBe(false);
    expect(Math.log(alone!.likelihoodRatio!)).toBeLessThan(0.6);
    const more = written(mark('upper', 'a'), mark('lower', 'b'), ['mark-made', 'rod.3.shell.upper', { ...mark('upper', 'c')[2] }]);
    const both = likened(likened(more, { 'bent-rod': 0.45 }), { 'bent-rod': 0.1 }, 'rod.3');
    expect(weight(evidence(both), 'likened.bent-rod')).toBeLessThan(
      weight(evidence(likened(more, { 'bent-rod': 0.45 })), 'likened.bent-rod'),
    );
    expect(weight(evidence(both), 'likened.bent-rod')).toBeGreaterThan(0);
  });

  it('moves the differential by as many decibans as its bar says, and opens the setting it was likened to', () => {
    const before = diagnose(view(worn));
    const state = likened(worn, { 'bent-rod': 0.9, combustion: 0.2, 'over-speed': 0.1 });
    const after = diagnose(view(state));
    const share = (d: typeof before): number => d.causes.find((c) => c.id === 'bent-rod')!.probability;
    expect(share(after)).toBeGreaterThan(share(before));
    const bar = after.causes.find((c) => c.id === 'bent-rod')!.evidence.find((e) => e.feature === 'likened.bent-rod')!;
    expect(bar.decibans).toBeGreaterThan(3);
    expect(bar.decibans).toBeLessThan(10 * Math.log10(MOST_LIKENED));
    expect(likenedSetting(view(state), 'likened.bent-rod', bar.sources[0]!.entry)).toMatchObject({ bearing: 'rod.2' });
    expect(likenedSetting(view(state), 'seen.wiping', bar.sources[0]!.entry)).toBeNull();
  });

  it('counts no more when the bearing is drawn or read anew, and when it is taken back', () => {
    const state = likened(worn, { combustion: 0.9 });
    expect(likenedBearings(view(state)).standing).toHaveLength(1);
    const again = write(state, ...mark('upper', 'c'));
    expect(evidence(again)).toEqual([]);
    expect(likenedBearings(view(again)).stale.map((l) => l.value.bearing)).toEqual(['rod.2']);
    const back = write(state, 'wear-likened', null, { bearing: 'rod.2', of: '0'.repeat(64), forms: null });
    expect([evidence(back), view(back).likened]).toEqual([[], []]);
  });

  it('goes with the case file, and is refused there of a bearing of which nothing was read', () => {
    const state = likened(worn, { 'bent-rod': 0.9, combustion: 0.2, 'over-speed': 0.1 });
    const file = JSON.parse(JSON.stringify(caseFileOf(state, view(state)))) as CaseFile;
    const again = readCaseFile(file);
    if (!again.ok) throw new Error(again.problem.sentence);
    expect(diagnose(again.value.view).causes).toMatchObject(
      diagnose(view(state)).causes.map(({ id, probability }) => ({ id, probability })),
    );
    expect(evidence(again.value.state).map((e) => e.feature.id)).toContain('likened.bent-rod');
    const other = file.likened!.map((l) => ({
      bearing: 'rod.3',
      forms: l.forms.map((f) => ({ ...f, setting: { ...f.setting, bearing: 'rod.3' } })),
    }));
    expect(readCaseFile({ ...file, likened: other })).toMatchObject({
      ok: false,
      problem: { field: 'likened.0.bearing', sentence: expect.stringContaining('No half of "rod.3"') },
    });
  });

  it('is asked for by no next check: it is made where loads are', () => {
    expect(diagnose(view(worn)).nextChecks.some((c) => c.feature.startsWith('likened.'))).toBe(false);
  });
});
