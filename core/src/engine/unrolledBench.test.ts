import { benchPlan } from './bench.js';
import { stationsOf } from './stations.js';
import { ENGINE_TEMPLATES, engineTemplate } from './templates.js';
import { unrolledBench, type UnrolledCell } from './unrolledBench.js';

const overlap = (a: UnrolledCell, b: UnrolledCell): boolean =>
  a.x < b.x + b.width - 1e-9 && b.x < a.x + a.width - 1e-9 && a.y < b.y + b.height - 1e-9 && b.y < a.y + a.height - 1e-9;

describe('the engine unrolled', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: every surface has its own size, none overlaps, all lie inside',
    (_, l) => {
      const plan = benchPlan(l, new Set(stationsOf(l).map((s) => s.id)));
      for (const order of ['cylinder', 'oil'] as const) {
        const bench = unrolledBench(l, plan, order);
        expect(bench.cells.map((c) => c.station.id).sort()).toEqual(plan.rows.flatMap((r) => r.cells.map((c) => c.station.id)).sort());
        for (const c of bench.cells) {
          expect(c.x).toBeGreaterThanOrEqual(-1e-9);
          expect(c.x + c.width).toBeLessThanOrEqual(bench.widthMm + 1e-9);
          expect(c.y + c.height).toBeLessThanOrEqual(bench.heightMm + 1e-9);
          if (c.station.surface) expect([c.width, c.height]).toEqual([c.station.surface.widthMm, c.station.surface.heightMm]);
          else expect(c.height).toBeGreaterThan(1);
        }
        const crossed = bench.cells.flatMap((a, i) =>
          bench.cells.slice(i + 1).flatMap((b) => (overlap(a, b) ? [`${a.station.id} ${b.station.id}`] : [])),
        );
        expect(crossed).toEqual([]);
      }
    },
  );

  it('the whole of an inline four has the shape of a wide page', () => {
    const { layout } = engineTemplate('inline-4-petrol')!;
    const { widthMm, heightMm } = unrolledBench(layout, benchPlan(layout), 'cylinder');
    expect(widthMm / heightMm).toBeGreaterThan(1.5);
    expect(widthMm / heightMm).toBeLessThan(2.1);
  });

  it('shells lie over the pin they run on, and a V has a bank on either side of the crank', () => {
    const { layout } = engineTemplate('vee-8-petrol')!;
    const bench = unrolledBench(layout, benchPlan(layout), 'cylinder');
    const at = (id: string): UnrolledCell => bench.cells.find((c) => c.station.id === id)!;
    const middle = (c: UnrolledCell): number => c.x + c.width / 2;
    expect(middle(at('rod.1.shell.upper'))).toBeCloseTo(middle(at('rod.1.shell.lower')), 6);
    const crank = at('crank.main.1').y;
    const bores = bench.cells.filter((c) => c.station.part === 'bore').map((c) => c.y < crank);
    expect(bores.filter((above) => above)).toHaveLength(4);
    expect(at('head.1').y < at('bore.1').y).toBe(at('bore.1').y < crank);
    const below = bench.cells.find((c) => c.station.part === 'bore' && c.y > crank)!;
    expect(at(`head.${below.station.number}`).y).toBeGreaterThan(below.y);
  });

  it('by oil the places come in the order the oil reaches them, at the same places of the page', () => {
    const { layout } = engineTemplate('inline-4-petrol')!;
    const [by, oil] = (['cylinder', 'oil'] as const).map((order) => unrolledBench(layout, benchPlan(layout), order));
    const row = (bench: typeof by, id: string): number[] =>
      bench!.cells
        .filter((c) => c.row === id)
        .map((c) => c.x)
        .sort((a, b) => a - b);
    expect(row(oil, 'main-upper')).toEqual(row(by, 'main-upper'));
    const mains = oil!.cells.filter((c) => c.row === 'main-upper').sort((a, b) => a.x - b.x);
    expect(mains.map((c) => c.station.number)).toEqual([1, 2, 3, 4, 5]);
  });
});
