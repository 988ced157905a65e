import { CaseScript, layout, type DemoCase } from '../caseScript.js';

export function outboard(): DemoCase {
  const c = new CaseScript('Outboard: seized under way', layout('twin-premix', { shaft: 'upright' }));
  c.intake({
    reference: 'Harbour tender 3',
    questionOwner: 'own',
    complaint: 'seized',
    complaintWords: 'Slowed by itself, then stopped. Turns again when cold.',
    onset: 'sudden',
    afterFirstSign: 'restarted',
    firstImpression: 'none-yet',
  });
  c.history('Tank filled from the wrong can the day before', 'told', 'told.premix-missed', '2026-11-19');
  c.check('fuel', 'look', ['none']).check('turning', 'feel', ['tight']).each('compression', 'dry', ['3.1', '6.2'], 'bar');
  c.done('isolate');
  return { number: '2026-D04', steps: c.steps };
}
