import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import { type Charted, INK } from './charted.js';

export function LobeChart({ outcome }: Charted): ReactNode {
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
