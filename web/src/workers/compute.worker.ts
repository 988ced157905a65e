import {
  caseView,
  diagnose,
  emptyCase,
  flattenShell,
  foldEntries,
  shellPose,
  verifyChain,
  type CaseState,
  type ChainVerdict,
  type Diagnosis,
  type FlattenedShell,
  type LedgerEntry,
  type Point,
  type Result,
} from '@true-ledger/core';
import { expose, transfer } from 'comlink';

/** Heavy work kept off the page: differential, flattening, chain verification. */
const compute = {
  diagnose(state: CaseState): Diagnosis | null {
    const view = caseView(state);
    return view ? diagnose(view) : null;
  },

  /** Develops a shell from a picture file. Corners in pixels of the upright original of the given size. */
  async flatten(
    file: Blob,
    corners: readonly Point[],
    original: { width: number; height: number },
    radiusMm: number,
    widthMm: number,
  ): Promise<Result<FlattenedShell>> {
    const bitmap = await createImageBitmap(file);
    const { width, height } = bitmap;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!context) return { ok: false, problem: { code: 'no-canvas', sentence: 'This browser cannot read the pixels of the picture.' } };
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    const scale = width / original.width;
    const pose = shellPose(
      corners.map(([x, y]) => [x * scale, y * scale] as const),
      { width, height },
      radiusMm,
      widthMm,
    );
    if (!pose.ok) return pose;
    const flat = flattenShell(pose.value, { width, height, data: context.getImageData(0, 0, width, height).data });
    return transfer({ ok: true, value: flat }, [flat.pixels.data.buffer as ArrayBuffer, flat.cosine.buffer as ArrayBuffer]);
  },

  /** Verifies the chain and folds it again; says whether the fold gives the state the server keeps. */
  verify(caseId: string, entries: readonly LedgerEntry[], kept: CaseState): ChainVerdict & { sameState: boolean } {
    const verdict = verifyChain(entries);
    const folded = foldEntries(emptyCase(caseId), entries);
    return { ...verdict, sameState: folded.seq !== kept.seq || folded.head === kept.head };
  },
};

export type Compute = typeof compute;

expose(compute);
