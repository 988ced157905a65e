export { assemblyModel, assemblyPictures, tighteningDrawing } from './assemblyModel.js';
export { type FirstPage, type ReportBlock, type ReportModel, cellColours } from './blocks.js';
export { ALWAYS, TEMPLATES } from './templates.js';
export { type PictureLine, pictureMarks } from './pictureMarks.js';
export {
  HEADINGS,
  type ReportOptions,
  layoutOf,
  machineShopModel,
  pictureNumbers,
  reportModel,
  sectionHashes,
  signatureLines,
  signedVersions,
  versionLines,
} from './model.js';
export {
  type LetterTemplate,
  type LetterTemplates,
  type LetterTo,
  LETTER_FIELDS,
  LETTER_TEMPLATES,
  LETTERS,
  filledLetter,
  letterParagraphs,
  unknownFields,
} from './letters.js';
export { type CoverOf, type Letterhead, NO_PARTIES, type Parties, coverModel, letterheadLines } from './parties.js';
export { reportMarkdown } from './markdown.js';
