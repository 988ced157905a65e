import { readFile } from 'node:fs/promises';
import { text as textOf } from 'node:stream/consumers';
import { parseArgs } from 'node:util';
import { engineTemplate, ENGINE_TEMPLATES, type EngineLayout, stationsOf } from '@true-ledger/core/engine';
import { NEUTRAL_SIGHTS, PATTERNS, toldApart } from '@true-ledger/core/damage';
import { FEATURES } from '@true-ledger/core/cause';
import {
  measureProgram,
  finishJson,
  readTraceCsv,
  runSheet,
  sheetJson,
  SHEETS,
  surfaceFinish,
  type FinishResult,
} from '@true-ledger/core/measure';
import type { CaseState } from '@true-ledger/core/ledger';
import type { CaseView } from '@true-ledger/core/case';
import {
  findOutline,
  isRead,
  READ_PARTS,
  readingJson,
  readSurface,
  WORK_RENDITION,
  type Pixels,
  type Point,
  type ReadPart,
} from '@true-ledger/core/photo';
import { diagnose, diagnosisJson } from '@true-ledger/core/diagnosis';
import { simulatedRoutes } from '@true-ledger/core/salvage';
import { layoutOf, reportMarkdown, reportModel, TEMPLATES } from '@true-ledger/core/report';
import {
  caseFileOfNotebook,
  openBundle,
  readCaseFile,
  certificatesOf,
  chainAgainstSeal,
  keyFingerprint,
  parseDailySeal,
  readBundleFiles,
  stampVerdict,
  stampWords,
} from '@true-ledger/core/bundle';
import sharp from 'sharp';
import { cornersShown, debugStrip } from './debugStrip.js';
import { running } from './running.js';
import { unroll } from './unroll.js';

const HELP = `true-ledger – reads cases and bundles without a server

  true-ledger verify BUNDLE.zip [--seal SEAL.txt [--stamp SEAL.tsr [--authority CERTIFICATES.pem]]]
                                       verify the chain, files and seal of an exported bundle, that it passes through
                                       a daily seal somebody kept, and what the seal's time-stamp (RFC 3161) proves
  true-ledger diagnose CASE.json       ranked causes of a case file, as JSON
  true-ledger report CASE.json [--template private|warranty|insurer|internal|inspection]
                                       the account of a case file in words, as Markdown
  true-ledger note --template TEMPLATE [--engine ENGINE.json] [--lines] < NOTEBOOK.txt
                                       the case file that the lines of a notebook make, as JSON; on the error output what
                                       was not understood, and with --lines how each line was taken
  true-ledger measure SHEET.json       results and verdicts of a measuring sheet, as JSON
  true-ledger finish TRACE.csv [--cutoff MM] [--reference TRACE.csv]
                                       surface parameters of a profile trace, as JSON
  true-ledger grade PHOTO --part shell|journal|skirt|bore|thrust|crown [--corners x1,y1,…,x4,y4] [--card x1,y1,…,x4,y4] [--guess 1|2] [--explain DIR]
      [--radius MM] [--width MM] [--arc DEG] [--construction trimetal|coated|aluminium-bimetal|bush|unknown]
                                       layers, lines and a proposed grade of a photographed surface, as JSON;
                                       corners in pixels: left-front, left-rear, right-rear, right-front;
                                       all but bores are found without them
  true-ledger unroll FILM --part journal|skirt --turn [--corners x1,y1,…,x4,y4] [--radius MM] [--facing DEG]
      [--out SURFACE.png]              the surface all round of a part that is turned before a phone that stays: layers, lines
                                       and a proposed grade as JSON, and with --out as PNG with the JSON beside it;
                                       corners in pixels of the first frame, --facing the arc that faces the camera in it
  true-ledger unroll FILM --part shell|journal|skirt|bore|thrust|crown --lamp [--corners x1,y1,…,x4,y4] [--radius MM] [--width MM]
      [--out SURFACE.png]              the surface without glare of a part over which a lamp is led while part and phone stay,
                                       its relief, and of every line whether it has walls
  true-ledger loads ENGINE.json [--pressure TABLE.csv] [--every DEG]
                                       forces on every big end and main, pistons and crank over a cycle, as JSON
  true-ledger film ENGINE.json [--bearing rod.1|main.1|…] [--pressure TABLE.csv]
                                       oil films of the bearings of a running engine, and where they are thin, as JSON
  true-ledger film BEARING.json [--table LOAD.csv] [--every DEG]
                                       oil film and orbit of a bearing by itself with a load over angle, as JSON
  true-ledger oil ENGINE.json          pressures and flows of the oil circuit with the faults of the file, what the gauge
                                       shows and who gets nothing, as JSON
  true-ledger stations TEMPLATE        places of an engine template
  true-ledger patterns                 damage patterns and neutral sights known here: id, name, parts, look, and what tells a
                                       pattern from those it is taken for
  true-ledger sheets [TEMPLATE]        measuring sheets known here, or every station, sheet and cell of an engine template
  true-ledger features                 evidence features known here, and the step that shows each
  true-ledger templates                engine templates

Exit code: 0 all right, 1 the bundle does not verify, 2 the input could not be read.`;

