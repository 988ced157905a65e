/** Ways on for an engine. */
export const ROUTE_IDS = ['repair', 'rebuild', 'short-engine', 'used-engine', 'new-engine', 'run-on'] as const;
export type RouteId = (typeof ROUTE_IDS)[number];
