/** A thing that happened: an origin, a finding at a place, or an event of the builder's own. */
export interface SequenceNode {
  readonly id: string;
  readonly kind: 'origin' | 'finding' | 'event';
  readonly name: string;
  /** Where, in words; empty for the engine as a whole. */
  readonly where: string;
  readonly stations: readonly string[];
  readonly pattern: string | null;
  readonly grade: number | null;
  /** Clue of time that the pattern carries. */
  readonly when: 'first' | 'running' | 'last turn' | null;
  /** Where the builder put it. */
  readonly at: { readonly x: number; readonly y: number } | null;
}

/** One event leading to another: strength 0 to 1, whether it is in doubt, and whether it was proposed or drawn by the builder. */
export interface SequenceLink {
  readonly from: string;
  readonly to: string;
  /** 0–1; how readily the one leads to the other. */
  readonly strength: number;
  readonly doubtful: boolean;
  readonly source: 'proposed' | 'builder';
  readonly why: string;
}

export interface Contradiction {
  /** Node or `from>to` it is about. */
  readonly on: string;
  readonly words: string;
}

/** The order of events: from the origins at the left to the last consequences at the right. */
export interface Sequence {
  readonly nodes: readonly SequenceNode[];
  readonly links: readonly SequenceLink[];
  readonly rejected: ReadonlyArray<{ readonly from: string; readonly to: string; readonly reason: string }>;
  readonly contradictions: readonly Contradiction[];
  /** Findings of grade 2 or more that a chain from an origin reaches, of how many. */
  readonly explained: number;
  readonly of: number;
}
