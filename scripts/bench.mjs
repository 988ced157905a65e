// Prints one JSON line per figure: median of several runs, with the limit it is held against or the peer of the same run.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { build, installPackages, ROOT } from './lib.mjs';

await installPackages({ whole: true });
await build();
const main = join(ROOT, 'bench', 'figures.mjs');
if (!existsSync(main)) throw new Error('bench/figures.mjs is missing');
await import(main);
await import(join(ROOT, 'bench', 'running.mjs'));
await import(join(ROOT, 'bench', 'cases.mjs'));
await import(join(ROOT, 'bench', 'practice.mjs'));
await import(join(ROOT, 'bench', 'growth.mjs'));
await import(join(ROOT, 'bench', 'others.mjs'));
await import(join(ROOT, 'bench', 'account.mjs'));
await import(join(ROOT, 'bench', 'browser.mjs'));
await import(join(ROOT, 'bench', 'change.mjs'));
await import(join(ROOT, 'bench', 'photos.mjs'));
await import(join(ROOT, 'bench', 'outlines.mjs'));
await import(join(ROOT, 'bench', 'roundPhotos.mjs'));
await import(join(ROOT, 'bench', 'otherRenderer.mjs'));
