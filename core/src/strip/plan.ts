import { DirectedGraph } from 'graphology';
import { hasCycle, topologicalSort } from 'graphology-dag';
import type { EngineLayout } from '../engine/layout.js';
import { fail, ok, type Result } from '../kit/result.js';
import { stripSteps } from './steps.js';
import type { StripStep } from './steps/step.js';

/** The strip of one engine: steps in the order they are to be done, and the graph that says which order is possible. */
export interface StripPlan {
  readonly steps: readonly StripStep[];
  readonly byId: ReadonlyMap<string, StripStep>;
}

function graphOf(steps: readonly StripStep[]): DirectedGraph {
  const graph = new DirectedGraph();
  for (const s of steps) graph.addNode(s.id);
  for (const s of steps) for (const before of s.after) if (graph.hasNode(before)) graph.mergeEdge(before, s.id);
  return graph;
}

/** First dependency an order breaks, or null. */
export function brokenBy(
  steps: readonly StripStep[],
  order: readonly string[],
): { readonly step: StripStep; readonly before: StripStep } | null {
  const at = new Map(order.map((id, i) => [id, i]));
  const byId = new Map(steps.map((s) => [s.id, s]));
  for (const step of steps)
    for (const id of step.after) {
      const before = byId.get(id);
      if (before && (at.get(id) ?? 0) > (at.get(step.id) ?? Infinity)) return { step, before };
    }
  return null;
}

/**
 * Plan of an engine. `wanted` is the builder's own order; steps it does not name (a layout corrected since) keep their place in the default order. An
 * order that breaks a dependency is put right by a topological sort, never followed.
 */
export function stripPlan(layout: EngineLayout, wanted: readonly string[] = []): StripPlan {
  const held = planCache.get(layout);
  if (held && sameOrder(held.wanted, wanted)) return held.plan;
  const plan = makePlan(layout, wanted);
  planCache.set(layout, { wanted, plan });
  return plan;
}

/** The last plan asked for of each layout: one layout is asked for the same plan at every change of its case. */
const planCache = new WeakMap<EngineLayout, { readonly wanted: readonly string[]; readonly plan: StripPlan }>();
const sameOrder = (a: readonly string[], b: readonly string[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

function makePlan(layout: EngineLayout, wanted: readonly string[]): StripPlan {
  const steps = stripSteps(layout);
  const byId = new Map(steps.map((s) => [s.id, s]));
  const graph = graphOf(steps);
  if (hasCycle(graph)) throw new RangeError('the steps of this engine wait for each other');
  const known = wanted.filter((id) => byId.has(id));
  const merged = [...known];
  steps.forEach((s, i) => {
    if (merged.includes(s.id)) return;
    const neighbour = steps.slice(0, i).findLast((x) => merged.includes(x.id));
    merged.splice(neighbour ? merged.indexOf(neighbour.id) + 1 : 0, 0, s.id);
  });
  const order = brokenBy(steps, merged) === null ? merged : topologicalSort(graph);
  return { steps: order.map((id) => byId.get(id)!), byId };
}

/** The order with one step moved to another place; refused where a step would come before one it needs. */
export function moveStep(plan: StripPlan, id: string, to: number): Result<string[]> {
  const order = plan.steps.map((s) => s.id).filter((x) => x !== id);
  order.splice(Math.max(0, Math.min(order.length, to)), 0, id);
  const broken = brokenBy(plan.steps, order);
  return broken
    ? fail('step-order', `"${broken.step.name}" cannot come before "${broken.before.name}". The order was left as it is.`, 'order')
    : ok(order);
}
