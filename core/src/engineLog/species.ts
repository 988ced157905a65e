/** What a laboratory finds in used oil. */
export interface Species {
  readonly id: string;
  readonly name: string;
  readonly group: 'wear' | 'contaminant' | 'additive' | 'property';
  /** Units it comes in, with the factor to the first, in which it is kept. */
  readonly units: Readonly<Record<string, number>>;
  /** More of it no used oil holds, in its first unit: a slip, or another unit. */
  readonly most: number;
}

/** Density a figure by volume is brought to mass with, kg/l: used oil lies within 3 % of it. */
const DENSITY = 0.88;
const BY_MASS = { 'mg/kg': 1, ppm: 1, 'mg/l': 1 / DENSITY, '%': 1e4 } as const;
const SHARE = { '%': 1, 'mg/kg': 1e-4, ppm: 1e-4 } as const;

const element = (id: string, name: string, group: Species['group'], most: number): Species => ({ id, name, group, units: BY_MASS, most });

/** Elements by their sign, the rest by a word; in the order they are shown. */
export const SPECIES: readonly Species[] = [
  element('Fe', 'iron', 'wear', 3000),
  element('Cu', 'copper', 'wear', 2000),
  element('Pb', 'lead', 'wear', 2000),
  element('Sn', 'tin', 'wear', 500),
  element('Al', 'aluminium', 'wear', 1000),
  element('Cr', 'chromium', 'wear', 500),
  element('Ni', 'nickel', 'wear', 200),
  element('Ag', 'silver', 'wear', 100),
  element('Si', 'silicon', 'contaminant', 2000),
  element('Na', 'sodium', 'contaminant', 3000),
  element('K', 'potassium', 'contaminant', 2000),
  { id: 'water', name: 'water', group: 'contaminant', units: SHARE, most: 20 },
  { id: 'fuel', name: 'fuel', group: 'contaminant', units: SHARE, most: 40 },
  { id: 'soot', name: 'soot', group: 'contaminant', units: SHARE, most: 15 },
  element('B', 'boron', 'additive', 1500),
  element('Ca', 'calcium', 'additive', 8000),
  element('Mg', 'magnesium', 'additive', 3000),
  element('Zn', 'zinc', 'additive', 3000),
  element('P', 'phosphorus', 'additive', 3000),
  element('Mo', 'molybdenum', 'additive', 1500),
  { id: 'visc40', name: 'viscosity at 40 °C', group: 'property', units: { 'mm²/s': 1, cSt: 1 }, most: 400 },
  { id: 'visc100', name: 'viscosity at 100 °C', group: 'property', units: { 'mm²/s': 1, cSt: 1 }, most: 40 },
  { id: 'tbn', name: 'base number', group: 'property', units: { 'mgKOH/g': 1 }, most: 80 },
  { id: 'oxidation', name: 'oxidation', group: 'property', units: { 'A/cm': 1 }, most: 100 },
];

const BY_ID: ReadonlyMap<string, Species> = new Map(SPECIES.map((s) => [s.id, s]));

export const species = (id: string): Species | undefined => BY_ID.get(id);
