import { isExamined, standingGrade, type CaseView, type StationView } from '../../case/views.js';
import { pattern } from '../../damage/patterns.js';
import { neutralSight, sightName } from '../../damage/sights.js';
import { feature } from '../../cause/data/features.js';
import type { SequenceNode } from './types.js';

/** More places than this with one pattern are drawn as one event. */
const MANY = 3;

/** Bearing, cylinder or part a station belongs to, as the unit in which things happen. */
function unitOf({ station: s }: StationView): string {
  return s.bearing ?? (s.cylinder > 0 ? `cylinder.${s.cylinder}` : s.id);
}

const unitName = (stations: readonly StationView[]): string => {
  const s = stations[0]!.station;
  if (s.carries === 'crank') return `main ${s.number}`;
  if (s.carries === 'rod') return `big end ${s.cylinder}`;
  return s.cylinder > 0 ? `cylinder ${s.cylinder}` : s.name.toLowerCase();
};

/** What was found, as nodes: each pattern at each bearing or cylinder, or once with all its places where it is everywhere. */
export function findingNodes(view: CaseView): SequenceNode[] {
  const groups = new Map<string, Map<string, StationView[]>>();
  for (const s of view.stations) {
    if (!isExamined(s)) continue;
    const shown = s.patterns.filter(
      (p) => p.value.present && (neutralSight(p.value.pattern) || feature(pattern(p.value.pattern)?.feature ?? '')?.damage),
    );
    const grade = standingGrade(s) ?? 0;
    const ids = shown.map((p) => p.value.pattern);
    if (ids.length === 0 && grade >= 2) ids.push('');
    for (const id of ids) {
      const units = groups.get(id) ?? new Map<string, StationView[]>();
      const unit = unitOf(s);
      units.set(unit, [...(units.get(unit) ?? []), s]);
      groups.set(id, units);
    }
  }
  return [...groups].flatMap(([id, units]) => {
    const record = pattern(id);
    const make = (unit: string, where: string, stations: readonly StationView[]): SequenceNode => ({
      id: `find:${id || 'unnamed'}@${unit}`,
      kind: 'finding',
      name: id === '' ? 'Damage without a name' : sightName(id),
      where,
      stations: stations.map((s) => s.station.id),
      pattern: record ? id : null,
      grade: Math.max(...stations.map((s) => standingGrade(s) ?? 0)),
      when: record?.when ?? null,
      at: null,
    });
    if (units.size <= MANY) return [...units].map(([unit, list]) => make(unit, unitName(list), list));
    const all = [...units.values()].flat();
    const names = [...units.values()].map((list) => unitName(list));
    return [make('many', `${units.size} places: ${names.slice(0, 4).join(', ')}${names.length > 4 ? ', …' : ''}`, all)];
  });
}