/** Output of the tool; replaced in tests. */
export interface Terminal {
  out(text: string): void;
  error(text: string): void;
  /** What was given on the standard input; nothing where there is none. */
  input?(): Promise<string>;
}

const CONSOLE: Terminal = {
  out: (t) => process.stdout.write(`${t}\n`),
  error: (t) => process.stderr.write(`${t}\n`),
  input: () => textOf(process.stdin),
};

/** Every place where a figure is read, as a case file and a file of readings name it. */
function cellsOf(layout: EngineLayout): Array<{ id: string; name: string }> {
  return measureProgram(layout).flatMap((place) =>
    place.cells.map((cell) => ({
      id: [place.station ?? '', place.sheet, cell.key].join('\t'),
      name: `${place.name}: ${cell.name}${cell.optional ? ' (when wanted)' : ''}`,
    })),
  );
}

/** Runs one command; returns the exit code. */
export async function run(args: readonly string[], terminal: Terminal = CONSOLE): Promise<number> {
  const [command, target] = args;
  const list = (rows: ReadonlyArray<{ id: string; name: string }>): number => {
    terminal.out(rows.map((r) => `${r.id}\t${r.name}`).join('\n'));
    return 0;
  };
  switch (command) {
    case 'verify':
      return target ? verify(args.slice(1), terminal) : usage(terminal, 'verify needs the path of a bundle.');
    case 'diagnose':
      return target ? diagnoseFile(target, terminal) : usage(terminal, 'diagnose needs the path of a case file.');
    case 'note':
      return note(args.slice(1), terminal);
    case 'report':
      return target ? reportFile(args.slice(1), terminal) : usage(terminal, 'report needs the path of a case file.');
    case 'measure':
      return target ? measureFile(target, terminal) : usage(terminal, 'measure needs the path of a sheet.');
    case 'finish':
      return target ? finishFile(args.slice(1), terminal) : usage(terminal, 'finish needs the path of a trace.');
    case 'grade':
      return target ? gradePhoto(args.slice(1), terminal) : usage(terminal, 'grade needs the path of a picture.');
    case 'unroll':
      return unrollFilm(args.slice(1), terminal);
    case 'loads':
    case 'film':
    case 'oil':
      return runningEngine(command, args.slice(1), terminal);
    case 'stations': {
      const template = engineTemplate(target ?? '');
      return template ? list(stationsOf(template.layout)) : usage(terminal, `"${target ?? ''}" is not an engine template.`);
    }
    case 'patterns':
      return list([
        ...PATTERNS.map((p) => ({ id: p.id, name: [p.name, p.parts.join(' '), p.look, toldApart(p)].filter(Boolean).join('\t') })),
        ...NEUTRAL_SIGHTS.map((s) => ({ id: s.id, name: `${s.name}\tneutral sight\tmay be ${s.patterns.join(', ')}` })),
      ]);
    case 'sheets':
      if (target) {
        const template = engineTemplate(target);
        return template ? list(cellsOf(template.layout)) : usage(terminal, `"${target}" is not an engine template.`);
      }
      return list(Object.entries(SHEETS).map(([id, { name }]) => ({ id, name })));
    case 'features':
      return list(FEATURES.map((f) => ({ id: f.id, name: `${f.name}\t${f.check.step}` })));
    case 'templates':
      return list(ENGINE_TEMPLATES);
    case undefined:
    case 'help':
    case '--help':
      terminal.out(HELP);
      return 0;
    default:
      return usage(terminal, `"${command}" is not a command.`);
  }
}

function usage(terminal: Terminal, sentence: string): number {
  terminal.error(`${sentence}\n\n${HELP}`);
  return 2;
}

