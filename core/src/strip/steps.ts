import { bankCount, cylinderPlaces, isPressureFed, type EngineLayout } from '../engine/layout.js';
import { capPattern, headPattern, type FastenerPattern } from './fasteners.js';
import { holdItem, type HoldItem } from './holds.js';

/** Whether a fastener goes back. */
export type Reuse = 'reuse' | 'never' | 'keep' | 'measure';

/** The same in words. */
export const REUSE_WORDS: Readonly<Record<Reuse, string>> = {
  reuse: 'reuse',
  never: 'do not reuse',
  keep: 'keep: special or retained',
  measure: 'measure before reuse',
};

/** Fasteners that are bagged together. */
export interface FastenerBag {
  readonly id: string;
  readonly name: string;
  /** Usual number; null where only counting tells. */
  readonly count: number | null;
  readonly reuse: Reuse;
}

interface ShotWanted {
  /** Station, '' for the engine as a whole. */
  readonly station: string;
  readonly what: string;
}

/** One step of a strip. `after` names the steps that must be done first. */
export interface StripStep {
  readonly id: string;
  readonly name: string;
  readonly phase: string;
  readonly how: string;
  readonly tools: string;
  readonly after: readonly string[];
  readonly bags: readonly FastenerBag[];
  readonly pattern: FastenerPattern | null;
  readonly shots: readonly ShotWanted[];
  readonly cautions: readonly string[];
  /** Marks and craft: what to keep in order, what never to mix. */
  readonly craft: readonly string[];
  readonly holds: readonly HoldItem[];
  /** Cap whose number, direction and joint are checked in this step. */
  readonly cap: string | null;
}

const CAUTION = {
  stand: 'Engine on a rated stand or hoist; nobody under a hanging load.',
  fuel: 'Isolate the battery, depressurise the fuel rail; fuel vapour and sparks.',
  pressure: 'Cooling system, accumulators and air tanks without pressure first.',
  oil: 'Used oil is a skin hazard and waste under local rules: gloves, closed can.',
  coolant: 'Coolant poisons animals: catch it, waste under local rules.',
  springs: 'Valve, recoil and relief springs are under load: compressor, eyes.',
  edges: 'Ring edges, swarf and broken parts cut.',
  gasket: 'Old gaskets may hold asbestos: wet, never scraped dry.',
  roll: 'Rolling an engine moves its weight: two people, stand locked.',
  crank: 'A crank is lifted by two or by hoist.',
  wash: 'Hot tank and solvents burn: gloves, eyes, air. Never spin a bearing or turbo with compressed air.',
  seals: 'Burnt seals of fluorinated rubber leave acid: do not touch, bag.',
  puller: 'Press-fit parts come off with a puller, never a hammer.',
} as const;

type Draft = Partial<Omit<StripStep, 'id' | 'name' | 'phase' | 'how'>>;

function step(id: string, phase: string, name: string, how: string, more: Draft = {}): StripStep {
  return {
    id,
    phase,
    name,
    how,
    tools: '',
    after: [],
    bags: [],
    pattern: null,
    shots: [],
    cautions: [],
    craft: [],
    holds: [],
    cap: null,
    ...more,
  };
}

const bag = (id: string, name: string, count: number | null, reuse: Reuse = 'reuse'): FastenerBag => ({ id, name, count, reuse });

/** Steps of one engine with what each depends on; which exist and what they ask follows from the layout alone. */
export function stripSteps(layout: EngineLayout): StripStep[] {
  if (layout.valveGear === 'ports') return portedSteps(layout);
  return layout.lubrication === 'splash' && layout.mainBearings === 'rolling' ? splashSteps(layout) : blockSteps(layout);
}

