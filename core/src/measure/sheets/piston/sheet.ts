import { figure, object, oneOf, optional } from '../../../kit/schema.js';
import { stationOf } from '../../../engine/stations.js';
import { cylinderPlaces, type EngineLayout } from '../../../engine/layout.js';
import { boreCellAtPiston, boreMaterial } from '../bore/sheet.js';
import { cell, thermometer, type Cell } from '../cells.js';
import { both, defineSheet, mayRead, raw, upper } from '../define.js';
import { at20, EXPANSION, MATERIALS, type Material } from '../line.js';
import { chance, trueBoreMm } from '../trueEngine.js';
import { pistonLines } from './piston.js';

function cells(layout: EngineLayout): Cell[] {
  const size = (key: string, name: string, extra: Partial<Cell> = {}): Cell =>
    cell({ key, name, role: 'micrometer', expectMm: layout.boreMm, ...extra });
  return [
    size('piston', 'at the gauge point'),
    size('bore', 'its bore at that height', { role: 'bore' }),
    size('new', 'size new', { optional: true }),
    size('crown', 'crown', { optional: true }),
    cell({ key: 'pinBoss', name: 'pin boss', role: 'bore', optional: true, sense: [5, 120] }),
    cell({ key: 'print', name: 'height of the print', role: 'scale', optional: true, sense: [0, 200] }),
    thermometer,
  ];
}

interface Readings {
  /** As read, not yet brought to 20 °C. */
  readonly pistonMm: number;
  readonly boreMm: number | null;
  readonly newMm: number | null;
  readonly crownMm: number | null;
  readonly pinBossMm: number | null;
  readonly printMm: number | null;
  readonly temperatureC: number | null;
  readonly boreMaterial: Material;
}

/** A piston and its clearance. */
export const piston = defineSheet({
  id: 'piston',
  name: 'Piston',
  says: '`piston` at the gauge point; `bore` at that height; `new`; `crown`, `pinBoss`, `print` (height of the worn print); `temperatureC`, `boreMaterial`',
  file: object({
    piston: raw,
    bore: mayRead,
    new: mayRead,
    crown: mayRead,
    pinBoss: mayRead,
    print: mayRead,
    temperatureC: optional(figure(-30, 120)),
    boreMaterial: optional(oneOf(MATERIALS)),
  }),
  read: (given, reader): Readings => ({
    pistonMm: reader.need(given.piston, 'readings.piston'),
    boreMm: reader.length(given.bore, 'readings.bore'),
    newMm: reader.length(given.new, 'readings.new'),
    crownMm: reader.length(given.crown, 'readings.crown'),
    pinBossMm: reader.length(given.pinBoss, 'readings.pinBoss'),
    printMm: reader.length(given.print, 'readings.print'),
    temperatureC: given.temperatureC ?? null,
    boreMaterial: given.boreMaterial ?? 'grey-iron',
  }),
  compute: (r, { gauge }) => {
    const { temperatureC } = r;
    const warm = (mm: number | null, m: Material): number | null => (mm === null || temperatureC === null ? mm : at20(mm, temperatureC, m));
    const gaugePointMm = warm(r.pistonMm, 'aluminium') ?? 0;
    const boreMm = warm(r.boreMm, r.boreMaterial);
    const shift = temperatureC === null ? 0 : gaugePointMm * (EXPANSION.aluminium - EXPANSION['grey-iron']) * Math.abs(temperatureC - 20);
    return {
      lines: pistonLines(
        {
          gaugePointMm,
          boreMm,
          newMm: r.newMm,
          crownMm: warm(r.crownMm, 'aluminium'),
          pinBossMm: r.pinBossMm,
          printMm: r.printMm,
        },
        gauge('micrometer'),
        gauge('bore'),
      ),
      missing: boreMm === null ? ['the bore at that height, so no clearance'] : [],
      says: shift > 0.005 ? [`At ${temperatureC} °C the clearance reads ${shift.toFixed(3)} mm off what it is at 20 °C; corrected.`] : [],
    };
  },
  bench: {
    group: 'cylinders',
    rank: 2,
    round: 'Pistons',
    drawing: 'piston',
    specs: { piston: { name: 'Pistons', rank: 17 } },
    fields: { lines: [both('clearance', 'Piston to bore'), upper('collapse', 'Skirt collapse')] },
    places: (layout) =>
      cylinderPlaces(layout).map(({ cylinder: c }, turn) => ({
        station: `piston.${c}.skirt.thrust`,
        name: `Piston ${c}`,
        short: `Piston ${c}`,
        spec: 'piston',
        turn,
        fixed: { material: boreMaterial(layout) },
        needs: ['piston'],
        cells: cells(layout),
      })),
    readings: (values, place) => {
      const pistonMm = values.of('piston');
      if (pistonMm === null) return null;
      return {
        pistonMm,
        boreMm: values.of('bore'),
        newMm: values.of('new'),
        crownMm: values.of('crown'),
        pinBossMm: values.of('pinBoss'),
        printMm: values.of('print'),
        temperatureC: values.of('temperatureC'),
        boreMaterial: place.fixed.material ?? 'grey-iron',
      };
    },
    truth: (engine, place, key) => {
      const { boreMm } = engine.layout;
      const worn = engine.severity(place.station!);
      const made = boreMm - 0.04 + 0.003 * chance(`${engine.seed} ${place.id} made`);
      const sizes: Record<string, number> = {
        piston: made - 0.008 - 0.03 * worn,
        bore: trueBoreMm(engine, stationOf(engine.layout, place.station!)!.cylinder, 1, 'A'),
        new: boreMm - 0.04,
        crown: boreMm - 0.46,
        pinBoss: Math.round(boreMm * 0.26) + 0.006 + 0.02 * worn,
        print: boreMm * (0.24 + 0.1 * worn),
        temperatureC: 19,
      };
      return sizes[key] ?? 0;
    },
    borrows: (layout, place) => [
      {
        cell: 'bore',
        station: `bore.${stationOf(layout, place.station!)!.cylinder}`,
        sheet: 'bore',
        of: (key) => key === boreCellAtPiston(layout),
      },
    ],
    speaks: /^collapse$/,
    losses: /^collapse$/,
  },
});
