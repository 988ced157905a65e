import type { CaseView } from '@true-ledger/core/case';
import type { WearMap } from '@true-ledger/core/damage';
import type { FoundByArc } from '@true-ledger/core/running';

/** Share of every column of a shell that is not sound, and how much of it was seen. */
function byArc(map: WearMap): { readonly worn: Float64Array; readonly seen: Float64Array } {
  const worn = new Float64Array(map.columns);
  const seen = new Float64Array(map.columns);
  for (let i = 0; i < map.seen.length; i++) {
    const column = i % map.columns;
    seen[column]! += map.seen[i]! / map.rows;
    worn[column]! += ((1 - map.shares.sound[i]!) * map.seen[i]!) / map.rows;
  }
  for (let c = 0; c < map.columns; c++) worn[c] = seen[c]! > 0 ? worn[c]! / seen[c]! : 0;
  return { worn, seen };
}

/** What was read of the halves of a bearing, by arc. */
export function foundByArc(view: CaseView, bearing: string): FoundByArc {
  const of = (half: 'upper' | 'lower') => {
    const wear = view.byId.get(`${bearing}.shell.${half}`)?.wear;
    return wear ? { [half]: byArc(wear) } : {};
  };
  return { ...of('upper'), ...of('lower') };
}
