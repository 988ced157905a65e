import { readingUncertainty, type Gauge } from '@true-ledger/core/units';
import { AXES, benchOf, PLANES, type ChartKey, type PlaceOutcome } from '@true-ledger/core/measure';
import type { CaseView } from '@true-ledger/core/case';
import {
  boreWall,
  clearanceRun,
  cutEffects,
  deckMap,
  ovalThrough,
  repeatsOf,
  specOfPlace,
  type ReadingEntry,
  type RunPoint,
} from '@true-ledger/core/measured';
import { DEFAULT_GAUGE } from '@true-ledger/core/bundle';
import { Segmented } from 'antd';
import type { Data, Layout, ScatterLine } from 'plotly.js';
import { useMemo, useState, type ReactNode } from 'react';
import { Plot } from '../../charts/Plot.js';
import { useCase } from '../../app/caseContext.js';
import { COLOUR } from '../../app/tokens.js';

const INK = { first: COLOUR.accent, second: COLOUR.copper, band: COLOUR.steel, limit: COLOUR.ink } as const;
/** Damage ramp of the layers of a bearing, light to dark. */
const RAMP: Array<[number, string]> = [
  [0, COLOUR.steel],
  [0.25, COLOUR.lining],
  [0.5, COLOUR.bronze],
  [0.75, COLOUR.copper],
  [1, COLOUR.heat],
];

interface Charted {
  readonly outcome: PlaceOutcome;
  readonly readings: readonly ReadingEntry[];
}
type Chart = (c: Charted) => ReactNode;

const gaugeOf = (readings: readonly ReadingEntry[]): Gauge => readings.at(-1)?.value.gauge ?? DEFAULT_GAUGE;

function band(lower: number, upper: number): Partial<Layout['shapes'][number]>[] {
  const edge = (y: number): Partial<Layout['shapes'][number]> => ({
    type: 'line',
    xref: 'paper',
    x0: 0,
    x1: 1,
    y0: y,
    y1: y,
    line: { color: INK.limit, width: 1.2, dash: 'dash' },
  });
  return [
    {
      type: 'rect',
      xref: 'paper',
      x0: 0,
      x1: 1,
      y0: lower,
      y1: upper,
      fillcolor: INK.band,
      opacity: 0.45,
      line: { width: 0 },
      layer: 'below',
    },
    edge(lower),
    edge(upper),
  ];
}

/** Diameter along the journal for both axes, with uncertainty bars and the specification band. */
function JournalAlong({ outcome, readings }: Charted): ReactNode {
  const { view } = useCase();
  const spec = specOfPlace(view, outcome.place);
  const { data, layout } = useMemo(() => {
    const u = 2 * readingUncertainty(gaugeOf(readings));
    const traces = AXES.map((axis): Data => {
      const planes = PLANES.filter((p) => outcome.values.has(`${p}.${axis}`));
      return {
        type: 'scatter',
        mode: 'lines+markers',
        name: `axis ${axis}`,
        x: planes,
        y: planes.map((p) => outcome.values.get(`${p}.${axis}`)!),
        error_y: { type: 'constant', value: u, thickness: 1.2 },
        line: { color: axis === 'A' ? INK.first : INK.second, dash: axis === 'B' ? 'dot' : 'solid' },
        marker: { size: 8, symbol: axis === 'A' ? 'circle' : 'square' },
      };
    });
    return {
      data: traces,
      layout: {
        shapes: spec?.minMm !== undefined && spec.maxMm !== undefined ? band(spec.minMm, spec.maxMm) : [],
        yaxis: { title: { text: 'diameter, mm' }, tickformat: '.3f', zeroline: false },
        xaxis: { type: 'category', categoryorder: 'array', categoryarray: [...PLANES] },
      } as Partial<Layout>,
    };
  }, [outcome, readings, spec]);
  return <Plot data={data} layout={layout} height={220} label={`Diameter along the journal, ${outcome.values.size} places read`} />;
}

