import fc from 'fast-check';
import { benchPlan, neighbourOnBench } from './bench.js';
import { cylinderPlaces, firingIntervals, mainPositions, mainsBesidePin, pinCount, serviceAge, type EngineLayout } from './layout.js';
import { fedBy, isUnfiltered, oilRoute, routeDistance } from './oilRoute.js';
import { planDrawing } from './plan.js';
import {
  isNamedBy,
  journalOf,
  matchesStation,
  neighbourOf,
  partnerOf,
  shellsOn,
  shellConstructionAt,
  stationOf,
  stationsOf,
} from './stations.js';
import { ENGINE_TEMPLATES, engineTemplate } from './templates.js';
import { validateLayout } from './validate.js';

const layout = (id: string, change: Partial<EngineLayout> = {}): EngineLayout => ({ ...engineTemplate(id)!.layout, ...change });
const four = layout('inline-4-petrol');

describe('templates', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))('%s contradicts itself nowhere', (_, l) =>
    expect(validateLayout(l)).toEqual([]),
  );
  it('carry their own id', () => expect(ENGINE_TEMPLATES.every((t) => t.layout.template === t.id)).toBe(true));
});

describe('firing intervals', () => {
  it.each([
    ['inline-4-petrol', [180, 180, 180, 180]],
    ['inline-3-diesel', [240, 240, 240]],
    ['inline-6-diesel', [120, 120, 120, 120, 120, 120]],
    ['vee-8-petrol', [90, 90, 90, 90, 90, 90, 90, 90]],
    ['single-splash', [720]],
    ['twin-premix', [180, 180]],
  ])('%s', (id, expected) => expect(firingIntervals(layout(id))).toEqual(expected));
  it('is null for an order that does not go round in one cycle', () =>
    expect(firingIntervals(layout('inline-4-petrol', { firingOrder: [1, 2, 3, 4] }))).toBeNull());
});

describe('contradictions', () => {
  it.each<[string, Partial<EngineLayout>, string]>([
    ['firing order of the wrong length', { firingOrder: [1, 3, 4] }, 'firingOrder'],
    ['a cylinder named twice', { firingOrder: [1, 3, 3, 2] }, 'firingOrder'],
    ['an order the throws do not allow', { firingOrder: [1, 2, 3, 4] }, 'firingOrder'],
    ['too many mains', { mains: 7 }, 'mains'],
    ['thrust on a main that is not there', { thrustMain: 6 }, 'thrustMain'],
    ['shared pins in line', { crankpins: 'shared' }, 'crankpins'],
    ['no cylinders', { cylinders: 0 }, 'cylinders'],
    ['a bore of nothing', { boreMm: 0 }, 'boreMm'],
    ['a rod shorter than the throw', { rodLengthMm: 40 }, 'rodLengthMm'],
    ['premix in a four-stroke', { lubrication: 'premix' }, 'lubrication'],
    ['throws for other pins', { throwAnglesDeg: [0, 180] }, 'throwAnglesDeg'],
    ['a flat engine at 90°', { arrangement: 'flat', bankAngleDeg: 90 }, 'bankAngleDeg'],
  ])('%s', (_, change, field) => expect(validateLayout({ ...four, ...change }).map((p) => p.field)).toContain(field));
  it('five mains on a single', () => {
    const problems = validateLayout(layout('single-splash', { mains: 5 }));
    expect(problems).toHaveLength(1);
    expect(problems[0]?.sentence).toContain('room for 2');
  });
});

