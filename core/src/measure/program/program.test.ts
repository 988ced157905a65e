import fc from 'fast-check';
import { readCaseFile } from '../../bundle/caseFile/read.js';
import { caseFileOf } from '../../bundle/caseFile/write.js';
import { ENGINE_TEMPLATES, engineTemplate } from '../../engine/templates.js';
import { stationsOf } from '../../engine/stations.js';
import type { EngineLayout } from '../../engine/layout.js';
import { applyEntry } from '../../entries/entries.js';
import { emptyCase, type CaseState } from '../../ledger/state.js';
import { checkEntry } from '../../gate/admit.js';
import { caseView, type CaseView } from '../../case/views.js';
import type { EntryBodies, EntryKind } from '../../entries/entries.js';
import type { Gauge } from '../../units/gauge.js';
import { NO_FAULTS, pressKey, standInTrace } from '../simulated/gaugeStandIn.js';
import type { TrueEngine } from '../sheets/trueEngine.js';
import { surfaceFinish } from '../finish.js';
import { SHEETS } from './sheetOf.js';
import { elsewhereOf, measuredPlaces, measurePlace } from '../../measured/caseMeasure.js';
import { placeOutcome, worstWord, type Take } from './outcome.js';
import { measureProgram, placeOf, trueValue } from './program.js';
import { doubtCell, looksStuck, readCell } from './readCell.js';
import { readingsCsv, readPaste, readReadingsCsv, standingOf } from '../../measured/readingsCsv.js';
import { SPEC_KEYS, SPEC_KINDS, specFields } from './specs.js';
import { specFromTexts, specTexts } from './specText.js';

const FOUR = engineTemplate('inline-4-petrol')!.layout;
const MIC: Gauge = {
  id: 'mic',
  name: 'Micrometer',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
};
const AUTHOR = { id: 'a', name: 'A. Builder' };

/** A case that grows by entries as the server would take them. */
class Bench {
  state: CaseState = emptyCase('c');
  constructor(readonly layout: EngineLayout = FOUR) {
    this.add('case-opened', null, { number: '1', title: 'Bench' });
    this.add('layout-set', null, { layout });
  }
  add<K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K]): string | null {
    const checked = checkEntry(kind, station, body, this.state);
    if (!checked.ok) return checked.problem.sentence;
    const seq = this.state.seq + 1;
    this.state = applyEntry(this.state, {
      id: `e${seq}`,
      kind,
      station,
      body,
      author: AUTHOR as never,
      time: '2026-11-25T10:00:00Z',
      seq,
      hash: `h${seq}`,
    });
    return null;
  }
  read(station: string | null, sheet: string, cell: string, text: string, take = 1, gauge = MIC, unit?: string): string | null {
    const c = placeOf(this.layout, station, sheet)!.cells.find((x) => x.key === cell)!;
    const own = unit ?? (c.quantity === 'length' ? 'mm' : c.quantity === 'force' ? 'N' : '°');
    const value = readCell(c, text, own, gauge);
    return this.add('reading-taken', station, {
      sheet,
      cell,
      take,
      text,
      unit: own,
      value: value.ok ? value.value.value : 0,
      gauge,
      insisted: false,
    });
  }
  get view(): CaseView {
    return caseView(this.state)!;
  }
}

const truthOf = (layout: EngineLayout, bad = 0.1): TrueEngine => ({ layout, seed: 's', severity: () => bad });

