import { GRADE_INFO } from '@true-ledger/core/damage';
import { readAgainstSound, standingGrade, type StationView } from '@true-ledger/core/case';
import type { PartClass, Station } from '@true-ledger/core/engine';
import { COLOUR, through } from '../../app/tokens.js';

/** A rectangle of the drawing, px. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

const FONT = 'B612, sans-serif';
export const FIGURES = '"B612 Mono", monospace';

/** Diagonal lines over what nobody looked at; one distance on the page, whatever the scale. */
export function hatch(context: CanvasRenderingContext2D, { x, y, w, h }: Box): void {
  context.fillStyle = COLOUR.paper;
  context.fillRect(x, y, w, h);
  context.strokeStyle = COLOUR.line;
  context.lineWidth = 1.2;
  context.beginPath();
  for (let k = 7; k < Math.min(w + h, 4000); k += 7) {
    context.moveTo(x + Math.max(0, k - h), y + Math.min(h, k));
    context.lineTo(x + Math.min(w, k), y + Math.max(0, k - w));
  }
  context.stroke();
}

/** A frame about a cell, nothing where it is not drawn. */
export function frame(
  context: CanvasRenderingContext2D,
  box: Box | undefined,
  colour: string,
  wide: number,
  dash: readonly number[] = [],
): void {
  if (!box) return;
  context.save();
  context.strokeStyle = colour;
  context.lineWidth = wide;
  context.setLineDash([...dash]);
  context.strokeRect(box.x - 1, box.y - 1, box.w + 2, box.h + 2);
  context.restore();
}

/** Words on paper of their own, so that they are read on any picture. */
export function words(
  context: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  font: string,
  colour: string = COLOUR.ink,
  paper: string = through('paper', 0.86),
): void {
  context.font = font;
  context.textBaseline = 'middle';
  const wide = context.measureText(text).width;
  context.fillStyle = paper;
  context.fillRect(x - 2, y - 7.5, wide + 4, 15);
  context.fillStyle = colour;
  context.fillText(text, x, y + 0.5);
}

/** Rows whose cells fill their pitch: name and grade stand in the cell. In the others they stand beside it, and leave the surface free. */
const FULL: ReadonlySet<PartClass> = new Set(['bore', 'skirt', 'chamber', 'valve', 'thrust']);

/** Are name and grade of a place written beside it? */
const isBeside = ({ part, cylinder, carries }: Station): boolean => !FULL.has(part) && (cylinder > 0 || carries === 'crank');

/** The short name of a place: beside its surface, in its upper left corner, or, of a place without one, over its whole width; left out where it does not fit. */
export function label(context: CanvasRenderingContext2D, { station }: StationView, { x, y, w, h }: Box): void {
  const name = shortName(station);
  const font = `700 11px ${FONT}`;
  context.font = font;
  const wide = context.measureText(name).width;
  if (isBeside(station)) {
    context.fillStyle = COLOUR.pencil;
    context.textBaseline = 'middle';
    if (h >= 9) context.fillText(name, x - wide - 5, y + h / 2 + 0.5);
    return;
  }
  if (h < 12) return;
  if (wide <= w - 8) return words(context, name, x + 4, y + Math.min(h / 2, 9), font);
  const lines = inLines(context, name, w - 24);
  if (h >= 13 * lines.length && w > 40) lines.forEach((line, k) => words(context, line, x + 4, y + 8 + 13 * k, font));
}

/** Words in lines that are not wider than asked for, unless one word is. */
function inLines(context: CanvasRenderingContext2D, text: string, wide: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && context.measureText(longer).width <= wide) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** A figure in the middle of a cell. */
export function figure(context: CanvasRenderingContext2D, text: string, { x, y, w, h }: Box, colour: string = COLOUR.ink): void {
  const font = `700 ${h > 26 ? 14 : 12}px ${FIGURES}`;
  context.font = font;
  words(context, text, x + (w - context.measureText(text).width) / 2, y + h / 2, font, colour, through('paper', 0.9));
}

/** The grade as numeral and notch on its colour: beside its surface, or in its right lower corner; a place with findings and no grade has an empty mark, one called sound over a picture that reads otherwise a question mark. */
export function mark(context: CanvasRenderingContext2D, view: StationView, { x, y, w, h }: Box): void {
  const grade = standingGrade(view);
  const beside = isBeside(view.station);
  if ((grade === null && view.state !== 'findings') || h < 9 || (!beside && w < 20)) return;
  const size = Math.min(15, Math.max(11, h - 2));
  const [left, top] = beside ? [x + w + 3, y + (h - size) / 2] : [x + w - size - 2, y + h - size - 1];
  context.fillStyle = grade === null ? COLOUR.lining : GRADE_INFO[grade].colour;
  context.fillRect(left, top, size, size);
  const doubted = readAgainstSound(view) !== null;
  context.strokeStyle = !doubted && (view.grade || grade === 0 || grade === null) ? COLOUR.ink : COLOUR.accent;
  context.lineWidth = 1;
  context.setLineDash(!doubted && (view.grade || grade === 0 || grade === null) ? [] : [2, 2]);
  context.strokeRect(left + 0.5, top + 0.5, size - 1, size - 1);
  context.setLineDash([]);
  if (grade === null || size < 9) return;
  context.fillStyle = grade >= 3 ? COLOUR.white : COLOUR.ink;
  context.font = `700 ${Math.round(size * 0.72)}px ${FIGURES}`;
  context.textBaseline = 'middle';
  context.textAlign = 'center';
  context.fillText(doubted ? '?' : String(grade), left + size / 2, top + size / 2);
  context.textAlign = 'start';
  context.fillRect(left + 2, top + size - 3, (size - 4) * grade * 0.25, 1.6);
}

function shortName(station: Station): string {
  if (station.part === 'thrust') return station.side === 'front' ? 'front' : 'rear';
  if (station.carries === 'crank') return `M${station.number}`;
  if (station.part === 'journal') return `P${station.number}`;
  if (station.carries === 'rod' || station.part === 'rod') return `R${station.number}`;
  if (station.part === 'skirt') return `${station.number} ${station.side === 'antithrust' ? 'anti-thrust' : 'thrust'}`;
  if (station.number > 0) return String(station.number);
  return station.name;
}
