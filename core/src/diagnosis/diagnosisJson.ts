import { isListed } from '../cause/data/causes.js';
import type { CaseView } from '../case/views.js';
import type { Diagnosis, WeighedEvidence } from './diagnose.js';
import { proposeSequence } from './sequence/propose.js';

/** The documented JSON form of a differential (`docs/formats/diagnosis.md`), the same from the command line and the API. */
export interface DiagnosisJson {
  readonly format: 'true-ledger/diagnosis';
  readonly version: 2;
  readonly table: string;
  readonly ending: { readonly kind: string; readonly sentence: string };
  /** The most probable set of causes. */
  readonly bestSet: { readonly causes: readonly string[]; readonly probability: number };
  /** What weighs most for and against the leading cause, against its strongest rival. */
  readonly topEvidence: { readonly cause: string; readonly for: readonly EvidenceLine[]; readonly against: readonly EvidenceLine[] } | null;
  readonly causes: ReadonlyArray<{
    readonly id: string;
    readonly name: string;
    readonly family: string;
    readonly mechanisms: readonly string[];
    /** Mean over the draws of the table, its 10 and 90 % quantiles, and the share of draws in which the cause leads. */
    readonly probability: number;
    readonly low: number;
    readonly high: number;
    readonly leads: number;
    readonly word: string;
    readonly places: ReadonlyArray<{ readonly place: string; readonly probability: number }>;
    readonly evidence: readonly EvidenceLine[];
  }>;
  /** Causes found beside the leading one, of their own. */
  readonly beside: readonly string[];
  /** Share of all probability that no longer moved when its sets were told apart last. */
  readonly mass: number;
  readonly sets: ReadonlyArray<{ readonly causes: readonly string[]; readonly probability: number }>;
  readonly mechanisms: ReadonlyArray<{ readonly mechanism: string; readonly probability: number }>;
  readonly unexplained: ReadonlyArray<{ readonly station: string; readonly name: string; readonly grade: number; readonly why: string }>;
  readonly nextChecks: ReadonlyArray<{
    readonly feature: string;
    readonly step: string;
    readonly minutes: number;
    readonly bits: number;
    readonly chance: number;
    readonly destroys: string | null;
    /** Names of the steps to be done before it. */
    readonly opens: readonly string[];
    /** What those steps destroy and is to be recorded first. */
    readonly first: ReadonlyArray<{ readonly hold: string; readonly name: string; readonly minutes: number }>;
    readonly minutesInAll: number;
    readonly ifFound: { readonly cause: string; readonly before: number; readonly after: number };
    readonly ifNot: { readonly cause: string; readonly before: number; readonly after: number };
  }>;
  /** The one observation whose reversal would put another cause in the lead. */
  readonly turningPoint: { readonly feature: string; readonly wouldLead: string; readonly probability: number } | null;
  /** The order of events from the origins on. */
  readonly chain: {
    readonly explained: number;
    readonly of: number;
    readonly events: ReadonlyArray<{
      readonly id: string;
      readonly kind: string;
      readonly name: string;
      readonly where: string;
      readonly grade: number | null;
    }>;
    readonly links: ReadonlyArray<{ readonly from: string; readonly to: string; readonly why: string; readonly doubtful: boolean }>;
    readonly contradictions: readonly string[];
  };
  /** What of the case file was read as written and is probably not meant so. */
  readonly doubts?: ReadonlyArray<{ readonly field: string; readonly sentence: string }>;
}

interface EvidenceLine {
  readonly feature: string;
  readonly name: string;
  readonly present: boolean;
  readonly decibans: number;
  readonly reason: string;
  readonly sources: readonly string[];
}

const round = (x: number, digits = 6): number => Number(x.toFixed(digits));

const line = (e: WeighedEvidence): EvidenceLine => ({
  feature: e.feature,
  name: e.name,
  present: e.present,
  decibans: round(e.decibans, 3),
  reason: e.reason,
  sources: e.sources.map((s) => s.words),
});
const TOP = 6;

/** The differential as it is published (`docs/formats/diagnosis.md`): ids, probabilities and weights, without prose. */
export function diagnosisJson(view: CaseView, d: Diagnosis, doubts: NonNullable<DiagnosisJson['doubts']> = []): DiagnosisJson {
  const lead = d.causes.find((c) => isListed(c.id));
  const chain = proposeSequence(view, d);
  const shift = (x: { cause: string; before: number; after: number }): typeof x => ({
    ...x,
    before: round(x.before, 4),
    after: round(x.after, 4),
  });
  return {
    format: 'true-ledger/diagnosis',
    version: 2,
    table: d.table,
    ending: d.ending,
    bestSet: { causes: d.sets[0]?.causes ?? [], probability: round(d.sets[0]?.probability ?? 0) },
    topEvidence: lead
      ? {
          cause: lead.id,
          for: lead.evidence
            .filter((e) => e.decibans > 0)
            .slice(0, TOP)
            .map(line),
          against: lead.evidence
            .filter((e) => e.decibans < 0)
            .slice(0, TOP)
            .map(line),
        }
      : null,
    causes: d.causes.map((c) => ({
      id: c.id,
      name: c.name,
      family: c.family,
      mechanisms: c.mechanisms,
      probability: round(c.probability),
      low: round(c.low),
      high: round(c.high),
      leads: round(c.leads),
      word: c.range,
      places: c.places.map((p) => ({ place: p.place, probability: round(p.probability) })),
      evidence: c.evidence.map(line),
    })),
    beside: d.beside,
    mass: round(d.mass, 4),
    sets: d.sets.map((s) => ({ causes: s.causes, probability: round(s.probability) })),
    mechanisms: d.mechanisms.map((m) => ({ mechanism: m.mechanism, probability: round(m.probability) })),
    unexplained: d.unexplained.map((u) => ({ station: u.station, name: u.name, grade: u.grade, why: u.why })),
    nextChecks: d.nextChecks.map((n) => ({
      feature: n.feature,
      step: n.step,
      minutes: n.minutes,
      bits: round(n.bits, 4),
      chance: round(n.chance, 4),
      destroys: n.destroys,
      opens: n.opens,
      first: n.first.map((r) => ({ hold: r.hold, name: r.name, minutes: r.minutes })),
      minutesInAll: n.minutesInAll,
      ifFound: shift(n.ifFound),
      ifNot: shift(n.ifNot),
    })),
    turningPoint: d.turningPoint
      ? { feature: d.turningPoint.feature, wouldLead: d.turningPoint.wouldLead, probability: round(d.turningPoint.probability, 4) }
      : null,
    chain: {
      explained: chain.explained,
      of: chain.of,
      events: chain.nodes.map((n) => ({ id: n.id, kind: n.kind, name: n.name, where: n.where, grade: n.grade })),
      links: chain.links.map((l) => ({ from: l.from, to: l.to, why: l.why, doubtful: l.doubtful })),
      contradictions: chain.contradictions.map((c) => c.words),
    },
    ...(doubts.length > 0 ? { doubts } : {}),
  };
}
