import { wrap, type Remote } from 'comlink';
import type { Filing } from './filing.worker.js';

let remote: Remote<Filing> | null = null;

/** The worker that looks at files before they are sent, started on first use. */
export function filing(): Remote<Filing> {
  remote ??= wrap<Filing>(new Worker(new URL('./filing.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}
