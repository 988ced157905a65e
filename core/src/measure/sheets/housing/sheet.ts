import { list, name, object } from '../../../kit/schema.js';
import { HOUSING_DIRECTIONS, housingCells, shellBearings } from '../bearing.js';
import { defineSheet, raw, referencesOf, upper, type Sizes } from '../define.js';
import { takeRepeats, type SheetLine } from '../line.js';
import { trueBearing } from '../trueEngine.js';
import { housingLines } from './housing.js';

/** Does a housing want to be resized: a size past its band by more than the reading is good to. */
function resizeWords(lines: readonly SheetLine[], { minMm, maxMm }: Sizes): string[] {
  const of = (id: string): SheetLine | undefined => lines.find((l) => l.id === id);
  const [most, least] = [of('greatest'), of('least')];
  if (!most || !least || minMm === undefined || maxMm === undefined) return [];
  if (most.value - (most.expanded ?? 0) > maxMm)
    return [
      `Resize: ${(most.value - maxMm).toFixed(3)} mm too large ${most.at}; metal comes off the joint faces and the bore is taken back to ${minMm.toFixed(3)}–${maxMm.toFixed(3)} mm.`,
    ];
  if (least.value + (least.expanded ?? 0) < minMm)
    return [
      `Resize: ${(minMm - least.value).toFixed(3)} mm too small ${least.at}; look for dirt or a burr at the joint before any metal comes off.`,
    ];
  return [];
}

/** A bearing's housing, torqued without its shells. */
export const housing = defineSheet({
  id: 'housing',
  name: 'Housing bore',
  says: 'list of `direction` (one named `vertical` gives the stretch), `value`',
  file: list(object({ direction: name(30), value: raw }), 2000).min(2),
  read: (given, reader) =>
    reader.each(
      given,
      (d, i) => reader.size(d.value, `readings.${i}.value`),
      (d, mm) => ({ direction: d.direction, mm }),
    ),
  compute: (directions, { gauge, sizes }) => {
    const taken = takeRepeats(directions, (d) => d.direction, gauge('bore'));
    const lines = housingLines(taken.readings, taken.gauge);
    return {
      lines,
      references: referencesOf(sizes, [
        ['greatest', 'maxMm', 'upper'],
        ['least', 'minMm', 'lower'],
      ]),
      says: resizeWords(lines, sizes),
      missing: new Set(directions.map((d) => d.direction)).size < 2 ? ['a second direction, so no out-of-round'] : [],
    };
  },
  bench: {
    group: 'bearings',
    rank: 4,
    round: 'Housing bores',
    drawing: 'bearing',
    specs: { 'main.housing': { name: 'Main housings', rank: 8 }, 'rod.housing': { name: 'Rod housings', rank: 13 } },
    fields: { sizes: true, lines: [upper('outOfRound', 'Out-of-round'), upper('stretch', 'Stretch')] },
    places: (layout, has) =>
      shellBearings(layout, has).map((b) => ({
        station: b.lower,
        name: `${b.name} housing bore`,
        short: `${b.name} housing`,
        spec: `${b.part}.housing`,
        turn: b.turn,
        cells: housingCells(b.journalMm, (direction) => ({ key: direction, column: direction })),
      })),
    readings: (values) => {
      const read = HOUSING_DIRECTIONS.flatMap((direction) => {
        const mm = values.size(direction);
        return mm === null ? [] : [{ direction, mm }];
      });
      return read.length < 2 ? null : read;
    },
    truth: (engine, place, key) => trueBearing(engine, place.station!).housing(key),
  },
});
