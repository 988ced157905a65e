import type { DemoCase } from './caseScript.js';
import { ferryPort } from './cases/ferryPort.js';
import { firePump } from './cases/firePump.js';
import { icePlant } from './cases/icePlant.js';
import { outboard } from './cases/outboard.js';
import { railcar } from './cases/railcar.js';
import { tractor } from './cases/tractor.js';
import { underWay } from './cases/underWay.js';
import { winch } from './cases/winch.js';
import { workboat } from './cases/workboat.js';

/** The demo scenario: a harbour-side engine works on an invented estuary. Nothing in it is real. */
export function demoCases(): DemoCase[] {
  return [firePump(), workboat(), icePlant(), outboard(), ferryPort(), winch(), railcar(), tractor(), ...underWay()];
}
