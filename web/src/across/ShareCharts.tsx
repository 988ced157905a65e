import type { AcrossStatistics, CountedShare } from '@true-ledger/core/across';
import { percentText } from '@true-ledger/core/cause';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { COLOUR } from '../app/tokens.js';
import { Plot } from '../charts/Plot.js';

/** Shares as bars with their intervals; each bar is a button. Drawn as text and rule, so that a name is never cut and a key reaches it. */
export function ShareChart({
  shares,
  nameOf,
  label,
  onOpen,
}: {
  shares: readonly CountedShare[];
  nameOf: (key: string) => string;
  label: string;
  onOpen: (share: CountedShare) => void;
}): ReactNode {
  const most = Math.max(0.1, ...shares.map((s) => s.high));
  const at = (share: number): string => `${(100 * share) / most}%`;
  return (
    <ol className="share-bars" aria-label={label}>
      {shares.map((s) => (
        <li key={s.key}>
          <button
            type="button"
            onClick={() => onOpen(s)}
            aria-label={`${nameOf(s.key)}: ${s.k} of ${s.n}, ${percentText(s.low)} to ${percentText(s.high)}`}
          >
            <span className="share-name">{nameOf(s.key)}</span>
            <span className="share-rule" aria-hidden>
              <i className="share-bar" style={{ width: at(s.share) }} />
              <i className="share-interval" style={{ left: at(s.low), width: at(s.high - s.low) }} />
            </span>
            <span className="figure">
              {s.k} of {s.n}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}

/** How often what was given a probability was so. */
export function ReliabilityChart({ bins }: { bins: AcrossStatistics['reliability'] }): ReactNode {
  const { data, layout } = useMemo(
    () => ({
      data: [
        {
          type: 'scatter',
          mode: 'lines',
          name: 'as it should be',
          x: [0, 1],
          y: [0, 1],
          line: { color: COLOUR.lineDark, width: 1, dash: 'dot' },
        } as Data,
        {
          type: 'scatter',
          mode: 'lines+markers',
          name: 'as it was',
          x: bins.map((b) => b.said),
          y: bins.map((b) => b.share),
          text: bins.map((b) => `${b.k} of ${b.n}`),
          hovertemplate: '%{text}<extra></extra>',
          error_y: {
            type: 'data',
            symmetric: false,
            array: bins.map((b) => b.high - b.share),
            arrayminus: bins.map((b) => b.share - b.low),
            color: COLOUR.accentLine,
          },
          line: { color: COLOUR.accent },
          marker: { size: 8, color: COLOUR.accent },
        } as Data,
      ],
      layout: {
        xaxis: { title: { text: 'said' }, range: [0, 1], tickformat: '.0%' },
        yaxis: { title: { text: 'was so' }, range: [0, 1], tickformat: '.0%' },
        margin: { l: 62, r: 10, t: 28, b: 40 },
        showlegend: false,
      } as Partial<Layout>,
    }),
    [bins],
  );
  return <Plot data={data} layout={layout} height={230} label="Said against what was so" />;
}
