/** What a wording says was seen: a pattern or a neutral sight, and how bad where the words themselves say so. */
export interface SightWord {
  readonly says: RegExp;
  /** Id of a pattern, or of a neutral sight; which pattern a neutral sight is on a part is decided by the part. */
  readonly sight: string;
  readonly grade?: 1 | 2 | 3 | 4;
  /** Says where, not what: it is a sight only where nothing in the clause says the place is sound. */
  readonly where?: true;
  /** It counts only in a sentence that says this too. */
  readonly beside?: RegExp;
}

const say = (says: RegExp, sight: string, grade?: SightWord['grade']): SightWord => ({ says, sight, ...(grade ? { grade } : {}) });
const where = (says: RegExp, sight: string, grade: SightWord['grade'], beside?: RegExp): SightWord => ({
  ...say(says, sight, grade),
  where: true,
  ...(beside ? { beside } : {}),
});

const RUBBED = /\b(?:scuff|smear|torn|tear|seiz|nip|rub|scratch|dry|alloy|strip|drag|gall|melt|wip|pick)/;

/** Wordings of one pattern; they count only where a part in the line can show it. The more particular stand first. */
export const PATTERN_SAYINGS: readonly SightWord[] = [
  // Shells
  say(/\b(?:spun|turned(?: in (?:the|its) (?:rod|housing|block|cap|bore|seat))?|walked round|rotated in|gone round)\b/, 'spun-shell', 4),
  say(
    /\b(?:tangs?|tabs?|nibs?|lugs?) (?:is |are |was |were )?(?:gone|torn|sheared|flattened|hammered|smeared|missing)|lost its (?:tab|tang)\b/,
    'spun-shell',
    4,
  ),
  say(
    /\b(?:over the crush|no crush|no nip|no spring|without any spring|lost (?:its )?(?:spread|spring)|drops? out (?:of|by)|drop out|lie flush|backs? (?:shiny|shined|polished|bright|patchy|fretted)(?: in (?:streaks|patches|spots))?)\b/,
    'insufficient-crush',
    2,
  ),
  say(
    /\b(?:dirt|grit|chip|flake|swarf|speck|paint|hair|something|print) (?:was |is |stuck )?(?:behind|under) (?:the |a )?(?:shell|half|bearing)|\bdent in the back|\bdimple|high spot\b/,
    'dirt-behind',
    2,
  ),
  say(/\b(?:crazed|crazing|craze|like old china|mosaic|network of cracks|alligator)\b/, 'overlay-fatigue', 2),
  say(
    /\b(?:flaked? (?:off|out|away)|lining (?:broken|flaked|breaking|lifting|missing in)|pieces of lining (?:gone|out)|broken out to the steel)\b/,
    'lining-fatigue',
    3,
  ),
  say(/\b(?:lifted from (?:its|the) (?:back|steel)|peel(?:ed|s|ing)|delaminat\w+|not bonded|bond (?:gone|failed|loss))\b/, 'bond-loss', 3),
  say(
    /\b(?:wiped|dragged (?:metal|in a patch|black)|bright and dragged|dragged (?:out|round|in (?:the )?(?:direction|rotation))|pulled round|smeared in (?:the )?(?:direction|rotation)|lining (?:moved|dragged|pulled)|wipe marks?)\b/,
    'wiping',
    3,
  ),
  say(
    /\b(?:seized (?:on|to|solid)|welded (?:to|on)|fused|extruded|pushed out (?:of|over)|dry(?: as a bone)? and (?:blue|black)|run dry|ran dry|metal pushed out)\b/,
    'dry-seizure',
    4,
  ),
  say(/\b(?:paper thin|thin as (?:paper|foil)|hammered to foil)\b/, 'dry-seizure', 4),
  { says: /\bother way about\b/, sight: 'opposite-edges', grade: 2, beside: /\bedges?\b/ },
  where(
    /\b(?:same|opposite|other) edges? (?:the )?other way|opposite edges?|(?:front|rear) edge[^.;]*(?:other half|other way about)\b/,
    'opposite-edges',
    2,
  ),
  where(
    /(?<!over |out of )\b(?:both edges|at both edges|edges? only|both sides at the fillets?|rides? (?:the|on the) fillets?|fillet ride)\b/,
    'both-edges',
    2,
  ),
  where(
    /\b(?:(?:along|at|on|toward|one|front|rear|flywheel|nose|outer|inner) (?:the |one |its )?(?:[a-z]+ )?edge(?! (?:is )?(?:gr[ae]y|sound|good|untouched|clean))|edge (?:worn|bright|wear|loading|loaded|chewed|marked|marks?)|bright edges|one side worn)\b/,
    'edge-loading',
    2,
  ),
  where(
    /\b(?:centre band|center band|band (?:in|round|along) the (?:middle|centre|center)|stripe (?:across|round|in) the middle)\b/,
    'centre-band',
    2,
  ),
  where(
    /\b(?:(?:along|at|by|next to|near) the (?:joint|parting line|split line|joint line)|joint (?:side|marks?)|strip at the joint|parting line contact|step at (?:the|both) joints?)\b/,
    'parting-contact',
    2,
  ),
  where(/\b(?:only (?:in|at) the crown|bright (?:only )?in the crown|crown (?:contact|bright) only)\b/, 'crown-contact', 2),
  say(/\b(?:eaten|etched|leached|acid|sour|dull and (?:dark|pitted)|pitted fine|fine pits|honeycomb|like fine leather)\b/, 'corrosion', 2),
  say(/\b(?:eroded|erosion|cavitat\w+|washed out (?:at|by|beside) the (?:hole|groove))\b/, 'cavitation', 2),
  say(
    /\b(?:embedded|bedded in|pressed in(?:to)?|stuck in the (?:lining|face|grey)|grit in (?:the )?(?:lining|shells?|metal|grey)|specks? in|impregnated|studded)\b/,
    'embedded',
    2,
  ),
  say(
    /\b(?:hole (?:shut|covered|closed|blanked|missed)|oil hole (?:not|does not|off)|halves (?:swapped|exchanged|changed over)|shells? (?:swapped|the wrong way|wrong way))\b/,
    'feed-missed',
    3,
  ),
  say(/\b(?:closed (?:in )?on the (?:journal|pin)|gripping the (?:journal|pin)|sprung inwards?)\b/, 'shell-contracted', 3),
  say(/\b(?:lacquer(?:ed)?|varnish(?:ed)?|enamel|brown skin|wipes off)\b/, 'lacquered-shell', 1),
  say(
    /\b(?:lead (?:sweat|beads)|hot short|back (?:is |was )?(?:dark|blue|black|discolou?red)|black(?:ened)? (?:face|lining)|lining (?:black|dark|blue|melted))\b/,
    'heat-short',
    3,
  ),
  say(
    /\b(?:even(?:ly)? (?:worn|thin(?:ner)?|copper)|copper (?:just )?(?:blushing|beginning|starting)|blushing through|evenly thin|worn evenly|worn smooth)\b/,
    'long-wear',
    1,
  ),
  // Journals
  say(
    /\b(?:(?:break|crack|broken)[^.;]* (?:slanting|at half a right angle|diagonal\w*|spiral\w*)|(?:slanting|spiral\w*) (?:break|crack)|like (?:a )?twisted (?:stick of )?chalk|twisted off)\b/,
    'torsion-crack',
    4,
  ),
  say(
    /\b(?:straw(?: colou?red| to blue)?|blued?(?: (?:at|round|all|black|to))?|bluish|blueing|heat tint(?:ed)?|burnt blue|purple)\b/,
    'journal-heat',
    3,
  ),
  say(
    /\b(?:copper|bronze|alloy|metal|lining|aluminium|aluminum) (?:(?:on|stuck to|stuck on|picked up on|smeared on|transferred to|welded to) (?:it|the (?:pin|journal|shaft)|pin)|(?:is |was )?(?:picked up|stuck|smeared|welded|dragged on))\b/,
    'journal-transfer',
    3,
  ),
  say(/\b(?:rough as a file|file rough|smeared on|smeared grey|coated (?:all|with))\b/, 'journal-transfer', 3),
  where(/\b(?:one side only|down one side|bright side|polished on one side|only one arc|on one arc)\b/, 'journal-one-side', 2),
  say(/\b(?:oval(?: by)?|out of round|egg shaped)\b/, 'journal-oval', 2),
  say(/\b(?:taper(?:ed)?|barrel(?:led| shaped)|hour ?glass|waisted)\b/, 'journal-form', 2),
  say(
    /\b(?:crack(?:ed)? (?:at|in|from|along) the (?:fillet|radius)|fillet crack|crack from the (?:oil )?hole|break runs|crank(?:shaft)? (?:is )?(?:broken|in two|snapped|cracked)|smooth and fine|beach marks|tree rings|thumbnail)\b/,
    'fillet-crack',
    4,
  ),
  say(/\b(?:milky shadow|haze|hazy|frosting on the (?:pin|journal))\b/, 'journal-haze', 1),
  // Thrust
  say(/\b(?:both thrust faces worn|worn both sides|both (?:sides|faces) worn|even(?:ly)? polished)\b/, 'thrust-both', 2),
  say(
    /\b(?:(?:one|rear|front) (?:thrust )?(?:face|side|washer) (?:wiped|gone|worn|copper|down to steel)|wiped on one side)\b/,
    'thrust-wiped',
    3,
  ),
  // Rolling bearings
  say(/\b(?:cage (?:broken|in pieces|gone)|broken cage)\b/, 'cage-failure', 4),
  say(/\b(?:spall\w*|flaked race|pitted race|pits in the race)\b/, 'race-spalling', 3),
  say(/\b(?:(?:rollers|needles|races?) (?:blue|blued|straw|dry)|dry (?:rollers|needles|race)|straw to blue)\b/, 'race-blueing', 3),
  // Pistons
  where(
    /\b(?:four corners?|four points?|corners by the pin|at all four corners|either side of the pin|by the pin)\b/,
    'four-corner-scuff',
    3,
    RUBBED,
  ),
  where(
    /\b(?:all (?:the way )?round|full round|no face left smooth|hardly a face untouched|on every side)\b/,
    'full-round-scuff',
    3,
    RUBBED,
  ),
  where(/\b(?:thrust (?:side|face)s? only|on the thrust (?:side|face)|load side of the skirt)\b/, 'thrust-scuff', 2, RUBBED),
  say(
    /\b(?:diagonal(?:ly)?|corner to corner|front (?:end |top )?above the pin|above the pin (?:at|on) one|cocked|square no longer|top (?:land )?at the front)\b/,
    'diagonal-skirt',
    2,
  ),
  where(/\b(?:exhaust (?:side|face|port side) (?:only|torn|scuffed|smeared|scored))\b/, 'exhaust-side-scuff', 3, RUBBED),
  where(
    /\b(?:intake (?:side|face) (?:just )?as (?:bad|torn)|both port (?:sides|faces)|inlet and exhaust (?:side|face)s?)\b/,
    'both-ports-scuff',
    3,
    RUBBED,
  ),
  where(
    /\b(?:(?:middle|bottom|lower|upper) (?:third|half|part|end)|half ?way (?:down|up)|at one height|mid(?:dle)? (?:of the )?bore|bright band all round)\b/,
    'mid-bore-scuff',
    2,
    RUBBED,
  ),
  say(
    /\b(?:pepper(?:ed|ing)?|frost(?:ed|ing)?|sand ?blasted|blasting gun|pecked|pecking|like a blasting|little holes with lips)\b/,
    'crown-pepper',
    2,
  ),
  say(
    /\b(?:(?:land|half moon of the land) (?:is |are |was )?(?:broken|cracked|out|gone|missing|snapped)|ring lands? (?:broken|gone|cracked)|broken lands?|lands? cracked)|\blands?\b[^.;]{0,40}\b(?:is out|out and|cracked|broken|gone|missing)\b/,
    'crown-pepper',
    3,
  ),
  say(/\b(?:melted|burnt? (?:through|a hole)|eaten away|molten)\b/, 'crown-melt', 4),
  say(
    /\b(?:kissed|valve (?:print|mark|kiss)|touch(?:ed)? (?:a |the )?(?:valves?|head|pistons?)|all dents|struck|hit the head|dents?|impressions?|hammered all over|half moons|bruised|nicks?)\b/,
    'crown-strike',
    2,
  ),
  say(/\b(?:oily crown|crown (?:is |was )?(?:wet|oily)|wet and shiny)\b/, 'crown-wet', 2),
  say(/\b(?:fuel wash(?:ed)?|washed (?:clean )?(?:by|of)|wall dry and bright|clean where the fuel)\b/, 'bore-washed', 2),
  say(
    /\b(?:dark (?:below|under(?:neath)?|underside)|underside (?:is |was )?(?:black|dark|burnt)|small ends? (?:is |are )?(?:blue|dark|black))\b/,
    'underside-dark',
    2,
  ),
  say(/\b(?:pin (?:rocks|slack|loose|tight|seized)|bell mouthed|boss (?:torn|worn|cracked)|rocks fore and aft)\b/, 'pin-boss-worn', 2),
  say(/\b(?:carbon (?:wedge|ridge|jacking))\b/, 'carbon-wedge', 2),
  // Rods
  say(
    /\b(?:bowed|bent(?: double)?|twisted|out of (?:line|parallel)|daylight in the middle|lean(?:s|ing) (?:to|over)|s bend|z bend|shows light in the middle|stands? lower than)\b/,
    'rod-bent',
    3,
  ),
  say(/\b(?:(?:big )?eye (?:is )?(?:blue|black)|rod (?:is |was )?(?:blue|blued|black)|blue to the neck)\b/, 'rod-blued', 3),
  say(
    /\b(?:thrown|through the (?:block|side)|in (?:two|three|four|five|six|lumps|bits)|opened like a hook|in (?:\w+ ){1,3}(?:bits|pieces|lumps)|broke(?:n)? (?:in|at) (?:two|the))\b/,
    'rod-broken',
    4,
  ),
  say(/\b(?:hole (?:in the (?:block|case|side)|the size of|you can)|window(?:ed)?|ventilated)\b/, 'block-holed', 4),
  // Rings
  say(
    /\b(?:stuck (?:fast|in)|fast in (?:hard )?carbon|rings? (?:is |are )?(?:stuck|fast|gummed|coked)|stuck rings?|gummed)\b/,
    'rings-stuck',
    3,
  ),
  say(/\b(?:rings? (?:is |are )?(?:broken|in (?:two|three|bits|pieces)|snapped)|broken rings?|in (?:two|three) bits)\b/, 'ring-broken', 3),
  say(/\b(?:butted|ends (?:touching|butted|shined from|polished together))\b/, 'ring-butted', 3),
  say(
    /\b(?:gaps? (?:wide|grown|large|big)|evenly thin|edges? (?:knife )?sharp|flops up and down|grooves? (?:bell mouthed|worn|wide)|hook (?:gone|lost)|worn to a slant|faces? dull)\b/,
    'ring-edge-lost',
    2,
  ),
  say(/\b(?:no tension|lost (?:its |their )?tension|limp|weak rings?)\b/, 'ring-tension-lost', 2),
  say(/\b(?:upside down|wrong way up|top mark down)\b/, 'ring-wrong-way', 2),
  say(/\b(?:gaps? (?:in line|lined up|aligned))\b/, 'ring-gaps-aligned', 1),
  // Bores
  say(/\b(?:glaz(?:e|ed|ing)|mirror(?: finish)?)\b/, 'bore-glaze', 2),
  say(/\b(?:ridge|lip at the top|step at the top|wear step)\b/, 'ring-ridge', 2),
  say(
    /\b(?:(?:hatch|hone(?: pattern| marks)?|honing|cross marks) (?:is |are )?(?:gone|worn off|worn away|all gone)|matt grey like ground glass|dusted)\b/,
    'hatch-gone-top',
    2,
  ),
  say(
    /\b(?:(?:clean|sponge like|deep) pits|pits? (?:on|in) the water side|pin ?holes?|go right through|holed from the water)\b/,
    'bore-pitting',
    3,
  ),
  say(/\b(?:cracked (?:bore|liner|barrel)|crack in the (?:bore|liner|wall)|liner (?:flange )?cracked)\b/, 'bore-crack', 4),
  say(/\b(?:alloy (?:stuck|on it) (?:on|in)|strips? of alloy|scuff band|stuck on (?:it|in strips))\b/, 'bore-scuff-band', 3),
  say(/\b(?:never honed|no cross ?hatch|turned and not honed|fine rings like a (?:screw|thread)|no cross marks)\b/, 'never-honed', 2),
  say(
    /\b(?:rings? (?:of rust|where the (?:piston )?rings (?:stood|sat))|tide mark|water line|rust tear|rust rings?|rust band|brown rings)\b/,
    'bore-rust',
    1,
  ),
  // Head
  say(
    /\b(?:fire ring (?:is )?(?:black|burnt|pushed|lifted)|(?:black|grey|burnt) (?:track|channel)|track to the|blown (?:through|between)|burnt through|gasket (?:blown|gone|leak\w*)|pushed outward)\b/,
    'gasket-leak',
    3,
  ),
  say(/\b(?:warped|not flat|out of flat)\b/, 'deck-low', 2),
  say(/\b(?:steam clean(?:ed)?|cleaner than the others)\b/, 'steam-cleaned', 2),
  say(/\b(?:head (?:is )?cracked|crack (?:between|in) the (?:head|seats?|valves?))\b/, 'head-crack', 3),
  say(
    /\b(?:packed (?:hard |solid )?(?:with|full)|caked|fins (?:blocked|full|packed|not to be seen)|half the gaps shut|missing piece|scale thick|impeller (?:gone|bare|slack))\b/,
    'cooling-fault',
    3,
  ),
  say(/\b(?:no shim|shim missing|liner (?:low|sunk))\b/, 'liner-sunk', 2),
  // Valve gear
  say(/\b(?:valve (?:head )?(?:is )?(?:off|dropped|broken)|head off|dropped valve)\b/, 'valve-battered', 4),
  say(/\b(?:bent valve|valve(?:s)? (?:is |are )?bent|stem is bent)\b/, 'valve-bent', 3),
  say(/\b(?:burnt valve|valve (?:is )?burnt|seat (?:ring )?(?:burnt|moves|loose)|guttered)\b/, 'valve-burnt', 3),
  say(
    /\b(?:guides? (?:is |are )?(?:worn|slack|loose|stands)|(?:stems?|stub)[^.;,]*(?:slack|wobbles?|loose)|stands about|further out of the head)\b/,
    'guide-leak',
    2,
  ),
  say(
    /\b(?:^flat|(?:worn|gone|run) flat|lobe(?:s)? (?:is |are )?(?:flat|gone|rounded|worn)|flat lobe|nose (?:gone|worn)|tips? (?:dull|worn|rough\w*))\b/,
    'lobe-flat',
    3,
  ),
  say(/\b(?:dished|pitted (?:face|foot|follower|lifter)|pin ?pricks?|skated|flats? on the roller)\b/, 'follower-pitted', 2),
  say(/\b(?:push ?rod (?:is )?(?:bent|slightly bent|worn)|rocker (?:worn|knocked)|bent push ?rod)\b/, 'pushrod-worn', 2),
  say(
    /\b(?:one tooth (?:out|apart|late|early)|marks? (?:one|two|a) (?:tooth|teeth)|jumped|timing slipped|cam late|cam bolts?[^.;,]*loose|turned with the fingers)\b/,
    'cam-bolt-loose',
    2,
  ),
  say(
    /\b(?:chain (?:is )?(?:stretched|slack|long)|guides? (?:worn|broken) (?:through|off)|slack chain|backlash up)\b/,
    'chain-stretched',
    2,
  ),
  say(/\b(?:teeth (?:gone|stripped|broken|beaten)|chain (?:broken|snapped)|belt (?:broken|snapped|stripped))\b/, 'timing-broken', 3),
  // Oil side
  say(/\b(?:pump (?:is )?(?:seized|locked)|drive (?:sheared|broken|stripped)|sheared (?:shaft|key))\b/, 'pump-seized', 4),
  say(
    /\b(?:relief (?:valve )?(?:is |was )?(?:stuck|jammed|sticking)|stuck open|held open|piston (?:stuck|jammed) (?:open|half))\b/,
    'relief-stuck',
    3,
  ),
  say(/\b(?:(?:screen|strainer|gauze|pick ?up) (?:is |was )?(?:choked|blocked|half blocked|covered|full))\b/, 'screen-choked', 3),
  say(/\b(?:(?:pick ?up|suction pipe) (?:is |was )?(?:cracked|loose|split|off)|o ring (?:missing|split|flat))\b/, 'pickup-leak', 3),
  say(/\b(?:bypass (?:open|stuck)|(?:filter|media|paper|core) (?:collapsed|burst|torn)|no filter (?:in|fitted))\b/, 'filter-bypassed', 3),
  say(
    /\b(?:cork|corked|plugged|stops on something|hole (?:blocked|plugged|shut up)|wire (?:stops|goes in)|drilling (?:blocked|shut))\b/,
    'gallery-blocked',
    3,
  ),
  say(/\b(?:sludge|black tar|tar\b|mud in the galler)/, 'gallery-sludge', 2),
  say(/\b(?:jets? (?:blocked|broken|missing|bent)|missing jet)\b/, 'jet-fault', 3),
  say(/\b(?:(?:dipper|slinger|finger|paddle)s? (?:is )?(?:missing|broken|gone|off|turned))\b/, 'dipper-broken', 3),
  // Debris
  say(
    /\b(?:copper|bronze|yellow|white metal|bearing metal|lead) (?:flakes?|dust|flash|glitter|sliver|particles|flitter|specks?)\b|\b(?:bright copper flake|copper in (?:it|the))\b/,
    'copper-flake',
    2,
  ),
  say(
    /\b(?:bright|silver|alloy|aluminium|aluminum) (?:silver )?(?:lumps?|flakes?|dust|hairs?|slivers?|bits|crumbs)\b|\bnon ?magnetic\b|\bfine alloy\b|\bnot magnetic\b/,
    'bright-aluminium',
    2,
  ),
  say(/\b(?:steel (?:slivers?|grit|hairs?|splinters?|chips?)|picks up crumbs)\b/, 'steel-sliver', 2),
  say(/\b(?:fuzz|fur on the magnet|paste on the magnet)\b/, 'magnetic-fuzz', 1),
  say(/\b(?:sealer|sealant|silicone|paste|jointing|gasket goo|rubbery)\b/, 'sealant', 2),
  say(/\b(?:casting sand|core sand)\b/, 'casting-sand', 2),
  say(
    /\b(?:grit(?:ty)?|blast(?:ing)? (?:beads?|media)|glass beads?|gritty in the fingers|dust that crunches|red brown dust|silt)\b/,
    'grit',
    2,
  ),
  say(/\b(?:grey (?:paste|slivers?)|burnt oil)\b/, 'grey-paste', 2),
  say(/\b(?:plastic (?:bits|pieces|chips|of)|bits of (?:plastic|guide))\b/, 'timing-plastic', 2),
  say(/\b(?:milky|emulsion|mayonnaise|cream\b|grey cream|milkshake|coffee with milk)/, 'milky', 2),
  say(/\brust(?:y)? mud\b/, 'rust-mud', 2),
  // What a neutral wording does not reach
  say(/\b(?:diagonal edges?|corner to corner on (?:one|the) half|opposite corners of the half)\b/, 'diagonal-edge', 2),
  say(/\b(?:both parting lines|at both joints of (?:one|the) half|pinched at the joints|too much (?:crush|nip))\b/, 'excess-crush', 2),
  say(
    /\b(?:(?:polished|bright|worn|brighter)[^.;,]* (?:down|on|along) (?:the )?(?:one|same) side(?: only)?|one arc of the (?:pin|journal)|part of its round|a third of the round)\b/,
    'one-arc-journal',
    2,
  ),
  say(/\b(?:bearing metal|copper|lining) on the (?:cheek|web|crank cheek)\b/, 'thrust-transfer', 3),
  say(/\b(?:brinell\w*|row of dents|dents at (?:ball|roller) pitch|standing marks)\b/, 'race-brinell', 2),
  say(/\b(?:skirt print|print of the skirt|coating worn|coating (?:is )?through)\b/, 'skirt-print', 1),
  say(
    /\b(?:piston (?:is )?(?:cracked|broken|in two|in pieces)|skirt (?:is )?(?:cracked|broken off|off)|cracked (?:skirt|piston)|broken skirt)\b/,
    'piston-broken',
    4,
  ),
  say(/\b(?:crown (?:is )?washed|washed clean (?:crown|on top))\b/, 'crown-washed', 2),
  say(/\b(?:flutter\w*|land (?:hammered|beaten) by the ring)\b/, 'flutter-broken-land', 3),
  say(/\b(?:blue (?:band|mark)|heat mark) (?:at|near|by) the (?:deck|top)\b/, 'bore-heat', 2),
  say(/\bscratch (?:across|over) the (?:fire ring|gasket|sealing)\b/, 'fire-ring-scratch', 2),
  say(
    /\b(?:coked|carboned|caked) (?:ports?|valves?)|ports? (?:are |is )?(?:coked|caked|full of carbon)|valve backs coated\b/,
    'port-deposits',
    2,
  ),
  say(/\b(?:clean break|broke clean|snapped clean) (?:at|under|of) the (?:head|stem|valve)\b/, 'valve-clean-off', 4),
  say(
    /\b(?:(?:spring|retainer|keeper|collet|cotter)s? (?:is |are )?(?:broken|cracked|pulled through|worn|off)|broken (?:valve )?spring)\b/,
    'retainer-worn',
    3,
  ),
  say(
    /\b(?:(?:follower|lifter|tappet|bucket)s? (?:is |are )?(?:cracked|chipped|broken|split)|broken (?:lifter|follower|tappet))\b/,
    'follower-cracked',
    3,
  ),
  say(/\b(?:swarf|chips|sand|machining chips) in the (?:galler(?:y|ies)|oil ?ways?|drillings?)\b/, 'gallery-swarf', 3),
  say(/\b(?:metal|debris|bits|flakes) in the (?:oil )?cooler|cooler (?:full of|holds|held) (?:metal|debris|bits)\b/, 'cooler-debris', 2),
  say(/\b(?:pieces of ring|bits of ring|ring (?:pieces|fragments|bits))\b/, 'ring-pieces', 3),
  say(/\b(?:uneven(?:ly)? (?:tight|torque)|one (?:tight|slack) one (?:slack|tight)|not the same pull)\b/, 'torque-uneven', 2),
  say(/\b(?:locking compound|thread ?lock\w*|sealer on the thread|glue on the threads?)\b/, 'thread-locked-wrong', 1),
  say(/\b(?:oval half ?way|oval in the middle|oval at mid(?:dle)? height|barrelled bore)\b/, 'mid-bore-oval', 2),
  // Fasteners
  say(/\b(?:stretched|necked|drawn thin|longer than)\b/, 'bolt-stretched', 3),
  say(
    /\b(?:two fingers|finger tight|by (?:hand|the fingers)|came off with (?:two )?fingers|no torque|turned (?:with|by) the fingers|backed off|worked loose|loose (?:bolt|nut)|(?:bolt|nut)s? (?:was |were )?loose)\b/,
    'bolt-loose',
    3,
  ),
  say(/\b(?:rest lines|beach marks|tree rings|growth rings|(?:smooth|dark)[^.;]* (?:curved|fine) lines)\b/, 'bolt-broken', 4),
  say(/\b(?:snapped|bolt(?:s)? (?:is |are )?broken|broken (?:bolt|stud)|sheared (?:bolt|stud))\b/, 'bolt-broken', 4),
  say(
    /\b(?:lip faces? (?:outwards?|the wrong way)|seal (?:the )?wrong way|o ring (?:pinched|shaved)|sliver shaved|two washers|sealant on top of|gasket (?:wrong|missing)|wrong gasket|left out)\b/,
    'seal-misfit',
    2,
  ),
  say(/\b(?:(?:damper|balancer) (?:is |ring |rubber )?(?:loose|slipped|broken|perished)|rubber (?:perished|slipped))\b/, 'damper-loose', 2),
  say(
    /\b(?:(?:rubber )?blocks? (?:crumbed|crumbled|gone|worn|shiny)|rubber (?:gone|crumbed|crumbled)|coupling (?:is )?(?:loose|worn|broken))\b/,
    'coupling-worked',
    2,
  ),
];