function opening(layout: EngineLayout): StripStep[] {
  const oil = layout.lubrication !== 'premix';
  const liquid = layout.cooling === 'liquid';
  const drains = [...(oil ? ['drain-oil'] : ['drain-fuel']), ...(liquid ? ['drain-coolant'] : [])];
  return [
    step('arrival', 'Before', 'Picture it as it came', 'All sides, before anything is touched; personal things out of the picture.', {
      shots: [
        { station: '', what: 'front' },
        { station: '', what: 'rear' },
        { station: '', what: 'left side' },
        { station: '', what: 'right side' },
      ],
    }),
    step('isolate', 'Before', 'Make it safe', 'Battery, fuel, air and water isolated; engine on the stand.', {
      cautions: [CAUTION.stand, CAUTION.fuel, CAUTION.pressure],
    }),
    step('turn', 'Before', 'Turn it by hand', 'One slow turn each way with a bar, plugs out. Not by the starter.', {
      after: ['isolate'],
      tools: 'bar and socket, torque wrench with pointer',
      holds: [...(oil ? [holdItem('oil-level'), holdItem('oil-look')] : [holdItem('fuel-look')])],
      craft: ['Never start it to hear the knock.'],
    }),
    ...(oil
      ? [
          step('drain-oil', 'Drain', 'Drain the oil', 'Warm if it may be, into a clean pan; sample from the middle of the stream.', {
            after: ['isolate', 'turn'],
            bags: [bag('drain-plug', 'Drain plug and washer', 1)],
            cautions: [CAUTION.oil],
            holds: [holdItem('oil-level'), holdItem('oil-look'), holdItem('oil-sample')],
          }),
        ]
      : [
          step('drain-fuel', 'Drain', 'Drain carburettor and tank', 'Into a glass first: colour, oil, water.', {
            after: ['isolate'],
            cautions: [CAUTION.fuel],
            holds: [holdItem('fuel-look')],
          }),
        ]),
    ...(liquid
      ? [
          step('drain-coolant', 'Drain', 'Drain the coolant', 'From the block too; look what comes last.', {
            after: ['isolate'],
            cautions: [CAUTION.pressure, CAUTION.coolant],
            holds: [holdItem('coolant')],
          }),
        ]
      : []),
    step('outside', 'Outside', 'Ancillaries off', 'Manifolds, starter, generator, pumps outside; each with its fasteners in its own bag.', {
      after: ['arrival', ...drains],
      bags: [bag('manifolds', 'Manifold nuts', layout.cylinders * 2), bag('brackets', 'Brackets and ancillaries', null)],
      holds: [holdItem('arrival')],
      cautions: [CAUTION.gasket],
      craft: [
        'Check for hidden fasteners before prying a cover.',
        ...(liquid ? ['Core plugs are replaced always; look at them first.'] : []),
      ],
    }),
  ];
}

function banks(layout: EngineLayout): number[] {
  return bankCount(layout) === 1 ? [0] : [0, 1];
}

const bankWord = (layout: EngineLayout, bank: number): string =>
  bankCount(layout) === 1 ? '' : (layout.firstBank === 'left') === (bank === 0) ? ' left bank' : ' right bank';

const PICKUP = step('pickup', 'Bottom', 'Pickup and pump off', 'Screen first; turn the pump by hand before it is opened.', {
  after: ['pan'],
  bags: [bag('pump', 'Pump and pickup bolts', 6)],
  shots: [
    { station: 'pickup.screen', what: 'screen, both sides' },
    { station: 'pump.gears', what: 'gears and body' },
  ],
  cautions: [CAUTION.springs],
  holds: [holdItem('pan-as-found')],
});

