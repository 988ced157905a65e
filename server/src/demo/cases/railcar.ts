import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** Too little was kept to say why. */
export function railcar(): DemoCase {
  const c = new CaseScript('Narrow-gauge railcar: came in boxes', layout('vee-8-diesel'));
  c.intake({
    reference: 'Railcar 2, museum line',
    questionOwner: 'private',
    question: 'Why did it stop at the summit?',
    complaint: 'knock,loss-of-power',
    complaintWords: 'It knocked, somebody took it apart, here are the boxes.',
    onset: 'sudden',
    afterFirstSign: 'unknown',
    received: 'Block bare, parts in four boxes, washed.',
    openedBy: 'Volunteers',
    firstImpression: 'none-yet',
  });
  c.history('It knocked', 'told', 'told.ran-on', '2025-08-30')
    .received('Block, crank, heads', 'received')
    .received('Shells', 'missing', 'thrown away')
    .received('Pistons, cleaned', 'already-off', 'volunteers')
    .question('client', 'Did anybody photograph the shells before they were thrown away?');
  for (const n of [1, 2, 3, 4]) c.entry('state-set', `main.${n}.shell.lower`, { state: 'before-us' });
  for (const n of [1, 2, 3, 4, 5, 6, 7, 8]) c.entry('state-set', `rod.${n}.shell.upper`, { state: 'before-us' });
  c.line('crank.pin.1', 0.4, 0, 1, 'probe').finding(
    'crank.pin.1',
    2,
    ['journal-scoring'],
    'Washed; nothing can be said of what lay in it.',
  );
  c.sound('bore.1', 'bore.2', 'bore.5', 'bore.6');
  c.concludes('The cause is not determined. Shells, filter and pan residue are gone, and what is left fits several causes.');
  return { number: '2026-D07', steps: c.steps };
}
