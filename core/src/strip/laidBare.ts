import { cylinderPlaces, type EngineLayout } from '../engine/layout.js';
import type { Station } from '../engine/stations.js';
import { stripPlan, type StripPlan } from './plan.js';
import type { StripStep } from './steps/step.js';

/** Minutes of one step of the strip. Judgement. */
export const STEP_MINUTES = 10;

const first = (layout: EngineLayout, ...ids: string[]): string | null => {
  const plan = stripPlan(layout);
  return ids.find((id) => plan.byId.has(id)) ?? null;
};

/** The step after which a part can be seen; null where this engine has none such. */
export function laidBareBy(layout: EngineLayout, s: Station): string | null {
  const bank = cylinderPlaces(layout).find((p) => p.cylinder === s.cylinder)?.bank ?? 0;
  const piston = `piston-${Math.max(1, s.cylinder)}`;
  const cap = s.carries === 'rod' ? `rod-cap-${s.bearing?.split('.')[1] ?? s.number}` : `main-cap-${s.bearing?.split('.')[1] ?? s.number}`;
  const inside = ['crank', 'case', piston];
  switch (s.part) {
    case 'shell':
    case 'journal':
      return first(layout, cap, s.carries === 'rod' ? piston : 'ladder', ...inside);
    case 'rolling':
    case 'thrust':
    case 'housing':
    case 'block':
    case 'cambearing':
    case 'balancer':
      return first(layout, ...inside);
    case 'bore':
      return first(layout, `head-${bank}`, 'head-0', `barrel-${s.cylinder}`, piston);
    case 'chamber':
    case 'valve':
    case 'gasket':
      return first(layout, `head-${bank}`, 'head-0', `barrel-${s.cylinder}`);
    case 'skirt':
    case 'crown':
    case 'rings':
    case 'rod':
      return first(layout, piston, ...inside);
    case 'cam':
      return first(layout, `cams-${bank}`, 'cams-0', 'camshaft', 'cam', 'covers', ...inside);
    case 'timing':
      return first(layout, 'timing', 'front', 'side-cover', 'outside');
    case 'pump':
      return first(layout, 'front', 'pickup', 'pan', 'side-cover', ...inside);
    case 'pickup':
      return first(layout, 'pickup', 'pan');
    case 'pan':
    case 'debris':
      return first(layout, 'pan', 'side-cover', 'case', 'drain-oil');
    case 'filter':
      return first(layout, 'filter', 'drain-oil');
    case 'gallery':
      return first(layout, 'galleries', ...inside);
    case 'fastener':
      return first(layout, 'crank', 'case');
    default:
      return first(layout, 'outside', 'isolate');
  }
}

/** The step after which a feature that is measured can be: when the engine is apart; what is in the sump before it is wiped. */
export function measuredAfter(layout: EngineLayout, id: string): string | null {
  if (id.startsWith('fluid.')) return first(layout, 'pan', 'side-cover', 'drain-oil');
  return ABOUT_OIL.has(id) ? first(layout, 'drain-oil') : apartBy(layout);
}
const ABOUT_OIL = new Set(['measured.iron-high', 'measured.silicon-high', 'measured.sample-clean', 'measured.glycol']);

/** The step after which the engine cannot be turned any more. */
export const apartBy = (layout: EngineLayout): string | null => first(layout, 'crank', 'case');

/** The steps still to be done for one to be done, itself included, in the order of the plan. */
export function stepsTo(plan: StripPlan, to: string, done: ReadonlySet<string>): StripStep[] {
  const needed = new Set<string>();
  const need = (id: string): void => {
    if (needed.has(id) || done.has(id) || !plan.byId.has(id)) return;
    needed.add(id);
    for (const before of plan.byId.get(id)!.after) need(before);
  };
  need(to);
  return plan.steps.filter((s) => needed.has(s.id));
}
