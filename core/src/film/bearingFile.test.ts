import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bearingFileSchema, readBearing } from './bearingFile.js';
import { bearingJson } from './filmJson.js';
import { dynamicPaS, kinematic, OIL_GRADES, withFuel } from './viscosity.js';

// A bearing by itself with a table of its load, as others hand it over; what is wrong with it is said in a sentence.
const FILE = {
  format: 'true-ledger/bearing',
  version: 1,
  diameterMm: 50,
  lengthMm: 20,
  diametralClearanceMm: 0.05,
  viscosityPaS: 0.008,
  speedRpm: 3000,
};
const rows = (step = 10, to = 720): string =>
  [
    'angle_deg,fx_N,fy_N',
    ...Array.from({ length: to / step }, (_, i) => `${i * step},${(5000 * Math.cos((i * step * Math.PI) / 180)).toFixed(3)},2000`),
  ].join('\n');
const sentence = (json: unknown, csv?: string): string => {
  const read = readBearing(json, csv);
  return read.ok ? '' : read.problem.sentence;
};

describe('a bearing with a table of its load', () => {
  it('is read as CSV and as JSON alike, with a decimal comma too', () => {
    const csv = readBearing(FILE, rows());
    const load = rows()
      .split('\n')
      .slice(1)
      .map((r) => r.split(',').map(Number))
      .map(([angleDeg, fxN, fyN]) => ({ angleDeg, fxN, fyN }));
    const json = readBearing({ ...FILE, load });
    const comma = readBearing(FILE, rows().replaceAll(',', ';').replaceAll('.', ','));
    if (!csv.ok || !json.ok || !comma.ok) throw new Error('not read');
    expect(csv.value.periodDeg).toBe(720);
    expect(Array.from(json.value.load.x)).toEqual(Array.from(csv.value.load.x));
    expect(Array.from(comma.value.load.x)).toEqual(Array.from(csv.value.load.x));
    expect(csv.value.load.x[0]).toBe(5000);
    // Two turns of the shaft at 3000 a minute.
    expect(csv.value.load.periodS).toBeCloseTo(0.04, 12);
  });

  it('takes a table that begins elsewhere, and one that closes on itself, for the same', () => {
    const shifted = [
      'angle_deg,fx_N,fy_N',
      ...rows().split('\n').slice(37),
      ...rows()
        .split('\n')
        .slice(1, 37)
        .map((r) => r.replace(/^\d+/, (d) => String(Number(d) + 720))),
    ];
    const closed = `${rows()}\n720,5000,2000`;
    const [plain, other, whole] = [readBearing(FILE, rows()), readBearing(FILE, shifted.join('\n')), readBearing(FILE, closed)];
    if (!plain.ok || !other.ok || !whole.ok) throw new Error('not read');
    plain.value.load.x.forEach((x, i) => {
      expect(other.value.load.x[i]).toBeCloseTo(x, 9);
      expect(whole.value.load.x[i]).toBeCloseTo(x, 9);
    });
  });

  it('says what is wrong', () => {
    expect(sentence({ ...FILE, diametralClearanceMm: 0 }, rows())).toMatch(/diametralClearanceMm/);
    expect(sentence({ ...FILE, diametralClearanceMm: 6 }, rows())).toMatch(/no bearing/);
    expect(sentence({ ...FILE, lengthMm: -20 }, rows())).toMatch(/lengthMm/);
    expect(sentence({ ...FILE, speedRpm: 0 }, rows())).toMatch(/speed 0/);
    expect(sentence(FILE, rows().replace('fx_N', 'fx'))).toMatch(/fx_N is missing/);
    expect(sentence(FILE, rows().replace('\n20,', '\n20,x'))).toMatch(/Row 3 has "x/);
    expect(
      sentence(
        FILE,
        rows()
          .split('\n')
          .filter((_, i) => i < 5 || i > 9)
          .join('\n'),
      ),
    ).toMatch(/gap of 60\.0°/);
    expect(sentence(FILE, rows().replace('\n50,', '\n5,'))).toMatch(/does not rise from row 5/);
    expect(sentence(FILE, `${rows()}\n730,1,1`)).toMatch(/more than the 720°/);
    expect(sentence(FILE, 'angle_deg,fx_N,fy_N')).toMatch(/0 rows/);
    expect(
      sentence({
        ...FILE,
        load: [
          { angleDeg: 0, fxN: 0, fyN: 0 },
          { angleDeg: 10, fxN: 0, fyN: 0, speedRadS: 3 },
        ],
      }),
    ).toMatch(/1 of 2 rows/);
    expect(sentence(FILE, rows(10, 360).replace(/,[-\d.]+,2000/g, ',0,0'))).toMatch(/holds no load/);
    expect(sentence({ ...FILE, colour: 'blue' }, rows())).toMatch(/colour/);
  });

  it('answers with the film, the short bearing beside it, and the orbit', () => {
    const read = readBearing(FILE, rows());
    if (!read.ok) throw new Error(read.problem.sentence);
    const json = bearingJson(read.value, 5) as {
      film: { minimumFilmUm: number; settled: boolean };
      shortOverFinite: number;
      orbit: { angleDeg: number[]; filmUm: number[] };
    };
    expect(json.film.settled).toBe(true);
    expect(json.film.minimumFilmUm).toBeLessThanOrEqual(Math.min(...json.orbit.filmUm));
    expect(json.orbit.angleDeg).toHaveLength(144);
    expect(json.shortOverFinite).toBeGreaterThan(1);
  });
});

describe('what stands against a film', () => {
  const doubts = (more: object, csv = rows()): string[] => {
    const read = readBearing({ ...FILE, ...more }, csv);
    if (!read.ok) throw new Error(read.problem.sentence);
    return (bearingJson(read.value, 90) as { doubts: string[] }).doubts;
  };
  it('is nothing for a bearing as they are', () => expect(doubts({})).toEqual([]));
  it('is a width nobody solved, contact, an orbit that never closes', () => {
    expect(doubts({ lengthMm: 100 })[0]).toMatch(/width is 2\.00 of the diameter; films were solved from 0\.15 to 1\.4/);
    expect(doubts({ viscosityPaS: 1e-5 }, rows().replaceAll(',2000', ',900000')).join(' ')).toMatch(/this is contact/);
    const whirl = [
      'angle_deg,fx_N,fy_N',
      ...Array.from({ length: 72 }, (_, i) => `${i * 5},${3000 * Math.cos((i * Math.PI) / 36)},${3000 * Math.sin((i * Math.PI) / 36)}`),
    ].join('\n');
    expect(doubts({ speedRpm: 6000, crankSpeedRpm: 3000 }, whirl).join(' ')).toMatch(/did not meet itself in 60 periods/);
  });
});

describe('oil', () => {
  it('has the viscosities it was given, and Walther’s between', () => {
    const oil = OIL_GRADES['15W-40']!;
    expect(kinematic(oil, 40)).toBeCloseTo(oil.at40, 9);
    expect(kinematic(oil, 100)).toBeCloseTo(oil.at100, 9);
    const middle = kinematic(oil, 70);
    expect(middle).toBeGreaterThan(oil.at100);
    expect(middle).toBeLessThan(Math.sqrt(oil.at40 * oil.at100) * 1.05);
    expect(dynamicPaS(oil, 100)).toBeCloseTo(14.6e-6 * 878 * (1 - 6.4e-4 * 85) * 0.9, 6);
  });

  it('gets thin with fuel in it: a twentieth takes about a third', () => {
    const oil = OIL_GRADES['15W-40']!;
    const thinned = withFuel(oil, 0.05, 'petrol');
    expect(kinematic(thinned, 100) / kinematic(oil, 100)).toBeLessThan(0.85);
    expect(kinematic(thinned, 100) / kinematic(oil, 100)).toBeGreaterThan(0.5);
    expect(withFuel(oil, 0, 'petrol')).toBe(oil);
  });
});

describe('the format as it is written down', () => {
  const page = readFileSync(join(__dirname, '../../../docs/formats/film.md'), 'utf8');
  it('names every key', () => {
    for (const key of Object.keys(bearingFileSchema.describe().keys as object)) expect(page).toContain(`${key}`);
  });
  it('shows an example that is read but for its load of a single row', () => {
    expect(sentence(JSON.parse(/```json\n([^`]+)```/.exec(page)![1]!))).toMatch(/1 rows/);
  });
});
