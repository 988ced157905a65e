import type { Feature } from '../../types.js';
import { asked, PF } from './build.js';

/** What is told of the engine, and what its fluids show. */
export const TOLD_FEATURES: readonly Feature[] = [
  asked('told', 'told.pressure-lost', 'Oil pressure fell at once', 0.04, 'gauges fail too', 'Ask what gauge or lamp did', 2, {
    group: 'pressure',
    needs: PF,
  }),
  asked('told', 'told.pressure-low-hot', 'Oil pressure low when hot at idle', 0.08, 'worn engines', 'Ask, or read cold and hot', 5, {
    group: 'pressure',
    needs: PF,
  }),
  asked('told', 'told.pressure-normal', 'Oil pressure was normal to the end', 0.3, 'the usual case', 'Ask what gauge or lamp did', 2, {
    group: 'pressure',
    needs: PF,
    damage: false,
  }),
  asked('told', 'told.overheated', 'Engine ran hot', 0.06, 'gauges are rarely watched', 'Ask for temperature and steam', 2, {}),
  asked('told', 'told.recent-work', 'Opened or rebuilt not long ago', 0.1, 'engines get opened', 'Ask who was inside last and when', 2, {}),
  asked('told', 'told.after-start-up', 'Noise or failure within minutes of a first start', 0.03, 'coincidence', 'Ask when it began', 2, {}),
  asked('told', 'told.ran-on', 'Run on after the first warning', 0.25, 'most are', 'Ask how far after the first sign', 2, {
    damage: false,
  }),
  asked('told', 'told.over-speed', 'Over-speeded', 0.03, 'missed gears, runaway', 'Ask, or read the recorder', 2, {}),
  asked('told', 'told.lugging', 'Pulled hard at low speed or over-boosted', 0.06, 'heavy duty', 'Ask for duty and tuning', 2, {}),
  asked('told', 'told.cold-hard', 'Worked hard from cold', 0.08, 'habit', 'Ask how it is used', 2, {}),
  asked('told', 'told.stood-long', 'Stood for months, or flooded', 0.06, 'seasonal engines', 'Ask about storage', 2, {}),
  asked('told', 'told.service-overdue', 'Oil change long overdue', 0.12, 'common', 'Ask for service records', 3, {}),
  asked(
    'told',
    'told.slope-heel',
    'Worked on slopes, in hard turns or heeled',
    0.04,
    'some duties',
    'Ask for the place and moment of the first sign',
    2,
    { needs: ['four-stroke'] },
  ),
  asked('told', 'told.knock-under-load', 'Pinked or knocked under load', 0.05, 'poor fuel', 'Ask for fuel and noise', 2, {}),
  asked('told', 'told.premix-missed', 'Fuel without oil, or too little', 0.03, 'needs a slip', 'Ask for the ratio; keep a fuel sample', 3, {
    needs: ['premix'],
  }),
  asked(
    'told',
    'told.axial-load',
    'Clutch, converter or coupling pushed on the crank',
    0.03,
    'needs a fault in the drive',
    'Look at clutch, converter and coupling',
    6,
    { needs: ['thrust'] },
  ),
  asked('told', 'told.long-service', 'Long service with regular care', 0.1, 'some engines wear out', 'Ask for hours and records', 3, {
    damage: false,
  }),
  asked(
    'told',
    'told.water-in',
    'Water drawn in or cylinder found full',
    0.02,
    'needs an event',
    'Ask, and look what ran out of the plug hole',
    3,
    {},
  ),

  asked('fluid', 'fluid.level-low', 'Oil level low or none', 0.06, 'many engines use some oil', 'Read the dipstick before draining', 2, {
    group: 'oil-level',
    needs: ['four-stroke'],
  }),
  asked('fluid', 'fluid.level-high', 'Oil level risen', 0.03, 'overfilling', 'Read the dipstick before draining', 2, {
    group: 'oil-level',
    needs: ['four-stroke'],
  }),
  asked('fluid', 'fluid.milky', 'Oil milky', 0.03, 'condensation under the filler cap', 'Look at oil from the dipstick and the drain', 2, {
    needs: ['four-stroke'],
  }),
  asked('fluid', 'fluid.fuel-smell', 'Oil thin and smelling of fuel', 0.04, 'short trips', 'Smell and feel the oil', 2, {
    needs: ['four-stroke'],
  }),
  asked('fluid', 'fluid.black-sludge', 'Black sludge', 0.06, 'stretched intervals', 'Look under the cover and in the pan', 3, {
    needs: ['four-stroke'],
  }),
  asked('fluid', 'fluid.coolant-low', 'Coolant low or gone', 0.05, 'seepage', 'Look into the header tank when cold', 2, {
    needs: ['liquid-cooled'],
  }),
  asked(
    'fluid',
    'fluid.grey-paste',
    'Grey paste of burnt oil and fines',
    0.05,
    'late in any bearing failure',
    'Wipe the pan and the drain plug',
    2,
    {},
  ),

  asked(
    'fluid',
    'fluid.glitter',
    'Glitter in the oil',
    0.04,
    'running-in metal',
    'Rub a drop from the dipstick between finger and light',
    2,
    {
      needs: ['four-stroke'],
    },
  ),
  asked('fluid', 'fluid.oil-in-coolant', 'Oil film on the coolant', 0.02, 'a spill at filling', 'Look into the header tank when cold', 2, {
    needs: ['liquid-cooled'],
  }),
  asked('told', 'told.failed-before', 'Failed at the same place before', 0.02, 'chance', 'Ask for the earlier job and its papers', 3, {}),
  asked(
    'told',
    'told.earlier-debris',
    'An earlier failure left metal in this engine',
    0.02,
    'engines get rebuilt',
    'Ask what failed before and what was washed',
    3,
    {},
  ),
  asked('told', 'told.wrong-oil', 'Oil of another grade or kind than asked for', 0.06, 'what was at hand', 'Ask what was filled', 2, {}),
  asked('told', 'told.uses-oil', 'Used oil for a long time', 0.12, 'common with age', 'Ask how often it was topped up', 2, {
    needs: ['four-stroke'],
  }),
  asked(
    'told',
    'told.dusty',
    'Worked in dust, air filter poor or bypassed',
    0.06,
    'some duties',
    'Look at the filter and behind it',
    3,
    {},
  ),
  asked(
    'told',
    'told.vibration',
    'Vibrated, or a damper, flywheel or coupling was changed',
    0.05,
    'old mounts',
    'Ask, look at damper and mounts',
    3,
    {},
  ),
  asked('told', 'told.valve-noise', 'Ticking at the top end before', 0.08, 'common', 'Ask for the noise and its rhythm', 2, {
    needs: ['four-stroke'],
  }),
  asked(
    'told',
    'told.one-cylinder-down',
    'One cylinder missed before the failure',
    0.05,
    'plugs and injectors',
    'Ask how it ran the week before',
    2,
    {
      needs: ['multi-cylinder'],
    },
  ),
  asked('told', 'told.neglected', 'Warnings ignored, limits passed, no care', 0.06, 'some owners', 'Ask how it was used and kept', 3, {}),
  asked(
    'told',
    'told.raised-output',
    'Output raised: boost, fuelling, timing or speed',
    0.04,
    'tuned engines',
    'Ask for changes; read the control unit',
    3,
    {},
  ),
  asked(
    'told',
    'told.lean-signs',
    'Lean or hot signs: pale plug, air leak, wrong jet',
    0.04,
    'drift',
    'Plug colour, intake leaks, jets',
    4,
    {},
  ),
  asked('told', 'told.frost', 'Frost without antifreeze', 0.02, 'seasonal', 'Ask for the winter and test the coolant', 2, {
    needs: ['liquid-cooled'],
  }),
];
