import { benchOf, type ChartKey } from '@true-ledger/core/measure';
import { repeatsOf } from '@true-ledger/core/measured';
import { Segmented } from 'antd';
import { useState, type ReactNode } from 'react';
import type { Charted } from './charted.js';
import { JournalAlong, JournalPolar } from './journal.js';
import { BoreUnrolled, BoreRound } from './bore.js';
import { DeckChart } from './deck.js';
import { ClearanceChart } from './clearance.js';
import { LobeChart } from './lobe.js';
import { RepeatChart } from './repeat.js';

type Chart = (c: Charted) => ReactNode;

const CHARTS: Readonly<Record<ChartKey, ReadonlyArray<readonly [string, Chart]>>> = {
  journal: [
    ['Along', JournalAlong],
    ['Round', JournalPolar],
  ],
  bore: [
    ['Rolled out', BoreUnrolled],
    ['In the round', BoreRound],
  ],
  deck: [['Map', DeckChart]],
  clearance: [['Along the crank', ClearanceChart]],
  lobes: [['Lift', LobeChart]],
};

/** Charts of a sheet, one at a time; repeats have theirs once there are any. */
export function PlaceCharts(charted: Charted): ReactNode {
  const [chosen, setChosen] = useState<string | null>(null);
  const { chart } = benchOf(charted.outcome.place.kind);
  const own = chart ? CHARTS[chart] : [];
  const all = repeatsOf(charted.readings).length > 0 ? [...own, ['Repeats', RepeatChart] as const] : own;
  const shown = all.find(([name]) => name === chosen) ?? all[0];
  if (!shown || charted.outcome.values.size === 0) return null;
  const [, Shown] = shown;
  return (
    <section className="pane" aria-label="Chart">
      {all.length > 1 && (
        <Segmented size="small" value={shown[0]} options={all.map(([name]) => name)} onChange={setChosen} aria-label="Chart" />
      )}
      <Shown {...charted} />
    </section>
  );
}
