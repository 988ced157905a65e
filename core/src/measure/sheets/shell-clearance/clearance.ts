import { combine, combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** What the running clearance of a plain bearing is made of, mm. */
export interface ShellGauging {
  /** Housing bore torqued: vertical, and 60° to either side where read. */
  readonly housingMm: { readonly vertical: number; readonly left: number | null; readonly right: number | null };
  /** Wall at the crown of the arc, and 25° above the parting line. */
  readonly upperMm: number;
  readonly lowerMm: number;
  readonly upperSideMm: number | null;
  readonly lowerSideMm: number | null;
  readonly journalMm: number;
  /** Wall of a new half, for the loss. */
  readonly newWallMm: number | null;
}

/**
 * Clearance by gauges: vertical = H − t_upper − t_lower − d; horizontal the same with the housing across and the walls at the sides; their difference is twice the
 * eccentricity that the shell is bored with. Interference is negative and valid.
 */
export function shellClearanceLines(
  g: ShellGauging,
  bore: Gauge,
  wall: Gauge,
  micrometer: Gauge,
): { lines: SheetLine[]; missing: string[] } {
  const u = combine([
    { gauge: bore, c: 1 },
    { gauge: wall, c: -1 },
    { gauge: wall, c: -1 },
    { gauge: micrometer, c: -1 },
  ]);
  const vertical = g.housingMm.vertical - g.upperMm - g.lowerMm - g.journalMm;
  const lines: SheetLine[] = [
    { id: 'vertical', name: 'Clearance, vertical', value: vertical, unit: 'mm', expanded: u, at: 'through the crowns' },
  ];
  const missing: string[] = [];
  const sides = [g.housingMm.left, g.housingMm.right].filter((v): v is number => v !== null);
  if (sides.length > 0 && g.upperSideMm !== null && g.lowerSideMm !== null) {
    const across = sides.reduce((a, b) => a + b, 0) / sides.length;
    const horizontal = across - g.upperSideMm - g.lowerSideMm - g.journalMm;
    lines.push(
      { id: 'horizontal', name: 'Clearance, across', value: horizontal, unit: 'mm', expanded: u, at: '25° above the parting line' },
      {
        id: 'eccentricity',
        signed: true,
        name: 'Wall eccentricity',
        value: (horizontal - vertical) / 2,
        unit: 'mm',
        expanded: u / Math.SQRT2,
        at: 'half the difference, positive opens the sides',
      },
    );
  } else missing.push('housing across and walls at the sides, so no horizontal clearance');
  if (g.newWallMm !== null)
    for (const [half, mm] of [
      ['upper', g.upperMm],
      ['lower', g.lowerMm],
    ] as const)
      lines.push({
        id: `wallLoss.${half}`,
        name: `Wall loss, ${half}`,
        value: g.newWallMm - mm,
        unit: 'mm',
        expanded: combinedExpanded(wall, [1]),
        at: 'at the crown, against a new half',
      });
  return { lines, missing };
}
