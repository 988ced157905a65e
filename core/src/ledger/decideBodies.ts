import Joi from 'joi';
import { OPERATIONS, type Operation } from '../salvage/operations.js';
import { priceBookSchema, type PriceBook } from '../salvage/prices.js';
import { text } from './schemaParts.js';

export const ROUTE_IDS = ['repair', 'rebuild', 'short-engine', 'used-engine', 'new-engine', 'run-on'] as const;

/** What is decided about parts, routes and time. */
export interface DecideBodies {
  /** What is to be done with a place; belongs to its station. */
  'disposition-set': { operation: Operation; size: string; reason: string };
  /** The prices this case is reckoned with, whole, so that a quote stands by itself. */
  'price-book-set': { book: PriceBook };
  'plan-set': {
    route: (typeof ROUTE_IDS)[number] | null;
    /** ISO date; null: none. */
    deadline: string | null;
    from: string;
    hoursPerDay: number;
    workdays: readonly number[];
    /** Client's budget in the currency of the book; null: none stated. */
    budget: number | null;
  };
  /** A task moved by hand: not before this calendar hour of the plan. */
  'task-moved': { task: string; notBeforeHours: number };
  /** What was promised: P50 and P90 of cost and days, as they stood when it was sent. */
  'quote-sent': {
    quote: string;
    route: (typeof ROUTE_IDS)[number];
    currency: string;
    cost: number;
    costHigh: number;
    days: number;
    daysHigh: number;
    note: string;
  };
}

const date = Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/);
const key = Joi.string().pattern(/^[A-Za-z0-9._:-]{1,80}$/);
const route = Joi.string().valid(...ROUTE_IDS);

export const DECIDE_SCHEMAS: Readonly<Record<keyof DecideBodies, Joi.ObjectSchema>> = {
  'disposition-set': Joi.object({
    operation: Joi.string()
      .valid(...OPERATIONS)
      .required(),
    size: text(40).required(),
    reason: text(1000).required(),
  }),
  'price-book-set': Joi.object({ book: priceBookSchema.required() }),
  'plan-set': Joi.object({
    route: route.allow(null).required(),
    deadline: date.allow(null).required(),
    from: date.required(),
    hoursPerDay: Joi.number().min(0.5).max(24).required(),
    workdays: Joi.array().items(Joi.number().integer().min(1).max(7)).unique().min(1).max(7).required(),
    budget: Joi.number().min(0).max(1e8).allow(null).required(),
  }),
  'task-moved': Joi.object({
    task: key.required(),
    notBeforeHours: Joi.number()
      .min(0)
      .max(24 * 3650)
      .required(),
  }),
  'quote-sent': Joi.object({
    quote: key.required(),
    route: route.required(),
    currency: Joi.string()
      .pattern(/^[A-Z]{3}$/)
      .required(),
    cost: Joi.number().min(0).max(1e9).required(),
    costHigh: Joi.number().min(0).max(1e9).required(),
    days: Joi.number().min(0).max(5000).required(),
    daysHigh: Joi.number().min(0).max(5000).required(),
    note: text(1000).required(),
  }),
};

export const DECIDE_SLOTS: { readonly [K in keyof DecideBodies]: (body: DecideBodies[K]) => string } = {
  'disposition-set': () => 'disposition',
  'price-book-set': () => 'price-book',
  'plan-set': () => 'plan',
  'task-moved': (b) => `task:${b.task}`,
  'quote-sent': (b) => `quote:${b.quote}`,
};
