// Written by scripts/derive.mjs from the folders beside it: add one and run it.
import { bore } from './bore/sheet.js';
import { cam } from './cam/sheet.js';
import { compression } from './compression/sheet.js';
import { crankRunoutSheet } from './crank-runout/sheet.js';
import { crushedStrip } from './crushed-strip/sheet.js';
import { endFloat } from './end-float/sheet.js';
import { fasteners } from './fasteners/sheet.js';
import { flatness } from './flatness/sheet.js';
import { housing } from './housing/sheet.js';
import { journal } from './journal/sheet.js';
import { mainLine } from './main-line/sheet.js';
import { oilPressure } from './oil-pressure/sheet.js';
import { oilPump } from './oil-pump/sheet.js';
import { piston } from './piston/sheet.js';
import { ring } from './ring/sheet.js';
import { rod } from './rod/sheet.js';
import { shellClearance } from './shell-clearance/sheet.js';
import { shellFit } from './shell-fit/sheet.js';
import { sideClearance } from './side-clearance/sheet.js';
import { turning } from './turning/sheet.js';
import { valveSeat } from './valve-seat/sheet.js';

/** Every measuring sheet there is. */
export const SHEET_DEFINITIONS = [
  bore,
  cam,
  compression,
  crankRunoutSheet,
  crushedStrip,
  endFloat,
  fasteners,
  flatness,
  housing,
  journal,
  mainLine,
  oilPressure,
  oilPump,
  piston,
  ring,
  rod,
  shellClearance,
  shellFit,
  sideClearance,
  turning,
  valveSeat,
] as const;
