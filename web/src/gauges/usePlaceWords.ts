import type { GaugeSpot } from '@true-ledger/contract';
import { placeOf } from '@true-ledger/core/measure';
import { caseView } from '@true-ledger/core/case';
import { useGetCaseQuery } from '../app/api.js';

/** Names the places of one case for a reader: a place of another case, or one it does not know, by its ids. */
export function usePlaceWords(caseId: string | undefined): (at: GaugeSpot) => string {
  const { data } = useGetCaseQuery(caseId ?? '', { skip: caseId === undefined });
  const view = data ? caseView(data.state) : null;
  return (at) => {
    const place = view && at.caseId === caseId ? placeOf(view.layout, at.station, at.sheet) : undefined;
    const cell = place?.cells.find((c) => c.key === at.cell);
    return place && cell
      ? `${place.name}, ${cell.name}, of case ${view!.number}`
      : `${at.station ?? 'the engine'}, ${at.sheet}, ${at.cell}`;
  };
}
