export { type Point, homography, isConvex } from './homography.js';
export { projectShell, shellPose, viewCosine } from './shellPose.js';
export { shellCamera } from './cameraModel.js';
export { type Developed, NOT_SEEN_COSINE, type Pixels, develop } from './flatten.js';
export { toPicture, toSurface } from './mesh.js';
export { PART_TAG, corrected, parseTagText, project, readTag, renderTag, tagDistanceMm, tagText } from './partTag.js';
export { refineTagCorners } from './tagRefine.js';
export { clockDoubt } from './takenAt.js';
export {
  type FlattenedPart,
  MAP_COLUMNS,
  MAP_ROWS,
  READ_PARTS,
  isFlattened,
  isRead,
  readSurface,
  cameraModelOf,
} from './reading/readSurface.js';
export { type Turn, USUAL_TURN, fromPicture, inPicture, showsPieceOfTurn, sizeFromFrame } from './reading/onFrame.js';
export { findOutline, isFound } from './reading/findOutline.js';
export { type PictureTask, type ReadPicture, readPicture } from './reading/readPicture.js';
export { readingJson } from './reading/readingJson.js';
