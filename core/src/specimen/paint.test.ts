import type { Damage } from './damages.js';
import { USUAL_SHOT, type Shot } from './scene.js';
import { takeShell } from './shellScene.js';
import { classAt, type MapClass, type SurfaceMaps } from './sheet.js';
import { surfaceMaps, type SurfaceSpecimen } from './surfaceMaps.js';

const [COLUMNS, ROWS] = [720, 240];
const SHELL: SurfaceSpecimen = { seed: 21, radiusMm: 25, widthMm: 20, damages: [] };
const paint = (damages: readonly Damage[], more: Partial<SurfaceSpecimen> = {}): SurfaceMaps =>
  surfaceMaps({ ...SHELL, ...more, damages }, COLUMNS, ROWS);

/** Where a class lies: share of the surface, middle and ends along arc (degrees) and axis (0 front to 1 rear). */
function lies(maps: SurfaceMaps, name: MapClass): { share: number; arc: number; axial: number; arcs: number[]; axials: number[] } {
  const wanted = classAt(name);
  let [n, arc, axial] = [0, 0, 0];
  const arcs = [Infinity, -Infinity];
  const axials = [Infinity, -Infinity];
  for (let y = 0; y < ROWS; y++)
    for (let x = 0; x < COLUMNS; x++) {
      if (maps.truth[y * COLUMNS + x] !== wanted) continue;
      const [a, v] = [((x + 0.5) / COLUMNS) * maps.spanDeg, (y + 0.5) / ROWS];
      n++;
      arc += a;
      axial += v;
      arcs[0] = Math.min(arcs[0]!, a);
      arcs[1] = Math.max(arcs[1]!, a);
      axials[0] = Math.min(axials[0]!, v);
      axials[1] = Math.max(axials[1]!, v);
    }
  return { share: n / (ROWS * COLUMNS), arc: arc / n, axial: axial / n, arcs, axials };
}

/** Mean colour where a class lies. */
function colourOf(maps: SurfaceMaps, name: MapClass): number[] {
  const wanted = classAt(name);
  const sum = [0, 0, 0];
  let n = 0;
  for (let i = 0; i < maps.truth.length; i++) {
    if (maps.truth[i] !== wanted) continue;
    for (const k of [0, 1, 2]) sum[k]! += maps.colour[3 * i + k]!;
    n++;
  }
  return sum.map((v) => v / n);
}

type Quad = readonly [Place, Place, Place, Place];
type Place = readonly [x: number, y: number];
const least = (values: Float32Array): number => values.reduce((a, b) => Math.min(a, b));

describe('what is painted on a half shell is where it was asked for, and is true to the texel', () => {
  it('wiping lies about its middle, right across, and grows with its reach', () => {
    for (const arc of [60, 90, 120]) {
      const at = lies(paint([{ kind: 'wipe', arc, halfDeg: 20, amount: 1 }]), 'lining');
      expect(Math.abs(at.arc - arc)).toBeLessThan(5);
      expect(at.axials[0]).toBeLessThan(0.05);
      expect(at.axials[1]).toBeGreaterThan(0.95);
    }
    const shares = [10, 20, 35].map((halfDeg) => lies(paint([{ kind: 'wipe', arc: 90, halfDeg, amount: 1 }]), 'lining').share);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });

  it.each(['front', 'rear'] as const)('wear of the %s edge stays at that edge and within its arc', (edge) => {
    const at = lies(paint([{ kind: 'edge', edge, depth: 0.2, fromDeg: 50, toDeg: 130 }]), 'lining');
    const inward = edge === 'front' ? at.axials[1]! : 1 - at.axials[0]!;
    expect(inward).toBeGreaterThan(0.15);
    expect(inward).toBeLessThan(0.32);
    expect(at.arcs[0]).toBeGreaterThanOrEqual(49.5);
    expect(at.arcs[1]).toBeLessThanOrEqual(130.5);
  });

  it('a score that went through is as wide as it was asked to be and lies at its height; one that did not is a groove and no class', () => {
    const line = { kind: 'score', axial: 0.4, fromDeg: 30, toDeg: 150, widthMm: 1 } as const;
    const through = paint([{ ...line, through: true }]);
    const at = lies(through, 'lining');
    expect(Math.abs(at.axial - 0.4)).toBeLessThan(0.01);
    // Area over length is the width: within the share by which a score narrows at its ends.
    const widthMm = (at.share * 180 * SHELL.widthMm) / 120;
    expect(widthMm).toBeGreaterThan(0.8);
    expect(widthMm).toBeLessThan(1.1);
    const shallow = paint([{ ...line, through: false }]);
    expect(lies(shallow, 'lining').share).toBe(0);
    const deepest = shallow.height.indexOf(least(shallow.height));
    expect(Math.abs(Math.floor(deepest / COLUMNS) / ROWS - 0.4)).toBeLessThan(0.03);
  });

  it('counts the lines a reader is asked for, and not the hair lines', () => {
    const score = (axial: number, widthMm: number): Damage => ({ kind: 'score', axial, fromDeg: 20, toDeg: 160, widthMm, through: false });
    expect(paint([score(0.2, 0.3), score(0.5, 0.15), score(0.8, 0.08)]).lines).toBe(2);
    expect(paint([]).lines).toBe(0);
    expect(paint([{ kind: 'specks', count: 17 }]).specks).toBe(17);
  });

  it('heat lies about its middle and is darker than what is sound; rust is redder than bare lining', () => {
    const hot = paint([{ kind: 'heat', arc: 150, halfDeg: 60, most: 1 }]);
    expect(lies(hot, 'heat').arc).toBeGreaterThan(125);
    const sum = (c: number[]): number => c.reduce((a, b) => a + b, 0);
    expect(sum(colourOf(hot, 'heat'))).toBeLessThan(0.7 * sum(colourOf(hot, 'sound')));
    const rusty = paint([{ kind: 'rust', arc: 90, halfDeg: 45, amount: 0.7 }]);
    const bare = paint([{ kind: 'wipe', arc: 90, halfDeg: 20, amount: 1 }]);
    const [rust, lining] = [colourOf(rusty, 'rust'), colourOf(bare, 'lining')];
    expect(rust[0]! / rust[1]!).toBeGreaterThan(lining[0]! / lining[1]!);
    expect(sum(rust)).toBeLessThan(sum(lining));
  });

  it('fatigue breaks islands out of a net inside its patch, more the more is lost', () => {
    const of = (lost: number): SurfaceMaps => paint([{ kind: 'fatigue', arc: 70, halfDeg: 25, axial: 0.5, lost }]);
    const shares = [0.1, 0.35, 0.7].map((lost) => lies(of(lost), 'lining').share);
    expect(shares[0]).toBeLessThan(shares[1]!);
    expect(shares[1]).toBeLessThan(shares[2]!);
    const at = lies(of(0.5), 'lining');
    expect(at.arcs[0]).toBeGreaterThan(35);
    expect(at.arcs[1]).toBeLessThan(105);
    // Where material broke out the surface lies lower by a tenth of a millimetre and more.
    expect(least(of(0.5).height)).toBeLessThan(-0.1);
  });

  it('what is painted later lies over what was there', () => {
    const wiped: Damage = { kind: 'wipe', arc: 90, halfDeg: 40, amount: 1 };
    const rust: Damage = { kind: 'rust', arc: 90, halfDeg: 40, amount: 0.9 };
    expect(lies(paint([rust, wiped]), 'rust').share).toBeLessThan(lies(paint([wiped, rust]), 'rust').share);
  });

  it('a hole is a hole at its place, and is no damage', () => {
    const at = lies(paint([], { hole: { arc: 40, axial: 0.6, diameterMm: 5 } }), 'hole');
    expect(Math.abs(at.arc - 40)).toBeLessThan(1);
    expect(Math.abs(at.axial - 0.6)).toBeLessThan(0.02);
    const areaMm2 = at.share * Math.PI * SHELL.radiusMm * SHELL.widthMm;
    expect(areaMm2).toBeGreaterThan(0.85 * Math.PI * 2.5 ** 2);
    expect(areaMm2).toBeLessThan(1.25 * Math.PI * 2.5 ** 2);
  });
});