async function read(path: string, terminal: Terminal): Promise<Uint8Array | null> {
  try {
    return new Uint8Array(await readFile(path));
  } catch {
    terminal.error(`"${path}" could not be read. Check the path.`);
    return null;
  }
}

async function verify(args: readonly string[], terminal: Terminal): Promise<number> {
  let given;
  try {
    given = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: { seal: { type: 'string' }, stamp: { type: 'string' }, authority: { type: 'string' } },
    });
  } catch {
    return usage(terminal, 'verify knows --seal SEAL.txt, and with it --stamp SEAL.tsr and --authority CERTIFICATES.pem.');
  }
  const [path = ''] = given.positionals;
  const { seal: sealPath, stamp: stampPath, authority } = given.values;
  if ((stampPath !== undefined && sealPath === undefined) || (authority !== undefined && stampPath === undefined))
    return usage(terminal, 'A stamp is looked at with the seal it was given for (--seal), an authority with a stamp (--stamp).');
  const bytes = await read(path, terminal);
  if (!bytes) return 2;
  const opened = openBundle(bytes);
  if (!opened.ok) {
    terminal.error(opened.problem.sentence);
    return 2;
  }
  const { verdict, entries } = readBundleFiles(opened.value);
  terminal.out(JSON.stringify(verdict, null, 2));
  if (verdict.broken)
    terminal.error(`Broken at entry ${verdict.broken.seq}${verdict.broken.id ? ` (${verdict.broken.id})` : ''}: ${verdict.broken.reason}.`);
  for (const line of verdict.disagreements) terminal.error(`${line}.`);
  if (verdict.ok) terminal.error(`All ${verdict.entries} entries and ${verdict.photos} pictures hold. Head ${verdict.head}.`);
  const { seal } = verdict;
  if (verdict.ok)
    terminal.error(
      seal.state === 'holds'
        ? `Every file is under the seal of the key ${seal.fingerprint}${seal.shop ? ` (${seal.shop})` : ''}, made ${seal.made}. That the key is the shop's you know from the shop.`
        : 'The bundle carries no seal: that its last entries were not cut off, and who made it, is not proved by it.',
    );
  if (sealPath === undefined || !verdict.ok) return verdict.ok ? 0 : 1;
  const kept = await read(sealPath, terminal);
  if (!kept) return 2;
  const daily = parseDailySeal(new TextDecoder().decode(kept));
  if (!daily.ok) return told(daily.problem, terminal);
  const found = chainAgainstSeal(entries, daily.value);
  terminal.error(
    {
      passes: `The ledger passes through the seal of ${found.day}: its first ${'seq' in found ? found.seq : 0} entries are those of that day, under the key ${keyFingerprint(daily.value.statement.key)}.`,
      'not-in-seal': `The seal of ${found.day} does not name this case: it was opened later, or belongs to another shop. Nothing is proved by it.`,
      'cut-off': `The ledger is shorter than it was on ${found.day}: entries were cut off.`,
      rewritten: `The ledger is not the one of ${found.day}: it was rewritten before entry ${'seq' in found ? found.seq : 0}.`,
    }[found.state],
  );
  if (found.state === 'cut-off' || found.state === 'rewritten') return 1;
  if (stampPath === undefined) {
    terminal.error(stampWords({ state: 'missing' }));
    return 0;
  }
  const stamp = await read(stampPath, terminal);
  const certificates = authority === undefined ? new Uint8Array() : await read(authority, terminal);
  if (!stamp || !certificates) return 2;
  const stamped = await stampVerdict(stamp, kept, { trusted: certificatesOf(new TextDecoder().decode(certificates)) });
  terminal.error(stampWords(stamped));
  return stamped.state === 'holds' || (stamped.state === 'unknown-authority' && authority === undefined) ? 0 : 1;
}

/** A notebook of more characters is not read: it would be no notebook. */
const LONGEST_NOTEBOOK = 400_000;

/** As much of a line as is worth a look at a terminal. */
const shortened = (text: string): string => (text.length <= 1000 ? text : `${text.slice(0, 100)} … (${text.length} characters, not read)`);

