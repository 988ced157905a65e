import { parseArgs } from 'node:util';
import {
  cameraModelOf,
  checkLamp,
  checkTurn,
  develop,
  findOutline,
  lampGatherer,
  lampJson,
  readLamp,
  readTurn,
  READ_PARTS,
  reliefPicture,
  settleTurn,
  turnJoiner,
  turnJson,
  turnTracker,
  USUAL_VIEW_DEG,
  type CameraModel,
  type Point,
  type ReadPart,
} from '@true-ledger/core/photo';
import { aboutFilm, FILM_LIMITS, fitted, framesOf } from './film.js';
import { canWriteBeside, failed, written, wrong, type Film, type Unrolled } from './unrolled.js';
import { unrollBore } from './unrollBore.js';

/** Long sides of the frames in which a part is followed, and from which its surface is joined. */
const FOLLOWED_SIDE = 960;
const JOINED_SIDE = 1920;
/** Long side of the frames of a film whose lamp moves, and how many of them are looked at. */
const LAMP_SIDE = 1600;
const LAMP_FRAMES = 90;

const UNROLL_USAGE =
  'unroll FILM --part journal|skirt --turn, --part shell|journal|skirt|bore|thrust|crown --lamp, or --part bore --drawn [--view DEG] [--length MM] [--corners x1,y1,…,x4,y4] [--radius MM] [--width MM] [--facing DEG] [--out SURFACE.png]';

/** Parts whose films are read, by how they were taken. */
const WAYS: Readonly<Record<'turn' | 'lamp' | 'drawn', readonly string[]>> = {
  turn: ['journal', 'skirt'],
  lamp: READ_PARTS,
  drawn: ['bore'],
};

