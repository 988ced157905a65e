import type { StationView } from '@true-ledger/core/case';

/** Part of a surface that is looked at side by side. */
export type SurfacePart = 'whole' | 'front-edge' | 'rear-edge' | 'crown';

/** Window of a part on its surface: from and to along the arc and from front to rear, 0–1. */
export const PART_WINDOWS: Readonly<
  Record<SurfacePart, { readonly name: string; readonly u: readonly [number, number]; readonly v: readonly [number, number] }>
> = {
  whole: { name: 'Whole surface', u: [0, 1], v: [0, 1] },
  'front-edge': { name: 'Front edge', u: [0, 1], v: [0, 0.3] },
  'rear-edge': { name: 'Rear edge', u: [0, 1], v: [0.7, 1] },
  crown: { name: 'Crown of the arc', u: [1 / 3, 2 / 3], v: [0, 1] },
};

interface Group {
  readonly keys: string;
  readonly what: string;
  readonly part: SurfacePart;
  readonly of: (stations: readonly StationView[], like: StationView) => string[];
}

const shells = (stations: readonly StationView[], half: 'upper' | 'lower' | null, like: StationView): string[] => {
  const carries = like.station.carries ?? 'rod';
  return stations
    .filter(({ station: s }) => s.part === 'shell' && s.carries === carries && (half === null || s.half === half))
    .map((s) => s.station.id);
};

/** Surfaces that are looked at together, each by keys of its own: of the bearings the cursor stands at, else of the rods. */
export const GROUPS: readonly Group[] = [
  { keys: 'au', what: 'all upper halves', part: 'whole', of: (all, like) => shells(all, 'upper', like) },
  { keys: 'al', what: 'all lower halves', part: 'whole', of: (all, like) => shells(all, 'lower', like) },
  { keys: 'ae', what: 'all rear edges', part: 'rear-edge', of: (all, like) => shells(all, null, like) },
  { keys: 'af', what: 'all front edges', part: 'front-edge', of: (all, like) => shells(all, null, like) },
  { keys: 'ac', what: 'all crowns of the arc', part: 'crown', of: (all, like) => shells(all, null, like) },
];
