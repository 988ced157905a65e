import {
  caseView,
  diagnose,
  emptyCase,
  envelope,
  develop,
  foldEntries,
  levelled,
  sightOf,
  sizeFromFrame,
  parseTagText,
  readTag,
  readTraceCsv,
  refineTagCorners,
  reportModel,
  sha256Hex,
  simulatedRoutes,
  surfaceFinish,
  surfaceMaps,
  verifyChain,
  type CaseState,
  type ChainVerdict,
  type Diagnosis,
  type FinishResult,
  type Developed,
  type FlattenedPart,
  type SurfaceFrame,
  type SurfaceMaps,
  type SurfaceSpecimen,
  type Turn,
  type LedgerEntry,
  type Point,
  type Result,
  type ReportModel,
  type SimulatedRoute,
} from '@true-ledger/core';
import { expose, transfer } from 'comlink';
import jsQR from 'jsqr';

/** What the code in a picture says. Corners in pixels of the upright picture at its own size. */
export type FoundTag =
  | { readonly kind: 'none' }
  | { readonly kind: 'foreign' }
  | {
      readonly kind: 'tag';
      readonly caseId: string;
      readonly station: string;
      readonly corners: ReadonlyArray<readonly [number, number]>;
      readonly gains: readonly [number, number, number] | null;
    };

/** Long sides at which the code is looked for: small first, since most tags are large in the picture. */
const LOOK_AT = [1200, 2400, 4000] as const;

async function findTag(file: Blob): Promise<FoundTag> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return { kind: 'none' };
  const longest = Math.max(bitmap.width, bitmap.height);
  try {
    for (const side of LOOK_AT) {
      const scale = Math.min(1, side / longest);
      const width = Math.max(1, Math.round(bitmap.width * scale));
      const height = Math.max(1, Math.round(bitmap.height * scale));
      const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
      if (!context) return { kind: 'none' };
      context.drawImage(bitmap, 0, 0, width, height);
      const pixels = context.getImageData(0, 0, width, height);
      const code = jsQR(pixels.data, width, height, { inversionAttempts: 'dontInvert' });
      if (code) {
        const tag = parseTagText(code.data);
        if (!tag) return { kind: 'foreign' };
        const at = code.location;
        const found = [at.topLeftCorner, at.topRightCorner, at.bottomRightCorner, at.bottomLeftCorner].map((c) => [c.x, c.y] as const);
        const corners = refineTagCorners(pixels, found, 17 + 4 * code.version);
        const reading = readTag(pixels, corners);
        return {
          kind: 'tag',
          ...tag,
          corners: corners.map(([x, y]) => [x / scale, y / scale] as const),
          gains: reading.ok ? reading.value.gains : null,
        };
      }
      if (scale === 1) break;
    }
    return { kind: 'none' };
  } finally {
    bitmap.close();
  }
}

async function sha256Of(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  // Only secure pages have the browser's own; the shop's network without a trusted certificate has not.
  if (!globalThis.crypto?.subtle) return sha256Hex(new Uint8Array(bytes));
  return [...new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** Heavy work kept off the page: differential, flattening, chain verification. */
const compute = {
  /** Hash of a file and, for pictures, the part tag that lies in it. */
  async prepare(file: Blob, picture: boolean): Promise<{ sha256: string; tag: FoundTag | null }> {
    return { sha256: await sha256Of(file), tag: picture ? await findTag(file) : null };
  },

  diagnose(state: CaseState): Diagnosis | null {
    const view = caseView(state);
    return view ? diagnose(view) : null;
  },

  /** Cost, time and chance of every route of a case, by seeded draws. */
  routes(state: CaseState): SimulatedRoute[] {
    const view = caseView(state);
    return view ? simulatedRoutes(view, diagnose(view), new Date()) : [];
  },

  /** The account of a case; with its routes it takes longer than a frame may. */
  account(state: CaseState): ReportModel | null {
    const view = caseView(state);
    return view ? reportModel(view, state.head, state.seq, { routes: simulatedRoutes(view, diagnose(view), new Date()) }) : null;
  },

  /** Surface parameters of a trace file, with its levelled profile thinned for drawing. */
  async finish(file: Blob, cutoffMm: number): Promise<Result<{ finish: FinishResult; profile: ReturnType<typeof envelope> }>> {
    const trace = readTraceCsv(await file.text());
    if (!trace.ok) return trace;
    const finish = surfaceFinish(trace.value, cutoffMm);
    if (!finish.ok) return finish;
    return {
      ok: true,
      value: { finish: finish.value, profile: envelope({ stepMm: trace.value.stepMm, z: levelled(trace.value.z) }, 1500) },
    };
  },

  /** Develops a surface from a picture file. Corners in pixels of the upright original of the given size. */
  async flatten(
    file: Blob,
    corners: readonly Point[],
    original: { width: number; height: number },
    part: FlattenedPart,
    frame: SurfaceFrame,
    turn: Turn,
  ): Promise<Result<Developed>> {
    const bitmap = await createImageBitmap(file);
    const { width, height } = bitmap;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!context) return { ok: false, problem: { code: 'no-canvas', sentence: 'This browser cannot read the pixels of the picture.' } };
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    const scale = width / original.width;
    const picture = { width, height, data: context.getImageData(0, 0, width, height).data };
    const sight = sightOf(
      part,
      picture,
      corners.map(([x, y]) => [x * scale, y * scale] as const),
      sizeFromFrame(part, frame, turn),
    );
    if (!sight.ok) return sight;
    const flat = develop(sight.value, picture);
    // In pixels of the original, as corners are.
    const nodes = flat.nodes.map((v) => v / scale);
    return transfer({ ok: true, value: { ...flat, nodes } }, [flat.pixels.data.buffer as ArrayBuffer, flat.cosine.buffer as ArrayBuffer]);
  },

  /** Paints a specimen's surface. */
  paint(specimen: SurfaceSpecimen, columns: number, rows: number): SurfaceMaps {
    const { truth, colour, roughness, dull, height, spanDeg, lines, specks } = surfaceMaps(specimen, columns, rows);
    return transfer(
      { columns, rows, spanDeg, truth, colour, roughness, dull, height, lines, specks },
      [truth, colour, roughness, dull, height].map((a) => a.buffer as ArrayBuffer),
    );
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
