import type { Diagnosis } from './diagnose.js';

/** The documented JSON form of a differential (`docs/formats/diagnosis.md`), the same from the command line and the API. */
export interface DiagnosisJson {
  readonly format: 'true-ledger/diagnosis';
  readonly version: 1;
  readonly table: string;
  readonly ending: { readonly kind: string; readonly sentence: string };
  readonly causes: ReadonlyArray<{
    readonly id: string;
    readonly name: string;
    readonly family: string;
    readonly mechanisms: readonly string[];
    readonly probability: number;
    readonly word: string;
    readonly places: ReadonlyArray<{ readonly place: string; readonly probability: number }>;
    readonly evidence: ReadonlyArray<{
      readonly feature: string;
      readonly present: boolean;
      readonly decibans: number;
      readonly sources: readonly string[];
    }>;
  }>;
  readonly sets: ReadonlyArray<{ readonly causes: readonly string[]; readonly probability: number }>;
  readonly mechanisms: ReadonlyArray<{ readonly mechanism: string; readonly probability: number }>;
  readonly unexplained: ReadonlyArray<{ readonly station: string; readonly grade: number; readonly why: string }>;
  readonly nextChecks: ReadonlyArray<{
    readonly feature: string;
    readonly step: string;
    readonly minutes: number;
    readonly bits: number;
    readonly chance: number;
  }>;
}

const round = (x: number, digits = 6): number => Number(x.toFixed(digits));

export function diagnosisJson(d: Diagnosis): DiagnosisJson {
  return {
    format: 'true-ledger/diagnosis',
    version: 1,
    table: d.table,
    ending: d.ending,
    causes: d.causes.map((c) => ({
      id: c.id,
      name: c.name,
      family: c.family,
      mechanisms: c.mechanisms,
      probability: round(c.probability),
      word: c.range,
      places: c.places.map((p) => ({ place: p.place, probability: round(p.probability) })),
      evidence: c.evidence.map((e) => ({
        feature: e.feature,
        present: e.present,
        decibans: round(e.decibans, 3),
        sources: e.sources.map((s) => s.words),
      })),
    })),
    sets: d.sets.map((s) => ({ causes: s.causes, probability: round(s.probability) })),
    mechanisms: d.mechanisms.map((m) => ({ mechanism: m.mechanism, probability: round(m.probability) })),
    unexplained: d.unexplained.map((u) => ({ station: u.station, grade: u.grade, why: u.why })),
    nextChecks: d.nextChecks.map((n) => ({
      feature: n.feature,
      step: n.step,
      minutes: n.minutes,
      bits: round(n.bits, 4),
      chance: round(n.chance, 4),
    })),
  };
}
