import { isPressureFed, type EngineLayout } from '../../engine/layout.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, bag, CAUTION } from './step.js';

export function ending(layout: EngineLayout): StripStep[] {
  const fed = isPressureFed(layout);
  const last = layout.valveGear === 'ports' || layout.mainBearings === 'rolling' ? ['crank'] : ['shells'];
  return [
    ...(fed
      ? [
          step(
            'galleries',
            'Block',
            'Gallery plugs and jets out',
            'Every plug out before washing; probe each drilling, picture what comes.',
            {
              after: last,
              bags: [bag('gallery', 'Gallery plugs', null, 'reuse')],
              craft: ['Core plugs are replaced always.'],
            },
          ),
        ]
      : []),
    step('wash', 'Block', 'Wash and send out', 'Nothing is washed before it has been pictured, measured and bagged.', {
      after: fed ? ['galleries'] : last,
      cautions: [CAUTION.wash],
      holds: [holdItem('all-recorded')],
    }),
  ];
}
