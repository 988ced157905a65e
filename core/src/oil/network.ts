/** A steady network of pressures and flows. Pressures over that of the crankcase, Pa; flows m³/s; every element carries a flow that rises with the difference of its pressures. */

/** Flow through an element, and its slope, at a difference of pressure. */
export type FlowLaw = (difference: number) => readonly [flow: number, slope: number];

export interface Element {
  readonly name: string;
  readonly from: string;
  /** Null: to the pan. */
  readonly to: string | null;
  readonly law: FlowLaw;
  /** Pressure the element itself adds on the way, Pa: what the turning crank does to oil in its drillings. */
  readonly head?: number;
}

/** What feeds a node from outside: a pump, whose flow falls with the pressure it meets. */
export interface Source {
  readonly node: string;
  readonly law: (pressure: number) => readonly [flow: number, slope: number];
}

export interface Solved {
  readonly pressure: ReadonlyMap<string, number>;
  readonly flow: ReadonlyMap<string, number>;
  /** Largest flow that does not balance at a node, over the flow of the source. */
  readonly unbalanced: number;
  readonly rounds: number;
}

const ROUNDS = 200;
/** Balance that is reached, of the flow of the source. */
const BALANCED = 1e-12;
/** No step is longer than this, Pa: a valve may open on the way. */
const LONGEST_STEP = 2e5;

/** Solves for the pressures at which every node passes on what it gets: Newton's method with steps that are held short, and halved where they do not help. */
export function solveNetwork(nodes: readonly string[], elements: readonly Element[], source: Source, start = 3e5): Solved {
  const at = new Map(nodes.map((n, i) => [n, i]));
  const n = nodes.length;
  let p = new Float64Array(n).fill(start);
  const balance = (pressures: Float64Array, slopes: Float64Array | null): Float64Array => {
    const off = new Float64Array(n);
    slopes?.fill(0);
    const s = at.get(source.node)!;
    const [given, falls] = source.law(pressures[s]!);
    off[s]! += given;
    if (slopes) slopes[s * n + s]! += falls;
    for (const e of elements) {
      const i = at.get(e.from)!;
      const j = e.to === null ? -1 : at.get(e.to)!;
      const [flow, slope] = e.law(pressures[i]! - (j < 0 ? 0 : pressures[j]!) + (e.head ?? 0));
      off[i]! -= flow;
      if (slopes) slopes[i * n + i]! -= slope;
      if (j < 0) continue;
      off[j]! += flow;
      if (slopes) {
        slopes[j * n + j]! -= slope;
        slopes[i * n + j]! += slope;
        slopes[j * n + i]! += slope;
      }
    }
    return off;
  };
  const size = (off: Float64Array): number => off.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const slopes = new Float64Array(n * n);
  const scale = Math.max(1e-12, Math.abs(source.law(0)[0]));
  let off = balance(p, slopes);
  let rounds = 0;
  while (size(off) > BALANCED * scale && rounds < ROUNDS) {
    const step = solvedBy(slopes, off, n);
    let share = Math.min(1, LONGEST_STEP / Math.max(1e-9, size(step)));
    let next = p;
    let nextOff = off;
    for (let halved = 0; halved < 20; halved++, share /= 2) {
      next = p.map((v, i) => v - share * step[i]!);
      nextOff = balance(next, null);
      if (size(nextOff) < size(off) || halved === 19) break;
    }
    if (size(nextOff) >= size(off)) break;
    p = next;
    off = balance(p, slopes);
    rounds++;
  }
  const flow = new Map<string, number>();
  for (const e of elements) flow.set(e.name, e.law(p[at.get(e.from)!]! - (e.to === null ? 0 : p[at.get(e.to)!]!) + (e.head ?? 0))[0]);
  return { pressure: new Map(nodes.map((name, i) => [name, p[i]!])), flow, unbalanced: size(off) / scale, rounds };
}

/** Gauss with the largest pivot; what cannot be determined stays where it is. */
function solvedBy(matrix: Float64Array, right: Float64Array, n: number): Float64Array {
  const a = matrix.slice();
  const x = right.slice();
  const row = Array.from({ length: n }, (_, i) => i);
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[row[i]! * n + k]!) > Math.abs(a[row[best]! * n + k]!)) best = i;
    [row[k], row[best]] = [row[best]!, row[k]!];
    const pivot = a[row[k]! * n + k]!;
    if (pivot === 0) continue;
    for (let i = k + 1; i < n; i++) {
      const f = a[row[i]! * n + k]! / pivot;
      if (f === 0) continue;
      for (let j = k; j < n; j++) a[row[i]! * n + j]! -= f * a[row[k]! * n + j]!;
      x[row[i]!]! -= f * x[row[k]!]!;
    }
  }
  const out = new Float64Array(n);
  for (let k = n - 1; k >= 0; k--) {
    let v = x[row[k]!]!;
    for (let j = k + 1; j < n; j++) v -= a[row[k]! * n + j]! * out[j]!;
    const pivot = a[row[k]! * n + k]!;
    out[k] = pivot === 0 ? 0 : v / pivot;
  }
  return out;
}

/** A drilling: laminar along its length (Hagen and Poiseuille) and losses of its ends, Δp = 128 μ l / (π d⁴) Q + ζ ρ / (2 A²) Q |Q|. */
export function drilling(diameterM: number, lengthM: number, viscosityPaS: number, density: number, losses = 1.5): FlowLaw {
  const area = (Math.PI / 4) * diameterM * diameterM;
  return resistance((128 * viscosityPaS * lengthM) / (Math.PI * diameterM ** 4), (losses * density) / (2 * area * area));
}

/** Δp = a Q + b Q |Q|. */
export function resistance(a: number, b: number): FlowLaw {
  return (difference) => {
    const size = Math.abs(difference);
    if (b === 0) return [difference / a, 1 / a];
    const root = Math.sqrt(a * a + 4 * b * size);
    return [(Math.sign(difference) * (root - a)) / (2 * b), 1 / root];
  };
}

/** A valve that begins to open at a pressure and lets through in proportion beyond it; a leak of one part in a million keeps it determined. */
export function valve(opensPa: number, perPa: number): FlowLaw {
  const leak = perPa * 1e-6;
  return (difference) => (difference <= opensPa ? [difference * leak, leak] : [opensPa * leak + (difference - opensPa) * perPa, perPa]);
}

/** Both ways side by side. */
export const beside =
  (...laws: readonly FlowLaw[]): FlowLaw =>
  (difference) =>
    laws.reduce<readonly [number, number]>(([q, s], law) => [q + law(difference)[0], s + law(difference)[1]], [0, 0]);
