import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

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
  const one = combinedExpanded(gauge, [1]);
  const two = combinedExpanded(gauge, [1, -1]);
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
