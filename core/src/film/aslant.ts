/**
 * What makes a bearing run aslant. `amountM`: from edge to edge of the shell, of a cap how far it is set aside.
 * A rod bent in the plane of the crank tilts its bore along the rod, a twisted one across it; a bent crank tilts its journal, which turns; a cap set aside stands into the bore at one parting line.
 */
export const ASLANT = ['bent-rod', 'twisted-rod', 'bent-crank', 'cap-aside'] as const;
export interface Aslant {
  readonly kind: (typeof ASLANT)[number];
  readonly amountM: number;
}