describe('the program of an engine', () => {
  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: unique places on stations it has, each of a known sheet and specification',
    (_, layout) => {
      const places = measureProgram(layout);
      const stations = new Set(stationsOf(layout).map((s) => s.id));
      expect(new Set(places.map((p) => p.id)).size).toBe(places.length);
      for (const p of places) {
        if (p.station !== null) expect(stations.has(p.station)).toBe(true);
        expect(SHEETS[p.kind]).toBeDefined();
        expect(SPEC_KINDS[p.spec as never]).toMatchObject({ kind: p.kind });
        expect(new Set(p.cells.map((c) => c.key)).size).toBe(p.cells.length);
        for (const need of p.needs) expect(p.cells.map((c) => c.key)).toContain(need);
      }
    },
  );

  it.each(ENGINE_TEMPLATES.map((t) => [t.id, t.layout] as const))(
    '%s: every sheet computes from its true values, all of them sensible',
    (_, layout) => {
      const truth = truthOf(layout);
      for (const place of measureProgram(layout)) {
        const takes = place.cells.map((c): Take => ({ cell: c.key, take: 1, value: trueValue(truth, place, c.key), gauge: MIC, time: '' }));
        const m = placeOutcome(place, takes, null);
        expect([place.id, m.problem?.sentence ?? null, m.waiting]).toEqual([place.id, null, []]);
        expect(m.outcome!.lines.length).toBeGreaterThan(0);
        for (const c of place.cells)
          expect([place.id, c.key, doubtCell(c, trueValue(truth, place, c.key), [], [])]).toEqual([place.id, c.key, null]);
      }
    },
  );

  it('differs with the engine: a premix twin has no pump and no oil ring, rolling bearings have no journal sheet', () => {
    const kinds = (id: string): string[] => [...new Set(measureProgram(engineTemplate(id)!.layout).map((p) => p.sheet))];
    const premix = ENGINE_TEMPLATES.find((t) => t.layout.lubrication === 'premix')!;
    expect(kinds(premix.id)).not.toContain('oil-pump');
    expect(kinds(premix.id)).not.toContain('ring.oil');
    if (premix.layout.mainBearings === 'rolling')
      expect(measureProgram(premix.layout).some((p) => p.station?.startsWith('crank.main'))).toBe(false);
    expect(kinds('inline-4-petrol')).toEqual(
      expect.arrayContaining(['journal', 'bore', 'piston', 'oil-pump', 'cam.1', 'deck.1', 'crank-runout']),
    );
  });

  it('goes round a crank in the order hands go: mains from the front, pins, three planes in two axes', () => {
    const crank = measureProgram(FOUR).filter((p) => p.kind === 'journal');
    expect(crank.map((p) => p.short)).toEqual(['Main 1', 'Main 2', 'Main 3', 'Main 4', 'Main 5', 'Pin 1', 'Pin 2', 'Pin 3', 'Pin 4']);
    expect(crank[0]!.cells.map((c) => c.key)).toEqual(['front.A', 'front.B', 'mid.A', 'mid.B', 'rear.A', 'rear.B', 'deepestMark']);
  });
});

