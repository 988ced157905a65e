import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/**
 * Main line by straight edge or bar laid through the housings: feeler that enters at each. The greatest gap, and the greatest step from one housing to the
 * next, which bends the crank more than a long bow does.
 */
export function mainLineLines(gaps: ReadonlyArray<{ readonly main: number; readonly gapMm: number }>, gauge: Gauge): SheetLine[] {
  const sorted = [...gaps].sort((a, b) => a.main - b.main);
  const [first] = sorted;
  if (!first) return [];
  const most = sorted.reduce((a, b) => (b.gapMm > a.gapMm ? b : a));
  let step = { value: 0, at: '' };
  sorted.slice(1).forEach((g, i) => {
    const value = Math.abs(g.gapMm - sorted[i]!.gapMm);
    if (value >= step.value) step = { value, at: `main ${sorted[i]!.main} to ${g.main}` };
  });
  const lines: SheetLine[] = [
    {
      id: 'line',
      name: 'Greatest gap',
      value: most.gapMm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1]),
      at: `main ${most.main}, under the straight edge`,
    },
  ];
  if (sorted.length > 1)
    lines.push({
      id: 'step',
      name: 'Greatest step',
      value: step.value,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1, -1]),
      at: step.at,
    });
  return lines;
}