const listed = (parts: readonly string[]): string =>
  parts.length === 1 ? `${parts[0]!} is` : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)!} are`;

/** The surface of a part from a film: writes it as a PNG with a JSON beside it, and gives the JSON. `tell` is called with how far it has come. */
export async function unroll(
  args: readonly string[],
  usualRadius: (part: ReadPart) => number,
  tell: (words: string) => void,
): Promise<Unrolled> {
  let given;
  try {
    given = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        part: { type: 'string' },
        turn: { type: 'boolean' },
        lamp: { type: 'boolean' },
        drawn: { type: 'boolean' },
        view: { type: 'string' },
        length: { type: 'string' },
        width: { type: 'string' },
        corners: { type: 'string' },
        radius: { type: 'string' },
        facing: { type: 'string' },
        out: { type: 'string' },
      },
    });
  } catch {
    return wrong(`unroll takes: ${UNROLL_USAGE}.`);
  }
  const [path] = given.positionals;
  const { part: named = 'journal', turn, lamp, drawn, corners: cornersText, out, ...texts } = given.values;
  const part = named === 'piston' ? 'skirt' : named;
  if (!path) return wrong('unroll needs the path of a film.');
  if ([turn, lamp, drawn].filter(Boolean).length !== 1)
    return wrong(
      'Say how the film was taken: --turn for a part that is turned before a phone that stays, --lamp for a lamp that is led over a part that stays, --drawn for a borescope that is drawn out of a bore.',
    );
  const way = turn ? 'turn' : lamp ? 'lamp' : 'drawn';
  if (!WAYS[way].includes(part)) return wrong(`Films of "${part}" are not read with --${way}; ${listed(WAYS[way])}.`);
  const figures = cornersText === undefined ? null : cornersText.split(/[,;\s]+/).map(Number);
  if (figures && (figures.length !== 8 || !figures.every(Number.isFinite)))
    return wrong('--corners takes eight figures in pixels of the film: x1,y1,x2,y2,x3,y3,x4,y4.');
  const radiusMm = texts.radius === undefined ? usualRadius(part as ReadPart) : Number(texts.radius);
  if (!(radiusMm > 1 && radiusMm < 500)) return wrong('The radius is millimetres, 1 to 500.');
  const widthMm = texts.width === undefined ? null : Number(texts.width);
  if (widthMm !== null && !(widthMm > 1 && widthMm < 500)) return wrong('The width is millimetres, 1 to 500.');
  const facingDeg = Number(texts.facing ?? 0);
  if (!(facingDeg >= 0 && facingDeg < 360))
    return wrong('--facing is the arc that faces the camera in the first frame (of a bore: that lies at its top), 0 to 359 degrees.');
  const viewDeg = Number(texts.view ?? USUAL_VIEW_DEG);
  if (!(viewDeg >= 30 && viewDeg <= 150))
    return wrong('--view is what the scope sees across the long side of its picture, 30 to 150 degrees.');
  const lengthMm = texts.length === undefined ? null : Number(texts.length);
  if (lengthMm !== null && !(lengthMm > 1 && lengthMm < 1000)) return wrong('The length of the bore is millimetres, 1 to 1000.');
  // A film takes minutes: what would fail after them is told before.
  if (out !== undefined && !(await canWriteBeside(out)))
    return failed(
      `${out} cannot be written: its folder is not there, or is not to be written in. Nothing was read; make the folder or name another.`,
    );
  const about = await aboutFilm(path);
  if (typeof about === 'string') return failed(about);
  if (about.seconds > FILM_LIMITS.seconds)
    tell(`The film is ${about.seconds.toFixed(0)} s long; its first ${FILM_LIMITS.seconds} s are read.`);
  const film: Film = {
    path,
    about,
    corners: figures ? ([0, 2, 4, 6].map((k) => [figures[k]!, figures[k + 1]!]) as Point[]) : null,
    radiusMm,
    sizeAssumed: texts.radius === undefined,
    out: out ?? null,
    tell,
  };
  if (drawn) return unrollBore(film, { topDeg: facingDeg, viewDeg, viewAssumed: texts.view === undefined, lengthMm });
  return turn ? unrollTurn(film, part as 'journal' | 'skirt', facingDeg) : readLampFilm(film, part as ReadPart, widthMm);
}

const scaledBy = (points: readonly Point[], by: number): Point[] => points.map(([x, y]): Point => [x * by, y * by]);

/** A part turned before a phone that stays: its surface all round. */
async function unrollTurn(
  { path, about, corners: given, radiusMm, sizeAssumed, out, tell }: Film,
  part: 'journal' | 'skirt',
  facingDeg: number,
): Promise<Unrolled> {
  const small = fitted(about, FOLLOWED_SIDE);
  const scale = small.width / about.width;
  let tracker: ReturnType<typeof turnTracker> | null = null;
  let camera;
  let corners: readonly Point[] = [];
  for await (const { frame, timeS } of framesOf(path, about, FOLLOWED_SIDE)) {
    if (!tracker) {
      const placed = given ? { ok: true as const, value: scaledBy(given, scale) } : findOutline(part, frame);
      if (!placed.ok) return failed(placed.problem.sentence);
      corners = placed.value;
      const model = cameraModelOf(part, frame, corners, { radiusMm, widthMm: null });
      if (!model.ok) return failed(model.problem.sentence);
      camera = model.value;
      tracker = turnTracker(camera);
    }
    const so = tracker.take(frame, timeS);
    if (tracker.seen.length % 24 === 0) tell(`${timeS.toFixed(1)} s of ${about.seconds.toFixed(1)} s: turned ${so.turnedDeg.toFixed(0)}°`);
  }
  if (!tracker || !camera) return failed('The film holds no frame. Nothing was read.');
  const settled = settleTurn(tracker.seen, tracker.map);
  const problem = checkTurn(settled);
  if (problem) return failed(`${problem.sentence} Nothing was read; the film is unchanged.`);
  const large = fitted(about, JOINED_SIDE);
  const joiner = turnJoiner(camera, settled, facingDeg, large.width / small.width);
  tell('joining the frames');
  for await (const { frame, timeS } of framesOf(path, about, JOINED_SIDE)) if (joiner.wants(timeS)) joiner.take(frame, timeS);
  const joined = joiner.finish();
  const reading = readTurn(part, joined, settled);
  if (!reading.ok) return failed(reading.problem.sentence);
  const json = turnJson(reading.value, {
    part,
    film: { seconds: about.seconds, width: about.width, height: about.height, framesSeen: tracker.seen.length },
    joined,
    settled,
    facingDeg,
    corners: scaledBy(corners, 1 / scale),
    sizeAssumed,
  });
  await written(out, { '': joined.pixels }, json, tell);
  return { ok: true, json };
}

/** A lamp led over a part while part and phone stay: its surface without glare, and its relief. */
async function readLampFilm(
  { path, about, corners: given, radiusMm, sizeAssumed, out, tell }: Film,
  part: ReadPart,
  widthMm: number | null,
): Promise<Unrolled> {
  const scale = fitted(about, LAMP_SIDE).width / about.width;
  const size = { radiusMm, widthMm };
  let begun: {
    readonly camera: CameraModel;
    readonly corners: readonly Point[];
    readonly gatherer: ReturnType<typeof lampGatherer>;
  } | null = null;
  let [next, taken] = [0, 0];
  const gap = Math.min(FILM_LIMITS.seconds, about.seconds) / LAMP_FRAMES;
  for await (const { frame, timeS } of framesOf(path, about, LAMP_SIDE)) {
    if (timeS < next) continue;
    next = timeS + gap;
    if (!begun) {
      const placed = given ? { ok: true as const, value: scaledBy(given, scale) } : findOutline(part, frame);
      if (!placed.ok) return failed(placed.problem.sentence);
      const model = cameraModelOf(part, frame, placed.value, size);
      if (!model.ok) return failed(model.problem.sentence);
      begun = { camera: model.value, corners: placed.value, gatherer: lampGatherer(model.value, frame) };
    }
    begun.gatherer.take(frame);
    if (taken++ % 12 === 0) tell(`${timeS.toFixed(1)} s of ${about.seconds.toFixed(1)} s`);
  }
  if (!begun) return failed('The film holds no frame. Nothing was read.');
  const lamp = begun.gatherer.finish();
  const problem = checkLamp(lamp);
  if (problem) return failed(`${problem.sentence} Nothing was read; the film is unchanged.`);
  tell('reading the surface');
  const reading = readLamp(part, lamp, begun.camera, begun.corners, size, { cornersProposed: given === null });
  if (!reading.ok) return failed(reading.problem.sentence);
  const json = lampJson(reading.value, {
    part,
    film: { seconds: about.seconds, width: about.width, height: about.height },
    lamp,
    corners: scaledBy(begun.corners, 1 / scale),
    sizeAssumed,
  });
  const surface = develop(begun.camera, lamp.picture, 1400).pixels;
  await written(out, { '': surface, '-relief': reliefPicture(reading.value.relief), '-picture': lamp.picture }, json, tell);
  return { ok: true, json };
}
