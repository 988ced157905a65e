import type { EngineLayout } from '../../engine/layout.js';
import { headPattern } from '../fasteners.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, bag, CAUTION } from './step.js';
import { opening } from './begin.js';
import { rodCap, pistonOut } from './rods.js';
import { ending } from './ending.js';

/** Splash-oiled engines on rolling mains: side cover, rod cap with dipper, crank drawn from its bearings. */
export function splashSteps(layout: EngineLayout): StripStep[] {
  const pattern = headPattern(layout, 0);
  return [
    ...opening(layout),
    step('cowl', 'Outside', 'Cowl, tins and flywheel off', 'Look at fins and tins before brushing; puller on the flywheel, key kept.', {
      after: ['outside'],
      bags: [bag('cowl', 'Cowl screws', null), bag('flywheel', 'Flywheel nut and key', 2, 'keep')],
      cautions: [CAUTION.puller, CAUTION.springs],
    }),
    step('head-0', 'Top', 'Head off', 'Log the break-loose torque by position; look for blow-by marks.', {
      after: ['cowl'],
      pattern,
      bags: [bag('head-bolts-0', 'Head bolts', pattern.positions.length, 'reuse')],
      shots: [{ station: 'gasket.head', what: 'both faces' }],
      holds: [holdItem('head-torque', pattern.id), holdItem('compression')],
      cautions: [CAUTION.gasket],
      craft: ['Valves closed before a head comes off.'],
    }),
    step('bores-look', 'Top', 'Look at bore and crown', 'Before the piston moves.', {
      after: ['head-0'],
      shots: [
        { station: 'piston.1.crown', what: 'as found' },
        { station: 'bore.1', what: 'at the bottom of the stroke' },
      ],
      holds: [holdItem('gasket-faces'), holdItem('piston-rock')],
    }),
    step('side-cover', 'Bottom', 'Side cover off', 'Engine lying on the other side; catch what runs out, picture what lies there.', {
      after: ['drain-oil', 'bores-look'],
      bags: [bag('cover', 'Cover bolts', 8)],
      shots: [{ station: 'pan.debris', what: 'floor of the case, as found' }],
      holds: [holdItem('end-float'), holdItem('turning')],
      cautions: [CAUTION.edges],
    }),
    step('cam', 'Bottom', 'Camshaft and followers out', 'Marks pictured; followers numbered, faces up.', {
      after: ['side-cover'],
      holds: [holdItem('contact-order'), holdItem('pan-as-found')],
    }),
    {
      ...rodCap(layout, 1, ['side-cover']),
      name: 'Rod cap off, with its dipper',
      holds: [holdItem('dipper'), holdItem('cap-marks', 'rod.1'), holdItem('cap-torque', 'rod.1'), holdItem('rod-play')],
    },
    pistonOut(layout, 1),
    step('crank', 'Crank', 'Crank out of its bearings', 'Drawn straight; bearings turned by hand, dry, before washing.', {
      after: ['piston-1', 'cam'],
      cautions: [CAUTION.puller],
      shots: [
        { station: 'crank.pin.1', what: 'pin, all round' },
        { station: 'main.1.rollers', what: 'as found' },
        { station: 'main.2.rollers', what: 'as found' },
      ],
      holds: [holdItem('seal-direction')],
    }),
    ...ending(layout),
  ];
}
