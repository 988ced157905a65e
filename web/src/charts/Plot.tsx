import type { Config, Data, Layout } from 'plotly.js';
import { useEffect, useRef, type ReactNode } from 'react';

const LAYOUT: Partial<Layout> = {
  font: { family: "Figures, 'DejaVu Sans', monospace", size: 12, color: '#20272b' },
  paper_bgcolor: 'rgba(0,0,0,0)',
  plot_bgcolor: '#fbfcfc',
  margin: { l: 70, r: 16, t: 10, b: 40 },
  showlegend: true,
  legend: { orientation: 'h', y: 1.14, x: 0 },
  modebar: { bgcolor: 'rgba(0,0,0,0)', color: '#9aa4aa', activecolor: '#31418C' },
};
const CONFIG: Partial<Config> = {
  displaylogo: false,
  responsive: true,
  modeBarButtonsToRemove: ['select2d', 'lasso2d', 'autoScale2d'],
  toImageButtonOptions: { format: 'svg', filename: 'chart' },
};

/** A Plotly chart; the library is fetched only when a chart is shown. */
export function Plot({ data, layout, height, label }: { data: Data[]; layout: Partial<Layout>; height: number; label: string }): ReactNode {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const node = box.current;
    let gone = false;
    void import('./plotly.js').then(({ Plotly }) => {
      if (gone || !node) return;
      void Plotly.react(node, data, { ...LAYOUT, ...layout, height }, CONFIG);
    });
    return () => {
      gone = true;
    };
  }, [data, layout, height]);
  useEffect(() => {
    const node = box.current;
    return () => {
      if (node?.hasChildNodes()) void import('./plotly.js').then(({ Plotly }) => Plotly.purge(node));
    };
  }, []);
  return <div ref={box} role="group" aria-label={label} style={{ minHeight: height }} />;
}
