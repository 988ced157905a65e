import { figure, list, name, object, oneOf, optional } from '../../../kit/schema.js';
import { stationOf } from '../../../engine/stations.js';
import { cylinderPlaces, type EngineLayout } from '../../../engine/layout.js';
import { cell, deepestMark, DEEPEST_MARK, thermometer, type Cell } from '../cells.js';
import { defineSheet, mayRead, questionsOf, raw, upper, type CellValues } from '../define.js';
import { at20, MATERIALS, takeRepeats, type Material } from '../line.js';
import { nextOversize, USUAL_STEPS_MM } from '../sizes.js';
import { chance, trueBoreMm } from '../trueEngine.js';
import { boreLines, type BoreReading } from './bore.js';

/** Where the bore is read, as shares of the stroke below the deck: top of the ring travel, two between, foot. */
const DEPTHS = [0.1, 0.4, 0.75, 1.1] as const;
/** Across the crank (thrust side), along it, and the two between. */
const AXES = ['A', 'B', 'C', 'D'] as const;

/** Depth and axis at which a piston is compared with its bore. */
export function boreCellAtPiston(layout: EngineLayout): string {
  return `${Math.round(DEPTHS[1] * layout.strokeMm)}.A`;
}

function cells(layout: EngineLayout): Cell[] {
  return [
    cell({ key: 'unworn', name: 'unworn, above the ring travel', column: 'unworn', role: 'bore', expectMm: layout.boreMm }),
    ...DEPTHS.map((share) => Math.round(share * layout.strokeMm)).flatMap((depthMm) =>
      AXES.map((axis) =>
        cell({
          key: `${depthMm}.${axis}`,
          name: `${depthMm} mm below the deck, axis ${axis}`,
          row: `${depthMm} mm`,
          column: axis,
          role: 'bore',
          expectMm: layout.boreMm,
          item: { depthMm, axis },
          optional: axis === 'C' || axis === 'D',
        }),
      ),
    ),
    deepestMark,
    thermometer,
  ];
}

/** What the wall of a bore is made of. */
export function boreMaterial(layout: EngineLayout): Material {
  return layout.bores === 'coated-aluminium' ? 'aluminium' : 'grey-iron';
}

interface Readings {
  /** As read, not yet brought to 20 °C. */
  readonly at: readonly BoreReading[];
  readonly unwornMm: number | null;
  readonly temperatureC: number | null;
  readonly material: Material;
}

/** The diameters of a place as they were read. */
export function boreReadings(values: Pick<CellValues, 'size'>, cells: readonly Cell[]): BoreReading[] {
  return cells.flatMap((c) => {
    const mm = c.item?.['depthMm'] === undefined ? null : values.size(c.key);
    return mm === null ? [] : [{ depthMm: Number(c.item!['depthMm']), axis: String(c.item!['axis']), mm }];
  });
}

/** A cylinder bore, four depths in up to four axes. */
export const bore = defineSheet({
  id: 'bore',
  name: 'Bore',
  says: '`at`: list of `depthMm`, `axis`, `value`; `unworn`; `temperatureC`, `material` (`steel`, `grey-iron`, `aluminium`)',
  file: object({
    at: list(object({ depthMm: figure(0, 3000), axis: name(20), value: raw }), 2000).min(1),
    unworn: mayRead,
    temperatureC: optional(figure(-30, 120)),
    material: optional(oneOf(MATERIALS)),
  }),
  read: (given, reader): Readings => ({
    at: reader.each(
      given.at,
      (x, i) => reader.size(x.value, `readings.at.${i}.value`),
      (x, mm) => ({ depthMm: x.depthMm, axis: x.axis, mm }),
    ),
    unwornMm: reader.length(given.unworn, 'readings.unworn'),
    temperatureC: given.temperatureC ?? null,
    material: given.material ?? 'grey-iron',
  }),
  compute: ({ at: read, unwornMm, temperatureC, material }, { gauge, sizes }) => {
    const warm = (mm: number): number => (temperatureC === null ? mm : at20(mm, temperatureC, material));
    const at = read.map((r) => ({ ...r, mm: warm(r.mm) }));
    const taken = takeRepeats(at, (x) => `${x.depthMm} ${x.axis}`, gauge('bore'));
    const { lines, missing } = boreLines(taken.readings, unwornMm === null ? null : warm(unwornMm), taken.gauge);
    const { minMm: min, maxMm: max, oversizesMm = [] } = sizes;
    const greatest = lines.find((l) => l.id === 'greatest');
    const steps = oversizesMm.length > 0 ? oversizesMm : USUAL_STEPS_MM;
    const says =
      min !== undefined && max !== undefined && greatest
        ? [nextOversize(greatest.value, { min, max }, steps, sizes.deepestMarkMm ?? 0).words]
        : [];
    const questions = questionsOf(
      at.map((x) => ({ mm: x.mm, place: `${x.depthMm} mm, axis ${x.axis}` })),
      sizes,
    );
    return { lines, missing, says, questions };
  },
  bench: {
    group: 'cylinders',
    rank: 1,
    round: 'Bores',
    drawing: 'bore',
    chart: 'bore',
    specs: { bore: { name: 'Bores', rank: 16 } },
    fields: {
      sizes: true,
      steps: 'oversizesMm',
      lines: [upper('wear', 'Wear'), upper('ovality', 'Ovality'), upper('taper', 'Taper'), upper('ridge', 'Ridge, a side')],
    },
    places: (layout) =>
      cylinderPlaces(layout).map(({ cylinder: c }, turn) => ({
        station: `bore.${c}`,
        name: `Bore ${c}`,
        short: `Bore ${c}`,
        spec: 'bore',
        turn,
        fixed: { material: boreMaterial(layout) },
        cells: cells(layout),
      })),
    readings: (values, place) => {
      const at = boreReadings(values, place.cells);
      if (at.length === 0) return null;
      return {
        at,
        unwornMm: values.of('unworn'),
        temperatureC: values.of('temperatureC'),
        material: place.fixed.material ?? 'grey-iron',
      };
    },
    truth: (engine, place, key) => {
      const station = place.station!;
      if (key === DEEPEST_MARK) return 0.004 + 0.06 * engine.severity(station);
      if (key === 'unworn') return engine.layout.boreMm + 0.007 + 0.004 * chance(`${engine.seed} ${station}`);
      if (key === 'temperatureC') return 19;
      const [depth, axis] = key.split('.') as [string, string];
      const depths = [...new Set(place.cells.flatMap((c) => (c.item?.['depthMm'] === undefined ? [] : [String(c.item['depthMm'])])))];
      return trueBoreMm(engine, stationOf(engine.layout, station)!.cylinder, depths.indexOf(depth), axis);
    },
    speaks: /./,
    losses: /^(wear|ovality)$/,
  },
});
