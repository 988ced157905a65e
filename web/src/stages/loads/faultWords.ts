import type { OIL_FAULTS, OilFault } from '@true-ledger/core/oil';

/** What may be wrong in an oil circuit, as the page says it. */
export const FAULT_NAMES: Readonly<Record<(typeof OIL_FAULTS)[number], string>> = {
  clearance: 'More clearance',
  'shut-feed': 'Feed shut',
  'turned-shell': 'Shell turned over its hole',
  restriction: 'Narrowed',
  'relief-open': 'Relief hangs open',
  'relief-shut': 'Relief stuck shut',
  'filter-bypassed': 'Filter bypassed',
  'filter-clogged': 'Filter clogged',
  'lost-jet': 'Jet lost',
  'lost-plug': 'Gallery plug lost',
  'lost-follower': 'Follower out of its bore',
  'low-level': 'Oil low',
  air: 'Air in the oil',
  'worn-pump': 'Worn pump',
};
/** How much of a fault: how it is told, from where to where, and where it begins. */
export const FAULT_AMOUNTS: Partial<
  Record<(typeof OIL_FAULTS)[number], { min: number; max: number; step: number; first: number; told: (v: number) => string }>
> = {
  clearance: { min: 1, max: 5, step: 0.1, first: 2, told: (v) => `${v.toFixed(1)} times` },
  restriction: { min: 0.1, max: 0.99, step: 0.01, first: 0.9, told: (v) => `${Math.round(100 * v)} % closed` },
  'relief-open': { min: 0.1, max: 0.99, step: 0.01, first: 0.5, told: (v) => `${Math.round(100 * v)} % open` },
  'filter-clogged': { min: 0.1, max: 0.99, step: 0.01, first: 0.9, told: (v) => `${Math.round(100 * v)} %` },
  air: { min: 0.05, max: 0.8, step: 0.05, first: 0.3, told: (v) => `${Math.round(100 * v)} % of what it draws` },
  'low-level': { min: 0.1, max: 0.9, step: 0.05, first: 0.6, told: (v) => `${Math.round(100 * v)} % of it missing` },
  'worn-pump': { min: 1, max: 10, step: 0.5, first: 4, told: (v) => `${v.toFixed(1)} times its slip` },
};

/** A place as the page says it: `main.2` is Main 2. */
export const placeName = (id: string): string => {
  const [kind = '', number] = id.split('.');
  return `${kind[0]!.toUpperCase()}${kind.slice(1)}${number ? ` ${number}` : id === 'main' || id === 'rod' ? 's, all of them' : ''}`;
};

/** A fault with its place and size in words. */
export const faultWords = ({ kind, at, amount }: OilFault): string =>
  [
    FAULT_NAMES[kind],
    at === undefined ? '' : ` at ${placeName(at).toLowerCase()}`,
    amount === undefined ? '' : `, ${FAULT_AMOUNTS[kind]?.told(amount) ?? amount}`,
  ].join('');
