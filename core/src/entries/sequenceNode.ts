import { matching } from '../kit/schema.js';
import { cause } from '../cause/data/causes.js';
import { sightName } from '../damage/sights.js';

/** Id of a node of the sequence: `cause:surge`, `find:wiping@rod.2`, `event:…`. */
export const nodeId = matching(/^[A-Za-z0-9._:@-]{1,70}$/);

/** A node in words. */
export function nodeWords(id: string): string {
  const [kind, rest = ''] = id.split(/:(.*)/s);
  if (kind === 'cause') return cause(rest)?.name ?? rest;
  if (kind !== 'find') return 'own event';
  const [what = '', where = ''] = rest.split('@');
  return `${sightName(what)} (${where})`;
}
