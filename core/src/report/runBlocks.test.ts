import type { RunSetting } from '../running/setting.js';
import { caseOf } from '../testing/caseOf.js';
import { runBlocks } from './runBlocks.js';

// What was let run and kept stands in the account in words and as faces, with what was estimated said.
const SETTING: RunSetting = {
  speedRpm: 900,
  loadShare: 1,
  oilGrade: '10W-40',
  oilTemperatureC: 125,
  fuelShare: 0.1,
  clearancesMm: {},
  faults: [],
  aslant: null,
  bearing: 'rod.2',
};
const kept = (more: Partial<RunSetting>, note = '') => {
  const view = caseOf({
    findings: [{ station: 'rod.2.shell.upper', grade: 3, wear: [{ class: 'lining', percent: 30, where: 'middle' }] }],
  });
  const runs = [{ value: { bearing: 'rod.2', setting: { ...SETTING, ...more }, note } }] as unknown as typeof view.runs;
  return runBlocks(Object.assign(Object.create(view) as typeof view, { runs, layout: view.layout, byId: view.byId }));
};
const words = (blocks: ReturnType<typeof runBlocks>): string =>
  blocks.map((b) => (b.kind === 'text' ? b.text : b.kind === 'drawing' ? b.caption : '')).join('\n');

describe('a way of running in the account', () => {
  it('is nothing where none was kept', () => expect(runBlocks(caseOf())).toEqual([]));
  it('says how, what follows, and how alike it is to what was found', () => {
    const blocks = kept({}, 'Lugged up the slip.');
    expect(words(blocks)).toMatch(/How rod 2 would have run: 900 rpm, load 100 %, 10W-40 at 125 °C, 10 % fuel in it/);
    expect(words(blocks)).toMatch(/Lugged up the slip\./);
    expect(words(blocks)).toMatch(/with estimated inputs.*MPa.*µm at its thinnest/);
    expect(words(blocks)).toMatch(/upper half \d+ % alike, lower half not compared/);
    const drawing = blocks.find((b) => b.kind === 'drawing')!;
    expect(drawing.kind === 'drawing' && drawing.shapes.filter((s) => s.kind === 'box').length).toBeGreaterThan(20);
  });
  it('says that a bearing ran dry, and draws what it wears then', () => {
    const blocks = kept({ faults: [{ kind: 'shut-feed', at: 'main.2' }] });
    expect(words(blocks)).toMatch(/shut feed at main 2/);
    expect(words(blocks)).toMatch(/no full film.*as it always does/);
    expect(blocks.some((b) => b.kind === 'drawing')).toBe(true);
    expect(words(blocks)).not.toMatch(/µm at its thinnest/);
  });
  it('says why a setting cannot be', () =>
    expect(words(kept({ faults: [{ kind: 'shut-feed', at: 'main.9' }] }))).toMatch(/cannot be at "main\.9"/));
});
