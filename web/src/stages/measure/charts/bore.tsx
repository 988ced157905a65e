import { boreWall } from '@true-ledger/core/measured';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import { useCase } from '../../../app/caseContext.js';
import { COLOUR } from '../../../app/tokens.js';
import { type Charted, INK, RAMP } from './charted.js';

/** Wall of the bore rolled out: depth over angle, colour by how far it is past the unworn reference, arrows for oval and taper. */
export function BoreUnrolled({ outcome }: Charted): ReactNode {
  const { data, layout } = useMemo(() => {
    const wall = boreWall(outcome.place, outcome.values);
    if (!wall) return { data: [] as Data[], layout: {} };
    const reference = wall.unwornMm ?? Math.min(...wall.mm.flat());
    const oval = outcome.outcome?.lines.find((l) => l.id === 'ovality');
    const taper = outcome.outcome?.lines.find((l) => l.id === 'taper');
    const wide = /axis (\w)/.exec(oval?.at ?? '')?.[1];
    const depth = Number(/^(\d+)/.exec(oval?.at ?? '')?.[1] ?? NaN);
    const at = (axis: string | undefined): number[] => ({ A: [90, 270], B: [0, 180, 360], C: [45, 225], D: [135, 315] })[axis ?? ''] ?? [];
    const annotations: Partial<Layout['annotations'][number]>[] = [
      ...at(wide).map((x) => ({
        x,
        y: depth,
        text: `◂ oval ${oval!.value.toFixed(3)} ▸`,
        showarrow: false,
        bgcolor: COLOUR.paper,
        font: { size: 12 },
      })),
    ];
    const [taperX] = at(/axis (\w)/.exec(taper?.at ?? '')?.[1]);
    if (taper && taperX !== undefined) {
      const top = wall.depthsMm[0]!;
      const foot = wall.depthsMm.at(-1)!;
      const wideTop = taper.value >= 0;
      annotations.push({
        x: taperX + 20,
        y: wideTop ? top : foot,
        ax: taperX + 20,
        ay: wideTop ? foot : top,
        axref: 'x',
        ayref: 'y',
        text: `taper ${Math.abs(taper.value).toFixed(3)}`,
        arrowcolor: INK.first,
        arrowwidth: 2,
        bgcolor: COLOUR.paper,
        font: { size: 12 },
      });
    }
    return {
      data: [
        {
          type: 'heatmap',
          x: [...wall.degrees],
          y: [...wall.depthsMm],
          z: wall.mm.map((row) => row.map((mm) => (mm - reference) * 1000)),
          zsmooth: 'best',
          colorscale: RAMP,
          colorbar: { title: { text: 'µm' }, thickness: 12 },
          hovertemplate: '%{x}°, %{y} mm down: %{z:.0f} µm<extra></extra>',
        } as Data,
      ],
      layout: {
        annotations,
        showlegend: false,
        xaxis: { title: { text: 'round the bore' }, tickvals: [0, 90, 180, 270, 360], ticktext: ['front', 'A', 'rear', 'A', 'front'] },
        yaxis: { title: { text: 'below the deck, mm' }, autorange: 'reversed' },
      } as Partial<Layout>,
    };
  }, [outcome]);
  if (data.length === 0) return <p className="quiet">The wall is drawn from the first depth read.</p>;
  return (
    <Plot
      data={data}
      layout={layout}
      height={250}
      label={`Bore wall rolled out, deviation from ${outcome.values.has('unworn') ? 'the unworn reference' : 'its least reading'}`}
    />
  );
}

const ENLARGED = 0.25;

/** The same wall in the round; the deviation is enlarged to a quarter of the radius. */
export function BoreRound({ outcome }: Charted): ReactNode {
  const { view } = useCase();
  const { data, layout, times } = useMemo(() => {
    const wall = boreWall(outcome.place, outcome.values);
    if (!wall || wall.depthsMm.length < 2) return { data: [] as Data[], layout: {}, times: 0 };
    const reference = wall.unwornMm ?? Math.min(...wall.mm.flat());
    const most = Math.max(1e-6, ...wall.mm.flat().map((mm) => Math.abs(mm - reference)));
    const radius = view.layout.boreMm / 2;
    const factor = (ENLARGED * radius) / most;
    const grid = (f: (r: number, rad: number, depth: number) => number): number[][] =>
      wall.mm.map((row, j) =>
        row.map((mm, i) => f(radius + (mm - reference) * factor, (wall.degrees[i]! * Math.PI) / 180, wall.depthsMm[j]!)),
      );
    return {
      times: factor,
      data: [
        {
          type: 'surface',
          x: grid((r, a) => r * Math.cos(a)),
          y: grid((r, a) => r * Math.sin(a)),
          z: grid((_, __, depth) => -depth),
          surfacecolor: wall.mm.map((row) => row.map((mm) => (mm - reference) * 1000)),
          colorscale: RAMP,
          colorbar: { title: { text: 'µm' }, thickness: 12 },
          hovertemplate: '%{surfacecolor:.0f} µm at %{z} mm<extra></extra>',
        } as unknown as Data,
      ],
      layout: {
        margin: { l: 0, r: 0, t: 0, b: 0 },
        scene: {
          aspectmode: 'data',
          xaxis: { title: { text: 'along the crank' }, showticklabels: false },
          yaxis: { title: { text: 'across (A)' }, showticklabels: false },
          zaxis: { title: { text: 'depth, mm' } },
          camera: { eye: { x: 1.7, y: 1.35, z: 1 } },
        },
      } as Partial<Layout>,
    };
  }, [outcome, view.layout.boreMm]);
  if (data.length === 0) return <p className="quiet">Two depths at least make a wall.</p>;
  return (
    <>
      <Plot data={data} layout={layout} height={300} label="Bore wall in the round, deviation enlarged" />
      <p className="quiet">Deviation drawn {times.toFixed(0)} times as large as it is.</p>
    </>
  );
}
