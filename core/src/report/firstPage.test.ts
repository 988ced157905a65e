import type { FindingWords } from '../bundle/caseFile/format.js';
import { caseOf } from '../testing/caseOf.js';
import { caseBench } from '../case/views.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { benchDrawing } from './benchDrawing.js';
import { firstPage } from './firstPage.js';
import { reportMarkdown } from './markdown.js';
import { reportModel } from './model.js';

// The answer by itself: what a reader has who reads one page.
const none: ReadonlyMap<string, number> = new Map();
const grade = (station: string, value: number): FindingWords => ({ station, grade: value });

describe('the first page of an account', () => {
  it('names no cause of an engine nobody looked at', () => {
    const view = caseOf();
    const page = firstPage(view, diagnose(view), none, []);
    expect(page.failed).toBe('Nothing has been examined yet.');
    expect(page.sure).toBeNull();
    expect(page.restsOn).toEqual([]);
    expect(page.why).toMatch(/Nothing was examined yet/);
    expect(page.todo).toEqual(['Nothing has been decided yet.']);
  });

  it('names the worst places first, counts the rest, and says how sure the cause is', () => {
    const halves = [1, 2, 3, 4].flatMap((n) => [`rod.${n}.shell.upper`, `rod.${n}.shell.lower`]);
    const view = caseOf({ findings: [grade('main.2.shell.upper', 4), ...halves.map((s) => grade(s, 3))] });
    const d = diagnose(view);
    const page = firstPage(view, d, none, []);
    expect(page.failed).toMatch(/^Failed: Main 2 upper shell, .* and 5 more\.$/);
    expect(page.sure?.cause.toLowerCase()).toBe(`not determined; ${d.causes[0]!.name.toLowerCase()} leads`);
    expect(page.sure).toMatchObject({ probability: d.causes[0]!.probability });
    expect(page.notSeen.join(' ')).toMatch(/9 of \d+ places were examined\. Not examined: .* and \d+ more\./);
    expect(page.picture).toBeNull();
  });

  it('does not call failed what only caught what others lost', () => {
    const view = caseOf({ findings: [grade('rod.2.shell.upper', 3), grade('pan.debris', 4), grade('filter.media', 3)] });
    expect(firstPage(view, diagnose(view), none, []).failed).toBe('Failed: Rod 2 upper shell.');
  });

  it('draws every place of the bench, and frames where it most likely began', () => {
    const view = caseOf({ findings: [grade('main.2.shell.upper', 4)] });
    const plain = benchDrawing(view, null);
    const framed = benchDrawing(view, 'main.2');
    const boxes = (d: typeof plain): number => d.shapes.filter((s) => s.kind === 'box').length;
    expect(boxes(plain)).toBe(caseBench(view).rows.reduce((n, r) => n + r.cells.length, 0));
    // Both halves and the journal of that bearing.
    expect(boxes(framed) - boxes(plain)).toBe(view.stations.filter((s) => s.station.bearing === 'main.2' && s.station.surface).length);
    expect(plain.shapes.some((s) => s.kind === 'text' && s.text === '4')).toBe(true);
  });

  it('stands before the sections in words too, and its prices only where the account has any', () => {
    const view = caseOf({ findings: [grade('rod.2.shell.upper', 3)] });
    const words = reportMarkdown(reportModel(view, 'h', 3));
    expect(words.indexOf('Failed: Rod 2 upper shell.')).toBeGreaterThan(0);
    expect(words.indexOf('Failed: Rod 2 upper shell.')).toBeLessThan(words.indexOf('## Question and engine'));
  });
});
