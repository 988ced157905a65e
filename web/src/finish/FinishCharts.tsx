import type { FinishResult } from '@true-ledger/core/measure';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../charts/Plot.js';
import { COLOUR, through } from '../app/tokens.js';

type Profile = ReadonlyArray<readonly [xMm: number, zUm: number]>;

export interface Shown {
  readonly name: string;
  readonly finish: FinishResult;
  readonly profile: Profile;
}

const INK = { trace: COLOUR.accent, reference: COLOUR.copper } as const;
const line = (of: 'trace' | 'reference', width = 1.2): { color: string; width: number; dash: 'solid' | 'dot' } => ({
  color: INK[of],
  width,
  dash: of === 'trace' ? 'solid' : 'dot',
});

/** Levelled profiles along the surface; the reference lies under the trace. */
export function ProfileChart({ trace, reference }: { trace: Shown; reference: Shown | null }): ReactNode {
  const { data, layout } = useMemo(() => {
    const one = (s: Shown, of: 'trace' | 'reference'): Data => ({
      type: 'scatter',
      mode: 'lines',
      name: of === 'trace' ? 'trace' : 'reference',
      x: s.profile.map((p) => p[0]),
      y: s.profile.map((p) => p[1]),
      line: { ...line(of, 0.9), dash: 'solid' },
      opacity: of === 'trace' ? 1 : 0.55,
    });
    return {
      data: [...(reference ? [one(reference, 'reference')] : []), one(trace, 'trace')],
      layout: {
        margin: { l: 56, r: 16, t: 10, b: 40 },
        xaxis: { title: { text: 'along the surface, mm' }, zeroline: false },
        yaxis: { title: { text: 'height, µm' }, zeroline: false },
      } as Partial<Layout>,
    };
  }, [trace, reference]);
  return <Plot data={data} layout={layout} height={190} label={`Profile of ${trace.name}${reference ? ` over ${reference.name}` : ''}`} />;
}

/** Material ratio curve with the equivalent line of the core and the triangles of equal area. */
export function AbbottChart({ trace, reference }: { trace: Shown; reference: Shown | null }): ReactNode {
  const { data, layout } = useMemo(() => {
    const curve = (s: Shown, of: 'trace' | 'reference'): Data => ({
      type: 'scatter',
      mode: 'lines',
      name: of === 'trace' ? 'trace' : 'reference',
      x: s.finish.abbott.map((p) => p[0]),
      y: s.finish.abbott.map((p) => p[1]),
      line: line(of, 2),
    });
    const { construction: c, Mr1, Mr2, Rpk, Rvk } = trace.finish;
    const drawn = (name: string, x: number[], y: number[], fill = false): Data => ({
      type: 'scatter',
      mode: 'lines',
      name,
      x,
      y,
      line: { color: COLOUR.ink, width: 1, dash: 'dash' },
      showlegend: !fill,
      hoverinfo: 'skip',
      ...(fill ? { fill: 'toself', fillcolor: through('accent', 0.16) } : {}),
    });
    return {
      data: [
        ...(reference ? [curve(reference, 'reference')] : []),
        curve(trace, 'trace'),
        drawn('line of the core', [0, 100], [c.upper, c.lower]),
        drawn('peaks', [0, 0, Mr1, 0], [c.upper, c.upper + Rpk, c.upper, c.upper], true),
        drawn('valleys', [100, 100, Mr2, 100], [c.lower, c.lower - Rvk, c.lower, c.lower], true),
      ],
      layout: {
        margin: { l: 56, r: 16, t: 10, b: 40 },
        xaxis: { title: { text: 'material ratio, %' }, range: [0, 100], zeroline: false },
        yaxis: { title: { text: 'height, µm' }, zeroline: false },
      } as Partial<Layout>,
    };
  }, [trace, reference]);
  return <Plot data={data} layout={layout} height={290} label={`Material ratio curve of ${trace.name} with its construction`} />;
}
