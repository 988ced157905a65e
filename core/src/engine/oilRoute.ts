import { cylinderPlaces, isPressureFed, mainsBesidePin, type EngineLayout } from './layout.js';
import type { Station } from './stations.js';

/** Directed oil route: `feeds[x]` lists what x feeds next. Node names are station stems such as `main.2` or `rod.3`. */
export interface OilRoute {
  readonly rule: string;
  readonly feeds: Readonly<Record<string, readonly string[]>>;
}

/**
 * Default route. Rule: pickup → pump → filter → main gallery; the gallery enters beside main 1 and passes the mains front to rear;
 * each crankpin is drilled from the main in front of it. Splash and premix engines have no pressure route.
 */
export function oilRoute(layout: EngineLayout): OilRoute {
  if (!isPressureFed(layout)) {
    const medium = layout.lubrication === 'premix' ? 'mixture' : 'dipper';
    const rods = cylinderPlaces(layout).map((place) => `rod.${place.cylinder}`);
    return {
      rule: layout.lubrication === 'premix' ? 'Oil arrives with the mixture.' : 'Oil is thrown by a dipper or slinger.',
      feeds: { [medium]: rods },
    };
  }
  const unfiltered = layout.unfiltered ?? [];
  const feeds: Record<string, string[]> = { pickup: ['pump'], pump: ['filter', ...unfiltered], filter: ['gallery'], gallery: [] };
  for (let m = 1; m <= layout.mains; m++) {
    if (!unfiltered.includes(`main.${m}`)) feeds['gallery']?.push(`main.${m}`);
    feeds[`main.${m}`] = [];
  }
  for (const place of cylinderPlaces(layout)) {
    const main = mainsBesidePin(layout, place.pin)[0] ?? 1;
    feeds[`main.${main}`]?.push(`rod.${place.cylinder}`);
  }
  const branch = unfiltered.length > 0 ? ` Before the filter a branch feeds ${unfiltered.join(', ')}.` : '';
  return { rule: `Gallery enters at main 1 and passes front to rear; each pin is drilled from the main in front of it.${branch}`, feeds };
}

/** Everything fed by a node, nearest first. */
export function fedBy(route: OilRoute, node: string): string[] {
  const found: string[] = [];
  const queue = [...(route.feeds[node] ?? [])];
  while (queue.length > 0) {
    const next = queue.shift() as string;
    if (found.includes(next)) continue;
    found.push(next);
    queue.push(...(route.feeds[next] ?? []));
  }
  return found;
}

/** Does a branch before the filter feed this node of the route, by itself or through another? */
export function isUnfilteredNode(layout: EngineLayout, node: string): boolean {
  const branch = layout.unfiltered ?? [];
  return branch.length > 0 && branch.some((name) => name === node || fedBy(oilRoute(layout), name).includes(node));
}

/** Does a branch before the filter feed this place? */
export function isUnfiltered(layout: EngineLayout, of: Station): boolean {
  return isUnfilteredNode(layout, of.bearing ?? of.id) || (layout.unfiltered ?? []).includes(of.id);
}

/** How far along the route a bearing lies: mains count along the gallery, a pin one step beyond its main. Null where nothing is pressure-fed, and for what a branch before the filter feeds. */
export function routeDistance(layout: EngineLayout, of: Station): number | null {
  if (!isPressureFed(layout) || of.carries === null || isUnfiltered(layout, of)) return null;
  if (of.carries === 'crank') return of.number;
  const place = cylinderPlaces(layout).find((p) => p.cylinder === of.cylinder);
  return place ? (mainsBesidePin(layout, place.pin)[0] ?? 1) + 1 : null;
}
