import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/**
 * Clearance by crushed strip: the thread's area is kept, so c = π d² / (4 w). Uncertainty from the width (δc = c δw / w) and the thread (δc = 2 c δd / d, 5 µm).
 */
export function crushedStripLines(
  threadMm: number,
  widths: ReadonlyArray<{ readonly at: string; readonly widthMm: number }>,
  gauge: Gauge,
): SheetLine[] {
  const uw = combinedExpanded(gauge, [1]);
  const ud = 0.005;
  const each = widths.map((w) => {
    const c = (Math.PI * threadMm * threadMm) / (4 * w.widthMm);
    return { at: w.at, c, u: Math.hypot((c * uw) / w.widthMm, (2 * c * ud) / threadMm) };
  });
  const lines: SheetLine[] = each.map((e) => ({
    id: `strip.${e.at}`,
    name: `Clearance, ${e.at}`,
    value: e.c,
    unit: 'mm',
    expanded: e.u,
    at: e.at,
  }));
  const [first] = each;
  const last = each.at(-1);
  const least = [...each].sort((a, b) => a.c - b.c)[0];
  if (least) lines.push({ id: 'clearance', name: 'Least clearance', value: least.c, unit: 'mm', expanded: least.u, at: least.at });
  if (first && last && first !== last)
    lines.push({
      id: 'taper',
      name: 'Taper of clearance',
      value: last.c - first.c,
      unit: 'mm',
      expanded: Math.hypot(first.u, last.u),
      at: `${first.at} to ${last.at}`,
    });
  return lines;
}
