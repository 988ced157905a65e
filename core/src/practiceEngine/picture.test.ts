import { stationOf } from '../engine/stations.js';
import { readSurface } from '../photo/reading/readSurface.js';
import { classAt } from '../specimen/sheet.js';
import { surfaceMaps } from '../specimen/surfaceMaps.js';
import { drawEngine, type HiddenEngine } from './hidden.js';
import { practicePicture, practiceSpecimen } from './picture.js';

// What is painted of a practice engine is what is true of it: the reader, which knows nothing of it, finds it.
const shells = (patternId: string | null, most = 2): Array<[string, HiddenEngine, string]> => {
  const found: Array<[string, HiddenEngine, string]> = [];
  for (let seed = 100; found.length < most && seed < 400; seed++) {
    const h = drawEngine(2, seed);
    const of = (id: string): readonly string[] => (h.marks.get(id) ?? []).map((m) => m.pattern);
    const ids = [...h.layout.firingOrder].flatMap((n) => [`rod.${n}.shell.upper`, `rod.${n}.shell.lower`]);
    const id = ids.find((x) => (patternId === null ? of(x).length === 0 : of(x).join() === patternId));
    if (id) found.push([`${id} of seed ${seed}`, h, id]);
  }
  return found;
};
const lining = (h: HiddenEngine, id: string): { painted: number; read: number } => {
  const { specimen } = practiceSpecimen(h, id)!;
  const { truth } = surfaceMaps(specimen, 720, 240);
  const painted = (100 * truth.reduce((n, v) => n + Number(v === classAt('lining')), 0)) / truth.length;
  const { pixels, corners } = practicePicture(h, id, 800, 600)!;
  const r = readSurface('shell', pixels, corners, { radiusMm: specimen.radiusMm, widthMm: specimen.widthMm });
  if (!r.ok) throw new Error(r.problem.sentence);
  return { painted, read: r.value.summary.percent.lining };
};

describe('a picture of a practice engine', () => {
  it.each(shells('wiping'))('of a wiped shell, %s, is read as it was painted', (_, h, id) => {
    expect(stationOf(h.layout, id)!.part).toBe('shell');
    const { painted, read } = lining(h, id);
    expect(painted).toBeGreaterThan(2);
    // The reader's own accuracy on rendered shells with exact corners (docs/methods/photo.md).
    expect(Math.abs(read - painted)).toBeLessThan(6);
  });
  it.each(shells(null, 1))('of a sound shell, %s, shows no lining', (_, h, id) => {
    expect(lining(h, id).read).toBeLessThan(2);
  });
  it('is the same each time, and there is none of what the studio has not', () => {
    const [[, h, id]] = shells('wiping') as [[string, HiddenEngine, string]];
    const [one, two] = [0, 1].map(() => practicePicture(h, id, 160, 120)!.pixels.data);
    expect(Buffer.compare(Buffer.from(one!), Buffer.from(two!))).toBe(0);
    expect(practicePicture(h, 'pump.gears')).toBeNull();
    for (const other of ['crank.pin.1', 'piston.1.crown', 'piston.1.skirt.thrust'])
      expect(practicePicture(h, other, 160, 120)!.pixels.width).toBe(160);
  });
});
