import { axisDeg, bankCount, type EngineLayout } from '../engine/layout.js';

/**
 * Where a place of a shell half lies round its bearing, degrees with the rotation of the crank, in the frame the loads are told in. The arc of a shell counts with the rotation from the parting line
 * met first; its crown is at 90°.
 *
 *   big end, 0° towards the piston           main, 0° along the bores of bank 1
 *
 *        0° = crown of the upper                  upper half about the middle
 *           .-'''-.                               between the banks; in line, 0°
 *    −90° ( upper   ) 90°   rotation →
 *    arc 0° ------- arc 180°                      lower half opposite,
 *         ( lower   )                             its arc beginning where the
 *           '-...-'                               upper one ends
 *             180°
 */
export function sleeveDeg(layout: EngineLayout, bearing: string, half: 'upper' | 'lower', arcDeg: number): number {
  const middle = bearing.startsWith('rod') || bankCount(layout) === 1 ? 0 : axisDeg(layout, 1) / 2;
  const deg = middle + (half === 'upper' ? arcDeg - 90 : arcDeg + 90);
  return ((deg % 360) + 360) % 360;
}
