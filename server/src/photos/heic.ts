import { Worker } from 'node:worker_threads';

const BRANDS: ReadonlySet<string> = new Set(['heic', 'heix', 'hevc', 'heim', 'heis', 'mif1', 'msf1']);

/** Is the file an ISO base media picture with HEVC inside, by its own first bytes? */
export function isHeic(bytes: Buffer): boolean {
  return bytes.length > 12 && bytes.toString('latin1', 4, 8) === 'ftyp' && BRANDS.has(bytes.toString('latin1', 8, 12));
}

export type HeicResult =
  | { readonly ok: true; readonly width: number; readonly height: number; readonly data: Buffer }
  | { readonly ok: false; readonly why: 'damaged' | 'too-large' };

const LONGEST_MS = 30_000;

/** Decodes the first picture to upright RGBA. The decoder runs in a thread that is ended when it takes too long. */
export function decodeHeic(bytes: Buffer, mostPixels: number): Promise<HeicResult> {
  return new Promise((resolve) => {
    const worker = new Worker(SOURCE, {
      eval: true,
      workerData: { bytes: new Uint8Array(bytes), mostPixels },
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    const end = (result: HeicResult): void => {
      clearTimeout(timer);
      void worker.terminate();
      resolve(result);
    };
    const timer = setTimeout(() => end({ ok: false, why: 'damaged' }), LONGEST_MS);
    worker.once('message', (m: { why?: 'damaged' | 'too-large'; width: number; height: number; data: Uint8Array }) =>
      end(m.why ? { ok: false, why: m.why } : { ok: true, width: m.width, height: m.height, data: Buffer.from(m.data) }),
    );
    worker.once('error', () => end({ ok: false, why: 'damaged' }));
  });
}

/** The thread: a few lines around libheif, as text because it must also run from tests that compile in memory. */
const SOURCE = `
const { parentPort, workerData } = require('node:worker_threads');
(async () => {
  try {
    const libheif = require('libheif-js/wasm-bundle');
    const [image] = new libheif.HeifDecoder().decode(workerData.bytes);
    if (!image) return parentPort.postMessage({ why: 'damaged' });
    const width = image.get_width();
    const height = image.get_height();
    if (width * height > workerData.mostPixels) return parentPort.postMessage({ why: 'too-large' });
    const data = new Uint8ClampedArray(width * height * 4);
    image.display({ data, width, height }, (shown) => {
      if (!shown) parentPort.postMessage({ why: 'damaged' });
      else parentPort.postMessage({ width, height, data }, [data.buffer]);
    });
  } catch {
    parentPort.postMessage({ why: 'damaged' });
  }
})();
`;
