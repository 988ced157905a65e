import type { EngineLayout } from '../../engine/layout.js';
import { capPattern } from '../fasteners.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, bag, CAUTION } from './step.js';

const MARK_CAPS = 'Mark rod and cap as a pair with number and direction; caps never swap.';

export const JOINT = 'A cap joint is imperceptible to a fingertip; a step means a wrong cap or a cap turned round.';

export function rodCap(layout: EngineLayout, cylinder: number, after: string[]): StripStep {
  const part = `rod.${cylinder}`;
  const shells = layout.bigEnds === 'shells';
  const pattern = capPattern(part, `Rod cap ${cylinder}`, layout.pinDiameterMm, layout.rodShellWidthMm, false);
  return step(
    `rod-cap-${cylinder}`,
    'Rods',
    `Rod cap ${cylinder} off`,
    'Number, direction, joint; break-loose torque; which half stayed on the pin.',
    {
      after,
      tools: 'torque wrench with pointer',
      bags: [bag(`rod-bolts-${cylinder}`, 'Rod bolts', 2, 'measure')],
      pattern,
      cap: part,
      shots: shells
        ? [
            { station: `${part}.shell.lower`, what: 'in the cap, face and back' },
            { station: `${part}.shell.upper`, what: 'in the rod, face and back' },
          ]
        : [{ station: `${part}.bigend`, what: 'face of rod and cap' }],
      holds: [holdItem('cap-marks', part), holdItem('cap-torque', part), holdItem('rod-play'), holdItem('easing')],
      craft: [MARK_CAPS, JOINT, 'Sleeves over the rod bolts protect the pin.'],
    },
  );
}

export function pistonOut(layout: EngineLayout, cylinder: number): StripStep {
  const part = `rod.${cylinder}`;
  return step(
    `piston-${cylinder}`,
    'Rods',
    `Piston ${cylinder} out`,
    'Ridge cut first if a nail feels it; push with wood, mind the wall.',
    {
      after: [`rod-cap-${cylinder}`, ...(layout.arrangement === 'flat' ? [] : ['bores-look'])],
      shots: [
        { station: `piston.${cylinder}.skirt.thrust`, what: 'thrust side, rings as found' },
        { station: `piston.${cylinder}.skirt.antithrust`, what: 'anti-thrust side' },
        { station: `rings.${cylinder}.pack`, what: 'rings in their grooves' },
      ],
      holds: layout.bigEnds === 'shells' ? [holdItem('shells-in-place', part)] : [],
      cautions: [CAUTION.edges],
    },
  );
}
