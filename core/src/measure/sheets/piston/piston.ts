import { combine, combinedExpanded, type Gauge } from '../../../units/gauge.js';
import type { SheetLine } from '../line.js';

/** Diameters and heights of a piston, mm; null where one was not read. */
export interface PistonReading {
  /** Skirt across the thrust axis at the gauge point. */
  readonly gaugePointMm: number;
  readonly boreMm: number | null;
  readonly newMm: number | null;
  readonly crownMm: number | null;
  readonly pinBossMm: number | null;
  /** Height of the worn print on the skirt. */
  readonly printMm: number | null;
}

/**
 * Piston: clearance in its bore at the gauge point (interference is negative and valid), skirt collapse against the size new, pin boss and height of the skirt's
 * print as read; the crown must be the smaller, and the drop from the gauge point to it is told.
 */
export function pistonLines(p: PistonReading, pistonGauge: Gauge, boreGauge: Gauge): SheetLine[] {
  const { gaugePointMm: pistonMm, boreMm, newMm } = p;
  const lines: SheetLine[] = [];
  const plain = (id: string, name: string, value: number | null, at: string): void => {
    if (value !== null) lines.push({ id, name, value, unit: 'mm', expanded: combinedExpanded(pistonGauge, [1]), at });
  };
  if (boreMm !== null)
    lines.push({
      id: 'clearance',
      name: 'Piston to bore',
      value: boreMm - pistonMm,
      unit: 'mm',
      expanded: combine([
        { gauge: boreGauge, c: 1 },
        { gauge: pistonGauge, c: -1 },
      ]),
      at: 'at the gauge point',
    });
  if (newMm !== null)
    lines.push({
      id: 'collapse',
      name: 'Skirt collapse',
      value: newMm - pistonMm,
      unit: 'mm',
      expanded: combinedExpanded(pistonGauge, [1]),
      at: 'against the size new',
    });
  plain('pinBoss', 'Pin boss', p.pinBossMm, 'across the bore for the gudgeon pin');
  plain('print', 'Height of the print', p.printMm, 'on the skirt');
  if (p.crownMm !== null)
    lines.push({
      id: 'crownDrop',
      name: 'Crown below the skirt',
      value: pistonMm - p.crownMm,
      unit: 'mm',
      expanded: combinedExpanded(pistonGauge, [1, -1]),
      at: 'gauge point − crown, on diameter',
    });
  return lines;
}
