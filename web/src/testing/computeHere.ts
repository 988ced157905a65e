import { verifyChain, type CaseState, type KeptEntry } from '@true-ledger/core/ledger';
import { caseView } from '@true-ledger/core/case';
import { diagnose, type Diagnosis } from '@true-ledger/core/diagnosis';
import { simulatedRoutes, type SimulatedRoute } from '@true-ledger/core/salvage';
import { reportModel, type ReportModel } from '@true-ledger/core/report';
import type { Outcome } from '@true-ledger/contract';
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
import { useMemo } from 'react';

// In a test there is no worker: the same functions of core, asked here.

export function useDiagnosis(_: string, state: CaseState | undefined): { diagnosis: Diagnosis | null; lastKnown: boolean } {
  return useMemo(() => {
    const view = state ? caseView(state) : null;
    return { diagnosis: view ? diagnose(view) : null, lastKnown: false };
  }, [state]);
}

export function useAccount(state: CaseState): ReportModel | null {
  return useMemo(() => reportModel(caseView(state)!, state.head, state.seq), [state]);
}

export function useRun(layout: EngineLayout, setting: RunSetting): Outcome<Run> {
  return useMemo(() => runEngine(layout, setting), [layout, setting]);
}

export function useWearOfAll(layout: EngineLayout, setting: RunSetting | undefined): Outcome<ReadonlyMap<string, PredictedWear>> | null {
  return useMemo(() => (setting ? wearOfAll(layout, setting) : null), [layout, setting]);
}

export const explain = (...of: Parameters<typeof explained>): Promise<Explanation[]> => Promise.resolve(explained(...of));

export const explainByFault = (...of: Parameters<typeof explainedByFault>): Promise<Outcome<FaultExplanation[]>> =>
  Promise.resolve(explainedByFault(...of));

export function reckonRoutes(state: CaseState): Promise<SimulatedRoute[]> {
  const view = caseView(state)!;
  return Promise.resolve(simulatedRoutes(view, diagnose(view), new Date()));
}

/** What is asked of the worker by name: the chain of a ledger, verified. */
export function compute(): { verify: (caseId: string, entries: readonly KeptEntry[], told: object) => Promise<object> } {
  return {
    verify: (_, entries) => {
      const result = verifyChain(entries);
      return Promise.resolve({ ...result, sameState: true });
    },
  };
}