describe('a reading', () => {
  const pin = placeOf(FOUR, 'crank.pin.1', 'journal')!.cells[0]!;
  const travel = placeOf(FOUR, 'rod.1', 'side-clearance')!.cells[0]!;
  it('is read in the unit typed, as an offset only where a master is set', () => {
    const value = (text: string, unit = 'mm', gauge: Partial<Gauge> = {}): unknown => {
      const r = readCell(pin, text, unit, gauge);
      return r.ok ? r.value : r.problem.code;
    };
    expect(value('52.971')).toEqual({ value: 52.971, unit: 'mm' });
    expect(value('2.0855"')).toEqual({ value: expect.closeTo(52.9717, 6), unit: 'in' });
    expect(value('2,0855', 'in')).toEqual({ value: expect.closeTo(52.9717, 6), unit: 'in' });
    expect(value('-')).toEqual({ value: null, unit: 'mm' });
    expect(value('+0.02')).toBe('reading-no-master');
    expect(value('-0.02', 'mm', { masterMm: 53 })).toEqual({ value: expect.closeTo(52.98, 9), unit: 'mm' });
    expect(value('abc')).toBe('reading-not-a-number');
    expect(value('5', 'psi')).toBe('reading-unit');
  });
  it('keeps its sign where a play is read', () => {
    const r = readCell(travel, '-0.15', 'mm', { masterMm: 53 });
    expect(r.ok && r.value.value).toBeCloseTo(-0.15, 9);
  });
  it('is held when it slips, is out of family or in a unit that cannot be right', () => {
    const gap = placeOf(FOUR, 'rings.1.pack', 'ring.top')!.cells[0]!;
    expect(doubtCell(pin, pin.expectMm! / 10, [], [])).toMatch(/slipped decimal/);
    expect(doubtCell(pin, pin.expectMm! - 0.3, [pin.expectMm! - 0.01, pin.expectMm! - 0.012], [])).toMatch(/out of family/);
    expect(doubtCell(pin, pin.expectMm! - 0.02, [pin.expectMm! - 0.01, pin.expectMm! - 0.012], [])).toBeNull();
    expect(doubtCell(gap, 14, [], [])).toMatch(/Is the unit right/);
    expect(doubtCell(gap, 0.04, [], [0.4, 0.38, 0.42])).toMatch(/out of family/);
    expect(doubtCell(gap, 0.5, [], [0.4, 0.38, 0.42])).toBeNull();
  });
  it('of a gauge that shows the same figure at four places in turn looks stuck', () => {
    const run = (texts: string[], place = (i: number): string => `p${i}`): boolean =>
      looksStuck(texts.map((text, i) => ({ place: place(i), text })));
    expect(run(['1', '2', '2', '2'])).toBe(false);
    expect(run(['1', '2', '2', '2', '2'])).toBe(true);
    expect(run(['2', '2', '2', '2'], () => 'one place, repeats')).toBe(false);
  });
  it('is refused by the ledger at a place the engine lacks, or when its value is not what was typed', () => {
    const bench = new Bench();
    const body = { sheet: 'journal', cell: 'front.A', take: 1, text: '52.9', unit: 'mm', value: 52.9, gauge: MIC, insisted: false };
    expect(bench.add('reading-taken', 'crank.pin.1', { ...body, cell: 'top.Z' })).toMatch(/no place/);
    expect(bench.add('reading-taken', 'crank.pin.1', { ...body, sheet: 'bore' })).toMatch(/no place/);
    expect(bench.add('reading-taken', 'crank.pin.1', { ...body, value: 53 })).toMatch(/does not follow/);
    expect(bench.add('reading-taken', 'crank.pin.1', body)).toBeNull();
    expect(bench.add('reading-taken', null, { ...body, sheet: 'crank-runout', cell: 'main.2.tir', text: '0.03', value: 0.03 })).toBeNull();
    expect(bench.view.readings).toHaveLength(1);
  });
});

