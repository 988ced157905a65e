import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** Cases that are waiting for something: being stripped, just come in, being judged, being measured. */
export function underWay(): DemoCase[] {
  return [ferryStarboard(), pilotCutter(), dredger(), boathouse()];
}

function ferryStarboard(): DemoCase {
  const c = new CaseScript('Ferry, starboard engine: smoke since the summer', layout('inline-4-diesel', { boreMm: 108, strokeMm: 130 }));
  c.intake({
    reference: 'Ferry “Marsh Harrier”, starboard engine',
    questionOwner: 'private',
    question: 'Can it carry on while the port engine is rebuilt?',
    complaint: 'smoke,oil-level-falling',
    smokeColour: 'blue',
    onset: 'gradual',
    afterFirstSign: 'driven-on',
    firstImpression: 'normal-wear',
  });
  c.history('Fourteen thousand hours, log complete', 'measured', 'told.long-service', '2026-11-03').history(
    'A litre in ten hours',
    'told',
    'told.uses-oil',
    '2026-11-03',
  );
  c.check('dipstick', 'level', ['between'])
    .check('dipstick', 'look', ['dark'])
    .check('turning', 'feel', ['free'])
    .each('compression', 'dry', ['19.1', '18.8', '18.9', '19.3'], 'bar');
  c.done('arrival', 'isolate', 'turn', 'drain-oil');
  c.entry('part-wanted', 'pump.gears', { what: 'Oil pump, in case its own is scored', state: 'wanted', from: '', shelf: null });
  return { number: '2026-D09', steps: c.steps };
}

function pilotCutter(): DemoCase {
  const c = new CaseScript('Pilot cutter: white smoke in the morning', layout('vee-6-60-petrol'));
  c.intake({
    reference: 'Pilot cutter “Sandpiper”',
    questionOwner: 'warranty',
    complaint: 'smoke,oil-level-rising',
    smokeColour: 'white',
    complaintWords: 'White smoke for a minute, and the level goes up.',
    onset: 'gradual',
    firstImpression: 'coolant-in-oil',
  });
  c.history('Coolant filled up twice a week', 'told', null, '2026-11-20');
  return { number: '2026-D10', steps: c.steps };
}

function dredger(): DemoCase {
  const c = new CaseScript('Dredger pump: ticking, then metal in the oil', layout('inline-6-petrol'));
  c.intake({
    reference: 'Harbour dredger, pump engine',
    questionOwner: 'own',
    question: 'Where does the metal come from?',
    complaint: 'metal-in-oil',
    onset: 'gradual',
    afterFirstSign: 'driven-on',
    firstImpression: 'foreign-debris',
  });
  c.history('Ticking for months', 'seen', 'told.valve-noise', '2026-06-10').history(
    'One cylinder lost power',
    'told',
    'told.one-cylinder-down',
    '2026-09-30',
  );
  c.check('dipstick', 'level', ['full']).check('magnet', 'clings', ['fuzz']);
  c.looked('measured.cam-lift-low', true, 'Lobe 3 exhaust 1.9 mm short').looked('debris.grit', false, 'No grit under the glass');
  c.finding('cam.3', 4, ['lobe-flat', 'follower-pitted'], 'Lobe flat across the nose.')
    .finding('cam.4', 2, ['follower-pitted'])
    .sound('cam.1', 'cam.2');
  for (const station of [
    'main.1.shell.lower',
    'main.3.shell.lower',
    'main.5.shell.lower',
    'rod.2.shell.upper',
    'rod.4.shell.upper',
    'rod.6.shell.upper',
  ]) {
    for (const v of [0.25, 0.45, 0.7]) c.line(station, v, 0.1, 0.9, 'probe');
    if (station === 'rod.2.shell.upper') c.picture(station, 'rod-2-upper-face.jpg');
    c.finding(station, 2, station === 'main.1.shell.lower' ? ['own-debris-scoring', 'embedded'] : ['own-debris-scoring']);
  }
  c.finding('pump.gears', 2, ['pump-scored']).finding('pan.debris', 2, ['magnetic-fuzz', 'steel-sliver']);
  for (let n = 1; n <= 6; n++) c.sound(`bore.${n}`, `piston.${n}.skirt.thrust`, `piston.${n}.skirt.antithrust`);
  c.entry('cause-decided', null, {
    cause: 'cam-hardening',
    decision: 'confirmed',
    reason: 'Lobe 3 flat, its follower pitted, the others bright.',
  });
  return { number: '2026-D11', steps: c.steps };
}

function boathouse(): DemoCase {
  const c = new CaseScript('Boathouse light set: worn evenly', layout('inline-4-diesel'));
  c.intake({
    reference: 'Boathouse, light set',
    questionOwner: 'own',
    question: 'Rings and shells, or a rebuild?',
    complaint: 'smoke,oil-level-falling',
    smokeColour: 'blue',
    onset: 'gradual',
    firstImpression: 'normal-wear',
  });
  c.history('Twelve thousand hours', 'measured', 'told.long-service', '2026-10-30');
  for (const n of [1, 2, 3, 4]) c.finding(`rod.${n}.shell.upper`, 2, ['long-wear']).sound(`rod.${n}.shell.lower`, `crank.pin.${n}`);
  for (const n of [1, 3, 5]) c.finding(`main.${n}.shell.lower`, 2, ['long-wear']);
  c.finding('bore.1', 2, ['ring-ridge', 'hatch-gone-top'])
    .finding('bore.3', 2, ['ring-ridge', 'hatch-gone-top'])
    .finding('rings.1.pack', 2, ['ring-edge-lost']);
  for (const n of [1, 2]) c.gauge(`crank.pin.${n}`, 'journal', 'boathouse', () => 0.4).gauge(`bore.${n}`, 'bore', 'boathouse', () => 0.6);
  return { number: '2026-D12', steps: c.steps };
}
