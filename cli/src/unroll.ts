import { parseArgs } from 'node:util';
import { writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import {
  cameraModelOf,
  checkTurn,
  findOutline,
  readTurn,
  settleTurn,
  turnJoiner,
  turnJson,
  turnTracker,
  type Pixels,
  type Point,
} from '@true-ledger/core/photo';
import { aboutFilm, FILM_LIMITS, fitted, framesOf } from './film.js';

/** Long sides of the frames in which a part is followed, and from which its surface is joined. */
const FOLLOWED_SIDE = 960;
const JOINED_SIDE = 1920;

const UNROLL_USAGE = 'unroll FILM --part journal|skirt --turn [--corners x1,y1,…,x4,y4] [--radius MM] [--facing DEG] [--out SURFACE.png]';

/** What `unroll` answers: a sentence of what went wrong, or JSON. */
export type Unrolled =
  { readonly ok: true; readonly json: object } | { readonly ok: false; readonly sentence: string; readonly usage: boolean };

const wrong = (sentence: string): Unrolled => ({ ok: false, sentence, usage: true });
const failed = (sentence: string): Unrolled => ({ ok: false, sentence, usage: false });

/** The surface of a part from a film: writes it as a PNG with a JSON beside it, and gives the JSON. `tell` is called with how far it has come. */
export async function unroll(
  args: readonly string[],
  usualRadius: (part: 'journal' | 'skirt') => number,
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
  const { part: named = 'journal', turn, corners: cornersText, radius: radiusText, facing: facingText, out } = given.values;
  const part = named === 'piston' ? 'skirt' : named;
  if (!path) return wrong('unroll needs the path of a film.');
  if (part !== 'journal' && part !== 'skirt') return wrong(`Films of "${part}" are not unrolled; journal and skirt are.`);
  if (!turn) return wrong('Say how the film was taken: --turn for a part that is turned before a phone that stays.');
  const figures = cornersText === undefined ? null : cornersText.split(/[,;\s]+/).map(Number);
  if (figures && (figures.length !== 8 || !figures.every(Number.isFinite)))
    return wrong('--corners takes eight figures in pixels of the film: x1,y1,x2,y2,x3,y3,x4,y4.');
  const radiusMm = radiusText === undefined ? usualRadius(part) : Number(radiusText);
  if (!(radiusMm > 1 && radiusMm < 500)) return wrong('The radius is millimetres, 1 to 500.');
  const facingDeg = Number(facingText ?? 0);
  if (!(facingDeg >= 0 && facingDeg < 360)) return wrong('--facing is the arc that faces the camera in the first frame, 0 to 359 degrees.');
  const about = await aboutFilm(path);
  if (typeof about === 'string') return failed(about);

  if (about.seconds > FILM_LIMITS.seconds)
    tell(`The film is ${about.seconds.toFixed(0)} s long; its first ${FILM_LIMITS.seconds} s are read.`);

  const small = fitted(about, FOLLOWED_SIDE);
  const scale = small.width / about.width;
  const given4 = figures ? ([0, 2, 4, 6].map((k) => [figures[k]! * scale, figures[k + 1]! * scale]) as Point[]) : null;
  let tracker: ReturnType<typeof turnTracker> | null = null;
  let camera;
  let corners: readonly Point[] = [];
  for await (const { frame, timeS } of framesOf(path, about, FOLLOWED_SIDE)) {
    if (!tracker) {
      const placed = given4 ? { ok: true as const, value: given4 } : findOutline(part, frame);
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
    corners: corners.map(([x, y]): Point => [x / scale, y / scale]),
    sizeAssumed: radiusText === undefined,
  });
  if (out !== undefined) {
    const png = /\.png$/i.test(out) ? out : `${out}.png`;
    await writePng(png, joined.pixels);
    await writeFile(png.replace(/\.png$/i, '.json'), `${JSON.stringify(json, null, 2)}\n`);
    tell(`written: ${png}`);
  }
  return { ok: true, json };
}

async function writePng(path: string, { width, height, data }: Pixels): Promise<void> {
  await sharp(Buffer.from(data.buffer, data.byteOffset, data.length), { raw: { width, height, channels: 4 } })
    .png()
    .toFile(path);
}
