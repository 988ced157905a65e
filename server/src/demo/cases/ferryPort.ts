import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** Two causes that do not explain each other: coolant gone, and oil gone. Complete, signed twice. */
export function ferryPort(): DemoCase {
  const c = new CaseScript('Ferry, port engine: steam, then a knock', layout('inline-4-diesel', { boreMm: 108, strokeMm: 130 }));
  c.intake({
    reference: 'Ferry “Marsh Harrier”, port engine',
    questionOwner: 'insurer',
    question: 'Did the loss of coolant alone destroy the engine?',
    complaint: 'overheating,knock',
    complaintWords: 'Steam from the vent half way over; the skipper crossed on both engines.',
    complaintPlace: 'everywhere',
    complaintWhen: 'hot,load',
    onset: 'sudden',
    afterFirstSign: 'driven-on',
    ranOnFor: '20 min',
    received: 'Engine on its bearers, drained of coolant by the crew.',
    openedBy: 'Nobody',
    evidenceHolder: 'This workshop',
    firstImpression: 'coolant-lost',
  });
  c.history('Steam from the header tank, seen by passengers', 'seen', 'told.overheated', '2026-10-08')
    .history('Oil was topped up every second day since August', 'told', 'told.uses-oil', '2026-10-08')
    .received('Engine complete with cooler', 'received')
    .received('Coolant', 'already-off', 'crew')
    .question('client', 'When was oil last added before the crossing?', 'Two days before; the can was empty.', '2026-10-12');
  c.check('dipstick', 'level', ['none'])
    .check('dipstick', 'look', ['dark', 'glitter'])
    .check('coolant', 'level', ['low'])
    .check('magnet', 'clings', ['nothing'])
    .check('turning', 'feel', ['tight']);
  c.looked('fluid.coolant-low', true, 'Header tank dry, crust at the pump seal')
    .looked('fluid.level-low', true, 'Nothing on the stick; 2 l drained of 14')
    .looked('measured.deck-not-flat', true, 'Dish between cylinders 2 and 3');
  for (const n of [1, 2, 3, 4])
    c.finding(`piston.${n}.skirt.thrust`, 3, ['four-corner-scuff'], n === 1 ? 'Four corners, both sides of the boss.' : '');
  c.finding('gasket.head', 3, ['gasket-leak']);
  for (const [n, width] of [
    [1, 5],
    [2, 6.5],
    [3, 6],
    [4, 7],
  ] as const) {
    c.stroke(`rod.${n}.shell.upper`, 'lining', width, [
      [0.2, 0.5],
      [0.8, 0.52],
    ]);
    if (n === 2 || n === 4) c.picture(`rod.${n}.shell.upper`, `rod-${n}-upper-face.jpg`);
    c.finding(`rod.${n}.shell.upper`, 3, n === 2 ? ['wiping', 'heat-short'] : ['wiping']);
  }
  for (const m of [2, 4, 5])
    c.stroke(`main.${m}.shell.lower`, 'lining', m === 2 ? 3 : 5, [
      [0.3, 0.5],
      [0.7, 0.5],
    ]).finding(`main.${m}.shell.lower`, m === 2 ? 2 : 3, ['wiping']);
  c.stroke('crank.pin.4', 'heat', 6, [
    [0.05, 0.5],
    [0.45, 0.5],
  ])
    .picture('crank.pin.4', 'pin-4.jpg')
    .finding('crank.pin.4', 3, ['journal-heat']);
  c.soundRest('pump.relief', 'oil.gallery', 'timing.drive');
  const source = 'Engine book of the ferry, section 6';
  const { pinDiameterMm, boreMm } = c.engine;
  c.entry('spec-set', null, {
    quantity: 'crank.pin',
    spec: { minMm: pinDiameterMm - 0.02, maxMm: pinDiameterMm, outOfRoundMaxMm: 0.01, taperMaxMm: 0.01, undersizesMm: [0.25, 0.5], source },
  }).entry('spec-set', null, {
    quantity: 'bore',
    spec: {
      minMm: boreMm,
      maxMm: boreMm + 0.022,
      oversizesMm: [0.5, 1],
      limits: { wear: { upper: 0.12 }, ovality: { upper: 0.04 } },
      source,
    },
  });
  const severity = (station: string): number => ({ 'crank.pin.4': 0.9, 'gasket.head': 1, 'bore.2': 0.4, 'bore.3': 0.5 })[station] ?? 0.1;
  for (const n of [1, 2, 3, 4])
    c.gauge(`crank.pin.${n}`, 'journal', 'ferry-port', severity).gauge(`bore.${n}`, 'bore', 'ferry-port', severity);
  c.gauge('gasket.head', 'deck.1', 'ferry-port', severity);
  c.confirmed('coolant-lost', 'Dry header tank, four-corner scuff in every cylinder, deck dished.', {
    'Find the leak or blockage': 'pump seal, replaced',
  })
    .confirmed('oil-low', 'Nothing on the stick, every rod bearing short of oil; coolant does not explain it.', {
      'Find where the oil went': 'burned past the rings of cylinders 2 and 3',
    })
    .rejected('gasket-fault', 'The gasket gave way after the deck had dished.');
  c.dispose(
    'replace',
    'scuffed at four corners',
    [1, 2, 3, 4].map((n) => `piston.${n}.skirt.thrust`),
  )
    .dispose(
      'rebore',
      'scuff transferred to the wall',
      [1, 2, 3, 4].map((n) => `bore.${n}`),
      '+0.50',
    )
    .dispose(
      'grind',
      'heat on pin 4: all pins to one size',
      [1, 2, 3, 4].map((n) => `crank.pin.${n}`),
      '-0.25',
    )
    .dispose(
      'replace',
      'wiped',
      [1, 2, 3, 4].flatMap((n) => [`rod.${n}.shell.upper`, `rod.${n}.shell.lower`]),
      '-0.25',
    )
    .dispose('face', 'dished between 2 and 3', ['gasket.head']);
  c.quote('rebuild', [7200, 8600], [24, 33], 'before the pistons were measured').plan('rebuild', '2027-01-29', 12000);
  c.concludes(
    'Two things were wrong, and neither explains the other. The coolant left past the pump seal and the pistons scuffed at four corners. The oil had been used up before that: the dipstick was dry and every rod bearing ran short.',
    'Pump seal replaced and system pressed; rings and bores renewed; level to be logged by running hours.',
  );
  c.sign('').entry('remark', 'gasket.head', { remark: 'deck', text: 'Machine shop confirms the dish at the same place.' });
  c.sign('Remark of the machine shop on the deck added.');
  return { number: '2026-D05', steps: c.steps };
}
