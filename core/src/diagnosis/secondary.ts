import { namedPatterns, showsFact, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { tells } from '../damage/patterns.js';
import { memo } from '../kit/memo.js';

/** Did this place fail by itself, hot or down to its back? */
export function failedHere(s: StationView): boolean {
  if (showsFact(s, 'sheds')) return true;
  const w = s.charted ? s.summary : null;
  return w !== null && (w.percent.heat > 3 || w.percent.steel > 5 || (w.percent.transfer > 3 && s.station.part === 'shell'));
}

/** Marked only by what was carried to it. */
function onlyCarried(s: StationView): boolean {
  if (failedHere(s)) return false;
  const ids = namedPatterns(s);
  if (ids.length > 0) return ids.every((id) => tells(id, 'secondary'));
  const w = s.charted ? s.summary : null;
  return (
    w !== null && (w.percent.embedded > 0.05 || w.lines.hair + w.lines.probe + w.lines.nail + w.lines.through >= 2) && w.percent.lining < 15
  );
}

/**
 * Bearings and journals that carry only the marks of metal shed by a worse one. They are consequences: where one bearing ran hot and the rest are lined by its lining, one bearing
 * failed, not all. Empty where nothing failed by itself.
 */
export const secondaryPlaces: (view: CaseView) => ReadonlySet<string> = memo('places marked by others', (view: CaseView) => {
  const bearings = view.stations.filter((s) => ['shell', 'rolling', 'journal'].includes(s.station.part));
  const worst = Math.max(0, ...bearings.filter(failedHere).map((s) => standingGrade(s) ?? 0));
  const found = new Set(
    worst >= 3 ? bearings.filter((s) => onlyCarried(s) && (standingGrade(s) ?? 0) < worst).map((s) => s.station.id) : [],
  );
  return found;
});
