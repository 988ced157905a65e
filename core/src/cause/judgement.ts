/**
 * The few figures of the model that hold for every cause and every sight. Judgement, each with its reason; they are the only ones that are ever weighed against cases (`bench/practice.mjs`), all
 * others stand in the records.
 */
export interface Judgement {
  /** How far the figures of the table are drawn about their words, as standard deviations in log-odds: of strengths, of leaks, of priors. */
  readonly spread: { readonly strength: number; readonly leak: number; readonly odds: number };
  /** Chance that damage which was found brings about another that its record links to it, at full strength of place. */
  readonly bringsAbout: number;
  /** Chance of what is told to us if it is so, and if it is not. */
  readonly told: readonly [number, number];
  /** Chance that a builder keeps silent about a sight that is there, by how its places were looked at and what else was said of them. */
  readonly missed: {
    /** Graded, photographed or measured. */
    readonly examined: number;
    /** Marked sound and nothing more: nothing struck the eye. */
    readonly glanced: number;
    /** Another sight that is taken for it was named there: who names one says little against the other. */
    readonly lookAlike: number;
    /** The part is destroyed: finer sights are gone with its face. */
    readonly destroyed: number;
  };
}

export const JUDGEMENT: Judgement = {
  spread: { strength: 0.7, leak: 0.5, odds: 0.5 },
  bringsAbout: 0.5,
  told: [0.8, 0.2],
  missed: { examined: 0.15, glanced: 0.25, lookAlike: 0.6, destroyed: 0.5 },
};
