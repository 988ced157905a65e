import type { Grade } from '../../damage/classes.js';
import type { WearMap, WearSummary } from '../../damage/wearMap.js';
import type { Developed } from '../flatten.js';
import type { Layered } from './layer.js';
import type { FoundLine } from './lines.js';

/** Layers, lines and doubts of one developed surface. */
export interface SurfaceReading {
  readonly summary: WearSummary;
  readonly map: WearMap;
  readonly lines: readonly FoundLine[];
  readonly features: SurfaceFeatures;
  /** Null where nothing should be proposed; `doubts` say why. */
  readonly grade: Grade | null;
  readonly reason: string;
  readonly bookVersion: string;
  /** 0–1: how far the picture carries the answer. */
  readonly confidence: number;
  /** Plain sentences on what stands against the reading. */
  readonly doubts: readonly string[];
  readonly pxPerMm: number;
  /** Size the millimetres rest on. */
  readonly size: { readonly radiusMm: number; readonly widthMm: number };
  readonly glarePercent: number;
  readonly flat: Developed;
  readonly layered: Layered;
}

export interface SurfaceFeatures {
  readonly specks: number;
  /** Share of the face under a net of cracks, percent. */
  readonly crazedPercent: number;
  /** (rear − front) / (rear + front) of all damage, and of bare lining alone; null when there is too little (0.2 % of the face). */
  readonly edgeBias: number | null;
  readonly liningEdgeBias: number | null;
  /** Middle of the damage on the arc, degrees; null when none. */
  readonly arcCentreDeg: number | null;
  readonly arcSharePercent: number;
  /** Damage within the quarter at each edge, percent of all. */
  readonly frontEdgePercent: number;
  readonly rearEdgePercent: number;
  /** Slope of the damage over the face, front to rear per degree of arc, −1 to 1: diagonal wear. */
  readonly diagonal: number;
  readonly holes: number;
  /** Share of the whole surface that its lines cover, percent. */
  readonly linesPercent: number;
}

/** Columns of the map that is kept of a reading. */
export const MAP_COLUMNS = 36;

/** Rows of the map that is kept of a reading. */
export const MAP_ROWS = 12;
