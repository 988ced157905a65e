export { type Point, homography, isConvex } from './homography.js';
export { projectShell, shellPose, viewCosine } from './shellPose.js';
export { type CameraModel, shellCamera } from './cameraModel.js';
export { type Developed, NOT_SEEN_COSINE, type Pixels, develop } from './flatten.js';
export { toPicture, toSurface } from './mesh.js';
export { PART_TAG, corrected, parseTagText, project, readTag, renderTag, tagDistanceMm, tagText } from './partTag.js';
export { refineTagCorners } from './tagRefine.js';
export { clockDoubt } from './takenAt.js';
export { WORK_RENDITION } from './workRendition.js';
export { type FlattenedPart, type ReadPart, READ_PARTS, isFlattened, isRead } from './reading/readParts.js';
export { MAP_COLUMNS, MAP_ROWS } from './reading/surfaceReading.js';
export { readSurface } from './reading/readSurface.js';
export { type SurfaceSize, cameraModelOf } from './reading/cameraModelOf.js';
export {
  type Turn,
  USUAL_TURN,
  WHOLE_TURN,
  fromPicture,
  inPicture,
  onFrame,
  showsPieceOfTurn,
  sizeFromFrame,
  turnSaid,
} from './reading/onFrame.js';
export { surfaceOnFrame } from './reading/surfaceOnFrame.js';
export { findOutline, isFound, isGuessedTwice } from './reading/findOutline.js';
export { type PictureTask, type ReadPicture, readPicture } from './reading/readPicture.js';
export { readingJson } from './reading/readingJson.js';
export { cardColour } from './reading/light.js';
export { FEATURE_NAMES, SURROUNDED_FEATURES, pixelFeatures, reduced } from './segment/pixelFeatures.js';
export { surroundingsOf } from './segment/surroundings.js';
export { contextOf, probabilitiesOf } from './segment/network.js';
export { checkTurn, missingDeg, settleTurn, turnJoiner, turnTracker } from './film/index.js';
export { readTurn } from './reading/readTurn.js';
export { turnJson } from './reading/turnJson.js';
export { ASKED, SCENE_FEATURES, SCENE_SCALE, sceneFeatures, sceneOf } from './outline/sceneFeatures.js';
export { type StagePicture } from './reading/stagePictures.js';
export { lampGatherer, reliefPicture } from './film/index.js';
export { type StackedBore, boreStacker, checkScope, scopeTracker, USUAL_VIEW_DEG } from './film/index.js';
export { readBore, wholePicture } from './reading/readBore.js';
export { boreJson } from './reading/boreJson.js';
export { checkLamp, readLamp } from './reading/readLamp.js';
export { lampJson } from './reading/lampJson.js';
export { eachShrunk } from './image/shrink.js';
