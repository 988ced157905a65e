import Joi from 'joi';
import { figure, kind, list, size, type Raw, type SheetKind } from './kind.js';
import { camJournalLines, camLines, flatness, ratioAfterCut, scratchLines } from './shape.js';

/** Deck, head and camshaft. */
export const HEAD_KINDS: Readonly<Record<string, SheetKind>> = {
  flatness: kind<{
    points: ReadonlyArray<{ xMm: number; yMm: number; value: Raw }>;
    scratches?: ReadonlyArray<{ at: string; depth: Raw }>;
    cut?: { boreMm: number; strokeMm: number; compressionRatio: number; cutMm: number };
  }>(
    'Deck or head flatness',
    Joi.object({
      points: list({ xMm: Joi.number().required(), yMm: Joi.number().required(), value: figure.required() }, 4),
      scratches: Joi.array()
        .items(Joi.object({ at: Joi.string().max(40).required(), depth: figure.required() }))
        .max(200),
      cut: Joi.object({
        boreMm: Joi.number().positive().required(),
        strokeMm: Joi.number().positive().required(),
        compressionRatio: Joi.number().min(2).max(40).required(),
        cutMm: Joi.number().min(0).max(20).required(),
      }),
    }),
    (r, read, gauge) => {
      const points = r.points.flatMap((p, i) => {
        const heightMm = read.length(p.value, `readings.points.${i}.value`);
        return heightMm === null ? [] : [{ xMm: p.xMm, yMm: p.yMm, heightMm }];
      });
      const scratches = (r.scratches ?? []).flatMap((x, i) => {
        const depthMm = read.length(x.depth, `readings.scratches.${i}.depth`);
        return depthMm === null ? [] : [{ at: x.at, depthMm }];
      });
      const flat = flatness(points, gauge('indicator'));
      if (!flat)
        read.problem ??= {
          code: 'flatness-points',
          sentence: 'Four points at least, not all on one line, are needed for a plane.',
          field: 'readings.points',
        };
      const after = r.cut ? ratioAfterCut(r.cut.compressionRatio, r.cut.boreMm, r.cut.strokeMm, r.cut.cutMm) : null;
      return {
        lines: [...(flat?.lines ?? []), ...scratchLines(scratches, gauge('depth'))],
        says: r.cut
          ? [
              after === null
                ? 'That cut takes more than the chamber holds.'
                : `A cut of ${r.cut.cutMm} mm takes the compression ratio from ${r.cut.compressionRatio} to ${after.toFixed(2)}.`,
            ]
          : [],
        thumbs: { flatness: { upper: 0.1 }, scratch: { upper: 0.03 } },
      };
    },
  ),
  cam: kind<{
    lobes: ReadonlyArray<{ lobe: string | number; kind: string; height: Raw; base: Raw }>;
    newLift?: Record<string, number>;
    journals?: ReadonlyArray<{ journal: string | number; value: Raw; bore?: Raw }>;
  }>(
    'Camshaft',
    Joi.object({
      lobes: list({
        lobe: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        kind: Joi.string().max(20).required(),
        height: figure.required(),
        base: figure.required(),
      }).unique('lobe'),
      journals: Joi.array()
        .items(
          Joi.object({
            journal: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
            value: figure.required(),
            bore: figure,
          }),
        )
        .unique('journal')
        .max(40),
      newLift: Joi.object().pattern(Joi.string(), Joi.number().positive()),
    }),
    (r, read, gauge, spec) => {
      const lines = camLines(
        r.lobes.map((l, i) => ({
          lobe: String(l.lobe),
          kind: l.kind,
          heightMm: read.need(l.height, `readings.lobes.${i}.height`),
          baseMm: read.need(l.base, `readings.lobes.${i}.base`),
        })),
        r.newLift ?? {},
        gauge('micrometer'),
      );
      const journals = camJournalLines(
        (r.journals ?? []).flatMap((j, i) => {
          const mm = read.size(j.value, `readings.journals.${i}.value`);
          return mm === null ? [] : [{ journal: String(j.journal), mm, boreMm: read.size(j.bore, `readings.journals.${i}.bore`) }];
        }),
        size(spec, 'maxMm') ?? null,
        gauge('micrometer'),
        gauge('bore'),
      );
      return {
        lines: [...lines, ...journals],
        thumbs: Object.fromEntries(lines.filter((l) => l.id.startsWith('loss.')).map((l) => [l.id, { upper: 0.15 }])),
      };
    },
  ),
  'valve-seat': kind<{ startKpa: number; endKpa: number; seconds: number }>(
    'Valve seat by vacuum',
    Joi.object({
      startKpa: Joi.number().positive().max(101).required(),
      endKpa: Joi.number().min(0).max(101).required(),
      seconds: Joi.number().positive().max(600).required(),
    }),
    (r) => {
      const loss = ((r.startKpa - r.endKpa) / r.startKpa) * 100 * (10 / r.seconds);
      return {
        lines: [
          {
            id: 'loss',
            name: 'Vacuum lost in 10 s',
            value: loss,
            unit: '%',
            expanded: 2,
            at: `from ${r.startKpa} to ${r.endKpa} kPa in ${r.seconds} s`,
          },
        ],
        says: [`${loss < 10 ? 'Tight' : loss < 40 ? 'Weeps' : 'Leaks'} (rule of thumb: under 10 % tight, under 40 % weeps).`],
        thumbs: { loss: { upper: 10 } },
      };
    },
  ),
};
