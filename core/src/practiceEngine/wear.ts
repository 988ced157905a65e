import { stationOf } from '../engine/stations.js';
import { gradeOfMarks, type HiddenEngine } from './hidden.js';

/** Of a part that ran and took no harm. */
const SOUND = 0.06;
/** Of one that is past its size, and the most of one that is not. */
const PAST = 0.85;
const WITHIN = 0.2;

/** What is measured of a part, and on which. */
const SIZES = [
  { part: 'journal', features: ['measured.journal-worn', 'measured.out-of-round', 'measured.taper'] },
  { part: 'bore', features: ['measured.bore-worn', 'measured.bore-oval', 'measured.piston-clearance-high'] },
] as const;

/** How far every place of a practice engine is worn, 0 to 1, for the stand-ins of gauges: by its damage, and so that what a gauge says is what is so. */
export function wearOf(hidden: HiddenEngine): (station: string) => number {
  return (station) => {
    const grade = gradeOfMarks(hidden.marks.get(station) ?? []);
    const worn = grade === 0 ? SOUND : grade / 4;
    const part = stationOf(hidden.layout, station)?.part;
    const size = SIZES.find((s) => s.part === part);
    if (!size) return worn;
    return size.features.some((f) => hidden.features.get(f)) ? Math.max(PAST, worn) : Math.min(WITHIN, worn);
  };
}
