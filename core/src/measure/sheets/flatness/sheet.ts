import { figure, list, name, number, object, optional, positive } from '../../../kit/schema.js';
import { bankCount, bankName, type EngineLayout } from '../../../engine/layout.js';
import { cell, PLAY, type Cell } from '../cells.js';
import { defineSheet, raw, refused, upper } from '../define.js';
import { chance } from '../trueEngine.js';
import { flatness as flatnessOf, ratioAfterCut, scratchLines, type HeightPoint } from './flatness.js';

/** Places along a deck, mm: the rim of every bore in three rows. */
export function deckGrid(layout: EngineLayout): { readonly xs: number[]; readonly ys: number[]; readonly pitchMm: number } {
  const perBank = Math.ceil(layout.cylinders / bankCount(layout));
  const pitchMm = Math.round(layout.boreMm * 1.18);
  return {
    xs: Array.from({ length: perBank + 1 }, (_, i) => i * pitchMm),
    ys: [0, Math.round(layout.boreMm * 0.6), Math.round(layout.boreMm * 1.2)],
    pitchMm,
  };
}

function cells(layout: EngineLayout): Cell[] {
  const { xs, ys } = deckGrid(layout);
  return [
    ...ys.flatMap((yMm, j) =>
      xs.map((xMm, i) =>
        cell({
          // Not `1.1`: a spreadsheet would take that for a figure.
          key: `x${i + 1}.y${j + 1}`,
          name: `${xMm} mm from the front, row ${j + 1}`,
          row: `row ${j + 1}`,
          column: `${xMm} mm`,
          role: 'indicator',
          sense: PLAY,
          item: { xMm, yMm },
        }),
      ),
    ),
    cell({
      key: 'scratch',
      name: 'deepest scratch across a fire ring',
      column: 'scratch',
      role: 'depth',
      sense: [0, 3],
      optional: true,
    }),
  ];
}

/** The heights of a place as they were read. */
export function heightPoints(of: (key: string) => number | null, cells: readonly Cell[]): HeightPoint[] {
  return cells.flatMap((c) => {
    const heightMm = c.item?.['xMm'] === undefined ? null : of(c.key);
    return heightMm === null ? [] : [{ xMm: Number(c.item!['xMm']), yMm: Number(c.item!['yMm']), heightMm }];
  });
}

interface Readings {
  readonly points: readonly HeightPoint[];
  readonly scratches: ReadonlyArray<{ readonly at: string; readonly depthMm: number }>;
  /** A cut to be thought through. */
  readonly cut?: { readonly boreMm: number; readonly strokeMm: number; readonly compressionRatio: number; readonly cutMm: number };
}

/** A deck or head under a straight edge or indicator. */
export const flatness = defineSheet({
  id: 'flatness',
  name: 'Deck or head flatness',
  says: '`points`: list of `xMm`, `yMm`, `value`; `scratches`: list of `at`, `depth`; `cut`: `boreMm`, `strokeMm`, `compressionRatio`, `cutMm`',
  file: object({
    points: list(object({ xMm: number, yMm: number, value: raw }), 2000).min(4),
    scratches: optional(list(object({ at: name(40), depth: raw }), 200)),
    cut: optional(object({ boreMm: positive(5000), strokeMm: positive(5000), compressionRatio: figure(2, 40), cutMm: figure(0, 20) })),
  }),
  read: (given, reader): Readings => ({
    points: reader.each(
      given.points,
      (p, i) => reader.length(p.value, `readings.points.${i}.value`),
      (p, heightMm) => ({ xMm: p.xMm, yMm: p.yMm, heightMm }),
    ),
    scratches: reader.each(
      given.scratches,
      (x, i) => reader.length(x.depth, `readings.scratches.${i}.depth`),
      (x, depthMm) => ({ at: x.at, depthMm }),
    ),
    ...(given.cut ? { cut: given.cut } : {}),
  }),
  compute: ({ points, scratches, cut }, { gauge }) => {
    const flat = flatnessOf(points, gauge('indicator'));
    if (!flat)
      return refused('flatness-points', 'Four points at least, not all on one line, are needed for a plane.', 'readings.points', true);
    const after = cut ? ratioAfterCut(cut.compressionRatio, cut.boreMm, cut.strokeMm, cut.cutMm) : null;
    return {
      lines: [...flat.lines, ...scratchLines(scratches, gauge('depth'))],
      says: cut
        ? [
            after === null
              ? 'That cut takes more than the chamber holds.'
              : `A cut of ${cut.cutMm} mm takes the compression ratio from ${cut.compressionRatio} to ${after.toFixed(2)}.`,
          ]
        : [],
      thumbs: { flatness: { upper: 0.1 }, scratch: { upper: 0.03 } },
    };
  },
  bench: {
    group: 'head',
    rank: 1,
    round: 'Flatness',
    drawing: 'deck',
    chart: 'deck',
    specs: { deck: { name: 'Deck', rank: 21 }, head: { name: 'Head', rank: 22 } },
    fields: { lines: [upper('flatness', 'Deviation from flat'), upper('scratch', 'Fire-ring scratch')] },
    places: (layout, has) => {
      if (!has('gasket.head')) return [];
      const banks = bankCount(layout);
      return Array.from({ length: banks }, (_, b) =>
        (['deck', 'head'] as const).map((what) => {
          const name = what === 'deck' ? 'Deck' : 'Head';
          return {
            station: 'gasket.head',
            sheet: `${what}.${b + 1}`,
            name: `${name} flatness${bankName(layout, b)}`,
            short: `${name}${banks > 1 ? ` ${b + 1}` : ''}`,
            spec: what,
            cells: cells(layout),
          };
        }),
      ).flat();
    },
    readings: (values, place) => {
      const points = heightPoints((key) => values.of(key), place.cells);
      const scratch = values.of('scratch');
      return points.length < 4 ? null : { points, scratches: scratch === null ? [] : [{ at: 'fire ring', depthMm: scratch }] };
    },
    truth: (engine, place, key) => {
      const warped = engine.severity(place.station!);
      if (key === 'scratch') return 0.012 + 0.03 * warped;
      const [column, row] = key.split('.').map((part) => Number(part.slice(1))) as [number, number];
      const columns = new Set(place.cells.flatMap((c) => c.item?.['xMm'] ?? [])).size;
      const along = (column - 1) / Math.max(1, columns - 1);
      const noise = 0.002 * chance(`${engine.seed} ${place.id} ${key}`);
      return 0.02 * along - 0.004 * (row - 2) - (0.012 + 0.12 * warped) * Math.sin(Math.PI * along) + noise;
    },
  },
});
