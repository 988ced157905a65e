import { cellText, worstWord, type Cell, type PlaceOutcome, type SheetPlace } from '@true-ledger/core/measure';
import type { ReadingEntry } from '@true-ledger/core/measured';
import { memo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import { placePath } from './Measure.js';
import './entry.css';
import './measure.css';
import type { Spot, Refusal } from './gridRows.js';

export const ROW_PX = 28;

interface RowProps {
  readonly caseId: string;
  readonly place: SheetPlace;
  readonly columns: readonly Cell[];
  readonly outcome: PlaceOutcome;
  readonly readings: readonly ReadingEntry[];
  readonly active: string | null;
  readonly readOnly: boolean;
  readonly onAt: (spot: Spot | null) => void;
  readonly onMove: (spot: Spot, down: number, right: number) => void;
  readonly onTake: (spot: Spot, text: string, insisted: boolean) => Refusal | null;
  /** A figure left behind that could not be taken. */
  readonly onLost: (words: string) => void;
}

/** A place in the grid. Drawn again only when its own readings, its outcome or the choice in it change. */
export const GridRow = memo(
  function GridRow({ caseId, place, columns, outcome, readings, active, readOnly, onAt, onMove, onTake, onLost }: RowProps): ReactNode {
    const word = worstWord(outcome.outcome);
    const worst =
      outcome.outcome?.lines.find((l) => l.verdict?.word === word) ?? outcome.outcome?.lines.find((l) => l.verdict !== undefined);
    return (
      <tr>
        <th>
          <Link to={`/case/${caseId}/measure/${placePath(place)}`}>{place.short}</Link>
        </th>
        {columns.map((c) => {
          const cell = place.cells.find((x) => x.key === c.key);
          if (!cell) return <td key={c.key} className="none" />;
          const own = readings.filter((r) => r.value.cell === c.key);
          const text = shownText(cell, own, outcome.values.get(c.key));
          if (active === c.key && !readOnly)
            return (
              <td key={c.key} className="active">
                <GridInput
                  place={place}
                  cell={cell}
                  was={text}
                  onMove={onMove}
                  onTake={onTake}
                  onLost={onLost}
                  onLeave={() => onAt(null)}
                />
              </td>
            );
          return (
            <td key={c.key} className={own.length === 0 && !cell.optional ? 'missing' : own.length === 0 ? 'spare' : ''}>
              <button
                type="button"
                className="figure"
                tabIndex={-1}
                aria-label={`${place.short}, ${cell.name}: ${text || (cell.optional ? 'not asked' : 'missing')}${own.some((r) => r.value.simulated) ? ' sim (simulated)' : ''}`}
                onClick={() => onAt({ place, key: c.key })}
              >
                {text}
                {own.some((r) => r.value.simulated) && <small className="simulated"> sim</small>}
              </button>
            </td>
          );
        })}
        <td className="verdict-cell">
          <i className={`dot ${word}`} /> {word}
          {worst && worst.verdict && word !== 'within' && <span className="quiet"> {worst.name.toLowerCase()}</span>}
          {outcome.problem && <span className="fault"> {outcome.problem.sentence}</span>}
        </td>
      </tr>
    );
  },
  (a, b) =>
    a.outcome === b.outcome &&
    a.active === b.active &&
    a.onTake === b.onTake &&
    a.onMove === b.onMove &&
    a.columns === b.columns &&
    a.readOnly === b.readOnly &&
    a.readings.length === b.readings.length &&
    a.readings.every((r, i) => r.version === b.readings[i]!.version),
);

function shownText(cell: Cell, own: readonly ReadingEntry[], mean: number | undefined): string {
  if (own.length === 0) return '';
  if (mean === undefined) return 'not read';
  return cellText(cell, mean, own[0]!.value.unit).replace(/ mm$/, '');
}

/** The one cell that is typed into; a keystroke draws nothing else. */
function GridInput({
  place,
  cell,
  was,
  onMove,
  onTake,
  onLost,
  onLeave,
}: {
  place: SheetPlace;
  cell: Cell;
  was: string;
  onMove: RowProps['onMove'];
  onTake: RowProps['onTake'];
  onLost: RowProps['onLost'];
  onLeave: () => void;
}): ReactNode {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<Refusal | null>(null);
  const spot = { place, key: cell.key };
  /** In the last row the field stays: what Enter took is not taken again when it is left. */
  const taken = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  const keep = (down: number, right: number): void => {
    const refused = text.trim() === '' || taken.current ? null : onTake(spot, text, problem?.held ?? false);
    if (refused) {
      setProblem(refused);
      // What is typed again takes the place of what was held back.
      input.current?.select();
      return;
    }
    taken.current = true;
    onMove(spot, down, right);
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>): void => {
    const empty = text === '';
    if (e.key === 'Enter') keep(1, 0);
    else if (e.key === 'Tab') keep(0, e.shiftKey ? -1 : 1);
    else if (e.key === 'Escape') onLeave();
    else if (e.key === 'ArrowDown') keep(1, 0);
    else if (e.key === 'ArrowUp') keep(-1, 0);
    else if (e.key === 'ArrowRight' && empty) onMove(spot, 0, 1);
    else if (e.key === 'ArrowLeft' && empty) onMove(spot, 0, -1);
    else return;
    e.preventDefault();
  };
  return (
    <>
      <input
        ref={input}
        autoFocus
        data-figures
        className={problem ? 'figure wrong' : 'figure'}
        value={text}
        placeholder={was || '·'}
        aria-label={`${place.short}, ${cell.name}`}
        aria-invalid={problem !== null}
        inputMode="decimal"
        maxLength={40}
        onChange={(e) => {
          taken.current = false;
          setText(e.target.value);
          setProblem(null);
        }}
        onKeyDown={onKey}
        onBlur={() => {
          const refused = text.trim() === '' || taken.current ? null : onTake(spot, text, false);
          if (refused) onLost(`${place.short}, ${cell.name}: ${text.trim()} was left and not taken. ${refused.words}`);
        }}
      />
      {problem && (
        <span className="cell-problem" role="alert">
          {problem.words}
        </span>
      )}
    </>
  );
}