/** Wordings of neutral sights. */
export const NEUTRAL_SAYINGS: readonly SightWord[] = [
  say(
    /\b(?:copper (?:bright|showing|shows?|through|just through|blushing|beginning|visible|freckles|all over)|(?:down|worn) to (?:the )?copper|through to (?:the )?copper|copper\b|overlay (?:gone|half gone|thin|off)|gr[ae]y (?:gone|worn)|layer (?:gone|off)|to the steel|steel (?:showing|bare)|bare steel|lining (?:gone|worn))\b/,
    'sight-layer-gone',
    2,
  ),
  say(
    /\b(?:nail (?:catches|catching|hangs|can hang)|catch(?:es)? (?:a |the )?nail|hang a nail|felt with (?:a |the )?nail)\b/,
    'sight-scored',
    3,
  ),
  say(
    /\b(?:scor(?:ed?|es|ing)|scratch(?:ed|es|y)?|(?<!\b(?:boring|bar|tool|machining|turning|hone|grinding) )lines|lined|grooved?|grooves|streaks?|tramlines|ploughed|upright (?:lines|marks|scratches)|rings\b(?! (?:free|whole|gaps?)))/,
    'sight-scored',
    2,
  ),
  say(
    /\b(?:scuff(?:ed|s|ing|ed up)?|torn(?! (?:away|off|down|out))|nipped|seized|rub(?:s|bed|bing)?|hard rub|dragged|drag marks|galled)\b/,
    'sight-scuffed',
    2,
  ),
  say(/\b(?:pick(?:ed)? ?up|transfer(?:red)?|stuck on|welded|smeared over|alloy stuck|metal stuck)\b/, 'sight-picked-up', 3),
  say(/\b(?:smear(?:ed|s|y)?|shiny smear|mushed)\b/, 'sight-smeared', 2),
  say(/\b(?:spread|thinned|squeezed|squashed|pushed out)\b/, 'sight-spread', 3),
  say(/\b(?:pit(?:s|ted|ting)?|pocked|pock marked|pin pricks|pinpricks)\b/, 'sight-pitted', 2),
  say(/\b(?:flak(?:ed|es|ing)|chipped|chip|crumbl\w+|breaking up|spalled)\b/, 'sight-flaked', 2),
  say(/\b(?:dent(?:s|ed)?|bruise[sd]?|nick(?:s|ed)?|bump|impression)\b/, 'sight-dented', 2),
  say(/\b(?:crack(?:s|ed|ing)?|split)\b/, 'sight-cracked', 3),
  say(
    /\b(?:broke(?:n)?|smashed|shattered|in (?:\w+ ){0,3}(?:bits|pieces|lumps)|to (?:scraps|pieces)|scrap(?! (?:yard|dealer|bin))|sheared(?: off| across)?|snapped|chewed(?! (?:bedding|with))|fractured|failed)\b/,
    'sight-broken',
    4,
  ),
  say(/\b(?:hammered|battered|beaten|struck|hit|kissed|clouted|bashed)\b/, 'sight-struck', 2),
  say(/\b(?:hole (?:through|in)|holed|crown through|knocked through|punched through)\b/, 'sight-holed', 4),
  say(/\b(?:bent|bowed|twist(?:ed)?|kinked)\b/, 'sight-bent', 3),
  say(/\b(?:fret(?:ted|ting)?|brown (?:powder|dust)|red (?:powder|dust)|(?:brown )?black specks)\b/, 'sight-fretted', 2),
  say(
    /\b(?:blue[ds]?|bluish|blueing|straw|brown|black(?:ened)?|dark(?:ened)?|discolou?red|tinted?|scorched|cooked|burnt brown|charred)\b/,
    'sight-dark',
    2,
  ),
  say(/\b(?:dry|bone dry|no oil film|no film)\b/, 'sight-dry', 2),
  say(/\b(?:rust(?:y|ed|s)?|stain(?:ed|s)?|corroded|etched|rust bloom)\b/, 'sight-rusty', 1),
  say(/\b(?:sludge|carbon(?:ed)?|coke[ds]?|crust|deposits?|scale(?:d)?|gum(?:med)?|coated|enamel|lacquer|varnish)\b/, 'sight-deposits', 1),
  say(/\b(?:blocked|choked|plugged|bunged|clogged|packed|shut)\b/, 'sight-blocked', 3),
  say(/\b(?:loose|slack|rattles?|wobbles?|rocks?|play|flops|had come undone|undone by itself|worked undone)\b/, 'sight-loose', 2),
  say(/\b(?:moved|shifted|crept|walked)\b/, 'sight-shifted', 2),
  say(/\b(?:missing|gone|torn (?:away|off)|not there|lost|fell out|left out)\b/, 'sight-missing', 3),
  say(/\b(?:wrong(?:ly)?|back to front|upside down|reversed|swapped|mixed up|exchanged|pressed in crooked)\b/, 'sight-misfitted', 2),
  say(/\b(?:leak(?:s|ed|ing)?|weep(?:s|ing)?|blow(?:s|ing|n)? (?:by|past|through)|drips?)\b/, 'sight-leaking', 2),
  say(/\b(?:burnt|burned|melted|eroded by flame|guttered)\b/, 'sight-burnt', 3),
  say(/\b(?:washed)\b/, 'sight-washed', 2),
  say(/\b(?:burnished|polished (?:up|smooth)|shined up|mirror bright)\b/, 'sight-polished', 1),
  say(
    /\b(?:worn|wear|dished|flats on|hollowed|worn thin|thinner(?! one)|broad|oval|bell mouthed|narrowed|bright all (?:the way )?round|(?:no )?boring marks (?:left|gone|nearly gone))\b/,
    'sight-worn',
    2,
  ),
  say(
    /\b(?:bright (?:patch|spot|strip|stripe|band|crescent|line|round)|shiny (?:patch|spot|strip|smear)|shine[sd]?|shiny|dull patch|spoon|patch|spot|strip|shinier)\b/,
    'sight-bright-patch',
    1,
  ),
  say(/\b(?:flakes?|flitter|glitter|slivers?|metal|crumbs|particles|dust|swarf|bits|lumps|chips|iron)\b/, 'sight-metal', 2),
  say(/\b(?:grit|sand|dirt|dust|beads?|silt|debris|foreign|specks?)\b/, 'sight-particles', 2),
];

