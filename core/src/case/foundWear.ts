import type { FoundWear } from '../running/explain.js';
import type { CaseView } from './views.js';

/** What was read of the halves of a bearing: share not sound of what was seen, and share seen, cell by cell. */
export function foundWear(view: CaseView, bearing: string): FoundWear {
  const of = (half: 'upper' | 'lower') => {
    const wear = view.byId.get(`${bearing}.shell.${half}`)?.wear;
    return wear ? { [half]: { worn: Float64Array.from(wear.shares.sound, (s) => 1 - s), seen: wear.seen } } : {};
  };
  return { ...of('upper'), ...of('lower') };
}
