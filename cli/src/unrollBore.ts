import { boreJson, boreStacker, checkScope, readBore, scopeTracker } from '@true-ledger/core/photo';
import { framesOf } from './film.js';
import { failed, written, type Film, type Unrolled } from './unrolled.js';

/** Long sides of the frames in which the scope is followed, and from which the wall is stacked. */
const FOLLOWED_SIDE = 480;
const STACKED_SIDE = 1920;

/** How a scope saw a bore. */
interface Scoped {
  /** Arc that lies at the top of the first frame. */
  readonly topDeg: number;
  /** What it sees across the long side of its picture, and whether anybody said so. */
  readonly viewDeg: number;
  readonly viewAssumed: boolean;
  /** Length of the wall from end to end, where it is known. */
  readonly lengthMm: number | null;
}

/** A borescope drawn out of a bore: the wall of the bore. */
export async function unrollBore(
  { path, about, radiusMm, sizeAssumed, out, tell }: Film,
  { topDeg, viewDeg, viewAssumed, lengthMm }: Scoped,
): Promise<Unrolled> {
  const tracker = scopeTracker(viewDeg);
  for await (const { frame, timeS } of framesOf(path, about, FOLLOWED_SIDE)) {
    const { pose } = tracker.take(frame, timeS);
    if (tracker.frames.length % 24 === 0)
      tell(`${timeS.toFixed(1)} s of ${about.seconds.toFixed(1)} s: moved by ${(Math.abs(pose.depth) * radiusMm).toFixed(0)} mm`);
  }
  const problem = checkScope(tracker);
  const stacker = boreStacker(tracker, radiusMm, topDeg);
  if (problem || !stacker) return failed(`${problem?.sentence ?? 'The film holds no frame.'} Nothing was read; the film is unchanged.`);
  tell('stacking the wall');
  for await (const { frame, timeS } of framesOf(path, about, STACKED_SIDE)) stacker.take(frame, timeS);
  const bore = stacker.finish();
  const ends = bore.ends.near && bore.ends.far;
  if (lengthMm !== null && !ends)
    tell('The two ends of the bore are not both seen, so its length is taken from the lens and not from --length.');
  const length = ends ? lengthMm : null;
  tell('reading the wall');
  const reading = readBore(bore, length);
  if (!reading.ok) return failed(reading.problem.sentence);
  const json = boreJson(reading.value, {
    film: { seconds: about.seconds, width: about.width, height: about.height },
    bore,
    frames: tracker.frames,
    topDeg,
    fieldOfView: { deg: viewDeg, assumed: viewAssumed },
    lengthMm: length,
    sizeAssumed,
  });
  await written(out, { '': bore.pixels }, json, tell);
  return { ok: true, json };
}
