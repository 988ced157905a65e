import Joi from 'joi';
import { travelLines } from './bearing.js';
import { AXES, barrelText, journalSheet, PLANES, type JournalReading } from '../journal.js';
import { figure, kind, list, questionsOf, referencesOf, size, steps, type Raw, type SheetKind } from './kind.js';
import { takeRepeats, type SheetLine } from './line.js';
import { crankRunout, rodLines } from './shape.js';

/** The crank. */
export const CRANK_KINDS: Readonly<Record<string, SheetKind>> = {
  journal: kind<ReadonlyArray<{ plane: 'front'; axis: 'A'; value: Raw }>>(
    'Journal or crankpin',
    list({
      plane: Joi.string()
        .valid(...PLANES)
        .required(),
      axis: Joi.string()
        .valid(...AXES)
        .required(),
      value: figure.required(),
    }),
    (r, read, gauge, spec) => {
      const list: JournalReading[] = r.flatMap((x, i) => {
        const mm = read.size(x.value, `readings.${i}.value`);
        return mm === null ? [] : [{ plane: x.plane, axis: x.axis, mm }];
      });
      const min = size(spec, 'minMm');
      const max = size(spec, 'maxMm');
      const known =
        min !== undefined && max !== undefined
          ? {
              minMm: min,
              maxMm: max,
              undersizesMm: steps(spec['undersizesMm']).length > 0 ? steps(spec['undersizesMm']) : [0.25, 0.5, 0.75, 1],
              source: String(spec['source'] ?? ''),
            }
          : null;
      const taken = takeRepeats(list, (x) => `${x.plane} ${x.axis}`, gauge('micrometer'));
      const s = journalSheet(taken.readings, taken.gauge, known, size(spec, 'deepestMarkMm') ?? 0);
      const line = (id: string, name: string, v: typeof s.max): SheetLine[] =>
        v
          ? [
              {
                id,
                name,
                value: v.value,
                unit: 'mm',
                expanded: v.expanded,
                at: v.at,
                ...(id === 'taper' || id.startsWith('barrel') ? { signed: true } : {}),
              },
            ]
          : [];
      return {
        lines: [
          ...line('greatest', 'Largest', s.max),
          ...line('least', 'Least', s.min),
          ...line('outOfRound', 'Out-of-round', s.outOfRound),
          ...line('taper', 'Taper', s.taper),
          ...s.barrel.flatMap((b) => line(`barrel.${b.axis}`, `Barrel or hourglass, ${b.axis}`, b)),
          ...line('wear', 'Wear', s.wear),
        ],
        says: [...(s.barrel.length > 0 ? [`${s.barrel.map((b) => barrelText(b)).join('; ')}.`] : []), ...(s.size ? [s.size.reason] : [])],
        missing: [
          ...(s.outOfRound ? [] : ['a second axis, so no out-of-round']),
          ...(s.taper ? [] : ['front and rear, so no taper']),
          ...(s.barrel.length > 0 ? [] : ['the middle plane, so no barrel or hourglass']),
        ],
        questions: questionsOf(
          list.map((x) => ({ mm: x.mm, place: `${x.plane}, axis ${x.axis}` })),
          spec,
        ),
        references: referencesOf(spec, [
          ['least', 'minMm', 'lower'],
          ['greatest', 'maxMm', 'upper'],
          ['outOfRound', 'outOfRoundMaxMm', 'upper'],
          ['taper', 'taperMaxMm', 'upper'],
        ]),
      };
    },
  ),
  'crank-runout': kind<ReadonlyArray<{ main: number; alongMm: number; tir: Raw; highDeg: number }>>(
    'Crank runout',
    list(
      {
        main: Joi.number().integer().min(1).required(),
        alongMm: Joi.number().required(),
        tir: figure.required(),
        highDeg: Joi.number().min(-360).max(360).required(),
      },
      3,
    )
      .unique('main')
      .unique('alongMm'),
    (r, read, gauge) => {
      const result = crankRunout(
        r.map((x, i) => ({ main: x.main, alongMm: x.alongMm, tirMm: read.need(x.tir, `readings.${i}.tir`), highDeg: x.highDeg })),
        gauge('indicator'),
      );
      return { ...result, thumbs: { runout: { upper: 0.05 } } };
    },
  ),
  'end-float': kind<{ towards: Raw; away: Raw }>(
    'Crank end float',
    Joi.object({ towards: figure.required(), away: figure.required() }),
    (r, read, gauge) => ({
      lines: travelLines(
        'endFloat',
        'End float',
        read.need(r.towards, 'readings.towards'),
        read.need(r.away, 'readings.away'),
        gauge('indicator'),
      ),
      thumbs: { endFloat: { upper: 0.3 } },
    }),
  ),
  rod: kind<{ bend?: Raw; twist?: Raw; overMm: number; centres?: Raw }>(
    'Rod',
    Joi.object({ bend: figure, twist: figure, overMm: Joi.number().positive().max(1000).required(), centres: figure }),
    (r, read, gauge) => ({
      lines: rodLines(
        {
          bendMm: read.length(r.bend, 'readings.bend'),
          twistMm: read.length(r.twist, 'readings.twist'),
          overMm: r.overMm,
          centresMm: read.length(r.centres, 'readings.centres'),
        },
        gauge('indicator'),
      ),
      thumbs: { bend: { lower: -0.05, upper: 0.05 }, twist: { lower: -0.08, upper: 0.08 } },
      says: ['A bent rod leaves diagonal wear on its skirt and opposite edges on its two halves.'],
    }),
  ),
};
