/**
 * The look of the application: every colour and size of type it knows, once. `tokens.css` is written from this by `scripts/derive.mjs`, as custom properties of the
 * same names (`lineDark` is `--line-dark`, `small` is `--text-small`); the theme of the controls, charts and drawings take them from here.
 */
export const COLOUR = {
  // What is written and what it is written on: surface plate, paper, pencil.
  ink: '#20272b',
  pencil: '#4a545a',
  quiet: '#465057',
  faint: '#646e75',
  slate: '#6f7c86',
  lineDark: '#9aa4aa',
  line: '#c9cfd3',
  tin: '#d5dadd',
  head: '#dfe3e6',
  plate: '#e9ecee',
  mist: '#eef0f1',
  paper: '#fbfcfc',
  white: '#ffffff',
  black: '#101010',
  // The one accent, and the words a verdict has.
  accent: '#31418c',
  accentLine: '#a3acd2',
  accentWash: '#e3e6f2',
  fault: '#9b2c1d',
  faultLine: '#cf9a90',
  faultWash: '#f6e5e1',
  warning: '#8a5a00',
  warningLine: '#c9ad77',
  warningWash: '#f7eedb',
  good: '#2c6144',
  goodLine: '#8fab9a',
  goodWash: '#e2ebe5',
  /** A mark that must be seen on any photograph. */
  onPicture: '#e0523c',
  // Materials of bearings and parts.
  steel: '#b9c2c6',
  lining: '#dcc39a',
  bronze: '#c98b4a',
  copper: '#9e4a26',
  copperWash: '#e9d5c4',
  copperBright: '#b8703e',
  heat: '#2b2430',
  dirt: '#6d5a40',
  grit: '#8d8261',
  // What is in the engine: oil, coolant, fuel.
  oilFresh: '#a9803f',
  oilUsed: '#4c3a22',
  oilBurnt: '#77797a',
  oilMilky: '#d9d2bd',
  coolant: '#9fb8b4',
  coolantRusty: '#b98a5e',
  water: '#c9d8e2',
  fuelNone: '#ece7c9',
  fuelLean: '#d9d59e',
  fuelRich: '#7fa08c',
  paperDry: '#d9c9a6',
  paperWet: '#cdbb95',
  bubble: '#f4f0da',
} as const;

export type ColourName = keyof typeof COLOUR;

/** Sizes of type, px. Text in a drawing is in the units of the drawing and not among them. */
export const TEXT = { small: 12, fine: 13, body: 15, lead: 17, section: 20, title: 26, display: 32 } as const;

/** A colour let through by a share, 0 to 1. */
export function through(name: ColourName, share: number): string {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(COLOUR[name].slice(i, i + 2), 16));
  return `rgba(${r},${g},${b},${share})`;
}
