import Joi from 'joi';
import Papa from 'papaparse';
import { fail, ok, type Result } from '../kit/result.js';

/** A three-point estimate: what it is at best, most likely, at worst. */
export interface Estimate {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

/** One line of the price book. */
export interface PriceLine {
  readonly key: string;
  readonly what: string;
  readonly kind: 'part' | 'machine' | 'labour' | 'engine';
  /** Per piece; labour per hour. */
  readonly price: Estimate;
  /** Calendar days until it is there. */
  readonly leadDays: Estimate;
}

/** The shop's own prices: dated, in one currency. */
export interface PriceBook {
  readonly version: string;
  readonly currency: string;
  readonly date: string;
  readonly lines: readonly PriceLine[];
}

const HIGHEST_PRICE = 1_000_000;

const estimate = (high: number): Joi.ObjectSchema =>
  Joi.object({
    low: Joi.number().min(0).max(high).required(),
    likely: Joi.number().min(Joi.ref('low')).max(high).required(),
    high: Joi.number().min(Joi.ref('likely')).max(high).required(),
  });

/** A line of a price book. */
export const priceLineSchema = Joi.object({
  key: Joi.string()
    .pattern(/^[a-z0-9.-]{1,40}$/)
    .required(),
  what: Joi.string().trim().min(2).max(120).required(),
  kind: Joi.string().valid('part', 'machine', 'labour', 'engine').required(),
  price: estimate(HIGHEST_PRICE).required(),
  leadDays: estimate(3650).required(),
});

/** A price book. */
export const priceBookSchema = Joi.object({
  version: Joi.string().max(40).required(),
  currency: Joi.string()
    .pattern(/^[A-Z]{3}$/)
    .required(),
  date: Joi.string()
    .pattern(/^\d{4}-\d{2}-\d{2}$/)
    .required(),
  lines: Joi.array().max(500).items(priceLineSchema).unique('key').required(),
});

const around = (likely: number, low = 0.85, high = 1.35): Estimate => ({
  low: Math.round(likely * low),
  likely,
  high: Math.round(likely * high),
});
const days = (low: number, likely: number, high: number): Estimate => ({ low, likely, high });
const line = (key: string, what: string, kind: PriceLine['kind'], price: Estimate, leadDays: Estimate): PriceLine => ({
  key,
  what,
  kind,
  price,
  leadDays,
});

/** A book to begin with: invented round figures, to be replaced by the shop's own. */
export const STARTING_PRICES: PriceBook = {
  version: '1',
  currency: 'EUR',
  date: '2026-11-01',
  lines: [
    line('labour', 'Bench hour', 'labour', around(78, 0.95, 1.1), days(0, 0, 0)),
    line('rod-shells', 'Rod shells, pair', 'part', around(24), days(2, 4, 14)),
    line('main-shells', 'Main shells, pair', 'part', around(28), days(2, 4, 14)),
    line('thrust-washers', 'Thrust washers, set', 'part', around(32), days(2, 4, 14)),
    line('rollers', 'Rolling bearing', 'part', around(46), days(2, 4, 10)),
    line('crank', 'Crankshaft', 'part', around(980, 0.7, 1.6), days(5, 14, 45)),
    line('piston', 'Piston with pin', 'part', around(118), days(3, 7, 21)),
    line('rings', 'Ring set', 'part', around(42), days(2, 5, 14)),
    line('rod', 'Rod', 'part', around(165, 0.7, 1.5), days(4, 10, 30)),
    line('gasket', 'Gasket set', 'part', around(190), days(2, 4, 10)),
    line('valves', 'Valves of a cylinder', 'part', around(85), days(3, 6, 14)),
    line('cam', 'Camshaft with followers', 'part', around(520, 0.8, 1.5), days(5, 12, 30)),
    line('pump', 'Oil pump', 'part', around(210), days(2, 5, 14)),
    line('pickup', 'Pickup', 'part', around(70), days(2, 5, 14)),
    line('filter', 'Oil filter', 'part', around(14), days(1, 1, 3)),
    line('cooler', 'Oil cooler', 'part', around(240), days(3, 7, 21)),
    line('timing', 'Timing drive, set', 'part', around(230), days(2, 5, 14)),
    line('bolts', 'Bolts, set', 'part', around(90), days(2, 4, 10)),
    line('oil', 'Oil and sundries', 'part', around(95), days(0, 1, 2)),
    line('grind', 'Grind a journal', 'machine', around(62), days(4, 8, 20)),
    line('polish', 'Polish a journal', 'machine', around(22), days(3, 6, 14)),
    line('rebore', 'Rebore and hone a bore', 'machine', around(74), days(4, 8, 20)),
    line('hone', 'Hone a bore', 'machine', around(34), days(3, 6, 14)),
    line('resize', 'Resize a housing or seat', 'machine', around(58), days(4, 8, 20)),
    line('sleeve', 'Sleeve a bore', 'machine', around(260), days(6, 12, 30)),
    line('weld', 'Weld by a specialist', 'machine', around(420, 0.6, 2), days(7, 15, 40)),
    line('line-bore', 'Line-bore the mains', 'machine', around(640, 0.8, 1.5), days(6, 12, 30)),
    line('face', 'Face head or deck', 'machine', around(120), days(3, 6, 14)),
    line('test', 'Test: crack, pressure, alignment', 'machine', around(48), days(2, 5, 12)),
    line('short-engine', 'Short engine, exchange', 'engine', around(3400, 0.85, 1.3), days(7, 18, 45)),
    line('used-engine', 'Used engine, inspected', 'engine', around(1900, 0.6, 1.6), days(3, 12, 40)),
    line('new-engine', 'New engine', 'engine', around(7800, 0.92, 1.2), days(10, 28, 80)),
  ],
};

const FIELDS = ['key', 'what', 'kind', 'currency', 'low', 'likely', 'high', 'lead_low_days', 'lead_likely_days', 'lead_high_days'] as const;

/** The book as CSV. */
export function priceBookCsv(book: PriceBook): string {
  return (
    Papa.unparse(
      {
        fields: [...FIELDS],
        data: book.lines.map((l) => [
          l.key,
          l.what,
          l.kind,
          book.currency,
          l.price.low,
          l.price.likely,
          l.price.high,
          l.leadDays.low,
          l.leadDays.likely,
          l.leadDays.high,
        ]),
      },
      { newline: '\n', escapeFormulae: true },
    ) + '\n'
  );
}

/** Reads a book from CSV. A fault names its line; currencies are not mixed, and no figure is guessed. */
export function readPriceCsv(text: string, date: string, version: string): Result<PriceBook> {
  const parsed = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  const missing = FIELDS.filter((f) => !(parsed.meta.fields ?? []).includes(f));
  if (missing.length > 0)
    return fail(
      'price-csv',
      `The price book was not read: the column${missing.length === 1 ? '' : 's'} ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing. Nothing was changed.`,
      'file',
    );
  const currencies = [...new Set(parsed.data.map((r) => r['currency']))];
  if (currencies.length > 1)
    return fail(
      'price-currency',
      `The price book mixes currencies (${currencies.join(', ')}). One book, one currency; nothing was changed.`,
      'currency',
    );
  const figure = (r: Record<string, string>, f: (typeof FIELDS)[number]): number => (r[f]?.trim() ? Number(r[f]!.replace(',', '.')) : NaN);
  const lines: PriceLine[] = [];
  for (const [i, r] of parsed.data.entries()) {
    const candidate = {
      key: r['key'],
      what: r['what'],
      kind: r['kind'],
      price: { low: figure(r, 'low'), likely: figure(r, 'likely'), high: figure(r, 'high') },
      leadDays: { low: figure(r, 'lead_low_days'), likely: figure(r, 'lead_likely_days'), high: figure(r, 'lead_high_days') },
    };
    const { error, value } = priceLineSchema.validate(candidate, { convert: false });
    if (error)
      return fail(
        'price-csv',
        `Line ${i + 2} of the price book: ${error.details[0]?.message ?? 'it does not fit'}. Nothing was changed.`,
        `line ${i + 2}`,
      );
    lines.push(value as PriceLine);
  }
  const twice = lines.find((l, i) => lines.findIndex((x) => x.key === l.key) !== i);
  if (twice) return fail('price-csv', `"${twice.key}" stands twice in the price book. Nothing was changed.`, 'key');
  return ok({ version, currency: currencies[0] ?? 'EUR', date, lines });
}