/** Wordings of a part that is as it should be; what they deny by name where they say what they looked for. */
export const SOUND_SAYINGS: ReadonlyArray<{
  readonly says: RegExp;
  readonly denies?: string;
  /** It says so only of parts that can show what it denies. */
  readonly only?: true;
}> = [
  { says: /\b(?:straight|true|square)\b/, denies: 'sight-bent' },
  {
    says: /\b(?:whole(?! (?:height|length|width|way|face|skirt|wall|round|lot|thing|engine|of|loaded))|in one piece|unbroken|all there|complete)\b/,
    denies: 'sight-broken',
  },
  {
    says: /\b(?:(?<!(?:scuff|crack|rust|dust|wear|damage) )free(?:ly)?|clear|runs? through|open|drop round|free to move)\b/,
    denies: 'sight-blocked',
  },
  {
    says: /\b(?:tight(?:ened)?|all at the figure|at the figure|tight in|holds?(?: \d+)?|no leak|tangs? home|right crush)\b/,
    denies: 'sight-loose',
  },
  { says: /\b(?:flat|lies down)\b/, denies: 'deck-low', only: true },
  {
    says: /\b(?:hon(?:e|ing)(?: pattern| marks)? (?:still |is )?(?:clear|fresh|there|as|showing|good|even)|still show(?:s|ing)? (?:the )?honing|cross marks (?:even|good)|good cross marks|clear as the day)\b/,
    denies: 'hatch-gone-top',
  },
  {
    says: /\b(?:even(?:ly)?(?: dull| satin| plain)? gr[ea]y|grey and (?:even|sound)|plain grey|like new|as new|good|sound|normal|clean|fair|ok(?:ay)?|perfect|healthy|untouched|unmarked|spotless|smooth|as (?:it|they) (?:should(?: be)?|were|came)|light even polish|even polish|ordinary|in order|in good order|right|serviceable|nothing (?:to (?:see|say|speak|feel|report)|amiss|wrong|else)|tool marks|boring marks still plain|not worn|looks well|wet|bright and smooth|normal colou?r|colou?r normal|matched?|numbers match|as it should|bedding evenly|even|still there|in place|all in place|standard|shining|bright|polished|correct|equal|fine\b(?! (?:lines?|dust|hair|grit|pits|flour)))\b/,
  },
];

