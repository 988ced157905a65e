import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** Pulled down all day: rod halves crazed, caps clean. Complete, released and signed. */
export function winch(): DemoCase {
  const c = new CaseScript('Slipway winch: knock after the long haul', layout('inline-4-diesel', { boreMm: 98, strokeMm: 110 }));
  c.intake({
    reference: 'Slipway winch, north slip',
    questionOwner: 'private',
    question: 'Why do new rod bearings last one season?',
    complaint: 'knock',
    complaintWords: 'Knocks under load since the barge was hauled.',
    complaintPlace: 'bottom',
    complaintWhen: 'load',
    onset: 'gradual',
    afterFirstSign: 'stopped',
    received: 'Engine out of its house, oil in.',
    firstImpression: 'wrong-shell',
  });
  c.history('Pulled the engine down to a crawl all day, three days', 'seen', 'told.lugging', '2026-09-21')
    .history('Fuelling screw turned up in spring', 'told', 'told.raised-output', '2026-04-02')
    .received('Engine complete', 'received');
  c.check('dipstick', 'level', ['full'])
    .check('dipstick', 'look', ['dark'])
    .check('magnet', 'clings', ['nothing'])
    .check('turning', 'feel', ['free']);
  c.looked('seen.embedded', false, 'Faces clean between the cracks').looked('fluid.fuel-smell', false, 'Smells of oil only');
  for (const n of [1, 2, 3, 4]) {
    c.stroke(`rod.${n}.shell.upper`, 'lining', n === 3 ? 5 : 3, [
      [0.3, 0.5],
      [0.7, 0.5],
    ]);
    if (n === 1 || n === 3) c.picture(`rod.${n}.shell.upper`, `rod-${n}-upper-face.jpg`);
    c.finding(`rod.${n}.shell.upper`, n === 4 ? 2 : 3, n === 3 ? ['overlay-fatigue', 'lining-fatigue'] : ['overlay-fatigue']);
  }
  c.stroke('rod.3.shell.lower', 'polished', 5, [
    [0.35, 0.5],
    [0.65, 0.5],
  ]).finding('rod.3.shell.lower', 1, ['normal-bedding']);
  c.stroke('main.3.shell.lower', 'polished', 5, [
    [0.35, 0.5],
    [0.65, 0.5],
  ])
    .picture('main.3.shell.lower', 'main-3-lower-face.jpg')
    .finding('main.3.shell.lower', 1, ['normal-bedding']);
  c.soundRest();
  for (const n of [1, 2, 3, 4])
    c.gauge(`crank.pin.${n}`, 'journal', 'winch', () => 0.08).gauge(`rod.${n}.shell.lower`, 'shell-clearance', 'winch', () => 0.08);
  c.confirmed('lugging', 'Cracks on the loaded halves of all rods, caps clean, oil full and clean.', {
    'Set boost or load to the rating': 'fuelling screw back at its seal; haul in two parts',
  }).rejected('wrong-shell', 'Sizes and marks of all shells are right.');
  c.dispose(
    'replace',
    'fatigued',
    [1, 2, 3, 4].flatMap((n) => [`rod.${n}.shell.upper`, `rod.${n}.shell.lower`]),
    'standard',
  )
    .dispose(
      'polish',
      'sound, within size',
      [1, 2, 3, 4].map((n) => `crank.pin.${n}`),
    )
    .dispose(
      'reuse',
      'bedded, sound',
      [1, 2, 3, 4, 5].flatMap((n) => [`main.${n}.shell.upper`, `main.${n}.shell.lower`]),
    );
  c.quote('repair', [1900, 2500], [12, 18], 'before the rods were out').plan('repair', '2026-12-18', 3000);
  c.concludes(
    'The rod bearings were overloaded, not starved: cracks in the layer on the loaded halves of all four rods, the caps clean, oil full. The winch pulled the engine down below its working speed with the fuelling raised.',
    'Fuelling back at the seal. Haul in two parts or gear down.',
  );
  c.entry('case-released', null, { note: 'First start with the owner present.' });
  c.sign('');
  return { number: '2026-D06', steps: c.steps };
}
