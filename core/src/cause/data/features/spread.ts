import type { Feature } from '../../types.js';
import { PS, spread } from './build.js';

/** How damage is spread over the engine, computed from the bench. */
export const SPREAD_FEATURES: readonly Feature[] = [
  spread('spread.one-bearing', 'One bearing only is damaged', 0.06, 'chance of a single early failure', 12, { group: 'how-many' }),
  spread('spread.all-bearings', 'All bearings damaged alike', 0.04, 'needs a cause common to all', 12, {
    group: 'how-many',
    needs: ['multi-cylinder', 'plain-shells'],
  }),
  spread('spread.one-cylinder', 'Damage keeps to one cylinder', 0.06, 'single faults happen', 12, { needs: ['multi-cylinder'] }),
  spread('spread.two-on-one-pin', 'Both rods of one crankpin damaged', 0.03, 'needs a common feed', 8, { needs: ['vee', 'plain-shells'] }),
  spread('spread.grows-along-route', 'Damage grows away from the pump', 0.05, 'far bearings run short first', 12, {
    needs: ['pressure-fed', 'plain-shells', 'multi-cylinder'],
    group: 'route',
  }),
  spread('spread.fades-along-route', 'Damage fades away from the pump', 0.05, 'near bearings meet dirt first', 12, {
    needs: ['pressure-fed', 'plain-shells', 'multi-cylinder'],
    group: 'route',
  }),
  spread(
    'spread.unfiltered-worse',
    'What is fed before the filter is hurt, the rest is not',
    0.05,
    'a branch of its own may fail by itself',
    8,
    {
      needs: ['unfiltered-branch'],
    },
  ),
  spread('spread.rods-worse', 'Big ends worse than mains', 0.15, 'rods carry more and are fed last', 10, {
    needs: PS,
    group: 'rods-mains',
  }),
  spread('spread.mains-worse', 'Mains worse than big ends', 0.06, 'less usual', 10, { needs: PS, group: 'rods-mains' }),
  spread('spread.mains-only', 'Mains damaged, big ends good', 0.03, 'needs a fault of the main line', 10, {
    needs: PS,
    group: 'rods-mains',
  }),
  spread('spread.rods-only', 'Big ends damaged, mains good', 0.08, 'rods give first under load', 10, { needs: PS, group: 'rods-mains' }),
  spread('spread.centre-mains', 'Centre mains worst', 0.04, 'needs bending of crank or block', 8, {
    needs: ['plain-shells', 'multi-cylinder'],
  }),
  spread('spread.main-and-its-pins', 'One main and the pins it feeds', 0.02, 'follows one feed', 12, {
    needs: ['pressure-fed', 'plain-shells', 'multi-cylinder'],
  }),
  spread('spread.upper-halves', 'Upper halves worse', 0.06, 'combustion loads the rod half', 10, { needs: PS, group: 'halves' }),
  spread('spread.lower-halves', 'Lower halves worse', 0.08, 'mains carry below', 10, { needs: PS, group: 'halves' }),
  spread('spread.same-edge', 'Same edge on every damaged shell', 0.02, 'needs thrust or taper', 8, { needs: PS, group: 'edges' }),
  spread('spread.opposite-edges', 'Opposite edges upper and lower of one rod', 0.01, 'needs a rod out of line', 8, {
    needs: PS,
    group: 'edges',
  }),
  spread('spread.one-arc-journal', 'One arc of the journal, shells all round', 0.01, 'needs a crank that runs out', 8, {
    needs: PS,
    group: 'one-arc',
  }),
  spread('spread.all-pistons', 'All pistons scuffed', 0.02, 'needs a common cause', 10, { needs: ['multi-cylinder'], group: 'pistons' }),
  spread('spread.one-piston', 'One piston only scuffed', 0.05, 'single faults happen', 10, { needs: ['multi-cylinder'], group: 'pistons' }),
  spread('spread.neighbour-bores', 'Neighbouring cylinders across the gasket', 0.01, 'needs a leak between them', 8, {
    needs: ['head-gasket', 'multi-cylinder'],
  }),
  spread('spread.bearings-clean', 'Pistons or bores hurt, bearings clean', 0.08, 'trouble above the crank', 12, {
    damage: false,
    needs: PS,
    group: 'top-bottom',
  }),
  spread('spread.pistons-clean', 'Bearings hurt, pistons and bores clean', 0.12, 'trouble in the crankcase', 12, {
    damage: false,
    group: 'top-bottom',
  }),
  spread('spread.nothing-found', 'Nothing of grade 2 or more anywhere', 0.9, 'an engine without a fault shows nothing', 20, {
    damage: false,
    othersPrevent: 0.9,
  }),

  spread('spread.hot-cylinders', 'Cylinders farthest from the coolant or air are worst', 0.05, 'the end cylinder is often worst', 10, {
    needs: ['multi-cylinder'],
  }),
  spread('spread.after-broken-part', 'Scores only behind the part that broke', 0.05, 'debris follows the oil', 12, {
    needs: ['pressure-fed', 'plain-shells'],
  }),
  spread('spread.top-end-only', 'Valve gear hurt, crank and pistons clean', 0.03, 'trouble at the top', 12, {
    damage: false,
    needs: ['four-stroke'],
  }),
  spread('spread.scattered', 'Small faults at many unlike places', 0.04, 'a worn engine has several', 20, {}),
];