describe('places', () => {
  it('numbers a V along each bank', () => {
    const places = cylinderPlaces(layout('vee-8-petrol'));
    expect(places.filter((p) => p.bank === 0).map((p) => p.cylinder)).toEqual([1, 2, 3, 4]);
    expect(places.find((p) => p.cylinder === 5)).toMatchObject({ bank: 1, pin: 0 });
  });
  it('numbers a V alternating', () => {
    const places = cylinderPlaces(layout('vee-8-petrol', { numbering: 'alternating' }));
    expect(places.filter((p) => p.bank === 0).map((p) => p.cylinder)).toEqual([1, 3, 5, 7]);
  });
  it('counts from the flywheel when cylinder 1 is there', () =>
    expect(cylinderPlaces({ ...four, cylinderOneEnd: 'flywheel' })[0]).toMatchObject({ cylinder: 1, pin: 3 }));
  it('puts three mains of a four between pairs', () => {
    const three = { ...four, mains: 3 };
    expect(mainPositions(three)).toEqual([0, 2, 4]);
    expect(mainsBesidePin(three, 1)).toEqual([1, 2]);
  });
});

describe('stations', () => {
  it('gives the inline four its shells, pins, mains and oil side', () => {
    const ids = stationsOf(four).map((s) => s.id);
    expect(ids).toEqual(
      expect.arrayContaining([
        'main.2.shell.upper',
        'main.3.thrust.rear',
        'crank.main.2',
        'crank.pin.3',
        'rod.4.shell.lower',
        'piston.1.crown',
        'piston.1.skirt.thrust',
        'bore.1',
        'pump.gears',
        'pan.debris',
      ]),
    );
    expect(new Set(ids).size).toBe(ids.length);
  });
  it('gives no shells or pump to splash and premix engines', () => {
    for (const id of ['single-splash', 'twin-premix']) {
      const ids = stationsOf(layout(id)).map((s) => s.id);
      expect(ids.some((x) => x.includes('shell') || x.startsWith('pump'))).toBe(false);
      expect(ids.some((x) => x.includes('rollers'))).toBe(true);
    }
  });
  it('matches patterns step by step', () => {
    expect(matchesStation('rod.*.shell.*', 'rod.2.shell.upper')).toBe(true);
    expect(matchesStation('rod.*', 'rod.2.shell.upper')).toBe(false);
    expect(matchesStation('rod.**', 'rod.2.shell.upper')).toBe(true);
    expect(matchesStation('main.*.shell.upper', 'main.1.shell.lower')).toBe(false);
  });
});

describe('what an engine is made of in part', () => {
  it('has shells of more than one construction, the last pattern that names a place counting', () => {
    const mixed = { ...four, otherShells: { 'main.**': 'coated', 'main.3.shell.lower': 'aluminium-bimetal' } } as const;
    expect(['rod.1.shell.upper', 'main.1.shell.lower', 'main.3.shell.lower'].map((id) => shellConstructionAt(mixed, id))).toEqual([
      'trimetal',
      'coated',
      'aluminium-bimetal',
    ]);
    expect(validateLayout(mixed)).toEqual([]);
    expect(validateLayout({ ...four, otherShells: { 'bore.*': 'coated' } })[0]!.sentence).toContain('bore.*');
  });
  it('has corners of every ring pack, and sides of the skirt at the ports', () => {
    const named = (l: EngineLayout, stem: string): string[] => stationsOf(l).flatMap((s) => (s.id.startsWith(stem) ? [s.name] : []));
    expect(named(four, 'rings.2.')).toEqual([
      'Rings 2',
      'Rings 2, thrust corner',
      'Rings 2, anti-thrust corner',
      'Rings 2, front corner',
      'Rings 2, rear corner',
    ]);
    const corner = stationOf(four, 'rings.2.thrust')!;
    expect(['rings.*.*', 'rings.**', 'rings.2.*'].some((p) => isNamedBy(p, corner))).toBe(false);
    expect(['rings.*.thrust', 'rings.2.thrust'].every((p) => isNamedBy(p, corner))).toBe(true);
    expect(named(layout('twin-premix'), 'piston.1.skirt.')).toEqual(expect.arrayContaining(['Piston 1 skirt, exhaust side']));
  });
});

