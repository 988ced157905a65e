import type { CaseFile } from '../bundle/caseFile/format.js';
import { matchFinding } from '../case/matchFinding.js';
import { caseOf } from '../testing/caseOf.js';
import { featuresOfMarks } from './marks.js';

type Finding = NonNullable<CaseFile['findings']>[number];
const features = (finding: Finding): Array<[string, string]> => {
  const view = caseOf({ findings: [finding] });
  return featuresOfMarks(view.byId.get(finding.station)!).map((f) => [f.feature, f.reliability]);
};
/** So many lines of a depth along the face, as a hand draws them. */
const lines = (n: number, depth: string): Finding['marks'] =>
  Array.from({ length: n }, (_, i) => ({
    id: `l${i}`,
    shape: 'line',
    class: 'lining',
    points: [
      [0, 0.1 + (0.8 * i) / n],
      [1, 0.1 + (0.8 * i) / n],
    ],
    radiusMm: 0.1,
    made: 'found-so',
    depth,
  })) as never;

describe('what a surface shows by itself', () => {
  it.each<[string, Finding, string, 'certain' | 'told']>([
    [
      'heat on a shell',
      { station: 'rod.1.shell.upper', wear: [{ class: 'heat', percent: 12, where: 'middle' }] },
      'seen.heat-shell',
      'certain',
    ],
    [
      'dirt in a shell',
      { station: 'rod.1.shell.upper', wear: [{ class: 'embedded', percent: 4, where: 'middle' }] },
      'seen.embedded',
      'certain',
    ],
    [
      'one bare edge',
      { station: 'rod.1.shell.upper', wear: [{ class: 'lining', percent: 6, where: 'front-edge' }] },
      'seen.edge-wear',
      'certain',
    ],
    [
      'a wiped arc',
      { station: 'rod.1.shell.upper', grade: 3, wear: [{ class: 'lining', percent: 30, where: 'middle' }] },
      'seen.wiping',
      'told',
    ],
    [
      'down to the back',
      { station: 'rod.1.shell.upper', grade: 4, wear: [{ class: 'steel', percent: 40, where: 'middle' }] },
      'seen.dry-seizure',
      'told',
    ],
    [
      'heat on a journal',
      { station: 'crank.pin.1', wear: [{ class: 'heat', percent: 10, where: 'middle' }] },
      'seen.journal-heat',
      'certain',
    ],
    [
      'metal on a journal',
      { station: 'crank.pin.1', wear: [{ class: 'transfer', percent: 6, where: 'middle' }] },
      'seen.journal-transfer',
      'certain',
    ],
    [
      'a scuffed bore',
      { station: 'bore.1', wear: [{ class: 'scuffed', percent: 12, where: 'middle' }] },
      'seen.bore-scuff-band',
      'certain',
    ],
    ['heat in a bore', { station: 'bore.1', wear: [{ class: 'heat', percent: 12, where: 'middle' }] }, 'seen.bore-heat', 'told'],
    [
      'a scuffed thrust skirt',
      { station: 'piston.1.skirt.thrust', wear: [{ class: 'scuffed', percent: 20, where: 'middle' }] },
      'seen.thrust-scuff',
      'told',
    ],
    [
      'a wiped thrust face',
      { station: 'main.3.thrust.front', grade: 3, wear: [{ class: 'lining', percent: 40, where: 'middle' }] },
      'seen.thrust-wiped',
      'told',
    ],
    [
      'a melted crown',
      { station: 'piston.1.crown', grade: 4, wear: [{ class: 'missing', percent: 20, where: 'middle' }] },
      'seen.crown-melted',
      'told',
    ],
    ['rust anywhere', { station: 'bore.1', wear: [{ class: 'rust', percent: 5, where: 'middle' }] }, 'seen.rust', 'certain'],
  ])('%s', (_, finding, feature, reliability) => expect(features(finding)).toContainEqual([feature, reliability]));

  it.each(['nail', 'probe', 'through'] as const)('lines felt by the %s count as felt, hair lines do not', (depth) => {
    const shell: Finding = { station: 'rod.1.shell.upper', marks: lines(4, depth)! };
    expect(features(shell).map(([f]) => f)).toContain('seen.scoring');
    expect(features({ ...shell, marks: lines(4, 'hair')! }).map(([f]) => f)).not.toContain('seen.scoring');
    expect(features({ station: 'crank.pin.1', marks: lines(3, depth)! }).map(([f]) => f)).toContain('seen.journal-scored');
    expect(features({ station: 'bore.1', marks: lines(4, depth)! }).map(([f]) => f)).toContain('seen.bore-scoring');
  });

  it('leaves to the builder what he has named', () => {
    const wiped: Finding = { station: 'rod.1.shell.upper', grade: 3, wear: [{ class: 'lining', percent: 30, where: 'middle' }] };
    expect(features(wiped).map(([f]) => f)).toContain('seen.wiping');
    expect(features({ ...wiped, patterns: ['edge-loading'] }).map(([f]) => f)).not.toContain('seen.wiping');
  });

  it('the other skirt is not the thrust side', () =>
    expect(
      features({ station: 'piston.1.skirt.antithrust', wear: [{ class: 'scuffed', percent: 20, where: 'middle' }] }).map(([f]) => f),
    ).not.toContain('seen.thrust-scuff'));

  it('says nothing of what was not drawn or read', () => expect(features({ station: 'rod.1.shell.upper', grade: 3 })).toEqual([]));
});

