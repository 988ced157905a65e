import { object } from '../../../kit/schema.js';
import { combinedExpanded } from '../../../units/gauge.js';
import { isPressureFed } from '../../../engine/layout.js';
import { cell, GAP, type Cell } from '../cells.js';
import { both, defineSheet, lower, mayRead, upper } from '../define.js';
import type { SheetLine } from '../line.js';

function cells(): Cell[] {
  return [
    cell({ key: 'end', name: 'gears to cover', column: 'end', role: 'feeler', sense: GAP }),
    cell({ key: 'tip', name: 'gear to gear', column: 'tip', role: 'feeler', sense: GAP }),
    cell({ key: 'side', name: 'gear to body', column: 'side', role: 'feeler', sense: GAP }),
    cell({ key: 'springLength', name: 'relief spring, free', column: 'spring', role: 'caliper', sense: [5, 200] }),
    cell({
      key: 'popPressure',
      name: 'relief opens at',
      column: 'opens',
      role: 'vacuum',
      quantity: 'pressure',
      sense: [0, 30],
      optional: true,
    }),
  ];
}

/** Clearances of the oil pump and its relief. The tester of the relief is taken to be good to 0.1 bar. */
export const oilPump = defineSheet({
  id: 'oil-pump',
  name: 'Oil pump',
  says: '`end`, `tip`, `side`, `springLength`, `popPressure`',
  file: object({ end: mayRead, tip: mayRead, side: mayRead, springLength: mayRead, popPressure: mayRead }).min(1),
  read: (given, reader) => ({
    endMm: reader.length(given.end, 'readings.end'),
    tipMm: reader.length(given.tip, 'readings.tip'),
    sideMm: reader.length(given.side, 'readings.side'),
    springMm: reader.length(given.springLength, 'readings.springLength'),
    popBar: reader.quantity(given.popPressure, 'pressure', 'readings.popPressure'),
  }),
  compute: (r, { gauge }) => {
    const expanded = combinedExpanded(gauge('feeler'), [1]);
    const line = (id: string, name: string, value: number | null, at: string): SheetLine[] =>
      value === null ? [] : [{ id, name, value, unit: 'mm', expanded, at }];
    return {
      lines: [
        ...line('end', 'End clearance', r.endMm, 'gears to cover'),
        ...line('tip', 'Tip clearance', r.tipMm, 'gear to gear'),
        ...line('side', 'Side clearance', r.sideMm, 'gear to body'),
        ...line('springLength', 'Relief spring, free', r.springMm, 'unloaded'),
        ...(r.popBar === null
          ? []
          : [{ id: 'popPressure', name: 'Relief opens', value: r.popBar, unit: 'bar' as const, expanded: 0.1, at: 'on the tester' }]),
      ],
      thumbs: { end: { upper: 0.1 }, tip: { upper: 0.2 }, side: { upper: 0.2 } },
    };
  },
  bench: {
    group: 'oil',
    rank: 1,
    round: 'Pump and relief',
    drawing: 'pump',
    specs: { 'oil-pump': { name: 'Oil pump', rank: 25 } },
    fields: {
      lines: [
        upper('end', 'End clearance'),
        upper('tip', 'Tip clearance'),
        upper('side', 'Side clearance'),
        lower('springLength', 'Relief spring, free'),
        both('popPressure', 'Relief opens', 'bar'),
      ],
    },
    places: (layout) =>
      isPressureFed(layout)
        ? [{ station: 'pump.gears', name: 'Oil pump and relief', short: 'Pump', spec: 'oil-pump', cells: cells() }]
        : [],
    readings: (values) => ({
      endMm: values.of('end'),
      tipMm: values.of('tip'),
      sideMm: values.of('side'),
      springMm: values.of('springLength'),
      popBar: values.of('popPressure'),
    }),
    truth: (engine, place, key) => {
      const worn = engine.severity(place.station!);
      const values: Record<string, number> = {
        end: 0.055 + 0.1 * worn,
        tip: 0.12 + 0.15 * worn,
        side: 0.11 + 0.12 * worn,
        springLength: 46.4,
        popPressure: 4.3,
      };
      return values[key] ?? 0;
    },
    speaks: /./,
  },
});
