import { bankCount, cylinderPlaces, isPressureFed, type EngineLayout } from '../../engine/layout.js';
import { headPattern } from '../fasteners.js';
import { holdItem } from '../holds.js';
import { step, bag, CAUTION, type StripStep, type Reuse } from './step.js';
import { opening } from './begin.js';
import { caseHalves } from './caseHalves.js';
import { caps } from './caps.js';
import { ending } from './ending.js';

function banks(layout: EngineLayout): number[] {
  return bankCount(layout) === 1 ? [0] : [0, 1];
}

const bankWord = (layout: EngineLayout, bank: number): string =>
  bankCount(layout) === 1 ? '' : (layout.firstBank === 'left') === (bank === 0) ? ' left bank' : ' right bank';

const PICKUP = step('pickup', 'Bottom', 'Pickup and pump off', 'Screen first; turn the pump by hand before it is opened.', {
  after: ['pan'],
  bags: [bag('pump', 'Pump and pickup bolts', 6)],
  shots: [
    { station: 'pickup.screen', what: 'screen, both sides' },
    { station: 'pump.gears', what: 'gears and body' },
  ],
  cautions: [CAUTION.springs],
  holds: [holdItem('pan-as-found')],
});

/** Engines with a block, shells and a pan: in line, V and flat, petrol and diesel. */
export function blockSteps(layout: EngineLayout): StripStep[] {
  const flat = layout.arrangement === 'flat';
  const overhead = layout.valveGear === 'overhead-cam';
  const stretch: Reuse = overhead ? 'never' : 'measure';
  const steps = opening(layout);
  const add = (...list: StripStep[]): void => void steps.push(...list);
  const places = cylinderPlaces(layout);

  if (isPressureFed(layout))
    add(
      step('filter', 'Outside', 'Filter off, upright', 'Keep it upright and full; it is cut open later.', {
        after: ['drain-oil'],
        shots: [{ station: 'filter.media', what: 'cut open, outer pleats' }],
        holds: [holdItem('filter-kept')],
      }),
    );
  add(
    step('covers', 'Top', overhead ? 'Cam covers off' : 'Rocker covers off', 'Look for dry areas and sludge before wiping anything.', {
      after: ['outside'],
      bags: [bag('covers', 'Cover bolts', layout.cylinders * 2 + 2)],
      craft: ['Dry where oil must remain is a finding; so is a smell.'],
    }),
  );
  if (overhead)
    add(
      step('timing', 'Top', `Timing ${layout.camDrive} off`, 'Set to the marks, picture the marks, lock, then slacken.', {
        after: ['covers'],
        bags: [bag('timing', 'Tensioner and guide bolts', 6), bag('cam-wheel', 'Cam wheel bolts', bankCount(layout) * 2, 'never')],
        shots: [{ station: 'timing.drive', what: 'marks in line, tensioner out' }],
        holds: [holdItem('compression')],
        cautions: [CAUTION.springs],
      }),
      ...banks(layout).map((b) =>
        step(
          `cams-${b}`,
          'Top',
          `Camshafts off${bankWord(layout, b)}`,
          'Ease the cap bolts a turn at a time from the ends; caps in order and direction.',
          {
            after: ['timing'],
            bags: [bag(`cam-caps-${b}`, 'Cam cap bolts', places.filter((p) => p.bank === b).length * 4 + 4)],
            holds: [holdItem('contact-order')],
            cautions: [CAUTION.springs],
          },
        ),
      ),
    );
  else
    add(
      step('rockers', 'Top', 'Rockers and pushrods out', 'In a rack, in order, the right way up; look at the tips.', {
        after: ['covers'],
        bags: [bag('rockers', 'Rocker shaft or pedestal bolts', layout.cylinders * 2)],
        holds: [holdItem('contact-order'), holdItem('compression')],
        cautions: [CAUTION.springs],
        craft: ['A pushrod goes back where it was: number the rack.'],
      }),
    );
  for (const b of banks(layout)) {
    const pattern = headPattern(layout, b);
    add(
      step(
        `head-${b}`,
        'Top',
        `Head off${bankWord(layout, b)}`,
        'Log the break-loose torque by position, from the ends towards the middle; lift straight.',
        {
          after: overhead ? [`cams-${b}`, 'drain-coolant'].filter((id) => steps.some((s) => s.id === id)) : ['rockers'],
          tools: 'torque wrench with pointer',
          bags: [bag(`head-bolts-${b}`, 'Head bolts', pattern.positions.length, stretch)],
          pattern,
          shots: [{ station: 'gasket.head', what: `both faces${bankWord(layout, b)}` }],
          holds: [holdItem('head-torque', pattern.id), holdItem('liquid')],
          cautions: [CAUTION.gasket, CAUTION.stand],
          craft: ['Valves closed before a head comes off.', ...(stretch === 'never' ? ['Bolts tightened to yield: do not reuse.'] : [])],
        },
      ),
    );
  }
  const heads = banks(layout).map((b) => `head-${b}`);
  add(
    step(
      'bores-look',
      'Top',
      'Look at bores and crowns',
      'Before any piston moves: which holds liquid, how each piston rocks, ring ridge.',
      {
        after: heads,
        shots: places.flatMap((p) => [
          { station: `piston.${p.cylinder}.crown`, what: `crown ${p.cylinder}, as found` },
          { station: `bore.${p.cylinder}`, what: `bore ${p.cylinder}, at the bottom of the stroke` },
        ]),
        holds: [holdItem('gasket-faces'), holdItem('piston-rock')],
      },
    ),
  );
  if (!overhead && layout.valveGear === 'pushrod')
    add(
      step('followers', 'Top', 'Followers out', 'In order, faces up; turn each to see whether it has been turning.', {
        after: heads,
        holds: [holdItem('contact-order')],
        shots: [],
        craft: ['Each follower stays with its lobe.'],
      }),
    );
  if (!flat)
    add(
      step(
        'pan',
        'Bottom',
        layout.lubrication === 'dry-sump' ? 'Scavenge pan off, right way up' : 'Pan off, right way up',
        'Before the engine is rolled: what lies in it, where, and the sludge line.',
        {
          after: ['drain-oil'],
          bags: [bag('pan', 'Pan bolts', layout.cylinders * 3 + 8)],
          shots: [{ station: 'pan.debris', what: 'as found, then on a white sheet' }],
          craft: ['Debris goes into a labelled bag; magnet over it.'],
        },
      ),
      ...(isPressureFed(layout) ? [PICKUP] : []),
      step('roll', 'Bottom', 'Roll the engine over', 'Only with the pan off and the heads off; every cap still on.', {
        after: ['pan', ...heads],
        cautions: [CAUTION.roll, CAUTION.stand],
        holds: [holdItem('pan-as-found')],
      }),
      step(
        'front',
        'Bottom',
        overhead ? 'Damper and front cover off' : 'Damper, front cover and timing gears off',
        'Puller on the damper; marks pictured before the gears part.',
        {
          after: ['roll', ...(overhead ? ['timing'] : [])],
          bags: [bag('front', 'Front cover bolts', 12), bag('nose', 'Crank nose bolt', 1, 'never')],
          cautions: [CAUTION.puller, CAUTION.seals],
          shots: overhead ? [] : [{ station: 'timing.drive', what: 'marks in line' }],
          holds: [holdItem('end-float')],
        },
      ),
      step('play', 'Bottom', 'Float, side play, turning torque', 'Everything that a bearing tells while it is still together.', {
        after: ['roll'],
        tools: 'indicator, feelers, torque wrench with pointer',
        holds: [holdItem('turning')],
        craft: ['Ease one cap at a time and turn: the cap whose easing lets the crank go is the one that binds.'],
      }),
    );
  return [...steps, ...(flat ? caseHalves(layout) : caps(layout)), ...ending(layout)];
}
