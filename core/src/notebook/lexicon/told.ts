/** What a wording says of the engine as a whole: a feature of the cause table, there or not. */
export interface ToldWord {
  readonly says: RegExp;
  readonly feature: string;
  /** False where the wording itself denies it. */
  readonly present: boolean;
  /** It counts only in a line about this. */
  readonly about?: RegExp;
}

const told = (feature: string, there: RegExp, not?: RegExp, about?: RegExp): ToldWord[] =>
  [...(not ? [{ says: not, feature, present: false }] : []), { says: there, feature, present: true }].map((t) =>
    about ? { ...t, about } : t,
  );

const TIMING = /\btiming|\bbelt\b|\bchain\b|\bwheels?\b|\bcam\b|\bvalve shuts/;
const OIL = /\b(?:oil|level|dipstick|stick|litres?|sump|drained)\b/;
const TURNING = /\bturn(?:s|ing|ed)?\b|\bcrank(?:shaft)? was stiff|\bgoes round\b|\bseized|\blocked/;

/** History, fluids and checks in words. A denial that is a wording of its own stands before what it denies. */
export const TOLD_SAYINGS: readonly ToldWord[] = [
  // Oil
  ...told(
    'fluid.level-low',
    /\b(?:oil (?:was )?(?:low|gone|empty|down)|level (?:was |is )?(?:very )?(?:low|down)|no oil (?:on|left|in (?:it|the engine|the sump|her))|(?:nothing|none) on the (?:stick|dipstick)|below (?:the )?(?:min|bottom|low|mark)|low by|ran (?:it )?(?:out of|low on) oil|litres? (?:short|low)|only [\d.]+ (?:litres?|l) (?:came out|drained)|bone dry sump)\b/,
    /\b(?:(?:oil )?level(?: is| was)? (?:right|ok|good|correct|normal|fine)|oil (?:level )?(?:right|full|correct)|on (?:the )?(?:full )?mark|right on the|between (?:the )?marks|full of oil|to the (?:full )?mark|at the mark|mid , correct|oil : full|never let it drop)\b/,
    OIL,
  ),
  ...told(
    'fluid.level-high',
    /\b(?:over ?full|above (?:full|the (?:full|top|max))|over the (?:full|top|max)\w*(?: mark)?|level (?:\w+ ){0,4}(?:rising|goes up|going up|went up|risen|up)|rising (?:a little|level)|makes oil)\b/,
    undefined,
    OIL,
  ),
  ...told(
    'fluid.stood-low',
    /\b(?:baked (?:brown |black )?(?:ring|line|edge)|(?:brown|black) baked ring|oil line (?:baked|low)|tide mark of oil|dry (?:brown )?skin|under the clear oil|not one drop of the)\b/,
  ),
  ...told(
    'told.topped-up-after',
    /\b(?:topped (?:it |her )?up (?:in|before|after|since)|oil (?:put|poured|filled) in (?:after|since|before it came)|filled (?:it )?up (?:after|before it came|since))\b/,
  ),
  ...told(
    'fluid.milky',
    /\b(?:milky|emulsi\w+|mayonnaise|grey cream|cream(?:y)? oil|milkshake|water in (?:the )?(?:oil|sump)|(?:drop|spoon|jug|jugs) of water|water (?:came )?first|water at the drain)\b/,
    /\bno (?:cream|mayonnaise|water (?:or fuel )?in (?:the )?(?:oil|sump)|water drops?|emulsion)\b|\b(?:oil )?clear , no cream\b|\bquiet , no spit\b/,
  ),
  ...told(
    'fluid.fuel-smell',
    /\b(?:smells? of (?:fuel|petrol|diesel|the pump|plain petrol)|thin(?: as water)?,? (?:and )?smell\w*|runs off the stick|like water|fuel in (?:the )?(?:oil|sump)|diluted|dilution|petrol in the oil)\b/,
    /\b(?:no fuel in|no water or fuel in|not fuel|smells? of hot oil)\b/,
  ),
  ...told('fluid.black-sludge', /\b(?:sludge|black (?:tar|as tar|varnish)|tar a millimet\w+|thick as tar|black , slow)\b/),
  ...told(
    'fluid.coolant-low',
    /\b(?:coolant (?:low|gone|lost|missing)|radiator (?:half )?empty|half empty|water (?:low|gone)|lost (?:its )?(?:water|coolant)|header tank (?:empty|low)|top(?:ped|ping) (?:up )?(?:the )?(?:radiator|water|coolant)|radiator topped)\b/,
    /\b(?:water side full|coolant (?:full|right|level right|clean)|radiator full)\b/,
  ),
  ...told('fluid.grey-paste', /\b(?:grey paste|paste on the magnet|grey sludge)\b/),
  ...told(
    'fluid.glitter',
    /\b(?:glitter(?:ing|y)?|metal in (?:the )?oil|metallic (?:sheen|oil)|sparkl\w+|gold dust|flitter)\b/,
    /\b(?:not a speck|no (?:metal|glitter)|clean to the finger|nothing on the (?:magnet|plug))\b/,
  ),
  ...told(
    'fluid.oil-in-coolant',
    /\b(?:oil (?:film )?(?:in|on) the (?:coolant|water|radiator|header))\b/,
    /\bno oil in the (?:radiator|coolant|water|header)\b/,
  ),
  // Pressure
  ...told(
    'told.pressure-normal',
    /\b(?:pressure (?:was |is )?(?:normal|good|right|usual|up|still up|fine|ok)|usual \d+(?:\.\d+)? bar|gauge stood|pressure still up|bar (?:all the time|to the (?:end|last))|right to the end|gauge (?:normal|right) )\b|\bpressure[^.;]*\b(?:good|normal)\b/,
  ),
  ...told(
    'told.pressure-lost',
    /\b(?:pressure (?:fell|dropped|went|lost|gone)(?: to (?:nothing|zero))?|lost (?:all )?(?:oil )?pressure|(?:red|oil) (?:light|lamp) (?:came )?on|lamp came on|lamp (?:stayed )?on|zero pressure|gauge (?:fell|dropped) to)\b/,
  ),
  ...told(
    'told.pressure-low-hot',
    /\b(?:pressure (?:has )?(?:sunk|dropped|sinking|falling|low)(?: (?:when )?(?:hot|at idle|year))?|low (?:oil )?pressure|flicker\w*|lamp flick\w*|red lamp came on once)\b/,
  ),
  // How it came about
  ...told(
    'told.overheated',
    /\b(?:overheat\w*|ran hot|boiled|boiling|steam(?:ed|ing)?\b(?! clean)|needle in the red|temperature (?:high|up|over)|cooked (?:it|her))\b/,
    /\b(?:never (?:ran )?hot|temperature (?:normal|right)|never overheat\w*)\b/,
  ),
  ...told(
    'told.recent-work',
    /\b(?:since (?:last work|rebuil\w+|re ?bore|re ?ring\w*|overhaul\w*|build|the rebore|re ring)|(?:re ?built|overhaul(?:ed)?|re ?ringed|re ?bored|re ?honed|opened|reground|done) (?:by|last|recently|in|from|\d)|just rebuilt|(?:crank|block) ground by|built by|full overhaul|shells (?:done|renewed|replaced|changed)|heads? (?:off|done) (?:last|recently)|taken off and put back|all parts new|garage (?:before|did)|another shop|mobile man|new (?:shells|(?:spark )?plugs)|rebore)\b/,
    /\b(?:nobody has ever been inside|never (?:been )?(?:opened|apart|touched)|never had (?:the )?head off)\b/,
  ),
  ...told(
    'told.after-start-up',
    /\b(?:(?:at|from|on) (?:the )?(?:very )?first (?:start|drive|run)|first (?:start|fire up)|within minutes|minutes after (?:the )?(?:start|rebuild)|on first running|\d+ (?:km|miles|h|hours|minutes) (?:since|after) (?:the )?(?:rebuild|rebore|overhaul|work|build))\b/,
  ),
  ...told(
    'told.ran-on',
    /\b(?:ran on|run on|drove (?:it )?(?:on|home|back)|kept (?:going|running|driving)|carried on|tried (?:once )?(?:more|again)|freed and ridden on|went on(?! (?:the|a) trailer)|(?:another|some) (?:\d+ )?(?:minutes|miles|km|hours) (?:after|more)|clattered)\b/,
    /\b(?:shut (?:it |her )?(?:off|down) at once|stopped at once|switched off at once)\b/,
  ),
  ...told(
    'told.over-speed',
    /\b(?:over ?rev\w*|over ?speed\w*|missed (?:a )?gear|past the red|ran away|runaway|wrong gear)\b/,
    /\b(?:never (?:raced|past the red|over ?revved)|no over ?rev\w*|rev(?:s)? never|tell tale (?:fitted|clear))\b/,
  ),
  ...told(
    'told.lugging',
    /\b(?:lugg\w+|labour(?:ed|ing)|pulled hard (?:from|at) low|over ?boost\w*|heavy towing|towing|in too high a gear)\b/,
  ),
  ...told(
    'told.cold-hard',
    /\b(?:hard from cold|cold and (?:hard|flat out)|straight (?:off|out) (?:from )?cold|thrashed cold|never warmed|no warm(?:ing)? up)\b/,
  ),
  ...told(
    'told.stood-long',
    /\b(?:stood (?:for|since|till|outside|\d|in)|laid up|not (?:run|used|started) (?:for|since)|sat (?:for|in)|storage|in a barn|over the winter)\b/,
  ),
  ...told(
    'told.service-overdue',
    /\b(?:oil (?:change )?(?:never|not|long) (?:changed|overdue)|no (?:bill|record|receipt)s? (?:for|of) (?:oil|(?:a )?service)|overdue|stretched to|never changed|same oil|oil (?:used to be )?changed at \d+ \w+ , stretched)\b/,
    /\b(?:oil (?:and filter )?(?:had been )?changed (?:every|same|on the date|each|in time|\d+|last)|serviced (?:on time|regularly|before)|receipts|full history|invoice seen|service book)\b/,
  ),
  ...told(
    'told.slope-heel',
    /\b(?:on (?:a |the )?slopes?|steep slopes?|hill ?side|heel(?:ed|ing)|on its side|long (?:right|left) ?handers?|(?:in|through|hard) corners|cornering|track ?days?|sticky tyres|circuit|banking|steep)\b/,
    /\blawn is level\b/,
  ),
  ...told('told.knock-under-load', /\b(?:pink(?:ed|ing|s)|pinging|detonat\w+|knock(?:ed|ing)? (?:under load|on the hill|when pulling))\b/),
  ...told(
    'told.premix-missed',
    /\b(?:(?:forgot|no|without) (?:the )?oil in the (?:fuel|petrol|mix)|straight (?:petrol|fuel)|plain petrol|mower can|leaves nothing|water clear|dries off the paper and leaves nothing|fuel without oil)\b/,
    /\b(?:one to (?:fifty|twenty five|forty|thirty two|twenty)|always (?:mixed|one to)|oily on the fingers|leaves a fat ring|mixed (?:right|correctly)|smells of two ?stroke)\b/,
  ),
  ...told(
    'told.axial-load',
    /\b(?:converter (?:ballooned|pushed|tight)|clutch (?:held|pushed|heavy|pressure)|pushed on the crank|no end clearance|riding the clutch|gap (?:to the )?converter)\b/,
  ),
  ...told(
    'told.long-service',
    /\b(?:year by year|high (?:hours|mileage)|never (?:missed|late)|receipts[^.;]*back to the start|worn out|changed every \d+ (?:h|hours|km|miles)|(?:1\d{2}|2\d{2}|3\d{2}|[3-9]\d) ?(?:,|000)\d* (?:h|hours|miles|km)\b(?! ago))/,
  ),
  ...told(
    'told.water-in',
    /\b(?:ford|flood\w*|deep water|drowned|submerged|sucked (?:in )?water|water (?:jumped|came|shot) (?:to|out)|hydraul\w+|through (?:a |the )?(?:puddle|water)|stopped dead in)\b/,
  ),
  ...told(
    'told.failed-before',
    /\b(?:second time|again at the same|same (?:rod|main|bearing|cylinder|one) (?:as )?before|failed before|last time too|repeat)\b/,
  ),
  ...told(
    'told.earlier-debris',
    /\b(?:bits (?:left )?from (?:the )?(?:last|earlier|previous)|(?:last|earlier) failure|never flushed|cooler (?:never|not) (?:changed|flushed))\b/,
  ),
  ...told(
    'told.wrong-oil',
    /\b(?:wrong (?:grade|oil)|other (?:grade|oil)|(?:filled|ran|run) (?:with|on) compressor oil|gear oil|whatever (?:oil )?was|thin oil|mixed oils?|with what was in the boot)\b/,
    /\b(?:right grade|correct (?:grade|oil)|proper oil|best oil)\b/,
  ),
  ...told(
    'told.uses-oil',
    /\b(?:us(?:es|ed|ing) (?:a |some )?(?:litres?|oil|lots)|burn(?:s|t|ing) oil|oil use|smoke and oil|(?:litre|pint|quart)s? (?:in|a|per|every)|tops? (?:it |her )?up (?:every|weekly)|smok(?:y|es|ed|ing))\b/,
  ),
  ...told(
    'told.dusty',
    /\b(?:(?<!(?:copper|brass|bronze|metal|bright|brown|red|black|even|grey|iron|rust|alloy) )dust(?:y)?(?! , air goes)|gravel|quarry|no air (?:filter|cleaner)|air filter (?:off|missing|torn|bypassed|poor)|socks over|takes them off|silt|red brown dust)\b/,
    /\b(?:air (?:filter|box|cleaner) (?:is )?(?:clean|good|recent)|inlet tract clean|nothing behind (?:it|the filter)|no powder behind|nothing gritty behind)\b/,
  ),
  ...told(
    'told.vibration',
    /\b(?:vibrat\w+|shak(?:e|es|ing)|buzz|shudder\w*|damper (?:changed|gone|missing|went)|coupling (?:changed|new)|new (?:damper|flywheel|coupling))\b/,
  ),
  ...told(
    'told.valve-noise',
    /\b(?:tick(?:ing|ed)?|tappet noise|noisy (?:tappets|top end)|rattl(?:e|ed|ing) (?:on top|at the top)|valve noise)\b/,
  ),
  ...told(
    'told.one-cylinder-down',
    /\b(?:ran on (?:two|three|five|one|seven)|on (?:two|three|five|seven) cylinders|missing on|misfir\w+|one pot|off song|down on power|one down)\b/,
  ),
  ...told(
    'told.neglected',
    /\b(?:never (?:dipped|checked|looked at)|nobody (?:dipped|checked|looked)|ignored|got used to it|bled it and went on|all do that|neglect\w*|not emptied)\b/,
  ),
  ...told(
    'told.raised-output',
    /\b(?:tuned|re ?mapped|chip tuned|chipped (?:ecu|computer|engine)|boost (?:up|raised)|more fuel|turned up|set up from|ratio (?:and [a-z ]+)?changed|(?:never )?(?:had )?(?:ever )?pulled so well|bigger turbo|fast road|skimmed|governor (?:set|turned))\b/,
    /\b(?:never tuned|standard tune|paint on the (?:speed )?stop unbroken|limiter caps[^.;]*not touched|in its proper hole)\b/,
  ),
  ...told(
    'told.lean-signs',
    /\b(?:lean|weak mixture|pale plug|white plug|air leak|wrong jet|inlet leak)\b/,
    /\b(?:jets? right|plugs? (?:show )?(?:a )?(?:normal|tan|light tan)|carburettors? (?:clean|match)|plain light tan|tan\b)\b/,
  ),
  ...told('told.frost', /\b(?:frost(?:ed)? (?:in|over|last)|froze(?:n)?|no anti ?freeze)\b/),
  // Measured in words
  ...told(
    'measured.turning-locked',
    /\b(?:(?:will|would|does) not turn|wont turn|locked(?: solid)?|seized solid|hard against something|half a turn , then|stops hard|turns? half way|hits something|stands? still)\b/,
    /\b(?:turns? free(?:ly)?|goes round|crank(?:shaft)? turns free|free\b)/,
    TURNING,
  ),
  ...told(
    'measured.turning-tight',
    /\b(?:heavy|stiff|tight to turn|tight , even|keep it going|drag(?:s)? (?:all|even)|hard to turn)\b/,
    /\b(?:easy , even|turns? easy|free\b)/,
    TURNING,
  ),
  ...told(
    'measured.turning-notchy',
    /\b(?:notchy|once (?:a|each|per|every) (?:second )?turn|twice a turn|heavy place|tight (?:place|shove|spot)|easy heavy easy|binds at one)\b/,
    /\b(?:no (?:one )?tight (?:place|spot)|the same all round)\b/,
    TURNING,
  ),
  ...told(
    'measured.gas-in-coolant',
    /\b(?:bubbles? (?:in|in the) (?:strings|tank|header|coolant|radiator|water)|smell of exhaust|gas in the (?:coolant|water)|pressur\w+ the (?:radiator|header))\b/,
  ),
  ...told(
    'measured.wet-rise',
    /\b(?:oil (?:brings|lifts|raised?)|spoon of oil (?:brings|lifts)|wet (?:test )?(?:up|rises)|came up with oil)\b/,
  ),
  ...told(
    'measured.leak-rings',
    /\b(?:hiss at (?:the )?(?:filler|breather)|all (?:the hiss )?at the (?:filler|breather)|puff(?:s|ing) at the filler|blows into the crankcase|breath(?:es|ing) (?:like|heavily)|blow ?by)\b/,
  ),
  ...told(
    'measured.feed-hole-shut',
    /\b(?:(?:oil|feed) hole (?:is )?(?:shut|blocked|covered|not on)|hole (?:does not|not) line up)\b/,
    /\b(?:(?:oil|feed|all feed|rods) holes? (?:all )?(?:free|clear)|holes? in (?:the )?crank clear)\b/,
  ),
  ...told(
    'measured.cap-mismatch',
    /\b(?:figure \d punched|caps? (?:swapped|exchanged|the wrong way|in each others?|reversed|put back (?:wrong|by))|numbers? (?:do not|dont) (?:match|agree)|never put the numbers back|nail (?:catches|clicks) (?:on|over) a step|step at (?:the |both )?joints?)\b/,
    /\b(?:caps? (?:in order|matched|right|by number)|numbers match|caps matched by number|right marks together|numbered twice)\b/,
  ),
  ...told(
    'measured.timing-off',
    /\b(?:one tooth (?:out|apart)|marks? (?:one|two) t(?:ooth|eeth)|timing (?:out|wrong|late|early)|cam late|valve shuts[^.;]*late)\b/,
    /\b(?:timing (?:right|on (?:its|the) marks?|measured right|on its own mark)|on (?:its|the) (?:own )?marks?)\b/,
    TIMING,
  ),
  ...told(
    'measured.ignition-wrong',
    /\b(?:ignition (?:too )?(?:early|advanced|late|wrong)|too much advance|injection (?:early|late)|injection timing (?:out|wrong))\b/,
    /\b(?:ignition (?:timing )?(?:right|on the mark)|base ignition timing on|injection timing on)\b/,
  ),
  ...told(
    'measured.injector-faulty',
    /\b(?:injector[^.;,]*(?:dribbl\w+|leak\w*|wet|drip\w*|three times|glazed|stuck)|back ?flow[^.;]*(?:three|twice|high)|dribbl\w+|wet ring)\b/,
    /\b(?:injectors?[^.;]*(?:sprays? well|within|good|nicely)|injector \d sprays)\b/,
  ),
  ...told(
    'measured.cap-binding',
    /\b(?:(?:went|turned|came) free once (?:one|the)|free once one cap|eased (?:one )?cap|caps? [\d and ,]+ slackened|binds? with cap)\b/,
  ),
  ...told('measured.nose-play', /\b(?:nose (?:lifts|play|drops)|play at the nose|crank lifts)\b/, /\b(?:no play at the nose)\b/),
  ...told('measured.sample-clean', /\b(?:oil sample (?:normal|clean|good)|sample came back (?:clean|normal))\b/),
  ...told(
    'measured.compression-all-low',
    /\b(?:(?:four|all|all six) alike , (?:book|new)|low (?:in|on) all|all (?:low|down))\b/,
    undefined,
    /\b(?:compression|comp|bar|psi|book)\b/,
  ),
  ...told(
    'seen.liquid-in-cylinder',
    /\b(?:water (?:jumped|shot|sprayed) (?:to|out)|cylinder (?:was )?full of|full of (?:water|fuel)|liquid in the cylinder)\b/,
  ),
];
