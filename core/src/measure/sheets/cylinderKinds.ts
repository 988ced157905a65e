import Joi from 'joi';
import { boreLines, nextOversize, pistonLines, ringLines } from './cylinder.js';
import { figure, kind, list, questionsOf, size, steps, temperature, type Raw, type SheetKind } from './kind.js';
import { at20, takeRepeats, type Material } from './line.js';

/** Cylinders. */
export const CYLINDER_KINDS: Readonly<Record<string, SheetKind>> = {
  bore: kind<{
    at: ReadonlyArray<{ depthMm: number; axis: string; value: Raw }>;
    unworn?: Raw;
    temperatureC?: number;
    material?: Material;
  }>(
    'Bore',
    Joi.object({
      at: list({ depthMm: Joi.number().min(0).max(3000).required(), axis: Joi.string().max(20).required(), value: figure.required() }),
      unworn: figure,
      ...temperature,
    }),
    (r, read, gauge, spec) => {
      const warm = (mm: number): number => (r.temperatureC === undefined ? mm : at20(mm, r.temperatureC, r.material ?? 'grey-iron'));
      const at = r.at.flatMap((x, i) => {
        const mm = read.size(x.value, `readings.at.${i}.value`);
        return mm === null ? [] : [{ depthMm: x.depthMm, axis: x.axis, mm: warm(mm) }];
      });
      const unworn = read.length(r.unworn, 'readings.unworn');
      const taken = takeRepeats(at, (x) => `${x.depthMm} ${x.axis}`, gauge('bore'));
      const { lines, missing } = boreLines(taken.readings, unworn === null ? null : warm(unworn), taken.gauge);
      const min = size(spec, 'minMm');
      const max = size(spec, 'maxMm');
      const greatest = lines.find((l) => l.id === 'greatest');
      const over =
        min !== undefined && max !== undefined && greatest
          ? [
              nextOversize(
                greatest.value,
                { min, max },
                steps(spec['oversizesMm']).length > 0 ? steps(spec['oversizesMm']) : [0.25, 0.5, 0.75, 1],
                size(spec, 'deepestMarkMm') ?? 0,
              ).words,
            ]
          : [];
      const questions = questionsOf(
        at.map((x) => ({ mm: x.mm, place: `${x.depthMm} mm, axis ${x.axis}` })),
        spec,
      );
      return { lines, missing, says: over, questions };
    },
  ),
  piston: kind<{
    piston: Raw;
    bore?: Raw;
    new?: Raw;
    crown?: Raw;
    pinBoss?: Raw;
    print?: Raw;
    temperatureC?: number;
    boreMaterial?: Material;
  }>(
    'Piston',
    Joi.object({
      piston: figure.required(),
      bore: figure,
      new: figure,
      crown: figure,
      pinBoss: figure,
      print: figure,
      temperatureC: Joi.number().min(-30).max(120),
      boreMaterial: temperature.material,
    }),
    (r, read, gauge) => {
      const warm = (mm: number | null, m: Material): number | null =>
        mm === null || r.temperatureC === undefined ? mm : at20(mm, r.temperatureC, m);
      const piston = warm(read.need(r.piston, 'readings.piston'), 'aluminium') ?? 0;
      const bore = warm(read.length(r.bore, 'readings.bore'), r.boreMaterial ?? 'grey-iron');
      const shift = r.temperatureC === undefined ? 0 : piston * (23e-6 - 10.5e-6) * Math.abs(r.temperatureC - 20);
      return {
        lines: pistonLines(
          {
            gaugePointMm: piston,
            boreMm: bore,
            newMm: read.length(r.new, 'readings.new'),
            crownMm: warm(read.length(r.crown, 'readings.crown'), 'aluminium'),
            pinBossMm: read.length(r.pinBoss, 'readings.pinBoss'),
            printMm: read.length(r.print, 'readings.print'),
          },
          gauge('micrometer'),
          gauge('bore'),
        ),
        missing: bore === null ? ['the bore at that height, so no clearance'] : [],
        says:
          shift > 0.005 ? [`At ${r.temperatureC} °C the clearance reads ${shift.toFixed(3)} mm off what it is at 20 °C; corrected.`] : [],
      };
    },
  ),
  ring: kind<
    Record<'gapUnworn' | 'gapWorn' | 'groove' | 'ring' | 'grooveDepth' | 'ringDepth' | 'freeGap' | 'tension', Raw> & { boreMm?: number }
  >(
    'Ring',
    Joi.object({
      gapUnworn: figure,
      gapWorn: figure,
      groove: figure,
      ring: figure,
      grooveDepth: figure,
      ringDepth: figure,
      freeGap: figure,
      tension: figure,
      boreMm: Joi.number().positive(),
    }),
    (r, read, gauge) => ({
      lines: ringLines(
        {
          gapUnwornMm: read.length(r.gapUnworn, 'readings.gapUnworn'),
          gapWornMm: read.length(r.gapWorn, 'readings.gapWorn'),
          grooveMm: read.length(r.groove, 'readings.groove'),
          ringMm: read.length(r.ring, 'readings.ring'),
          grooveDepthMm: read.length(r.grooveDepth, 'readings.grooveDepth'),
          ringDepthMm: read.length(r.ringDepth, 'readings.ringDepth'),
          freeGapMm: read.length(r.freeGap, 'readings.freeGap'),
          tensionN: read.quantity(r.tension, 'force', 'readings.tension'),
        },
        gauge('feeler'),
      ),
      thumbs: { ...(r.boreMm ? { gap: { lower: 0.003 * r.boreMm, upper: 0.01 * r.boreMm } } : {}), side: { lower: 0.02, upper: 0.15 } },
    }),
  ),
};