/** Engines with a block, shells and a pan: in line, V and flat, petrol and diesel. */
function blockSteps(layout: EngineLayout): StripStep[] {
  const flat = layout.arrangement === 'flat';
  const overhead = layout.valveGear === 'overhead-cam';
  const stretch: Reuse = overhead ? 'never' : 'measure';
  const steps = opening(layout);
  const add = (...list: StripStep[]): void => void steps.push(...list);
  const places = cylinderPlaces(layout);

  if (isPressureFed(layout))
    add(
      step('filter', 'Outside', 'Filter off, upright', 'Keep it upright and full; it is cut open later.', {
        after: ['drain-oil'],
        shots: [{ station: 'filter.media', what: 'cut open, outer pleats' }],
        holds: [holdItem('filter-kept')],
      }),
    );
  add(
    step('covers', 'Top', overhead ? 'Cam covers off' : 'Rocker covers off', 'Look for dry areas and sludge before wiping anything.', {
      after: ['outside'],
      bags: [bag('covers', 'Cover bolts', layout.cylinders * 2 + 2)],
      craft: ['Dry where oil must remain is a finding; so is a smell.'],
    }),
  );
  if (overhead)
    add(
      step('timing', 'Top', `Timing ${layout.camDrive} off`, 'Set to the marks, picture the marks, lock, then slacken.', {
        after: ['covers'],
        bags: [bag('timing', 'Tensioner and guide bolts', 6), bag('cam-wheel', 'Cam wheel bolts', bankCount(layout) * 2, 'never')],
        shots: [{ station: 'timing.drive', what: 'marks in line, tensioner out' }],
        holds: [holdItem('compression')],
        cautions: [CAUTION.springs],
      }),
      ...banks(layout).map((b) =>
        step(
          `cams-${b}`,
          'Top',
          `Camshafts off${bankWord(layout, b)}`,
          'Ease the cap bolts a turn at a time from the ends; caps in order and direction.',
          {
            after: ['timing'],
            bags: [bag(`cam-caps-${b}`, 'Cam cap bolts', places.filter((p) => p.bank === b).length * 4 + 4)],
            holds: [holdItem('contact-order')],
            cautions: [CAUTION.springs],
          },
        ),
      ),
    );
  else
    add(
      step('rockers', 'Top', 'Rockers and pushrods out', 'In a rack, in order, the right way up; look at the tips.', {
        after: ['covers'],
        bags: [bag('rockers', 'Rocker shaft or pedestal bolts', layout.cylinders * 2)],
        holds: [holdItem('contact-order'), holdItem('compression')],
        cautions: [CAUTION.springs],
        craft: ['A pushrod goes back where it was: number the rack.'],
      }),
    );
  for (const b of banks(layout)) {
    const pattern = headPattern(layout, b);
    add(
      step(
        `head-${b}`,
        'Top',
        `Head off${bankWord(layout, b)}`,
        'Log the break-loose torque by position, from the ends towards the middle; lift straight.',
        {
          after: overhead ? [`cams-${b}`, 'drain-coolant'].filter((id) => steps.some((s) => s.id === id)) : ['rockers'],
          tools: 'torque wrench with pointer',
          bags: [bag(`head-bolts-${b}`, 'Head bolts', pattern.positions.length, stretch)],
          pattern,
          shots: [{ station: 'gasket.head', what: `both faces${bankWord(layout, b)}` }],
          holds: [holdItem('head-torque', pattern.id), holdItem('liquid')],
          cautions: [CAUTION.gasket, CAUTION.stand],
          craft: ['Valves closed before a head comes off.', ...(stretch === 'never' ? ['Bolts tightened to yield: do not reuse.'] : [])],
        },
      ),
    );
  }
  const heads = banks(layout).map((b) => `head-${b}`);
  add(
    step(
      'bores-look',
      'Top',
      'Look at bores and crowns',
      'Before any piston moves: which holds liquid, how each piston rocks, ring ridge.',
      {
        after: heads,
        shots: places.flatMap((p) => [
          { station: `piston.${p.cylinder}.crown`, what: `crown ${p.cylinder}, as found` },
          { station: `bore.${p.cylinder}`, what: `bore ${p.cylinder}, at the bottom of the stroke` },
        ]),
        holds: [holdItem('gasket-faces'), holdItem('piston-rock')],
      },
    ),
  );
  if (!overhead && layout.valveGear === 'pushrod')
    add(
      step('followers', 'Top', 'Followers out', 'In order, faces up; turn each to see whether it has been turning.', {
        after: heads,
        holds: [holdItem('contact-order')],
        shots: [],
        craft: ['Each follower stays with its lobe.'],
      }),
    );
  if (!flat)
    add(
      step(
        'pan',
        'Bottom',
        layout.lubrication === 'dry-sump' ? 'Scavenge pan off, right way up' : 'Pan off, right way up',
        'Before the engine is rolled: what lies in it, where, and the sludge line.',
        {
          after: ['drain-oil'],
          bags: [bag('pan', 'Pan bolts', layout.cylinders * 3 + 8)],
          shots: [{ station: 'pan.debris', what: 'as found, then on a white sheet' }],
          craft: ['Debris goes into a labelled bag; magnet over it.'],
        },
      ),
      ...(isPressureFed(layout) ? [PICKUP] : []),
      step('roll', 'Bottom', 'Roll the engine over', 'Only with the pan off and the heads off; every cap still on.', {
        after: ['pan', ...heads],
        cautions: [CAUTION.roll, CAUTION.stand],
        holds: [holdItem('pan-as-found')],
      }),
      step(
        'front',
        'Bottom',
        overhead ? 'Damper and front cover off' : 'Damper, front cover and timing gears off',
        'Puller on the damper; marks pictured before the gears part.',
        {
          after: ['roll', ...(overhead ? ['timing'] : [])],
          bags: [bag('front', 'Front cover bolts', 12), bag('nose', 'Crank nose bolt', 1, 'never')],
          cautions: [CAUTION.puller, CAUTION.seals],
          shots: overhead ? [] : [{ station: 'timing.drive', what: 'marks in line' }],
          holds: [holdItem('end-float')],
        },
      ),
      step('play', 'Bottom', 'Float, side play, turning torque', 'Everything that a bearing tells while it is still together.', {
        after: ['roll'],
        tools: 'indicator, feelers, torque wrench with pointer',
        holds: [holdItem('turning')],
        craft: ['Ease one cap at a time and turn: the cap whose easing lets the crank go is the one that binds.'],
      }),
    );
  return [...steps, ...(flat ? caseHalves(layout) : caps(layout)), ...ending(layout)];
}

