export { bearingsOf } from './bearings.js';
export { type EngineLayout, type ShellConstruction, cylinderPlaces, layoutSchema, pinCount } from './layout.js';
export { applies, engineTags } from './tags.js';
export { ENGINE_TEMPLATES, engineTemplate } from './templates.js';
export { validateLayout } from './validate.js';
export {
  PART_NAMES,
  type PartClass,
  journalOf,
  neighbourOf,
  partnerOf,
  shellConstructionAt,
  shellsOn,
  type Station,
  type SurfaceFrame,
  isNamedBy,
  stationsOf,
} from './stations.js';
export { oilRoute, routeDistance } from './oilRoute.js';
export { type BenchOrder, type UnrolledBench, type UnrolledCell, unrolledBench } from './unrolledBench.js';
export { type BenchRow, type Direction, benchPlan, neighbourOnBench } from './bench.js';
export { planDrawing } from './plan.js';
