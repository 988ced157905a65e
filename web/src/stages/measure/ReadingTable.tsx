import { cellText, type SheetPlace } from '@true-ledger/core/measure';
import type { ReactNode } from 'react';
import type { Entry } from './useEntry.js';
import './entry.css';
import './measure.css';

/** Cells of a sheet with what was read; a press goes there. */
export function ReadingTable({ place, entry }: { place: SheetPlace; entry: Entry }): ReactNode {
  const shown = place.cells.filter((c) => entry.spots.some((s) => s.cell === c));
  const gridded = shown.filter((c) => c.row !== '');
  const loose = shown.filter((c) => c.row === '');
  const rows = [...new Set(gridded.map((c) => c.row))];
  const columns = [...new Set(gridded.map((c) => c.column))];
  const cellButton = (key: string): ReactNode => {
    const cell = place.cells.find((c) => c.key === key)!;
    const takes = entry.taken.get(key) ?? [];
    const read = takes.flatMap((t) => t.value.value ?? []);
    const words =
      takes.length === 0
        ? '·'
        : read.length === 0
          ? 'not read'
          : cellText(cell, read.reduce((a, b) => a + b, 0) / read.length, takes[0]!.value.unit).replace(/ mm$/, '');
    const held = takes.some((t) => t.value.insisted);
    const simulated = takes.some((t) => t.value.simulated);
    return (
      <button
        type="button"
        className={entry.spot.cell === cell ? 'here figure' : 'figure'}
        onClick={() => entry.go(entry.spots.findIndex((s) => s.cell === cell))}
        aria-label={`${cell.name}: ${words}${simulated ? ' sim (simulated)' : ''}`}
        title={
          [held && 'Taken on a second press though it looked wrong', simulated && 'Sent by a gauge stand-in, not read on the part']
            .filter(Boolean)
            .join('. ') || undefined
        }
      >
        {words}
        {read.length > 1 && <small> ×{read.length}</small>}
        {held && <small> !</small>}
        {simulated && <small className="simulated"> sim</small>}
      </button>
    );
  };
  return (
    <>
      {rows.length > 0 && (
        <table className="reading-grid">
          <thead>
            <tr>
              <th />
              {columns.map((c) => (
                <th key={c}>{c}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row}>
                <th>{row}</th>
                {columns.map((column) => {
                  const cell = gridded.find((c) => c.row === row && c.column === column);
                  return <td key={column}>{cell && cellButton(cell.key)}</td>;
                })}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {loose.length > 0 && (
        <div className="reading-list">
          {loose.map((c) => (
            <div key={c.key}>
              <span className="quiet">{c.name}</span>
              {cellButton(c.key)}
            </div>
          ))}
        </div>
      )}
    </>
  );
}
