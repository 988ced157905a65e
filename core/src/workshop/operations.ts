/** What can be done with a part. */
export const OPERATIONS = [
  'check',
  'reuse',
  'clean',
  'polish',
  'grind',
  'rebore',
  'hone',
  'resize',
  'sleeve',
  'weld',
  'line-bore',
  'face',
  'replace',
  'scrap',
  'test',
  'keep',
] as const;
/** What becomes of a part. */
export type Operation = (typeof OPERATIONS)[number];

/** The same in words. */
export const OPERATION_NAMES: Readonly<Record<Operation, string>> = {
  check: 'Check',
  reuse: 'Reuse',
  clean: 'Clean and reuse',
  polish: 'Polish',
  grind: 'Grind undersize',
  rebore: 'Rebore oversize',
  hone: 'Hone and re-ring',
  resize: 'Resize',
  sleeve: 'Sleeve',
  weld: 'Weld or repair by a specialist',
  'line-bore': 'Line-bore',
  face: 'Face',
  replace: 'Replace',
  scrap: 'Scrap',
  test: 'Send for test',
  keep: 'Keep as evidence',
};

/** Operations that leave the shop. */
export const MACHINE_WORK: ReadonlySet<Operation> = new Set([
  'polish',
  'grind',
  'rebore',
  'hone',
  'resize',
  'sleeve',
  'weld',
  'line-bore',
  'face',
  'test',
]);

/** What is to be done with one place. */
export interface Disposition {
  readonly station: string;
  readonly name: string;
  readonly operation: Operation;
  /** Step or size in words; empty where there is none. */
  readonly size: string;
  readonly reason: string;
  /** Question on which builders disagree that decided it. */
  readonly school: string | null;
  /** Other places whose disposition forced this one. */
  readonly because: readonly string[];
}

/** A disposition with how it stands. */
export interface StandingDisposition extends Disposition {
  readonly proposed: Disposition;
  readonly confirmed: boolean;
  readonly by: string | null;
}
