import Joi from 'joi';
import { engineTemplate } from '../../engine/templates.js';
import { compressionResult, turningResult } from '../../opening/results.js';
import { easingResult } from '../../strip/easing.js';
import { fastenerResult } from '../../strip/fasteners.js';
import { figure, kind, list, size, type Raw, type SheetKind } from './kind.js';
import { type SheetLine } from './line.js';

/** What is read on the whole engine. */
export const RUNNING_KINDS: Readonly<Record<string, SheetKind>> = {
  'oil-pump': kind<{ end?: Raw; tip?: Raw; side?: Raw; springLength?: Raw; popPressure?: Raw }>(
    'Oil pump',
    Joi.object({ end: figure, tip: figure, side: figure, springLength: figure, popPressure: figure }).min(1),
    (r, read, gauge) => {
      const u =
        2 *
        Math.hypot(
          gauge('feeler').resolutionMm / Math.sqrt(12),
          gauge('feeler').repeatabilityMm,
          gauge('feeler').expandedUncertaintyMm / 2,
        );
      const line = (id: string, name: string, raw: Raw, at: string): SheetLine[] => {
        const value = read.length(raw, `readings.${id}`);
        return value === null ? [] : [{ id, name, value, unit: 'mm', expanded: u, at }];
      };
      const pop = read.quantity(r.popPressure, 'pressure', 'readings.popPressure');
      return {
        lines: [
          ...line('end', 'End clearance', r.end, 'gears to cover'),
          ...line('tip', 'Tip clearance', r.tip, 'gear to gear'),
          ...line('side', 'Side clearance', r.side, 'gear to body'),
          ...line('springLength', 'Relief spring, free', r.springLength, 'unloaded'),
          ...(pop === null
            ? []
            : [{ id: 'popPressure', name: 'Relief opens', value: pop, unit: 'bar' as const, expanded: 0.1, at: 'on the tester' }]),
        ],
        thumbs: { end: { upper: 0.1 }, tip: { upper: 0.2 }, side: { upper: 0.2 } },
      };
    },
  ),
  compression: kind<{ template?: string; dry: readonly Raw[]; wet?: readonly Raw[] }>(
    'Compression',
    Joi.object({
      template: Joi.string().max(60),
      dry: Joi.array().items(figure).min(1).max(16).required(),
      wet: Joi.array().items(figure).max(16),
    }),
    (r, read, _gauge, spec) => {
      const base = engineTemplate(r.template ?? 'inline-4-petrol')?.layout;
      if (!base) {
        read.problem ??= { code: 'template', sentence: `"${r.template}" is not an engine template.`, field: 'readings.template' };
        return { lines: [] };
      }
      const layout = r.template ? base : { ...base, cylinders: r.dry.length, arrangement: 'inline' as const };
      const values = (raw: readonly Raw[] | undefined, what: string): Array<number | null> =>
        Array.from({ length: layout.cylinders }, (_, i) => read.quantity(raw?.[i], 'pressure', `readings.${what}.${i}`));
      const c = compressionResult(layout, values(r.dry, 'dry'), values(r.wet, 'wet'), size(spec, 'leastBar'));
      if (!c) return { lines: [], missing: ['every reading'] };
      return {
        lines: [
          { id: 'highest', name: 'Highest', value: c.highest, unit: 'bar', expanded: 0.2, at: '' },
          {
            id: 'lowest',
            name: 'Lowest',
            value: c.lowest,
            unit: 'bar',
            expanded: 0.2,
            at: c.low.length > 0 ? `cylinder ${c.low.join(', ')}` : '',
          },
          { id: 'spread', name: 'Spread', value: c.spreadPercent, unit: '%', expanded: (100 * 0.28) / c.highest, at: 'of the highest' },
        ],
        says: [`${c.words[0]?.toUpperCase()}${c.words.slice(1)}.`],
        thumbs: { spread: { upper: 15 } },
      };
    },
  ),
  'oil-pressure': kind<Record<string, Raw>>(
    'Oil pressure',
    Joi.object()
      .pattern(Joi.string().valid('coldIdle', 'coldRated', 'hotIdle', 'hotRated'), figure)
      .min(1),
    (r, read) => ({
      lines: Object.entries(r).flatMap(([id, raw]): SheetLine[] => {
        const value = read.quantity(raw, 'pressure', `readings.${id}`);
        return value === null
          ? []
          : [{ id, name: id.replace(/([A-Z])/, ', $1').toLowerCase(), value, unit: 'bar', expanded: 0.1, at: 'own gauge in the gallery' }];
      }),
      thumbs: { hotIdle: { lower: 0.7 } },
    }),
  ),
  fasteners: kind<ReadonlyArray<{ position: string | number; pair: string | number; value: Raw }>>(
    'Break-loose torque',
    list(
      {
        position: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        pair: Joi.alternatives(Joi.string().max(20), Joi.number()).required(),
        value: figure.required(),
      },
      2,
    ).unique('position'),
    (r, read) => {
      const torques = r.flatMap((t, i) => {
        const newtonMetre = read.quantity(t.value, 'torque', `readings.${i}.value`);
        return newtonMetre === null ? [] : [{ position: String(t.position), newtonMetre }];
      });
      const pattern = {
        id: 'file',
        name: '',
        widthMm: 0,
        heightMm: 0,
        easing: [],
        positions: r.map((t) => ({ id: String(t.position), pair: String(t.pair), x: 0, y: 0 })),
      };
      const f = fastenerResult(pattern, torques);
      if (!f) return { lines: [], missing: ['two torques at least'] };
      return {
        lines: [
          { id: 'least', name: 'Least', value: f.least, unit: 'N·m', expanded: null, at: '' },
          { id: 'greatest', name: 'Greatest', value: f.most, unit: 'N·m', expanded: null, at: '' },
          { id: 'spread', name: 'Spread', value: f.spreadPercent, unit: '%', expanded: null, at: 'of the mean' },
        ],
        says:
          f.uneven.length > 0
            ? f.uneven.map((u) => `${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart (rule of thumb: 30 %).`)
            : ['No pair is more than 30 % apart (rule of thumb).'],
      };
    },
  ),
  turning: kind<{ ahead: readonly Raw[]; back?: readonly Raw[]; eased?: ReadonlyArray<{ cap: string | number; value: Raw }> }>(
    'Turning torque',
    Joi.object({
      ahead: Joi.array().items(figure).min(1).max(72).required(),
      back: Joi.array().items(figure).max(72),
      eased: Joi.array()
        .items(Joi.object({ cap: Joi.alternatives(Joi.string().max(40), Joi.number()).required(), value: figure.required() }))
        .unique('cap')
        .max(40),
    }),
    (r, read) => {
      const values = (raw: readonly Raw[] | undefined, what: string): Array<number | null> =>
        (raw ?? []).map((v, i) => read.quantity(v, 'torque', `readings.${what}.${i}`));
      const ahead = values(r.ahead, 'ahead');
      const t = turningResult(ahead, values(r.back, 'back'));
      const whole = ahead.filter((v): v is number => v !== null);
      const easing = easingResult([
        ...(whole.length > 0 ? [{ cap: '', newtonMetre: whole.reduce((sum, v) => sum + v, 0) / whole.length }] : []),
        ...(r.eased ?? []).flatMap((e, i) => {
          const newtonMetre = read.quantity(e.value, 'torque', `readings.eased.${i}.value`);
          return newtonMetre === null ? [] : [{ cap: String(e.cap), newtonMetre }];
        }),
      ]);
      return {
        lines: [
          ...(t && t.medianAhead !== null
            ? [{ id: 'ahead', name: 'Median ahead', value: t.medianAhead, unit: 'N·m' as const, expanded: null, at: '' }]
            : []),
          ...(t && t.medianBack !== null
            ? [{ id: 'back', name: 'Median back', value: t.medianBack, unit: 'N·m' as const, expanded: null, at: '' }]
            : []),
          ...(easing?.drops ?? []).map((d) => ({
            id: `drop.${d.cap}`,
            name: `Drop, ${d.cap} eased`,
            value: d.drop,
            unit: 'N·m' as const,
            expanded: null,
            at: `${d.before.toFixed(1)} to ${d.after.toFixed(1)} N·m`,
          })),
        ],
        missing: t ? [] : ['three readings round the turn'],
        says: [...(t ? [`${t.words}.`] : []), ...(easing ? [`Caps: ${easing.words}.`] : [])],
      };
    },
  ),
};
