import { stateDelta, type CaseState } from '@true-ledger/core/ledger';
import type { Diagnosis } from '@true-ledger/core/diagnosis';
import type { SimulatedRoute } from '@true-ledger/core/salvage';
import type { ReportModel } from '@true-ledger/core/report';
import type { EngineLayout } from '@true-ledger/core/engine';
import type { Explanation, FaultExplanation, PredictedWear, Run, RunSetting } from '@true-ledger/core/running';
import type { Outcome } from '@true-ledger/contract';
import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { answerStore, type KeptAnswer } from '../app/localStore.js';
import type { Compute } from './compute.worker.js';
import program from './compute.worker.ts?worker&url';

let remote: Remote<Compute> | null = null;

/** The shared compute worker, started on first use. */
export function compute(): Remote<Compute> {
  remote ??= wrap<Compute>(new Worker(program, { type: 'module' }));
  return remote;
}

let sent: CaseState | null = null;

/** The worker, holding this state; only what changed since the last time is sent to it. */
function holding(state: CaseState): Remote<Compute> {
  const delta = stateDelta(sent, state);
  sent = state;
  void compute().hold(delta);
  return compute();
}

/** What follows from a state, computed in the worker; always the newest, older answers are dropped. */
function useComputed<S, T>(state: S | undefined, ask: (state: S) => Promise<T>): T | null {
  const [answer, setAnswer] = useState<T | null>(null);
  const busy = useRef(false);
  const wanted = useRef<S | undefined>(undefined);
  const asked = useRef(ask);
  useEffect(() => {
    wanted.current = state;
    if (!state || busy.current) return;
    const next = async (): Promise<void> => {
      busy.current = true;
      while (wanted.current) {
        const current = wanted.current;
        const result = await asked.current(current);
        if (wanted.current === current) {
          wanted.current = undefined;
          setAnswer(result);
        }
      }
      busy.current = false;
    };
    void next();
  }, [state]);
  return answer;
}

/** The differential of a case; `lastKnown` while it is the last one that was computed and entries have come since. */
export interface Answer {
  readonly diagnosis: Diagnosis | null;
  readonly lastKnown: boolean;
}

/** Differential of the state. What was computed when the case was last open stands until it is computed anew. With entries that are `unsent` the head does not name the state, and nothing is kept under it. */
export function useDiagnosis(caseId: string, state: CaseState | undefined, unsent: boolean): Answer {
  const asked = useMemo(() => (state ? { current: state, unsent } : undefined), [state, unsent]);
  const computed = useComputed(asked, async ({ current, unsent }) => {
    const before = unsent ? null : await answerStore.get(current.caseId, program).catch(() => null);
    // What was computed of these very entries by this very program need not be computed again, nor the worker be started for it.
    const diagnosis = before?.head === current.head ? before.diagnosis : await holding(current).diagnose(unsent ? null : program);
    return { of: current.caseId, diagnosis };
  });
  const [kept, setKept] = useState<KeptAnswer | null>(null);
  useEffect(() => {
    void answerStore.get(caseId, program).then(setKept, () => undefined);
  }, [caseId]);
  return useMemo(() => {
    if (computed?.of === caseId) return { diagnosis: computed.diagnosis, lastKnown: false };
    if (kept?.caseId === caseId) return { diagnosis: kept.diagnosis, lastKnown: state !== undefined && state.head !== kept.head };
    return { diagnosis: null, lastKnown: false };
  }, [computed, kept, caseId, state]);
}

/** The account of the case, with its routes reckoned. */
export function useAccount(state: CaseState): ReportModel | null {
  return useComputed(state, (current) => holding(current).account());
}

/** The engine as it runs at a setting; while it is computed, the last one that was. */
export function useRun(layout: EngineLayout, setting: RunSetting): Outcome<Run> | null {
  return useComputed(setting, async (current): Promise<Outcome<Run>> => compute().run(layout, current));
}

/** What wears of every bearing at a setting, by bearing; nothing is reckoned without one. */
export function useWearOfAll(layout: EngineLayout, setting: RunSetting | undefined): Outcome<ReadonlyMap<string, PredictedWear>> | null {
  return useComputed(setting, async (current): Promise<Outcome<ReadonlyMap<string, PredictedWear>>> =>
    compute().wearOfAll(layout, current),
  );
}

/** Ways of running tried on what was found of a bearing, the likest first. */
export function explain(...of: Parameters<Compute['explained']>): Promise<Explanation[]> {
  return compute().explained(...of);
}

/** Faults of the oil circuit tried on the bearings that were found hurt, the likest first. */
export function explainByFault(...of: Parameters<Compute['explainedByFault']>): Promise<Outcome<FaultExplanation[]>> {
  return compute().explainedByFault(...of);
}

/** Routes of the case, reckoned. */
export function reckonRoutes(state: CaseState): Promise<SimulatedRoute[]> {
  return holding(state).routes();
}
