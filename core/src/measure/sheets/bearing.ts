import { combine, type Gauge } from '../../units/gauge.js';
import type { SheetLine } from './line.js';

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
        expanded: combine([{ gauge: wall, c: 1 }]),
        at: 'at the crown, against a new half',
      });
  return { lines, missing };
}

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
      expanded: combine([{ gauge, c: 1 }]),
      at: 'above the joint, one half pressed home',
    });
  if (f.freeSpreadMm !== null && f.housingMm !== null)
    lines.push({
      id: 'spread',
      name: 'Free spread',
      value: f.freeSpreadMm - f.housingMm,
      unit: 'mm',
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
      at: 'across the ends, over the housing',
    });
  return lines;
}

/**
 * Clearance by crushed strip: the thread's area is kept, so c = π d² / (4 w). Uncertainty from the width (δc = c δw / w) and the thread (δc = 2 c δd / d, 5 µm).
 */
export function crushedStripLines(
  threadMm: number,
  widths: ReadonlyArray<{ readonly at: string; readonly widthMm: number }>,
  gauge: Gauge,
): SheetLine[] {
  const uw = combine([{ gauge, c: 1 }]);
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

/** Housing bore: out-of-round over the directions, stretch = along the rod or bolt line − mean of the others. */
export function housingLines(directions: ReadonlyArray<{ readonly direction: string; readonly mm: number }>, gauge: Gauge): SheetLine[] {
  const sorted = [...directions].sort((a, b) => b.mm - a.mm);
  const [most] = sorted;
  const least = sorted.at(-1);
  if (!most || !least) return [];
  const lines: SheetLine[] = [
    { id: 'greatest', name: 'Greatest', value: most.mm, unit: 'mm', expanded: combine([{ gauge, c: 1 }]), at: most.direction },
    { id: 'least', name: 'Least', value: least.mm, unit: 'mm', expanded: combine([{ gauge, c: 1 }]), at: least.direction },
    {
      id: 'outOfRound',
      name: 'Out-of-round',
      value: most.mm - least.mm,
      unit: 'mm',
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
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
      expanded: combine([{ gauge, c: 1 }, ...others.map(() => ({ gauge, c: -1 / others.length }))]),
      at: 'vertical over the mean of the others',
    });
  return lines;
}

/** End float or side clearance: travel between the stops. */
export function travelLines(id: string, name: string, towardsMm: number, awayMm: number, gauge: Gauge): SheetLine[] {
  return [
    {
      id,
      name,
      value: Math.abs(towardsMm - awayMm),
      unit: 'mm',
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
      at: 'stop to stop',
    },
  ];
}

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
      expanded: combine([{ gauge, c: 1 }]),
      at: `main ${most.main}, under the straight edge`,
    },
  ];
  if (sorted.length > 1)
    lines.push({
      id: 'step',
      name: 'Greatest step',
      value: step.value,
      unit: 'mm',
      expanded: combine([
        { gauge, c: 1 },
        { gauge, c: -1 },
      ]),
      at: step.at,
    });
  return lines;
}
