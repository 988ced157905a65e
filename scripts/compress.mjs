// Compresses the built pages beside themselves, once and as far as it goes: the server sends what is there.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { ROOT } from './lib.mjs';

const WORTH = /\.(js|css|html|svg|json|webmanifest|ttf|wasm)$/;
const folder = join(ROOT, 'web', 'dist');
for (const name of readdirSync(folder, { recursive: true })) {
  const path = join(folder, name);
  if (!WORTH.test(name) || statSync(path).size < 1024) continue;
  const bytes = readFileSync(path);
  const quality = bytes.length > 400_000 ? 9 : 11;
  writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }));
  writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
}