const MARK_CAPS = 'Mark rod and cap as a pair with number and direction; caps never swap.';
const JOINT = 'A cap joint is imperceptible to a fingertip; a step means a wrong cap or a cap turned round.';

function rodCap(layout: EngineLayout, cylinder: number, after: string[]): StripStep {
  const part = `rod.${cylinder}`;
  const shells = layout.bigEnds === 'shells';
  const pattern = capPattern(part, `Rod cap ${cylinder}`, layout.pinDiameterMm, layout.rodShellWidthMm, false);
  return step(
    `rod-cap-${cylinder}`,
    'Rods',
    `Rod cap ${cylinder} off`,
    'Number, direction, joint; break-loose torque; which half stayed on the pin.',
    {
      after,
      tools: 'torque wrench with pointer',
      bags: [bag(`rod-bolts-${cylinder}`, 'Rod bolts', 2, 'measure')],
      pattern,
      cap: part,
      shots: shells
        ? [
            { station: `${part}.shell.lower`, what: 'in the cap, face and back' },
            { station: `${part}.shell.upper`, what: 'in the rod, face and back' },
          ]
        : [{ station: `${part}.bigend`, what: 'face of rod and cap' }],
      holds: [holdItem('cap-marks', part), holdItem('cap-torque', part), holdItem('rod-play'), holdItem('easing')],
      craft: [MARK_CAPS, JOINT, 'Sleeves over the rod bolts protect the pin.'],
    },
  );
}

function pistonOut(layout: EngineLayout, cylinder: number): StripStep {
  const part = `rod.${cylinder}`;
  return step(
    `piston-${cylinder}`,
    'Rods',
    `Piston ${cylinder} out`,
    'Ridge cut first if a nail feels it; push with wood, mind the wall.',
    {
      after: [`rod-cap-${cylinder}`, ...(layout.arrangement === 'flat' ? [] : ['bores-look'])],
      shots: [
        { station: `piston.${cylinder}.skirt.thrust`, what: 'thrust side, rings as found' },
        { station: `piston.${cylinder}.skirt.antithrust`, what: 'anti-thrust side' },
        { station: `rings.${cylinder}.pack`, what: 'rings in their grooves' },
      ],
      holds: layout.bigEnds === 'shells' ? [holdItem('shells-in-place', part)] : [],
      cautions: [CAUTION.edges],
    },
  );
}

