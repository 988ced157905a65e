import type { Run } from '@true-ledger/core/running';
import { memo, type ReactNode } from 'react';

const L_MIN = 60_000;

type Line = readonly [name: string, told: (run: Run) => string];
const LINES: readonly Line[] = [
  ['Specific load', (r) => `${r.specificMpa.most.toFixed(1)} MPa (${r.specificMpa.low.toFixed(0)}–${r.specificMpa.high.toFixed(0)})`],
  ['Thinnest film', (r) => (r.film ? `${r.film.summary.minimumFilmUm.toFixed(2)} µm at ${r.film.summary.atDeg.toFixed(0)}°` : 'none')],
  ['Film over roughness', (r) => (r.film ? r.film.summary.filmOverRoughness.toFixed(1) : '–')],
  ['Short bearing says', (r) => (r.film ? `${r.film.short.minimumFilmUm.toFixed(2)} µm` : '–')],
  ['Film pressure', (r) => (r.film ? `${r.film.summary.peakPressureMpa.toFixed(0)} MPa` : '–')],
  ['Friction', (r) => (r.film ? `${r.film.summary.lossW.toFixed(0)} W` : '–')],
  ['Oil it gets', (r) => (r.oil ? `${(r.oil.circuit.bearingFlow.get(r.setting.bearing)! * L_MIN).toFixed(2)} L/min` : '–')],
  ['Gauge', (r) => (r.oil ? `${(r.oil.circuit.gaugePa / 1e5).toFixed(1)} bar` : '–')],
];

/** What came of the setting, beside the pinned one. */
export const Figures = memo(function Figures({ run, pinned }: { run: Run; pinned: Run | null }): ReactNode {
  return (
    <table className="mini run-figures">
      <thead>
        <tr>
          <th />
          <th>This setting</th>
          {pinned && <th>Pinned</th>}
        </tr>
      </thead>
      <tbody>
        {LINES.map(([name, told]) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="figure">{told(run)}</td>
            {pinned && <td className="figure">{told(pinned)}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
});
