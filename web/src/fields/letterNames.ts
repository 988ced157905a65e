import type { LetterTo } from '@true-ledger/core/report';

/** Letters by whom they go to. */
export const LETTER_NAMES: Readonly<Record<LetterTo, string>> = {
  client: 'Client',
  'machine-shop': 'Machine shop',
  warranty: 'Warranty desk',
};
