import type { Config, Data, Layout } from 'plotly.js';
import { useEffect, useRef, type ReactNode } from 'react';
import { COLOUR, through } from '../app/tokens.js';

const LAYOUT: Partial<Layout> = {
  font: { family: "Figures, 'DejaVu Sans', monospace", size: 12, color: COLOUR.ink },
  paper_bgcolor: through('black', 0),
  plot_bgcolor: COLOUR.paper,
  margin: { l: 70, r: 16, t: 10, b: 40 },
  showlegend: true,
  legend: { orientation: 'h', y: 1.14, x: 0 },
  modebar: { bgcolor: through('black', 0), color: COLOUR.lineDark, activecolor: COLOUR.accent },
};
const CONFIG: Partial<Config> = {
  displaylogo: false,
  plotlyServerURL: '',
  responsive: true,
  modeBarButtonsToRemove: ['select2d', 'lasso2d', 'autoScale2d'],
  toImageButtonOptions: { format: 'svg', filename: 'chart' },
};

type Plotly = typeof import('plotly.js');

/** The part of the library that draws these traces: a surface needs the one in space, everything else the flat one. */
async function drawerOf(data: readonly Data[]): Promise<Plotly> {
  const { default: drawer } = data.some((trace) => trace.type === 'surface')
    ? await import('plotly.js-gl3d-dist-min')
    : await import('plotly.js-cartesian-dist-min');
  return drawer;
}

/** A Plotly chart; the library is fetched only when a chart is shown. */
export function Plot({ data, layout, height, label }: { data: Data[]; layout: Partial<Layout>; height: number; label: string }): ReactNode {
  const box = useRef<HTMLDivElement>(null);
  const drawn = useRef<Plotly | null>(null);
  useEffect(() => {
    const node = box.current;
    let gone = false;
    void drawerOf(data).then((drawer) => {
      if (gone || !node) return;
      if (drawn.current && drawn.current !== drawer) drawn.current.purge(node);
      drawn.current = drawer;
      void drawer.react(node, data, { ...LAYOUT, ...layout, height }, CONFIG);
    });
    return () => {
      gone = true;
    };
  }, [data, layout, height]);
  useEffect(() => {
    const node = box.current;
    return () => {
      if (node) drawn.current?.purge(node);
    };
  }, []);
  return <div ref={box} role="group" aria-label={label} style={{ minHeight: height }} />;
}
