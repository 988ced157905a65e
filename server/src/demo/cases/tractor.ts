import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** The first impression was lack of oil; the bore was narrow. Complete and signed. */
export function tractor(): DemoCase {
  const c = new CaseScript('Orchard tractor: seized on the second day', layout('inline-4-petrol', { boreMm: 88, strokeMm: 92 }));
  c.intake({
    reference: 'Old orchard tractor, Withy Farm',
    questionOwner: 'warranty',
    question: 'Is the re-bore or the running-in the reason?',
    complaint: 'seized',
    complaintWords: 'Went tight on the second day of mowing, free again when cold.',
    complaintPlace: 'one-cylinder',
    complaintWhen: 'hot,load',
    onset: 'after-work',
    afterFirstSign: 'stopped',
    received: 'Engine complete, oil in.',
    openedBy: 'Nobody since the re-bore',
    firstImpression: 'oil-low',
  });
  c.history('Re-bored by a travelling shop without a plate', 'told', 'told.recent-work', '2026-08-14')
    .history('Oil changed after the first two hours', 'seen', null, '2026-09-01')
    .received('Engine complete', 'received');
  c.check('dipstick', 'level', ['full'])
    .check('dipstick', 'look', ['dark'])
    .check('magnet', 'clings', ['nothing'])
    .each('compression', 'dry', ['9.8', '9.9', '6.4', '9.7'], 'bar');
  c.looked('fluid.level-low', false, 'At the upper mark')
    .looked('told.overheated', false, 'Thermometer was watched')
    .looked('measured.bore-oval', true, 'Bore 3 narrow at the middle across the crank');
  c.finding('piston.3.skirt.thrust', 3, ['mid-bore-scuff'], 'Scuff in a band, none above or below.')
    .finding('piston.3.skirt.antithrust', 3, ['mid-bore-scuff'])
    .finding('bore.3', 3, ['mid-bore-scuff']);
  c.stroke('crank.pin.3', 'transfer', 2.5, [
    [0.3, 0.5],
    [0.42, 0.5],
  ])
    .picture('crank.pin.3', 'pin-3.jpg')
    .finding('crank.pin.3', 1, ['journal-transfer']);
  for (const n of [1, 3])
    c.stroke(`rod.${n}.shell.upper`, 'polished', 5, [
      [0.32, 0.5],
      [0.68, 0.5],
    ])
      .picture(`rod.${n}.shell.upper`, `rod-${n}-upper-face.jpg`)
      .finding(`rod.${n}.shell.upper`, 1, ['normal-bedding']);
  c.soundRest();
  const severity = (station: string): number => (station === 'bore.3' ? 1 : 0.05);
  for (const n of [1, 2, 3, 4])
    c.gauge(`bore.${n}`, 'bore', 'tractor', severity, n === 3 ? ['C', 'D'] : []).gauge(
      `piston.${n}.skirt.thrust`,
      'piston',
      'tractor',
      severity,
    );
  c.confirmed('bore-form', 'Bore 3 narrow at mid height, scuff there only, all bearings wet and sound.', {
    'Measure form; hone with a plate': 'bores 1 to 4 honed with the plate on',
  }).rejected('oil-low', 'Level at the mark, every bearing bright: the first guess was wrong.');
  c.dispose('rebore', 'scuffed, narrow', ['bore.3'], '+0.25')
    .dispose('hone', 'form to be made true with the plate', ['bore.1', 'bore.2', 'bore.4'])
    .dispose('replace', 'scuffed', ['piston.3.skirt.thrust'], '+0.25')
    .dispose('polish', 'alloy to be taken off the pin', ['crank.pin.3']);
  c.plan('repair', '2027-03-15', 2600);
  c.entry('answerable-set', null, { who: 'earlier repair', reason: 'Form of bore 3 as machined.' });
  c.concludes(
    'Piston 3 was nipped at the middle of its bore. The bore was narrow there as machined; oil, cooling and bearings are in order. The first impression, lack of oil, is not borne out.',
    'Bore 3 to the next size, all bores finished with a plate bolted on.',
  );
  c.sign('');
  return { number: '2026-D08', steps: c.steps };
}
