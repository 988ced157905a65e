/** A page as jsdom makes one, with what every browser of today has and jsdom leaves to Node. */
// A page is long: what was expected says more than all of it.
process.env.DEBUG_PRINT_LIMIT = '0';
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
    // Node's own would hold the test open as long as somebody listens.
    this.global.MessageChannel = class {
      constructor() {
        const [one, two] = [{ onmessage: null }, { onmessage: null }];
        const to = (port) => (data) => void setTimeout(() => port.onmessage?.({ data }), 0);
        one.postMessage = to(two);
        two.postMessage = to(one);
        this.port1 = one;
        this.port2 = two;
      }
    };
  }
};
