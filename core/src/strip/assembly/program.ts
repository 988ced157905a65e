import type { EngineLayout } from '../../engine/layout.js';
import { isPressureFed } from '../../engine/layout.js';
import { stationsOf } from '../../engine/stations.js';
import { memo } from '../../kit/memo.js';
import type { FastenerPattern } from '../fasteners.js';
import { stripPlan } from '../plan.js';
import type { FastenerBag, StripStep } from '../steps/step.js';
import { BACK } from './back.js';
import { seen, type Proof } from './proofs.js';

/** The last step of every assembly; what it asks follows from the layout and the causes that were confirmed. */
export const FIRST_START = 'start';

/** One step of the assembly: a step of the strip undone, or the first start. */
export interface AssemblyStep {
  readonly id: string;
  readonly name: string;
  readonly phase: string;
  readonly how: string;
  readonly tools: string;
  readonly cautions: readonly string[];
  readonly bags: readonly FastenerBag[];
  /** Fasteners as they lie, and the order they are tightened in: from the middle outwards. */
  readonly pattern: FastenerPattern | null;
  readonly tightening: readonly string[];
  readonly cap: string | null;
  readonly shots: StripStep['shots'];
  readonly proofs: readonly Proof[];
  /** Places whose parts go in with this step. */
  readonly stations: readonly string[];
}

/** A step's kind and number: `rod-cap-3` → `rod-cap`, `3`. */
function kindOf(id: string): readonly [kind: string, n: string] {
  const m = /^(.*?)-(\d+)$/.exec(id);
  return m ? [m[1]!, m[2]!] : [id, ''];
}

/** Kinds of step that wait for another though the strip backwards would put them first: an engine is stood upright with its pan on; where the case parts along the crank, pan and pistons wait for it to be closed. */
const NOT_BEFORE: ReadonlyArray<readonly [kind: string, other: string]> = [
  ['roll', 'pan'],
  ['piston', 'case'],
  ['pan', 'case'],
];

/** Fasteners of one kind are tightened alike: `rod-bolts-3` → `rod-bolts`. */
export function bagKind(bag: string): string {
  return kindOf(bag)[0];
}

/** The assembly of an engine: its strip backwards, in the builder's own order where the case has one, with the first start at its end. */
export function assemblyProgram(layout: EngineLayout, order: readonly string[] = []): readonly AssemblyStep[] {
  if (order.length === 0) return usualProgram(layout);
  return makeProgram(layout, order);
}

const usualProgram = memo('assembly of a layout', (layout: EngineLayout) => makeProgram(layout, []));

function makeProgram(layout: EngineLayout, order: readonly string[]): readonly AssemblyStep[] {
  const back = [...stripPlan(layout, order).steps].reverse();
  for (const [kind, other] of NOT_BEFORE) {
    const at = back.findIndex((s) => s.id === other);
    const early = back.filter((s, i) => i < at && kindOf(s.id)[0] === kind);
    if (early.length === 0) continue;
    for (const s of early) back.splice(back.indexOf(s), 1);
    back.splice(back.findIndex((s) => s.id === other) + 1, 0, ...early);
  }
  const stations = stationsOf(layout).map((s) => s.id);
  const placed = new Set<string>();
  const proved = new Set<string>();
  const steps = back.flatMap((step): AssemblyStep[] => {
    const [kind, n] = kindOf(step.id);
    const how = BACK[kind];
    if (!how) return [];
    // A place goes in once, with the first step that puts it there.
    const own = how.parts ? stations.filter((id) => how.parts!(n, layout).test(id) && !placed.has(id)) : [];
    own.forEach((id) => placed.add(id));
    const proofs = (how.proofs?.(n, layout) ?? []).filter((p) => !proved.has(p.id) && hasPlaces(p, stations));
    proofs.forEach((p) => proved.add(p.id));
    return [
      {
        id: step.id,
        name: how.name(n),
        phase: step.phase,
        how: how.how,
        tools: how.tools ?? '',
        cautions: how.cautions ?? [],
        bags: step.bags,
        pattern: step.pattern,
        tightening: step.pattern ? [...step.pattern.easing].reverse() : [],
        cap: step.cap,
        shots: step.shots,
        proofs,
        stations: own,
      },
    ];
  });
  return [...steps, firstStart(layout)];
}

/** A proof of a bearing or ring this engine has not asks for nothing. */
function hasPlaces({ sources }: Proof, stations: readonly string[]): boolean {
  return sources.length === 0 || sources.some((s) => !('station' in s) || stations.includes(s.station));
}

function firstStart(layout: EngineLayout): AssemblyStep {
  const fed = isPressureFed(layout);
  return {
    id: FIRST_START,
    name: 'Prime and first start',
    phase: 'First start',
    how: fed ? 'No pressure, no start.' : 'Oil where it must be before it turns.',
    tools: '',
    cautions: [],
    bags: [],
    pattern: null,
    tightening: [],
    cap: null,
    shots: [],
    proofs: fed
      ? [
          {
            id: 'prime',
            name: 'Oil pressure while priming',
            how: 'Gauge of its own at the gallery, fuel or ignition off.',
            quantity: 'pressure',
            sources: [],
          },
          {
            id: 'idle',
            name: 'Oil pressure, hot at idle',
            how: 'After the warm-up, same gauge.',
            quantity: 'pressure',
            sources: [{ limit: 'oil-pressure.hot-idle' }],
          },
        ]
      : [seen('Oil stands at its mark, or the mixture is the right one and written on the can')('oil')],
    stations: [],
  };
}

/** Every proof this engine's assembly asks for, by id. */
export const proofsOf: (layout: EngineLayout) => ReadonlyMap<string, Proof> = memo(
  'proofs of a layout',
  (layout: EngineLayout) => new Map(usualProgram(layout).flatMap((s) => s.proofs.map((p) => [p.id, p]))),
);
