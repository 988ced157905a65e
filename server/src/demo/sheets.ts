import type { SheetRequest } from '@true-ledger/contract';
import type { SpecSheet } from '@true-ledger/core/measure';
import { layout } from './caseScript.js';

const UNDERSIZES = [0.25, 0.5, 0.75, 1];
const PUMP_HOUSE = 'Spec sheet of the pump house, sheet 4';

/** Sizes and limits of the pump house four, as its sheet gives them. */
export function pumpHouseSpecs(): SpecSheet['specs'] {
  const source = PUMP_HOUSE;
  const journal = { outOfRoundMaxMm: 0.008, taperMaxMm: 0.008, undersizesMm: UNDERSIZES, source };
  return {
    'crank.pin': { minMm: 52.984, maxMm: 53, ...journal },
    'crank.main': { minMm: 57.984, maxMm: 58, ...journal },
    'crank.runout': { limits: { runout: { upper: 0.04 } }, source },
    'main.clearance': { newWallMm: 2, limits: { vertical: { lower: 0.025, upper: 0.07 } }, source },
    'rod.clearance': { newWallMm: 1.5, limits: { vertical: { lower: 0.025, upper: 0.065 } }, source },
    'rod.side': { limits: { sideClearance: { lower: 0.1, upper: 0.35 } }, source },
    bore: {
      minMm: 84,
      maxMm: 84.018,
      oversizesMm: UNDERSIZES,
      limits: { wear: { upper: 0.1 }, ovality: { upper: 0.03 }, taper: { upper: 0.05 } },
      source,
    },
    piston: { limits: { clearance: { lower: 0.03, upper: 0.09 } }, source },
    'ring.top': { limits: { gap: { lower: 0.25, upper: 0.6 }, side: { lower: 0.03, upper: 0.1 } }, source },
    deck: { limits: { flatness: { upper: 0.05 } }, source },
  };
}

/** Engines the demo shop has entered once. */
export function demoSheets(): SheetRequest[] {
  const workboatBook = 'Workshop book of the harbour works, page 31';
  return [
    {
      id: 'pump-house-four',
      basedOn: 0,
      name: 'Pump house four, petrol',
      source: PUMP_HOUSE,
      layout: layout('inline-4-petrol', { boreMm: 84, strokeMm: 88, pinDiameterMm: 53, mainDiameterMm: 58 }),
      specs: pumpHouseSpecs(),
      limits: [
        { quantity: 'end-float', lower: 0.07, upper: 0.25, unit: 'mm' },
        { quantity: 'compression', lower: 10.5, upper: null, unit: 'bar' },
        { quantity: 'oil-pressure.hot-idle', lower: 1, upper: null, unit: 'bar' },
      ],
    },
    {
      id: 'estuary-six',
      basedOn: 0,
      name: 'Estuary six, diesel',
      source: workboatBook,
      layout: layout('inline-6-diesel'),
      specs: {
        'crank.pin': { minMm: 61.98, maxMm: 62, outOfRoundMaxMm: 0.02, taperMaxMm: 0.02, undersizesMm: UNDERSIZES, source: workboatBook },
        'rod.side': { limits: { sideClearance: { lower: 0.1, upper: 0.35 } }, source: workboatBook },
      },
      limits: [{ quantity: 'end-float', lower: 0.1, upper: 0.4, unit: 'mm' }],
    },
  ];
}
