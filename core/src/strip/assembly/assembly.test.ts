import fc from 'fast-check';
import { ENGINE_TEMPLATES, engineTemplate } from '../../engine/templates.js';
import { stationsOf } from '../../engine/stations.js';
import { stripPlan } from '../plan.js';
import { assemblyProgram, bagKind, FIRST_START, proofsOf } from './program.js';
import { parseStages, stageWords } from './stages.js';

const layoutOf = (id: string) => engineTemplate(id)!.layout;
const ids = (template: string): string[] => assemblyProgram(layoutOf(template)).map((s) => s.id);
const before = (list: readonly string[], a: string, b: string): boolean => list.indexOf(a) < list.indexOf(b) && list.includes(a);

describe('the assembly of an engine', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: every place goes in once, every step once, the first start last',
    (_, layout) => {
      const program = assemblyProgram(layout);
      const placed = program.flatMap((s) => s.stations);
      expect(new Set(placed).size).toBe(placed.length);
      expect([...placed].sort()).toEqual(
        stationsOf(layout)
          .map((s) => s.id)
          .sort(),
      );
      expect(new Set(program.map((s) => s.id)).size).toBe(program.length);
      expect(program.at(-1)!.id).toBe(FIRST_START);
      const proofs = program.flatMap((s) => s.proofs.map((p) => p.id));
      expect(new Set(proofs).size).toBe(proofs.length);
      expect([...proofsOf(layout).keys()].sort()).toEqual([...proofs].sort());
      // A proof of a bearing or ring names a place the engine has.
      const places = new Set(stationsOf(layout).map((s) => s.id));
      for (const s of program)
        for (const p of s.proofs)
          if (p.sources.length > 0) expect(p.sources.some((source) => !('station' in source) || places.has(source.station))).toBe(true);
    },
  );

  it('is the strip backwards: what came off last goes on first', () => {
    const plan = stripPlan(layoutOf('inline-4-petrol')).steps.map((s) => s.id);
    const back = ids('inline-4-petrol').filter((id) => id !== FIRST_START && id !== 'roll');
    expect(back).toEqual([...plan].reverse().filter((id) => back.includes(id)));
    expect(back).not.toContain('arrival');
  });

  it('stands the engine upright once the pan is on, and closes a case that parts along the crank before pistons and pan', () => {
    expect(before(ids('inline-4-petrol'), 'pan', 'roll')).toBe(true);
    expect(before(ids('inline-4-petrol'), 'roll', 'head-0')).toBe(true);
    const flat = ids('flat-4-petrol');
    for (const [a, b] of [
      ['rod-cap-4', 'crank'],
      ['crank', 'case'],
      ['case', 'pan'],
      ['case', 'piston-1'],
      ['piston-1', 'pin-1'],
    ] as const)
      expect(`${a} before ${b}: ${before(flat, a, b)}`).toBe(`${a} before ${b}: true`);
  });

  it('follows the order the builder gave the strip', () => {
    const layout = layoutOf('inline-4-petrol');
    const plan = stripPlan(layout).steps.map((s) => s.id);
    const filterLate = [...plan.filter((id) => id !== 'filter'), 'filter'];
    expect(before(ids('inline-4-petrol'), 'filter', 'wash')).toBe(false);
    expect(assemblyProgram(layout, filterLate)[0]!.id).toBe('filter');
  });

  it('tightens from the middle outwards, and asks two-strokes for no oil ring', () => {
    const head = assemblyProgram(layoutOf('inline-4-petrol')).find((s) => s.id === 'head-0')!;
    const at = new Map(head.pattern!.positions.map((p) => [p.id, Math.abs(p.x - head.pattern!.widthMm / 2)]));
    expect(at.get(head.tightening[0]!)!).toBeLessThan(at.get(head.tightening.at(-1)!)!);
    expect([...head.tightening].sort()).toEqual(head.pattern!.positions.map((p) => p.id).sort());
    expect([...proofsOf(layoutOf('twin-premix')).keys()].filter((id) => id.endsWith('.oil'))).toEqual([]);
    expect(proofsOf(layoutOf('inline-4-petrol')).has('gap:2.oil')).toBe(true);
  });

  it('calls fasteners of a kind alike', () => {
    expect(bagKind('rod-bolts-3')).toBe('rod-bolts');
    expect(bagKind('nose')).toBe('nose');
  });
});

describe('stages of tightening', () => {
  it.each([
    ['30 N·m; 60 N·m; 90°', ['30.0 N·m', '60.0 N·m', '90° on']],
    ['30 then 60, 90 deg', ['30.0 N·m', '60.0 N·m', '90° on']],
    ['22,5 Nm + 45,5°', ['22.5 N·m', '45.5° on']],
    ['20 lb·ft; 60°', ['20.0 lb·ft', '60° on']],
  ])('%s', (text, words) => {
    const read = parseStages(text);
    expect(read.ok && stageWords(read.value)).toEqual(words);
  });
  it.each(['', ' ; ', 'tight', '30 N·m; hand', '-5', '0 N·m', '9000 N·m', '900°', '1;2;3;4;5;6;7;8;9'])(
    'refuses "%s" with a sentence',
    (text) => {
      const read = parseStages(text);
      expect(read.ok ? '' : read.problem.sentence).toMatch(/Nothing was recorded\./);
    },
  );
  it('reads back what it says, whatever the figures', () => {
    const stage = fc.oneof(
      fc.integer({ min: 1, max: 5000 }).map((n) => `${n} N·m`),
      fc.integer({ min: 1, max: 720 }).map((n) => `${n}°`),
    );
    fc.assert(
      fc.property(fc.array(stage, { minLength: 1, maxLength: 8 }), (parts) => {
        const read = parseStages(parts.join('; '));
        return (
          read.ok &&
          read.value.map((s) => (s.kind === 'torque' ? `${Math.round(s.newtonMetre)} N·m` : `${s.degrees}°`)).join() === parts.join()
        );
      }),
    );
  });
});
