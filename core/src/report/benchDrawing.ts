import { caseBench, standingGrade, type CaseView } from '../case/views.js';
import { GRADE_INFO } from '../damage/classes.js';
import type { Shape } from '../diagnosis/sequence/drawing.js';
import { unrolledBench, type UnrolledCell } from '../engine/unrolledBench.js';
import type { ReportBlock } from './blocks.js';

const INK = '#20272b';
const LINE = '#8a9399';
const ACCENT = '#31418C';
const UNSEEN = '#ffffff';
/** Width and height the drawing fits into, px. */
const ROOM = { width: 700, height: 300 } as const;
/** Least distance of two names, px. */
const LINE_PX = 9;
/** Room for the names of the rows, px. */
const NAMES = 118;

/** The engine unrolled in small: every place in the colour of its grade with its numeral from grade 2 on, white and dashed where nobody looked, framed where it most likely began. */
export function benchDrawing(view: CaseView, began: string | null): Extract<ReportBlock, { kind: 'drawing' }> {
  const bench = unrolledBench(view.layout, caseBench(view), 'cylinder');
  const k = Math.min((ROOM.width - NAMES) / bench.widthMm, ROOM.height / bench.heightMm);
  const shapes: Shape[] = [];
  let last = -Infinity;
  for (const row of bench.rows) {
    const y = (row.y + row.height / 2) * k + 3;
    // Of rows that lie closer than a line of words only some are named.
    if (y - last < LINE_PX) continue;
    last = y;
    shapes.push({ kind: 'text', x: 0, y, size: 8, bold: false, fill: INK, text: row.label });
  }
  const at = (c: UnrolledCell): { x: number; y: number; w: number; h: number } => ({
    x: NAMES + c.x * k,
    y: c.y * k,
    w: c.width * k,
    h: c.height * k,
  });
  for (const cell of bench.cells) {
    const station = view.byId.get(cell.station.id);
    if (!station) continue;
    const grade = station.state === 'findings' || station.state === 'sound' ? standingGrade(station) : null;
    const box = at(cell);
    shapes.push({ kind: 'box', ...box, fill: grade === null ? UNSEEN : GRADE_INFO[grade].colour, stroke: LINE, dash: grade === null });
    if (grade !== null && grade >= 2 && box.h >= 7)
      shapes.push({
        kind: 'text',
        x: box.x + box.w + 2,
        y: box.y + box.h / 2 + 3,
        size: 9,
        bold: true,
        fill: INK,
        text: String(grade),
      });
  }
  if (began !== null)
    for (const cell of bench.cells.filter((c) => isAt(c, began))) {
      const { x, y, w, h } = at(cell);
      shapes.push({ kind: 'box', x: x - 2, y: y - 2, w: w + 4, h: h + 4, fill: 'none', stroke: ACCENT, dash: false });
    }
  return {
    kind: 'drawing',
    shapes,
    width: ROOM.width,
    height: Math.ceil(bench.heightMm * k) + 4,
    caption: `The engine unrolled, all surfaces to one scale, front at left: colour and figure are the grade; white and dashed was not examined${began === null ? '' : '; framed is where it most likely began'}.`,
  };
}

/** Does a place belong to where a cause began: a bearing with its shells and journal, or all of a cylinder? */
function isAt({ station }: UnrolledCell, began: string): boolean {
  if (began.startsWith('cylinder.')) return `cylinder.${station.cylinder}` === began;
  return station.bearing === began && station.surface !== null;
}
