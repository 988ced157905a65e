export { seeded } from '../kit/seeded.js';
export { MAP_CLASSES, type SurfaceMaps } from './sheet.js';
export type { Damage } from './damages.js';
export { type ShellSpecimen, type SurfaceSpecimen, surfaceMaps } from './surfaceMaps.js';
export {
  type DebrisKind,
  FORM_NAMES,
  FORM_SURFACE,
  RECIPES,
  type Recipe,
  SEVERITIES,
  SEVERITY_WORDS,
  SPECIMEN_FORMS,
  type Severity,
  type SpecimenForm,
  recipeSpecimen,
} from './recipes.js';
export { type Shot, USUAL_SHOT } from './scene.js';
export { roundStage, takeRound } from './roundScene.js';
export { takeShell } from './shellScene.js';
export { handTurned, turnFilm } from './turnFilm.js';
export { handLed, lampFrame } from './lampFilm.js';
export { boreFrame, handDrawn } from './boreFilm.js';
export { takeFlat } from './flatScene.js';
