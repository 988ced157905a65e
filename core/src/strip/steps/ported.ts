import { cylinderPlaces, type EngineLayout } from '../../engine/layout.js';
import { headPattern } from '../fasteners.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, bag, CAUTION } from './step.js';
import { opening } from './begin.js';
import { ending } from './ending.js';

/** Two-strokes with ports: barrels, pistons on needle bearings, a pressed-up crank between case halves. */
export function portedSteps(layout: EngineLayout): StripStep[] {
  const outboard = layout.shaft === 'upright';
  const places = cylinderPlaces(layout);
  const pattern = headPattern(layout, 0);
  return [
    ...opening(layout),
    ...(outboard
      ? [
          step(
            'powerhead',
            'Outside',
            'Powerhead off the leg',
            'Impeller housing and tell-tale looked at before the joint is broken; then lift by the eye.',
            {
              after: ['outside'],
              bags: [bag('leg', 'Powerhead bolts', 8)],
              cautions: [CAUTION.stand],
              shots: [{ station: '', what: 'impeller, vanes and housing' }],
              craft: ['An impeller that lost vanes sent them upwards: look for them in the passages.'],
            },
          ),
        ]
      : [
          step(
            'cowl',
            'Outside',
            layout.cooling === 'air' ? 'Cowl and flywheel off' : 'Flywheel and stator off',
            'Fins looked at before brushing; puller on the flywheel, key kept.',
            {
              after: ['outside'],
              bags: [bag('flywheel', 'Flywheel nut and key', 2, 'keep')],
              cautions: [CAUTION.puller],
            },
          ),
        ]),
    step(
      'exhaust-port',
      'Top',
      'Look through the exhaust port',
      'Rings and skirt with the piston at the bottom; the side that scuffed tells most.',
      {
        after: [outboard ? 'powerhead' : 'cowl'],
        shots: places.map((p) => ({ station: `piston.${p.cylinder}.skirt.antithrust`, what: `cylinder ${p.cylinder} through the port` })),
      },
    ),
    step('head-0', 'Top', places.length > 1 ? 'Heads off' : 'Head off', 'Log the break-loose torque by position; crowns as found.', {
      after: ['exhaust-port'],
      pattern,
      bags: [bag('head-bolts-0', 'Head nuts', pattern.positions.length)],
      shots: places.map((p) => ({ station: `piston.${p.cylinder}.crown`, what: `crown ${p.cylinder}, as found` })),
      holds: [holdItem('head-torque', pattern.id), holdItem('compression'), holdItem('turning'), holdItem('liquid')],
      cautions: layout.cooling === 'air' ? [] : [CAUTION.pressure],
    }),
    ...places.flatMap(({ cylinder }) => [
      step(
        `barrel-${cylinder}`,
        'Barrels',
        `Barrel ${cylinder} off`,
        'Rag in the case mouth; lift straight, do not turn it past the ring pegs.',
        {
          after: ['head-0'],
          bags: [bag(`barrel-${cylinder}`, 'Barrel nuts', 4)],
          shots: [
            { station: `bore.${cylinder}`, what: 'intake side and exhaust side' },
            { station: `piston.${cylinder}.skirt.thrust`, what: 'intake side' },
          ],
          cautions: [CAUTION.edges],
        },
      ),
      step(`piston-${cylinder}`, 'Barrels', `Piston ${cylinder} off`, 'Clips out, pin by puller, needle cage kept with its pin.', {
        after: [`barrel-${cylinder}`],
        bags: [bag(`clips-${cylinder}`, 'Pin clips', 2, 'never')],
        cautions: [CAUTION.puller],
        holds: [holdItem('skirts-as-found', String(cylinder))],
        craft: ['Arrow on the crown towards the exhaust: note it before it is cleaned.'],
      }),
    ]),
    step('case', 'Crank', 'Case halves apart', 'Bolts from the ends inwards; never pried at the joint; seals stay in place for a look.', {
      after: places.map((p) => `piston-${p.cylinder}`),
      bags: [bag('case', 'Case bolts', 8 + places.length * 2)],
      holds: [holdItem('seal-direction'), holdItem('turning')],
    }),
    step(
      'crank',
      'Crank',
      'Crank assembly out',
      'Pressed up: it is not taken apart here. Rods turned on their rollers, dry, before washing.',
      {
        after: ['case'],
        shots: places.map((p) => ({ station: `rod.${p.cylinder}.rollers`, what: `big end ${p.cylinder}` })),
        craft: ['Runout in V-blocks before any pressing.'],
      },
    ),
    ...ending(layout),
  ];
}
