import { cylinderPlaces } from '../engine/layout.js';
import { fedBy, oilRoute } from '../engine/oilRoute.js';
import { stationOf } from '../engine/stations.js';
import { isExamined, standingGrade, type CaseView } from '../case/views.js';
import { secondaryPlaces } from './secondary.js';
import type { Cause } from '../cause/types.js';

export interface PlaceShare {
  readonly place: string;
  readonly name: string;
  readonly probability: number;
}

/** From this probability on a cause is shown at a place of its own. */
const LIKELY = 0.4;

/** The place a cause most likely began at; null while none is likely enough. */
export function likelyPlace({ places }: { readonly places: readonly PlaceShare[] }): PlaceShare | null {
  const [first] = places;
  return first && first.probability > LIKELY ? first : null;
}

const HIT = 0.85;
const MISS = 0.08;

/**
 * Where a placed cause sits: each candidate place predicts damage (0.85) on what it reaches and little (0.08) elsewhere; places are weighed by the
 * examined bearings or cylinder parts. Uniform prior over places; exact.
 */
export function rankPlaces(cause: Cause, view: CaseView): PlaceShare[] {
  if (!cause.place) return [];
  const route = oilRoute(view.layout);
  const candidates: Array<{ place: string; name: string; reach: (id: string) => boolean }> = [];
  const stem = (id: string): string => stationOf(view.layout, id)?.bearing ?? '';
  if (cause.place === 'main') {
    for (let m = 1; m <= view.layout.mains; m++) {
      const reached = new Set([`main.${m}`, ...(cause.downstream ? fedBy(route, `main.${m}`) : [])]);
      candidates.push({ place: `main.${m}`, name: `main ${m}`, reach: (id) => reached.has(stem(id)) });
    }
    for (const { cylinder } of cylinderPlaces(view.layout))
      candidates.push({ place: `rod.${cylinder}`, name: `big end ${cylinder}`, reach: (id) => stem(id) === `rod.${cylinder}` });
  } else {
    for (const { cylinder } of cylinderPlaces(view.layout)) {
      candidates.push({
        place: `cylinder.${cylinder}`,
        name: `cylinder ${cylinder}`,
        reach: (id) => view.byId.get(id)?.station.cylinder === cylinder,
      });
    }
  }
  const secondary = secondaryPlaces(view);
  const relevant = view.stations.filter(
    (s) =>
      isExamined(s) &&
      standingGrade(s) !== null &&
      !secondary.has(s.station.id) &&
      (cause.place === 'main' ? s.station.part === 'shell' : s.station.cylinder > 0),
  );
  const log = candidates.map((c) =>
    relevant.reduce((sum, s) => {
      const p = c.reach(s.station.id) ? HIT : MISS;
      return sum + Math.log((standingGrade(s) ?? 0) >= 2 ? p : 1 - p);
    }, 0),
  );
  const top = Math.max(...log);
  const weight = log.map((l) => Math.exp(l - top));
  const total = weight.reduce((a, b) => a + b, 0);
  return candidates
    .map((c, i) => ({ place: c.place, name: c.name, probability: weight[i]! / total }))
    .sort((a, b) => b.probability - a.probability);
}
