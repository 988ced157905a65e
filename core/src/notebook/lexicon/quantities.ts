/** A quantity a notebook gives a result of, and what it means to lie beyond a limit. */
export interface QuantityWord {
  readonly says: RegExp;
  /** Name as it is shown. */
  readonly name: string;
  /** Feature shown by a value above its upper limit, and one shown by a value below its lower. */
  readonly high?: string;
  readonly low?: string;
  /** Which side one figure alone limits, where that is not the side of its feature. */
  readonly single?: 'upper';
  /** One figure a cylinder, judged against the best of them where no limit is given. */
  readonly byCylinder?: true;
}

/** Quantities by their words, the more particular first. */
export const QUANTITY_WORDS: readonly QuantityWord[] = [
  { says: /\b(?:compression|comp)\b/, name: 'compression', byCylinder: true, low: 'measured.compression-one-low' },
  { says: /\bleak ?down\b/, name: 'leak-down', byCylinder: true, high: 'measured.leak-rings' },
  { says: /\b(?:end (?:float|play)|crank float)\b/, name: 'end float', high: 'measured.end-float-high' },
  { says: /\b(?:run ?out|crank bend|crank on (?:vee |v )?blocks|bend at)\b/, name: 'run-out', high: 'measured.crank-runout' },
  { says: /\b(?:idle pressure|oil pressure|pressure)\b(?! test)/, name: 'oil pressure', low: 'measured.pressure-low' },
  { says: /\b(?:ring gaps?|end gaps?)\b/, name: 'ring gap', low: 'measured.ring-gap-small', single: 'upper' },
  {
    says: /\b(?:pistons? (?:in|to) (?:the )?(?:bore|barrel|liner|cylinder)|piston (?:to bore )?clearance|skirt clearance)\b/,
    name: 'piston clearance',
    low: 'measured.piston-clearance-low',
    high: 'measured.piston-clearance-high',
  },
  { says: /\b(?:small end (?:clearance|bush)|pin clearance in the small end)\b/, name: 'small-end clearance', high: 'seen.pin-boss-worn' },
  { says: /\b(?:ring (?:side|groove) clearance|side clearance)\b/, name: 'ring side clearance', high: 'seen.ring-edge-lost' },
  {
    says: /\b(?:shell (?:stand|stand out|protrusion|crush)|crush height|stand(?: out)? (?:above|at) (?:the )?joint|nip)\b/,
    name: 'crush height',
    low: 'seen.crush-fretting',
  },
  { says: /\b(?:guide wear|guide clearance|guide \d)\b/, name: 'guide wear', high: 'seen.guide-leak' },
  {
    says: /\b(?:main bores?|main tunnel|tunnel|housing (?:bore|size)|big eyes?|rod eyes?(?!.*parallel)|cap offset|main bore line)\b/,
    name: 'housing',
    high: 'measured.housing-distorted',
  },
  {
    says: /\b(?:(?:mains?|big ends?|rods?|bearing|shell|pin|oil) clearances?|clearance)\b/,
    name: 'bearing clearance',
    high: 'measured.clearance-high',
    low: 'measured.clearance-low',
  },
  {
    says: /\b(?:out of parallel|rod (?:bend|twist|out of line)|rod eye out of)\b/,
    name: 'rod out of line',
    high: 'measured.rod-out-of-line',
  },
  { says: /\b(?:piston (?:height|below|stands?|at the top)|piston below)\b/, name: 'piston height', low: 'measured.rod-short' },
  {
    says: /\bbores?(?: \d)? ?,? (?:out of round|oval|round)|bore (?:roundness|ovality)|barrel roundness\b/,
    name: 'bore out of round',
    high: 'measured.bore-oval',
  },
  { says: /\b(?:bore wear|bores?\b(?!.*line)|liner wear|cylinder wear)\b/, name: 'bore wear', high: 'measured.bore-worn' },
  { says: /\b(?:oval(?:ity)?|out of round)\b/, name: 'out of round', high: 'measured.out-of-round' },
  { says: /\btaper\b/, name: 'taper', high: 'measured.taper' },
  { says: /\b(?:liner (?:stand|protrusion|height)|stand of the liners?)\b/, name: 'liner stand', low: 'measured.liner-low' },
  { says: /\b(?:head (?:flatness|face)|block face|deck flatness|flatness)\b/, name: 'flatness', high: 'measured.deck-not-flat' },
  { says: /\b(?:silicon|silica)\b/, name: 'silicon', high: 'measured.silicon-high' },
  { says: /\b(?:sodium|potassium|glycol)\b/, name: 'glycol', high: 'measured.glycol' },
  { says: /\biron\b/, name: 'iron', high: 'measured.iron-high' },
  { says: /\b(?:fuel(?: in oil| dilution)?)\b(?= ?(?::|[\d]))/, name: 'fuel in oil', high: 'fluid.fuel-smell' },
  { says: /\b(?:thickness|viscosity)\b/, name: 'viscosity', low: 'fluid.fuel-smell' },
  { says: /\b(?:acid number|base number|tan|tbn)\b/, name: 'acid number', high: 'told.service-overdue' },
  { says: /\bhardness\b/, name: 'hardness', low: 'measured.hardness-low' },
  { says: /\b(?:lobe lift|cam lift|lift)\b/, name: 'lobe lift', low: 'measured.cam-lift-low' },
  { says: /\b(?:backlash)\b/, name: 'backlash', high: 'seen.chain-stretched' },
  { says: /\b(?:(?:nut|bolt) torque|nuts?\b.*undone|bolts? , undone|undone|torque)\b/, name: 'break-loose torque', low: 'seen.bolt-loose' },
  { says: /\b(?:bolt[^:]*length|length against a new)\b/, name: 'bolt length', high: 'seen.bolt-stretched' },
  { says: /\b(?:oil left after|oil share|oil in the fuel)\b/, name: 'oil in the fuel', low: 'told.premix-missed' },
  { says: /\b(?:oil (?:in when )?drained|oil in)\b/, name: 'oil drained', low: 'fluid.level-low', high: 'fluid.level-high' },
  { says: /\b(?:tip clearance|rotor tip|pump (?:tip|end) clearance|pump rotor)\b/, name: 'pump clearance', high: 'seen.pump-scored' },
  { says: /\b(?:journals?|pins?|crank ?pins?)(?: sizes?)?\b/, name: 'journal size', low: 'measured.journal-worn' },
];