function caps(layout: EngineLayout): StripStep[] {
  const list: StripStep[] = [];
  const places = cylinderPlaces(layout);
  for (const { cylinder } of places)
    list.push(rodCap(layout, cylinder, [isPressureFed(layout) ? 'pickup' : 'pan', 'play']), pistonOut(layout, cylinder));
  const pistons = places.map((p) => `piston-${p.cylinder}`);
  if (layout.bores === 'wet-liner')
    for (const { cylinder } of places)
      list.push(
        step(
          `liner-${cylinder}`,
          'Rods',
          `Liner ${cylinder} out`,
          'Height above the deck first; puller from below; look where the seals sat.',
          {
            after: [`piston-${cylinder}`],
            tools: 'depth gauge, liner puller',
            shots: [{ station: `bore.${cylinder}`, what: 'outside of the liner, seal bands' }],
            holds: [holdItem('liner-height')],
            craft: ['Mark the liner’s place and which side faced the front.'],
          },
        ),
      );
  if (layout.ladderFrame)
    list.push(
      step('ladder', 'Crank', 'Ladder frame off', 'Outer bolts first, then by position from the ends; it carries every cap.', {
        after: pistons,
        bags: [bag('ladder', 'Ladder frame bolts', layout.mains * 4 + 8, 'never')],
        holds: Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
        cautions: [CAUTION.stand],
      }),
    );
  else
    for (let m = 1; m <= layout.mains; m++) {
      const part = `main.${m}`;
      const cross = layout.arrangement === 'vee' && layout.fuel === 'diesel';
      list.push(
        step(
          `main-cap-${m}`,
          'Crank',
          `Main cap ${m} off`,
          'Ease, turn the crank, log the torque; then off, straight, with its number and arrow.',
          {
            after: pistons,
            tools: 'torque wrench with pointer',
            bags: [bag(`main-bolts-${m}`, cross ? 'Main and cross bolts' : 'Main cap bolts', cross ? 4 : 2, 'measure')],
            pattern: capPattern(part, `Main cap ${m}`, layout.mainDiameterMm, layout.mainShellWidthMm, cross),
            cap: part,
            shots: [{ station: `${part}.shell.lower`, what: 'in the cap, face and back' }],
            holds: [holdItem('cap-marks', part), holdItem('cap-torque', part), holdItem('easing'), holdItem('end-float')],
            craft: [JOINT, 'Caps in order, arrows the same way.'],
          },
        ),
      );
    }
  const mains = layout.ladderFrame ? ['ladder'] : Array.from({ length: layout.mains }, (_, i) => `main-cap-${i + 1}`);
  list.push(
    step('crank', 'Crank', 'Crank out', 'Straight up; watch which shells stay with it.', {
      after: [...mains, 'front'],
      cautions: [CAUTION.crank],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `crank.main.${i + 1}`, what: `main journal ${i + 1}, all round` })),
      craft: ['On end or on wood, never on its journals.'],
    }),
    step('shells', 'Crank', 'Main shells out', 'Face and back pictured in place, hole against feed, then out and numbered on the back.', {
      after: ['crank'],
      holds: layout.ladderFrame ? [] : Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `main.${i + 1}.shell.upper`, what: `main ${i + 1} in its seat` })),
    }),
  );
  if (layout.valveGear === 'pushrod')
    list.push(
      step('camshaft', 'Crank', 'Camshaft out', 'Retainer and thrust plate first; turn while drawing, mind the lobes.', {
        after: ['crank', 'followers'],
        bags: [bag('cam-plate', 'Cam thrust plate bolts', 2, 'keep')],
      }),
    );
  return list;
}

/** Flat engines: the case parts along the crank, so pistons and pins come out before the crank is seen. */
function caseHalves(layout: EngineLayout): StripStep[] {
  const places = cylinderPlaces(layout);
  const list: StripStep[] = places.map(({ cylinder }) =>
    step(
      `pin-${cylinder}`,
      'Rods',
      `Piston pin ${cylinder} out`,
      'Through the access hole: clip, then pin with a puller; piston stays in its bore.',
      {
        after: ['bores-look'],
        cautions: [CAUTION.puller, CAUTION.edges],
        bags: [bag(`clips-${cylinder}`, 'Pin clips', 2, 'never')],
      },
    ),
  );
  list.push(
    step('case', 'Crank', 'Case halves apart', 'Through bolts from the ends inwards; the joint is broken, not pried.', {
      after: [...places.map((p) => `pin-${p.cylinder}`), 'drain-oil'],
      bags: [bag('through', 'Through bolts', layout.mains * 2, 'measure'), bag('case', 'Case perimeter bolts', null)],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `main.${i + 1}.shell.upper`, what: `main ${i + 1}, in the half` })),
      holds: [
        holdItem('turning'),
        holdItem('end-float'),
        ...Array.from({ length: layout.mains }, (_, i) => holdItem('shells-in-place', `main.${i + 1}`)),
      ],
      craft: ['There are no main caps: both halves are one line bore and stay together.'],
    }),
    step('crank', 'Crank', 'Crank with rods out', 'Lift straight; rods hang, hold them off the journals.', {
      after: ['case'],
      cautions: [CAUTION.crank],
      shots: Array.from({ length: layout.mains }, (_, i) => ({ station: `crank.main.${i + 1}`, what: `main journal ${i + 1}` })),
    }),
    step('pan', 'Crank', 'Sump floor and pickup', 'What lay in the lower half, where, and on the screen.', {
      after: ['case'],
      shots: [
        { station: 'pan.debris', what: 'as found' },
        { station: 'pickup.screen', what: 'screen, both sides' },
      ],
      holds: [],
    }),
    ...places.map(({ cylinder }) => rodCap(layout, cylinder, ['crank'])),
    ...places.map(({ cylinder }) => pistonOut(layout, cylinder)),
    step('shells', 'Crank', 'Main shells out', 'From both halves; numbered on the back.', { after: ['crank'] }),
  );
  return list;
}

