export { readCaseFile } from './caseFile/read.js';
export { caseFileOfNotebook } from './caseFile/notebook.js';
export { caseFileOf } from './caseFile/write.js';
export { DEFAULT_GAUGE, type CaseFile } from './caseFile/format.js';
export { findingsCsv } from './csv.js';
export { fileOf, fileRefusal, openBundle, readBundle, readBundleFiles, verifyBundle } from './verifyBundle.js';
export { acceptEntries, readableVersion } from './acceptEntries.js';
export {
  type Seal,
  type SealClaims,
  type SealVerdict,
  type ShopKey,
  keyFingerprint,
  makeShopKey,
  sealBundle,
  signStatement,
  statementHolds,
} from './seal.js';
export {
  DAILY_SEAL,
  type DailySeal,
  type DailyStatement,
  chainAgainstSeal,
  dailySealText,
  parseDailySeal,
  statementHash,
} from './dailySeal.js';
export {
  STAMP_LIMIT,
  STAMP_OIDS,
  type StampCheck,
  type StampVerdict,
  certificatesOf,
  stampQuery,
  stampVerdict,
  stampWords,
} from './timeStamp.js';
