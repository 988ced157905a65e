import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Bend and twist of a rod between its eyes, carried over to 100 mm. */
export function rodLines(
  r: { readonly bendMm: number | null; readonly twistMm: number | null; readonly overMm: number; readonly centresMm: number | null },
  gauge: Gauge,
): SheetLine[] {
  const lines: SheetLine[] = [];
  const u = combinedExpanded(gauge, [100 / r.overMm]);
  if (r.bendMm !== null)
    lines.push({
      id: 'bend',
      name: 'Bend per 100 mm',
      value: (r.bendMm * 100) / r.overMm,
      unit: 'mm',
      expanded: u,
      at: `read over ${r.overMm} mm`,
    });
  if (r.twistMm !== null)
    lines.push({
      id: 'twist',
      name: 'Twist per 100 mm',
      value: (r.twistMm * 100) / r.overMm,
      unit: 'mm',
      expanded: u,
      at: `read over ${r.overMm} mm`,
    });
  if (r.centresMm !== null)
    lines.push({
      id: 'centres',
      name: 'Length between centres',
      value: r.centresMm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1]),
      at: 'eye to eye',
    });
  return lines;
}
