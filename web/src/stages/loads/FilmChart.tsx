import { Button } from 'antd';
import type { Run } from '@true-ledger/core/running';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { COLOUR } from '../../app/tokens.js';
import { saveBlob } from '../../app/saveBlob.js';
import { Plot } from '../../charts/Plot.js';

/** Every so many steps a point. */
const EVERY = 4;

function trace(run: Run, name: string, color: string, width: number): Data {
  const film = run.film!;
  const step = run.cycleDeg / film.thinnestUm.length;
  const picked = Array.from({ length: Math.ceil(film.thinnestUm.length / EVERY) }, (_, i) => i * EVERY);
  return {
    type: 'scatter',
    mode: 'lines',
    name,
    x: picked.map((i) => i * step),
    y: picked.map((i) => film.thinnestUm[i]!),
    line: { color, width },
    hovertemplate: '%{x:.0f}°: %{y:.2f} µm<extra></extra>',
  };
}

/** Film at every half degree of the crank as a table. */
function csv(run: Run): string {
  const film = run.film!;
  const step = run.cycleDeg / film.thinnestUm.length;
  return [
    'crank_deg,force_x_N,force_y_N,eccentricity_x,eccentricity_y,thinnest_film_um',
    ...Array.from(film.thinnestUm, (um, i) =>
      [i * step, run.force.x[i]!.toFixed(1), run.force.y[i]!.toFixed(1), film.x[i]!.toFixed(5), film.y[i]!.toFixed(5), um.toFixed(4)].join(
        ',',
      ),
    ),
  ].join('\n');
}

/** The thinnest film over the cycle, with the film at which surfaces touch. */
export function FilmChart({ run, pinned, crankDeg }: { run: Run; pinned: Run | null; crankDeg: number | null }): ReactNode {
  const { data, layout } = useMemo(() => {
    const lines: Data[] = [
      ...(pinned?.film ? [trace(pinned, 'pinned', COLOUR.lineDark, 2)] : []),
      trace(run, 'thinnest film', COLOUR.accent, 2),
    ];
    const limit = run.film!.limitUm;
    const shown: Partial<Layout> = {
      xaxis: { title: { text: 'crank angle from firing of cylinder 1, °' }, range: [0, run.cycleDeg], dtick: 90 },
      yaxis: { title: { text: 'film, µm' }, rangemode: 'tozero' },
      shapes: [
        { type: 'line', xref: 'paper', x0: 0, x1: 1, y0: limit, y1: limit, line: { color: COLOUR.fault, width: 1.5, dash: 'dash' } },
        ...(crankDeg === null
          ? []
          : [
              {
                type: 'line' as const,
                yref: 'paper' as const,
                x0: crankDeg,
                x1: crankDeg,
                y0: 0,
                y1: 1,
                line: { color: COLOUR.quiet, width: 1 },
              },
            ]),
      ],
      annotations: [
        {
          xref: 'paper',
          x: 1,
          y: limit,
          text: 'touches below',
          showarrow: false,
          xanchor: 'right',
          yanchor: 'bottom',
          font: { color: COLOUR.fault },
        },
      ],
    };
    return { data: lines, layout: shown };
  }, [run, pinned, crankDeg]);
  return (
    <>
      <Plot data={data} layout={layout} height={210} label="Thinnest film over the cycle with the film at which surfaces touch" />
      <Button size="small" onClick={() => saveBlob(`film-${run.setting.bearing}.csv`, new Blob([csv(run)], { type: 'text/csv' }))}>
        Take CSV
      </Button>
    </>
  );
}
