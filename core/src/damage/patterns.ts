import type { PartClass } from '../engine/stations.js';

/** A known damage pattern: what it looks like, what it is mistaken for and what decides. */
export interface DamagePattern {
  readonly id: string;
  readonly name: string;
  readonly parts: readonly PartClass[];
  readonly look: string;
  readonly toldApart: string;
  readonly mechanism: string;
  readonly ask: string;
  /** Evidence feature that this pattern sets. */
  readonly feature: string;
  /** Other trade words, for search. */
  readonly alsoCalled?: readonly string[];
}

const p = (
  id: string,
  name: string,
  parts: readonly PartClass[],
  feature: string,
  look: string,
  toldApart: string,
  mechanism: string,
  ask: string,
  alsoCalled?: readonly string[],
): DamagePattern => ({ id, name, parts, look, toldApart, mechanism, ask, feature, ...(alsoCalled ? { alsoCalled } : {}) });

/** The patterns that can be named in this version; terms follow ISO 7146-1 where it has one. */
export const PATTERNS: readonly DamagePattern[] = [
  p('scoring', 'Scoring by hard particles', ['shell'], 'seen.scoring', 'Lines around the arc, sharp-edged, some running out at a speck.', 'From own debris: look what is embedded, and which bearing along the oil route has it worst.', 'Hard particles larger than the film are dragged between journal and shell and plough the softer face.', 'What is in the filter, and is it magnetic?', ['scratching']),
  p('embedded', 'Embedded particles', ['shell'], 'seen.embedded', 'Specks pressed into the face, each with a bright halo.', 'From pits: a speck stands or sits flush, a pit is a hole under the probe.', 'The soft layer swallows particles; metal pushed up around them runs bright against the journal.', 'Which kind is embedded: bright, copper, dark and magnetic, glassy?'),
  p('wiping', 'Wiping from too little oil', ['shell'], 'seen.wiping', 'Smooth smear with the overlay dragged in the direction of rotation, thin edges, lead beads.', 'From overlay fatigue: a smear has no network and no islands.', 'The film breaks down, the layer softens by friction heat and is dragged along the arc.', 'Was this the first place to run short along the oil route, or one fed from a bearing that turned?', ['smearing', 'oil starvation wear']),
  p('dry-seizure', 'Dry run-out to seizure', ['shell'], 'seen.dry-seizure', 'Layer gone, steel bare or blued, edges extruded, half fused to the journal.', 'From a late effect of a shell that turned: find the first station, check the hole position.', 'With no film left the metals weld and tear in a few turns.', 'Which bearing went first?'),
  p('heat-short', 'Heat-short lining', ['shell'], 'seen.heat-shell', 'Dark face, hair cracks, back of the shell discoloured.', 'From lacquer: lacquer wipes or scrapes off, heat colour goes into the metal.', 'Above its softening range the lining loses strength, sweats lead and cracks.', 'Is the back dark too, and the housing?'),
  p('overlay-fatigue', 'Overlay fatigue', ['shell'], 'seen.overlay-fatigue', 'Crazed network on the loaded half, islands of layer missing.', 'From wiping: network and islands, not a smear.', 'Repeated film pressure cracks the layer until pieces leave.', 'Is it on the loaded half only, and on every rod or only some?'),
  p('corrosion', 'Corrosion by acid or coolant', ['shell'], 'seen.corrosion-shell', 'Dull, pitted, dark and lead-poor over wide areas.', 'From heat: corroded areas follow where oil lay, not where load was.', 'Acids from old oil or glycol dissolve lead from the layer.', 'How old was the oil, and is there coolant in it?'),
  p('water-rust', 'Rust carried in by water', ['shell', 'journal', 'bore'], 'seen.rust', 'Brown patches with pits, at hollows and where liquid stood.', 'From bared copper: hue, pits under the probe, and rust on other iron parts.', 'Water breaks the oil film at rest and rusts steel and iron.', 'Did it stand, and with what in it?'),
  p('edge-loading', 'Edge loading', ['shell'], 'seen.edge-wear', 'Wear along one edge only.', 'Same edge on every shell: axial thrust or taper. Opposite edges upper against lower: bent rod.', 'The journal leans in the bearing and carries on one rim.', 'Is it the same edge on the neighbours?'),
  p('dirt-behind', 'Dirt behind the shell', ['shell'], 'seen.dirt-behind', 'One local bright or wiped spot with its print on the back.', 'From a hard spot of load: turn the half over, the back shows a dent or clean patch.', 'A particle trapped at fitting lifts the face locally and takes the clearance away.', 'What is on the back at that place?'),
  p('parting-contact', 'Parting-line contact on opposite sides', ['shell'], 'seen.parting-contact', 'Contact at one parting line above and at the other below.', 'From excess crush: crush shows at both parting lines of a half.', 'A cap moved sideways, reversed or from another place shifts the halves against each other.', 'Do cap and block numbers agree, and is the joint imperceptible to a fingertip?'),
  p('spun-shell', 'Spun shell', ['shell'], 'seen.spun', 'Back polished round, tab torn or gone, oil hole shut.', 'A tab still in place is no proof that the shell was tight.', 'Friction on the face exceeds the grip of the housing; the shell turns and closes its own feed.', 'What made it grip the journal: heat, dirt, no oil, or no crush?'),
  p('insufficient-crush', 'Insufficient crush', ['shell'], 'seen.crush-fretting', 'Shiny back with fretting marks, dark patches of burnt oil between shell and housing.', 'From a spun shell: tab whole, marks fine and to and fro.', 'Without interference the half works in its seat and passes no heat to the housing.', 'What was the bolt torque, and was the joint filed or packed?'),
  p('journal-scoring', 'Circumferential scoring', ['journal'], 'seen.journal-scored', 'Lines around the journal, felt by nail or probe.', 'From grinding marks: scores vary in depth and have a start.', 'Particles held in the shell cut the journal on every turn.', 'Does it catch the nail, and how deep is it?'),
  p('journal-heat', 'Heat tint ring', ['journal'], 'seen.journal-heat', 'Straw to blue-black band around the journal.', 'From varnish: tint does not wipe off.', 'Friction heat tempers the surface; hardness may be lost.', 'Straw, brown, blue or black, and how wide?'),
  p('journal-transfer', 'Metal transfer', ['journal'], 'seen.journal-transfer', 'Patches of shell or rod metal smeared onto the journal.', 'Also left by overheating, wrong clearance or a bore fault: wants a second, independent sign before oil is named.', 'The softer metal melts and welds to the turning surface.', 'Which metal is it?'),
  p('full-round-scuff', 'Full-round scuff', ['skirt', 'bore'], 'seen.full-round-scuff', 'Torn metal all round the skirt.', 'From four-corner scuff: the pin sides are torn too.', 'No oil on the wall, or the piston grew until it touched everywhere.', 'Is the bore dry, and are the journals clean?'),
  p('four-corner-scuff', 'Four-corner scuff beside the pin', ['skirt'], 'seen.four-corner-scuff', 'Four torn patches at the corners of the skirt faces.', 'From one-side wear: it is on both faces, at both edges.', 'Piston heated from above grows along the pin and bears at the corners.', 'Was the engine hot, all cylinders or one?'),
  p('thrust-scuff', 'Thrust-side scuff', ['skirt', 'bore'], 'seen.thrust-scuff', 'Scuff on the thrust face only.', 'From heat: the other face is clean.', 'Fuel wash, tight clearance or high side load breaks the film on the loaded face.', 'Is the wall washed, and how does the injector spray?'),
  p('diagonal-skirt', 'Diagonal skirt wear', ['skirt'], 'seen.diagonal-skirt', 'Wear high on one side, low on the other.', 'From skirt print: it crosses the pin axis.', 'A bent or twisted rod leads the piston askew.', 'Do the shells of the same rod show opposite edges?'),
  p('crown-pepper', 'Crown peppering, land breakage', ['crown', 'rings'], 'seen.detonation-marks', 'Fine sand-blasted craters, broken lands, rings stuck or broken.', 'From a foreign object: peppering is fine and even, strikes are few and deep.', 'End gas burns at once; pressure waves erode metal and break lands.', 'Fuel, timing, boost, charge temperature?'),
  p('crown-melt', 'Melted crown or hole', ['crown'], 'seen.crown-melted', 'Metal melted away, hole with rounded rim.', 'From detonation: melting without a field of craters.', 'A hot spot lights the charge early; the crown takes heat until it melts.', 'Which plug, valve or deposit glowed?'),
  p('crown-strike', 'Crown strike', ['crown'], 'seen.crown-strike', 'Dents with the print of a valve, ring or foreign part.', 'From peppering: few, deep, with a shape.', 'A loose part or a valve out of time met the piston.', 'What part fits the print?'),
  p('normal-bedding', 'Normal bedding', ['shell', 'journal', 'skirt', 'bore'], 'seen.normal-bedding', 'Even polish on the loaded arc, nothing lost.', 'From early wiping: no smear, edges sharp.', 'Surfaces run in to each other.', 'None: it is as it should be.'),
  p('pump-scored', 'Pump gears or body scored', ['pump'], 'seen.pump-scored', 'Lines in the body and on gear tips.', 'From wear with age: lines are sharp and local.', 'Debris drawn through the pickup is the pump’s first meal.', 'What is on the screen?'),
  p('pump-seized', 'Pump seized or drive broken', ['pump', 'timing'], 'seen.pump-drive-broken', 'Gears locked or the drive sheared.', 'A battered break ran on; a clean break came at the last turn.', 'Without drive there is no pressure anywhere from one turn to the next.', 'Which gave first, the gears or the drive?'),
  p('relief-stuck', 'Relief valve stuck', ['pump'], 'seen.relief-stuck', 'Plunger does not move freely, or debris under its seat.', 'From a weak spring: measure its free length.', 'Oil returns to the pan instead of the gallery.', 'Open or shut?'),
  p('screen-choked', 'Screen choked', ['pickup'], 'seen.screen-choked', 'Mesh covered by sealant, plastic or sludge.', 'Debris that fell on after draining lies loose and dry.', 'The pump draws a vacuum and air comes out of the oil.', 'What is on it, strings, flakes or mud?'),
  p('pickup-leak', 'Pickup cracked or loose', ['pickup'], 'seen.pickup-leak', 'Crack, lost seal or loose joint above the oil level.', 'A joint disturbed at stripping is bright and oil-wet.', 'Air is drawn in place of oil, first in a turn or on a slope.', 'Was the joint tight when found?'),
  p('copper-flake', 'Copper flake in the pan', ['debris', 'filter'], 'debris.copper', 'Bright copper-coloured flakes, not magnetic.', 'From gasket bronze: flakes are thin and curved.', 'Lining leaving a shell.', 'How much, and which shell is short of it?'),
  p('bright-aluminium', 'Bright aluminium', ['debris', 'filter'], 'debris.aluminium', 'Silver flakes, light, not magnetic.', 'From overlay: aluminium is bright and stiff, overlay soft and grey.', 'Piston or pump body metal.', 'Which piston is torn?'),
  p('steel-sliver', 'Steel slivers or magnetic fuzz', ['debris', 'filter'], 'debris.steel', 'Needles or fuzz on the magnet.', 'Fine fuzz is normal in a new engine; slivers are not.', 'Gear, ring, chain or journal steel.', 'Needles, flakes or dust?'),
  p('grit', 'Grit, sand or blast media', ['debris', 'filter', 'pickup'], 'debris.grit', 'Hard glassy or sandy grains, not magnetic.', 'From carbon: grains scratch glass.', 'Left by blasting, casting or a dirty bench.', 'Was anything blasted or machined before assembly?'),
  p('sealant', 'Sealant strings', ['debris', 'filter', 'pickup'], 'debris.sealant', 'Rubbery strings or beads.', 'From O-ring pieces: irregular, colour of the bead outside.', 'Too much sealant squeezes inward and breaks off.', 'Which joint has the same colour?'),
  p('gasket-leak', 'Lifted or burnt gasket', ['gasket'], 'seen.gasket-leak', 'Dark combustion trace across the ring or between cylinders.', 'From disassembly marks: the trace is burnt in.', 'The joint opens under pressure and gas erodes it.', 'Between which holes does it run?'),
  p('rings-stuck', 'Rings stuck', ['rings'], 'seen.rings-stuck', 'Rings bound in their grooves by carbon or a closed land.', 'From a broken ring: whole but immovable.', 'Deposits or a crushed groove hold the ring off the wall.', 'All cylinders or one?'),
  p('rod-bent', 'Bent or blued rod', ['rod'], 'seen.rod-bent', 'Out of line by gauge or eye, or blue at the big end.', 'Blue at one end only tells which end ran hot.', 'Liquid in the cylinder or a strike bends, friction blues.', 'Does its piston sit lower than the others?'),
  p('thrust-wiped', 'One thrust face wiped', ['thrust'], 'seen.thrust-wiped', 'One face bright or wiped, the other as new.', 'Both worn: long use or dirt.', 'A steady push along the crank wears the face that takes it.', 'What pushes: clutch, converter, coupling, gear?'),
];

export function pattern(id: string): DamagePattern | undefined {
  return PATTERNS.find((entry) => entry.id === id);
}

export function patternsFor(part: PartClass): DamagePattern[] {
  return PATTERNS.filter((entry) => entry.parts.includes(part));
}
