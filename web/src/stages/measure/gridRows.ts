import type { Cell, Round, SheetPlace } from '@true-ledger/core/measure';
import './entry.css';
import './measure.css';

export interface Spot {
  readonly place: SheetPlace;
  readonly key: string;
}

export interface Refusal {
  readonly words: string;
  /** A second Enter takes it all the same. */
  readonly held: boolean;
}

export const columnsOf = (round: Round): Cell[] => {
  const seen = new Map<string, Cell>();
  for (const p of round.places) for (const c of p.cells) if (!seen.has(c.key)) seen.set(c.key, c);
  return [...seen.values()];
};
