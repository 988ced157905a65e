import type { Gauge } from '@true-ledger/core/units';
import type { Cell, GaugeRole } from '@true-ledger/core/measure';
import { ROLE_KINDS } from '@true-ledger/core/measure';
import { useState } from 'react';

/** What a builder has chosen for reading: kept in this browser, by role of the gauge and quantity. */
export interface EntryChoices {
  readonly repeats: 1 | 2 | 3;
  /** Ask the cells that are read only when more is wanted. */
  readonly optional: boolean;
  readonly speak: boolean;
  readonly gauges: Readonly<Partial<Record<GaugeRole, string>>>;
  readonly units: Readonly<Record<string, string>>;
}

const KEY = 'true-ledger.entry';
const USUAL: EntryChoices = { repeats: 1, optional: false, speak: false, gauges: {}, units: {} };

function kept(): EntryChoices {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<EntryChoices>) };
  } catch {
    return USUAL;
  }
}

export function useEntryChoices(): readonly [EntryChoices, (part: Partial<EntryChoices>) => void] {
  const [choices, setChoices] = useState(kept);
  const set = (part: Partial<EntryChoices>): void => {
    const next = { ...choices, ...part };
    localStorage.setItem(KEY, JSON.stringify(next));
    setChoices(next);
  };
  return [choices, set];
}

/** Gauges of the shop for a cell: the fitting kinds first, and of those the one whose master is nearest to the size; the others follow, since a hand may know better. */
export function gaugesFor(cell: Cell, gauges: readonly Gauge[]): Gauge[] {
  const size = cell.expectMm ?? (cell.sense ? (cell.sense[0] + cell.sense[1]) / 2 : 0);
  const kind = (g: Gauge): number => (ROLE_KINDS[cell.role].includes(g.kind) ? ROLE_KINDS[cell.role].indexOf(g.kind) : 99);
  const away = (g: Gauge): number => (g.masterMm === undefined ? 1e6 : Math.abs(g.masterMm - size));
  return [...gauges].sort((a, b) => kind(a) - kind(b) || away(a) - away(b));
}

/** Units offered when none is typed; others may still be typed behind a figure. */
export function offeredUnits(cell: Cell, all: readonly string[]): readonly string[] {
  return cell.quantity === 'length' ? (cell.role === 'feeler' || cell.role === 'scale' ? ['mm', 'in', 'thou'] : ['mm', 'in']) : all;
}
