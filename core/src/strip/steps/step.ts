import type { FastenerPattern } from '../fasteners.js';
import type { HoldItem } from '../holds.js';

/** Whether a fastener goes back. */
export type Reuse = 'reuse' | 'never' | 'keep' | 'measure';

/** The same in words. */
export const REUSE_WORDS: Readonly<Record<Reuse, string>> = {
  reuse: 'reuse',
  never: 'do not reuse',
  keep: 'keep: special or retained',
  measure: 'measure before reuse',
};

/** Fasteners that are bagged together. */
export interface FastenerBag {
  readonly id: string;
  readonly name: string;
  /** Usual number; null where only counting tells. */
  readonly count: number | null;
  readonly reuse: Reuse;
}

interface ShotWanted {
  /** Station, '' for the engine as a whole. */
  readonly station: string;
  readonly what: string;
}

/** One step of a strip. `after` names the steps that must be done first. */
export interface StripStep {
  readonly id: string;
  readonly name: string;
  readonly phase: string;
  readonly how: string;
  readonly tools: string;
  readonly after: readonly string[];
  readonly bags: readonly FastenerBag[];
  readonly pattern: FastenerPattern | null;
  readonly shots: readonly ShotWanted[];
  readonly cautions: readonly string[];
  /** Marks and craft: what to keep in order, what never to mix. */
  readonly craft: readonly string[];
  readonly holds: readonly HoldItem[];
  /** Cap whose number, direction and joint are checked in this step. */
  readonly cap: string | null;
}

export const CAUTION = {
  stand: 'Engine on a rated stand or hoist; nobody under a hanging load.',
  fuel: 'Isolate the battery, depressurise the fuel rail; fuel vapour and sparks.',
  pressure: 'Cooling system, accumulators and air tanks without pressure first.',
  oil: 'Used oil is a skin hazard and waste under local rules: gloves, closed can.',
  coolant: 'Coolant poisons animals: catch it, waste under local rules.',
  springs: 'Valve, recoil and relief springs are under load: compressor, eyes.',
  edges: 'Ring edges, swarf and broken parts cut.',
  gasket: 'Old gaskets may hold asbestos: wet, never scraped dry.',
  roll: 'Rolling an engine moves its weight: two people, stand locked.',
  crank: 'A crank is lifted by two or by hoist.',
  wash: 'Hot tank and solvents burn: gloves, eyes, air. Never spin a bearing or turbo with compressed air.',
  seals: 'Burnt seals of fluorinated rubber leave acid: do not touch, bag.',
  puller: 'Press-fit parts come off with a puller, never a hammer.',
} as const;

type Draft = Partial<Omit<StripStep, 'id' | 'name' | 'phase' | 'how'>>;

export function step(id: string, phase: string, name: string, how: string, more: Draft = {}): StripStep {
  return {
    id,
    phase,
    name,
    how,
    tools: '',
    after: [],
    bags: [],
    pattern: null,
    shots: [],
    cautions: [],
    craft: [],
    holds: [],
    cap: null,
    ...more,
  };
}

export const bag = (id: string, name: string, count: number | null, reuse: Reuse = 'reuse'): FastenerBag => ({ id, name, count, reuse });
