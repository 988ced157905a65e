import { cutEffects, deckMap } from '@true-ledger/core/measured';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { Plot } from '../../../charts/Plot.js';
import { useCase } from '../../../app/caseContext.js';
import { type Charted, gaugeOf, RAMP, INK } from './charted.js';

/** Heights over the fitted plane, and what cuts would do to the compression ratio. */
export function DeckChart({ outcome, readings }: Charted): ReactNode {
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
