import { fail, ok, type Result } from '../kit/result.js';
import { readFigure } from './figure.js';
import { MM_PER } from './length.js';

/** Quantities that are typed, beside lengths. */
export type Quantity = 'length' | 'torque' | 'pressure' | 'share' | 'force' | 'angle' | 'temperature' | 'time' | 'vacuum';

/** Canonical unit of a quantity and the factor of every other. */
export interface QuantityInfo {
  /** Canonical unit, in which values are computed and kept. */
  readonly canonical: string;
  /** Exact factor of every unit to the canonical one; first key is the default. */
  readonly units: Readonly<Record<string, number>>;
  /** Other ways a hand writes a unit. */
  readonly words: Readonly<Record<string, string>>;
  readonly digits: number;
}

const LBF_N = 4.4482216152605;

/** Quantities typed in checks and strip notes. Factors exact by definition (in = 25.4 mm, lbf = 4.4482216152605 N, psi = lbf/in²). */
export const QUANTITIES: Readonly<Record<Quantity, QuantityInfo>> = {
  length: {
    canonical: 'mm',
    units: { mm: 1, in: MM_PER.in, thou: MM_PER.thou, µm: MM_PER.um },
    words: { inch: 'in', '"': 'in', '″': 'in', mil: 'thou', um: 'µm', μm: 'µm' },
    digits: 2,
  },
  torque: {
    canonical: 'N·m',
    units: { 'N·m': 1, 'lb·ft': LBF_N * 0.3048, 'lb·in': LBF_N * 0.0254 },
    words: {
      nm: 'N·m',
      'n·m': 'N·m',
      'n.m': 'N·m',
      'ft·lb': 'lb·ft',
      lbft: 'lb·ft',
      ftlb: 'lb·ft',
      'lb.ft': 'lb·ft',
      lbin: 'lb·in',
      inlb: 'lb·in',
      'lb.in': 'lb·in',
    },
    digits: 1,
  },
  pressure: {
    canonical: 'bar',
    units: { bar: 1, psi: LBF_N / (0.0254 * 0.0254) / 1e5, kPa: 0.01, MPa: 10 },
    words: { kpa: 'kPa', mpa: 'MPa' },
    digits: 1,
  },
  share: { canonical: '%', units: { '%': 1 }, words: {}, digits: 0 },
  force: { canonical: 'N', units: { N: 1, lbf: LBF_N }, words: { n: 'N', lb: 'lbf' }, digits: 1 },
  angle: { canonical: '°', units: { '°': 1 }, words: { deg: '°' }, digits: 0 },
  temperature: { canonical: '°C', units: { '°C': 1 }, words: { c: '°C' }, digits: 1 },
  vacuum: { canonical: 'kPa', units: { kPa: 1, bar: 100, inHg: 3.386388640341 }, words: { kpa: 'kPa', inhg: 'inHg' }, digits: 1 },
  time: { canonical: 's', units: { s: 1, min: 60 }, words: { sec: 's' }, digits: 0 },
};

const own = <T>(table: Readonly<Record<string, T>>, key: string): T | undefined => (Object.hasOwn(table, key) ? table[key] : undefined);

/** A figure in the canonical unit and the unit it was typed in. */
export interface TypedQuantity {
  readonly value: number;
  readonly unit: string;
}

/** Reads a figure as a hand types it, with or without a unit (`12.4`, `180 psi`, `8,5 bar`); the value is in the canonical unit. */
export function parseQuantity(text: string, quantity: Quantity, defaultUnit?: string): Result<TypedQuantity> {
  const info = QUANTITIES[quantity];
  const figure = readFigure(text);
  const example = `Type one figure in ${Object.keys(info.units).join(', ')}.`;
  if (!figure) return fail('not-a-number', `"${text.trim().slice(0, 40)}" is not a figure. Nothing was changed. ${example}`, 'text');
  const typed = figure.rest;
  const unit =
    typed === '' ? (defaultUnit ?? info.canonical) : Object.hasOwn(info.units, typed) ? typed : own(info.words, typed.toLowerCase());
  const factor = unit === undefined ? undefined : own(info.units, unit);
  if (unit === undefined || factor === undefined)
    return fail('unit', `"${typed.slice(0, 20)}" is not a unit of ${quantity} known here. ${example}`, 'text');
  return ok({ value: figure.value * factor, unit });
}

/** A canonical value as text in the wanted unit. */
export function formatQuantity(value: number, quantity: Quantity, unit?: string): string {
  const info = QUANTITIES[quantity];
  const shown = unit && unit in info.units ? unit : info.canonical;
  const text = (value / (info.units[shown] as number)).toFixed(info.digits);
  return `${text.replace('-', '−')} ${shown}`;
}
