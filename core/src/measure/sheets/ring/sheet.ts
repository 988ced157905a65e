import { object, optional, positive } from '../../../kit/schema.js';
import { stationOf } from '../../../engine/stations.js';
import { cylinderPlaces } from '../../../engine/layout.js';
import { cell, GAP, type Cell } from '../cells.js';
import { both, defineSheet, lower, mayRead } from '../define.js';
import { chance, trueBoreMm } from '../trueEngine.js';
import { ringLines } from './ring.js';

const RINGS = ['top', 'second', 'oil'] as const;

function cells(): Cell[] {
  return [
    cell({ key: 'gapUnworn', name: 'end gap in the unworn bore', column: 'gap', role: 'feeler', sense: GAP }),
    cell({ key: 'gapWorn', name: 'end gap in the ring travel', column: 'gap, worn', role: 'feeler', sense: GAP }),
    cell({ key: 'groove', name: 'groove height', column: 'groove', role: 'feeler', sense: [0.5, 10] }),
    cell({ key: 'ring', name: 'ring height', column: 'ring', role: 'micrometer', sense: [0.5, 10] }),
    cell({ key: 'grooveDepth', name: 'groove depth', column: 'depth', role: 'depth', sense: [1, 12], optional: true }),
    cell({ key: 'ringDepth', name: 'ring thickness', column: 'thickness', role: 'micrometer', sense: [1, 12], optional: true }),
    cell({ key: 'freeGap', name: 'free gap', role: 'caliper', sense: [0, 60], optional: true }),
    cell({ key: 'tension', name: 'tension', role: 'spring', quantity: 'force', sense: [0, 300], optional: true }),
  ];
}

/** A ring: its gap, its groove, its tension. */
export const ring = defineSheet({
  id: 'ring',
  name: 'Ring',
  says: '`gapUnworn`, `gapWorn`, `groove`, `ring`, `grooveDepth`, `ringDepth`, `freeGap`, `tension` (N or lbf), `boreMm`',
  file: object({
    gapUnworn: mayRead,
    gapWorn: mayRead,
    groove: mayRead,
    ring: mayRead,
    grooveDepth: mayRead,
    ringDepth: mayRead,
    freeGap: mayRead,
    tension: mayRead,
    boreMm: optional(positive(5000)),
  }),
  read: (given, reader) => ({
    gapUnwornMm: reader.length(given.gapUnworn, 'readings.gapUnworn'),
    gapWornMm: reader.length(given.gapWorn, 'readings.gapWorn'),
    grooveMm: reader.length(given.groove, 'readings.groove'),
    ringMm: reader.length(given.ring, 'readings.ring'),
    grooveDepthMm: reader.length(given.grooveDepth, 'readings.grooveDepth'),
    ringDepthMm: reader.length(given.ringDepth, 'readings.ringDepth'),
    freeGapMm: reader.length(given.freeGap, 'readings.freeGap'),
    tensionN: reader.quantity(given.tension, 'force', 'readings.tension'),
    boreMm: given.boreMm,
  }),
  compute: ({ boreMm, ...ring }, { gauge }) => ({
    lines: ringLines(ring, gauge('feeler')),
    thumbs: {
      ...(boreMm === undefined ? {} : { gap: { lower: 0.003 * boreMm, upper: 0.01 * boreMm } }),
      side: { lower: 0.02, upper: 0.15 },
    },
  }),
  bench: {
    group: 'cylinders',
    rank: 3,
    round: 'Rings',
    drawing: 'ring',
    specs: {
      'ring.top': { name: 'Top rings', rank: 18 },
      'ring.second': { name: 'Second rings', rank: 19 },
      'ring.oil': { name: 'Oil rings', rank: 20 },
    },
    fields: {
      lines: [both('gap', 'End gap'), both('side', 'Side clearance'), lower('back', 'Back clearance'), both('tension', 'Tension', 'N')],
    },
    places: (layout) => {
      const rings = layout.cycle === 'two-stroke' && layout.valveGear === 'ports' ? RINGS.slice(0, 2) : RINGS;
      return cylinderPlaces(layout).flatMap(({ cylinder: c }, turn) =>
        rings.map((which) => ({
          station: `rings.${c}.pack`,
          sheet: `ring.${which}`,
          name: `Ring ${c}, ${which}`,
          short: `Ring ${c} ${which}`,
          spec: `ring.${which}`,
          turn,
          fixed: { boreMm: layout.boreMm },
          cells: cells(),
        })),
      );
    },
    readings: (values, place) => ({
      gapUnwornMm: values.of('gapUnworn'),
      gapWornMm: values.of('gapWorn'),
      grooveMm: values.of('groove'),
      ringMm: values.of('ring'),
      grooveDepthMm: values.of('grooveDepth'),
      ringDepthMm: values.of('ringDepth'),
      freeGapMm: values.of('freeGap'),
      tensionN: values.of('tension'),
      boreMm: place.fixed.boreMm,
    }),
    truth: (engine, place, key) => {
      const { boreMm } = engine.layout;
      const worn = engine.severity(place.station!);
      const h = (what: string): number => chance(`${engine.seed} ${place.id} ${what}`);
      const gap = boreMm * 0.0042 + 0.03 * h('gap');
      const height = place.sheet === 'ring.oil' ? 3 : 1.5;
      const sizes: Record<string, number> = {
        gapUnworn: gap,
        gapWorn: gap + Math.PI * (trueBoreMm(engine, stationOf(engine.layout, place.station!)!.cylinder, 0, 'D') - boreMm - 0.007),
        groove: height + 0.045 + 0.06 * worn,
        ring: height - 0.008,
        grooveDepth: boreMm * 0.042 + 0.4,
        ringDepth: boreMm * 0.042,
        freeGap: boreMm * (0.12 - 0.05 * worn),
        tension: 11 - 5 * worn + h('tension'),
      };
      return sizes[key] ?? 0;
    },
    speaks: /^(gap|back|tension)$/,
  },
});
