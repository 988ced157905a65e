export { MACHINE_WORK, OPERATIONS, OPERATION_NAMES, type Operation, type StandingDisposition } from './operations.js';
export { type PriceBook, type PriceLine, STARTING_PRICES, priceBookCsv, priceLineSchema, readPriceCsv } from './prices.js';