describe('a picture of a half shell', () => {
  const maps = paint([{ kind: 'wipe', arc: 90, halfDeg: 20, amount: 1 }]);
  const shoot = (change: Partial<Shot> = {}): ReturnType<typeof takeShell> =>
    takeShell(SHELL, maps, { ...USUAL_SHOT, seed: 2, width: 400, height: 300, ...change });
  const meanOf = (data: Uint8ClampedArray, k: number): number => {
    let sum = 0;
    for (let i = k; i < data.length; i += 4) sum += data[i]!;
    return sum / (data.length / 4);
  };

  const apart = (a: ReturnType<typeof takeShell>, b: ReturnType<typeof takeShell>): number =>
    a.pixels.data.reduce((n, v, i) => n + (v === b.pixels.data[i] ? 0 : 1), 0);

  it('has its four corners in the picture, left before right and front below rear', () => {
    const { corners } = shoot({ rollDeg: 0, tiltDeg: 0 });
    const [lf, lr, rr, rf] = corners as unknown as Quad;
    expect(lf[0]).toBeLessThan(rf[0]);
    expect(lr[0]).toBeLessThan(rr[0]);
    expect(lf[1]).toBeGreaterThan(lr[1]);
    expect(rf[1]).toBeGreaterThan(rr[1]);
    for (const [x, y] of corners) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(400);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(300);
    }
    // The face fills the share of the long side that was asked for, seen from so far that the parting plane is hardly nearer.
    expect((rf[0] - lf[0]) / 400).toBeGreaterThan(0.95 * USUAL_SHOT.fill);
    expect((rf[0] - lf[0]) / 400).toBeLessThan(1.15 * USUAL_SHOT.fill);
  });

  it('turns with its roll and is brighter the longer it was exposed', () => {
    const slope = (deg: number): number => {
      const [lf, , , rf] = shoot({ rollDeg: deg, tiltDeg: 0 }).corners as unknown as Quad;
      return (Math.atan2(rf[1] - lf[1], rf[0] - lf[0]) * 180) / Math.PI;
    };
    expect(Math.abs(Math.abs(slope(12) - slope(0)) - 12)).toBeLessThan(0.5);
    expect(meanOf(shoot({ exposure: 1.2 }).pixels.data, 1)).toBeGreaterThan(meanOf(shoot({ exposure: 0.6 }).pixels.data, 1) + 10);
  });

  it('takes a cast from the white balance, and is the same picture for the same seed', () => {
    const plain = shoot();
    const warm = shoot({ gains: [1.2, 1, 0.8] });
    const ratio = (p: typeof plain): number => meanOf(p.pixels.data, 0) / meanOf(p.pixels.data, 2);
    expect(ratio(warm)).toBeGreaterThan(1.1 * ratio(plain));
    expect(apart(shoot(), plain)).toBe(0);
    expect(apart(shoot({ seed: 3 }), plain)).toBeGreaterThan(1000);
  });
});
