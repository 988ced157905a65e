import { figure, flag, nullable, object, optional, text, whole } from '../../kit/schema.js';
import { placeOf } from '../../measure/program/program.js';
import { readCell } from '../../measure/program/readCell.js';
import { gaugeSchema } from '../../units/gauge.js';
import { defineEntry, follows, mismatch } from '../define.js';

export const readingTaken = defineEntry({
  kind: 'reading-taken',
  name: 'Reading',
  says: 'A reading in a cell of a measuring sheet, as typed, with its gauge.',
  body: object({
    /** Sheet, cell and take name the place (`measureProgram`); takes are repeats, from 1. */
    sheet: text(60),
    cell: text(60),
    take: whole(1, 20),
    text: text(40),
    unit: text(10),
    /** Canonical unit of the cell; null: not read. */
    value: nullable(figure(-5000, 5000)),
    gauge: gaugeSchema,
    insisted: flag,
    /** Sent by a stand-in that ships with the application, not by a gauge on a part. */
    simulated: optional(flag),
  }),
  stands: 'either',
  slot: (b) => `reading:${b.sheet}:${b.cell}:${b.take}`,
  tell: (b) =>
    `${b.sheet}, ${b.cell}${b.take > 1 ? `, take ${b.take}` : ''}: ${b.text}${/[a-z"″µ°]/i.test(b.text) || b.value === null ? '' : ` ${b.unit}`}${b.insisted ? ' (insisted)' : ''}${b.simulated ? ' (simulated)' : ''}`,
  // It belongs to a cell of the program of this engine, and its value follows from what was typed.
  admit: (b, at) => {
    if (!at.layout) return null;
    const cell = placeOf(at.layout, at.station, b.sheet)?.cells.find((c) => c.key === b.cell);
    if (!cell)
      return {
        code: 'reading-place',
        sentence: `This engine has no place "${b.cell.slice(0, 40)}" on a sheet "${b.sheet.slice(0, 40)}" there. Nothing was recorded.`,
        field: 'cell',
      };
    const read = readCell(cell, b.text, b.unit, b.gauge);
    if (!read.ok) return read.problem;
    return follows(read.value.value, b.value) ? null : mismatch(b.text);
  },
  ofCase: (all) => ({ readings: all }),
  ofStation: (all) => ({ readings: all }),
});
