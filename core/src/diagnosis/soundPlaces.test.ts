import { readCaseFile } from '../bundle/caseFile/read.js';
import { type CaseFile } from '../bundle/caseFile/format.js';
import { stationsOf } from '../engine/stations.js';
import { engineTemplate } from '../engine/templates.js';
import type { CaseView } from '../case/views.js';
import { collectEvidence, soundContradictions, toObservation } from './evidence.js';
import { absenceWords } from './silences.js';
import { FEATURES } from '../cause/data/features.js';

function view(file: Partial<CaseFile>): CaseView {
  const read = readCaseFile({ format: 'true-ledger/case', version: 1, engine: { template: 'inline-4-petrol' }, ...file });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.view;
}

const EVERYWHERE = [...new Set(stationsOf(engineTemplate('inline-4-petrol')!.layout).map((s) => s.id))];

/** A seen feature of a part that can be marked sound as a whole row. */
const wiping = FEATURES.find((f) => f.kind === 'seen' && f.damage && f.parts?.includes('shell'))!;

describe('a row marked sound', () => {
  it('weighs less than what was looked for by name, and says so', () => {
    const row = collectEvidence(view({ sound: EVERYWHERE })).find((e) => e.feature.id === wiping.id)!;
    expect(row).toMatchObject({ present: false, reliability: 'silent' });
    expect(absenceWords(row)).toBe('looked at, not named');
    const named = collectEvidence(view({ sound: EVERYWHERE, evidence: [{ feature: wiping.id, present: false }] })).find(
      (e) => e.feature.id === wiping.id,
    )!;
    expect(absenceWords(named)).toBe('looked for, not there');
    const trust = (o: { ifPresent: number; ifAbsent: number }): number => o.ifAbsent / o.ifPresent;
    expect(trust(toObservation(row))).toBeLessThan(trust(toObservation(named)));
  });
  it('that something was recorded against is raised, with the place and the record', () => {
    expect(soundContradictions(view({ sound: EVERYWHERE }))).toEqual([]);
    const found = soundContradictions(view({ sound: EVERYWHERE, evidence: [{ feature: wiping.id, present: true }] }));
    expect(found).toMatchObject([{ feature: wiping.id, words: expect.stringContaining(`“${wiping.name}”`) as string }]);
  });
});
