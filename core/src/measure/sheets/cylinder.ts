import { combine, type Gauge } from '../../units/gauge.js';
import type { SheetLine } from './line.js';

export interface BoreReading {
  readonly depthMm: number;
  readonly axis: string;
  readonly mm: number;
}

/** Next oversize: the smallest step whose finished size clears the greatest reading by the clean-up a side and by twice the deepest mark. */
export function nextOversize(
  greatestMm: number,
  newMm: { readonly min: number; readonly max: number },
  steps: readonly number[],
  deepestMarkMm = 0,
  cleanUpMm = 0.025,
): { readonly step: number | null; readonly words: string } {
  const need = Math.max(2 * cleanUpMm, 2 * deepestMarkMm);
  for (const step of [...steps].sort((a, b) => a - b)) {
    const finished = (newMm.min + newMm.max) / 2 + step;
    const spare = finished - greatestMm - need;
    if (spare > -1e-9)
      return {
        step,
        words: `Next oversize +${step.toFixed(2)} mm, to ${finished.toFixed(3)} mm; ${spare.toFixed(3)} mm to spare beyond the ${need.toFixed(3)} mm needed.`,
      };
  }
  return { step: null, words: steps.length === 0 ? 'No oversizes are listed.' : 'No oversize is left: sleeve or replace.' };
}

/**
 * Bore sheet. Wear = greatest − unworn reference; ovality per depth = |A − B| and which axis is wider; taper per axis = top − bottom (positive is wider at
 * the top), the greatest by amount; form = middle − mean(ends), positive is wider in the middle; the ridge a side is half of what the
 * uppermost plane of the ring travel is wider than the unworn reference above it.
 */
export function boreLines(
  readings: readonly BoreReading[],
  unwornMm: number | null,
  gauge: Gauge,
): { lines: SheetLine[]; missing: string[] } {
  const lines: SheetLine[] = [];
  const missing: string[] = [];
  const depths = [...new Set(readings.map((r) => r.depthMm))].sort((a, b) => a - b);
  const axes = [...new Set(readings.map((r) => r.axis))].sort();
  const at = (depth: number, axis: string): number | undefined => readings.find((r) => r.depthMm === depth && r.axis === axis)?.mm;
  const one = combine([{ gauge, c: 1 }]);
  const two = combine([
    { gauge, c: 1 },
    { gauge, c: -1 },
  ]);
  const most = [...readings].sort((a, b) => b.mm - a.mm)[0];
  if (!most) return { lines, missing: ['every reading'] };
  const where = (r: BoreReading): string => `${r.depthMm} mm below the deck, axis ${r.axis}`;
  lines.push({ id: 'greatest', name: 'Greatest', value: most.mm, unit: 'mm', expanded: one, at: where(most) });
  if (unwornMm === null) missing.push('the unworn reference, so no wear');
  else
    lines.push({
      id: 'wear',
      name: 'Wear',
      value: most.mm - unwornMm,
      unit: 'mm',
      expanded: two,
      at: `${where(most)}, against the unworn reference`,
    });
  let oval: { depth: number; value: number; wide: string } | null = null;
  for (const depth of depths) {
    const own = axes.flatMap((axis) => {
      const mm = at(depth, axis);
      return mm === undefined ? [] : [{ axis, mm }];
    });
    if (own.length < 2) continue;
    own.sort((a, b) => b.mm - a.mm);
    const value = own[0]!.mm - own.at(-1)!.mm;
    if (!oval || value > oval.value) oval = { depth, value, wide: own[0]!.axis };
  }
  if (oval)
    lines.push({
      id: 'ovality',
      name: 'Ovality',
      value: oval.value,
      unit: 'mm',
      expanded: two,
      at: `${oval.depth} mm below the deck, wider on axis ${oval.wide}`,
    });
  else missing.push('a second axis, so no ovality');
  const top = depths[0]!;
  const bottom = depths.at(-1)!;
  let taper: { axis: string; value: number } | null = null;
  for (const axis of axes) {
    const a = at(top, axis);
    const b = at(bottom, axis);
    if (a === undefined || b === undefined || top === bottom) continue;
    if (!taper || Math.abs(a - b) > Math.abs(taper.value)) taper = { axis, value: a - b };
  }
  if (taper)
    lines.push({
      id: 'taper',
      signed: true,
      name: 'Taper',
      value: taper.value,
      unit: 'mm',
      expanded: two,
      at: `axis ${taper.axis}, ${taper.value >= 0 ? 'wider at the top' : 'wider at the bottom'}`,
    });
  else missing.push('a second depth, so no taper');
  if (unwornMm !== null) {
    const upper = Math.max(...readings.filter((r) => r.depthMm === top).map((r) => r.mm));
    lines.push({
      id: 'ridge',
      name: 'Ridge, a side',
      value: (upper - unwornMm) / 2,
      unit: 'mm',
      expanded: two / 2,
      at: `${top} mm below the deck, against the unworn reference`,
    });
  }
  const middles = depths.slice(1, -1);
  let form: { axis: string; value: number } | null = null;
  for (const axis of axes) {
    const a = at(top, axis);
    const b = at(bottom, axis);
    if (a === undefined || b === undefined) continue;
    for (const m of middles) {
      const mid = at(m, axis);
      if (mid === undefined) continue;
      const value = mid - (a + b) / 2;
      if (!form || Math.abs(value) > Math.abs(form.value)) form = { axis, value };
    }
  }
  if (form)
    lines.push({
      id: 'form',
      signed: true,
      name: 'Form in the middle',
      value: form.value,
      unit: 'mm',
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -0.5 },
        { gauge, c: -0.5 },
      ]),
      at: `axis ${form.axis}, ${form.value >= 0 ? 'wider in the middle' : 'narrower in the middle'}`,
    });
  else missing.push('a middle depth, so no form');
  return { lines, missing };
}

