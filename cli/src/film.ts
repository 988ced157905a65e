import { execFile, spawn } from 'node:child_process';
import { stat } from 'node:fs/promises';
import { promisify } from 'node:util';
import type { Pixels } from '@true-ledger/core/photo';

/** What a film file says of itself. */
export interface FilmAbout {
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  readonly fps: number;
}

/** Limits of a film: bytes, seconds that are read, pixels a side, frames that are looked at. */
export const FILM_LIMITS = { bytes: 600_000_000, seconds: 60, side: 4096, frames: 720 } as const;
const MISSING = 'Films are taken apart by ffmpeg, which is not installed here (Debian package ffmpeg). Nothing was read.';
/** A file may use no other source than itself. */
const CLOSED = ['-v', 'error', '-protocol_whitelist', 'file'];
const PATIENCE_MS = 20 * 60_000;

const text = (error: unknown): string => (error instanceof Error ? error.message : String(error));
const noProgram = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';

/** Looks at a film without unpacking it; a sentence where it cannot be read. */
export async function aboutFilm(path: string): Promise<FilmAbout | string> {
  const file = await stat(path).catch(() => null);
  if (!file?.isFile()) return `"${path}" could not be read. Check the path.`;
  if (file.size > FILM_LIMITS.bytes)
    return `The film has ${Math.round(file.size / 1e6)} MB, at most ${FILM_LIMITS.bytes / 1e6} are read. Film a shorter one.`;
  try {
    const { stdout } = await promisify(execFile)(
      'ffprobe',
      [
        ...CLOSED,
        '-select_streams',
        'v:0',
        '-show_entries',
        'stream=width,height,avg_frame_rate:stream_side_data=rotation:format=duration',
        '-count_packets',
        '-show_entries',
        'stream=nb_read_packets',
        '-of',
        'json',
        path,
      ],
      { timeout: PATIENCE_MS, maxBuffer: 1_000_000 },
    );
    const told = JSON.parse(stdout) as {
      streams?: {
        width?: number;
        height?: number;
        avg_frame_rate?: string;
        nb_read_packets?: string;
        side_data_list?: { rotation?: number }[];
      }[];
      format?: { duration?: string };
    };
    const stream = told.streams?.[0];
    if (!stream?.width || !stream.height) return `"${path}" holds no moving picture. Nothing was read.`;
    const [over = 0, under = 1] = (stream.avg_frame_rate ?? '').split('/').map(Number);
    const packets = Number(stream.nb_read_packets ?? 0);
    const told_s = Number(told.format?.duration);
    const rate = over > 0 && under > 0 && over / under <= 240 ? over / under : 30;
    const seconds = told_s > 0 ? told_s : packets / rate;
    if (packets < 2) return `"${path}" is a single picture and no film. Read it with grade. Nothing was read.`;
    if (Math.max(stream.width, stream.height) > FILM_LIMITS.side)
      return `The film is ${stream.width} × ${stream.height}; at most ${FILM_LIMITS.side} pixels a side are read. Film in a smaller size. Nothing was read.`;
    const turned = Math.abs(stream.side_data_list?.find((d) => d.rotation !== undefined)?.rotation ?? 0) % 180 === 90;
    return {
      width: turned ? stream.height : stream.width,
      height: turned ? stream.width : stream.height,
      seconds,
      fps: seconds > 0 && packets > 0 ? Math.min(rate, packets / seconds) : rate,
    };
  } catch (error) {
    if (noProgram(error)) return MISSING;
    return `"${path}" is not a film that can be read: ${(text(error).split('\n').at(-2) ?? text(error)).slice(0, 200)}. Nothing was read.`;
  }
}

/** Size of a film whose long side is at most `side`; even numbers. */
export function fitted({ width, height }: FilmAbout, side: number): { readonly width: number; readonly height: number } {
  const by = Math.min(1, side / Math.max(width, height));
  return { width: 2 * Math.round((width * by) / 2), height: 2 * Math.round((height * by) / 2) };
}

/** Frames a second that are looked at: all of a short film, fewer of a long one. */
const rateOf = ({ seconds, fps }: FilmAbout): number =>
  Math.min(fps, FILM_LIMITS.frames / Math.max(1, Math.min(seconds, FILM_LIMITS.seconds)));

/** Takes a film apart into frames at an even rate, no longer side than `side`; frames of any rate come out evenly. Throws a sentence when the decoder fails. */
export async function* framesOf(
  path: string,
  about: FilmAbout,
  side: number,
): AsyncGenerator<{ readonly frame: Pixels; readonly timeS: number }> {
  const { width, height } = fitted(about, side);
  const fps = rateOf(about);
  const child = spawn(
    'ffmpeg',
    [
      ...CLOSED,
      '-i',
      path,
      '-t',
      `${FILM_LIMITS.seconds}`,
      '-an',
      '-sn',
      '-dn',
      '-vf',
      `fps=${fps},scale=${width}:${height}`,
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      'pipe:1',
    ],
    { stdio: ['ignore', 'pipe', 'pipe'], timeout: PATIENCE_MS },
  );
  let said = '';
  child.stderr.on('data', (d: Buffer) => (said = (said + d.toString()).slice(-2000)));
  const ended = new Promise<number | null>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', resolve);
  });
  const size = width * height * 4;
  let frame = new Uint8ClampedArray(size);
  let [filled, n] = [0, 0];
  try {
    for await (const chunk of child.stdout as AsyncIterable<Buffer>)
      for (let at = 0; at < chunk.length;) {
        const take = Math.min(size - filled, chunk.length - at);
        frame.set(chunk.subarray(at, at + take), filled);
        filled += take;
        at += take;
        if (filled < size) continue;
        yield { frame: { width, height, data: frame }, timeS: n++ / fps };
        frame = new Uint8ClampedArray(size);
        filled = 0;
      }
    const code = await ended;
    // A film that breaks off is read as far as it goes.
    if (code !== 0 && n === 0) throw new Error(`The film could not be taken apart: ${said.split('\n')[0] ?? ''}. Nothing was read.`);
  } finally {
    child.kill('SIGKILL');
  }
}
