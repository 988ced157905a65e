import Joi from 'joi';
import { crushedStripLines, housingLines, mainLineLines, shellClearanceLines, shellFitLines, travelLines } from './bearing.js';
import { figure, kind, list, referencesOf, size, type Raw, type SheetKind } from './kind.js';
import { takeRepeats, type SheetLine } from './line.js';

/** How a half goes home under the thumb, and what that says. */
const THUMB = {
  firm: 'Goes home under firm thumbs and stays: spread and fit as they should be.',
  light: 'Goes home lightly: the spread is nearly gone, measure it before the half is used again.',
  'drops in': 'Drops in or falls out: no spread left, the half has lost its hold by heat or a loose cap and is not used again.',
} as const;

/** Does a housing want to be resized: a size past its band by more than the reading is good to. */
function resizeWords(lines: readonly SheetLine[], min: number | undefined, max: number | undefined): string[] {
  const of = (id: string): SheetLine | undefined => lines.find((l) => l.id === id);
  const [most, least] = [of('greatest'), of('least')];
  if (!most || !least || min === undefined || max === undefined) return [];
  if (most.value - (most.expanded ?? 0) > max)
    return [
      `Resize: ${(most.value - max).toFixed(3)} mm too large ${most.at}; metal comes off the joint faces and the bore is taken back to ${min.toFixed(3)}–${max.toFixed(3)} mm.`,
    ];
  if (least.value + (least.expanded ?? 0) < min)
    return [
      `Resize: ${(min - least.value).toFixed(3)} mm too small ${least.at}; look for dirt or a burr at the joint before any metal comes off.`,
    ];
  return [];
}

/** Bearings and their housings. */
export const BEARING_KINDS: Readonly<Record<string, SheetKind>> = {
  'shell-clearance': kind<{
    housing: { vertical: Raw; left?: Raw; right?: Raw };
    upper: Raw;
    lower: Raw;
    upperSide?: Raw;
    lowerSide?: Raw;
    journal: Raw;
    newWall?: Raw;
  }>(
    'Shell clearance by gauges',
    Joi.object({
      housing: Joi.object({ vertical: figure.required(), left: figure, right: figure }).required(),
      upper: figure.required(),
      lower: figure.required(),
      upperSide: figure,
      lowerSide: figure,
      journal: figure.required(),
      newWall: figure,
    }),
    (r, read, gauge) =>
      shellClearanceLines(
        {
          housingMm: {
            vertical: read.need(r.housing.vertical, 'readings.housing.vertical'),
            left: read.length(r.housing.left, 'readings.housing.left'),
            right: read.length(r.housing.right, 'readings.housing.right'),
          },
          upperMm: read.need(r.upper, 'readings.upper'),
          lowerMm: read.need(r.lower, 'readings.lower'),
          upperSideMm: read.length(r.upperSide, 'readings.upperSide'),
          lowerSideMm: read.length(r.lowerSide, 'readings.lowerSide'),
          journalMm: read.need(r.journal, 'readings.journal'),
          newWallMm: read.length(r.newWall, 'readings.newWall'),
        },
        gauge('bore'),
        gauge('wall'),
        gauge('micrometer'),
      ),
  ),
  'shell-fit': kind<{ protrusion?: Raw; freeSpread?: Raw; housing?: Raw; thumb?: 'firm' | 'light' | 'drops in' }>(
    'Shell fit',
    Joi.object({ protrusion: figure, freeSpread: figure, housing: figure, thumb: Joi.string().valid(...Object.keys(THUMB)) }).min(1),
    (r, read, gauge) => ({
      lines: shellFitLines(
        {
          protrusionMm: read.length(r.protrusion, 'readings.protrusion'),
          freeSpreadMm: read.length(r.freeSpread, 'readings.freeSpread'),
          housingMm: read.length(r.housing, 'readings.housing'),
        },
        gauge('caliper'),
      ),
      thumbs: { crush: { lower: 0.02 }, spread: { lower: 0.1 } },
      says: [...(r.thumb ? [THUMB[r.thumb]] : []), 'Crush holds a shell; the tab only places it.'],
    }),
  ),
  'crushed-strip': kind<{ thread: Raw; widths: ReadonlyArray<{ at: string; value: Raw }> }>(
    'Shell clearance by crushed strip',
    Joi.object({ thread: figure.required(), widths: list({ at: Joi.string().max(30).required(), value: figure.required() }).unique('at') }),
    (r, read, gauge) => {
      const widths = r.widths.flatMap((w, i) => {
        const widthMm = read.length(w.value, `readings.widths.${i}.value`);
        if (widthMm !== null && widthMm <= 0)
          read.problem ??= { code: 'reading', sentence: 'A flattened width is more than nothing.', field: `readings.widths.${i}.value` };
        return widthMm === null ? [] : [{ at: w.at, widthMm }];
      });
      const thread = read.need(r.thread, 'readings.thread');
      const narrow = r.widths.findIndex((w, i) => (read.length(w.value, `readings.widths.${i}.value`) ?? Infinity) <= thread);
      if (narrow >= 0)
        read.problem ??= {
          code: 'reading',
          sentence:
            'The strip is no wider than its thread: it was not crushed there, so there is no clearance to be read. Check the width and the thread; a larger thread is needed for a larger clearance.',
          field: `readings.widths.${narrow}.value`,
        };
      return { lines: crushedStripLines(thread, widths, gauge('scale')) };
    },
  ),
  'side-clearance': kind<{ towards: Raw; away: Raw }>(
    'Rod side clearance',
    Joi.object({ towards: figure.required(), away: figure.required() }),
    (r, read, gauge) => ({
      lines: travelLines(
        'sideClearance',
        'Side clearance',
        read.need(r.towards, 'readings.towards'),
        read.need(r.away, 'readings.away'),
        gauge('indicator'),
      ),
      thumbs: { sideClearance: { lower: 0.1, upper: 0.5 } },
    }),
  ),
  housing: kind<ReadonlyArray<{ direction: string; value: Raw }>>(
    'Housing bore',
    list({ direction: Joi.string().max(30).required(), value: figure.required() }, 2),
    (r, read, gauge, spec) => {
      const directions = r.flatMap((d, i) => {
        const mm = read.size(d.value, `readings.${i}.value`);
        return mm === null ? [] : [{ direction: d.direction, mm }];
      });
      const taken = takeRepeats(directions, (d) => d.direction, gauge('bore'));
      const lines = housingLines(taken.readings, taken.gauge);
      return {
        lines,
        references: referencesOf(spec, [
          ['greatest', 'maxMm', 'upper'],
          ['least', 'minMm', 'lower'],
        ]),
        says: resizeWords(lines, size(spec, 'minMm'), size(spec, 'maxMm')),
        missing: new Set(directions.map((d) => d.direction)).size < 2 ? ['a second direction, so no out-of-round'] : [],
      };
    },
  ),
  'main-line': kind<ReadonlyArray<{ main: number; gap: Raw }>>(
    'Main line',
    list({ main: Joi.number().integer().min(1).max(17).required(), gap: figure.required() }, 2).unique('main'),
    (r, read, gauge) => ({
      lines: mainLineLines(
        r.flatMap((x, i) => {
          const gapMm = read.length(x.gap, `readings.${i}.gap`);
          return gapMm === null ? [] : [{ main: x.main, gapMm }];
        }),
        gauge('feeler'),
      ),
      thumbs: { line: { upper: 0.05 }, step: { upper: 0.025 } },
    }),
  ),
};
