import type { SheetRequest } from '@true-ledger/contract';
import { randomUUID } from 'node:crypto';
import {
  cellUnits,
  engineTemplate,
  placeOf,
  pressKey,
  NO_FAULTS,
  readAnswer,
  readCell,
  seeded,
  ROLE_KINDS,
  stripSteps,
  trueValue,
  type EngineLayout,
  type EntryBodies,
  type EntryDraft,
  type EntryKind,
  type Gauge,
  type Grade,
  type SpecKey,
  type SpecSheet,
  type SurfaceMark,
  type WearClass,
} from '@true-ledger/core';

/** One step of a demo case: an entry, or a rendered picture for a station. */
export type DemoStep =
  { readonly kind: 'entry'; readonly draft: EntryDraft } | { readonly kind: 'picture'; readonly station: string; readonly name: string };

export interface DemoCase {
  readonly number: string;
  readonly steps: readonly DemoStep[];
}

const MICROMETER: Gauge = {
  id: 'micrometer-50-75',
  name: 'Outside micrometer 50–75',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
  masterMm: 50,
  checkedOn: '2026-09-02',
};
export const DEMO_GAUGES: readonly Gauge[] = [
  MICROMETER,
  {
    id: 'micrometer-old',
    name: 'Outside micrometer 50–75, hundredths',
    kind: 'outside-micrometer',
    resolutionMm: 0.01,
    expandedUncertaintyMm: 0.006,
    repeatabilityMm: 0.004,
    checkedOn: '2025-03-18',
  },
  {
    id: 'calliper-150',
    name: 'Calliper 150',
    kind: 'caliper',
    resolutionMm: 0.01,
    expandedUncertaintyMm: 0.03,
    repeatabilityMm: 0.012,
    checkedOn: '2026-01-20',
  },
  {
    id: 'micrometer-0-25-ball',
    name: 'Ball micrometer 0–25',
    kind: 'outside-micrometer',
    resolutionMm: 0.001,
    expandedUncertaintyMm: 0.003,
    repeatabilityMm: 0.0012,
    masterMm: 2,
    checkedOn: '2026-09-02',
  },
  {
    id: 'bore-gauge-50-160',
    name: 'Bore gauge 50–160',
    kind: 'bore-gauge',
    resolutionMm: 0.001,
    expandedUncertaintyMm: 0.004,
    repeatabilityMm: 0.002,
    masterMm: 84,
    checkedOn: '2026-09-02',
  },
  {
    id: 'indicator-01',
    name: 'Lever indicator, thousandths',
    kind: 'indicator',
    resolutionMm: 0.001,
    expandedUncertaintyMm: 0.003,
    repeatabilityMm: 0.0015,
    checkedOn: '2026-06-11',
  },
  {
    id: 'feelers',
    name: 'Feeler gauges',
    kind: 'feeler',
    resolutionMm: 0.01,
    expandedUncertaintyMm: 0.01,
    repeatabilityMm: 0.008,
    checkedOn: '2026-02-03',
  },
  {
    id: 'depth-25',
    name: 'Depth gauge 25',
    kind: 'depth-gauge',
    resolutionMm: 0.001,
    expandedUncertaintyMm: 0.004,
    repeatabilityMm: 0.002,
    checkedOn: '2026-09-02',
  },
  {
    id: 'torque-wrench-200',
    name: 'Torque wrench 20–200 N·m',
    kind: 'torque-wrench',
    resolutionMm: 0.1,
    expandedUncertaintyMm: 1,
    repeatabilityMm: 0.5,
    checkedOn: '2026-05-19',
  },
  {
    id: 'profilometer',
    name: 'Profilometer, 2 µm stylus',
    kind: 'profilometer',
    resolutionMm: 0.00001,
    expandedUncertaintyMm: 0.0001,
    repeatabilityMm: 0.00002,
    checkedOn: '2026-04-08',
  },
];

/** Gauges that stand on the wire in the demonstration. */
export const DEMO_STAND_INS = ['micrometer-50-75', 'bore-gauge-50-160', 'indicator-01', 'torque-wrench-200', 'profilometer'] as const;

/** Writes a demo case step by step; keeps track of what each field holds so that later entries supersede rightly. */
class CaseScript {
  readonly steps: DemoStep[] = [];
  private marks = 0;
  private readonly random = seeded(20260901);

