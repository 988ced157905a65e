const { statSync } = require('node:fs');

/** Folders whose files take longest, the longest first; within one the larger file first. */
const SLOW = ['/core/src/photo/film/', '/core/src/photo/reading/', '/server/test/', '/cli/src/', '/web/src/'];

/**
 * Order of the test files for Jest: those that drive a browser stand in turn with the others, so that one computes while the other waits, and what takes long comes before what fills the gaps at
 * the end.
 */
module.exports = class LongestFirst {
  sort(tests) {
    const size = new Map(tests.map((t) => [t.path, statSync(t.path).size]));
    const slow = (t) => SLOW.findIndex((folder) => t.path.includes(folder)) >>> 0;
    const ordered = [...tests].sort((a, b) => slow(a) - slow(b) || size.get(b.path) - size.get(a.path));
    const driving = ordered.filter((t) => t.path.includes('/e2e/'));
    const others = ordered.filter((t) => !t.path.includes('/e2e/'));
    const out = [];
    while (driving.length + others.length > 0) out.push(...driving.splice(0, 1), ...others.splice(0, 2));
    return out;
  }

  shard(tests) {
    return tests;
  }

  allFailedTests(tests) {
    return tests;
  }

  cacheResults() {}
};
