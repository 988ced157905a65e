import { cylinderPlaces, isPressureFed, type EngineLayout } from '../../engine/layout.js';
import { capPattern } from '../fasteners.js';
import { holdItem } from '../holds.js';
import { type StripStep, step, bag, CAUTION } from './step.js';
import { rodCap, pistonOut, JOINT } from './rods.js';

export function caps(layout: EngineLayout): StripStep[] {
  const list: StripStep[] = [];
  const places = cylinderPlaces(layout);
  for (const { cylinder } of places)
    list.push(rodCap(layout, cylinder, [isPressureFed(layout) ? 'pickup' : 'pan', 'play']), pistonOut(layout, cylinder));
  const pistons = places.map((p) => `piston-${p.cylinder}`);
  if (layout.bores === 'wet-liner')
    for (const { cylinder } of places)
      list.push(
        step(
          `liner-${cylinder}`,
          'Rods',
          `Liner ${cylinder} out`,
          'Height above the deck first; puller from below; look where the seals sat.',
          {
            after: [`piston-${cylinder}`],
            tools: 'depth gauge, liner puller',
            shots: [{ station: `bore.${cylinder}`, what: 'outside of the liner, seal bands' }],
            holds: [holdItem('liner-height')],
            craft: ['Mark the liner’s place and which side faced the front.'],
          },
        ),
      );
  if (layout.ladderFrame)
    list.push(
      step('ladder', 'Crank', 'Ladder frame off', 'Outer bolts first, then by position from the ends; it carries every cap.', {
        after: pistons,
        bags: [bag('ladder', 'Ladder frame bolts', layout.mains * 4 + 8, 'never')],
        holds: Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
        cautions: [CAUTION.stand],
      }),
    );
  else
    for (let m = 1; m <= layout.mains; m++) {
      const part = `main.${m}`;
      const cross = layout.arrangement === 'vee' && layout.fuel === 'diesel';
      list.push(
        step(
          `main-cap-${m}`,
          'Crank',
          `Main cap ${m} off`,
          'Ease, turn the crank, log the torque; then off, straight, with its number and arrow.',
          {
            after: pistons,
            tools: 'torque wrench with pointer',
            bags: [bag(`main-bolts-${m}`, cross ? 'Main and cross bolts' : 'Main cap bolts', cross ? 4 : 2, 'measure')],
            pattern: capPattern(part, `Main cap ${m}`, layout.mainDiameterMm, layout.mainShellWidthMm, cross),
            cap: part,
            shots: [{ station: `${part}.shell.lower`, what: 'in the cap, face and back' }],
            holds: [holdItem('cap-marks', part), holdItem('cap-torque', part), holdItem('easing'), holdItem('end-float')],
            craft: [JOINT, 'Caps in order, arrows the same way.'],
          },
        ),
      );
    }
  const mains = layout.ladderFrame ? ['ladder'] : Array.from({ length: layout.mains }, (_, i) => `main-cap-${i + 1}`);
  list.push(
    step('crank', 'Crank', 'Crank out', 'Straight up; watch which shells stay with it.', {
      after: [...mains, 'front'],
      cautions: [CAUTION.crank],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `crank.main.${i + 1}`, what: `main journal ${i + 1}, all round` })),
      craft: ['On end or on wood, never on its journals.'],
    }),
    step('shells', 'Crank', 'Main shells out', 'Face and back pictured in place, hole against feed, then out and numbered on the back.', {
      after: ['crank'],
      holds: layout.ladderFrame ? [] : Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `main.${i + 1}.shell.upper`, what: `main ${i + 1} in its seat` })),
    }),
  );
  if (layout.valveGear === 'pushrod')
    list.push(
      step('camshaft', 'Crank', 'Camshaft out', 'Retainer and thrust plate first; turn while drawing, mind the lobes.', {
        after: ['crank', 'followers'],
        bags: [bag('cam-plate', 'Cam thrust plate bolts', 2, 'keep')],
      }),
    );
  return list;
}
