import { randomUUID } from 'node:crypto';
import { stripSteps } from '@true-ledger/core/strip';
import type { SpecKey } from '@true-ledger/core/measure';
import { CaseScript, layout, type DemoCase } from '../caseScript.js';
import { pumpHouseSpecs } from '../sheets.js';

export function firePump(): DemoCase {
  const c = new CaseScript(
    'Village fire-pump: knock, then tight',
    layout('inline-4-petrol', { boreMm: 84, strokeMm: 88, pinDiameterMm: 53, mainDiameterMm: 58 }),
  );
  c.intake({
    reference: 'Ottershaw Quay pump house, set 2',
    questionOwner: 'insurer',
    question: 'Why did the engine fail 40 hours after its overhaul, and is the overhaul the reason?',
    complaint: 'knock,metal-in-oil',
    complaintWords: 'Started to knock at the weekly run and went tight within a minute.',
    onset: 'sudden',
    afterFirstSign: 'stopped',
    received: 'Complete engine, filter and pan in place, oil in.',
    firstImpression: 'oil-low',
  });
  c.history('Main and rod shells renewed in spring by a travelling fitter', 'seen', 'told.recent-work', '2026-04-11')
    .history('Gauge stood where it always stands until the knock', 'told', 'told.pressure-normal', '2026-10-30')
    .history('Oil and filter changed after the first ten hours', 'told', null, '2026-05-02');
  c.intake({
    complaintPlace: 'bottom',
    complaintWhen: 'hot,load',
    openedBy: 'Nobody since the overhaul',
    evidenceHolder: 'This workshop, bags in the locked cage',
  });
  c.received('Engine complete, on its frame', 'received')
    .received('Oil in the pan, about 4 l', 'received')
    .received('Shells taken out in spring', 'missing', 'travelling fitter')
    .buildMark('date-code', 'Two date codes among the main shells: spring of this year, and main 2 upper six years older', 'opened-before')
    .buildMark('sealant', 'Fresh grey bead on the pan, squeezed inside by 2 mm', 'opened-before')
    .buildMark('paint', 'Paint unbroken across the head joint', 'as-made')
    .question(
      'earlier-builder',
      'Were all shells of one set, and who took main 2 apart?',
      'One half was short in the box; an old one was put in.',
      '2026-11-12',
    )
    .question('client', 'Was the engine run under load between the tenth and the fortieth hour?');
  c.check('arrival', 'seen', 'Clean, dry outside; oil filler tight; pump coupling turns free of the engine.')
    .check('dipstick', 'level', ['full'])
    .check('dipstick', 'look', ['dark', 'glitter'])
    .check('oil-sample', 'taken', ['mid-stream'])
    .check('oil-sample', 'reference', 'OQ2-11')
    .check('coolant', 'level', ['full'])
    .check('coolant', 'film', ['clear'])
    .check('filter', 'found', ['copper'])
    .check('filter', 'bypass', ['seated'])
    .check('magnet', 'clings', ['nothing'])
    .each('compression', 'dry', ['11.8', '11.6', '11.9', '11.7'], 'bar')
    .check('turning', 'feel', ['tight'])
    .each('turning', 'ahead', ['58', '61', '60', '63', '64', '60', '58', '57', '60', '62', '61', '59'], 'N·m')
    .each('turning', 'back', ['56', '58', '59', '60', '61', '59', '57', '56', '58', '59', '58', '57'], 'N·m')
    .check('end-float', 'float', '0.14')
    .check('end-float', 'play', '0.05')
    .check('knock', 'where', ['bottom'])
    .check('knock', 'when', ['hot', 'load']);
  firePumpStrip(c);
  c.looked('measured.feed-hole-shut', true, 'Upper half of main 2 stands a quarter turn round, its hole off the feed');
  c.sound(
    'bore.1',
    'bore.2',
    'bore.3',
    'bore.4',
    'piston.1.crown',
    'piston.2.crown',
    'piston.3.crown',
    'piston.4.crown',
    'rings.1.pack',
    'rings.2.pack',
    'rings.3.pack',
    'rings.4.pack',
  );
  c.sound(
    'piston.1.skirt.thrust',
    'piston.2.skirt.thrust',
    'piston.3.skirt.thrust',
    'piston.4.skirt.thrust',
    'piston.1.skirt.antithrust',
    'piston.2.skirt.antithrust',
    'piston.3.skirt.antithrust',
    'piston.4.skirt.antithrust',
  );
  for (const m of [1, 3, 4, 5]) c.sound(`main.${m}.shell.upper`, `crank.main.${m}`);
  for (const m of [1, 3, 4, 5])
    c.stroke(`main.${m}.shell.lower`, 'polished', 5.5, [
      [0.3, 0.5],
      [0.7, 0.5],
    ]).finding(`main.${m}.shell.lower`, 1, ['normal-bedding']);
  for (const r of [1, 3, 4]) {
    c.stroke(`rod.${r}.shell.upper`, 'polished', 5, [
      [0.32, 0.5],
      [0.68, 0.5],
    ]).finding(`rod.${r}.shell.upper`, 1, ['normal-bedding']);
    c.sound(`rod.${r}.shell.lower`, `crank.pin.${r}`, `rod.${r}`);
  }
  c.stroke('main.2.shell.upper', 'lining', 9, [
    [0.05, 0.5],
    [0.95, 0.5],
  ])
    .stroke('main.2.shell.upper', 'steel', 6, [
      [0.3, 0.45],
      [0.75, 0.55],
    ])
    .stroke('main.2.shell.upper', 'heat', 3, [
      [0.1, 0.2],
      [0.9, 0.2],
    ]);
  c.picture('main.2.shell.upper', 'main-2-upper-face.jpg').finding(
    'main.2.shell.upper',
    4,
    ['dry-seizure', 'spun-shell'],
    'Tab torn away, back polished bright all round.',
  );
  c.stroke('main.2.shell.lower', 'lining', 8, [
    [0.1, 0.5],
    [0.9, 0.5],
  ])
    .stroke('main.2.shell.lower', 'heat', 4, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
    .picture('main.2.shell.lower', 'main-2-lower-face.jpg')
    .finding('main.2.shell.lower', 4, ['dry-seizure']);
  c.stroke('crank.main.2', 'heat', 7, [
    [0, 0.5],
    [1, 0.5],
  ])
    .stroke('crank.main.2', 'transfer', 3, [
      [0.15, 0.4],
      [0.45, 0.55],
    ])
    .picture('crank.main.2', 'main-journal-2.jpg')
    .finding('crank.main.2', 4, ['journal-heat', 'journal-transfer']);
  c.stroke('rod.2.shell.upper', 'lining', 5.5, [
    [0.25, 0.5],
    [0.75, 0.5],
  ])
    .picture('rod.2.shell.upper', 'rod-2-upper-face.jpg')
    .finding('rod.2.shell.upper', 3, ['wiping'], 'Smeared with rotation, lead beads at the trailing line.');
  c.stroke('rod.2.shell.lower', 'lining', 4, [
    [0.3, 0.55],
    [0.7, 0.5],
  ]).finding('rod.2.shell.lower', 3, ['wiping']);
  c.stroke('crank.pin.2', 'heat', 4, [
    [0.02, 0.5],
    [0.35, 0.5],
  ])
    .line('crank.pin.2', 0.35, 0, 1, 'probe')
    .line('crank.pin.2', 0.62, 0.1, 0.8, 'hair')
    .finding('crank.pin.2', 3, ['journal-heat']);
  c.sound('rod.2', 'main.3.thrust.front', 'main.3.thrust.rear', 'pickup.screen', 'pump.relief', 'gasket.head', 'timing.drive');
  for (const n of [1, 2, 3, 4]) c.sound(`head.${n}`, `valves.${n}`, `cam.${n}`);
  c.sound('oil.gallery', 'oil.cooler', 'bolts.rod', 'bolts.main', 'bolts.head', 'bolts.crank');
  c.picture('rod.2.shell.lower', 'rod-2-lower-face.jpg')
    .picture('rod.1.shell.upper', 'rod-1-upper-face.jpg')
    .picture('rod.3.shell.upper', 'rod-3-upper-face.jpg')
    .picture('crank.pin.2', 'pin-2.jpg');
  // Every surface of the bench is pictured, the good ones too: it is them the others are held against.
  for (const m of [1, 3, 4, 5])
    c.picture(`main.${m}.shell.upper`, `main-${m}-upper-face.jpg`)
      .picture(`main.${m}.shell.lower`, `main-${m}-lower-face.jpg`)
      .picture(`crank.main.${m}`, `main-journal-${m}.jpg`);
  c.picture('rod.4.shell.upper', 'rod-4-upper-face.jpg');
  for (const r of [1, 3, 4]) c.picture(`rod.${r}.shell.lower`, `rod-${r}-lower-face.jpg`).picture(`crank.pin.${r}`, `pin-${r}.jpg`);
  for (const n of [1, 2, 3, 4])
    c.picture(`piston.${n}.crown`, `piston-${n}-crown.jpg`)
      .picture(`piston.${n}.skirt.thrust`, `piston-${n}-thrust.jpg`)
      .picture(`piston.${n}.skirt.antithrust`, `piston-${n}-anti-thrust.jpg`);
  c.secondOpinion('rod.2.shell.upper', 3, 'copper on a third of it')
    .secondOpinion('rod.2.shell.lower', 3)
    .secondOpinion('crank.pin.2', 2, 'lines seen, not felt; colour is light');
  c.finding('pan.debris', 3, ['copper-flake'], 'A spoonful of bright copper flake, not magnetic.').finding('filter.media', 2, [
    'copper-flake',
  ]);
  for (const [quantity, spec] of Object.entries(pumpHouseSpecs())) c.entry('spec-set', null, { quantity: quantity as SpecKey, spec });
  c.pin('crank.pin.1', [52.991, 52.988, 52.989, 52.987, 52.99, 52.989])
    .pin('crank.pin.2', [52.978, 52.971, 52.975, 52.966, 52.981, 52.976])
    .pin('crank.pin.3', [52.992, 52.99, 52.991, 52.988, 52.992, 52.991])
    .pin('crank.pin.4', [52.99, 52.989, 52.989, 52.986, 52.991, 52.988]);
  const damaged: Record<string, number> = {
    'crank.main.2': 0.9,
    'main.2.shell.upper': 1,
    'main.2.shell.lower': 0.9,
    'rod.2.shell.lower': 0.6,
    'bore.3': 0.35,
    'gasket.head': 0.3,
  };
  const severity = (station: string): number => damaged[station] ?? 0.06;
  const read = (station: string | null, sheet: string, optional?: readonly string[]): void =>
    void c.gauge(station, sheet, 'pump-house', severity, optional);
  for (const n of [1, 2, 3, 4, 5]) read(`crank.main.${n}`, 'journal');
  read(null, 'crank-runout');
  for (const n of [1, 2, 3, 4, 5]) read(`main.${n}.shell.lower`, 'shell-clearance');
  for (const n of [1, 2, 3, 4]) read(`rod.${n}.shell.lower`, 'shell-clearance');
  for (const n of [1, 2, 3, 4]) {
    read(`bore.${n}`, 'bore', n === 3 ? ['C', 'D'] : []);
    read(`piston.${n}.skirt.thrust`, 'piston');
    read(`rings.${n}.pack`, 'ring.top');
    read(`rod.${n}`, 'side-clearance');
  }
  read('gasket.head', 'deck.1');
  read(null, 'cam.1');
  c.entry('cause-decided', null, {
    cause: 'local-feed',
    decision: 'confirmed',
    reason: 'Upper half of main 2 fitted in the lower seat position of another set: its hole missed the feed, seen in place.',
  });
  c.entry('cause-decided', null, {
    cause: 'oil-low',
    decision: 'rejected',
    reason: 'Level at the upper mark, all other bearings wet and sound.',
  });
  c.entry('answer-set', null, {
    cause: 'local-feed',
    part: 'action',
    item: 'Rod and blow through the feed',
    state: 'done',
    note: 'clear from main 2 to pin 2',
  });
  c.entry('answer-set', null, {
    cause: 'local-feed',
    part: 'collateral',
    item: 'the pins fed through it',
    state: 'done',
    note: 'pin 2 to be ground',
  });
  c.entry('quote-sent', null, {
    quote: 'first',
    route: 'repair',
    currency: 'EUR',
    cost: 3100,
    costHigh: 3600,
    days: 15,
    daysHigh: 22,
    note: 'before the pistons were out',
  });
  c.entry('plan-set', null, {
    route: 'repair',
    deadline: '2026-12-23',
    from: '2026-11-30',
    hoursPerDay: 6,
    workdays: [1, 2, 3, 4, 5],
    budget: 4200,
  });
  c.entry('disposition-set', 'pump.gears', { operation: 'clean', size: '', reason: 'opened and gauged: within limits, no line to feel' });
  c.entry('report-set', null, {
    field: 'conclusion',
    value:
      'Main 2 was not fed because the hole of its upper shell half did not meet the drilling. It ran dry, turned, and took the oil from big end 2. All other bearings were fed and are sound. The oil level and the pump had no part in it.',
  });
  c.entry('report-set', null, {
    field: 'actions',
    value: 'Crank to be ground, main housing 2 to be gauged before any shell is ordered, every feed rodded and blown through at assembly.',
  });
  return { number: '2026-D01', steps: c.steps };
}

/** The fire-pump engine stripped to the last plug, one hold passed over. */
function firePumpStrip(c: CaseScript): void {
  const head = [62, 64, 60, 66, 63, 61, 65, 62, 64, 60];
  c.bolts('head-0', Object.fromEntries(head.map((v, i) => [String(i + 1), String(v)])));
  for (const n of [1, 2, 3, 4]) {
    c.bolts(`rod.${n}`, { a: String(46 + n), b: String(48 + (n % 2)) });
    c.entry('cap-checked', null, { cap: `rod.${n}`, number: String(n), agrees: true, joint: 'imperceptible', note: '' });
  }
  for (const n of [1, 2, 3, 4, 5]) {
    c.bolts(`main.${n}`, { a: String(76 + n), b: n === 2 ? '52' : String(78 + (n % 3)) });
    c.entry('cap-checked', null, { cap: `main.${n}`, number: String(n), agrees: true, joint: 'imperceptible', note: '' });
  }
  for (const [index, [cap, text]] of (
    [
      ['', '60'],
      ['main.1', '57'],
      ['main.3', '54'],
      ['main.2', '14'],
      ['main.4', '12'],
      ['main.5', '10'],
    ] as const
  ).entries())
    c.entry('ease-torque', null, { index, cap, text, unit: 'N·m', newtonMetre: Number(text) });
  c.entry('expectation', null, {
    expectation: randomUUID(),
    step: 'pan',
    text: 'No metal in the pan if the level was the cause and it was stopped at once',
    held: false,
  });
  for (const part of ['rod.1', 'rod.3', 'rod.4', 'main.1', 'main.3', 'main.4', 'main.5', 'rod.2', 'main.2'])
    c.noted(`shells-in-place:${part}`, part === 'main.2' ? 'upper half a quarter turn round' : 'in their seats, hole on the feed');
  c.noted('gasket-faces', 'both faces clean, no trace between the holes').noted(
    'pan-as-found',
    'copper flake over the whole floor, sludge line level',
  );
  c.noted('filter-kept', 'kept upright, cut open on the bench')
    .noted('liquid', 'all crowns dry')
    .noted('piston-rock', 'even, all four')
    .noted('contact-order', 'in the rack, in order')
    .noted('rod-play', '0.20 to 0.25 mm, all four')
    .passedOver('arrival', 'came at night, pictures of two sides only and those lost with a telephone')
    .noted('all-recorded', 'bags 1 to 31 closed');
  const steps = stripSteps(c.engine);
  for (const s of steps) for (const b of s.bags) if (b.count !== null) c.entry('bag-set', null, { bag: b.id, counted: b.count, note: '' });
  c.done(...steps.map((s) => s.id));
}