/** Splash-oiled engines on rolling mains: side cover, rod cap with dipper, crank drawn from its bearings. */
function splashSteps(layout: EngineLayout): StripStep[] {
  const pattern = headPattern(layout, 0);
  return [
    ...opening(layout),
    step('cowl', 'Outside', 'Cowl, tins and flywheel off', 'Look at fins and tins before brushing; puller on the flywheel, key kept.', {
      after: ['outside'],
      bags: [bag('cowl', 'Cowl screws', null), bag('flywheel', 'Flywheel nut and key', 2, 'keep')],
      cautions: [CAUTION.puller, CAUTION.springs],
    }),
    step('head-0', 'Top', 'Head off', 'Log the break-loose torque by position; look for blow-by marks.', {
      after: ['cowl'],
      pattern,
      bags: [bag('head-bolts-0', 'Head bolts', pattern.positions.length, 'reuse')],
      shots: [{ station: 'gasket.head', what: 'both faces' }],
      holds: [holdItem('head-torque', pattern.id), holdItem('compression')],
      cautions: [CAUTION.gasket],
      craft: ['Valves closed before a head comes off.'],
    }),
    step('bores-look', 'Top', 'Look at bore and crown', 'Before the piston moves.', {
      after: ['head-0'],
      shots: [
        { station: 'piston.1.crown', what: 'as found' },
        { station: 'bore.1', what: 'at the bottom of the stroke' },
      ],
      holds: [holdItem('gasket-faces'), holdItem('piston-rock')],
    }),
    step('side-cover', 'Bottom', 'Side cover off', 'Engine lying on the other side; catch what runs out, picture what lies there.', {
      after: ['drain-oil', 'bores-look'],
      bags: [bag('cover', 'Cover bolts', 8)],
      shots: [{ station: 'pan.debris', what: 'floor of the case, as found' }],
      holds: [holdItem('end-float'), holdItem('turning')],
      cautions: [CAUTION.edges],
    }),
    step('cam', 'Bottom', 'Camshaft and followers out', 'Marks pictured; followers numbered, faces up.', {
      after: ['side-cover'],
      holds: [holdItem('contact-order'), holdItem('pan-as-found')],
    }),
    {
      ...rodCap(layout, 1, ['side-cover']),
      name: 'Rod cap off, with its dipper',
      holds: [holdItem('dipper'), holdItem('cap-marks', 'rod.1'), holdItem('cap-torque', 'rod.1'), holdItem('rod-play')],
    },
    pistonOut(layout, 1),
    step('crank', 'Crank', 'Crank out of its bearings', 'Drawn straight; bearings turned by hand, dry, before washing.', {
      after: ['piston-1', 'cam'],
      cautions: [CAUTION.puller],
      shots: [
        { station: 'crank.pin.1', what: 'pin, all round' },
        { station: 'main.1.rollers', what: 'as found' },
        { station: 'main.2.rollers', what: 'as found' },
      ],
      holds: [holdItem('seal-direction')],
    }),
    ...ending(layout),
  ];
}

