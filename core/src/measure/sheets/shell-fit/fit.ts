import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Fit of the halves: crush from the protrusion, free spread over the housing. */
export function shellFitLines(
  f: { readonly protrusionMm: number | null; readonly freeSpreadMm: number | null; readonly housingMm: number | null },
  gauge: Gauge,
): SheetLine[] {
  const lines: SheetLine[] = [];
  if (f.protrusionMm !== null)
    lines.push({
      id: 'crush',
      name: 'Crush',
      value: f.protrusionMm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1]),
      at: 'above the joint, one half pressed home',
    });
  if (f.freeSpreadMm !== null && f.housingMm !== null)
    lines.push({
      id: 'spread',
      name: 'Free spread',
      value: f.freeSpreadMm - f.housingMm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1, -1]),
      at: 'across the ends, over the housing',
    });
  return lines;
}