  constructor(
    title: string,
    readonly engine: EngineLayout,
  ) {
    this.entry('case-opened', null, { number: '', title, demo: true });
    this.entry('layout-set', null, { layout: engine });
  }

  entry<K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K]): this {
    this.steps.push({ kind: 'entry', draft: { id: randomUUID(), kind, station, body, basedOn: null } });
    return this;
  }

  intake(values: Partial<Record<EntryBodies['intake-set']['field'], string>>): this {
    for (const [field, value] of Object.entries(values))
      this.entry('intake-set', null, { field: field as EntryBodies['intake-set']['field'], value });
    return this;
  }

  history(text: string, reliability: 'told' | 'seen' | 'measured', feature: string | null, date: string | null = null): this {
    return this.entry('history-line', null, { line: randomUUID(), text, feature, reliability, date });
  }

  looked(feature: string, present: boolean, note: string): this {
    return this.entry('evidence-set', null, { feature, present, note });
  }

  /** An answer of a check before opening, read as the page reads it. */
  check(check: string, field: string, raw: string | readonly string[], unit?: string): this {
    const read = readAnswer(this.engine, check, field, raw, unit);
    if (!read.ok) throw new Error(`${check} ${field}: ${read.problem.sentence}`);
    return this.entry('check-set', null, read.value);
  }

  each(check: string, field: string, values: readonly string[], unit: string): this {
    values.forEach((v, i) => this.check(check, `${field}.${i + 1}`, v, unit));
    return this;
  }

  received(text: string, state: 'received' | 'already-off' | 'missing', by = ''): this {
    return this.entry('received-item', null, { item: randomUUID(), text, state, by });
  }

  buildMark(kind: EntryBodies['build-mark']['kind'], text: string, pointsTo: EntryBodies['build-mark']['pointsTo']): this {
    return this.entry('build-mark', null, { mark: randomUUID(), kind, text, pointsTo });
  }

  question(to: EntryBodies['open-question']['to'], text: string, answer: string | null = null, answeredOn: string | null = null): this {
    return this.entry('open-question', null, { question: randomUUID(), to, text, answer, answeredOn });
  }

  bolts(pattern: string, values: Readonly<Record<string, string>>): this {
    for (const [position, text] of Object.entries(values))
      this.entry('bolt-torque', null, { pattern, position, text, unit: 'N·m', newtonMetre: Number(text) });
    return this;
  }

  noted(item: string, note: string): this {
    return this.entry('hold-set', null, { item, outcome: 'recorded', note });
  }

  passedOver(item: string, note: string): this {
    return this.entry('hold-set', null, { item, outcome: 'lost', note });
  }

  done(...steps: string[]): this {
    for (const step of steps) this.entry('step-set', null, { step, state: 'done', note: '' });
    return this;
  }

  sound(...stations: string[]): this {
    for (const s of stations) this.entry('state-set', s, { state: 'sound' });
    return this;
  }

  stroke(station: string, cls: WearClass, radiusMm: number, points: ReadonlyArray<readonly [number, number]>): this {
    return this.mark(station, { id: `d${++this.marks}`, shape: 'stroke', class: cls, points, radiusMm, made: 'found-so' });
  }

  line(station: string, v: number, from: number, to: number, depth: 'hair' | 'probe' | 'nail' | 'through'): this {
    return this.mark(station, {
      id: `d${++this.marks}`,
      shape: 'line',
      class: 'lining',
      points: [
        [from, v],
        [to, v],
      ],
      radiusMm: 0.15,
      depth,
      made: 'found-so',
    });
  }

  private mark(station: string, mark: SurfaceMark): this {
    return this.entry('mark-made', station, { mark });
  }

  picture(station: string, name = 'as-found.jpg'): this {
    this.steps.push({ kind: 'picture', station, name });
    return this;
  }

  secondOpinion(station: string, grade: Grade, note = ''): this {
    return this.entry('second-opinion', station, { grade, note });
  }

  finding(station: string, grade: Grade, patterns: string[], remark = ''): this {
    for (const pattern of patterns) this.entry('pattern-set', station, { pattern, present: true });
    this.entry('grade-confirmed', station, { grade, proposed: null, reason: '', book: '1' });
    if (remark) this.entry('remark', station, { remark: randomUUID(), text: remark });
    return this;
  }

  pin(station: string, values: readonly [number, number, number, number, number, number], gauge = MICROMETER): this {
    const cells = ['front.A', 'front.B', 'mid.A', 'mid.B', 'rear.A', 'rear.B'];
    return this.read(station, 'journal', Object.fromEntries(cells.map((cell, i) => [cell, values[i]!.toFixed(3)])), gauge);
  }

  /** Reads every wanted cell of a sheet, with the shop's gauges, off the true geometry of an engine that is damaged where `severity` says. */
  gauge(
    station: string | null,
    sheet: string,
    seed: string,
    severity: (station: string) => number,
    optional: readonly string[] = [],
  ): this {
    const place = placeOf(this.engine, station, sheet);
    if (!place) throw new Error(`no place ${station} / ${sheet}`);
    for (const cell of place.cells) {
      if (cell.optional && !optional.some((o) => cell.key === o || cell.key.endsWith(`.${o}`))) continue;
      const kinds = cell.role === 'wall' ? [] : ROLE_KINDS[cell.role];
      const gauge =
        cell.role === 'wall'
          ? DEMO_GAUGES.find((g) => g.id === 'micrometer-0-25-ball')!
          : (kinds.map((kind) => DEMO_GAUGES.find((g) => g.kind === kind)).find(Boolean) ?? MICROMETER);
      const truth = trueValue({ layout: this.engine, seed, severity }, place, cell.key);
      const { press } = pressKey(gauge, { faults: NO_FAULTS, count: 0, last: null }, truth, cell, this.random);
      if (press.kind === 'reading') this.read(station, sheet, { [cell.key]: press.text }, gauge);
    }
    return this;
  }

  /** Readings of a sheet as typed, by cell. */
  read(station: string | null, sheet: string, cells: Readonly<Record<string, string>>, gauge: Gauge = MICROMETER): this {
    const place = placeOf(this.engine, station, sheet);
    for (const [key, text] of Object.entries(cells)) {
      const cell = place?.cells.find((c) => c.key === key);
      if (!cell) throw new Error(`no place ${station} / ${sheet} / ${key}`);
      const unit = cellUnits(cell)[0]!;
      const read = readCell(cell, text, unit, gauge);
      if (!read.ok) throw new Error(`${station} / ${sheet} / ${key}: ${read.problem.sentence}`);
      this.entry('reading-taken', station, { sheet, cell: key, take: 1, text, unit, value: read.value.value, gauge, insisted: false });
    }
    return this;
  }
}

