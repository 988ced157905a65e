import { readCaseFile } from '../bundle/caseFile/read.js';
import { caseFileOf } from '../bundle/caseFile/write.js';
import { caseView } from '../case/views.js';
import { healthyOil } from '../engineLog/standInLaboratory.js';
import type { CaseState } from '../ledger/state.js';
import { reportModel } from '../report/model.js';
import { sectionWords } from '../testing/sectionWords.js';
import { ENGINE, Log } from '../testing/engineLog.js';
import { written } from '../testing/write.js';
import { diagnose } from './diagnose.js';
import { collectEvidence } from './evidence.js';
import { oilAgainstMetal } from './oilLogEvidence.js';

// The log of an engine as evidence in one of its cases: a trend, not a snapshot; what oil and metal disagree on is shown, never averaged.
type Step = readonly [kind: string, station: string | null, body: object];
const taken = (log: Log): Step => ['oil-log-taken', null, { log: log.taken() }];
const view = (state: CaseState) => caseView(state)!;
const item = (state: CaseState, feature: string) => collectEvidence(view(state)).find((e) => e.feature.id === feature);
const coolant = { ...healthyOil(ENGINE), other: { ...healthyOil(ENGINE).other, Na: 300, K: 120 } };

describe('the log of an engine in a case', () => {
  it('says what it shows: a trend as seen, one sample as told, a clean one as the shop holds it', () => {
    const once = new Log().change('2024-01-01', 0).sample(1, '2024-02-01', 200, 200, coolant);
    expect(item(written(taken(once)), 'measured.glycol')).toMatchObject({ present: true, reliability: 'told' });
    const trend = new Log().years(3).change('2024-05-01', 750).sample(9, '2024-06-01', 950, 200, coolant);
    const state = written(taken(trend));
    expect(item(state, 'measured.glycol')).toMatchObject({ present: true, reliability: 'seen' });
    expect(item(state, 'measured.glycol')!.sources[0]!.words).toMatch(/^Oil log: The sample of 2024-06-01 points to coolant/);
    const clean = taken(new Log().years(4));
    expect(item(written(clean), 'measured.sample-clean')?.reliability).toBe('told');
    expect(
      item(written(clean, ['school-set', null, { question: 'one-sample', position: 'clears', reason: 'ours' }]), 'measured.sample-clean')
        ?.reliability,
    ).toBe('seen');
  });

  it('moves the causes, outweighs nothing that was looked at, and says nothing once it is taken out', () => {
    const rising = new Log().change('2024-01-01', 0).level('2024-01-01', 0, 0.5).level('2024-02-01', 30, 0.6).level('2024-03-01', 60, 1.2);
    const share = (state: CaseState): number => diagnose(view(state)).causes.find((c) => c.id === 'coolant-in-oil')!.probability;
    const [before, after] = [written(), written(taken(rising))];
    expect(share(after)).toBeGreaterThan(share(before));
    expect(item(written(taken(rising), ['oil-log-taken', null, { log: null }]), 'fluid.level-high')).toBeUndefined();
    const denied = written(taken(rising), ['evidence-set', null, { feature: 'fluid.level-high', present: false, note: '' }]);
    expect(item(denied, 'fluid.level-high')).toMatchObject({ present: false, reliability: 'certain' });
  });

  it('holds the sample against the metal', () => {
    const clean = taken(new Log().years(4));
    const worn: Step[] = [['grade-confirmed', 'rod.2.shell.upper', { grade: 4, proposed: null, reason: '', book: '1' }]];
    expect(oilAgainstMetal(view(written(clean)))).toEqual([]);
    expect(oilAgainstMetal(view(written(clean, ...worn)))).toEqual([
      expect.stringMatching(/no bearing metal, and Rod 2 upper shell is worn to grade 4/),
    ]);
    const metal = { ...healthyOil(ENGINE), wear: { ...healthyOil(ENGINE).wear, Cu: 30, Pb: 25 } };
    const shed = taken(new Log().change('2024-01-01', 0).sample(1, '2024-02-01', 200, 200, metal));
    const sound = view(written(shed))
      .stations.filter((s) => s.station.id.includes('.shell.'))
      .map((s): Step => ['state-set', s.station.id, { state: 'sound' }]);
    expect(sound.length).toBeGreaterThan(10);
    expect(oilAgainstMetal(view(written(shed, ...sound)))).toEqual([
      expect.stringMatching(/points to bearing shells, and every shell was looked at/),
    ]);
    expect(oilAgainstMetal(view(written(shed, ...sound.slice(1))))).toEqual([]);
  });

  it('stands in the account and goes with the case file', () => {
    const state = written(taken(new Log().years(4).level('2024-03-01', 900, 1)));
    const model = reportModel(view(state), state.head, state.seq);
    const section = model.sections.find((s) => s.id === 'oil')!;
    expect(sectionWords(section)).toMatch(
      /log of engine E-7 runs from 2020-01-01 to 2024-03-01.*last 3 samples are clean.*iron, mg\/kg in 100 h/s,
    );
    expect(reportModel(view(written()), '', 1).sections.some((s) => s.id === 'oil')).toBe(false);
    const file = JSON.parse(JSON.stringify(caseFileOf(state, view(state)))) as object;
    const again = readCaseFile(file);
    if (!again.ok) throw new Error(again.problem.sentence);
    expect(again.value.view.oilLog!.value).toEqual(view(state).oilLog!.value);
    expect(diagnose(again.value.view).causes.map((c) => c.probability)).toEqual(diagnose(view(state)).causes.map((c) => c.probability));
  });
});
