import { mainPositions, pinCount, type EngineLayout } from '../../engine/layout.js';

/** How the places of a part are numbered: by cylinder, by main, by crankpin, or not at all. */
export type Numbering = 'cylinder' | 'main' | 'pin' | 'none';

/** What a part is called, and which stations are meant; `#` stands for its number. */
export interface PartWord {
  readonly id: string;
  readonly says: RegExp;
  readonly numbered: Numbering;
  readonly stations: readonly string[];
}

const part = (id: string, says: RegExp, numbered: Numbering, ...stations: string[]): PartWord => ({ id, says, numbered, stations });

const BIG_ENDS = ['rod.#.shell.upper', 'rod.#.shell.lower', 'rod.#.bigend', 'rod.#.rollers'];
const MAINS = ['main.#.shell.upper', 'main.#.shell.lower', 'main.#.rollers'];
const SKIRTS = ['piston.#.skirt.thrust', 'piston.#.skirt.antithrust'];
const SHELL = '(?:shells?|halves|half shells?|liners?|inserts?|bearings?|slippers?|metals?)';

/**
 * Words for parts on both sides of the ocean, the longer before the shorter. What a part is made of or carries comes before the part itself, so that a "piston ring" is a ring
 * and a "crankpin bearing" a bearing.
 */
