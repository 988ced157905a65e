export type { DamagePattern } from './catalogue/record.js';
export { GRADES, GRADE_INFO, type Grade, WEAR_CLASSES, WEAR_CLASS_INFO, type WearClass, gradeText } from './classes.js';
export { mergeReads } from './surfaceRead.js';
export { LINE_DEPTHS, type LineDepth, type SurfaceMark, type WearMap, damageShare, summariseMap } from './wearMap.js';
export {
  GRADED_PARTS,
  GRADE_BOOK,
  type GradeBook,
  type GradeRule,
  contradiction,
  gradeRulesSchema,
  proposeGrade,
  thing,
} from './gradeBook.js';
export { agreement } from './agreement.js';
export { PATTERNS, pattern, patternFound, patternsFor, toldApart } from './patterns.js';
export { SCHOOLS, type School, positionOf, school, schoolsAt } from './schools.js';
export { NEUTRAL_SIGHTS, sightName, sightsFor } from './sights.js';
