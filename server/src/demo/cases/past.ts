import { CAUSES, FEATURES, STRENGTH, type Cause } from '@true-ledger/core/cause';
import { PATTERNS, type Grade } from '@true-ledger/core/damage';
import { engineTags, stationsOf, applies, type EngineLayout } from '@true-ledger/core/engine';
import { seeded } from '@true-ledger/core/specimen';
import { randomUUID } from 'node:crypto';
import { CaseScript, layout, type DemoCase } from '../caseScript.js';

/** Kinds of engine that came, how often, and what tends to go in them. */
const KINDS: ReadonlyArray<{ readonly template: string; readonly name: string; readonly share: number; readonly goes: readonly string[] }> =
  [
    {
      template: 'inline-4-diesel',
      name: 'Workboat diesel',
      share: 14,
      goes: ['normal-wear', 'fuel-in-oil', 'dust-intake', 'coolant-in-oil', 'local-feed'],
    },
    { template: 'inline-4-petrol', name: 'Launch engine', share: 11, goes: ['oil-low', 'gasket-fault', 'oil-low', 'detonation', 'surge'] },
    {
      template: 'inline-6-diesel',
      name: 'Generator set',
      share: 8,
      goes: ['normal-wear', 'foreign-debris', 'gasket-fault', 'torque-fault'],
    },
    { template: 'inline-6-petrol', name: 'Pump engine', share: 7, goes: ['cam-hardening', 'oil-old', 'coolant-lost', 'cam-hardening'] },
  ];

/** A past case, small: what was seen and told, what was held to be the cause, and what became of it. */
function pastCase(n: number): DemoCase {
  const random = seeded(7000 + n);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  const kind = pick(KINDS.flatMap((k) => Array.from({ length: k.share }, () => k)));
  const engine = layout(kind.template);
  const goes = pick(kind.goes);
  const truth = CAUSES.find((c) => c.id === goes)!;
  const year = 2020 + Math.floor(n / 8);
  const c = new CaseScript(`${kind.name} ${n + 1}: ${pick(['knock', 'low pressure', 'smoke', 'no power', 'seized', 'noise'])}`, engine);
  c.intake({
    reference: `Berth ${1 + ((n * 7) % 23)}`,
    questionOwner: pick(['private', 'own', 'insurer']),
    complaint: pick(['knock', 'smoke', 'low-pressure', 'noise']),
  });
  observe(c, engine, truth, random);
  // One in five was taken for something that looks like it.
  const others = kind.goes.filter((id) => id !== truth.id);
  const held = random() < 0.2 && others.length > 0 ? pick(others) : truth.id;
  c.entry('cause-decided', null, { cause: held, decision: 'confirmed', reason: 'what was found fits it best' });
  const cost = Math.round(900 + random() * 6000);
  c.entry('quote-sent', null, {
    quote: randomUUID(),
    route: 'rebuild',
    currency: 'EUR',
    cost,
    costHigh: Math.round(cost * 1.4),
    days: 4 + Math.floor(random() * 12),
    daysHigh: 22,
    note: '',
  });
  const known = random();
  const on = `${year + (n % 8 > 5 ? 1 : 0)}-${String(1 + (n % 12)).padStart(2, '0')}-15`;
  const paid = { cost: Math.round(cost * (0.85 + 0.5 * random())), days: 4 + Math.floor(random() * 18) };
  const what = {
    on,
    by: pick(['later-strip', 'test', 'laboratory'] as const),
    service: Math.round(200 + random() * 2000),
    ...paid,
    note: '',
  };
  if (known < 0.7)
    c.entry(
      'outcome-set',
      null,
      held === truth.id ? { ...what, outcome: 'proved', cause: null } : { ...what, outcome: 'disproved', cause: truth.id },
    );
  else if (known < 0.9) c.entry('outcome-set', null, { ...what, by: 'owner', outcome: 'ran-on', cause: null });
  c.entry('case-shelved', null, { as: 'archived', reason: 'given back' });
  return { number: `${year}-P${String(n + 1).padStart(2, '0')}`, steps: c.steps };
}

/** What a cause left behind, drawn by how strongly it does, and a few things looked for that were not there. */
function observe(c: CaseScript, engine: EngineLayout, truth: Cause, random: () => number): void {
  const tags = engineTags(engine);
  const known = new Map(FEATURES.filter((f) => applies(f.needs, tags)).map((f) => [f.id, f]));
  const stations = stationsOf(engine);
  const seen = new Set<string>();
  const used = new Set<string>();
  for (const link of truth.links) {
    const f = known.get(link.feature);
    if (!f || link.prevents || f.likened || random() > STRENGTH[link.strength]) continue;
    seen.add(f.id);
    const pattern = PATTERNS.find((p) => p.feature === f.id);
    const places = pattern ? stations.filter((s) => !s.aside && f.parts?.includes(s.part) && !used.has(s.id)) : [];
    if (pattern && places.length > 0) {
      const station = places[Math.floor(random() * places.length)]!.id;
      used.add(station);
      const grade = 1 + Math.floor(random() * 4);
      c.finding(station, grade as Grade, [pattern.id]);
      // Two hands agree at seven places of ten, and lie one apart else.
      if (random() < 0.4) c.secondOpinion(station, (random() < 0.7 ? grade : grade === 4 ? 3 : grade + 1) as Grade);
    } else if (f.kind === 'told') c.history(f.name, 'told', f.id);
    else if (f.kind === 'measured' || f.kind === 'fluid') c.looked(f.id, true, 'on record');
  }
  const absent = [...known.values()].filter(
    (f) => (f.kind === 'fluid' || f.kind === 'measured') && !f.likened && !seen.has(f.id) && f.damage,
  );
  for (let k = 0; k < 5; k++) {
    const f = absent.splice(Math.floor(random() * absent.length), 1)[0];
    if (f && !truth.links.some((l) => l.feature === f.id && !l.prevents)) c.looked(f.id, false, 'looked for');
  }
}

