/** Where the limit of a proof stands: a result of a measuring sheet of this engine, or a limit of its checks. */
export type ProofSource = { readonly station: string; readonly sheet: string; readonly line: string } | { readonly limit: string };

/** What is proved before the next step of an assembly: a reading against its limit, or something looked at (`quantity` null). */
export interface Proof {
  readonly id: string;
  readonly name: string;
  readonly how: string;
  readonly quantity: 'length' | 'torque' | 'pressure' | null;
  /** Asked in turn for a limit; none: this engine's own data tell. */
  readonly sources: readonly ProofSource[];
}

/** Something that is looked at and said yes or no to. */
export const seen =
  (name: string) =>
  (id: string): Proof => ({ id: `seen:${id}`, name, how: '', quantity: null, sources: [] });
