import { readingUncertainty } from '@true-ledger/core/units';
import { AXES, PLANES } from '@true-ledger/core/measure';
import { ovalThrough, specOfPlace } from '@true-ledger/core/measured';
import type { Data, Layout, ScatterLine } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import { useCase } from '../../../app/caseContext.js';
import { COLOUR } from '../../../app/tokens.js';
import { type Charted, gaugeOf, INK, band } from './charted.js';

/** Diameter along the journal for both axes, with uncertainty bars and the specification band. */
export function JournalAlong({ outcome, readings }: Charted): ReactNode {
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
export function JournalPolar({ outcome }: Charted): ReactNode {
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