/** Makes a case file of the lines of a notebook; tells a line each what was not understood, or with `--lines` how each was taken. */
async function note(args: readonly string[], terminal: Terminal): Promise<number> {
  let given;
  try {
    given = parseArgs({
      args: [...args],
      options: { template: { type: 'string' }, engine: { type: 'string' }, lines: { type: 'boolean' } },
    });
  } catch {
    return usage(terminal, 'note knows --template TEMPLATE, --engine ENGINE.json and --lines.');
  }
  const { template, engine: enginePath, lines: each } = given.values;
  const differs = enginePath === undefined ? { json: {} } : await readJson(enginePath, terminal);
  if (!differs) return 2;
  const engine = { ...(differs.json as { template?: string }), ...(template === undefined ? {} : { template }) };
  if (!engineTemplate(engine.template ?? ''))
    return usage(terminal, `note needs --template, one of: ${ENGINE_TEMPLATES.map((t) => t.id).join(', ')}.`);
  const notebook = (await terminal.input?.()) ?? '';
  if (notebook.length > LONGEST_NOTEBOOK) {
    terminal.error(`The notebook has ${notebook.length} characters, at most ${LONGEST_NOTEBOOK} are read. Divide it; nothing was made.`);
    return 2;
  }
  const made = caseFileOfNotebook(engine as { template: string }, notebook.split(/\r?\n/));
  if (!made.ok) return told(made.problem, terminal);
  const { file, lines } = made.value;
  const checked = readCaseFile(file);
  if (!checked.ok) return told(checked.problem, terminal);
  terminal.out(JSON.stringify(file, null, 2));
  lines.forEach((line, i) => {
    const left = line.left.map((l) => `"${shortened(line.text.slice(l.from, l.to))}"`);
    if (each)
      terminal.error(
        `${i + 1}: ${shortened(line.text)}\n${[
          ...line.findings.map(
            (f) =>
              `    ${f.present ? '' : 'not '}${f.sight ?? (f.sound ? 'sound' : 'grade')}${f.grade === null ? '' : ` grade ${f.grade}`} at ${f.of === null ? '' : `${f.of} of `}${f.stations.join(' ')} (${f.reliability})`,
          ),
          ...line.features.map((f) => `    ${f.present ? '' : 'not '}${f.feature} (${f.reliability})`),
          ...(left.length > 0 ? [`    not understood, kept as a remark: ${left.join(', ')}`] : []),
        ].join('\n')}`,
      );
    else if (left.length > 0) terminal.error(`line ${i + 1}, not understood, kept as a remark: ${left.join(', ')}`);
  });
  const whole = lines.filter((l) => l.left.length === 0).length;
  terminal.error(`${lines.length} lines, ${whole} of them understood in every clause.`);
  return 0;
}

async function readJson(path: string, terminal: Terminal): Promise<{ json: unknown } | null> {
  const bytes = await read(path, terminal);
  if (!bytes) return null;
  try {
    return { json: JSON.parse(new TextDecoder().decode(bytes)) as unknown };
  } catch (error) {
    terminal.error(`"${path}" is not JSON: ${error instanceof Error ? error.message : 'unreadable'}.`);
    return null;
  }
}

const CONSTRUCTIONS = ['trimetal', 'coated', 'aluminium-bimetal', 'bush', 'unknown'] as const;
/** Radius taken where none is given, mm: a common passenger-car bearing. Millimetres in the answer rest on it and say so. */
const USUAL_RADIUS_MM = 24.7;
const USUAL_SKIRT_RADIUS_MM = 43;
const usualRadius = (part: ReadPart): number =>
  part === 'skirt' || part === 'bore' || part === 'crown' ? USUAL_SKIRT_RADIUS_MM : USUAL_RADIUS_MM;
const GRADE_OPTIONS = ['--part', '--corners', '--card', '--radius', '--width', '--arc', '--construction', '--explain', '--guess'];

/** Four points as `x1,y1,…,x4,y4`. */
function fourPoints(text: string): Point[] | null {
  const figures = text.split(/[,;\s]+/).map(Number);
  if (figures.length !== 8 || !figures.every(Number.isFinite)) return null;
  return [0, 2, 4, 6].map((k): Point => [figures[k]!, figures[k + 1]!]);
}