export const PART_WORDS: readonly PartWord[] = [
  part(
    'elsewhere',
    /\b(?:starter(?: ring| motor)?|ring gear|injectors?|spark plugs?|heat exchanger(?: end cap)?|exhaust (?:manifold|box|pipe|nut)|silencers?|carburettors?|carbs?|air (?:filter|box|cleaner)s?|(?:fuel|injection|water) (?:pump|tank|hose|lines?)|tank|paint|number plate|mounting foot|charge cooler|governor(?: gear)?(?: and cup)?|pin circlips?|rocker (?:box|covers?)(?: baffle)?|breather(?: chamber)?|inlet manifold|intake (?:manifold|tract)|inlet (?:tract|silencer)|throttle|reed (?:petals|block)s?|circlips?|joints? of (?:the )?(?:shells?|caps?)|cowl screws?|trap|knock sensor|girdle|windage tray|catch tank)\b/,
    'none',
  ),
  part('dipper', /\b(?:dippers?|slingers?(?: gear)?|oil (?:finger|scoop)|paddles?)\b/, 'cylinder', 'rod.#'),
  part('rod-bolts', /\b(?:(?:con(?:necting)? )?rod|big ends?|conrod) (?:cap )?(?:bolts?|nuts?|studs?|screws?)\b/, 'cylinder', 'bolts.rod'),
  part('main-bolts', /\bmain (?:bearing )?(?:cap )?(?:bolts?|nuts?|studs?)\b/, 'none', 'bolts.main'),
  part('head-bolts', /\b(?:cylinder )?head (?:bolts?|nuts?|studs?)\b/, 'none', 'bolts.head'),
  part('damper', /\b(?:(?:crank(?:shaft)? |vibration |torsional |nose )?dampers?|harmonic balancers?)(?! bolts?)\b/, 'none', 'damper'),
  part(
    'crank-bolts',
    /\b(?:fly ?wheels?(?! (?:edge|end|side))(?: bolts?)?|damper bolts?|flex(?:ible)? coupling|coupling|crank pulley|nose bolt)\b/,
    'none',
    'bolts.crank',
  ),
  part(
    'clutch',
    /\b(?:clutch|torque converter|converter|thrust release|release bearing|gear ?box|transmission input)\b/,
    'none',
    'clutch.side',
  ),
  part(
    'cam-bearing',
    /\bcam(?:shaft)?(?: ,)?(?: (?:front|rear|middle))? (?:bush(?:es)?|bearings?|bores?|caps?|journals?|tunnels?)\b/,
    'none',
    'cam.bearings',
  ),
  part('cam-thrust', /\bcam(?:shaft)? (?:thrust(?: plate| washer)?|end float|end play|retainer plate)\b/, 'none', 'cam.thrust'),
  part(
    'main-housing',
    /\b(?:main (?:bearing )?(?:bores?|housings?|saddles?|tunnels?|seats?|webs?|bulkheads?)|(?:crank |main )?tunnel|line bore)\b/,
    'main',
    'main.#.housing',
  ),
  part('main-cap', /\bmain (?:bearing )?(?:caps?|cap joints?)\b/, 'main', 'main.#.housing'),
  part(
    'rod-housing',
    /\b(?:(?:con)?rod (?:eyes?|big eyes?|big end (?:eyes?|bores?)|bores?|caps?|cap joints?|seats?)|big (?:end )?eyes?|big end (?:bores?|housings?|caps?))\b/,
    'cylinder',
    'rod.#.housing',
    'rod.#.bigend',
  ),
  part(
    'thrust',
    /\b(?:thrust (?:washers?|faces?(?! of)|flanges?|bearings?|halves|shells?|rings?)|flange shells?)\b/,
    'none',
    'main.T.thrust.front',
    'main.T.thrust.rear',
  ),
  part(
    'rod-shell',
    new RegExp(`\\b(?:big ends?|b\\/?e|(?:con(?:necting)? )?rods?|crank ?pins?|conrod) (?:bearing )?${SHELL}\\b`),
    'cylinder',
    ...BIG_ENDS,
  ),
  part('main-shell', new RegExp(`\\bmains? (?:bearing )?${SHELL}\\b`), 'main', ...MAINS),
  part('main-journal', /\bmains? (?:bearing )?journals?\b/, 'main', 'crank.main.#'),
  part('pin', /\b(?:crank ?pins?|big end (?:journals?|pins?)|rod (?:journals?|pins?)|throws?)\b/, 'pin', 'crank.pin.#'),
  part(
    'small-end',
    /\b(?:small ends?(?: bush(?:es)?| eyes?)?|little ends?(?: bush(?:es)?)?|(?:wrist|gudgeon|piston) pins?(?: bores?| boss(?:es)?| bush(?:es)?| needles?)?|pin boss(?:es)?)\b/,
    'cylinder',
    'rod.#',
    ...SKIRTS,
  ),
  part(
    'rod-rollers',
    /\b(?:big end (?:rollers?|needles?|cages?)|needles? and (?:cages?|rollers?)|needle cages?)\b/,
    'cylinder',
    'rod.#.rollers',
  ),
  part('main-rollers', /\b(?:ball (?:races?|bearings?)|roller bearings?|crank bearings?)\b/, 'main', 'main.#.rollers'),
  part(
    'rings',
    /\b(?:(?:piston |top |second |oil |compression |scraper )*rings?(?: pack| lands?| grooves?| gaps?| faces?)?)(?! gear| of)\b/,
    'cylinder',
    'rings.#.pack',
  ),
  part('lands', /\b(?:(?:top |ring |second )lands?|grooves?)\b/, 'cylinder', 'piston.#.crown', 'rings.#.pack'),
  part('crown', /\b(?:piston )?(?:crowns?|piston tops?|tops? of (?:the )?pistons?)\b/, 'cylinder', 'piston.#.crown'),
  part('skirt', /\b(?:piston )?skirts?\b/, 'cylinder', ...SKIRTS),
  part('underside', /\bundersides?\b(?! of (?:it|them|the (?:bracket|tray)))/, 'cylinder', 'piston.#.crown', 'rod.#'),
  part('piston', /\b(?:pistons?|slugs?)\b/, 'cylinder', ...SKIRTS, 'piston.#.crown'),
  part(
    'guide',
    /\b(?:(?:exhaust |inlet |intake )?(?:valve spring|(?:valve )?(?:guides?|stems?|springs|retainers?|keepers?|collets?|seat rings?|valve seats?))|seat inserts?)\b/,
    'cylinder',
    'valves.#',
  ),
  part('valve', /\b(?:(?:exhaust |inlet |intake )?valves?(?! (?:gear|timing|gaps?|clearance|lash)))\b/, 'cylinder', 'valves.#'),
  part(
    'cam',
    /\b(?:cam ?(?:shafts?)?(?: lobes?)?|lobes?|(?:cam )?followers?|lifters?|tappets?|rockers?(?: shafts?| arms?| rollers?)?|buckets?|push ?rods?)(?! (?:wheel|chain|belt|gear|sprocket|drive|cover|box))\b/,
    'cylinder',
    'cam.#',
  ),
  part(
    'gasket',
    /\b(?:(?:cylinder )?head (?:gaskets?|joints?)|fire rings?|head face|block (?:face|deck)|deck(?: face)?|gasket)\b/,
    'cylinder',
    'gasket.head',
  ),
  part(
    'chamber',
    /\b(?:(?:cylinder )?heads?(?! gear)|(?:combustion )?chambers?|(?:inlet|intake|exhaust) ports?|ports?|domes?)\b/,
    'cylinder',
    'head.#',
  ),
  part(
    'bore',
    /\b(?:(?:cylinder )?bores?|(?:wet |dry )?(?:cylinder )?liners?|sleeves?|barrels?|cylinder walls?|pots?|hone(?: pattern)?|honing|cross ?hatch)\b/,
    'cylinder',
    'bore.#',
  ),
  part(
    'timing',
    /\b(?:(?:cam|crank|idler) (?:wheel|gear|sprocket)s? (?:bolts?|nuts?|screws?)|timing (?:chains?|belts?|gears?|wheels?|drive|case|cover|cogs?)|(?:cam|idler|crank) (?:wheels?|gears?|sprockets?|bush(?:es)?|chains?|belts?)|cam(?:shaft)? drive|chains?(?: and)?(?: tensioners?| guides?)?|tensioners?|idlers?|belt(?: timing)?|valve timing)\b/,
    'none',
    'timing.drive',
  ),
  part(
    'relief',
    /\b(?:(?:oil )?(?:pressure )?(?:relief|release|regulator|pressure) valves?(?: spring| piston)?|relief (?:spring|piston|plunger))\b/,
    'none',
    'pump.relief',
  ),
  part('pump-drive', /\b(?:oil )?pump (?:drive|shaft|chain|key)\b/, 'none', 'pump.drive'),
  part(
    'pump',
    /(?<!hand |water |fuel |injection )\b(?:oil )?pump(?:s)?(?: gears?| rotors?| body| cover| tips?)?(?! (?:wheel|off|uncoupled))\b/,
    'none',
    'pump.gears',
  ),
  part('pickup', /\b(?:pick ?ups?|strainers?|suction (?:pipe|screen|bell)|screen|gauze)\b/, 'none', 'pickup.screen'),
  part('filter', /\b(?:oil )?filters?(?: media| paper| element| canister| head| cut(?: open)?)?\b/, 'none', 'filter.media'),
  part('cooler', /\boil coolers?\b/, 'none', 'oil.cooler'),
  part('jet', /\b(?:oil )?(?:jets?|squirters?|spray nozzles?)\b/, 'cylinder', 'oil.gallery'),
  part(
    'gallery',
    /\b(?:(?:oil |main )?gall?er(?:y|ies)|(?:block |oil |crank )?drillings?|oil ?ways?|oil holes?|feed holes?|feeds?|rifle)\b/,
    'none',
    'oil.gallery',
  ),
  part(
    'pan',
    /\b(?:(?:piston|ring|valve|bearing) (?:fragments?|crumbs)|(?:oil )?pans?|sumps?(?: pan| floor| baffle)?|drain plug|magnet(?:ic plug)?|drain)\b/,
    'none',
    'pan.debris',
    'pan.floor',
  ),
  part(
    'coolant',
    /\b(?:core plugs?|water (?:jackets?|pump|side|ways?|passages)|coolant (?:side|passages)|radiator|thermostat|header tank|jackets?|fins?|cowl(?:ing)?|tinware|fan(?: belt)?|blower wheel|blower(?= and fins)|(?:coolant|water|radiator|heater|top|bottom) hoses?)\b/,
    'none',
    'coolant.side',
  ),
  part(
    'turbo',
    /\b(?:turbos?(?:charger)?(?: shaft| bearings?| wheels?)?|blower|compressor wheel|wastegate|boost (?:pipework|control|hose))\b/,
    'none',
    'turbo',
  ),
  part(
    'seal',
    /\b(?:(?:rear |front |crank(?:shaft)? |shaft |oil |crankcase )*(?:seals?|o ?rings?)|lip seals?|(?:liner )?(?:bottom|lower|water|outer water) rings?|liner (?:lower |bottom )?(?:rings?|seals?))\b/,
    'none',
    'seals.shaft',
  ),
  part('balancer', /\bbalanc(?:er|e) ?(?:shafts?|weights?)?\b/, 'none', 'balancer'),
  part(
    'block',
    /\b(?:(?:cylinder )?blocks?(?! (?:half|halves|side))|crank ?cases?(?: walls?| floor)?|cases?|webs?|saddles?|bulkheads?)\b/,
    'none',
    'block.case',
  ),
  part('rod-shell', /\b(?:big ends?|b\/e|bottom ends?)\b/, 'cylinder', ...BIG_ENDS),
  part('rod', /\b(?:con(?:necting)? ?rods?|rods?)(?! (?:of|half|halves|side|holes))\b/, 'cylinder', 'rod.#'),
  part('main-shell', /\bmains?(?: bearings?| pairs?)?\b/, 'main', ...MAINS),
  part('main-journal', /\b(?:journals?)\b/, 'main', 'crank.main.#', 'crank.pin.#'),
  part('pin', /\bpins?\b(?! (?:ends?|side|holes?|bores?|boss\w*))/, 'pin', 'crank.pin.#'),
  part('crank', /\bcrank(?:shaft)?s?\b/, 'none', 'crank.main.*', 'crank.pin.*'),
  part(
    'shells',
    /\b(?:shells?|bearings?|bearing halves|slippers?)\b/,
    'none',
    'main.*.shell.*',
    'rod.*.shell.*',
    'rod.*.bigend',
    'rod.*.rollers',
    'main.*.rollers',
  ),
  part('bolts', /\b(?:bolts?|studs?|nuts?|fasteners?)\b/, 'none', 'bolts.rod', 'bolts.main', 'bolts.head', 'bolts.crank'),
  part('cylinder', /\b(?:cylinders?|cyls?|holes? no)\b/, 'cylinder', 'bore.#', ...SKIRTS, 'piston.#.crown', 'rings.#.pack', 'head.#'),
  part('plug', /\b(?:spark )?plugs?\b/, 'cylinder'),
];

