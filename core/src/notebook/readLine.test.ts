import { engineTemplate } from '../engine/templates.js';
import { cylinderPlaces, pinNumber, type EngineLayout } from '../engine/layout.js';
import { closerSights, entriesOfLine, entriesOfPlace } from './lineEntries.js';
import { readLine, type NotedLine } from './readLine.js';

const layoutOf = (id: string): EngineLayout => engineTemplate(id)!.layout;
const FOUR = layoutOf('inline-4-petrol');
const SIX = layoutOf('inline-6-diesel');

/** A line as one row a proposal: `sight grade edge @ places` or `feature`. */
function said(line: string, layout: EngineLayout = FOUR): string[] {
  const r = readLine(line, layout);
  return [
    ...r.findings.map(
      (f) =>
        `${f.sound ? 'sound' : `${f.present ? '' : 'no '}${f.sight ?? 'grade'}`}${f.grade === null ? '' : ` g${f.grade}`}${f.edge ? ` ${f.edge}` : ''} @ ${f.of === null ? '' : `${f.of} of `}${f.stations.join(' ')}`,
    ),
    ...r.features.map((f) => `${f.present ? '' : 'no '}${f.feature} (${f.reliability})`),
  ];
}

describe('what is gone', () => {
  it.each([
    ['not examined: oil cooler, thrown away', ['oil.cooler']],
    ['seen: damper went to the scrap yard before we came', ['damper']],
    ['not examined: damper, gone to scrap', ['damper']],
    ['not examined: oil cooler inside', []],
    ['not examined: nut of the snapped bolt: not found', []],
    ['told: the old pump was binned', []],
    ['main shell 3 upper: copper gone through', []],
    ['not examined: rod 2 eye for size (too far gone)', []],
  ])('%s', (line, gone) => {
    const read = readLine(line, FOUR);
    expect(read.gone).toEqual(gone);
    expect(entriesOfLine(read, read, FOUR, '1', () => 'id').filter((e) => e.kind === 'state-set')).toEqual(
      gone.map((station) => ({ kind: 'state-set', station, body: { state: 'lost' } })),
    );
  });
});

