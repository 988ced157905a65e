import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** One diameter of a bore, mm, at a depth below the deck and an axis (`A` across the crank, `B` along it, `C` and `D` between). */
export interface BoreReading {
  readonly depthMm: number;
  readonly axis: string;
  readonly mm: number;
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
  const one = combinedExpanded(gauge, [1]);
  const two = combinedExpanded(gauge, [1, -1]);
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
      expanded: combinedExpanded(gauge, [1, -0.5, -0.5]),
      at: `axis ${form.axis}, ${form.value >= 0 ? 'wider in the middle' : 'narrower in the middle'}`,
    });
  else missing.push('a middle depth, so no form');
  return { lines, missing };
}
