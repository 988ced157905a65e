import type { CaseFile } from '../bundle/caseFile/format.js';
import { SCHOOLS } from '../damage/schools.js';
import { ENGINE_TEMPLATES } from '../engine/templates.js';
import { caseOf } from '../testing/caseOf.js';
import { standingDispositions } from './dispositions.js';
import { ownDisposition } from './rules.js';

type Finding = NonNullable<CaseFile['findings']>[number];
/** What the rules say of one place by its own evidence, before others force it. */
function own(
  finding: Finding,
  schools: Record<string, string> = {},
  template?: string,
): { operation: string; reason: string; school: string | null } {
  const view = caseOf({ findings: [finding], schools }, template);
  const { operation, reason, school } = ownDisposition(view, view.byId.get(finding.station)!);
  return { operation, reason, school };
}

describe('what a part asks for by itself', () => {
  it.each<[string, Finding, string, RegExp]>([
    ['a shell past what serves', { station: 'rod.1.shell.upper', grade: 2 }, 'replace', /^grade 2$/],
    ['a shell that serves', { station: 'rod.1.shell.upper', grade: 1 }, 'clean', /within what serves/],
    ['a thrust face', { station: 'main.3.thrust.front', grade: 3 }, 'replace', /^grade 3$/],
    ['a thrust face that serves', { station: 'main.3.thrust.front', grade: 0 }, 'clean', /within/],
    ['a cracked journal', { station: 'crank.pin.1', grade: 2, patterns: ['fillet-crack'] }, 'replace', /the crank is lost/],
    [
      'a journal past saving as it is',
      { station: 'crank.pin.1', grade: 3 },
      'grind',
      /size follows once every journal of its kind is measured/,
    ],
    ['a journal worth polishing', { station: 'crank.pin.1', grade: 2 }, 'polish', /polish and gauge the finish/],
    ['a journal that is sound', { station: 'crank.main.2', grade: 0 }, 'clean', /^grade 0$/],
    ['a cracked bore', { station: 'bore.1', grade: 4, patterns: ['bore-crack'] }, 'sleeve', /^cracked$/],
    ['a bore past its limit', { station: 'bore.1', grade: 3 }, 'rebore', /size follows once the bores are measured/],
    ['a bore inside its limit', { station: 'bore.1', grade: 2 }, 'hone', /inside its limit/],
    ['a bore that is sound', { station: 'bore.1', grade: 1 }, 'reuse', /a hatch seen is no proof/],
    ['a broken piston', { station: 'piston.1.crown', grade: 2, patterns: ['piston-broken'] }, 'replace', /cracked, worn or melted/],
    ['a worn piston', { station: 'piston.1.crown', grade: 3 }, 'replace', /^grade 3$/],
    ['a piston that serves', { station: 'piston.1.skirt.thrust', grade: 2 }, 'clean', /measure skirt and pin/],
    ['worn rings', { station: 'rings.1.pack', grade: 2 }, 'replace', /^grade 2$/],
    ['rings that serve', { station: 'rings.1.pack', grade: 1 }, 'clean', /gaps and tension in order/],
    ['a blued rod', { station: 'rod.1', grade: 1, patterns: ['rod-blued'] }, 'replace', /coloured by heat/],
    ['a doubtful rod', { station: 'rod.1', grade: 2 }, 'test', /alignment, crack test/],
    ['a sound rod', { station: 'rod.1', grade: 0 }, 'reuse', /^grade 0$/],
    ['a cracked head', { station: 'head.1', grade: 3, patterns: ['head-crack'] }, 'weld', /by a specialist/],
    ['a doubtful chamber', { station: 'head.1', grade: 2 }, 'test', /pressure test/],
    ['a sound chamber', { station: 'head.1', grade: 1 }, 'clean', /^grade 1$/],
    ['a burnt valve', { station: 'valves.1', grade: 3 }, 'replace', /^grade 3$/],
    ['a worn seat', { station: 'valves.1', grade: 2 }, 'resize', /seats and guides by measure/],
    ['sound valves', { station: 'valves.1', grade: 0 }, 'clean', /^grade 0$/],
    ['a flat lobe', { station: 'cam.1', grade: 2 }, 'replace', /lobe and follower as a pair/],
    ['a sound lobe', { station: 'cam.1', grade: 0 }, 'reuse', /^grade 0$/],
    ['a joint that leaked', { station: 'gasket.head', grade: 2, patterns: ['gasket-leak'] }, 'face', /faced where not flat/],
    ['a gasket that held', { station: 'gasket.head', grade: 0 }, 'replace', /a gasket is used once/],
    ['a worn pump', { station: 'pump.gears', grade: 2 }, 'replace', /^grade 2$/],
    ['a sound pump', { station: 'pump.gears', grade: 1 }, 'clean', /^grade 1$/],
    ['a pickup that drew air', { station: 'pickup.screen', grade: 2, patterns: ['pickup-leak'] }, 'replace', /it drew air/],
    ['a sound pickup', { station: 'pickup.screen', grade: 0 }, 'clean', /screen and pipe/],
    ['a filter', { station: 'filter.media', grade: 0 }, 'replace', /a filter is used once/],
    ['what lay in the pan', { station: 'pan.debris', grade: 2 }, 'keep', /evidence/],
    ['a stretched chain', { station: 'timing.drive', grade: 2 }, 'replace', /drive, tensioner and guides/],
    ['a sound drive', { station: 'timing.drive', grade: 1 }, 'reuse', /^grade 1$/],
    ['dirty galleries', { station: 'oil.gallery', grade: 2 }, 'clean', /plugs out/],
    ['a clean cooler', { station: 'oil.cooler', grade: 0 }, 'reuse', /^grade 0$/],
    ['stretched bolts', { station: 'bolts.rod', grade: 2 }, 'replace', /^grade 2$/],
    ['bolts that look well', { station: 'bolts.rod', grade: 0 }, 'check', /torque-to-yield/],
  ])('%s', (_, finding, operation, reason) => {
    const said = own(finding);
    expect(said.operation).toBe(operation);
    expect(said.reason).toMatch(reason);
  });

  it('a rolling bearing is renewed or serves', () => {
    const rolling = ENGINE_TEMPLATES.find((t) => t.layout.mainBearings === 'rolling')!;
    expect(own({ station: 'main.1.rollers', grade: 2 }, {}, rolling.id).operation).toBe('replace');
    expect(own({ station: 'main.1.rollers', grade: 1 }, {}, rolling.id).operation).toBe('clean');
  });

  it.each([
    ['not-present', 'check', /not present/],
    ['lost', 'replace', /lost or altered/],
    ['before-us', 'replace', /lost or altered/],
  ] as const)('a place that is %s', (state, operation, reason) => {
    const view = caseOf({ states: { 'bore.1': state } });
    expect(ownDisposition(view, view.byId.get('bore.1')!)).toMatchObject({ operation, reason: expect.stringMatching(reason) as string });
  });
});