describe('oil route', () => {
  it('feeds a pin from the main in front of it', () => {
    const route = oilRoute(four);
    expect(fedBy(route, 'main.2')).toEqual(['rod.2']);
    expect(fedBy(route, 'pump')).toEqual(expect.arrayContaining(['main.5', 'rod.4']));
    expect(routeDistance(four, stationOf(four, 'rod.3.shell.upper')!)).toBe(4);
    expect(stationOf(four, 'crank.pin.2')!.bearing).toBe('rod.2');
  });
  it('feeds both rods of a shared pin from one main', () =>
    expect(fedBy(oilRoute(layout('vee-8-petrol')), 'main.1')).toEqual(['rod.1', 'rod.5']));
  it('feeds a branch before the filter past it, and counts no distance along the gallery there', () => {
    const branch = { ...four, unfiltered: ['main.2', 'turbo'] };
    const route = oilRoute(branch);
    expect(fedBy(route, 'filter')).not.toContain('main.2');
    expect(fedBy(route, 'pump')).toEqual(expect.arrayContaining(['main.2', 'rod.2', 'turbo']));
    expect(isUnfiltered(branch, stationOf(branch, 'rod.2.shell.upper')!)).toBe(true);
    expect(routeDistance(branch, stationOf(branch, 'rod.2.shell.upper')!)).toBeNull();
    expect(isUnfiltered(branch, stationOf(branch, 'main.3.shell.upper')!)).toBe(false);
    expect(validateLayout({ ...four, unfiltered: ['main.9'] })[0]!.sentence).toContain('main.9');
    expect(validateLayout({ ...layout('twin-premix'), unfiltered: ['main.1'] })[0]!.field).toBe('unfiltered');
  });
  it('knows no distance without pressure', () =>
    expect(
      stationsOf(layout('twin-premix'))
        .map((s) => routeDistance(layout('twin-premix'), s))
        .filter((d) => d !== null),
    ).toEqual([]));
});

describe('bench', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: every station has one cell, none overlaps, all lie inside',
    (_, l) => {
      const plan = benchPlan(l, new Set(stationsOf(l).map((s) => s.id)));
      const ids = plan.rows.flatMap((r) => r.cells.map((c) => c.station.id));
      expect([...ids].sort()).toEqual(
        stationsOf(l)
          .map((s) => s.id)
          .sort(),
      );
      for (const row of plan.rows.filter((r) => r.kind !== 'oil')) {
        let edge = 0;
        for (const c of row.cells) {
          expect(c.column).toBeGreaterThanOrEqual(edge);
          edge = c.column + c.span;
        }
        expect(edge).toBeLessThanOrEqual(plan.columns);
      }
    },
  );
  it('moves along a row and to the nearest cell of the next', () => {
    const plan = benchPlan(four);
    expect(neighbourOnBench(plan, 'main.1.shell.upper', 'right')).toBe('main.2.shell.upper');
    expect(neighbourOnBench(plan, 'rod.2.shell.upper', 'down')).toBe('crank.pin.2');
    expect(neighbourOnBench(plan, 'bore.1', 'up')).toBe('head.1');
    expect(neighbourOnBench(plan, 'cam.1', 'up')).toBe('cam.1');
    expect(neighbourOnBench(plan, 'main.1.shell.upper', 'left')).toBe('main.1.shell.upper');
  });
  it('reaches every cell by arrows alone', () => {
    const plan = benchPlan(four);
    const seen = new Set([plan.rows[0]!.cells[0]!.station.id]);
    for (const id of seen) for (const d of ['up', 'down', 'left', 'right'] as const) seen.add(neighbourOnBench(plan, id, d));
    // Places beside the running parts lie there once something is written of them.
    expect(seen.size).toBe(stationsOf(four).filter((s) => !s.aside).length);
    expect(
      benchPlan(four, new Set(['turbo']))
        .rows.at(-1)
        ?.cells.map((c) => c.station.id),
    ).toEqual(['turbo']);
  });
});

