import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where bundles lie while they arrive. */
export const ARRIVING = join(tmpdir(), 'true-ledger-bundles');
/** Where a checked bundle is laid out, a folder each. */
export const LAID_OUT = 'true-ledger-taken-';
/** No import takes so long: what is older was left by a server that was killed, ms. */
const STALE_MS = 3 * 3600_000;

/** Clears away what imports of killed servers left in the folder for passing files. */
export async function sweepLeftovers(now = Date.now()): Promise<number> {
  await mkdir(ARRIVING, { recursive: true, mode: 0o700 });
  const places = [
    ...(await readdir(ARRIVING)).map((name) => join(ARRIVING, name)),
    ...(await readdir(tmpdir())).filter((name) => name.startsWith(LAID_OUT)).map((name) => join(tmpdir(), name)),
  ];
  let cleared = 0;
  for (const place of places) {
    const found = await stat(place).catch(() => null);
    if (!found || now - found.mtimeMs < STALE_MS) continue;
    await rm(place, { recursive: true, force: true });
    cleared++;
  }
  return cleared;
}
