import type { EngineLayout } from '../engine/layout.js';
import type { StripStep } from './steps/step.js';
import { portedSteps } from './steps/ported.js';
import { splashSteps } from './steps/splash.js';
import { blockSteps } from './steps/block.js';

/** Steps of one engine with what each depends on; which exist and what they ask follows from the layout alone. */
export function stripSteps(layout: EngineLayout): StripStep[] {
  if (layout.valveGear === 'ports') return portedSteps(layout);
  return layout.lubrication === 'splash' && layout.mainBearings === 'rolling' ? splashSteps(layout) : blockSteps(layout);
}
