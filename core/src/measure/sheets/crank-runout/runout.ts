import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** What an indicator shows at one main over a turn of the crank. */
export interface RunoutReading {
  readonly main: number;
  /** Position along the crank, mm. */
  readonly alongMm: number;
  /** Total indicator reading, mm. */
  readonly tirMm: number;
  /** Crank angle of the high side, degrees. */
  readonly highDeg: number;
}

/**
 * Crank bow from the runout at each main, resting on the outer two. Half the indicator reading at its angle is the offset of the journal; what is off the line
 * through the supports is the bow. A single bent throw makes two straight pieces with one kink: fitted at each main in turn, it is named when it
 * leaves less than a quarter of the offsets' sum of squares.
 */
export function crankRunout(readings: readonly RunoutReading[], gauge: Gauge): { lines: SheetLine[]; says: string[] } {
  const sorted = [...readings].sort((a, b) => a.alongMm - b.alongMm);
  if (sorted.length < 3) return { lines: [], says: ['Runout at three mains at least is needed.'] };
  const offset = sorted.map((r) => {
    const rad = (r.highDeg * Math.PI) / 180;
    return [(r.tirMm / 2) * Math.cos(rad), (r.tirMm / 2) * Math.sin(rad)] as const;
  });
  const first = sorted[0]!;
  const last = sorted.at(-1)!;
  const bow = sorted.map((r, i) => {
    const t = (r.alongMm - first.alongMm) / (last.alongMm - first.alongMm);
    const base = [0, 1].map((k) => offset[0]![k]! * (1 - t) + offset.at(-1)![k]! * t);
    return [offset[i]![0] - base[0]!, offset[i]![1] - base[1]!] as const;
  });
  const size = bow.map((b) => Math.hypot(...b));
  const worst = size.indexOf(Math.max(...size));
  const total = size.reduce((s, v) => s + v * v, 0);
  let best: { main: number; rest: number } | null = null;
  for (let k = 1; k < sorted.length - 1; k++) {
    // A tent with its top at main k: height by least squares over the others.
    const shape = sorted.map((r) =>
      r.alongMm <= sorted[k]!.alongMm
        ? (r.alongMm - first.alongMm) / (sorted[k]!.alongMm - first.alongMm)
        : (last.alongMm - r.alongMm) / (last.alongMm - sorted[k]!.alongMm),
    );
    const norm = shape.reduce((s, v) => s + v * v, 0);
    const top = [0, 1].map((c) => shape.reduce((s, v, i) => s + v * bow[i]![c]!, 0) / norm);
    const rest = bow.reduce((s, b, i) => s + (b[0] - top[0]! * shape[i]!) ** 2 + (b[1] - top[1]! * shape[i]!) ** 2, 0);
    if (!best || rest < best.rest) best = { main: sorted[k]!.main, rest };
  }
  const phase = ((Math.atan2(bow[worst]![1], bow[worst]![0]) * 180) / Math.PI + 360) % 360;
  const u = combinedExpanded(gauge, [1]);
  const lines: SheetLine[] = [
    {
      id: 'runout',
      name: 'Greatest runout',
      value: Math.max(...sorted.map((r) => r.tirMm)),
      unit: 'mm',
      expanded: u,
      at: `main ${sorted.reduce((a, b) => (b.tirMm > a.tirMm ? b : a)).main}`,
    },
    {
      id: 'bow',
      name: 'Bow',
      value: size[worst]! * 2,
      unit: 'mm',
      expanded: u,
      at: `main ${sorted[worst]!.main}, high at ${phase.toFixed(0)}°, as indicator reading`,
    },
  ];
  const single = best !== null && total > 0 && best.rest < total / 4;
  return {
    lines,
    says: [
      single
        ? `One bend at main ${best!.main} or the throws beside it accounts for it.`
        : 'No single bend accounts for it: the crank is bowed as a whole, or the mains are worn unevenly.',
    ],
  };
}