/** Two earlier strips of the ferry's starboard engine. */
function ferryBefore(): DemoCase[] {
  const ferry = (change: string): CaseScript =>
    new CaseScript(`Ferry, starboard engine: ${change}`, layout('inline-4-diesel', { boreMm: 108, strokeMm: 130 }));
  const deck = ferry('coolant on the deck');
  deck.intake({ reference: 'Ferry “Marsh Harrier”, starboard engine', questionOwner: 'own', complaint: 'overheating', onset: 'sudden' });
  deck.history('The header tank went empty twice in a week', 'seen', 'told.overheated', '2022-03-02');
  deck.looked('fluid.coolant-low', true, 'Two litres to fill').looked('fluid.milky', false, 'Oil dark, not milky');
  deck.finding('gasket.head', 3, ['gasket-leak'], 'Washed out between 3 and 4.').sound('bore.1', 'bore.2', 'bore.3', 'bore.4');
  for (const n of [1, 2, 3, 4]) deck.gauge(`bore.${n}`, 'bore', 'ferry', () => 0);
  deck.entry('cause-decided', null, { cause: 'gasket-fault', decision: 'confirmed', reason: 'washed out between 3 and 4, deck flat' });
  deck.entry('outcome-set', null, {
    on: '2023-03-10',
    outcome: 'proved',
    by: 'later-strip',
    cause: null,
    service: 1150,
    cost: 2100,
    days: 6,
    note: 'tight since',
  });
  deck.entry('case-shelved', null, { as: 'archived', reason: 'given back' });
  const fuel = ferry('pressure falls when hot');
  fuel.intake({ reference: 'Ferry “Marsh Harrier”, starboard engine', questionOwner: 'own', complaint: 'low-pressure', onset: 'gradual' });
  fuel.history('Cylinder 2 misses when cold', 'told', 'told.one-cylinder-down', '2024-04-03');
  fuel
    .looked('fluid.fuel-smell', true, 'Thin, smells of fuel')
    .looked('measured.injector-faulty', true, 'Injector 2 dribbles')
    .looked('fluid.milky', false, 'Not milky');
  for (const k of [1, 2, 3, 4]) fuel.finding(`rod.${k}.shell.upper`, 2, ['wiping']).sound(`rod.${k}.shell.lower`, `crank.pin.${k}`);
  // Big ends 1 and 2 ran in coated halves, 3 and 4 in plain ones: the test of the log.
  for (const [k, wide] of [
    [1, 1.2],
    [2, 1.6],
    [3, 3.4],
    [4, 2.9],
  ] as const)
    fuel
      .stroke(`rod.${k}.shell.upper`, 'lining', wide, [
        [0.4, 0.5],
        [0.6, 0.52],
      ])
      .stroke(`rod.${k}.shell.lower`, 'polished', wide / 2, [
        [0.45, 0.5],
        [0.55, 0.5],
      ]);
  fuel.picture('rod.2.shell.upper').picture('rod.3.shell.upper');
  fuel.finding('bore.2', 2, ['bore-washed']);
  for (const n of [1, 2, 3, 4]) fuel.gauge(`bore.${n}`, 'bore', 'ferry', (station) => (station === 'bore.2' ? 0.5 : 0));
  fuel.entry('part-kept', 'pump.gears', {
    kept: true,
    name: 'Oil pump, gears and cover',
    size: 'end clearance 0.06 mm, backlash 0.31 mm',
    place: 'rack 2, bin 4',
    note: 'replaced as a precaution, turns freely',
  });
  fuel.entry('cause-decided', null, { cause: 'fuel-in-oil', decision: 'confirmed', reason: 'injector 2 dribbles, bore 2 washed' });
  fuel.entry('outcome-set', null, {
    on: '2025-05-02',
    outcome: 'proved',
    by: 'test',
    cause: null,
    service: 1200,
    cost: 1650,
    days: 5,
    note: 'with the new injector no fuel in four samples',
  });
  fuel.entry('case-shelved', null, { as: 'archived', reason: 'given back' });
  return [
    { number: '2022-D01', steps: deck.steps },
    { number: '2024-D01', steps: fuel.steps },
  ];
}

/** Cases of earlier years, put away: what the statistics and the shop's own frequencies are made of. */
export const pastCases = (): DemoCase[] => [...ferryBefore(), ...Array.from({ length: 40 }, (_, n) => pastCase(n))];
