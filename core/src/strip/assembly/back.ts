import type { EngineLayout } from '../../engine/layout.js';
import { CAUTION } from '../steps/step.js';
import { seen, type Proof, type ProofSource } from './proofs.js';

/** How a step of the strip is undone: words, what is proved before the next, and whose places it puts back. */
export interface Back {
  readonly name: (n: string) => string;
  readonly how: string;
  readonly tools?: string;
  readonly cautions?: readonly string[];
  readonly proofs?: (n: string, layout: EngineLayout) => readonly Proof[];
  /** Places whose parts go in with this step. */
  readonly parts?: (n: string, layout: EngineLayout) => RegExp;
}

const length = (id: string, name: string, how: string, sources: readonly ProofSource[]): Proof => ({
  id,
  name,
  how,
  quantity: 'length',
  sources,
});
const torque = (id: string, name: string, how: string, limit?: string): Proof => ({
  id,
  name,
  how,
  quantity: 'torque',
  sources: limit ? [{ limit }] : [],
});

const mainClearance = (m: string): Proof =>
  length(
    `clearance:main.${m}`,
    `Main ${m}, running clearance`,
    'Crushed strip or gauges, cap at its full torque; the crank is not turned on a strip.',
    [
      { station: `main.${m}.shell.lower`, sheet: 'crushed-strip', line: 'clearance' },
      { station: `main.${m}.shell.lower`, sheet: 'shell-clearance', line: 'vertical' },
    ],
  );
const turns = (id: string, after: string): Proof =>
  torque(`turning:${id}`, `Turning torque, ${after}`, 'Oiled, one slow turn; a rise at one cap means that cap.');
const endFloat = ({ thrustMain }: EngineLayout): Proof =>
  length('end-float', 'Crank end float', 'Indicator on the nose, crank pried to and fro.', [
    { station: `main.${thrustMain}.thrust.front`, sheet: 'end-float', line: 'endFloat' },
    { limit: 'end-float' },
  ]);
const WHOLE = torque('turning:whole', 'Turning torque, whole', 'Every cap at its full torque, plugs out, one slow turn.', 'turning');
const ring = (n: string, which: string): Proof =>
  length(
    `gap:${n}.${which}`,
    `Cylinder ${n}, end gap of the ${which} ring`,
    'In its own bore, squared with a piston, below the ring ridge.',
    [{ station: `rings.${n}.pack`, sheet: `ring.${which}`, line: 'gap' }],
  );
const pistonClearance = (n: string): Proof =>
  length(`piston:${n}`, `Piston ${n}, to its bore`, 'Bore gauge set to the piston, or sizes taken apart; both at room temperature.', [
    { station: `piston.${n}.skirt.thrust`, sheet: 'piston', line: 'clearance' },
  ]);
const CLIPS = seen('Both pin clips are new and sit in their grooves all round');
const GAPS = seen('Gaps of the rings are staggered, none over the pin or the thrust side');
const pistonIn = (n: string, rings: readonly string[]): Proof[] => [
  ...rings.map((which) => ring(n, which)),
  pistonClearance(n),
  GAPS(`gaps:${n}`),
  seen('Its mark points to the front')(`arrow:${n}`),
];

const COVER = { how: 'Faces clean and dry, new gasket or sealant in a thin even bead; bolts crosswise.' } as const;

