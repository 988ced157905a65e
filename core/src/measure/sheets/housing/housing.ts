import { combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Housing bore: out-of-round over the directions, stretch = along the rod or bolt line − mean of the others. */
export function housingLines(directions: ReadonlyArray<{ readonly direction: string; readonly mm: number }>, gauge: Gauge): SheetLine[] {
  const sorted = [...directions].sort((a, b) => b.mm - a.mm);
  const [most] = sorted;
  const least = sorted.at(-1);
  if (!most || !least) return [];
  const lines: SheetLine[] = [
    { id: 'greatest', name: 'Greatest', value: most.mm, unit: 'mm', expanded: combinedExpanded(gauge, [1]), at: most.direction },
    { id: 'least', name: 'Least', value: least.mm, unit: 'mm', expanded: combinedExpanded(gauge, [1]), at: least.direction },
    {
      id: 'outOfRound',
      name: 'Out-of-round',
      value: most.mm - least.mm,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1, -1]),
      at: `${most.direction} over ${least.direction}`,
    },
  ];
  const vertical = directions.find((d) => d.direction === 'vertical');
  const others = directions.filter((d) => d !== vertical);
  if (vertical && others.length > 0)
    lines.push({
      id: 'stretch',
      name: 'Stretch',
      value: vertical.mm - others.reduce((s, o) => s + o.mm, 0) / others.length,
      unit: 'mm',
      expanded: combinedExpanded(gauge, [1, ...others.map(() => -1 / others.length)]),
      at: 'vertical over the mean of the others',
    });
  return lines;
}
