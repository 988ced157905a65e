import { combine, combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Cam: lift of each lobe over its base circle, loss against the greatest of its kind or the lift new. */
export function camLines(
  lobes: ReadonlyArray<{ readonly lobe: string; readonly kind: string; readonly heightMm: number; readonly baseMm: number }>,
  newLiftMm: Readonly<Record<string, number>>,
  gauge: Gauge,
): SheetLine[] {
  const two = combinedExpanded(gauge, [1, -1]);
  const lift = lobes.map((l) => ({ ...l, lift: l.heightMm - l.baseMm }));
  const best = (kind: string): number => newLiftMm[kind] ?? Math.max(...lift.filter((l) => l.kind === kind).map((l) => l.lift));
  return lift.flatMap((l): SheetLine[] => [
    { id: `lift.${l.lobe}`, name: `Lift, lobe ${l.lobe}`, value: l.lift, unit: 'mm', expanded: two, at: `${l.kind} lobe ${l.lobe}` },
    {
      id: `loss.${l.lobe}`,
      name: `Lift lost, lobe ${l.lobe}`,
      value: best(l.kind) - l.lift,
      unit: 'mm',
      expanded: newLiftMm[l.kind] === undefined ? two * Math.SQRT2 : two,
      at: newLiftMm[l.kind] === undefined ? `against the best ${l.kind} lobe` : 'against the lift new',
    },
  ]);
}

/** Camshaft journals: wear against the greatest size new, else against the largest of them; clearance where the bore was read. */
export function camJournalLines(
  journals: ReadonlyArray<{ readonly journal: string; readonly mm: number; readonly boreMm: number | null }>,
  newMm: number | null,
  micrometer: Gauge,
  bore: Gauge,
): SheetLine[] {
  const against = newMm ?? Math.max(...journals.map((j) => j.mm));
  const u = combinedExpanded(micrometer, newMm === null ? [1, -1] : [1]);
  return journals.flatMap((j): SheetLine[] => [
    {
      id: `journalWear.${j.journal}`,
      name: `Wear, cam journal ${j.journal}`,
      value: against - j.mm,
      unit: 'mm',
      expanded: u,
      at: newMm === null ? 'against the largest of them' : 'against the greatest size new',
    },
    ...(j.boreMm === null
      ? []
      : [
          {
            id: `journalClearance.${j.journal}`,
            name: `Clearance, cam journal ${j.journal}`,
            value: j.boreMm - j.mm,
            unit: 'mm' as const,
            expanded: combine([
              { gauge: bore, c: 1 },
              { gauge: micrometer, c: -1 },
            ]),
            at: 'bore − journal',
          },
        ]),
  ]);
}
