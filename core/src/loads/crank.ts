/**
 * Kinematics of a slider-crank with an offset cylinder at unit crank speed, in the frame of its cylinder: X along the axis of the bore from crank to head, Y a quarter turn on with the rotation of
 * the crank. Crank angle φ from the throw pointing along X; crankpin at r (cos φ, sin φ), piston pin at (x, d).
 *
 *        X ↑  head
 *          │  ○ piston pin (x, d)
 *          │ ╱   δ: from X to the rod, seen from the crankpin
 *          │● crankpin
 *          ┼────→ Y (the way the crankpin goes from the top)
 */
export interface CrankSize {
  /** Throw, half the stroke where there is no offset; m. */
  readonly throwM: number;
  readonly rodM: number;
  /** Offset of the bore towards Y, m. */
  readonly offsetM: number;
}

export interface CrankState {
  /** Piston pin along the bore, m, and its derivatives by the crank angle. */
  readonly x: number;
  readonly dx: number;
  readonly ddx: number;
  /** Angle of the rod from the bore seen from the crankpin, rad, and its derivatives by the crank angle. */
  readonly delta: number;
  readonly dDelta: number;
  readonly ddDelta: number;
}

/** Closed form; every derivative is exact. */
export function crankAt({ throwM: r, rodM: l, offsetM: d }: CrankSize, phi: number): CrankState {
  const [sin, cos] = [Math.sin(phi), Math.cos(phi)];
  // How far the crankpin stands out of the axis of the bore, and its derivative.
  const s = r * sin - d;
  const ds = r * cos;
  const q = Math.sqrt(l * l - s * s);
  const dq = (-s * ds) / q;
  const ddq = -(ds * ds - s * r * sin) / q - (s * s * ds * ds) / (q * q * q);
  return {
    x: r * cos + q,
    dx: -r * sin + dq,
    ddx: -r * cos + ddq,
    delta: Math.atan2(-s, q),
    dDelta: -ds / q,
    ddDelta: (r * sin) / q - (s * ds * ds) / (q * q * q),
  };
}

/** Top and bottom of the stroke: crank angles (rad) and places of the piston pin (m). */
export function deadCentres({ throwM: r, rodM: l, offsetM: d }: CrankSize): {
  readonly topRad: number;
  readonly bottomRad: number;
  readonly topM: number;
  readonly bottomM: number;
} {
  return {
    topRad: Math.asin(d / (l + r)),
    bottomRad: Math.PI + Math.asin(d / (l - r)),
    topM: Math.sqrt((l + r) ** 2 - d * d),
    bottomM: Math.sqrt((l - r) ** 2 - d * d),
  };
}
