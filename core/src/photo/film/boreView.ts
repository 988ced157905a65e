/** How a borescope that looks along a bore lies in it. Angles in radians, lengths as shares of the bore's radius. */
export interface ScopePose {
  /** Tilt of its line of sight to the right and down, and its turn about it (clockwise as seen in its picture). */
  readonly tilt: readonly [right: number, down: number];
  readonly roll: number;
  /** Where it stands off the axis, right and down in the bore's own frame. */
  readonly off: readonly [right: number, down: number];
  /** How deep it stands, from where the film begins; it looks deeper. */
  readonly depth: number;
}

/** What the picture of a scope is taken through: a pinhole, focal length in pixels. */
export interface ScopeLens {
  readonly width: number;
  readonly height: number;
  readonly focalPx: number;
}

/**
 * Where in the picture a place of the wall lies, given by cosine and sine of its arc (clockwise from what is right) and its depth in radii; written into `at`, since it is asked some millions of
 * times a frame. False for what lies behind the lens.
 */
export type WallPlace = (cosArc: number, sinArc: number, depth: number, at: Float64Array) => boolean;

/** Rotation of the scope: columns are its right, its down and its line of sight. */
function turnedBy({
  tilt: [right, down],
  roll,
}: ScopePose): readonly [number, number, number, number, number, number, number, number, number] {
  const [ca, sa] = [Math.cos(right), Math.sin(right)];
  const [cb, sb] = [Math.cos(down), Math.sin(down)];
  const [cr, sr] = [Math.cos(roll), Math.sin(roll)];
  // First the roll about the line of sight, then down, then right.
  return [
    ca * cr - sa * sb * sr,
    -ca * sr - sa * sb * cr,
    sa * cb,
    cb * sr,
    cb * cr,
    sb,
    -sa * cr - ca * sb * sr,
    sa * sr - ca * sb * cr,
    ca * cb,
  ];
}

/** Projects places of the wall into the picture of a scope. */
export function wallPlace(pose: ScopePose, { width, height, focalPx }: ScopeLens): WallPlace {
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = turnedBy(pose);
  const [cx, cy] = [width / 2, height / 2];
  const [offX, offY] = pose.off;
  const deep = pose.depth;
  return (cosArc, sinArc, depth, at) => {
    const x = cosArc - offX;
    const y = sinArc - offY;
    const z = depth - deep;
    const ahead = m2 * x + m5 * y + m8 * z;
    if (ahead < 0.05) return false;
    at[0] = cx + (focalPx * (m0 * x + m3 * y + m6 * z)) / ahead;
    at[1] = cy + (focalPx * (m1 * x + m4 * y + m7 * z)) / ahead;
    return true;
  };
}

/** The other way: place on the wall that a pixel sees, and its distance from the lens. */
export function wallSeen(
  pose: ScopePose,
  { width, height, focalPx }: ScopeLens,
): (x: number, y: number) => { readonly arc: number; readonly depth: number; readonly far: number } {
  const m = turnedBy(pose);
  return (px, py) => {
    const [a, b] = [(px - width / 2) / focalPx, (py - height / 2) / focalPx];
    const long = Math.hypot(a, b, 1);
    const [dx, dy, dz] = [(m[0] * a + m[1] * b + m[2]) / long, (m[3] * a + m[4] * b + m[5]) / long, (m[6] * a + m[7] * b + m[8]) / long];
    const [ox, oy] = pose.off;
    const square = Math.max(1e-9, dx * dx + dy * dy);
    const half = ox * dx + oy * dy;
    const far = (-half + Math.sqrt(Math.max(0, half * half - square * (ox * ox + oy * oy - 1)))) / square;
    return { arc: Math.atan2(oy + far * dy, ox + far * dx), depth: pose.depth + far * dz, far };
  };
}
