import type { BenchCell, BenchPlan, BenchRow } from './bench.js';
import type { EngineLayout } from './layout.js';
import { routeDistance } from './oilRoute.js';
import type { Station } from './stations.js';

/** By what the places of a row are put one after the other: as the cylinders lie, or as the oil reaches them. */
export type BenchOrder = 'cylinder' | 'oil';

/** A place of the bench with its developed surface in its own size, mm from the left upper corner of the bench. */
export interface UnrolledCell {
  readonly station: Station;
  readonly row: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface UnrolledRow {
  readonly id: string;
  readonly label: string;
  readonly kind: BenchRow['kind'];
  readonly y: number;
  readonly height: number;
}

/** The whole engine as its developed surfaces, all to one scale, mm. */
export interface UnrolledBench {
  readonly widthMm: number;
  readonly heightMm: number;
  /** From cylinder to cylinder. */
  readonly pitchMm: number;
  readonly rows: readonly UnrolledRow[];
  readonly cells: readonly UnrolledCell[];
}

/** Between two cells of a group (the two sides of a piston), between neighbouring cylinders, and between rows: shares of the pitch from cylinder to cylinder. */
const GAP = { group: 0.015, neighbour: 0.05, row: 0.045 } as const;

/** Height of what has no surface of its own, shares of the pitch. */
const PLAIN_HEIGHT: Readonly<Record<BenchRow['kind'], number>> = {
  cam: 0.085,
  head: 0.085,
  bore: 0.3,
  rings: 0.075,
  crown: 0.3,
  skirt: 0.2,
  rod: 0.1,
  shell: 0.09,
  journal: 0.09,
  thrust: 0.09,
  oil: 0.12,
};

/** Columns of the bench from cylinder to cylinder. */
const PITCH_COLUMNS = 4;

/** Cells of one cylinder or main that lie side by side, and the middle of them in columns of the bench. */
interface Group {
  readonly cells: readonly BenchCell[];
  readonly middle: number;
}

/** Lays every surface of the bench out in its own size: rows as on the bench, cells over the place where their cylinder or main lies. */
export function unrolledBench(layout: EngineLayout, plan: BenchPlan, order: BenchOrder): UnrolledBench {
  const placed = plan.rows.filter((r) => r.kind !== 'oil').map((row) => ({ row, groups: inOrder(layout, groupsOf(row), order) }));
  const column = columnMm(placed.map((p) => p.groups));
  const pitch = column * PITCH_COLUMNS;
  const cells: UnrolledCell[] = [];
  const rows: UnrolledRow[] = [];
  let y = 0;
  const add = (row: BenchRow, height: number): void => {
    rows.push({ id: row.id, label: row.label, kind: row.kind, y, height });
    y += height + GAP.row * pitch;
  };
  for (const { row, groups } of placed) {
    const plain = PLAIN_HEIGHT[row.kind] * pitch;
    const height = Math.max(...row.cells.map((c) => c.station.surface?.heightMm ?? plain));
    for (const { cells: own, middle } of groups) {
      const widths = own.map((c) => c.station.surface?.widthMm ?? plainWidth(own.length, pitch));
      let x = middle * column - (sum(widths) + (own.length - 1) * GAP.group * pitch) / 2;
      own.forEach(({ station }, k) => {
        const tall = station.surface?.heightMm ?? plain;
        cells.push({ station, row: row.id, x, y: y + (height - tall) / 2, width: widths[k]!, height: tall });
        x += widths[k]! + GAP.group * pitch;
      });
    }
    add(row, height);
  }
  const left = Math.min(0, ...cells.map((c) => c.x));
  const widthMm = Math.max(plan.columns * column, ...cells.map((c) => c.x + c.width)) - left;
  for (const row of plan.rows.filter((r) => r.kind === 'oil')) {
    const height = PLAIN_HEIGHT.oil * pitch;
    const share = widthMm / row.cells.length;
    row.cells.forEach(({ station }, k) =>
      cells.push({ station, row: row.id, x: left + k * share, y, width: share - GAP.group * pitch, height }),
    );
    add(row, height);
  }
  return {
    widthMm,
    heightMm: Math.max(0, y - GAP.row * pitch),
    pitchMm: pitch,
    rows,
    cells: cells.map((c) => ({ ...c, x: c.x - left })),
  };
}

const sum = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0);

/** What has no surface is as wide as half a pitch, or shares that. */
const plainWidth = (cells: number, pitch: number): number => (0.5 * pitch) / cells;

/** Cells that stand next to each other without a column between them belong together. */
function groupsOf(row: BenchRow): Group[] {
  const groups: BenchCell[][] = [];
  for (const cell of row.cells) {
    const last = groups.at(-1);
    const before = last?.at(-1);
    if (last && before && cell.column === before.column + before.span) last.push(cell);
    else groups.push([cell]);
  }
  return groups.map((cells) => ({ cells, middle: (cells[0]!.column + cells.at(-1)!.column + cells.at(-1)!.span) / 2 }));
}

/** The same groups at the same places, those the oil reaches first to the front. What no oil route reaches keeps its order behind them. */
function inOrder(layout: EngineLayout, groups: readonly Group[], order: BenchOrder): readonly Group[] {
  if (order === 'cylinder') return groups;
  const reached = groups.map((g) => ({ g, at: oilAt(layout, g.cells[0]!.station) }));
  const sorted = [...reached].sort((a, b) => a.at - b.at);
  return groups.map((g, k) => ({ cells: sorted[k]!.g.cells, middle: g.middle }));
}

/** How far along the oil route a place lies; parts of a cylinder lie where the big end of its rod does. */
function oilAt(layout: EngineLayout, station: Station): number {
  const carried = station.carries === null && station.cylinder > 0 ? { ...station, carries: 'rod' as const } : station;
  return routeDistance(layout, carried) ?? Number.MAX_SAFE_INTEGER;
}

/** Least width of a column, mm, at which no two neighbours of any row come nearer than their gap; of a single cylinder, at which it fills its pitch. */
function columnMm(rows: ReadonlyArray<readonly Group[]>): number {
  const free = 1 - GAP.neighbour;
  const asked = rows.flatMap((groups) =>
    groups.slice(1).map((b, k) => {
      const a = groups[k]!;
      return (surfaceWidth(a) + surfaceWidth(b)) / 2 / ((b.middle - a.middle) * free);
    }),
  );
  const alone = rows.flat().map((g) => surfaceWidth(g) / (PITCH_COLUMNS * free));
  return Math.max(1, ...(asked.some((mm) => mm > 0) ? asked : alone));
}

/** Width of the surfaces of a group with the gaps between them; what has no surface takes the room it is given. */
function surfaceWidth({ cells }: Group): number {
  const widths = cells.map((c) => c.station.surface?.widthMm ?? 0);
  return sum(widths) * (1 + GAP.group * 2 * (cells.length - 1));
}
