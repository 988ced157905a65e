import { object, type Schema } from '../../kit/schema.js';
import { priceBookSchema, type PriceBook } from '../../workshop/prices.js';
import { defineEntry } from '../define.js';

export const priceBookSet = defineEntry({
  kind: 'price-book-set',
  name: 'Prices',
  says: 'The prices this case is reckoned with, whole, so that a quote stands by itself.',
  body: object({ book: priceBookSchema as unknown as Schema<PriceBook> }),
  stands: 'case',
  slot: () => 'price-book',
  tell: ({ book }) => `version ${book.version} of ${book.date}, ${book.lines.length} lines in ${book.currency}`,
  ofCase: (all) => ({ priceBook: all[0] }),
});