describe('a sheet of the case', () => {
  it('takes repeats as their mean and the scatter of three as the gauge then reads', () => {
    const bench = new Bench();
    for (const cell of ['front.A', 'front.B', 'mid.A', 'mid.B', 'rear.A', 'rear.B'])
      ['52.990', '52.992', '52.991'].forEach((text, i) => bench.read('crank.pin.1', 'journal', cell, text, i + 1));
    const m = measurePlace(bench.view, placeOf(FOUR, 'crank.pin.1', 'journal')!);
    expect(m.values.get('front.A')).toBeCloseTo(52.991, 9);
    // u² = 0.001²/12 + (0.001/√3)² + 0.0015², U = 2u.
    expect(m.outcome!.lines.find((l) => l.id === 'least')!.expanded).toBeCloseTo(
      2 * Math.sqrt(0.001 ** 2 / 12 + 0.001 ** 2 / 3 + 0.0015 ** 2),
      6,
    );
  });
  it('waits in words for what it needs and computes as soon as it has it', () => {
    const bench = new Bench();
    const place = placeOf(FOUR, 'rod.2.shell.lower', 'shell-clearance')!;
    bench.read('rod.2.shell.lower', 'shell-clearance', 'housing.vertical', '56.036');
    expect(measurePlace(bench.view, place).waiting).toEqual([
      'upper wall at the crown',
      'lower wall at the crown',
      'its journal, on the same axis',
    ]);
    bench.read('rod.2.shell.lower', 'shell-clearance', 'upper', '1.499');
    bench.read('rod.2.shell.lower', 'shell-clearance', 'lower', '1.489');
    const nominal = FOUR.pinDiameterMm;
    // The journal comes from its own sheet, axis A only.
    bench.read('crank.pin.2', 'journal', 'front.A', (nominal - 0.02).toFixed(3));
    bench.read('crank.pin.2', 'journal', 'rear.A', (nominal - 0.024).toFixed(3));
    bench.read('crank.pin.2', 'journal', 'front.B', (nominal - 0.5).toFixed(3));
    const m = measurePlace(bench.view, place);
    expect(m.waiting).toEqual([]);
    expect(m.outcome!.lines.find((l) => l.id === 'vertical')!.value).toBeCloseTo(56.036 - 1.499 - 1.489 - (nominal - 0.022), 6);
    // One read on the spot goes before it.
    bench.read('rod.2.shell.lower', 'shell-clearance', 'journal', (nominal - 0.01).toFixed(3));
    expect(measurePlace(bench.view, place).outcome!.lines[0]!.value).toBeCloseTo(56.036 - 1.499 - 1.489 - (nominal - 0.01), 6);
  });
  it('is judged by the specification of its kind, with its source, and says when a gauge was overdue', () => {
    const bench = new Bench();
    bench.add('spec-set', null, { quantity: 'rod.side', spec: { limits: { sideClearance: { upper: 0.3 } }, source: 'page 9' } });
    bench.read('rod.1', 'side-clearance', 'towards', '0', 1, { ...MIC, checkedOn: '2024-01-01' });
    bench.read('rod.1', 'side-clearance', 'away', '0.42', 1, { ...MIC, checkedOn: '2024-01-01' });
    const m = measurePlace(bench.view, placeOf(FOUR, 'rod.1', 'side-clearance')!);
    expect(m.outcome!.lines[0]!.verdict).toMatchObject({ word: 'outside', side: 'upper', reference: 'limit', source: 'page 9' });
    expect(m.questions).toEqual([expect.stringMatching(/overdue/)]);
    expect(worstWord(m.outcome)).toBe('outside');
    expect(measuredPlaces(bench.view)).toHaveLength(1);
  });
  it('is computed once and kept until something it rests on changes', () => {
    const bench = new Bench();
    const place = placeOf(FOUR, 'crank.pin.1', 'journal')!;
    bench.read('crank.pin.1', 'journal', 'front.A', '49.98');
    const before = measurePlace(bench.view, place);
    bench.read('bore.1', 'bore', 'unworn', '84.01');
    expect(measurePlace(bench.view, place)).toBe(before);
    bench.read('crank.pin.1', 'journal', 'front.B', '49.97');
    expect(measurePlace(bench.view, place)).not.toBe(before);
  });
  it('reads from a single axis what it can and says what it cannot', () => {
    const bench = new Bench();
    for (const plane of ['front', 'mid', 'rear']) bench.read('crank.pin.1', 'journal', `${plane}.A`, '49.98');
    const m = measurePlace(bench.view, placeOf(FOUR, 'crank.pin.1', 'journal')!);
    expect(m.outcome!.lines.map((l) => l.id)).toContain('taper');
    expect(m.outcome!.missing).toEqual(['a second axis, so no out-of-round']);
  });
});

/** A case with every wanted cell of a few sheets read off the truth, some of them in inches. */
function filled(): Bench {
  const bench = new Bench();
  const truth = truthOf(FOUR, 0.3);
  for (const place of measureProgram(FOUR).filter((p) => /journal|bore|cam|flatness|side/.test(p.kind)))
    place.cells
      .filter((c) => !c.optional)
      .forEach((c, i) => {
        const value = trueValue(truth, place, c.key);
        const inch = i % 3 === 1 && c.quantity === 'length';
        bench.read(
          place.station,
          place.sheet,
          c.key,
          inch ? `${(value / 25.4).toFixed(5)}"` : value.toFixed(3),
          1,
          MIC,
          inch ? 'in' : undefined,
        );
      });
  bench.read('crank.pin.1', 'journal', 'front.A', '-', 2);
  return bench;
}

