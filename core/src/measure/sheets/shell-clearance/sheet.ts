import { object } from '../../../kit/schema.js';
import { housingCells, shellBearings } from '../bearing.js';
import { cell, type Cell } from '../cells.js';
import { both, defineSheet, mayRead, raw, upper } from '../define.js';
import { trueBearing } from '../trueEngine.js';
import { shellClearanceLines, type ShellGauging } from './clearance.js';

const NEEDS = ['housing.vertical', 'upper', 'lower', 'journal'] as const;

const wall = (key: string, name: string, optional = false): Cell => cell({ key, name, role: 'wall', sense: [0.5, 12], optional });

function cells(journalMm: number): Cell[] {
  return [
    ...housingCells(journalMm, (direction) => ({
      key: `housing.${direction}`,
      column: `housing ${direction}`,
      optional: direction !== 'vertical',
    })),
    wall('upper', 'upper wall at the crown'),
    wall('lower', 'lower wall at the crown'),
    wall('upperSide', 'upper wall, 25° above the parting line', true),
    wall('lowerSide', 'lower wall, 25° above the parting line', true),
    cell({ key: 'journal', name: 'its journal, on the same axis', column: 'journal', role: 'micrometer', expectMm: journalMm }),
    wall('newWall', 'wall of a new half', true),
  ];
}

/** Running clearance of a plain bearing: housing less its two walls less its journal. */
export const shellClearance = defineSheet({
  id: 'shell-clearance',
  name: 'Shell clearance by gauges',
  says: '`housing`: `vertical`, `left`, `right`; `upper`, `lower` (walls at the crown), `upperSide`, `lowerSide` (25° above the parting line), `journal`, `newWall`',
  file: object({
    housing: object({ vertical: raw, left: mayRead, right: mayRead }),
    upper: raw,
    lower: raw,
    upperSide: mayRead,
    lowerSide: mayRead,
    journal: raw,
    newWall: mayRead,
  }),
  read: (given, reader): ShellGauging => ({
    housingMm: {
      vertical: reader.need(given.housing.vertical, 'readings.housing.vertical'),
      left: reader.length(given.housing.left, 'readings.housing.left'),
      right: reader.length(given.housing.right, 'readings.housing.right'),
    },
    upperMm: reader.need(given.upper, 'readings.upper'),
    lowerMm: reader.need(given.lower, 'readings.lower'),
    upperSideMm: reader.length(given.upperSide, 'readings.upperSide'),
    lowerSideMm: reader.length(given.lowerSide, 'readings.lowerSide'),
    journalMm: reader.need(given.journal, 'readings.journal'),
    newWallMm: reader.length(given.newWall, 'readings.newWall'),
  }),
  compute: (readings, { gauge }) => shellClearanceLines(readings, gauge('bore'), gauge('wall'), gauge('micrometer')),
  bench: {
    group: 'bearings',
    rank: 1,
    round: 'Clearance by gauges',
    drawing: 'bearing',
    chart: 'clearance',
    specs: {
      'main.clearance': { name: 'Main clearance by gauges', rank: 5 },
      'rod.clearance': { name: 'Rod clearance by gauges', rank: 10 },
    },
    fields: { newWall: true, lines: [both('vertical', 'Clearance, vertical'), upper('wallLoss.lower', 'Wall loss, lower')] },
    places: (layout, has) =>
      shellBearings(layout, has).map((b) => ({
        station: b.lower,
        name: `${b.name} clearance by gauges`,
        short: b.name,
        spec: `${b.part}.clearance`,
        turn: b.turn,
        needs: NEEDS,
        cells: cells(b.journalMm),
      })),
    readings: (values) => {
      const needed = values.all(NEEDS);
      if (!needed) return null;
      const [vertical, upperMm, lowerMm, journalMm] = needed;
      return {
        housingMm: { vertical, left: values.of('housing.left'), right: values.of('housing.right') },
        upperMm,
        lowerMm,
        upperSideMm: values.of('upperSide'),
        lowerSideMm: values.of('lowerSide'),
        journalMm,
        newWallMm: values.of('newWall'),
      };
    },
    truth: (engine, place, key) => {
      const b = trueBearing(engine, place.station!);
      if (key.startsWith('housing.')) return b.housing(key.slice('housing.'.length));
      if (key === 'journal') return b.journal;
      if (key === 'newWall') return b.wall;
      return b.wall - 0.001 - 0.024 * b.severity(key.startsWith('upper') ? 'upper' : 'lower') - (key.endsWith('Side') ? 0.009 : 0);
    },
    // Its journal on axis A, the mean over the planes, and the wall of a new half where the specification gives it.
    borrows: (layout, place) => [
      ...shellBearings(layout, (station) => station === place.station).map((b) => ({
        cell: 'journal',
        station: b.journal,
        sheet: 'journal',
        of: (key: string) => key.endsWith('.A'),
      })),
      { cell: 'newWall', spec: 'newWallMm' },
    ],
    speaks: /^wallLoss\.lower$/,
    losses: /^wallLoss\./,
  },
});