async function gradePhoto(args: readonly string[], terminal: Terminal): Promise<number> {
  const [path = '', ...rest] = args;
  const option = (name: string): string | undefined => (rest.includes(name) ? (rest[rest.indexOf(name) + 1] ?? '') : undefined);
  const strange = rest.find((a, i) => (a.startsWith('--') ? !GRADE_OPTIONS.includes(a) : !rest[i - 1]?.startsWith('--')));
  if (strange) return usage(terminal, `"${strange}" is not an option of grade.`);
  const named = option('--part') ?? 'shell';
  const part = named === 'piston' ? 'skirt' : named;
  if (!isRead(part)) return usage(terminal, `Pictures of "${part}" are not read; ${READ_PARTS.join(', ')} are.`);
  const given: Partial<Record<'corners' | 'card', Point[]>> = {};
  for (const name of ['corners', 'card'] as const) {
    const text = option(`--${name}`);
    if (text === undefined) continue;
    const points = fourPoints(text);
    if (!points) return usage(terminal, `--${name} takes eight figures in pixels: x1,y1,x2,y2,x3,y3,x4,y4.`);
    given[name] = points;
  }
  const size = (name: '--radius' | '--width' | '--arc'): number | undefined =>
    option(name) === undefined ? undefined : Number(option(name));
  const [radius, width] = [size('--radius'), size('--width')];
  for (const mm of [radius, width])
    if (mm !== undefined && !(mm > 1 && mm < 500)) return usage(terminal, 'Radius and width of the face are millimetres, 1 to 500.');
  const arc = size('--arc');
  if (arc !== undefined && !(arc >= 5 && arc <= 360)) return usage(terminal, 'The arc of a strip is 5 to 360 degrees.');
  const construction = (option('--construction') ?? 'trimetal') as (typeof CONSTRUCTIONS)[number];
  if (!CONSTRUCTIONS.includes(construction)) return usage(terminal, `A shell is ${CONSTRUCTIONS.join(', ')}.`);
  const guess = option('--guess') ?? '1';
  if (guess !== '1' && guess !== '2') return usage(terminal, '--guess is 1 or 2: which of the guesses where the part lies is read.');
  const decoded = await decodePicture(path, terminal);
  if (!decoded) return 2;
  const { picture, scale } = decoded;
  const strip = option('--explain') === undefined ? null : await debugStrip(option('--explain')!);
  if (strip && !strip.ok) return usage(terminal, strip.sentence);
  const scaled = (points: readonly Point[], by: number): Point[] => points.map(([x, y]) => [x * by, y * by]);
  const corners = given.corners
    ? { ok: true as const, value: scaled(given.corners, scale) }
    : findOutline(part, picture, guess === '2' ? 2 : 1);
  if (!corners.ok) return told(corners.problem, terminal);
  strip?.take(cornersShown(picture, corners.value));
  const reading = readSurface(
    part,
    picture,
    corners.value,
    { radiusMm: radius ?? usualRadius(part), widthMm: width ?? null, ...(arc ? { arcDeg: arc } : {}) },
    {
      construction,
      cornersProposed: !given.corners,
      ...(given.card ? { card: scaled(given.card, scale) } : {}),
      ...(strip ? { explain: strip.take } : {}),
    },
  );
  const unwritten = await strip?.written();
  if (unwritten) terminal.error(unwritten);
  if (!reading.ok) return told(reading.problem, terminal);
  const about = { part, corners: scaled(corners.value, 1 / scale), sizeAssumed: radius === undefined };
  terminal.out(JSON.stringify(readingJson(reading.value, about), null, 2));
  return 0;
}

async function unrollFilm(args: readonly string[], terminal: Terminal): Promise<number> {
  const done = await unroll(args, usualRadius, (words) => terminal.error(words)).catch((error: unknown) => ({
    ok: false as const,
    usage: false,
    sentence: `The film was not unrolled: ${error instanceof Error ? error.message : String(error)}`,
  }));
  if (done.ok) terminal.out(JSON.stringify(done.json, null, 2));
  else if (done.usage) return usage(terminal, done.sentence);
  else terminal.error(done.sentence);
  return done.ok ? 0 : 2;
}

async function runningEngine(command: Parameters<typeof running>[0], args: readonly string[], terminal: Terminal): Promise<number> {
  const answered = await running(command, args, {
    json: (path) => readJson(path, terminal),
    text: async (path) => {
      const bytes = await read(path, terminal);
      return bytes && new TextDecoder().decode(bytes);
    },
  });
  if (answered === null) return 2;
  if (answered.ok) terminal.out(JSON.stringify(answered.json, null, 2));
  else if (answered.usage) return usage(terminal, answered.sentence);
  else terminal.error(answered.sentence);
  return answered.ok ? 0 : 2;
}

