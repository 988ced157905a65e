import { list, object, whole } from '../../../kit/schema.js';
import { cell, GAP } from '../cells.js';
import { defineSheet, raw, upper } from '../define.js';
import { chance } from '../trueEngine.js';
import { mainLineLines } from './line.js';

/** Main housings against a straight edge laid through them. */
export const mainLine = defineSheet({
  id: 'main-line',
  name: 'Main line',
  says: 'list of `main`, `gap` under the straight edge',
  file: list(object({ main: whole(1, 17), gap: raw }), 2000)
    .min(2)
    .unique('main'),
  read: (given, reader) =>
    reader.each(
      given,
      (x, i) => reader.length(x.gap, `readings.${i}.gap`),
      (x, gapMm) => ({ main: x.main, gapMm }),
    ),
  compute: (gaps, { gauge }) => ({
    lines: mainLineLines(gaps, gauge('feeler')),
    thumbs: { line: { upper: 0.05 }, step: { upper: 0.025 } },
  }),
  bench: {
    group: 'bearings',
    rank: 5,
    round: 'Main line',
    drawing: 'straight-edge',
    specs: { 'main.line': { name: 'Main line', rank: 9 } },
    fields: { lines: [upper('line', 'Greatest gap'), upper('step', 'Greatest step')] },
    places: (layout) =>
      layout.mains < 3 || layout.mainBearings !== 'shells'
        ? []
        : [
            {
              station: null,
              name: 'Main line by straight edge',
              short: 'Main line',
              spec: 'main.line',
              turn: layout.mains + layout.cylinders,
              cells: Array.from({ length: layout.mains }, (_, i) =>
                cell({
                  key: `main.${i + 1}`,
                  name: `feeler at main ${i + 1}`,
                  column: `main ${i + 1}`,
                  role: 'feeler',
                  sense: GAP,
                  item: { main: i + 1 },
                }),
              ),
            },
          ],
    readings: (values, place) => {
      const gaps = place.cells.flatMap((c) => {
        const gapMm = values.of(c.key);
        return gapMm === null ? [] : [{ main: Number(c.item!['main']), gapMm }];
      });
      return gaps.length < 2 ? null : gaps;
    },
    truth: (engine, place, key) => {
      const worn = engine.severity(`main.${key.slice('main.'.length)}.shell.lower`);
      return Math.max(0, 0.008 + 0.008 * chance(`${engine.seed} ${place.id} ${key}`) + 0.05 * worn);
    },
  },
});