describe('a line of a notebook', () => {
  it.each([
    ['rings 2, thrust corner: scuffed', 'ring-scuffed g2 @ rings.2.thrust'],
    ['piston 3, anti-thrust side: picked up', 'sight-picked-up g3 @ piston.3.skirt.antithrust'],
    ['piston 3 skirt scuffed', 'sight-scuffed @ piston.3.skirt.thrust piston.3.skirt.antithrust'],
  ])('%s', (line, row) => expect(said(line)).toContain(row));
  it('names the sides of a ported piston', () =>
    expect(said('piston 2, skirt, inlet side torn', layoutOf('twin-premix'))).toContain('sight-scuffed g3 @ piston.2.skirt.inlet'));
  it.each([
    ['R2 upper copper along flywheel edge, nail catches', 'edge-loading g2 rear @ rod.2.shell.upper'],
    ['R2 upper copper along flywheel edge, nail catches', 'sight-scored g3 @ rod.2.shell.upper'],
    [
      'one of the centre mains turned, tab gone',
      'spun-shell g4 @ 1 of main.2.shell.upper main.2.shell.lower main.3.shell.upper main.3.shell.lower main.4.shell.upper main.4.shell.lower',
    ],
    ['pan: bright copper flake, two spoonfuls', 'copper-flake g2 @ pan.debris'],
    ['no play at the nose', 'no measured.nose-play (seen)'],
    ['comp 8.2 7.9 3.1 8.0', 'measured.compression-one-low (measured)'],
    [
      'mains 1 to 3 even grey',
      'sound @ main.1.shell.upper main.1.shell.lower main.2.shell.upper main.2.shell.lower main.3.shell.upper main.3.shell.lower',
    ],
    ['crankpin 3 blue at the fillets', 'journal-heat g3 @ crank.pin.3'],
    ['con rod 4: bent, (grade 3)', 'rod-bent g3 @ rod.4'],
    ['cylinder 2 wrist pin loose', 'pin-boss-worn g2 @ piston.2.skirt.thrust piston.2.skirt.antithrust rod.2'],
    ['told: ran it on after the lamp came on', 'told.pressure-lost (told)'],
    ['oil smells of petrol and runs off the stick', 'fluid.fuel-smell (seen)'],
  ])('%s', (line, proposal) => {
    expect(said(line)).toContain(proposal);
  });

  it('takes words of both sides of the ocean for one part', () => {
    const places = (line: string): string =>
      readLine(line, FOUR)
        .findings.flatMap((f) => f.stations)
        .join(' ');
    expect(places('gudgeon pin 2 slack')).toBe(places('wrist pin 2 slack'));
    expect(places('big end bearing 3 wiped')).toBe(places('rod bearing 3 wiped'));
    expect(places('sump: sludge')).toBe(places('oil pan: sludge'));
    expect(places('bore 1 scored')).toBe(places('cylinder wall 1 scored'));
  });

  it('knows halves by what they lie in: the rod’s and the block’s are upper, the cap’s lower', () => {
    expect(said('big-end shells, rod half, 2: wiped')[0]).toBe('wiping g3 @ rod.2.shell.upper');
    expect(said('main shell 2, cap half: wiped')[0]).toBe('wiping g3 @ main.2.shell.lower');
    expect(said('main shell 2, block half: wiped')[0]).toBe('wiping g3 @ main.2.shell.upper');
    expect(said('main shells 2, both halves: wiped')[0]).toBe('wiping g3 @ main.2.shell.upper main.2.shell.lower');
  });

  it('reads numbers as lists, ranges and ordinals, and no figure with a unit as one', () => {
    const numbers = (line: string): string[] => [
      ...new Set(readLine(line, SIX).findings.flatMap((f) => f.stations.map((s) => s.split('.')[1]!))),
    ];
    expect(numbers('big ends 1, 3 and 5 scored')).toEqual(['1', '3', '5']);
    expect(numbers('liners 2 to 4: scored')).toEqual(['2', '3', '4']);
    expect(numbers('No. 6 piston crown melted')).toEqual(['6']);
    expect(numbers('second main wiped')).toEqual(['2']);
    expect(numbers('bore 3: scored, 4 mm wide')).toEqual(['3']);
  });

  it.each([
    ['liner, water side, 2, thrust side: deep pits', 'bore-pitting g3 @ bore.2'],
    ['liner bore, 2: brown rings', 'bore-rust g1 @ bore.2'],
    ['main caps, shells out, second and fourth: cracked', 'sight-cracked g3 @ main.2.housing main.4.housing'],
    ['Big end of no. 2 scored', 'sight-scored @ rod.2.shell.upper rod.2.shell.lower'],
    ['No. 1 and no. 3 big ends scored', 'sight-scored @ rod.1.shell.upper rod.1.shell.lower rod.3.shell.upper rod.3.shell.lower'],
    ['shells, rod 3, both halves: wiped', 'wiping g3 @ rod.3.shell.upper rod.3.shell.lower'],
    ['piston, no. 2, crown and skirt: scuffed', 'sight-scuffed @ piston.2.skirt.thrust piston.2.skirt.antithrust'],
    ['rod bolts stretched, nuts loose', 'bolt-loose g3 @ bolts.rod'],
    ['cam lobes: flat', 'lobe-flat g3 @ cam.1 cam.2 cam.3 cam.4'],
  ])('finds the place of “%s”', (line, proposal) => {
    expect(said(line)).toContain(proposal);
  });

  it.each([
    // Words that stand for something else where they stand.
    ['oil: bright lumps, no copper dust', 'told.dusty'],
    ['Rings free, gaps right', '@ rings.2'],
    ['relief valve free, spring right length', 'valves.'],
    ['skirts clean, no rubbing at the pin ends', 'crank.pin'],
    ['starter ring: four teeth chipped', 'told.raised-output'],
    ['seen: New shells all through', 'sound'],
    ['shell wall, big-end rod half: 0.02 under new', 'sound'],
    ['Main bolts all came undone at the same pull', 'sight-loose'],
    ['barrel 3: scored all round from bits', 'sight-metal'],
    ['skirt 1 smeared the whole height', 'no sight-broken'],
    ['shells of rod 1: beaten to scraps', 'dry-seizure'],
    ['crankpins: brown lacquer beside the track (grade 0)', 'sight-'],
    ['big ends good, no heat', 'told.overheated'],
    ['liner 2, 60 mm below top: two pin holes with a rust tear under each', 'measured.bore-worn'],
    ['told: filled up before it went on the trailer', 'told.ran-on'],
  ])('takes “%s” for no %s', (line, wrong) => {
    expect(said(line).filter((x) => x.includes(wrong))).toEqual([]);
  });

  it('reads how a part broke, where the oil stood, and a piston that stands low', () => {
    expect(said('crankpin 2: break runs slanting round the pin')).toContain('torsion-crack g4 @ crank.pin.2');
    expect(said('rod bolt 1: two thirds smooth with fine curved lines like tree rings')).toContain('bolt-broken g4 @ bolts.rod');
    expect(said('crankcase wall: baked brown ring a finger above the floor')).toContain('fluid.stood-low (seen)');
    expect(said('told: owner topped it up before it came')).toContain('told.topped-up-after (told)');
    expect(said('piston height below deck: 1: 0.02 proud; 3: 1.57 below; limit -0.10 to +0.10')).toContain('measured.rod-short (measured)');
    expect(said('piston to bore 2: top / middle / bottom: 0.080 / 0.078 / 0.028; limit 0.07 to 0.08')).toContain(
      'measured.bore-oval (measured)',
    );
    expect(said('connecting rod 1, in five or six bits: edges hammered')).toContain('rod-broken g4 @ rod.1');
  });

  it('takes the rods on a shared pin by their cylinders, and asks which where one is meant', () => {
    const vee = layoutOf('vee-8-petrol');
    const cylinders = cylinderPlaces(vee)
      .flatMap((p) => (pinNumber(vee, p) === 2 ? [p.cylinder] : []))
      .sort((a, b) => a - b);
    expect(cylinders).toHaveLength(2);
    expect(said('both rods on crankpin 2 bent', vee)).toContain(`rod-bent g3 @ ${cylinders.map((c) => `rod.${c}`).join(' ')}`);
    expect(said('one of the rods on crankpin 2 bent', vee)).toContain(`rod-bent g3 @ 1 of ${cylinders.map((c) => `rod.${c}`).join(' ')}`);
  });

  it('marks a sight that no place of the line can show as a description, not as a finding', () => {
    const { chips, findings } = readLine('crankpin 3 blue, no grit', FOUR);
    expect(findings.map((f) => f.sight)).toEqual(['journal-heat']);
    expect(chips.map((c) => c.role)).toEqual(['place', 'sight', 'described']);
  });

  it('of two, left and right say which only beside the part', () => {
    const twin = { ...FOUR, cylinders: 2, firingOrder: [1, 2], throwAnglesDeg: [0, 0], mains: 3 };
    expect(said('shells, left rod, both halves: wiped', twin)).toContain('wiping g3 @ rod.1.shell.upper rod.1.shell.lower');
    expect(said('barrel, right, bottom: scored', twin)).toContain('sight-scored @ bore.2');
    expect(said('pistons right way round', twin).every((x) => x.includes('piston.1') && x.includes('piston.2'))).toBe(true);
  });

  it('leaves a place open where one of several is meant, and never lets it stand for all', () => {
    expect(said('a piston is holed', FOUR)[0]).toMatch(/^sight-holed g4 @ 1 of /);
    expect(said('rings stuck in two of the pistons, numbers not written down', SIX)[0]).toMatch(/ of rings\.1\.pack|2 of /);
    expect(said('pistons scuffed')[0]).not.toContain(' of ');
  });

  it('hears what is denied, also in a list and in a word', () => {
    expect(said('crankpin 2: no blue, no lines')).toEqual(['no journal-heat @ crank.pin.2', 'no journal-scoring @ crank.pin.2']);
    expect(said('No dents, nicks or marks on any crown')).toEqual([expect.stringMatching(/^no crown-strike @ /)]);
    expect(said('Pistons scuff-free, both.', layoutOf('twin-premix')).filter((x) => !/^(?:no|sound) /.test(x))).toEqual([]);
    expect(said('rod bolts not stretched')).toEqual(['no bolt-stretched @ bolts.rod']);
  });

  it('keeps a sight apart from what the part merely touched', () => {
    const [crown, ...rest] = said('piston crown, 2: faint crescent where it has kissed the inlet valve');
    expect(crown).toBe('crown-strike g1 @ piston.2.crown');
    expect(rest.join()).not.toContain('valves');
  });

  it('mends slips of typing and leaves other words alone', () => {
    expect(said('crankpin 2 scroed')).toEqual(said('crankpin 2 scored'));
    expect(said('big end shells 2 extrded')).toEqual(said('big end shells 2 extruded'));
    expect(said('a batter of the stable')).toEqual([]);
  });

  it('judges a result by the limit in the line, and keeps one without a limit unjudged', () => {
    expect(said('end float: 0.31; limit 0.25')).toEqual(['measured.end-float-high (measured)']);
    expect(said('end float 0.18, max 0.25')).toEqual(['no measured.end-float-high (measured)']);
    expect(said('main clearance 1 2 3: 0.09 to 0.11; limit 0.08 to 0.16')).toEqual([
      'no measured.clearance-high (measured)',
      'no measured.clearance-low (measured)',
    ]);
    const open = readLine('end float: 0.31', FOUR);
    expect(open.features).toEqual([]);
    expect(open.result).toMatchObject({ name: 'end float', unjudged: true });
  });

  it('says how far a told thing can be relied on, and what was not looked at says nothing', () => {
    expect(said('told: ran hot all summer')).toEqual(['told.overheated (told)']);
    expect(said('told: crank was broken')).toEqual([]);
    expect(said('not examined: crankpin 2, blue perhaps')).toEqual([]);
    expect(readLine('not examined: oil cooler', FOUR).notExamined).toBe(true);
  });

  it('marks what it does not understand and never drops it', () => {
    const line = readLine('crankpin 2 scored, wobbles like a gramophone with hiccups', FOUR);
    const left = line.chips.filter((c) => c.role === 'not understood').map((c) => line.text.slice(c.from, c.to));
    expect(left.join(' ')).toContain('gramophone');
    const entries = entriesOfLine(line, line, FOUR, '1', () => 'id');
    expect(entries).toContainEqual({ kind: 'remark', station: 'crank.pin.2', body: { remark: 'id', text: line.text } });
    expect(entriesOfLine(readLine('the cat sat there', FOUR), { findings: [], features: [], gone: [] }, FOUR, '1', () => 'id')).toEqual([
      { kind: 'remark', station: null, body: { remark: 'id', text: 'the cat sat there' } },
    ]);
  });

  it('passes over bullets and the labels of a list, and keeps the letters that are parts', () => {
    expect(said('F3: crankpin 2 blue')).toEqual(said('crankpin 2 blue'));
    expect(said('- crankpin 2 blue')).toEqual(said('crankpin 2 blue'));
    expect(said('N1 mains 1 and 2 even grey')).toEqual(said('mains 1 and 2 even grey'));
    expect(said('M2: wiped')[0]).toMatch(/^wiping g3 @ main\.2/);
  });

  it('never throws and never names a place the engine has not, whatever is typed', () => {
    const odd = [
      '',
      '   ',
      '....',
      '(3)',
      'no',
      'no.',
      'R9 scored',
      'main 99 wiped',
      ': : :',
      'limit',
      'comp',
      '1 2 3 4',
      '💥 crankpin 💥',
      'a'.repeat(400),
      'grade 4',
    ];
    for (const text of odd) for (const f of readLine(text, FOUR).findings) for (const s of f.stations) expect(s).not.toMatch(/\.9/);
  });
});

