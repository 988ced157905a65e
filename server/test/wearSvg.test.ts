import type { SurfaceFrame } from '@true-ledger/core/engine';
import { WEAR_CLASSES, type WearClass, type WearMap } from '@true-ledger/core/damage';
import { cellColours } from '@true-ledger/core/report';
import { shapesSvg, wearSvg } from '../src/reports/wearSvg.js';

const [COLUMNS, ROWS] = [36, 12];
const FRAME: SurfaceFrame = {
  columns: COLUMNS,
  rows: ROWS,
  uSpanDeg: 180,
  widthMm: 81,
  heightMm: 20,
  vFrom: 'front edge',
  vTo: 'rear edge',
  uFrom: 'left',
  uTo: 'right',
};

/** A map whose cells are each of one class, by a rule; null is not seen. */
function mapOf(rule: (column: number, row: number) => WearClass | null): WearMap {
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(COLUMNS * ROWS)])) as Record<WearClass, Float32Array>;
  const seen = new Float32Array(COLUMNS * ROWS);
  for (let i = 0; i < seen.length; i++) {
    const name = rule(i % COLUMNS, Math.floor(i / COLUMNS));
    if (name) {
      shares[name][i] = 1;
      seen[i] = 1;
    }
  }
  return { columns: COLUMNS, rows: ROWS, shares, seen };
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly fill: string;
}

const boxesOf = (svg: string): Box[] =>
  [...svg.matchAll(/<rect x="([\d.]+)" y="([\d.]+)" width="([\d.]+)" height="([\d.]+)" fill="(#[0-9a-fA-F]+)"/g)].map((m) => ({
    x: Number(m[1]),
    y: Number(m[2]),
    width: Number(m[3]),
    height: Number(m[4]),
    fill: m[5]!,
  }));

/** Colour seen at the middle of a cell: of the last box that lies over it. */
function colourAt(boxes: readonly Box[], column: number, row: number, frame: SurfaceFrame, width: number): string | undefined {
  const height = (width * frame.heightMm) / frame.widthMm;
  const down = frame.vFrom === 'front edge' ? ROWS - 1 - row : row;
  const [x, y] = [((column + 0.5) / COLUMNS) * width, ((down + 0.5) / ROWS) * height];
  return boxes.filter((b) => x > b.x && x < b.x + b.width && y > b.y && y < b.y + b.height).at(-1)?.fill;
}

describe('a developed surface in an account', () => {
  const patchwork = mapOf((c, r) => ((c * 7 + r * 3) % 11 === 0 ? null : (c + 2 * r) % 5 === 0 ? 'lining' : c > 20 ? 'heat' : 'sound'));

  it.each(['front edge', 'deck'])('shows every cell in its own colour, first row by its %s', (vFrom) => {
    const frame = { ...FRAME, vFrom };
    const boxes = boxesOf(wearSvg(patchwork, frame, 242));
    const colours = cellColours(patchwork);
    for (let r = 0; r < ROWS; r++)
      for (let c = 0; c < COLUMNS; c++) expect(colourAt(boxes, c, r, frame, 242)).toBe(colours[r * COLUMNS + c] ?? '#ffffff');
  });

  it('hatches every cell that was not seen, and no other', () => {
    const unseen = Array.from(patchwork.seen).filter((s) => s === 0).length;
    expect(wearSvg(patchwork, FRAME, 242).match(/<line /g)).toHaveLength(unseen);
    expect(
      wearSvg(
        mapOf(() => 'sound'),
        FRAME,
        242,
      ),
    ).not.toContain('<line');
  });

  it('draws what is of one colour as one box a row, so that long accounts stay quick', () => {
    expect(
      boxesOf(
        wearSvg(
          mapOf(() => 'sound'),
          FRAME,
          242,
        ),
      ),
    ).toHaveLength(ROWS);
    const band = mapOf((c) => (c >= 10 && c < 20 ? 'lining' : 'sound'));
    expect(boxesOf(wearSvg(band, FRAME, 242))).toHaveLength(3 * ROWS);
  });
});

describe('drawings of an account', () => {
  it('never let words of a case become marks of the drawing', () => {
    const svg = shapesSvg([{ kind: 'text', x: 1, y: 2, size: 9, bold: false, fill: '#000000', text: '<script>&"x"' }], 100, 50);
    expect(svg).toContain('&lt;script&gt;&amp;');
    expect(svg).not.toContain('<script');
  });
});
