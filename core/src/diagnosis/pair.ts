import { featuresSetAside } from '../case/checksNotMade.js';
import { stripStanding } from '../case/stripStanding.js';
import type { CaseView } from '../case/views.js';
import { applicableModel, linksOf } from './diagnose.js';
import { collectEvidence } from './evidence.js';
import { probabilityBySingle } from '../cause/model.js';
import { type Cause } from '../cause/types.js';
import { serviceAge } from '../engine/layout.js';
import { engineTags } from '../engine/tags.js';
import { isPerished } from './nextCheck.js';

/** One observation that tells two causes apart. */
export interface PairSign {
  readonly feature: string;
  readonly name: string;
  /** Decibans for the first against the second, if it is found and if it is looked for and not there. */
  readonly ifFound: number;
  readonly ifNot: number;
  readonly state: 'found' | 'not there' | 'still possible' | 'lost' | 'not done';
  readonly step: string;
  readonly minutes: number;
  readonly why: string;
}

/** Below this many decibans in either outcome an observation decides nothing. */
const DECIDES = 2;

/** Every observation that tells one cause from another, the strongest first, with which of them are still possible. */
export function comparePair(view: CaseView, first: Cause, second: Cause): PairSign[] {
  const { causes, features } = applicableModel(engineTags(view.layout), serviceAge(view.layout));
  const a = causes.findIndex((c) => c.id === first.id);
  const b = causes.findIndex((c) => c.id === second.id);
  if (a < 0 || b < 0) return [];
  const evidence = new Map(collectEvidence(view).map((e) => [e.feature.id, e.present]));
  const lost = stripStanding(view).lostFeatures;
  const aside = featuresSetAside(view);
  const decibans = (x: number, y: number): number => 10 * Math.log10(Math.max(1e-12, x) / Math.max(1e-12, y));
  return [...features.values()]
    .flatMap((f): PairSign[] => {
      const p = probabilityBySingle(f, causes);
      const ifFound = decibans(p[a]!, p[b]!);
      const ifNot = decibans(1 - p[a]!, 1 - p[b]!);
      if (Math.max(Math.abs(ifFound), Math.abs(ifNot)) < DECIDES) return [];
      // As they act in this engine: a record may have other links for its kind.
      const links = [linksOf(causes[a]!).get(f.id), linksOf(causes[b]!).get(f.id)];
      const why = links.flatMap((l, i) =>
        l ? [`${i === 0 ? first.name : second.name}: ${l.strength}${l.prevents ? ' prevents it' : ''}, ${l.reason}`] : [],
      );
      const held = evidence.get(f.id);
      const because = f.parts ? undefined : aside.get(f.id);
      if (because !== undefined) why.unshift(`not done: ${because}`);
      return [
        {
          feature: f.id,
          name: f.name,
          ifFound,
          ifNot,
          state: stateOf(held, lost.has(f.id) || isPerished(view, f), because !== undefined),
          step: f.check.step,
          minutes: f.check.minutes,
          why: why.join('; '),
        },
      ];
    })
    .sort((x, y) => Math.max(Math.abs(y.ifFound), Math.abs(y.ifNot)) - Math.max(Math.abs(x.ifFound), Math.abs(x.ifNot)));
}

function stateOf(held: boolean | undefined, lost: boolean, aside: boolean): PairSign['state'] {
  if (held !== undefined) return held ? 'found' : 'not there';
  return lost ? 'lost' : aside ? 'not done' : 'still possible';
}
