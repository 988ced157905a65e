import type { Letterhead, Parties } from '@true-ledger/core/report';

/** Invented, as everything of the demonstration. */
export const DEMO_LETTERHEAD: Letterhead = {
  name: 'Quayside Engine Works',
  address: 'Slip 4, Old Harbour\nLower Quay',
  contact: 'bench@quayside.example',
  register: 'Trade register of the demo, no. 0000',
};

/** Client and engine of some demo cases, by number of the case. */
export const DEMO_PARTIES: Readonly<Record<string, Parties>> = {
  '2026-D01': {
    client: { name: 'Village fire brigade', address: 'Pump house, Upper Lane', contact: 'pump@village.example' },
    engine: { make: 'invented', model: 'four, pump drive', serial: 'FP-2207', hours: '1 140 h', fitted: 'portable fire pump' },
  },
};