describe('entries of a line', () => {
  const entriesOf = (text: string, layout: EngineLayout = FOUR): string[] => {
    const line: NotedLine = readLine(text, layout);
    return entriesOfLine(line, line, layout, '1', () => 'id').map((e) => `${e.kind} ${e.station ?? '-'} ${JSON.stringify(e.body)}`);
  };

  it('name the pattern, confirm the grade, draw the edge and keep the words', () => {
    const entries = entriesOf('R2 upper copper along flywheel edge');
    expect(entries.map((e) => e.split(' ').slice(0, 2).join(' '))).toEqual([
      'pattern-set rod.2.shell.upper',
      'grade-confirmed rod.2.shell.upper',
      'mark-made rod.2.shell.upper',
      'remark rod.2.shell.upper',
    ]);
  });

  it('keep an open place open', () => {
    expect(entriesOf('one of the centre mains turned')[0]).toMatch(/^sight-set - .*"of":1.*"reliability":"seen"/);
  });

  it('make history of what was told, and of a denial something looked for', () => {
    expect(entriesOf('told: ran hot')[0]).toBe(
      'history-line - {"line":"id","text":"told: ran hot","feature":"told.overheated","reliability":"told","date":null}',
    );
    expect(entriesOf('oil level right')[0]).toMatch(/^evidence-set - \{"feature":"fluid.level-low","present":false/);
  });

  it('belong to the place they are written at where the line names none, and to no other where it names one', () => {
    const at = (line: string): string[] => {
      const read = readLine(line, FOUR, { here: 'crank.pin.2' });
      return entriesOfLine(read, read, FOUR, '1', () => 'id').map((e) => `${e.kind} ${e.station ?? 'case'}`);
    };
    expect(at('blue at the fillets, no lines')).toEqual([
      'pattern-set crank.pin.2',
      'grade-confirmed crank.pin.2',
      'pattern-set crank.pin.2',
      'remark crank.pin.2',
    ]);
    expect(at('(grade 2)')).toEqual(['grade-confirmed crank.pin.2', 'remark crank.pin.2']);
    expect(at('hums like a top')).toEqual(['remark crank.pin.2']);
    expect(at('crankpin 3 blue at the fillets').every((x) => x.endsWith('crank.pin.3'))).toBe(true);
    expect(at('told: ran hot')).toEqual(['history-line case']);
  });

  describe('of an open sight whose place was found', () => {
    const held = (body: object): Parameters<typeof entriesOfPlace>[0] => ({
      value: {
        note: 'n',
        sight: 'spun-shell',
        present: true,
        among: ['main.2.shell.upper', 'main.3.shell.upper', 'main.4.shell.upper'],
        of: 1,
        grade: 4,
        reliability: 'seen',
        words: 'one turned',
        ...body,
      } as never,
      version: { entry: 'e1' } as never,
    });
    const found = (body: object): string[] =>
      entriesOfPlace(held(body), 'main.3.shell.upper', '1', () => 'new').map(
        (e) => `${e.kind} ${e.station ?? '-'} ${JSON.stringify(e.body)}`,
      );
    it('stand there, and close the question', () => {
      expect(found({})).toEqual([
        'retracted - {"target":"e1","slot":"sight:n","reason":"its place was found"}',
        'pattern-set main.3.shell.upper {"pattern":"spun-shell","present":true}',
        'grade-confirmed main.3.shell.upper {"grade":4,"proposed":null,"reason":"","book":"1"}',
        'remark main.3.shell.upper {"remark":"new","text":"one turned"}',
      ]);
    });
    it('leave the others open where it was at several', () => {
      const [rest, ...there] = found({ of: 2, grade: null, words: '' });
      expect(rest).toMatch(/^sight-set - .*"among":\["main.2.shell.upper","main.4.shell.upper"\],"of":1/);
      expect(there).toEqual(['pattern-set main.3.shell.upper {"pattern":"spun-shell","present":true}']);
    });
    it('stay told where it was told', () => {
      expect(found({ reliability: 'told' })).toEqual([
        expect.stringMatching(/^sight-set - \{"note":"n".*"among":\["main.3.shell.upper"\],"of":null.*"reliability":"told"/),
      ]);
      expect(found({ reliability: 'told', of: 2 })).toEqual([
        expect.stringMatching(/^sight-set - \{"note":"n".*"of":1/),
        expect.stringMatching(/^sight-set - \{"note":"new".*"among":\["main.3.shell.upper"\],"of":null/),
      ]);
    });
  });

  it('offer what a neutral sight may be, and nothing for a pattern', () => {
    const neutral = readLine('bore 1 scored', FOUR).findings[0]!;
    expect(closerSights({ ...neutral, sight: 'sight-scored' }, FOUR)).toContain('bore-scoring');
    expect(closerSights({ ...neutral, sight: 'bore-scoring' }, FOUR)).toEqual([]);
  });
});