/** Letters that stand for a part when they are written at a number: R2, M3, BE4. */
export const LETTER_PARTS: Readonly<Record<string, string>> = {
  r: 'rod-shell',
  be: 'rod-shell',
  m: 'main-shell',
  mb: 'main-shell',
  mj: 'main-journal',
  cp: 'pin',
  p: 'piston',
  b: 'bore',
  l: 'bore',
  c: 'cylinder',
  cyl: 'cylinder',
};

/** The part a letter or word of the table stands for. */
export function partWord(id: string): PartWord {
  return PART_WORDS.find((p) => p.id === id)!;
}

/** How many numbers a part has in an engine. */
export function numbersOf(layout: EngineLayout, numbered: Numbering): number {
  if (numbered === 'none') return 0;
  return numbered === 'main' ? layout.mains : numbered === 'pin' ? pinCount(layout) : layout.cylinders;
}

/** Numbers in the middle of a row: one of an odd row, two of an even one; `wide` takes in their neighbours where there are enough. */
export function middleNumbers(layout: EngineLayout, numbered: Numbering, wide: boolean): number[] {
  const n = numbersOf(layout, numbered);
  const middle = n % 2 === 1 ? [(n + 1) / 2] : [n / 2, n / 2 + 1];
  if (!wide || n < 4) return middle;
  const places = mainPositions(layout).length > 0 ? [middle[0]! - 1, ...middle, middle[middle.length - 1]! + 1] : middle;
  return places.filter((k) => k > 1 && k < n);
}
