import type { Cause, CauseLink, StrengthWord } from '../types.js';

const link = (strength: StrengthWord, prevents = false) => (feature: string, reason: string): CauseLink => ({ feature, strength, prevents, reason });
const always = link('almost always');
const usually = link('usually');
const some = link('sometimes');
const rare = link('rarely');
const stops = link('usually', true);

const OIL_COLLATERAL = ['every bearing fed by the same oil', 'cam bearings and followers', 'turbocharger', 'chain tensioner'];
const DIRT_COLLATERAL = ['galleries with plugs out', 'oil cooler', 'filter head', 'piston jets', 'pump and relief valve'];

/** Root causes by kind. Each figure is a word with its reason; prior odds are per failed engine of the class. Table version 1. */
export const CAUSES: readonly Cause[] = [
  {
    id: 'oil-low', name: 'Oil level run low or none', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.07, needs: ['four-stroke'],
    priorOddsFor: { splash: 0.16 },
    links: [
      always('fluid.level-low', 'the level is what failed'), usually('seen.wiping', 'bearings lose the film as air reaches the pickup'), usually('spread.all-bearings', 'all bearings share the oil'),
      some('spread.grows-along-route', 'the far end runs short first'), usually('told.pressure-low-hot', 'the gauge dips first in turns and when hot'), some('told.pressure-lost', 'at the end it falls away'), some('seen.journal-heat', 'dry journals tint'),
      some('spread.rods-worse', 'rods are fed last'), some('seen.full-round-scuff', 'less oil is thrown at the bores'), some('seen.dry-seizure', 'when run on'), some('seen.heat-shell', 'dry friction'), some('seen.journal-transfer', 'layer melts onto the pin'), some('told.ran-on', 'the lamp was taken for a fault of the lamp'),
    ],
    doesNot: 'It does not spare one end of the oil route while killing the other, nor leave the level right.', collateral: OIL_COLLATERAL, actions: ['Find where the oil went', 'Prime before first start'],
  },
  {
    id: 'dipper-failed', name: 'Dipper or slinger broken', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.12, needs: ['splash'],
    links: [always('seen.dry-seizure', 'the pin is fed by nothing else'), usually('seen.journal-transfer', 'rod metal welds to the pin'), some('seen.full-round-scuff', 'the bore is fed by the same splash'), usually('debris.steel', 'the broken piece lies in the pan'), usually('debris.aluminium', 'rod metal in the oil'), some('told.recent-work', 'fitted wrongly')],
    doesNot: 'It does not lower the oil level.', collateral: ['cam and followers', 'governor gear'], actions: ['Fit a sound dipper the right way round'],
  },
  {
    id: 'pickup-fault', name: 'Pickup leaking, choked or drawing air', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.05, needs: ['pressure-fed'],
    links: [
      usually('seen.screen-choked', 'a choked screen is one form of it'), usually('seen.pickup-leak', 'a cracked or loose pipe is the other'), usually('spread.all-bearings', 'all bearings share the oil'), usually('seen.wiping', 'air carries no load'),
      usually('told.pressure-low-hot', 'pressure flickers before it falls'), some('told.pressure-lost', 'suddenly, when a joint opens'), some('debris.sealant', 'sealant is the usual plug'), some('seen.journal-heat', 'dry journals tint'), some('told.recent-work', 'pan off, joint disturbed'), some('spread.grows-along-route', 'the far end runs short first'),
    ],
    doesNot: 'It does not change the oil level.', collateral: OIL_COLLATERAL, actions: ['Replace pipe and seal', 'Clean pan and screen'],
  },
  {
    id: 'surge', name: 'Oil surge in turns, on slopes or heeled', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.03, needs: ['pressure-fed'],
    links: [always('told.slope-heel', 'it needs a lean or a turn'), usually('seen.wiping', 'moments without oil'), some('spread.rods-worse', 'rods lose the film first'), some('told.pressure-low-hot', 'lamp in turns'), some('spread.all-bearings', 'all share the gulps of air'), stops('seen.screen-choked', 'the pickup itself is in order'), rare('seen.journal-heat', 'brief each time')],
    doesNot: 'It leaves level and pickup in order.', collateral: OIL_COLLATERAL, actions: ['Baffle or larger reserve', 'Raise the level to its mark'],
  },
  {
    id: 'pump-drive', name: 'Pump drive broken', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.03, needs: ['pressure-fed'],
    links: [
      always('seen.pump-drive-broken', 'the broken part is there'), always('told.pressure-lost', 'from one turn to the next'), usually('spread.all-bearings', 'no bearing is fed'), usually('seen.wiping', 'film gone'), some('seen.dry-seizure', 'when not stopped at once'), some('seen.heat-shell', 'dry friction'),
      usually('seen.journal-heat', 'dry journals tint'), usually('spread.rods-worse', 'rods hold the least oil'), some('debris.steel', 'pieces of the drive'), stops('fluid.level-low', 'the oil is all there'), some('seen.full-round-scuff', 'bores follow'),
    ],
    doesNot: 'It does not build up over weeks and does not lower the level.', collateral: OIL_COLLATERAL, actions: ['Find why the drive broke', 'Replace pump and drive together'],
  },
  {
    id: 'pump-worn', name: 'Pump worn or relief valve stuck open', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.04, needs: ['pressure-fed'],
    links: [usually('seen.pump-scored', 'clearance lets oil back'), usually('seen.relief-stuck', 'oil goes back to the pan'), always('told.pressure-low-hot', 'hot idle shows it first'), some('spread.all-bearings', 'all bearings share it'), some('seen.wiping', 'thin film at idle and load'), some('spread.grows-along-route', 'the far end first'), some('debris.steel', 'pump metal')],
    doesNot: 'It does not strike without weeks of falling pressure.', collateral: OIL_COLLATERAL, actions: ['Measure pump clearances', 'Free or replace the relief valve'],
  },
  {
    id: 'dry-start', name: 'Dry start, not primed', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.04, needs: ['pressure-fed'],
    links: [usually('told.recent-work', 'after a rebuild or a drained filter'), usually('told.after-start-up', 'it shows within minutes'), some('told.stood-long', 'or after a long lay-up'), usually('seen.wiping', 'first turns without film'), usually('spread.upper-halves', 'the first firing loads the rod half'), some('spread.all-bearings', 'all start dry'), some('spread.grows-along-route', 'oil reaches the far end last'), stops('seen.journal-heat', 'too short to tint')],
    doesNot: 'It leaves no dirt and no lasting loss of pressure.', collateral: OIL_COLLATERAL, actions: ['Prime until pressure shows before the next first start'],
  },
  {
    id: 'local-feed', name: 'One feed blocked or a shell half exchanged', family: 'Oil supply', mechanism: 'film starved', priorOdds: 0.05, needs: ['pressure-fed', 'plain-shells'], place: 'main',
    links: [
      usually('spread.main-and-its-pins', 'what the feed serves runs dry together'), some('spread.one-bearing', 'only what hangs on that feed'), usually('seen.dry-seizure', 'no oil at all at that place'), some('seen.wiping', 'before it seizes, and at the pins beyond'), usually('seen.heat-shell', 'dry friction heats the shell'), usually('seen.spun', 'the dry shell grips and turns'), usually('seen.journal-heat', 'the dry journal tints'), usually('measured.feed-hole-shut', 'hole and feed do not meet'),
      usually('told.pressure-normal', 'the gauge sees one leak less'), some('told.recent-work', 'halves exchanged or plug left'), stops('spread.all-bearings', 'the others are fed'), some('seen.journal-transfer', 'layer on that journal'), some('debris.copper', 'from the dying shell'), some('spread.two-on-one-pin', 'both rods hang on it'),
    ],
    doesNot: 'It does not lower the gauge and does not touch bearings on other feeds.', collateral: ['the drilling of that main', 'housing size of that bearing'], actions: ['Rod and blow through the feed', 'Check every shell hole against its feed'],
  },
  {
    id: 'foreign-debris', name: 'Foreign debris: dirty assembly, dust or blast media', family: 'Oil quality', mechanism: 'particles between the surfaces', priorOdds: 0.1,
    links: [
      always('seen.scoring', 'hard grains plough'), always('seen.embedded', 'grains stay in the layer'), usually('debris.grit', 'grains in pan and filter'), usually('seen.journal-scored', 'held grains cut the journal'), usually('told.recent-work', 'dirt comes in with hands'), some('spread.fades-along-route', 'the first bearings meet it first'),
      usually('spread.all-bearings', 'all share the oil'), usually('seen.pump-scored', 'the pump is before the filter'), some('spread.mains-worse', 'mains are met before pins'), some('told.after-start-up', 'soon after assembly'), some('debris.sealant', 'same hands, same haste'), stops('seen.heat-shell', 'scores carry oil, they do not heat'),
    ],
    doesNot: 'It does not blue journals by itself and does not keep to one bearing.', collateral: DIRT_COLLATERAL, actions: ['Strip and wash all oilways with plugs out', 'Replace cooler and filter'],
  },
  {
    id: 'own-debris', name: 'Debris of another part of this engine', family: 'Oil quality', mechanism: 'particles between the surfaces', priorOdds: 0.06,
    links: [usually('seen.scoring', 'pieces plough'), usually('seen.embedded', 'own metal in the layer'), usually('debris.steel', 'from gear, ring or chain'), some('debris.aluminium', 'from piston or pump'), some('seen.journal-scored', 'held pieces cut'), usually('seen.pump-scored', 'the pump eats it first'), some('spread.fades-along-route', 'first along the route'), some('seen.screen-choked', 'large pieces stay there'), stops('debris.grit', 'nothing foreign in it')],
    doesNot: 'It is never first: some part broke before.', collateral: DIRT_COLLATERAL, actions: ['Name the part that shed it', 'Wash all oilways'],
  },
  {
    id: 'filter-bypassed', name: 'Filter bypassed or burst', family: 'Oil quality', mechanism: 'particles between the surfaces', priorOdds: 0.03, needs: ['pressure-fed'],
    links: [usually('seen.scoring', 'unfiltered dirt'), usually('seen.embedded', 'unfiltered dirt'), some('fluid.black-sludge', 'a full filter opens its bypass'), usually('told.service-overdue', 'long interval'), some('spread.all-bearings', 'all share it'), some('seen.journal-scored', 'held grains'), some('told.cold-hard', 'thick oil opens the bypass')],
    doesNot: 'It does not leave a sound filter element.', collateral: DIRT_COLLATERAL, actions: ['Replace filter and check the bypass seat'],
  },
  {
    id: 'coolant-in-oil', name: 'Coolant in the oil', family: 'Oil quality', mechanism: 'corrosion', priorOdds: 0.05, needs: ['liquid-cooled', 'four-stroke'],
    links: [always('fluid.milky', 'water in oil'), usually('fluid.level-high', 'the level rises'), usually('fluid.coolant-low', 'it came from there'), usually('seen.corrosion-shell', 'glycol attacks lead'), some('seen.wiping', 'film of poor oil'), usually('spread.all-bearings', 'all share it'), some('seen.gasket-leak', 'the usual way in'), some('seen.rust', 'when it stood'), some('spread.lower-halves', 'mains carry below')],
    doesNot: 'It does not score shells.', collateral: ['oil cooler under pressure', 'liner seals', 'head and gasket'], actions: ['Pressure-test cooler, head and block', 'Flush the oil system'],
  },
  {
    id: 'fuel-in-oil', name: 'Fuel in the oil', family: 'Oil quality', mechanism: 'film lost by thinning', priorOdds: 0.05, needs: ['four-stroke'],
    links: [always('fluid.fuel-smell', 'fuel is there to smell'), usually('fluid.level-high', 'the level rises'), usually('told.pressure-low-hot', 'thin oil'), some('seen.wiping', 'film too thin under load'), usually('seen.thrust-scuff', 'washed wall'), some('spread.rods-worse', 'rods carry most'), some('spread.all-bearings', 'all share it'), some('seen.overlay-fatigue', 'thin film, high film pressure')],
    doesNot: 'It does not make the oil milky.', collateral: ['injectors or carburettor', 'fuel pump seal'], actions: ['Find where the fuel comes in', 'Shorten the next oil change'],
  },
  {
    id: 'oil-old', name: 'Oil too old or of the wrong grade', family: 'Oil quality', mechanism: 'corrosion', priorOdds: 0.07, needs: ['four-stroke'],
    links: [always('told.service-overdue', 'by definition'), usually('fluid.black-sludge', 'spent oil'), usually('seen.corrosion-shell', 'acids dissolve lead'), usually('seen.rings-stuck', 'carbon and lacquer'), some('seen.screen-choked', 'sludge'), some('spread.all-bearings', 'all share it'), some('told.pressure-low-hot', 'wrong or thinned grade'), some('seen.overlay-fatigue', 'weakened layer')],
    doesNot: 'It does not strike one bearing alone.', collateral: OIL_COLLATERAL, actions: ['State grade and interval to the owner'],
  },
  {
    id: 'premix-lean', name: 'No or too little oil in the fuel', family: 'Oil quality', mechanism: 'film starved', priorOdds: 0.15, needs: ['premix'],
    links: [always('told.premix-missed', 'the fuel tells'), usually('seen.full-round-scuff', 'no oil on any wall'), usually('seen.dry-seizure', 'rollers run dry'), usually('spread.all-pistons', 'all drink the same fuel'), some('debris.aluminium', 'piston metal'), some('seen.rings-stuck', 'smeared lands'), stops('seen.four-corner-scuff', 'it is torn all round')],
    doesNot: 'It does not melt a crown.', collateral: ['all big-end and main rollers'], actions: ['Keep a fuel sample', 'State the ratio to the owner'],
  },
  {
    id: 'coolant-lost', name: 'Coolant lost or not circulating', family: 'Heat', mechanism: 'part overheated', priorOdds: 0.08, needs: ['liquid-cooled'],
    links: [always('told.overheated', 'gauge or steam'), usually('fluid.coolant-low', 'it is gone'), usually('seen.four-corner-scuff', 'pistons grow along the pin'), usually('spread.all-pistons', 'all get hot'), usually('spread.bearings-clean', 'oil still flows'), usually('seen.gasket-leak', 'the head warps'), some('seen.rings-stuck', 'lacquer'), some('spread.neighbour-bores', 'the joint opens between them')],
    doesNot: 'It does not wipe shells while the pressure is right.', collateral: ['head flatness', 'gasket', 'liner seals', 'thermostat and pump'], actions: ['Find the leak or blockage', 'Pressure-test the cooling system'],
  },
  {
    id: 'air-cooling', name: 'Fins or cowling blocked', family: 'Heat', mechanism: 'part overheated', priorOdds: 0.12, needs: ['air-cooled'],
    links: [usually('told.overheated', 'smell, loss of power'), usually('seen.four-corner-scuff', 'the piston grows along the pin'), usually('seen.rings-stuck', 'lacquer'), some('seen.full-round-scuff', 'at the end it touches everywhere'), some('spread.one-piston', 'the blocked cylinder'), some('debris.aluminium', 'piston metal'), some('seen.gasket-leak', 'the head warps')],
    doesNot: 'It does not hurt the big end first.', collateral: ['head flatness', 'valve seats'], actions: ['Clean fins and refit the cowling'],
  },
  {
    id: 'hot-running', name: 'Hot running by lean mixture or timing', family: 'Heat', mechanism: 'part overheated', priorOdds: 0.05,
    links: [usually('told.overheated', 'hot exhaust'), usually('seen.four-corner-scuff', 'hot piston'), some('seen.crown-melted', 'at the end'), some('seen.detonation-marks', 'heat brings knock'), some('spread.one-piston', 'one lean cylinder'), usually('spread.bearings-clean', 'oil is in order'), some('told.knock-under-load', 'heard before')],
    doesNot: 'It does not lower the coolant.', collateral: ['injectors or jets', 'air leaks'], actions: ['Set mixture and timing by measurement'],
  },
  {
    id: 'detonation', name: 'Detonation', family: 'Combustion', mechanism: 'combustion attack', priorOdds: 0.05,
    links: [always('seen.detonation-marks', 'peppering and broken lands'), usually('told.knock-under-load', 'heard by some'), some('seen.overlay-fatigue', 'pressure spikes on the rod half'), usually('spread.upper-halves', 'the rod half takes it'), some('told.lugging', 'load at low speed'), some('spread.rods-worse', 'the rods take it'), some('seen.rings-stuck', 'crushed lands'), usually('spread.bearings-clean', 'pistons suffer first')],
    doesNot: 'It does not melt a clean hole.', collateral: ['head gasket', 'rod shells, upper halves'], actions: ['Correct fuel, timing, boost or charge temperature'],
  },
  {
    id: 'pre-ignition', name: 'Pre-ignition', family: 'Combustion', mechanism: 'combustion attack', priorOdds: 0.02, needs: ['spark'],
    links: [always('seen.crown-melted', 'melted or holed crown'), usually('spread.one-piston', 'one hot spot'), some('seen.detonation-marks', 'knock follows'), some('told.knock-under-load', 'dull knock, then loss of power'), usually('spread.bearings-clean', 'bearings have no part in it'), some('debris.aluminium', 'piston metal in the oil')],
    doesNot: 'It does not touch all cylinders alike.', collateral: ['plug heat range', 'valves of that cylinder'], actions: ['Remove the hot spot'],
  },
  {
    id: 'hydraulic-lock', name: 'Liquid in a cylinder', family: 'Combustion', mechanism: 'overload or fatigue', priorOdds: 0.03, place: 'cylinder',
    links: [always('seen.rod-bent', 'liquid does not give'), usually('told.water-in', 'the event'), usually('spread.opposite-edges', 'the bent rod leans'), usually('seen.diagonal-skirt', 'the bent rod leads askew'), usually('spread.one-cylinder', 'one cylinder held the liquid'), some('seen.rust', 'water left inside'), some('seen.edge-wear', 'edges of that rod')],
    doesNot: 'It does not touch the mains.', collateral: ['crank runout', 'pin and small end of that cylinder'], actions: ['Find the way in: intake, injector, gasket'],
  },
  {
    id: 'foreign-object', name: 'Foreign object in a cylinder', family: 'Combustion', mechanism: 'overload or fatigue', priorOdds: 0.02, place: 'cylinder',
    links: [always('seen.crown-strike', 'prints on crown and head'), usually('spread.one-cylinder', 'one cylinder'), some('debris.steel', 'pieces'), some('told.recent-work', 'dropped in'), some('seen.thrust-scuff', 'pieces in the ring belt'), usually('spread.bearings-clean', 'no part in it')],
    doesNot: 'It does not wear bearings.', collateral: ['valves, turbocharger, intake'], actions: ['Find where the piece came from'],
  },
  {
    id: 'over-speed', name: 'Over-speed', family: 'Load', mechanism: 'overload or fatigue', priorOdds: 0.03,
    links: [usually('told.over-speed', 'recorder or word'), usually('spread.lower-halves', 'inertia loads the cap half of the rods'), usually('spread.rods-only', 'mains carry less of it'), some('seen.wiping', 'film at its limit'), some('seen.crown-strike', 'valves touch'), some('seen.overlay-fatigue', 'inertia each turn'), some('seen.heat-shell', 'friction heat')],
    doesNot: 'It does not load the upper halves.', collateral: ['rod bolts', 'valve gear'], actions: ['Fit or set the governor or limiter'],
  },
  {
    id: 'lugging', name: 'Over-boost or lugging', family: 'Load', mechanism: 'overload or fatigue', priorOdds: 0.05,
    links: [usually('told.lugging', 'duty or tuning'), usually('seen.overlay-fatigue', 'high film pressure'), usually('spread.upper-halves', 'combustion loads the rod half'), usually('spread.rods-worse', 'rods take it first'), some('told.knock-under-load', 'knock with it'), some('seen.wiping', 'thin film at low speed'), stops('seen.embedded', 'no dirt in it')],
    doesNot: 'It does not wear the cap half of the rods.', collateral: ['pistons and pins', 'mains, lower halves'], actions: ['Set boost or load to the rating'],
  },
  {
    id: 'axial-load', name: 'Axial overload of the crank', family: 'Load', mechanism: 'edge loading', priorOdds: 0.03, needs: ['thrust'],
    links: [always('seen.thrust-wiped', 'the face that takes the push'), usually('measured.end-float-high', 'it wears away'), usually('told.axial-load', 'clutch, converter or coupling'), usually('spread.same-edge', 'mains lean one way; rods only weakly'), usually('seen.edge-wear', 'edges on the mains'), some('spread.mains-worse', 'mains carry it')],
    doesNot: 'It does not put opposite edges on one rod.', collateral: ['clutch release, converter, coupling', 'crank cheek'], actions: ['Correct what pushes before refitting'],
  },
  {
    id: 'cap-exchanged', name: 'Cap exchanged, reversed or shifted', family: 'Assembly', mechanism: 'clearance lost', priorOdds: 0.04, needs: ['plain-shells'], place: 'main',
    links: [always('seen.parting-contact', 'halves shifted against each other'), usually('measured.cap-mismatch', 'numbers tell'), usually('spread.one-bearing', 'one cap, one bearing'), usually('told.recent-work', 'someone had it off'), some('seen.heat-shell', 'clearance gone'), some('measured.clearance-low', 'across the joint'), some('told.after-start-up', 'soon')],
    doesNot: 'It does not spread to neighbours.', collateral: ['housing bore of that place'], actions: ['Number caps; line-check the housings'],
  },
  {
    id: 'wrong-shell', name: 'Wrong shell or clearance built wrong', family: 'Assembly', mechanism: 'clearance lost', priorOdds: 0.04, needs: ['plain-shells'],
    links: [usually('told.recent-work', 'new shells went in'), usually('measured.clearance-low', 'too tight'), some('measured.clearance-high', 'or too slack'), usually('told.after-start-up', 'first hour'), usually('seen.heat-shell', 'tight shells run hot'), some('seen.wiping', 'no room for a film'), some('spread.all-bearings', 'one wrong box'), some('told.pressure-low-hot', 'when slack')],
    doesNot: 'It does not appear after long good service.', collateral: ['all clearances of that set'], actions: ['Measure every clearance at assembly'],
  },
  {
    id: 'dirt-behind', name: 'Dirt behind a shell', family: 'Assembly', mechanism: 'clearance lost', priorOdds: 0.03, needs: ['plain-shells'], place: 'main',
    links: [always('seen.dirt-behind', 'print on face and back'), usually('spread.one-bearing', 'one place'), usually('told.recent-work', 'trapped at fitting'), some('seen.wiping', 'locally'), some('seen.heat-shell', 'locally'), some('seen.scoring', 'the same dirt on the face')],
    doesNot: 'It does not wear a whole half evenly.', collateral: ['seats of all other shells'], actions: ['Fit shells dry and clean'],
  },
  {
    id: 'loose-crush', name: 'Too little crush: joint loose or torque fault', family: 'Assembly', mechanism: 'clearance lost', priorOdds: 0.03, needs: ['plain-shells'], place: 'main',
    links: [always('seen.crush-fretting', 'the half works in its seat'), usually('seen.spun', 'until it turns'), usually('measured.torque-uneven', 'one bolt gave'), some('spread.one-bearing', 'one joint'), some('seen.heat-shell', 'no heat path'), some('told.recent-work', 'torqued wrongly'), some('debris.copper', 'from the end of it')],
    doesNot: 'It does not begin on the face of the shell.', collateral: ['bolts of all caps', 'housing size'], actions: ['New bolts, torque by the maker’s data'],
  },
  {
    id: 'gasket-fault', name: 'Head gasket or deck fault', family: 'Assembly', mechanism: 'gas leak', priorOdds: 0.05, needs: ['head-gasket'],
    links: [always('seen.gasket-leak', 'the trace of it'), usually('spread.neighbour-bores', 'leaks between neighbours'), some('fluid.coolant-low', 'gas pushes it out'), some('told.overheated', 'gas in the coolant'), some('fluid.milky', 'coolant to the oil'), usually('spread.bearings-clean', 'no part in it'), some('told.recent-work', 'fitted badly')],
    doesNot: 'It does not scuff pistons by itself.', collateral: ['head and deck flatness'], actions: ['Face what is not flat', 'Bolts by type'],
  },
  {
    id: 'bent-crank', name: 'Crank bent or cracked', family: 'Form or material', mechanism: 'edge loading', priorOdds: 0.02,
    links: [always('measured.crank-runout', 'the indicator shows it'), usually('spread.one-arc-journal', 'the journal carries on one arc, the shell all round'), usually('spread.centre-mains', 'the bow is greatest in the middle'), usually('spread.mains-worse', 'mains hold it'), some('seen.edge-wear', 'ends lean'), some('seen.wiping', 'clearance taken up'), some('spread.mains-only', 'rods follow their pins')],
    doesNot: 'It does not spare the centre.', collateral: ['crack test', 'damper'], actions: ['Crack-test and straighten or replace'],
  },
  {
    id: 'bent-rod', name: 'Rod bent or twisted', family: 'Form or material', mechanism: 'edge loading', priorOdds: 0.03, place: 'cylinder',
    links: [always('spread.opposite-edges', 'one edge above, the other below'), usually('seen.diagonal-skirt', 'the piston is led askew'), usually('seen.edge-wear', 'edges carry'), usually('spread.one-cylinder', 'one rod'), usually('seen.rod-bent', 'gauge shows it'), some('told.recent-work', 'forced at assembly')],
    doesNot: 'It does not mark other cylinders.', collateral: ['pin and bore of that cylinder'], actions: ['Align or replace the rod'],
  },
  {
    id: 'main-line', name: 'Main line or housing distorted', family: 'Form or material', mechanism: 'clearance lost', priorOdds: 0.02, needs: ['plain-shells'],
    links: [usually('spread.mains-only', 'rods are not in it'), usually('spread.centre-mains', 'the block bows'), some('told.overheated', 'heat warped it'), some('measured.clearance-low', 'at some mains'), some('seen.wiping', 'where it is tight'), some('spread.lower-halves', 'caps sit low')],
    doesNot: 'It does not hurt big ends.', collateral: ['line of all housings'], actions: ['Straight-edge and line-bore as needed'],
  },
  {
    id: 'bore-form', name: 'Bore form or coating fault', family: 'Form or material', mechanism: 'part overheated', priorOdds: 0.03,
    links: [usually('seen.full-round-scuff', 'at one height'), some('seen.thrust-scuff', 'or on one side'), usually('spread.one-piston', 'one bore'), usually('spread.bearings-clean', 'clean journals'), some('debris.aluminium', 'piston metal'), some('told.recent-work', 'bored or honed wrongly')],
    doesNot: 'It does not touch bearings.', collateral: ['form of all bores'], actions: ['Measure form; hone with a plate'],
  },
  {
    id: 'cold-hard', name: 'Cold engine driven hard', family: 'Use', mechanism: 'film starved', priorOdds: 0.04,
    links: [always('told.cold-hard', 'the habit'), usually('seen.thrust-scuff', 'skirts grow faster than bores'), some('spread.all-pistons', 'all pistons'), some('seen.wiping', 'thick oil arrives late'), some('spread.grows-along-route', 'the far end waits'), some('seen.overlay-fatigue', 'load on a cold film')],
    doesNot: 'It does not blue journals.', collateral: ['pistons and bores'], actions: ['Warm-up advice'],
  },
  {
    id: 'normal-wear', name: 'Normal long wear', family: 'Use', mechanism: 'ordinary wear', priorOdds: 0.12,
    links: [usually('told.long-service', 'hours tell'), usually('measured.journal-worn', 'size lost evenly'), some('measured.out-of-round', 'pins wear oval'), some('measured.taper', 'slowly'), usually('measured.clearance-high', 'everywhere a little'), usually('told.pressure-low-hot', 'hot idle first'), usually('seen.normal-bedding', 'surfaces as they should be'), some('spread.all-bearings', 'evenly'), some('spread.nothing-found', 'inside limits'), stops('seen.dry-seizure', 'it does not end like that')],
    doesNot: 'It does not seize anything.', collateral: ['ring gaps and bores'], actions: ['Plan the overhaul by measured wear'],
  },
  {
    id: 'standing-corrosion', name: 'Corrosion from standing', family: 'Use', mechanism: 'corrosion', priorOdds: 0.05,
    links: [always('seen.rust', 'brown, with pits'), always('told.stood-long', 'it stood'), some('told.water-in', 'or was flooded'), some('seen.rings-stuck', 'rusted in'), some('seen.scoring', 'rust is abrasive'), some('spread.lower-halves', 'where water lay')],
    doesNot: 'It does not expose copper by wear.', collateral: ['valve springs', 'injection or fuel system'], actions: ['Lay-up procedure'],
  },
  {
    id: 'something-else', name: 'Something else', family: 'Open', mechanism: 'unknown', priorOdds: 0.06,
    links: [rare('seen.scoring', 'open'), rare('seen.wiping', 'open'), rare('seen.heat-shell', 'open'), rare('seen.journal-scored', 'open'), rare('seen.journal-heat', 'open'), rare('seen.full-round-scuff', 'open'), rare('spread.one-bearing', 'open'), rare('spread.one-cylinder', 'open'), rare('debris.steel', 'open'), rare('seen.spun', 'open')],
    doesNot: 'It stands for every cause not listed here.', collateral: [], actions: ['Get a second opinion'],
  },
];

export const CAUSE_TABLE_VERSION = '1';

const byId = new Map(CAUSES.map((c) => [c.id, c]));

export function cause(id: string): Cause | undefined {
  return byId.get(id);
}
