import { figure, list, number, object, whole } from '../../../kit/schema.js';
import { mainPositions } from '../../../engine/layout.js';
import { cell } from '../cells.js';
import { defineSheet, raw, upper } from '../define.js';
import { chance } from '../trueEngine.js';
import { crankRunout, type RunoutReading } from './runout.js';

/** The crank laid on its outer mains, an indicator at each. */
export const crankRunoutSheet = defineSheet({
  id: 'crank-runout',
  name: 'Crank runout',
  says: 'list of `main`, `alongMm`, `tir`, `highDeg`',
  file: list(object({ main: whole(1, 99), alongMm: number, tir: raw, highDeg: figure(-360, 360) }), 2000)
    .min(3)
    .unique('main')
    .unique('alongMm'),
  read: (given, reader) =>
    given.map((x, i): RunoutReading => ({
      main: x.main,
      alongMm: x.alongMm,
      tirMm: reader.need(x.tir, `readings.${i}.tir`),
      highDeg: x.highDeg,
    })),
  compute: (readings, { gauge }) => ({ ...crankRunout(readings, gauge('indicator')), thumbs: { runout: { upper: 0.05 } } }),
  bench: {
    group: 'crank',
    rank: 2,
    round: 'Runout',
    drawing: 'crank-on-rests',
    specs: { 'crank.runout': { name: 'Crank runout', rank: 3 } },
    fields: { lines: [upper('runout', 'Greatest runout'), upper('bow', 'Bow')] },
    places: (layout) => {
      if (layout.mains < 3) return [];
      const step = layout.pinDiameterMm * 0.95 + layout.rodShellWidthMm;
      const cells = mainPositions(layout).flatMap((pins, i) => {
        const item = { main: i + 1, alongMm: Math.round((pins + i) * step) };
        const base = { row: `main ${i + 1}`, role: 'indicator' as const, item };
        return [
          cell({ ...base, key: `main.${i + 1}.tir`, name: `main ${i + 1}, indicator over one turn`, column: 'reading', sense: [0, 5] }),
          cell({
            ...base,
            key: `main.${i + 1}.highDeg`,
            name: `main ${i + 1}, where it is high`,
            column: 'high at',
            quantity: 'angle',
            sense: [-360, 360],
          }),
        ];
      });
      return [{ station: null, name: 'Crank runout', short: 'Runout', spec: 'crank.runout', cells }];
    },
    readings: (values, place) => {
      const mains = new Map(place.cells.map((c) => [Number(c.item!['main']), Number(c.item!['alongMm'])]));
      const readings = [...mains].flatMap(([main, alongMm]): RunoutReading[] => {
        const [tirMm, highDeg] = [values.of(`main.${main}.tir`), values.of(`main.${main}.highDeg`)];
        return tirMm === null || highDeg === null ? [] : [{ main, alongMm, tirMm, highDeg }];
      });
      return readings.length < 3 ? null : readings;
    },
    truth: (engine, _place, key) => {
      const { mains } = engine.layout;
      const share = (Number(key.split('.')[1]) - 1) / Math.max(1, mains - 1);
      const worst = Math.max(0, ...Array.from({ length: mains }, (_, i) => engine.severity(`crank.main.${i + 1}`)));
      return key.endsWith('highDeg') ? 40 + 8 * chance(`${engine.seed} ${key}`) : 0.006 + 4 * share * (1 - share) * (0.008 + 0.05 * worst);
    },
  },
});
