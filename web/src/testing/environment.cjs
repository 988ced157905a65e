/** A page as jsdom makes one, with what every browser of today has and jsdom leaves to Node. */
const { TestEnvironment } = require('jest-environment-jsdom');

module.exports = class extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, {
      fetch,
      Request,
      Response,
      Headers,
      AbortController,
      AbortSignal,
      structuredClone,
      TextEncoder,
      TextDecoder,
      Blob,
      File,
      FormData,
    });
    this.global.Uint8Array = Uint8Array;
  }
};