describe('a file of readings', () => {
  const bench = filled();
  const csv = readingsCsv(bench.view);
  const read = (text: string, layout = FOUR) => {
    const r = readReadingsCsv(text, layout, MIC);
    if (!r.ok) throw new Error(r.problem.sentence);
    return r.value;
  };
  it('comes back exactly: the same case takes nothing from it, an empty one becomes the same', () => {
    const incoming = read(csv);
    expect(incoming.faults).toEqual([]);
    expect(incoming.readings.length).toBe(bench.view.stations.flatMap((s) => s.readings).length + bench.view.readings.length);
    expect(incoming.readings.map((r) => standingOf(bench.view, r)).filter((s) => s !== 'same')).toEqual([]);
    const empty = new Bench();
    for (const r of incoming.readings) {
      expect(standingOf(empty.view, r)).toBe('new');
      empty.add('reading-taken', r.place.station, {
        sheet: r.place.sheet,
        cell: r.cell.key,
        take: r.take,
        text: r.text,
        unit: r.unit,
        value: r.value,
        gauge: r.gauge,
        insisted: r.insisted,
      });
    }
    expect(readingsCsv(empty.view)).toBe(csv);
  });
  it('comes back from a semicolon locale with decimal commas and a byte-order mark', () => {
    const foreign =
      '\uFEFF' +
      csv
        .split('\n')
        .map((l) =>
          l
            .split(',')
            .map((f) => (/^\d+\.\d+$/.test(f) ? f.replace('.', ',') : f))
            .join(';'),
        )
        .join('\r\n');
    const values = (text: string): Array<number | null> => read(text).readings.map((r) => r.value);
    expect(values(foreign)).toEqual(values(csv));
  });
  it('a case file keeps a corrected gauge apart from what it was, and that a figure was insisted on', () => {
    const bench = new Bench();
    bench.read('crank.pin.1', 'journal', 'front.A', '52.99');
    bench.read('crank.pin.1', 'journal', 'rear.A', '52.98', 1, { ...MIC, expandedUncertaintyMm: 0.02 });
    const gauge = MIC;
    const odd = { sheet: 'journal', cell: 'mid.A', take: 1, text: '51.2', unit: 'mm', value: 51.2, gauge, insisted: true };
    expect(bench.add('reading-taken', 'crank.pin.1', odd)).toBeNull();
    const again = readCaseFile(JSON.parse(JSON.stringify(caseFileOf(bench.state, bench.view))));
    if (!again.ok) throw new Error(again.problem.sentence);
    const readings = again.value.view.byId.get('crank.pin.1')!.readings.map((r) => r.value);
    const of = (cell: string) => readings.find((r) => r.cell === cell)!;
    expect([of('front.A').gauge.expandedUncertaintyMm, of('rear.A').gauge.expandedUncertaintyMm]).toEqual([0.003, 0.02]);
    expect([of('mid.A').insisted, of('front.A').insisted]).toEqual([true, false]);
  });
  it('survives a case file and back as well', () => {
    const again = readCaseFile(JSON.parse(JSON.stringify(caseFileOf(bench.state, bench.view))));
    if (!again.ok) throw new Error(again.problem.sentence);
    const figures = (v: CaseView): unknown[] => measuredPlaces(v).map((m) => m.outcome?.lines ?? m.waiting);
    expect(figures(again.value.view)).toEqual(figures(bench.view));
  });
  it('tells each line it cannot use and keeps the others', () => {
    const text =
      'station,sheet,cell,reading,unit,take\ncrank.pin.1,journal,front.A,49.98,mm,1\nwing.1,journal,front.A,49.98,mm,1\ncrank.pin.1,journal,front.B,x,mm,1\ncrank.pin.1,journal,front.A,49.97,mm,1\ncrank.pin.1,journal,mid.A,49.97,furlong,1\n,crank-runout,main.2.tir,0.02,mm,\ncrank.pin.2,journal,mid.A,49.9,mm,99';
    const incoming = read(text);
    expect(incoming.readings.map((r) => r.cell.key)).toEqual(['front.A', 'main.2.tir']);
    expect(incoming.faults.map((f) => /^Line (\d)/.exec(f)?.[1])).toEqual(['3', '4', '5', '6', '8']);
    expect(incoming.faults[2]).toContain('same place and take as line 2');
  });
  it('is refused as a whole only when it is something else', () => {
    const r = readReadingsCsv('a,b\n1,2', FOUR, MIC);
    expect(!r.ok && r.problem.sentence).toMatch(/columns station, sheet, cell, reading are missing/);
  });
  it('disarms what a spreadsheet would run, and takes the guard off again', () => {
    const b = new Bench();
    const hostile = { ...MIC, name: '=HYPERLINK("x")' };
    b.read('rod.1', 'side-clearance', 'away', '-0.2', 1, hostile);
    const out = readingsCsv(b.view);
    expect(out).toContain(`"'=HYPERLINK(""x"")"`);
    const back = read(out);
    expect(back.readings[0]).toMatchObject({ text: '-0.2', value: -0.2, gauge: { name: '=HYPERLINK("x")' } });
  });
});

