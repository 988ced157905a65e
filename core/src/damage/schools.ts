import type { PartClass } from '../engine/stations.js';

/** A question on which builders disagree, the positions they take, and the one followed unless the shop or the case says otherwise. */
export interface School {
  readonly id: string;
  readonly question: string;
  readonly positions: ReadonlyArray<{ readonly id: string; readonly text: string }>;
  readonly standard: string;
  readonly why: string;
  /** Part classes at whose stations it bites. */
  readonly parts: readonly PartClass[];
  /** Patterns whose naming brings it up. */
  readonly patterns: readonly string[];
  /** What it changes in the reckoning, in words. */
  readonly effect: string;
}

/** Questions on which builders disagree, with the positions they hold and the one a case goes by unless it says otherwise. */
export const SCHOOLS: readonly School[] = [
  {
    id: 'scored-journal',
    question: 'A scored journal',
    positions: [
      { id: 'nail-grinds', text: 'Any line that catches a nail means grind or replace' },
      { id: 'measure', text: 'Measure, and polish if inside size and finish' },
      { id: 'both', text: 'Record both; a nail catch forbids “polish only” unless the measured depth is inside the grade book' },
    ],
    standard: 'both',
    why: 'A nail finds what a micrometer steps over, and a micrometer knows what a nail only suspects.',
    parts: ['journal'],
    patterns: ['journal-scoring'],
    effect: 'What can be done with the journal.',
  },
  {
    id: 'spun-main',
    question: 'A main that has turned',
    positions: [
      { id: 'condemn', text: 'Condemn the block and buy an engine' },
      { id: 'measure', text: 'Measure the housing, line-bore or fit a shell of oversize outside' },
      { id: 'sleeve', text: 'Weld or sleeve the housing' },
    ],
    standard: 'measure',
    why: 'The housing can be gauged in ten minutes; the risk that it fails again is carried in the routes.',
    parts: ['shell'],
    patterns: ['spun-shell', 'shell-contracted', 'insufficient-crush'],
    effect: 'Which routes are offered.',
  },
  {
    id: 'worn-crank',
    question: 'A worn crank in a hard-used engine',
    positions: [
      { id: 'new', text: 'A new crank, always' },
      { id: 'grind', text: 'Grind and use undersize shells' },
      { id: 'by-class', text: 'By the class of the case' },
    ],
    standard: 'by-class',
    why: 'A ground crank serves a generator for years; in an engine run at its limit the case layer decides.',
    parts: ['journal'],
    patterns: ['journal-oval', 'journal-form', 'journal-one-side'],
    effect: 'What can be done with the crank.',
  },
  {
    id: 'marginal-bore',
    question: 'A bore near its limit',
    positions: [
      { id: 'hone', text: 'Hone and fit new rings' },
      { id: 'rebore', text: 'Rebore' },
      { id: 'limit', text: 'The wear limit decides; near it both are shown with the life to expect' },
    ],
    standard: 'limit',
    why: 'Near the limit the reading’s own uncertainty is as large as the difference.',
    parts: ['bore'],
    patterns: ['ring-ridge', 'hatch-gone-top', 'mid-bore-oval'],
    effect: 'What can be done with the bore.',
  },
  {
    id: 'shell-held',
    question: 'What holds a shell',
    positions: [
      { id: 'tab', text: 'The tab' },
      { id: 'crush', text: 'Crush and interference; the tab only locates' },
    ],
    standard: 'crush',
    why: 'Interference gives hundreds of newtons of grip, a tab shears at a few.',
    parts: ['shell'],
    patterns: ['spun-shell', 'insufficient-crush', 'shell-contracted'],
    effect: 'A whole tab weighs nothing against a shell that has crept.',
  },
  {
    id: 'strip-or-gauge',
    question: 'Clearance by crushed strip or by gauges',
    positions: [
      { id: 'strip', text: 'Crushed strip' },
      { id: 'gauges', text: 'Bore gauge and micrometer' },
      { id: 'both', text: 'Both, each with its own uncertainty; gauges win when they disagree beyond it' },
    ],
    standard: 'both',
    why: 'A strip shows the built joint, gauges show size; a disagreement tells of form.',
    parts: ['shell'],
    patterns: [],
    effect: 'Which clearance is evidence when the two differ.',
  },
  {
    id: 'one-sample',
    question: 'One normal oil sample',
    positions: [
      { id: 'clears', text: 'A normal result clears the bearings' },
      { id: 'trend', text: 'Only a trend means anything' },
    ],
    standard: 'trend',
    why: 'A sample taken after an oil change, or from the top of the pan, misses what has settled.',
    parts: ['debris', 'filter'],
    patterns: [],
    effect: 'Whether a single normal sample counts against a cause at all.',
  },
  {
    id: 'metal-seen',
    question: 'Metal seen, engine still runs',
    positions: [
      { id: 'watch', text: 'Fresh oil, and watch' },
      { id: 'strip', text: 'Strip now' },
    ],
    standard: 'strip',
    why: 'Every hour adds journals and housings to the bill; the cost of waiting is stated beside it.',
    parts: ['debris', 'filter'],
    patterns: ['copper-flake', 'bright-aluminium', 'steel-sliver'],
    effect: 'What is advised before opening.',
  },
  {
    id: 'soft-coating',
    question: 'Soft coated shells in dirty oil',
    positions: [
      { id: 'trap', text: 'They trap dirt and spare the crank' },
      { id: 'wear', text: 'They only wear faster' },
    ],
    standard: 'trap',
    why: 'Dirt held in a coating is a record of the oil, not a fault of the shell.',
    parts: ['shell'],
    patterns: ['embedded'],
    effect: 'Embedded dirt in a coated shell counts for dirt in the oil.',
  },
  {
    id: 'end-float',
    question: 'End float and rod shells',
    positions: [
      { id: 'also-rods', text: 'Crank thrust wears the edges of rod shells too' },
      { id: 'mains-only', text: 'Rods float sideways on the pin; look for a bent rod, taper or fillet' },
    ],
    standard: 'mains-only',
    why: 'A rod has its own side clearance and does not follow the crank.',
    parts: ['shell', 'thrust'],
    patterns: ['edge-loading', 'thrust-wiped'],
    effect: 'Edge wear on rod shells counts weakly for an axial push.',
  },
  {
    id: 'alloy-on-pin',
    question: 'Alloy smeared on a pin',
    positions: [
      { id: 'no-oil', text: 'Proof of running without oil' },
      { id: 'second-sign', text: 'Also left by heat, wrong clearance or a bore fault' },
    ],
    standard: 'second-sign',
    why: 'Smear needs contact and heat; want of oil is one way to both.',
    parts: ['journal'],
    patterns: ['journal-transfer'],
    effect: 'Smear is weighed as a report, not as proof, unless a journal is also tinted or a shell wiped.',
  },
  {
    id: 'hatch-seen',
    question: 'Visible cross-hatch',
    positions: [
      { id: 'good', text: 'The bore is good' },
      { id: 'trace', text: 'The peaks may be gone; only a trace or a gauge tells' },
    ],
    standard: 'trace',
    why: 'Valleys stay to be seen long after the plateau is worn.',
    parts: ['bore'],
    patterns: ['normal-bedding'],
    effect: 'A bore called sound by eye is weak evidence of size.',
  },
  {
    id: 'stretched-bolts',
    question: 'Bolts that stretch',
    positions: [
      { id: 'never', text: 'Never again' },
      { id: 'measure', text: 'Measure and reuse' },
      { id: 'by-type', text: 'Never for torque-to-yield, measure the others' },
    ],
    standard: 'by-type',
    why: 'A bolt tightened past yield has spent part of what it can take.',
    parts: ['fastener'],
    patterns: ['bolt-stretched', 'torque-uneven'],
    effect: 'What the parts list asks for.',
  },
];

const byId = new Map(SCHOOLS.map((s) => [s.id, s]));

/** A question on which builders disagree by its id; undefined for an id of another version. */
export function school(id: string): School | undefined {
  return byId.get(id);
}

/** Positions taken, by question: the case’s own, else the shop’s, else the standard. */
export function positionOf(id: string, chosen: ReadonlyMap<string, string>): string {
  const s = byId.get(id);
  const wanted = chosen.get(id);
  return s?.positions.some((p) => p.id === wanted) ? wanted! : (s?.standard ?? '');
}

/** Questions that bite at a part with these patterns named. */
export function schoolsAt(part: PartClass, patterns: readonly string[]): School[] {
  return SCHOOLS.filter((s) => s.parts.includes(part) && s.patterns.some((p) => patterns.includes(p)));
}
