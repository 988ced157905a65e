import { repeatsOf } from '@true-ledger/core/measured';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import type { Charted } from './charted.js';

/** Repeats of a cell against their mean: a trend is a gauge that warms or a hand that settles, not the part. */
export function RepeatChart({ outcome, readings }: Charted): ReactNode {
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