/** Each plane as the oval through its two axes, deviations drawn large, with the sizes new as rings. */
function JournalPolar({ outcome }: Charted): ReactNode {
  const { view } = useCase();
  const spec = specOfPlace(view, outcome.place);
  const { data, layout } = useMemo(() => {
    const degrees = Array.from({ length: 73 }, (_, i) => i * 5);
    const styles = { front: 'solid', mid: 'dash', rear: 'dot' } as const;
    const read = PLANES.map((plane) => ({
      plane,
      points: [
        { deg: 90, mm: outcome.values.get(`${plane}.A`) },
        { deg: 0, mm: outcome.values.get(`${plane}.B`) },
      ].flatMap((p) => (p.mm === undefined ? [] : [{ deg: p.deg, mm: p.mm }])),
    })).filter((p) => p.points.length === 2);
    const all = read.flatMap((p) => p.points.map((q) => q.mm));
    const from = Math.min(...all, spec?.minMm ?? Infinity);
    const to = Math.max(...all, spec?.maxMm ?? -Infinity);
    const floor = from - Math.max(0.01, to - from) * 1.2;
    const reach = (to - floor) * 1000 * 1.05;
    const round = (name: string, mm: (deg: number) => number, line: Partial<ScatterLine>): Data => {
      const points = degrees.map((deg) => ({ rad: (deg * Math.PI) / 180, um: (mm(deg) - floor) * 1000 }));
      return {
        type: 'scatter',
        mode: 'lines',
        name,
        x: points.map((p) => p.um * Math.cos(p.rad)),
        y: points.map((p) => p.um * Math.sin(p.rad)),
        text: degrees.map((deg) => mm(deg).toFixed(4)),
        hovertemplate: '%{text} mm<extra>%{fullData.name}</extra>',
        line,
      };
    };
    const limit = { color: INK.limit, width: 1, dash: 'dash' } as const;
    const axis = { range: [-reach, reach], showgrid: false, showticklabels: false, zerolinecolor: INK.band };
    return {
      data: [
        ...read.map(({ plane, points }) => round(plane, ovalThrough(points), { color: INK.first, dash: styles[plane], width: 2 })),
        ...(spec?.minMm !== undefined && spec.maxMm !== undefined
          ? [round('least new', () => spec.minMm!, limit), round('largest new', () => spec.maxMm!, limit)]
          : []),
      ],
      layout: {
        margin: { l: 30, r: 30, t: 30, b: 24 },
        legend: { orientation: 'v', x: -0.05, y: 1 },
        xaxis: { ...axis, scaleanchor: 'y' },
        yaxis: axis,
        annotations: [
          ...(['A', 'B'] as const).flatMap((name) =>
            [1, -1].map((end) => ({ x: name === 'B' ? end * reach : 0, y: name === 'A' ? end * reach : 0, text: name, showarrow: false })),
          ),
          ...[from, to].map((mm) => ({
            x: (mm - floor) * 1000 * Math.SQRT1_2,
            y: (mm - floor) * 1000 * Math.SQRT1_2,
            text: mm.toFixed(3),
            showarrow: false,
            bgcolor: COLOUR.paper,
            font: { size: 11 },
          })),
        ],
      } as Partial<Layout>,
    };
  }, [outcome, spec]);
  if (data.length === 0) return <p className="quiet">A plane with both axes draws its oval.</p>;
  return (
    <>
      <Plot data={data} layout={layout} height={270} label="Ovals of the planes against the sizes new, enlarged" />
      <p className="quiet">Drawn from a floor below the least size, so that micrometres show; the oval is the one through two axes.</p>
    </>
  );
}

