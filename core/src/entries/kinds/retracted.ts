import { RETRACTED, retractionSchema } from '../../ledger/state.js';
import { defineEntry } from '../define.js';

export const retracted = defineEntry({
  kind: RETRACTED,
  name: 'Taken back',
  says: 'An entry is taken back; the one before it stands again.',
  body: retractionSchema,
  stands: 'either',
  slot: (b) => b.slot,
  tell: (b) => `${b.slot} (${b.reason})`,
  // What carries a case is not taken back: its opening never, its engine not as long as there is no earlier one to go back to.
  admit: ({ slot }, at) =>
    at.station === null && (slot === 'case' || (slot === 'layout' && at.slot('layout').length < 2))
      ? {
          code: 'entry-kind',
          sentence: `The ${slot === 'case' ? 'opening of a case' : 'engine of a case'} carries everything else and stays. Correct what is wrong in it instead; nothing was recorded.`,
          field: 'slot',
        }
      : null,
});