describe('where builders disagree', () => {
  it.each<[string, Finding, string, string, string]>([
    ['spun-main', { station: 'main.2.shell.lower', grade: 4, patterns: ['spun-shell'] }, 'condemn', 'replace', 'condemns a block'],
    ['spun-main', { station: 'main.2.shell.lower', grade: 4, patterns: ['spun-shell'] }, 'sleeve', 'replace', 'welded or sleeved'],
    ['spun-main', { station: 'main.2.shell.lower', grade: 4, patterns: ['spun-shell'] }, 'measure', 'replace', 'housing gauged'],
    ['worn-crank', { station: 'crank.pin.1', grade: 3 }, 'new', 'replace', 'fits a new crank'],
    ['marginal-bore', { station: 'bore.1', grade: 2 }, 'rebore', 'rebore', 'grade 2'],
    ['hatch-seen', { station: 'bore.1', grade: 1 }, 'good', 'reuse', 'hatch seen'],
    ['stretched-bolts', { station: 'bolts.head', grade: 0 }, 'never', 'replace', 'uses none twice'],
    ['stretched-bolts', { station: 'bolts.head', grade: 0 }, 'measure', 'check', 'measure the length of each'],
  ])('%s: %o by “%s”', (question, finding, position, operation, words) => {
    const said = own(finding, { [question]: position });
    expect(said.operation).toBe(operation);
    expect(said.reason).toContain(words);
    expect(said.school).toBe(question);
  });

  it('every position of every question leaves a disposition for every place', () => {
    for (const school of SCHOOLS)
      for (const { id } of school.positions) {
        const view = caseOf({
          schools: { [school.id]: id },
          findings: [
            { station: 'crank.pin.1', grade: 2 },
            { station: 'bore.1', grade: 2 },
            { station: 'main.2.shell.lower', grade: 4, patterns: ['spun-shell'] },
          ],
        });
        const all = standingDispositions(view);
        expect(all).toHaveLength(view.stations.length);
        for (const d of all) expect(d.reason.length).toBeGreaterThan(4);
      }
  });
});