/** Two-strokes with ports: barrels, pistons on needle bearings, a pressed-up crank between case halves. */
function portedSteps(layout: EngineLayout): StripStep[] {
  const outboard = layout.shaft === 'upright';
  const places = cylinderPlaces(layout);
  const pattern = headPattern(layout, 0);
  return [
    ...opening(layout),
    ...(outboard
      ? [
          step(
            'powerhead',
            'Outside',
            'Powerhead off the leg',
            'Impeller housing and tell-tale looked at before the joint is broken; then lift by the eye.',
            {
              after: ['outside'],
              bags: [bag('leg', 'Powerhead bolts', 8)],
              cautions: [CAUTION.stand],
              shots: [{ station: '', what: 'impeller, vanes and housing' }],
              craft: ['An impeller that lost vanes sent them upwards: look for them in the passages.'],
            },
          ),
        ]
      : [
          step(
            'cowl',
            'Outside',
            layout.cooling === 'air' ? 'Cowl and flywheel off' : 'Flywheel and stator off',
            'Fins looked at before brushing; puller on the flywheel, key kept.',
            {
              after: ['outside'],
              bags: [bag('flywheel', 'Flywheel nut and key', 2, 'keep')],
              cautions: [CAUTION.puller],
            },
          ),
        ]),
    step(
      'exhaust-port',
      'Top',
      'Look through the exhaust port',
      'Rings and skirt with the piston at the bottom; the side that scuffed tells most.',
      {
        after: [outboard ? 'powerhead' : 'cowl'],
        shots: places.map((p) => ({ station: `piston.${p.cylinder}.skirt.antithrust`, what: `cylinder ${p.cylinder} through the port` })),
      },
    ),
    step('head-0', 'Top', places.length > 1 ? 'Heads off' : 'Head off', 'Log the break-loose torque by position; crowns as found.', {
      after: ['exhaust-port'],
      pattern,
      bags: [bag('head-bolts-0', 'Head nuts', pattern.positions.length)],
      shots: places.map((p) => ({ station: `piston.${p.cylinder}.crown`, what: `crown ${p.cylinder}, as found` })),
      holds: [holdItem('head-torque', pattern.id), holdItem('compression'), holdItem('turning'), holdItem('liquid')],
      cautions: layout.cooling === 'air' ? [] : [CAUTION.pressure],
    }),
    ...places.flatMap(({ cylinder }) => [
      step(
        `barrel-${cylinder}`,
        'Barrels',
        `Barrel ${cylinder} off`,
        'Rag in the case mouth; lift straight, do not turn it past the ring pegs.',
        {
          after: ['head-0'],
          bags: [bag(`barrel-${cylinder}`, 'Barrel nuts', 4)],
          shots: [
            { station: `bore.${cylinder}`, what: 'intake side and exhaust side' },
            { station: `piston.${cylinder}.skirt.thrust`, what: 'intake side' },
          ],
          cautions: [CAUTION.edges],
        },
      ),
      step(`piston-${cylinder}`, 'Barrels', `Piston ${cylinder} off`, 'Clips out, pin by puller, needle cage kept with its pin.', {
        after: [`barrel-${cylinder}`],
        bags: [bag(`clips-${cylinder}`, 'Pin clips', 2, 'never')],
        cautions: [CAUTION.puller],
        holds: [holdItem('skirts-as-found', String(cylinder))],
        craft: ['Arrow on the crown towards the exhaust: note it before it is cleaned.'],
      }),
    ]),
    step('case', 'Crank', 'Case halves apart', 'Bolts from the ends inwards; never pried at the joint; seals stay in place for a look.', {
      after: places.map((p) => `piston-${p.cylinder}`),
      bags: [bag('case', 'Case bolts', 8 + places.length * 2)],
      holds: [holdItem('seal-direction'), holdItem('turning')],
    }),
    step(
      'crank',
      'Crank',
      'Crank assembly out',
      'Pressed up: it is not taken apart here. Rods turned on their rollers, dry, before washing.',
      {
        after: ['case'],
        shots: places.map((p) => ({ station: `rod.${p.cylinder}.rollers`, what: `big end ${p.cylinder}` })),
        craft: ['Runout in V-blocks before any pressing.'],
      },
    ),
    ...ending(layout),
  ];
}

function ending(layout: EngineLayout): StripStep[] {
  const fed = isPressureFed(layout);
  const last = layout.valveGear === 'ports' || layout.mainBearings === 'rolling' ? ['crank'] : ['shells'];
  return [
    ...(fed
      ? [
          step(
            'galleries',
            'Block',
            'Gallery plugs and jets out',
            'Every plug out before washing; probe each drilling, picture what comes.',
            {
              after: last,
              bags: [bag('gallery', 'Gallery plugs', null, 'reuse')],
              craft: ['Core plugs are replaced always.'],
            },
          ),
        ]
      : []),
    step('wash', 'Block', 'Wash and send out', 'Nothing is washed before it has been pictured, measured and bagged.', {
      after: fed ? ['galleries'] : last,
      cautions: [CAUTION.wash],
      holds: [holdItem('all-recorded')],
    }),
  ];
}