export interface PistonReading {
  /** Skirt across the thrust axis at the gauge point. */
  readonly gaugePointMm: number;
  readonly boreMm: number | null;
  readonly newMm: number | null;
  readonly crownMm: number | null;
  readonly pinBossMm: number | null;
  /** Height of the worn print on the skirt. */
  readonly printMm: number | null;
}

/**
 * Piston: clearance in its bore at the gauge point (interference is negative and valid), skirt collapse against the size new, pin boss and height of the skirt's
 * print as read; the crown must be the smaller, and the drop from the gauge point to it is told.
 */
export function pistonLines(p: PistonReading, pistonGauge: Gauge, boreGauge: Gauge): SheetLine[] {
  const { gaugePointMm: pistonMm, boreMm, newMm } = p;
  const lines: SheetLine[] = [];
  const plain = (id: string, name: string, value: number | null, at: string): void => {
    if (value !== null) lines.push({ id, name, value, unit: 'mm', expanded: combine([{ gauge: pistonGauge, c: 1 }]), at });
  };
  if (boreMm !== null)
    lines.push({
      id: 'clearance',
      name: 'Piston to bore',
      value: boreMm - pistonMm,
      unit: 'mm',
      expanded: combine([
        { gauge: boreGauge, c: 1 },
        { gauge: pistonGauge, c: -1 },
      ]),
      at: 'at the gauge point',
    });
  if (newMm !== null)
    lines.push({
      id: 'collapse',
      name: 'Skirt collapse',
      value: newMm - pistonMm,
      unit: 'mm',
      expanded: combine([{ gauge: pistonGauge, c: 1 }]),
      at: 'against the size new',
    });
  plain('pinBoss', 'Pin boss', p.pinBossMm, 'across the bore for the gudgeon pin');
  plain('print', 'Height of the print', p.printMm, 'on the skirt');
  if (p.crownMm !== null)
    lines.push({
      id: 'crownDrop',
      name: 'Crown below the skirt',
      value: pistonMm - p.crownMm,
      unit: 'mm',
      expanded: combine([
        { gauge: pistonGauge, c: 1 },
        { gauge: pistonGauge, c: -1 },
      ]),
      at: 'gauge point − crown, on diameter',
    });
  return lines;
}

/**
 * Ring: end gaps, diametral wear of the bore from the growth of the gap (Δgap / π), side clearance in its groove, tangential tension on a spring scale and
 * free gap. The scale is taken to be good to 3 % of its reading, 0.5 N at least.
 */
export function ringLines(
  r: {
    readonly gapUnwornMm: number | null;
    readonly gapWornMm: number | null;
    readonly grooveMm: number | null;
    readonly ringMm: number | null;
    readonly grooveDepthMm: number | null;
    readonly ringDepthMm: number | null;
    readonly freeGapMm: number | null;
    readonly tensionN: number | null;
  },
  gauge: Gauge,
): SheetLine[] {
  const one = combine([{ gauge, c: 1 }]);
  const two = combine([
    { gauge, c: 1 },
    { gauge, c: -1 },
  ]);
  const lines: SheetLine[] = [];
  if (r.gapUnwornMm !== null)
    lines.push({ id: 'gap', name: 'End gap', value: r.gapUnwornMm, unit: 'mm', expanded: one, at: 'in the unworn bore' });
  if (r.gapWornMm !== null)
    lines.push({ id: 'gapWorn', name: 'End gap, worn', value: r.gapWornMm, unit: 'mm', expanded: one, at: 'in the ring travel' });
  if (r.gapUnwornMm !== null && r.gapWornMm !== null)
    lines.push({
      id: 'boreWear',
      name: 'Bore wear by the gap',
      value: (r.gapWornMm - r.gapUnwornMm) / Math.PI,
      unit: 'mm',
      expanded: two / Math.PI,
      at: 'growth of the gap over π, on diameter',
    });
  if (r.grooveMm !== null && r.ringMm !== null)
    lines.push({ id: 'side', name: 'Side clearance', value: r.grooveMm - r.ringMm, unit: 'mm', expanded: two, at: 'ring in its groove' });
  if (r.grooveDepthMm !== null && r.ringDepthMm !== null)
    lines.push({
      id: 'back',
      name: 'Back clearance',
      value: r.grooveDepthMm - r.ringDepthMm,
      unit: 'mm',
      expanded: two,
      at: 'ring pressed home',
    });
  if (r.freeGapMm !== null)
    lines.push({ id: 'freeGap', name: 'Free gap', value: r.freeGapMm, unit: 'mm', expanded: one, at: 'ring out of the bore' });
  if (r.tensionN !== null)
    lines.push({
      id: 'tension',
      name: 'Tension',
      value: r.tensionN,
      unit: 'N',
      expanded: Math.max(0.5, 0.03 * r.tensionN),
      at: 'tangential, on a spring scale',
    });
  return lines;
}
