import { cylinderPlaces, type EngineLayout } from '../../engine/layout.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, CAUTION, bag } from './step.js';
import { rodCap, pistonOut } from './rods.js';

/** Flat engines: the case parts along the crank, so pistons and pins come out before the crank is seen. */
export function caseHalves(layout: EngineLayout): StripStep[] {
  const places = cylinderPlaces(layout);
  const list: StripStep[] = places.map(({ cylinder }) =>
    step(
      `pin-${cylinder}`,
      'Rods',
      `Piston pin ${cylinder} out`,
      'Through the access hole: clip, then pin with a puller; piston stays in its bore.',
      {
        after: ['bores-look'],
        cautions: [CAUTION.puller, CAUTION.edges],
        bags: [bag(`clips-${cylinder}`, 'Pin clips', 2, 'never')],
      },
    ),
  );
  list.push(
    step('case', 'Crank', 'Case halves apart', 'Through bolts from the ends inwards; the joint is broken, not pried.', {
      after: [...places.map((p) => `pin-${p.cylinder}`), 'drain-oil'],
      bags: [bag('through', 'Through bolts', layout.mains * 2, 'measure'), bag('case', 'Case perimeter bolts', null)],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `main.${i + 1}.shell.upper`, what: `main ${i + 1}, in the half` })),
      holds: [
        holdItem('turning'),
        holdItem('end-float'),
        ...Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
      ],
      craft: ['There are no main caps: both halves are one line bore and stay together.'],
    }),
    step('crank', 'Crank', 'Crank with rods out', 'Lift straight; rods hang, hold them off the journals.', {
      after: ['case'],
      cautions: [CAUTION.crank],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `crank.main.${i + 1}`, what: `main journal ${i + 1}` })),
    }),
    step('pan', 'Crank', 'Sump floor and pickup', 'What lay in the lower half, where, and on the screen.', {
      after: ['case'],
      shots: [
        { station: 'pan.debris', what: 'as found' },
        { station: 'pickup.screen', what: 'screen, both sides' },
      ],
      holds: [],
    }),
    ...places.map(({ cylinder }) => rodCap(layout, cylinder, ['crank'])),
    ...places.map(({ cylinder }) => pistonOut(layout, cylinder)),
    step('shells', 'Crank', 'Main shells out', 'From both halves; numbered on the back.', { after: ['crank'] }),
  );
  return list;
}
