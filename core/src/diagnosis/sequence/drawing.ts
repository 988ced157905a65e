import { GRADE_INFO } from '../../damage/classes.js';
import type { PlacedSequence } from './layout.js';

/** What a drawing is made of, the same on screen and on paper. Coordinates in px of the placed sequence. */
export type Shape =
  | {
      readonly kind: 'box';
      readonly x: number;
      readonly y: number;
      readonly w: number;
      readonly h: number;
      readonly fill: string;
      readonly stroke: string;
      readonly dash: boolean;
    }
  | { readonly kind: 'line'; readonly d: string; readonly stroke: string; readonly dash: boolean; readonly arrow: boolean }
  | {
      readonly kind: 'text';
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly bold: boolean;
      readonly fill: string;
      readonly text: string;
    };

const INK = '#20272b';
const QUIET = '#4a545a';
const ACCENT = '#31418C';
const FAULT = '#9E2A2A';
const BAR = 8;

/** Breaks words into at most `most` lines of `width` characters; what is left over is shown by an ellipsis. */
export function wrapWords(text: string, width: number, most: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length <= most) return lines;
  return [...lines.slice(0, most - 1), `${lines[most - 1]!.slice(0, width - 1)}…`];
}

/** A placed sequence as shapes: origins in the accent, findings with a bar in the colour of their grade, doubts dotted, contradictions in red. */
export function sequenceShapes(placed: PlacedSequence, contradicted: ReadonlySet<string>): Shape[] {
  const shapes: Shape[] = [];
  for (const l of placed.links) {
    const [a, b] = l.points as readonly [readonly [number, number], readonly [number, number]];
    const bend = Math.max(24, (b[0] - a[0]) / 2);
    shapes.push({
      kind: 'line',
      d: `M${a[0]} ${a[1]} C${a[0] + bend} ${a[1]} ${b[0] - bend} ${b[1]} ${b[0] - 4} ${b[1]}`,
      stroke: contradicted.has(`${l.from}>${l.to}`) ? FAULT : l.source === 'builder' ? ACCENT : QUIET,
      dash: l.doubtful,
      arrow: true,
    });
  }
  for (const n of placed.nodes) {
    const wrong = contradicted.has(n.id);
    const stroke = wrong ? FAULT : n.kind === 'origin' ? ACCENT : INK;
    shapes.push({
      kind: 'box',
      x: n.x,
      y: n.y,
      w: n.width,
      h: n.height,
      fill: n.kind === 'origin' ? '#e3e6f2' : '#fbfcfc',
      stroke,
      dash: n.kind === 'event',
    });
    if (n.grade !== null)
      shapes.push({ kind: 'box', x: n.x, y: n.y, w: BAR, h: n.height, fill: GRADE_INFO[n.grade as 0].colour, stroke, dash: false });
    const left = n.x + (n.grade === null ? 8 : BAR + 7);
    const lines = wrapWords(n.name, 25, 2);
    lines.forEach((text, i) => shapes.push({ kind: 'text', x: left, y: n.y + 16 + i * 14, size: 12, bold: true, fill: INK, text }));
    const under = [n.where, n.grade === null ? '' : `grade ${n.grade}`].filter(Boolean).join(', ');
    if (under)
      shapes.push({
        kind: 'text',
        x: left,
        y: n.y + 18 + lines.length * 14,
        size: 10,
        bold: false,
        fill: QUIET,
        text: wrapWords(under, 34, 1)[0] ?? '',
      });
  }
  return shapes;
}