describe('plan drawing', () => {
  it('keeps every bore and main inside the drawing', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ENGINE_TEMPLATES), fc.double({ min: 40, max: 200, noNaN: true }), (t, boreMm) => {
        const plan = planDrawing({ ...t.layout, boreMm });
        for (const b of plan.bores) {
          expect(b.x - b.r).toBeGreaterThanOrEqual(-1e-9);
          expect(b.x + b.r).toBeLessThanOrEqual(plan.widthMm + 1e-9);
        }
        expect(plan.bores).toHaveLength(t.layout.cylinders);
        expect(plan.mains).toHaveLength(t.layout.mains);
        expect(pinCount(t.layout)).toBeGreaterThan(0);
      }),
    );
  });
});

describe('what a station knows of itself', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))('%s: partners, journals and shells find each other', (_, engine) => {
    const all = stationsOf(engine);
    for (const s of all) {
      const partner = partnerOf(engine, s);
      expect([s.id, partner ? partnerOf(engine, partner) : null]).toEqual([s.id, partner ? s : null]);
      if (s.half) expect(partner).toMatchObject({ unit: s.unit, bearing: s.bearing, half: s.half === 'upper' ? 'lower' : 'upper' });
      const next = neighbourOf(engine, s, 1);
      if (next) expect(neighbourOf(engine, next, -1)).toBe(s);
      if (s.part === 'journal') for (const shell of shellsOn(engine, s)) expect(journalOf(engine, shell)).toBe(s);
      if (s.bearing) expect(s.carries).toBe(s.bearing.startsWith('main.') ? 'crank' : 'rod');
    }
    const shells = all.filter((s) => s.part === 'shell');
    expect(all.filter((s) => s.part === 'journal').flatMap((j) => shellsOn(engine, j)).length).toBe(shells.length);
  });
  it('two rods of one pin share its journal, and the pin goes by the first of them', () => {
    const vee = ENGINE_TEMPLATES.find((t) => t.layout.crankpins === 'shared' && t.layout.cylinders >= 4)!.layout;
    const pin = stationOf(vee, 'crank.pin.1')!;
    const rods = new Set(shellsOn(vee, pin).map((s) => s.unit));
    expect(rods.size).toBe(2);
    expect(rods).toContain(pin.bearing);
    expect(pin.unit).toBe('crank');
  });
  it('has neither partner nor neighbour where the engine has but one', () => {
    const four = layout('inline-4-petrol');
    const pump = stationOf(four, 'pump.gears')!;
    expect([partnerOf(four, pump), neighbourOf(four, pump, 1), journalOf(four, pump)]).toEqual([undefined, undefined, undefined]);
    expect(neighbourOf(four, stationOf(four, 'bore.4')!, 1)).toBeUndefined();
    expect(stationOf(four, 'wing.1')).toBeUndefined();
  });
});

describe('the oil route of an engine without pressure', () => {
  it.each([
    ['single-splash', 'dipper', /dipper or slinger/],
    ['twin-premix', 'mixture', /with the mixture/],
  ])('%s: every rod is reached by the %s, and nothing lies beyond it', (template, medium, rule) => {
    const found =
      engineTemplate(template) ?? ENGINE_TEMPLATES.find((t) => t.layout.lubrication === (medium === 'mixture' ? 'premix' : 'splash'))!;
    const route = oilRoute(found.layout);
    expect(route.rule).toMatch(rule);
    expect(fedBy(route, medium)).toHaveLength(found.layout.cylinders);
    expect(
      stationsOf(found.layout)
        .map((s) => routeDistance(found.layout, s))
        .filter((d) => d !== null),
    ).toEqual([]);
  });
});

describe('service', () => {
  const four = layout('inline-4-petrol');
  it('is old by any figure stated, fresh by all of them, and middling where none is', () => {
    expect(serviceAge(four)).toBe('middling');
    expect(serviceAge({ ...four, hours: 12_000, ageYears: 1 })).toBe('old');
    expect(serviceAge({ ...four, distanceKm: 160_000 })).toBe('old');
    expect(serviceAge({ ...four, hours: 40, ageYears: 1 })).toBe('fresh');
    expect(serviceAge({ ...four, hours: 40, ageYears: 9 })).toBe('middling');
    expect(serviceAge({ ...four, hours: 4999, distanceKm: 149_999, ageYears: 14 })).toBe('middling');
  });
});
