import Joi from 'joi';
import { figure, list, object, oneOf, optional, typed } from '../kit/schema.js';

/** What may be wrong in a circuit, with where and how much. */
export const OIL_FAULTS = [
  'clearance',
  'shut-feed',
  'turned-shell',
  'restriction',
  'relief-open',
  'relief-shut',
  'filter-bypassed',
  'filter-clogged',
  'lost-jet',
  'lost-plug',
  'lost-follower',
  'low-level',
  'air',
  'worn-pump',
] as const;
export type OilFaultKind = (typeof OIL_FAULTS)[number];

export interface OilFault {
  readonly kind: OilFaultKind;
  /** Bearing (`main.2`, `rod.3`) or part (`pickup`, `filter`, `cooler`, `gallery`, `head`, `turbo`, `jet.1`). */
  readonly at?: string;
  /** Of a clearance: how many times as large. Of a restriction, a relief that hangs, air, a low level: the share, 0 to 1. Of a pump: how many times its slip. */
  readonly amount?: number;
}

/** Faults as an engine file and a setting have them. */
export const faultsSchema = list(
  object({ kind: oneOf(OIL_FAULTS), at: optional(typed<string>(Joi.string().max(40))), amount: optional(figure(0, 20)) }),
  20,
);
