import type { CaseView } from '@true-ledger/core/case';
import { clearanceRun, type RunPoint } from '@true-ledger/core/measured';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import { useCase } from '../../../app/caseContext.js';
import { INK } from './charted.js';

/** Running clearance along the crank, with limits and uncertainty. */
export function ClearanceChart(): ReactNode {
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