/** A picture file in the rendition that everything is read from, as the server makes it, and its scale against the upright original; more than 40 megapixels are refused before they are unpacked. */
async function decodePicture(path: string, terminal: Terminal): Promise<{ readonly picture: Pixels; readonly scale: number } | null> {
  const bytes = await read(path, terminal);
  if (!bytes) return null;
  try {
    const upright = sharp(bytes, { limitInputPixels: 40_000_000 }).rotate();
    const { longSide, quality } = WORK_RENDITION;
    const work = await upright
      .resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality })
      .toBuffer();
    const { width = 0, height = 0, orientation = 1 } = await sharp(bytes).metadata();
    const { data, info } = await sharp(work).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length) };
    return { picture, scale: info.width / (orientation >= 5 ? height : width) };
  } catch (error) {
    terminal.error(
      `"${path}" is not a picture that can be read: ${error instanceof Error ? error.message.split('\n')[0] : 'unreadable'}. Nothing was graded.`,
    );
    return null;
  }
}

function told(problem: { readonly sentence: string; readonly field?: string }, terminal: Terminal): number {
  terminal.error(`${problem.sentence}${problem.field ? ` (at ${problem.field})` : ''}`);
  return 2;
}

async function measureFile(path: string, terminal: Terminal): Promise<number> {
  const file = await readJson(path, terminal);
  if (!file) return 2;
  const outcome = runSheet(file.json);
  if (!outcome.ok) return told(outcome.problem, terminal);
  terminal.out(JSON.stringify(sheetJson(outcome.value), null, 2));
  return 0;
}

/** The trace in hand, and a reference (below ring travel) to hold it against. */
async function finishFile(args: readonly string[], terminal: Terminal): Promise<number> {
  const [path = '', ...rest] = args;
  const option = (name: string): string | undefined => (rest.includes(name) ? rest[rest.indexOf(name) + 1] : undefined);
  const strange = rest.find((a, i) => (a.startsWith('--') ? !['--cutoff', '--reference'].includes(a) : !rest[i - 1]?.startsWith('--')));
  if (strange) return usage(terminal, `"${strange}" is not an option of finish.`);
  const cutoff = Number(option('--cutoff') ?? 0.8);
  if (!(cutoff > 0 && cutoff <= 25)) return usage(terminal, 'A cut-off lies between 0 and 25 mm, such as 0.25, 0.8 or 2.5.');
  const one = async (file: string): Promise<FinishResult | null> => {
    const bytes = await read(file, terminal);
    if (!bytes) return null;
    const trace = readTraceCsv(new TextDecoder().decode(bytes));
    const finish = trace.ok ? surfaceFinish(trace.value, cutoff) : trace;
    if (finish.ok) return finish.value;
    told(finish.problem, terminal);
    return null;
  };
  const result = await one(path);
  if (!result) return 2;
  const referencePath = option('--reference');
  const reference = referencePath ? await one(referencePath) : undefined;
  if (reference === null) return 2;
  terminal.out(JSON.stringify(finishJson(result, reference), null, 2));
  return 0;
}

async function reportFile(args: readonly string[], terminal: Terminal): Promise<number> {
  const [path = '', ...rest] = args;
  const template = rest[0] === '--template' ? TEMPLATES.find((t) => t.id === rest[1]) : undefined;
  if (rest.length > 0 && !template)
    return usage(
      terminal,
      `"${rest.join(' ')}" is not an option of report; --template is one of ${TEMPLATES.map((t) => t.id).join(', ')}.`,
    );
  const read = await readCase(path, terminal);
  if (!read) return 2;
  const { view, state } = read;
  const laidOut = template
    ? { ...view, accountLayout: { ...layoutOf(view), template: template.id, order: template.order, left: [], detail: template.detail } }
    : view;
  terminal.out(reportMarkdown(reportModel(laidOut, state.head, state.seq, { routes: simulatedRoutes(view, diagnose(view), new Date()) })));
  return 0;
}

async function diagnoseFile(path: string, terminal: Terminal): Promise<number> {
  const read = await readCase(path, terminal);
  if (!read) return 2;
  terminal.out(JSON.stringify(diagnosisJson(read.view, diagnose(read.view)), null, 2));
  return 0;
}

/** A case file, read; what was taken and is probably not meant so is told. Null when it cannot be read, which is told too. */
async function readCase(path: string, terminal: Terminal): Promise<{ view: CaseView; state: CaseState } | null> {
  const file = await readJson(path, terminal);
  if (!file) return null;
  const result = readCaseFile(file.json);
  if (!result.ok) {
    told(result.problem, terminal);
    return null;
  }
  for (const doubt of result.value.doubts) terminal.error(`${doubt.field}: ${doubt.sentence}`);
  return result.value;
}
