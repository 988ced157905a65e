import type { EngineLayout } from '../../engine/layout.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, CAUTION, bag } from './step.js';

export function opening(layout: EngineLayout): StripStep[] {
  const oil = layout.lubrication !== 'premix';
  const liquid = layout.cooling === 'liquid';
  const drains = [...(oil ? ['drain-oil'] : ['drain-fuel']), ...(liquid ? ['drain-coolant'] : [])];
  return [
    step('arrival', 'Before', 'Picture it as it came', 'All sides, before anything is touched; personal things out of the picture.', {
      shots: [
        { station: '', what: 'front' },
        { station: '', what: 'rear' },
        { station: '', what: 'left side' },
        { station: '', what: 'right side' },
      ],
    }),
    step('isolate', 'Before', 'Make it safe', 'Battery, fuel, air and water isolated; engine on the stand.', {
      cautions: [CAUTION.stand, CAUTION.fuel, CAUTION.pressure],
    }),
    step('turn', 'Before', 'Turn it by hand', 'One slow turn each way with a bar, plugs out. Not by the starter.', {
      after: ['isolate'],
      tools: 'bar and socket, torque wrench with pointer',
      holds: [...(oil ? [holdItem('oil-level'), holdItem('oil-look')] : [holdItem('fuel-look')])],
      craft: ['Never start it to hear the knock.'],
    }),
    ...(oil
      ? [
          step('drain-oil', 'Drain', 'Drain the oil', 'Warm if it may be, into a clean pan; sample from the middle of the stream.', {
            after: ['isolate', 'turn'],
            bags: [bag('drain-plug', 'Drain plug and washer', 1)],
            cautions: [CAUTION.oil],
            holds: [holdItem('oil-level'), holdItem('oil-look'), holdItem('oil-sample')],
          }),
        ]
      : [
          step('drain-fuel', 'Drain', 'Drain carburettor and tank', 'Into a glass first: colour, oil, water.', {
            after: ['isolate'],
            cautions: [CAUTION.fuel],
            holds: [holdItem('fuel-look')],
          }),
        ]),
    ...(liquid
      ? [
          step('drain-coolant', 'Drain', 'Drain the coolant', 'From the block too; look what comes last.', {
            after: ['isolate'],
            cautions: [CAUTION.pressure, CAUTION.coolant],
            holds: [holdItem('coolant')],
          }),
        ]
      : []),
    step('outside', 'Outside', 'Ancillaries off', 'Manifolds, starter, generator, pumps outside; each with its fasteners in its own bag.', {
      after: ['arrival', ...drains],
      bags: [bag('manifolds', 'Manifold nuts', layout.cylinders * 2), bag('brackets', 'Brackets and ancillaries', null)],
      holds: [holdItem('arrival')],
      cautions: [CAUTION.gasket],
      craft: [
        'Check for hidden fasteners before prying a cover.',
        ...(liquid ? ['Core plugs are replaced always; look at them first.'] : []),
      ],
    }),
  ];
}