/** Wall of the bore rolled out: depth over angle, colour by how far it is past the unworn reference, arrows for oval and taper. */
function BoreUnrolled({ outcome }: Charted): ReactNode {
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
function BoreRound({ outcome }: Charted): ReactNode {
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

/** Heights over the fitted plane, and what cuts would do to the compression ratio. */
function DeckChart({ outcome, readings }: Charted): ReactNode {
  const { view } = useCase();
  const { data, layout, cuts } = useMemo(() => {
    const map = deckMap(outcome.place, outcome.values, gaugeOf(readings));
    if (!map) return { data: [] as Data[], layout: {}, cuts: [] };
    const least = Math.ceil(map.cutMm * 20) / 20;
    return {
      cuts: cutEffects(
        view.layout,
        [...new Set([least, least + 0.05, least + 0.1, 0.25].map((c) => Number(c.toFixed(2))))].sort((a, b) => a - b),
      ),
      data: [
        {
          type: 'contour',
          x: [...map.xs],
          y: [...map.ys],
          z: map.mm.map((row) => row.map((mm) => (mm === null ? null : mm * 1000))),
          colorscale: RAMP,
          reversescale: true,
          contours: { showlabels: true, labelfont: { size: 11 } },
          colorbar: { title: { text: 'µm' }, thickness: 12 },
          hovertemplate: '%{x}, %{y} mm: %{z:.0f} µm<extra></extra>',
        } as unknown as Data,
        {
          type: 'scatter',
          mode: 'markers',
          x: map.ys.flatMap((_, j) => map.xs.filter((__, i) => map.mm[j]![i] !== null)),
          y: map.ys.flatMap((y, j) => map.xs.filter((_, i) => map.mm[j]![i] !== null).map(() => y)),
          marker: { color: INK.limit, size: 5, symbol: 'cross-thin-open' },
          hoverinfo: 'skip',
        } as Data,
      ],
      layout: {
        showlegend: false,
        xaxis: { title: { text: 'from the front, mm' } },
        yaxis: { title: { text: 'across, mm' } },
      } as Partial<Layout>,
    };
  }, [outcome, readings, view.layout]);
  if (data.length === 0) return <p className="quiet">Four points that are not on one line make a plane; the map is drawn from there.</p>;
  return (
    <>
      <Plot data={data} layout={layout} height={230} label="Heights over the fitted plane" />
      <table className="mini">
        <tbody>
          <tr>
            <th>Cut</th>
            {cuts.map((c) => (
              <td key={c.cutMm} className="figure">
                {c.cutMm.toFixed(2)} mm
              </td>
            ))}
          </tr>
          <tr>
            <th>Compression ratio</th>
            {cuts.map((c) => (
              <td key={c.cutMm} className="figure">
                {c.ratio === null ? 'takes the chamber' : c.ratio.toFixed(2)}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="quiet">
        The first cut is the least that takes the lowest point away. Now {view.layout.compressionRatio}; gasket and recesses are not
        counted.
      </p>
    </>
  );
}

/** Running clearance along the crank, with limits and uncertainty. */
function ClearanceChart(): ReactNode {
  const { view } = useCase();
  const { data, layout } = useMemo(() => clearancePlot(view), [view]);
  if (data.length === 0) return null;
  return <Plot data={data} layout={layout} height={230} label="Running clearance along the crank with limits and uncertainty" />;
}

function clearancePlot(view: CaseView): { data: Data[]; layout: Partial<Layout> } {
  const { gauged, strip } = clearanceRun(view);
  const order = view.layout.mains > 0 ? [...new Set([...gauged, ...strip].map((p) => p.place.short.replace(' strip', '')))] : [];
  const trace = (points: readonly RunPoint[], name: string, color: string, symbol: string): Data[] =>
    points.length === 0
      ? []
      : [
          {
            type: 'scatter',
            mode: 'markers',
            name,
            x: points.map((p) => p.place.short.replace(' strip', '')),
            y: points.map((p) => p.line.value),
            error_y: { type: 'data', array: points.map((p) => p.line.expanded ?? 0), thickness: 1.4 },
            marker: { color, size: 9, symbol },
          } as Data,
        ];
  const limited = gauged.length > 0 ? gauged : strip;
  const shapes = limited.flatMap((p): Partial<Layout['shapes'][number]>[] => {
    const i = order.indexOf(p.place.short.replace(' strip', ''));
    if (p.lower === null && p.upper === null) return [];
    return [
      {
        type: 'rect',
        xref: 'x',
        x0: i - 0.42,
        x1: i + 0.42,
        y0: p.lower ?? 0,
        y1: p.upper ?? p.line.value * 1.5,
        fillcolor: INK.band,
        opacity: 0.5,
        line: { width: 1, color: INK.limit, dash: 'dash' },
        layer: 'below',
      },
    ];
  });
  return {
    data: [...trace(gauged, 'by gauges', INK.first, 'circle'), ...trace(strip, 'by strip', INK.second, 'diamond')],
    layout: {
      shapes,
      xaxis: { type: 'category', categoryorder: 'array', categoryarray: order },
      yaxis: { title: { text: 'clearance, mm' }, tickformat: '.3f', rangemode: 'tozero' },
    } as Partial<Layout>,
  };
}

function LobeChart({ outcome }: Charted): ReactNode {
  const { data, layout } = useMemo(() => {
    const lifts = outcome.outcome?.lines.filter((l) => l.id.startsWith('lift.')) ?? [];
    const kinds = ['intake', 'exhaust'] as const;
    return {
      data: kinds.flatMap((kind): Data[] => {
        const own = lifts.filter((l) => l.at.startsWith(kind));
        return own.length === 0
          ? []
          : [
              {
                type: 'bar',
                name: kind,
                x: own.map((l) => l.id.slice(5)),
                y: own.map((l) => l.value),
                error_y: { type: 'data', array: own.map((l) => l.expanded ?? 0), thickness: 1.4 },
                marker: { color: kind === 'intake' ? INK.first : INK.second, pattern: { shape: kind === 'exhaust' ? '/' : '' } },
              } as Data,
            ];
      }),
      layout: (lifts.length === 0
        ? {}
        : {
            xaxis: { type: 'category', categoryorder: 'array', categoryarray: lifts.map((l) => l.id.slice(5)), tickangle: -40 },
            yaxis: {
              title: { text: 'lift, mm' },
              tickformat: '.2f',
              range: [Math.min(...lifts.map((l) => l.value)) * 0.98, Math.max(...lifts.map((l) => l.value)) * 1.003],
            },
            margin: { l: 64, r: 12, t: 10, b: 76 },
          }) as Partial<Layout>,
    };
  }, [outcome]);
  if (data.length === 0) return null;
  return (
    <>
      <Plot data={data} layout={layout} height={250} label="Lift of each lobe" />
      <p className="quiet">The axis does not begin at nothing, so that a lobe going flat shows early.</p>
    </>
  );
}

/** Repeats of a cell against their mean: a trend is a gauge that warms or a hand that settles, not the part. */
function RepeatChart({ outcome, readings }: Charted): ReactNode {
  const { data, layout } = useMemo(() => {
    const name = (key: string): string => outcome.place.cells.find((c) => c.key === key)?.name ?? key;
    const rows = repeatsOf(readings);
    return {
      data: rows.map(({ cell, values }): Data => {
        const mean = values.reduce((a, b) => a + b, 0) / values.length;
        return {
          type: 'scatter',
          mode: 'lines+markers',
          name: name(cell),
          x: values.map((_, i) => i + 1),
          y: values.map((v) => (v - mean) * 1000),
        };
      }),
      layout: {
        xaxis: { title: { text: 'reading of the same place' }, dtick: 1 },
        yaxis: { title: { text: 'from the mean, thousandths' } },
        showlegend: rows.length <= 6,
      } as Partial<Layout>,
    };
  }, [outcome, readings]);
  return <Plot data={data} layout={layout} height={210} label="Repeats against their mean" />;
}

const CHARTS: Readonly<Record<ChartKey, ReadonlyArray<readonly [string, Chart]>>> = {
  journal: [
    ['Along', JournalAlong],
    ['Round', JournalPolar],
  ],
  bore: [
    ['Rolled out', BoreUnrolled],
    ['In the round', BoreRound],
  ],
  deck: [['Map', DeckChart]],
  clearance: [['Along the crank', ClearanceChart]],
  lobes: [['Lift', LobeChart]],
};

/** Charts of a sheet, one at a time; repeats have theirs once there are any. */
export function PlaceCharts(charted: Charted): ReactNode {
  const [chosen, setChosen] = useState<string | null>(null);
  const { chart } = benchOf(charted.outcome.place.kind);
  const own = chart ? CHARTS[chart] : [];
  const all = repeatsOf(charted.readings).length > 0 ? [...own, ['Repeats', RepeatChart] as const] : own;
  const shown = all.find(([name]) => name === chosen) ?? all[0];
  if (!shown || charted.outcome.values.size === 0) return null;
  const [, Shown] = shown;
  return (
    <section className="pane" aria-label="Chart">
      {all.length > 1 && (
        <Segmented size="small" value={shown[0]} options={all.map(([name]) => name)} onChange={setChosen} aria-label="Chart" />
      )}
      <Shown {...charted} />
    </section>
  );
}