describe('a block pasted from a spreadsheet', () => {
  const pins = measureProgram(FOUR).filter((p) => p.spec === 'crank.pin');
  const table = { rows: pins, columns: pins[0]!.cells.map((c) => c.key) };
  const paste = (text: string, row = 0, column = 0) => readPaste(text, table, { row, column }, MIC, () => 'mm');
  it('fills right and down from its corner and passes over empty cells', () => {
    const p = paste('49.98\t49.97\r\n\t49.96\r\n', 1, 2);
    expect(p.readings.map((r) => [r.place.short, r.cell.key, r.value])).toEqual([
      ['Pin 2', 'mid.A', 49.98],
      ['Pin 2', 'mid.B', 49.97],
      ['Pin 3', 'mid.B', 49.96],
    ]);
    expect(p.faults).toEqual([]);
  });
  it('asks about mixed units and slips, and says what runs over the edge', () => {
    const p = paste('49.98\t1.9677"\n4.998\t49.97', 0, 0);
    expect(p.questions[0]).toMatch(/units are mixed/);
    expect(p.questions.join()).toMatch(/Pin 2, front, axis A: .*slipped/);
    expect(paste('1\t2', 3, 6).faults[0]).toMatch(/over the edge/);
    expect(paste('abc').faults[0]).toMatch(/Pin 1, row 1, column 1 \("abc"\): .*not a reading/);
  });
});

describe('a specification as typed', () => {
  it('reads back what it shows, for every kind of place', () => {
    for (const key of SPEC_KEYS) {
      const fields = specFields(key);
      const spec = {
        ...(fields.sizes ? { minMm: 10, maxMm: 10.02 } : {}),
        ...(fields.roundness ? { outOfRoundMaxMm: 0.01 } : {}),
        ...(fields.newWall ? { newWallMm: 1.5 } : {}),
        ...(fields.lines.length > 0
          ? { limits: { [fields.lines[0]!.id]: fields.lines[0]!.side === 'lower' ? { lower: 0.1 } : { upper: 0.3 } } }
          : {}),
        ...(fields.steps ? { [fields.steps]: [0.25, 0.5] } : {}),
        source: 'page 1',
      };
      if (Object.keys(spec).length === 1) continue;
      const back = specFromTexts(key, specTexts(key, spec), 'page 1');
      expect(back.ok && back.value).toEqual(spec);
    }
  });
  it('takes units and commas, and refuses what contradicts itself', () => {
    const pin = specTexts('crank.pin', null);
    const said = (texts: Record<string, string>): unknown => {
      const r = specFromTexts('crank.pin', { ...pin, ...texts }, 's');
      return r.ok ? r.value : r.problem.sentence;
    };
    expect(said({})).toBeNull();
    expect(said({ minMm: '2.0860"', maxMm: '53,0', steps: '0,25; 0,5' })).toMatchObject({
      minMm: expect.closeTo(52.9844, 6),
      maxMm: 53,
      undersizesMm: [0.25, 0.5],
    });
    expect(said({ minMm: '53', maxMm: '52' })).toMatch(/largest size is smaller/);
    expect(said({ minMm: '53' })).toMatch(/both sizes/);
    expect(said({ minMm: '52', maxMm: '53', steps: 'x' })).toMatch(/steps are figures/);
    expect(said({ taperMaxMm: 'thick' })).toMatch(/taper: "thick" is not a figure/);
  });
});