/** How each kind of step goes back; a kind that is not here has nothing to put back (looking, draining, making safe). Numbers follow the strip's own. */
export const BACK: Readonly<Record<string, Back>> = {
  wash: {
    name: () => 'Everything clean and on the bench',
    how: 'Block, crank and rods washed last thing, every drilling brushed and blown through, bores wiped white. Parts laid out against this book.',
    cautions: [CAUTION.wash],
    proofs: () => [seen('A white cloth through every bore and drilling comes out white')('clean')],
    parts: () => /^(block\.case|oil\.cooler|coolant\.side|clutch\.side|balancer)$/,
  },
  galleries: {
    name: () => 'Gallery plugs and jets in',
    how: 'New core plugs. Each jet aimed as it was and proved open before its plug goes in.',
    proofs: () => [seen('Every gallery blown through, every jet throws')('galleries')],
    parts: () => /^oil\.gallery$/,
  },
  camshaft: {
    name: () => 'Camshaft in',
    how: 'Lobes and bearings with assembly lubricant; drawn in level, without touching a bearing.',
    parts: () => /^(cam\.(bearings|thrust|\d+))$/,
  },
  shells: {
    name: () => 'Main shells in',
    how: 'Backs and housings dry and clean, faces oiled. The half with the hole in the side with the feed, tang in its notch.',
    proofs: () => [seen('A wire goes from each feed through the hole of its shell')('feeds')],
    parts: () => /^main\.\d+\.(shell\.upper|thrust\.(front|rear)|housing)$/,
  },
  crank: {
    name: () => 'Crank in',
    how: 'Straight down, oiled; rear seal and thrust halves with it, grooves of the thrust washers to the crank.',
    cautions: [CAUTION.crank],
    parts: () => /^(crank\.|bolts\.crank$|seals\.shaft$|main\.\d+\.(rollers|housing)$|rod\.\d+\.rollers$)/,
  },
  case: {
    name: () => 'Case halves together',
    how: 'Through bolts from the middle outwards, in stages; sealant as its maker asks, none in a bearing.',
    proofs: (_, layout) => [endFloat(layout), turns('case', 'case closed')],
    parts: () => /^(main\.\d+\.(shell\.lower|housing)|bolts\.main)$/,
  },
  ladder: {
    name: () => 'Ladder frame on',
    how: 'From the middle outwards, in stages; it carries every cap.',
    proofs: () => [turns('ladder', 'ladder frame down')],
    parts: () => /^(main\.\d+\.shell\.lower|bolts\.main)$/,
  },
  'main-cap': {
    name: (n) => `Main cap ${n} on`,
    how: 'Its number and arrow as marked, tapped into its seat, never drawn in by its bolts; tightened in stages, then turned.',
    tools: 'torque wrench, strip or bore gauge',
    proofs: (n) => [mainClearance(n), turns(`main.${n}`, `main cap ${n} down`)],
    parts: (n) => new RegExp(`^(main\\.${n}\\.shell\\.lower|bolts\\.main)$`),
  },
  liner: {
    name: (n) => `Liner ${n} in`,
    how: 'New seals, wetted with what their maker asks, never twisted; mark to the front as it was.',
    proofs: (n) => [
      length(`liner:${n}`, `Liner ${n}, height above the deck`, 'Held down dry, at four places; the least and the most.', []),
    ],
    parts: (n) => new RegExp(`^bore\\.${n}$`),
  },
  piston: {
    name: (n) => `Piston ${n} in`,
    how: 'Rings compressed and oiled, sleeves over the bolts, pushed by hand; stop when it stops. Back in its own bore.',
    tools: 'ring compressor, feelers',
    cautions: [CAUTION.edges],
    proofs: (n, layout) => (layout.valveGear === 'ports' ? [CLIPS(`clips:${n}`)] : pistonIn(n, ['top', 'second', 'oil'])),
    parts: (n) => new RegExp(`^(piston\\.${n}\\..*|rings\\.${n}\\..*|bore\\.${n}|rod\\.${n}|rod\\.${n}\\.(shell\\.upper|housing))$`),
  },
  barrel: {
    name: (n) => `Barrel ${n} on`,
    how: 'Rings pressed onto their pegs and oiled; barrel straight down, not turned.',
    cautions: [CAUTION.edges],
    proofs: (n) => [ring(n, 'top'), ring(n, 'second'), pistonClearance(n), seen('Each ring gap sits over its peg')(`pegs:${n}`)],
    parts: (n) => new RegExp(`^(bore\\.${n}|rings\\.${n}\\..*)$`),
  },
  'rod-cap': {
    name: (n) => `Rod cap ${n} on`,
    how: 'Number to number, joint felt with a nail; bolts oiled as their maker asks, in stages, then turned.',
    tools: 'torque wrench, strip or bore gauge, feelers',
    proofs: (n) => [
      length(`clearance:rod.${n}`, `Big end ${n}, running clearance`, 'Crushed strip or gauges, cap at its full torque.', [
        { station: `rod.${n}.shell.lower`, sheet: 'crushed-strip', line: 'clearance' },
        { station: `rod.${n}.shell.lower`, sheet: 'shell-clearance', line: 'vertical' },
      ]),
      length(`side:rod.${n}`, `Big end ${n}, side clearance`, 'Feelers between rod and cheek.', [
        { station: `rod.${n}`, sheet: 'side-clearance', line: 'sideClearance' },
      ]),
      turns(`rod.${n}`, `rod cap ${n} down`),
    ],
    parts: (n) => new RegExp(`^(rod\\.${n}\\.(shell\\.lower|bigend)|bolts\\.rod)$`),
  },
  pin: {
    name: (n) => `Piston pin ${n} in`,
    how: 'Oiled, pushed by hand through the access hole; new clips, gap up or down, felt in their groove.',
    cautions: [CAUTION.edges],
    proofs: (n) => [CLIPS(`clips:${n}`)],
  },
  play: {
    name: () => 'Float and turning torque',
    how: 'Everything a bearing tells while it can still be got at.',
    tools: 'indicator, torque wrench with pointer',
    proofs: (_, layout) => [endFloat(layout), WHOLE],
  },
  front: {
    name: () => 'Front cover and damper on',
    how: 'New front seal, lip oiled; damper drawn on, never driven. Where timing gears are here, their marks in line first.',
    cautions: [CAUTION.puller],
    proofs: () => [seen('Crank and cam drive stand at their marks')('marks-front')],
    // An overhead cam is driven from outside this cover, and its drive goes on after the head.
    parts: (_, layout) => (layout.valveGear === 'overhead-cam' ? /^(damper|seals\.shaft)$/ : /^(damper|seals\.shaft|timing\.drive)$/),
  },
  pickup: {
    name: () => 'Pump and pickup on',
    how: 'Pump packed with oil or jelly, turned by hand; pickup with a new seal: a leak here draws air.',
    proofs: () => [seen('Pickup stands clear of the pan floor by what its type asks')('pickup')],
    parts: () => /^(pickup\.screen|pump\.)/,
  },
  pan: { name: () => 'Pan on', ...COVER, parts: () => /^(pan\.|pickup\.screen$|pump\.)/ },
  roll: {
    name: () => 'Stand it upright',
    how: 'Two people, stand locked; nothing loose above the bores.',
    cautions: [CAUTION.roll, CAUTION.stand],
  },
  followers: { name: () => 'Followers in', how: 'Each in the bore it came from, oiled, turning freely; with a new cam all are new.' },
  head: {
    name: (n) => `Head on${n === '1' ? ', second bank' : ''}`,
    how: 'Deck and head wiped dry, holes free of oil and water; new gasket the right way up. In stages, from the middle outwards.',
    tools: 'torque wrench, angle gauge',
    cautions: [CAUTION.stand],
    proofs: (n) => [seen('Bolt holes are dry and deep enough; the gasket leaves every passage open')(`gasket:${n}`)],
    parts: () => /^(gasket\.head|head\.\d+|valves\.\d+|bolts\.head)$/,
  },
  rockers: {
    name: () => 'Pushrods and rockers in',
    how: 'Each pushrod where it came from, seated in its follower; shaft drawn down evenly, valves set.',
    cautions: [CAUTION.springs],
    proofs: () => [seen('Valve clearances are set, cold, to the plate')('valves')],
  },
  cams: {
    name: (n) => `Camshafts on${n === '1' ? ', second bank' : ''}`,
    how: 'Crank off top dead centre so that no valve meets a piston; caps in order and direction, a turn at a time from the middle.',
    cautions: [CAUTION.springs],
    proofs: (n) => [seen('Valve clearances are right, cold, to the plate')(`valves:${n}`)],
    parts: () => /^cam\./,
  },
  timing: {
    name: () => 'Timing drive on',
    how: 'To the marks, locked, tensioner new where its type asks; two turns by hand, marks looked at again.',
    cautions: [CAUTION.springs],
    proofs: () => [seen('After two turns by hand every mark is back in line')('marks')],
    parts: () => /^(timing\.drive|damper)$/,
  },
  covers: { name: () => 'Covers on', how: 'Oil poured over cam or rockers first; new gasket, bolts evenly.' },
  cam: {
    name: () => 'Camshaft and followers in',
    how: 'Followers where they came from; marks of crank and cam in line.',
    proofs: () => [seen('Crank and cam stand at their marks')('marks')],
    parts: () => /^(cam\.|valves\.|timing\.drive)/,
  },
  'side-cover': { name: () => 'Side cover on', ...COVER, proofs: (_, layout) => [endFloat(layout)], parts: () => /^pan\./ },
  cowl: {
    name: () => 'Flywheel and cowl on',
    how: 'Key in its slot, taper dry, nut to its torque; fins and tins clean.',
    parts: () => /^damper$/,
  },
  powerhead: {
    name: () => 'Powerhead on the leg',
    how: 'New joint, splines greased, impeller new; let down straight by the eye.',
    cautions: [CAUTION.stand],
    parts: () => /^damper$/,
  },
  filter: {
    name: () => 'Filter on',
    how: 'New, its seal oiled, filled where it stands upright; by hand and as much more as it says.',
    parts: () => /^filter\./,
  },
  outside: {
    name: () => 'Ancillaries on',
    how: 'Each from its own bag; earth straps, hoses, guards, turbo feed filled with oil.',
    parts: () => /^turbo$/,
  },
};
