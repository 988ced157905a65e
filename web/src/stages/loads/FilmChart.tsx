import { Button } from 'antd';
import type { Run } from '@true-ledger/core/running';
import type { Data, Layout } from 'plotly.js';
import { useMemo, type ReactNode } from 'react';
import { COLOUR } from '../../app/tokens.js';
import { saveBlob } from '../../app/saveBlob.js';
import { Plot } from '../../charts/Plot.js';

const HEIGHT = 300;
const MARGIN = { l: 70, r: 16, t: 30, b: 44 } as const;
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
export function FilmChart({ run, pinned, crankDeg }: { run: Run; pinned: Run | null; crankDeg: number }): ReactNode {
  const { data, layout } = useMemo(() => {
    const lines: Data[] = [
      ...(pinned?.film ? [trace(pinned, 'pinned', COLOUR.lineDark, 2)] : []),
      trace(run, 'thinnest film', COLOUR.accent, 2),
    ];
    const limit = run.film!.limitUm;
    lines.push({
      type: 'scatter',
      mode: 'lines',
      name: 'surfaces touch below',
      x: [0, run.cycleDeg],
      y: [limit, limit],
      line: { color: COLOUR.fault, width: 1.5, dash: 'dash' },
      hoverinfo: 'skip',
    });
    const shown: Partial<Layout> = {
      // The line of the crank stands over the chart, which must then not be drawn out along it.
      xaxis: { title: { text: 'crank angle from firing of cylinder 1, °' }, range: [0, run.cycleDeg], dtick: 90, fixedrange: true },
      yaxis: { title: { text: 'film, µm' }, rangemode: 'tozero' },
      margin: MARGIN,
    };
    return { data: lines, layout: shown };
  }, [run, pinned]);
  return (
    <>
      <div className="film-chart">
        <Plot data={data} layout={layout} height={HEIGHT} label="Thinnest film over the cycle with the film at which surfaces touch" />
        <div
          className="crank-line"
          style={{
            left: `calc(${MARGIN.l}px + (100% - ${MARGIN.l + MARGIN.r}px) * ${crankDeg / run.cycleDeg})`,
            top: MARGIN.t,
            height: HEIGHT - MARGIN.t - MARGIN.b,
          }}
        />
      </div>
      <Button size="small" onClick={() => saveBlob(`film-${run.setting.bearing}.csv`, new Blob([csv(run)], { type: 'text/csv' }))}>
        Take CSV
      </Button>
    </>
  );
}
