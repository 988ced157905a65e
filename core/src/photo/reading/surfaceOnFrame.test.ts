import { stationsOf, type SurfaceFrame } from '../../engine/stations.js';
import { engineTemplate } from '../../engine/templates.js';
import type { WearMap } from '../../damage/wearMap.js';
import { WEAR_CLASSES, type WearClass } from '../../damage/classes.js';
import { takeRound } from '../../specimen/roundScene.js';
import { takeShell } from '../../specimen/shellScene.js';
import { USUAL_SHOT } from '../../specimen/scene.js';
import { surfaceMaps } from '../../specimen/surfaceMaps.js';
import type { Damage } from '../../specimen/damages.js';
import type { Pixels } from '../flatten.js';
import { colourOf } from './light.js';
import { surfaceOnFrame, type SurfacePiece } from './surfaceOnFrame.js';

const frameOf = (part: string): SurfaceFrame =>
  stationsOf(engineTemplate('inline-4-petrol')!.layout).find((s) => s.part === part)!.surface!;
const SHOT = { ...USUAL_SHOT, width: 900, height: 675, focal: 1.7, fill: 0.6, tiltDeg: 5 };

function shell(damages: readonly Damage[], seed: number): SurfacePiece {
  const frame = frameOf('shell');
  const specimen = { seed, radiusMm: frame.widthMm / Math.PI, widthMm: frame.heightMm, damages };
  const { pixels, corners } = takeShell(specimen, surfaceMaps(specimen), { ...SHOT, seed });
  return { picture: pixels, corners, turn: { facingDeg: 180, arcDeg: 90 } };
}

function journal(damages: readonly Damage[], facingDeg: number): SurfacePiece {
  const frame = frameOf('journal');
  const specimen = {
    seed: 3,
    radiusMm: frame.widthMm / (2 * Math.PI),
    widthMm: frame.heightMm,
    spanDeg: 360,
    finish: 'ground-steel' as const,
    damages,
  };
  const { pixels, corners } = takeRound(specimen, surfaceMaps(specimen, 1800, 240), { ...SHOT, seed: 3, fill: 0.4 }, 'journal', facingDeg);
  return { picture: pixels, corners, turn: { facingDeg, arcDeg: 180 } };
}

/** Mean redness, yellowness and light of a window of the surface, shares from the left upper corner. */
function look({ width, height, data }: Pixels, u: readonly [number, number], v: readonly [number, number]): number[] {
  const sum = [0, 0, 0];
  let n = 0;
  for (let y = Math.floor(v[0] * height); y < v[1] * height; y++)
    for (let x = Math.floor(u[0] * width); x < u[1] * width; x++) {
      const i = 4 * (y * width + x);
      if (data[i + 3] === 0) continue;
      colourOf(data[i]!, data[i + 1]!, data[i + 2]!).forEach((c, k) => (sum[k]! += c));
      n++;
    }
  return sum.map((s) => s / n);
}

const there = ({ data }: Pixels): number => data.filter((_, i) => i % 4 === 3 && data[i]! > 0).length / (data.length / 4);

const laid = (part: 'shell' | 'journal', pieces: readonly SurfacePiece[], read: WearMap | null = null): Pixels => {
  const answer = surfaceOnFrame(part, frameOf(part), pieces, 800, read);
  if (!answer.ok) throw new Error(answer.problem.sentence);
  return answer.value;
};

function readAs(frame: SurfaceFrame, name: WearClass): WearMap {
  const size = frame.columns * frame.rows;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(size).fill(c === name ? 1 : 0)])) as Record<
    WearClass,
    Float32Array
  >;
  return { columns: frame.columns, rows: frame.rows, shares, seen: new Float32Array(size).fill(1) };
}

describe('a photographed surface on the frame of its place', () => {
  it('has the proportions of the frame, and sound metal of one light wherever it lies', () => {
    const surface = laid('shell', [shell([], 5)]);
    const frame = frameOf('shell');
    expect(surface.width / surface.height).toBeCloseTo(frame.widthMm / frame.heightMm, 1);
    const lights = [0.2, 0.35, 0.5, 0.65, 0.8].map((u) => look(surface, [u - 0.05, u + 0.05], [0.2, 0.8])[2]!);
    expect(Math.max(...lights) - Math.min(...lights)).toBeLessThan(0.35);
  });

  it('keeps copper copper, and puts it where it lies', () => {
    const surface = laid('shell', [shell([{ kind: 'wipe', arc: 90, halfDeg: 25, amount: 1.2 }], 5)]);
    const [copper, metal] = [look(surface, [0.46, 0.54], [0.4, 0.6]), look(surface, [0.12, 0.22], [0.3, 0.7])];
    expect(copper[0]! - metal[0]!).toBeGreaterThan(0.3);
    expect(Math.abs(metal[0]!)).toBeLessThan(0.12);
  });

  it('the halves of a turn from two pictures make the whole', () => {
    const one = laid('journal', [journal([], 90)]);
    const two = laid('journal', [journal([], 90), journal([], 270)]);
    expect(there(one)).toBeLessThan(0.5);
    expect(there(two)).toBeGreaterThan(0.75);
  });

  it('a journal blued all round keeps its blue where it was read as such, and loses it where nobody knew', () => {
    const piece = journal([{ kind: 'temper', arc: 180, halfDeg: 200, axial: 0.5, axialHalf: 2, most: 0.8 }], 180);
    const blue = (p: Pixels): number => look(p, [0.45, 0.55], [0.3, 0.7])[1]!;
    const known = laid('journal', [piece], readAs(frameOf('journal'), 'heat'));
    expect(blue(known)).toBeLessThan(-0.2);
    expect(blue(known)).toBeLessThan(blue(laid('journal', [piece])) - 0.1);
  });

  it('says why nothing can be laid out where no picture can be developed', () => {
    const piece = shell([], 5);
    const crossed = { ...piece, corners: [piece.corners[0]!, piece.corners[2]!, piece.corners[1]!, piece.corners[3]!] };
    const answer = surfaceOnFrame('shell', frameOf('shell'), [crossed], 400);
    expect(answer.ok).toBe(false);
    if (!answer.ok) expect(answer.problem.sentence).toMatch(/corner/i);
  });
});