const layout = (template: string, change: Partial<EngineLayout> = {}): EngineLayout => ({ ...engineTemplate(template)!.layout, ...change });

function firePump(): DemoCase {
  const c = new CaseScript(
    'Village fire-pump: knock, then tight',
    layout('inline-4-petrol', { boreMm: 84, strokeMm: 88, pinDiameterMm: 53, mainDiameterMm: 58 }),
  );
  c.intake({
    reference: 'Ottershaw Quay pump house, set 2',
    questionOwner: 'insurer',
    question: 'Why did the engine fail 40 hours after its overhaul, and is the overhaul the reason?',
    complaint: 'knock,metal-in-oil',
    complaintWords: 'Started to knock at the weekly run and went tight within a minute.',
    onset: 'sudden',
    afterFirstSign: 'stopped',
    received: 'Complete engine, filter and pan in place, oil in.',
    firstImpression: 'oil-low',
  });
  c.history('Main and rod shells renewed in spring by a travelling fitter', 'seen', 'told.recent-work', '2026-04-11')
    .history('Gauge stood where it always stands until the knock', 'told', 'told.pressure-normal', '2026-10-30')
    .history('Oil and filter changed after the first ten hours', 'told', null, '2026-05-02');
  c.intake({
    complaintPlace: 'bottom',
    complaintWhen: 'hot,load',
    openedBy: 'Nobody since the overhaul',
    evidenceHolder: 'This workshop, bags in the locked cage',
  });
  c.received('Engine complete, on its frame', 'received')
    .received('Oil in the pan, about 4 l', 'received')
    .received('Shells taken out in spring', 'missing', 'travelling fitter')
    .buildMark('date-code', 'Two date codes among the main shells: spring of this year, and main 2 upper six years older', 'opened-before')
    .buildMark('sealant', 'Fresh grey bead on the pan, squeezed inside by 2 mm', 'opened-before')
    .buildMark('paint', 'Paint unbroken across the head joint', 'as-made')
    .question(
      'earlier-builder',
      'Were all shells of one set, and who took main 2 apart?',
      'One half was short in the box; an old one was put in.',
      '2026-11-12',
    )
    .question('client', 'Was the engine run under load between the tenth and the fortieth hour?');
  c.check('arrival', 'seen', 'Clean, dry outside; oil filler tight; pump coupling turns free of the engine.')
    .check('dipstick', 'level', ['full'])
    .check('dipstick', 'look', ['dark', 'glitter'])
    .check('oil-sample', 'taken', ['mid-stream'])
    .check('oil-sample', 'reference', 'OQ2-11')
    .check('coolant', 'level', ['full'])
    .check('coolant', 'film', ['clear'])
    .check('filter', 'found', ['copper'])
    .check('filter', 'bypass', ['seated'])
    .check('magnet', 'clings', ['nothing'])
    .each('compression', 'dry', ['11.8', '11.6', '11.9', '11.7'], 'bar')
    .check('turning', 'feel', ['tight'])
    .each('turning', 'ahead', ['58', '61', '60', '63', '64', '60', '58', '57', '60', '62', '61', '59'], 'N·m')
    .each('turning', 'back', ['56', '58', '59', '60', '61', '59', '57', '56', '58', '59', '58', '57'], 'N·m')
    .check('end-float', 'float', '0.14')
    .check('end-float', 'play', '0.05')
    .check('knock', 'where', ['bottom'])
    .check('knock', 'when', ['hot', 'load']);
  firePumpStrip(c);
  c.looked('measured.feed-hole-shut', true, 'Upper half of main 2 stands a quarter turn round, its hole off the feed');
  c.sound(
    'bore.1',
    'bore.2',
    'bore.3',
    'bore.4',
    'piston.1.crown',
    'piston.2.crown',
    'piston.3.crown',
    'piston.4.crown',
    'rings.1.pack',
    'rings.2.pack',
    'rings.3.pack',
    'rings.4.pack',
  );
  c.sound(
    'piston.1.skirt.thrust',
    'piston.2.skirt.thrust',
    'piston.3.skirt.thrust',
    'piston.4.skirt.thrust',
    'piston.1.skirt.antithrust',
    'piston.2.skirt.antithrust',
    'piston.3.skirt.antithrust',
    'piston.4.skirt.antithrust',
  );
  for (const m of [1, 3, 4, 5]) c.sound(`main.${m}.shell.upper`, `crank.main.${m}`);
  for (const m of [1, 3, 4, 5])
    c.stroke(`main.${m}.shell.lower`, 'polished', 5.5, [
      [0.3, 0.5],
      [0.7, 0.5],
    ]).finding(`main.${m}.shell.lower`, 1, ['normal-bedding']);
  for (const r of [1, 3, 4]) {
    c.stroke(`rod.${r}.shell.upper`, 'polished', 5, [
      [0.32, 0.5],
      [0.68, 0.5],
    ]).finding(`rod.${r}.shell.upper`, 1, ['normal-bedding']);
    c.sound(`rod.${r}.shell.lower`, `crank.pin.${r}`, `rod.${r}`);
  }
  c.stroke('main.2.shell.upper', 'lining', 9, [
    [0.05, 0.5],
    [0.95, 0.5],
  ])
    .stroke('main.2.shell.upper', 'steel', 6, [
      [0.3, 0.45],
      [0.75, 0.55],
    ])
    .stroke('main.2.shell.upper', 'heat', 3, [
      [0.1, 0.2],
      [0.9, 0.2],
    ]);
  c.picture('main.2.shell.upper', 'main-2-upper-face.jpg').finding(
    'main.2.shell.upper',
    4,
    ['dry-seizure', 'spun-shell'],
    'Tab torn away, back polished bright all round.',
  );
  c.stroke('main.2.shell.lower', 'lining', 8, [
    [0.1, 0.5],
    [0.9, 0.5],
  ])
    .stroke('main.2.shell.lower', 'heat', 4, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
    .picture('main.2.shell.lower', 'main-2-lower-face.jpg')
    .finding('main.2.shell.lower', 4, ['dry-seizure']);
  c.stroke('crank.main.2', 'heat', 7, [
    [0, 0.5],
    [1, 0.5],
  ])
    .stroke('crank.main.2', 'transfer', 3, [
      [0.15, 0.4],
      [0.45, 0.55],
    ])
    .picture('crank.main.2', 'main-journal-2.jpg')
    .finding('crank.main.2', 4, ['journal-heat', 'journal-transfer']);
  c.stroke('rod.2.shell.upper', 'lining', 5.5, [
    [0.25, 0.5],
    [0.75, 0.5],
  ])
    .picture('rod.2.shell.upper', 'rod-2-upper-face.jpg')
    .finding('rod.2.shell.upper', 3, ['wiping'], 'Smeared with rotation, lead beads at the trailing line.');
  c.stroke('rod.2.shell.lower', 'lining', 4, [
    [0.3, 0.55],
    [0.7, 0.5],
  ]).finding('rod.2.shell.lower', 3, ['wiping']);
  c.stroke('crank.pin.2', 'heat', 4, [
    [0.02, 0.5],
    [0.35, 0.5],
  ])
    .line('crank.pin.2', 0.35, 0, 1, 'probe')
    .line('crank.pin.2', 0.62, 0.1, 0.8, 'hair')
    .finding('crank.pin.2', 3, ['journal-heat']);
  c.sound('rod.2', 'main.3.thrust.front', 'main.3.thrust.rear', 'pickup.screen', 'pump.relief', 'gasket.head', 'timing.drive');
  for (const n of [1, 2, 3, 4]) c.sound(`head.${n}`, `valves.${n}`, `cam.${n}`);
  c.sound('oil.gallery', 'oil.cooler', 'bolts.rod', 'bolts.main', 'bolts.head', 'bolts.crank');
  c.picture('rod.2.shell.lower', 'rod-2-lower-face.jpg')
    .picture('rod.1.shell.upper', 'rod-1-upper-face.jpg')
    .picture('rod.3.shell.upper', 'rod-3-upper-face.jpg')
    .picture('crank.pin.2', 'pin-2.jpg');
  c.secondOpinion('rod.2.shell.upper', 3, 'copper on a third of it')
    .secondOpinion('rod.2.shell.lower', 3)
    .secondOpinion('crank.pin.2', 2, 'lines seen, not felt; colour is light');
  c.finding('pan.debris', 3, ['copper-flake'], 'A spoonful of bright copper flake, not magnetic.').finding('filter.media', 2, [
    'copper-flake',
  ]);
  for (const [quantity, spec] of Object.entries(pumpHouseSpecs())) c.entry('spec-set', null, { quantity: quantity as SpecKey, spec });
  c.pin('crank.pin.1', [52.991, 52.988, 52.989, 52.987, 52.99, 52.989])
    .pin('crank.pin.2', [52.978, 52.971, 52.975, 52.966, 52.981, 52.976])
    .pin('crank.pin.3', [52.992, 52.99, 52.991, 52.988, 52.992, 52.991])
    .pin('crank.pin.4', [52.99, 52.989, 52.989, 52.986, 52.991, 52.988]);
  const damaged: Record<string, number> = {
    'crank.main.2': 0.9,
    'main.2.shell.upper': 1,
    'main.2.shell.lower': 0.9,
    'rod.2.shell.lower': 0.6,
    'bore.3': 0.35,
    'gasket.head': 0.3,
  };
  const severity = (station: string): number => damaged[station] ?? 0.06;
  const read = (station: string | null, sheet: string, optional?: readonly string[]): void =>
    void c.gauge(station, sheet, 'pump-house', severity, optional);
  for (const n of [1, 2, 3, 4, 5]) read(`crank.main.${n}`, 'journal');
  read(null, 'crank-runout');
  for (const n of [1, 2, 3, 4, 5]) read(`main.${n}.shell.lower`, 'shell-clearance');
  for (const n of [1, 2, 3, 4]) read(`rod.${n}.shell.lower`, 'shell-clearance');
  for (const n of [1, 2, 3, 4]) {
    read(`bore.${n}`, 'bore', n === 3 ? ['C', 'D'] : []);
    read(`piston.${n}.skirt.thrust`, 'piston');
    read(`rings.${n}.pack`, 'ring.top');
    read(`rod.${n}`, 'side-clearance');
  }
  read('gasket.head', 'deck.1');
  read(null, 'cam.1');
  c.entry('cause-decided', null, {
    cause: 'local-feed',
    decision: 'confirmed',
    reason: 'Upper half of main 2 fitted in the lower seat position of another set: its hole missed the feed, seen in place.',
  });
  c.entry('cause-decided', null, {
    cause: 'oil-low',
    decision: 'rejected',
    reason: 'Level at the upper mark, all other bearings wet and sound.',
  });
  c.entry('answer-set', null, {
    cause: 'local-feed',
    part: 'action',
    item: 'Rod and blow through the feed',
    state: 'done',
    note: 'clear from main 2 to pin 2',
  });
  c.entry('answer-set', null, {
    cause: 'local-feed',
    part: 'collateral',
    item: 'the pins fed through it',
    state: 'done',
    note: 'pin 2 to be ground',
  });
  c.entry('quote-sent', null, {
    quote: 'first',
    route: 'repair',
    currency: 'EUR',
    cost: 3100,
    costHigh: 3600,
    days: 15,
    daysHigh: 22,
    note: 'before the pistons were out',
  });
  c.entry('plan-set', null, {
    route: 'repair',
    deadline: '2026-12-23',
    from: '2026-11-30',
    hoursPerDay: 6,
    workdays: [1, 2, 3, 4, 5],
    budget: 4200,
  });
  c.entry('disposition-set', 'pump.gears', { operation: 'clean', size: '', reason: 'opened and gauged: within limits, no line to feel' });
  c.entry('report-set', null, {
    field: 'conclusion',
    value:
      'Main 2 was not fed because the hole of its upper shell half did not meet the drilling. It ran dry, turned, and took the oil from big end 2. All other bearings were fed and are sound. The oil level and the pump had no part in it.',
  });
  c.entry('report-set', null, {
    field: 'actions',
    value: 'Crank to be ground, main housing 2 to be gauged before any shell is ordered, every feed rodded and blown through at assembly.',
  });
  return { number: '2026-D01', steps: c.steps };
}

/** The fire-pump engine stripped to the last plug, one hold passed over. */
function firePumpStrip(c: CaseScript): void {
  const head = [62, 64, 60, 66, 63, 61, 65, 62, 64, 60];
  c.bolts('head-0', Object.fromEntries(head.map((v, i) => [String(i + 1), String(v)])));
  for (const n of [1, 2, 3, 4]) {
    c.bolts(`rod.${n}`, { a: String(46 + n), b: String(48 + (n % 2)) });
    c.entry('cap-checked', null, { cap: `rod.${n}`, number: String(n), agrees: true, joint: 'imperceptible', note: '' });
  }
  for (const n of [1, 2, 3, 4, 5]) {
    c.bolts(`main.${n}`, { a: String(76 + n), b: n === 2 ? '52' : String(78 + (n % 3)) });
    c.entry('cap-checked', null, { cap: `main.${n}`, number: String(n), agrees: true, joint: 'imperceptible', note: '' });
  }
  for (const [index, [cap, text]] of (
    [
      ['', '60'],
      ['main.1', '57'],
      ['main.3', '54'],
      ['main.2', '14'],
      ['main.4', '12'],
      ['main.5', '10'],
    ] as const
  ).entries())
    c.entry('ease-torque', null, { index, cap, text, unit: 'N·m', newtonMetre: Number(text) });
  c.entry('expectation', null, {
    expectation: randomUUID(),
    step: 'pan',
    text: 'No metal in the pan if the level was the cause and it was stopped at once',
    held: false,
  });
  for (const part of ['rod.1', 'rod.3', 'rod.4', 'main.1', 'main.3', 'main.4', 'main.5', 'rod.2', 'main.2'])
    c.noted(`shells-in-place:${part}`, part === 'main.2' ? 'upper half a quarter turn round' : 'in their seats, hole on the feed');
  c.noted('gasket-faces', 'both faces clean, no trace between the holes').noted(
    'pan-as-found',
    'copper flake over the whole floor, sludge line level',
  );
  c.noted('filter-kept', 'kept upright, cut open on the bench')
    .noted('liquid', 'all crowns dry')
    .noted('piston-rock', 'even, all four')
    .noted('contact-order', 'in the rack, in order')
    .noted('rod-play', '0.20 to 0.25 mm, all four')
    .passedOver('arrival', 'came at night, pictures of two sides only and those lost with a telephone')
    .noted('all-recorded', 'bags 1 to 31 closed');
  const steps = stripSteps(c.engine);
  for (const s of steps) for (const b of s.bags) if (b.count !== null) c.entry('bag-set', null, { bag: b.id, counted: b.count, note: '' });
  c.done(...steps.map((s) => s.id));
}

function workboat(): DemoCase {
  const c = new CaseScript('Workboat main engine: low pressure since the refit', layout('inline-4-diesel', { boreMm: 102, strokeMm: 115 }));
  c.intake({
    reference: 'Workboat “Saltmarsh Wren”',
    questionOwner: 'private',
    question: 'What wore the new bearings in 300 hours?',
    complaint: 'low-pressure,metal-in-oil',
    complaintWords: 'Pressure has crept down since the winter refit.',
    onset: 'gradual',
    afterFirstSign: 'driven-on',
    received: 'Engine on a pallet, pan on, injectors out.',
    firstImpression: 'pump-worn',
  });
  c.history('Block was bead-blasted and painted at the refit', 'told', 'told.recent-work', '2026-01-20').history(
    'Filter cut open by the crew: glittering',
    'told',
    null,
    '2026-09-14',
  );
  c.received('Block with crank and pistons in', 'received')
    .received('Injectors and injector pump', 'already-off', 'crew')
    .buildMark('paint', 'Fresh paint over old gaskets, beads of blast media under the cover', 'opened-before')
    .question('client', 'Who blasted the block, and were the galleries open when it was done?');
  c.check('dipstick', 'level', ['between'])
    .check('dipstick', 'look', ['dark', 'glitter'])
    .check('coolant', 'level', ['full'])
    .check('magnet', 'clings', ['fuzz']);
  c.check('turning', 'feel', ['free']);
  c.done('arrival', 'isolate', 'turn').passedOver('oil-sample', 'drained by the crew before it came').done('drain-oil');
  const scored = (station: string, n: number, grade: Grade): void => {
    for (let k = 0; k < n; k++) c.line(station, 0.12 + (0.76 * (k + 0.4)) / n, 0.08, 0.92, k % 3 === 0 ? 'through' : 'probe');
    for (let k = 0; k < n * 2; k++) {
      const u = 0.15 + ((k * 37) % 70) / 100;
      c.stroke(station, 'embedded', 0.8, [[u, 0.15 + ((k * 53) % 70) / 100]]);
    }
    c.finding(station, grade, ['scoring', 'embedded']);
  };
  scored('main.1.shell.lower', 7, 3);
  c.picture('main.1.shell.lower', 'main-1-lower-face.jpg');
  scored('main.2.shell.lower', 6, 3);
  scored('main.3.shell.lower', 4, 2);
  c.picture('main.3.shell.lower', 'main-3-lower-face.jpg');
  scored('rod.1.shell.upper', 5, 3);
  scored('rod.2.shell.upper', 4, 2);
  c.sound('main.1.shell.upper', 'main.2.shell.upper', 'main.3.shell.upper', 'rod.1.shell.lower', 'rod.2.shell.lower', 'bore.1', 'bore.2');
  c.line('crank.main.1', 0.3, 0, 1, 'nail')
    .line('crank.main.1', 0.5, 0, 1, 'probe')
    .line('crank.main.1', 0.72, 0, 1, 'probe')
    .picture('crank.main.1', 'main-journal-1.jpg')
    .finding('crank.main.1', 3, ['journal-scoring']);
  c.finding('pump.gears', 2, ['pump-scored']).finding('pan.debris', 2, ['grit'], 'Glassy beads between the flakes, they scratch a slide.');
  return { number: '2026-D02', steps: c.steps };
}

function icePlant(): DemoCase {
  const c = new CaseScript('Ice plant generator set: opened at 12 000 h', layout('inline-6-diesel'));
  c.intake({
    reference: 'Ice plant, set A',
    questionOwner: 'inspection',
    question: 'Can it run to 16 000 h?',
    complaint: 'none',
    complaintWords: 'No complaint. Planned inspection.',
    received: 'Engine in place, pan lowered, two caps off at a time.',
    firstImpression: 'normal-wear',
  });
  c.history('Oil and filter every 250 h, log complete', 'seen', 'told.long-service', '2026-11-02');
  c.looked('fluid.level-low', false, 'Level right')
    .looked('fluid.milky', false, 'Not milky')
    .looked('fluid.black-sludge', false, 'Clean under the cover');
  for (const m of [1, 2, 4])
    c.stroke(`main.${m}.shell.lower`, 'polished', 7, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
      .finding(`main.${m}.shell.lower`, 1, ['normal-bedding'])
      .sound(`main.${m}.shell.upper`, `crank.main.${m}`);
  for (const r of [1, 2, 3])
    c.stroke(`rod.${r}.shell.upper`, 'polished', 7, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
      .finding(`rod.${r}.shell.upper`, 1, ['normal-bedding'])
      .sound(`rod.${r}.shell.lower`, `crank.pin.${r}`, `rod.${r}`);
  c.picture('rod.1.shell.upper', 'rod-1-upper-face.jpg').sound('pan.debris', 'filter.media', 'pickup.screen');
  return { number: '2026-D03', steps: c.steps };
}

function outboard(): DemoCase {
  const c = new CaseScript('Outboard: seized under way', layout('twin-premix', { shaft: 'upright' }));
  c.intake({
    reference: 'Harbour tender 3',
    questionOwner: 'own',
    complaint: 'seized',
    complaintWords: 'Slowed by itself, then stopped. Turns again when cold.',
    onset: 'sudden',
    afterFirstSign: 'restarted',
    firstImpression: 'none-yet',
  });
  c.history('Tank filled from the wrong can the day before', 'told', 'told.premix-missed', '2026-11-19');
  c.check('fuel', 'look', ['none']).check('turning', 'feel', ['tight']).each('compression', 'dry', ['3.1', '6.2'], 'bar');
  c.done('isolate');
  return { number: '2026-D04', steps: c.steps };
}

/** The demo scenario: a harbour-side engine works on an invented estuary. Nothing in it is real. */
export function demoCases(): DemoCase[] {
  return [firePump(), workboat(), icePlant(), outboard()];
}

const UNDERSIZES = [0.25, 0.5, 0.75, 1];
const PUMP_HOUSE = 'Spec sheet of the pump house, sheet 4';

/** Sizes and limits of the pump house four, as its sheet gives them. */
function pumpHouseSpecs(): SpecSheet['specs'] {
  const source = PUMP_HOUSE;
  const journal = { outOfRoundMaxMm: 0.008, taperMaxMm: 0.008, undersizesMm: UNDERSIZES, source };
  return {
    'crank.pin': { minMm: 52.984, maxMm: 53, ...journal },
    'crank.main': { minMm: 57.984, maxMm: 58, ...journal },
    'crank.runout': { limits: { runout: { upper: 0.04 } }, source },
    'main.clearance': { newWallMm: 2, limits: { vertical: { lower: 0.025, upper: 0.07 } }, source },
    'rod.clearance': { newWallMm: 1.5, limits: { vertical: { lower: 0.025, upper: 0.065 } }, source },
    'rod.side': { limits: { sideClearance: { lower: 0.1, upper: 0.35 } }, source },
    bore: {
      minMm: 84,
      maxMm: 84.018,
      oversizesMm: UNDERSIZES,
      limits: { wear: { upper: 0.1 }, ovality: { upper: 0.03 }, taper: { upper: 0.05 } },
      source,
    },
    piston: { limits: { clearance: { lower: 0.03, upper: 0.09 } }, source },
    'ring.top': { limits: { gap: { lower: 0.25, upper: 0.6 }, side: { lower: 0.03, upper: 0.1 } }, source },
    deck: { limits: { flatness: { upper: 0.05 } }, source },
  };
}

/** Engines the demo shop has entered once. */
export function demoSheets(): SheetRequest[] {
  const workboatBook = 'Workshop book of the harbour works, page 31';
  return [
    {
      id: 'pump-house-four',
      basedOn: 0,
      name: 'Pump house four, petrol',
      source: PUMP_HOUSE,
      layout: layout('inline-4-petrol', { boreMm: 84, strokeMm: 88, pinDiameterMm: 53, mainDiameterMm: 58 }),
      specs: pumpHouseSpecs(),
      limits: [
        { quantity: 'end-float', lower: 0.07, upper: 0.25, unit: 'mm' },
        { quantity: 'compression', lower: 10.5, upper: null, unit: 'bar' },
        { quantity: 'oil-pressure.hot-idle', lower: 1, upper: null, unit: 'bar' },
      ],
    },
    {
      id: 'estuary-six',
      basedOn: 0,
      name: 'Estuary six, diesel',
      source: workboatBook,
      layout: layout('inline-6-diesel'),
      specs: {
        'crank.pin': { minMm: 61.98, maxMm: 62, outOfRoundMaxMm: 0.02, taperMaxMm: 0.02, undersizesMm: UNDERSIZES, source: workboatBook },
        'rod.side': { limits: { sideClearance: { lower: 0.1, upper: 0.35 } }, source: workboatBook },
      },
      limits: [{ quantity: 'end-float', lower: 0.1, upper: 0.4, unit: 'mm' }],
    },
  ];
}