/** What describes and decides nothing: sizes, colours, sounds, times and what was done. It stays with the line. */
export const DESCRIBED =
  /\b(?:(?:the )?size of|as big as|big as|a (?:third|quarter|half) of|(?:hand|finger|thumb)\w* (?:high|wide|deep|nails?)|fingernails? width|thumbnails? worth|width|full width|inches up|at all angles|all from one|black|gr[ea]y|dark|brown|yellow|green|white|blue|clear|oily|warm|hard|soft|fresh|old|years ago|long ago|been there|dull|sour|stings|smells?|slow|stiff|coarse|curled|patchy|shape|knock(?:s|ed)?|rattl\w*|thump|bang|clack|noise|blew|shut down|stopped|stood|started|starter|said|says|thought|thinks|theory|heard|note|painted|welded|glued|filed|cut away|drilled|lashed|smeared outside|counted|signed|staked|unknown|could not be (?:read|seen)|no(?:thing)? (?:break left |shape left|reading it)|nothing (?:left to|to be) (?:read|measure)|not (?:found|done|to be felt|written down|determined)|same|alike|matching|other way|one way|rest of|almost|nearly|hardly|less|deeper|lower worse|edges turned (?:over|outwards)|burred|rounded|new)\b/;

/** Colours and shines that are as they should be: they are no sights. */
export const ORDINARY =
  /\b(?:ordinary|normal|usual|plain|proper|healthy|light even|even) (?:even )?(?:brown|tan|gr[ea]y|colou?r|black|shine|polish|wear|satin|worn)\b/;

/** How bad, in words, where no grade is written. */
export const GRADE_SAYINGS: ReadonlyArray<{ readonly says: RegExp; readonly grade: 1 | 2 | 3 | 4 }> = [
  { says: /\b(?:destroyed|in pieces|to scraps|fused|beyond|snapped|wrecked|scrap)\b/, grade: 4 },
  { says: /\b(?:bad(?:ly)?|heav(?:y|ily)|deep(?:ly)?|torn|severe(?:ly)?|nail|gone)\b/, grade: 3 },
  {
    says: /\b(?:slight(?:ly)?|faint(?:ly)?|light(?:ly)?|hair ?lines?|a hair|a (?:touch|little|bit|hint|trace)|just|beginning|barely|hardly|start(?:ing)? of|first signs?|few)\b/,
    grade: 1,
  },
];
