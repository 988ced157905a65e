import type { Outcome } from '@true-ledger/contract';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { envelope, levelled, readTraceCsv, surfaceFinish, type FinishResult } from '@true-ledger/core/measure';
import {
  applyDelta,
  emptyCase,
  verifyChain,
  type CaseState,
  type ChainVerdict,
  type LedgerEntry,
  type StateDelta,
} from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { develop, cameraModelOf, sizeFromFrame, type Developed, type FlattenedPart, type Turn, type Point } from '@true-ledger/core/photo';
import { surfaceMaps, type SurfaceMaps, type SurfaceSpecimen } from '@true-ledger/core/specimen';
import { diagnose, type Diagnosis } from '@true-ledger/core/diagnosis';
import { simulatedRoutes, type SimulatedRoute } from '@true-ledger/core/salvage';
import { reportModel, type ReportModel } from '@true-ledger/core/report';
import type { EngineLayout } from '@true-ledger/core/engine';
import {
  explained,
  explainedByFault,
  runEngine,
  wearOfAll,
  type Explanation,
  type FaultExplanation,
  type PredictedWear,
  type Run,
  type RunSetting,
} from '@true-ledger/core/running';
import { expose, transfer } from 'comlink';
import { answerStore } from '../app/localStore.js';

let held: CaseState | null = null;
const heldView = (): CaseView | null => (held ? caseView(held) : null);

/** Heavy work kept off the page: differential, flattening, chain verification. */
const compute = {
  /** Brings the case that is held here to where the page's is; what follows is asked about it. */
  hold(delta: StateDelta): void {
    held = applyDelta(held, delta);
  },

  /** The differential, kept for the next time the case is opened where `program` names who computed it. */
  diagnose(program: string | null): Diagnosis | null {
    const view = heldView();
    const diagnosis = view ? diagnose(view) : null;
    if (held && diagnosis && program)
      void answerStore.put({ caseId: held.caseId, head: held.head, program, diagnosis }).catch(() => undefined);
    return diagnosis;
  },

  /** Cost, time and chance of every route of a case, by seeded draws. */
  routes(): SimulatedRoute[] {
    const view = heldView();
    return view ? simulatedRoutes(view, diagnose(view), new Date()) : [];
  },

  /** The account of a case; with its routes it takes longer than a frame may. */
  account(): ReportModel | null {
    const view = heldView();
    return view && held ? reportModel(view, held.head, held.seq, { routes: simulatedRoutes(view, diagnose(view), new Date()) }) : null;
  },

  /** An engine as it runs: loads, film of one bearing, oil circuit. */
  run(layout: EngineLayout, setting: RunSetting): Outcome<Run> {
    return runEngine(layout, setting);
  },

  /** What wears of every bearing at one setting, by bearing. */
  wearOfAll(layout: EngineLayout, setting: RunSetting): Outcome<ReadonlyMap<string, PredictedWear>> {
    return wearOfAll(layout, setting);
  },

  /** Ways of running tried on what was found of a bearing. */
  explained(...of: Parameters<typeof explained>): Explanation[] {
    return explained(...of);
  },

  /** Faults of the oil circuit tried on the bearings that were found hurt. */
  explainedByFault(...of: Parameters<typeof explainedByFault>): Outcome<FaultExplanation[]> {
    return explainedByFault(...of);
  },

  /** Surface parameters of a trace file, with its levelled profile thinned for drawing. */
  async finish(file: Blob, cutoffMm: number): Promise<Outcome<{ finish: FinishResult; profile: ReturnType<typeof envelope> }>> {
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
  ): Promise<Outcome<Developed>> {
    const bitmap = await createImageBitmap(file);
    const { width, height } = bitmap;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!context) return { ok: false, problem: { code: 'no-canvas', sentence: 'This browser cannot read the pixels of the picture.' } };
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    const scale = width / original.width;
    const picture = { width, height, data: context.getImageData(0, 0, width, height).data };
    const camera = cameraModelOf(
      part,
      picture,
      corners.map(([x, y]) => [x * scale, y * scale] as const),
      sizeFromFrame(part, frame, turn),
    );
    if (!camera.ok) return camera;
    const flat = develop(camera.value, picture);
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
  verify(caseId: string, entries: readonly LedgerEntry[], kept: Pick<CaseState, 'seq' | 'head'>): ChainVerdict & { sameState: boolean } {
    const verdict = verifyChain(entries);
    const folded = foldEntries(emptyCase(caseId), entries);
    return { ...verdict, sameState: folded.seq !== kept.seq || folded.head === kept.head };
  },
};

export type Compute = typeof compute;

expose(compute);
