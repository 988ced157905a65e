/** Ways on for an engine. */
export const ROUTE_IDS = ['repair', 'rebuild', 'short-engine', 'used-engine', 'new-engine', 'run-on'] as const;
/** The six ways on. */
export type RouteId = (typeof ROUTE_IDS)[number];
