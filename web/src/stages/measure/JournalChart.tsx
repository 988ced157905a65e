import { AXES, PLANES, readingUncertainty, type Gauge, type JournalReading, type JournalSpec } from '@true-ledger/core';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../charts/Plot.js';

const COLOUR = { A: '#31418C', B: '#9E4A26' } as const;

/** Diameter along the journal for both axes, with uncertainty bars and the specification band. */
export function JournalChart({
  readings,
  spec,
  gauge,
}: {
  readings: readonly JournalReading[];
  spec: JournalSpec | null;
  gauge: Gauge;
}): ReactNode {
  const { data, layout } = useMemo(() => {
    const u = 2 * readingUncertainty(gauge);
    const traces = AXES.map((axis): Data => {
      const rows = PLANES.flatMap((p) => readings.filter((r) => r.plane === p && r.axis === axis));
      return {
        type: 'scatter',
        mode: 'lines+markers',
        name: `axis ${axis}`,
        x: rows.map((r) => r.plane),
        y: rows.map((r) => r.mm),
        error_y: { type: 'constant', value: u, thickness: 1.2 },
        line: { color: COLOUR[axis], dash: axis === 'B' ? 'dot' : 'solid' },
        marker: { size: 8, symbol: axis === 'A' ? 'circle' : 'square' },
      };
    });
    const band: Partial<Layout['shapes'][number]>[] = spec
      ? [
          {
            type: 'rect',
            xref: 'paper',
            x0: 0,
            x1: 1,
            y0: spec.minMm,
            y1: spec.maxMm,
            fillcolor: '#b9c2c6',
            opacity: 0.45,
            line: { width: 0 },
            layer: 'below',
          },
          {
            type: 'line',
            xref: 'paper',
            x0: 0,
            x1: 1,
            y0: spec.minMm,
            y1: spec.minMm,
            line: { color: '#20272b', width: 1.2, dash: 'dash' },
          },
        ]
      : [];
    return {
      data: traces,
      layout: {
        shapes: band,
        yaxis: { title: { text: 'diameter, mm' }, tickformat: '.3f', zeroline: false },
        xaxis: { type: 'category', categoryorder: 'array', categoryarray: [...PLANES] },
      } as Partial<Layout>,
    };
  }, [readings, spec, gauge]);
  return (
    <Plot
      data={data}
      layout={layout}
      height={230}
      label={`Diameter along the journal, ${readings.length} readings${spec ? `, specification ${spec.minMm} to ${spec.maxMm} mm` : ''}`}
    />
  );
}