describe('patterns that fit a surface', () => {
  const best = (finding: Finding): string[] => {
    const view = caseOf({ findings: [finding] });
    return matchFinding(view.byId.get(finding.station)!)!.ranked.map((r) => r.pattern.id);
  };
  it('an edge bare of lining is edge loading before it is wiping', () => {
    const ranked = best({ station: 'rod.1.shell.upper', grade: 2, wear: [{ class: 'lining', percent: 8, where: 'front-edge' }] });
    expect(ranked.indexOf('edge-loading')).toBeLessThan(ranked.indexOf('wiping'));
  });
  it('many lines and specks are hard particles', () => {
    const view = caseOf({
      findings: [
        { station: 'rod.1.shell.upper', grade: 2, marks: lines(6, 'nail')!, wear: [{ class: 'embedded', percent: 3, where: 'middle' }] },
      ],
    });
    const found = matchFinding(view.byId.get('rod.1.shell.upper')!)!;
    expect(['scoring', 'own-debris-scoring', 'embedded']).toContain(found.ranked[0]!.pattern.id);
    expect(found.ranked[0]!.why.join(' ')).toMatch(/\d+ lines|embedded/);
  });
  it('the fits are shares of one, each with its reason, and the two best are told apart by an observation', () => {
    const view = caseOf({
      findings: [{ station: 'rod.1.shell.upper', grade: 3, wear: [{ class: 'lining', percent: 30, where: 'middle' }] }],
    });
    const found = matchFinding(view.byId.get('rod.1.shell.upper')!)!;
    expect(found.ranked.reduce((s, r) => s + r.fit, 0)).toBeCloseTo(1, 9);
    expect(found.ranked.map((r) => r.fit)).toEqual([...found.ranked.map((r) => r.fit)].sort((a, b) => b - a));
    expect([found.decides!.a, found.decides!.b]).toEqual(found.ranked.slice(0, 2).map((r) => r.pattern.id));
    expect(found.decides!.observation.length).toBeGreaterThan(10);
  });
  it('a harmless pattern never leads on a part that is graded worn', () => {
    for (const station of ['rod.1.shell.upper', 'rod.1.shell.lower', 'piston.1.skirt.thrust'])
      expect(['normal-bedding', 'skirt-print']).not.toContain(
        best({ station, grade: 3, wear: [{ class: 'polished', percent: 40, where: 'middle' }] })[0],
      );
  });
  it('half and bore have their say', () => {
    for (const station of ['rod.1.shell.upper', 'rod.1.shell.lower', 'bore.1', 'crank.pin.1', 'main.3.thrust.front'])
      expect(best({ station, grade: 2, wear: [{ class: 'heat', percent: 20, where: 'middle' }] }).length).toBeGreaterThan(1);
  });
  it('nothing drawn fits nothing', () => {
    const view = caseOf({ findings: [{ station: 'rod.1.shell.upper', grade: 3 }] });
    expect(matchFinding(view.byId.get('rod.1.shell.upper')!)).toBeNull();
  });
});
