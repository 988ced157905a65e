import type { Station } from '../engine/stations.js';
import type { WearClass } from './classes.js';
import type { SurfaceMark } from './wearMap.js';

/** Wear in words: a class of the wear map on a share of the face, and where. */
export interface WordedWear {
  readonly class: WearClass;
  readonly percent: number;
  readonly where?: 'front-edge' | 'rear-edge' | 'middle' | 'arc';
}

/** Shares of a face in words, each by the middle of what it may mean, in percent. */
export const SHARES = { trace: 1, patch: 10, quarter: 25, third: 33, half: 50, most: 75, all: 95 } as const;
/** A share of a face in a word. */
export type ShareWord = keyof typeof SHARES;
export const SHARE_WORDS = Object.keys(SHARES) as [ShareWord, ...ShareWord[]];

/** Turns "lining on 20 % at the rear edge" into a brush stroke of that area on the developed surface. */
export function markOfWords(station: Pick<Station, 'surface'>, w: WordedWear, id: string): SurfaceMark | null {
  const frame = station.surface;
  if (!frame || w.percent === 0) return null;
  const s = w.percent / 100;
  if (w.where === 'arc') {
    const side = s * frame.widthMm;
    const radius = Math.max(side, frame.heightMm) / 2;
    const points: Array<[number, number]> = [];
    for (let k = 0; k <= 8; k++) points.push([0.5, k / 8]);
    return { id: `w${id}`, shape: 'stroke', class: w.class, points, radiusMm: Math.min(radius, side / 2 || radius), made: 'found-so' };
  }
  const v = w.where === 'front-edge' ? s / 2 : w.where === 'rear-edge' ? 1 - s / 2 : 0.5;
  return {
    id: `w${id}`,
    shape: 'stroke',
    class: w.class,
    points: [
      [0, v],
      [1, v],
    ],
    radiusMm: (s * frame.heightMm) / 2,
    made: 'found-so',
  };
}