describe('gauge stand-ins', () => {
  const cell = placeOf(FOUR, 'crank.pin.1', 'journal')!.cells[0]!;
  const sequence = (faults: object, n: number) => {
    let seed = 7;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    let state = { faults: { ...NO_FAULTS, ...faults }, count: 0, last: null as string | null };
    return Array.from({ length: n }, () => {
      const r = pressKey(MIC, state, 52.97, cell, random);
      state = r.state;
      return r.press.kind === 'reading' ? Number(r.press.text) : null;
    });
  };
  const mean = (list: Array<number | null>): number => list.reduce((s: number, v) => s + v!, 0) / list.length;
  it('read the truth within their noise, to their resolution', () => {
    const list = sequence({}, 400);
    expect(Math.abs(mean(list) - 52.97)).toBeLessThan(0.0003);
    const s = Math.sqrt(list.reduce((sum: number, v) => sum + (v! - 52.97) ** 2, 0) / 400);
    expect(s).toBeGreaterThan(0.0011);
    expect(s).toBeLessThan(0.0018);
  });
  it('can be biased, drift, stick and fall silent', () => {
    expect(mean(sequence({ biasMm: 0.02 }, 200)) - 52.97).toBeCloseTo(0.02, 3);
    const drifting = sequence({ driftMm: 0.001, noise: 0 }, 11);
    expect(drifting.at(-1)! - drifting[0]!).toBeCloseTo(0.01, 6);
    expect(new Set(sequence({ stuck: true }, 5)).size).toBe(1);
    expect(sequence({ silent: true }, 2)).toEqual([null, null]);
  });
  it('the profilometer sends a trace whose roughness falls as the peaks wear', () => {
    const ra = (worn: number): number => {
      let seed = 11;
      const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
      const z = standInTrace(worn, NO_FAULTS, random);
      const f = surfaceFinish({ stepMm: 0.0005, z: Float64Array.from(z, (p) => p[1]) } as never, 0.8);
      if (!f.ok) throw new Error(f.problem.sentence);
      return f.value.Ra;
    };
    expect(ra(1)).toBeLessThan(ra(0));
  });
  it('sizes of different sheets agree: clearance is housing less walls less journal', () =>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (bad) => {
        const truth = truthOf(FOUR, bad);
        const place = placeOf(FOUR, 'rod.3.shell.lower', 'shell-clearance')!;
        const v = (key: string): number => trueValue(truth, place, key);
        const clearance = v('housing.vertical') - v('upper') - v('lower') - v('journal');
        expect(clearance).toBeGreaterThan(0.02);
        expect(clearance).toBeLessThan(0.02 + 0.15 * (bad + 0.4));
        const pin = placeOf(FOUR, 'crank.pin.3', 'journal')!;
        const own = ['front.A', 'mid.A', 'rear.A'].reduce((s, key) => s + trueValue(truth, pin, key), 0) / 3;
        expect(v('journal')).toBeCloseTo(own, 9);
      }),
    ));
});

describe('what is read elsewhere', () => {
  it('is the same cell of the same sheet at the other places', () => {
    const bench = new Bench();
    bench.read('rings.1.pack', 'ring.top', 'gapUnworn', '0.4');
    bench.read('rings.2.pack', 'ring.top', 'gapUnworn', '0.42');
    bench.read('rings.2.pack', 'ring.second', 'gapUnworn', '0.9');
    expect(elsewhereOf(bench.view, placeOf(FOUR, 'rings.3.pack', 'ring.top')!, 'gapUnworn')).toEqual([0.4, 0.42]);
  });
});
