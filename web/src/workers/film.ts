import type { Refusal } from '@true-ledger/contract';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { isFound, type Point, type ReadPart } from '@true-ledger/core/photo';
import { transfer, wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { FilmProgress, FilmTask, FilmWorker, MadeSurface } from './film.worker.js';

/** Frames a second that are looked at, at most so many in all, and seconds of film. */
const FPS = 15;
const MOST_FRAMES = 720;
export const MOST_SECONDS = 60;
/** Long sides of the frames in which the part or the scope is followed, and from which its surface is joined. */
const FOLLOWED_SIDE = 960;
const SCOPE_SIDE = 480;
const JOINED_SIDE = 1600;
/** Long side of the frames of a film whose lamp moves, and how many of them are looked at. */
const LAMP_SIDE = 1600;
const LAMP_FRAMES = 60;

/** How far the taking in of a film is. */
export interface FilmState {
  /** Null while nothing is taken in. */
  readonly busy: { readonly done: number; readonly what: string; readonly progress: FilmProgress | null } | null;
  readonly problem: Refusal | null;
  readonly made: MadeSurface | null;
}

const IDLE: FilmState = { busy: null, problem: null, made: null };

/** A film ready to be stepped through. */
export interface OpenFilm {
  readonly video: HTMLVideoElement;
  readonly seconds: number;
  readonly width: number;
  readonly height: number;
  /** The first frame as a picture. */
  readonly first: string;
}

const event = (video: HTMLVideoElement, name: string): Promise<void> =>
  new Promise((resolve, reject) => {
    const stop = (): void => {
      video.removeEventListener(name, done);
      video.removeEventListener('error', fail);
    };
    const done = (): void => {
      stop();
      resolve();
    };
    const fail = (): void => {
      stop();
      reject(new Error('film'));
    };
    video.addEventListener(name, done);
    video.addEventListener('error', fail);
  });

async function seek(video: HTMLVideoElement, timeS: number): Promise<void> {
  const there = event(video, 'seeked');
  video.currentTime = timeS;
  await there;
}

/** Opens a film; throws where the browser cannot play it. */
export async function openFilm(file: Blob): Promise<OpenFilm> {
  const video = document.createElement('video');
  video.muted = true;
  video.playsInline = true;
  video.preload = 'auto';
  const loaded = event(video, 'loadeddata');
  video.src = URL.createObjectURL(file);
  await loaded;
  // What a browser recorded itself does not know its own length before its end was looked for.
  if (!Number.isFinite(video.duration)) await seek(video, 1e7);
  const seconds = Number.isFinite(video.duration) ? video.duration : video.currentTime;
  await seek(video, 0);
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
  canvas.getContext('2d')?.drawImage(video, 0, 0);
  return { video, seconds, width: video.videoWidth, height: video.videoHeight, first: canvas.toDataURL('image/jpeg', 0.9) };
}

/** Lets a film go. */
export const closeFilm = ({ video }: OpenFilm): void => {
  URL.revokeObjectURL(video.src);
  video.removeAttribute('src');
};

function frameOf({ video, width, height }: OpenFilm, side: number): Promise<ImageBitmap> {
  const by = Math.min(1, side / Math.max(width, height));
  return createImageBitmap(video, { resizeWidth: Math.round(width * by), resizeHeight: Math.round(height * by), resizeQuality: 'medium' });
}

/** Corners of a part in the first frame of a film, looked for in a worker; undefined while they are looked for, null where they are not found. */
export function useFoundCorners(film: OpenFilm | null, part: ReadPart | null): readonly Point[] | null | undefined {
  const [corners, setCorners] = useState<readonly Point[] | null | undefined>(undefined);
  useEffect(() => {
    if (!film) return;
    if (!part || !isFound(part)) {
      setCorners(null);
      return;
    }
    const own = new Worker(new URL('./film.worker.ts', import.meta.url), { type: 'module' });
    let wanted = true;
    own.onerror = () => setCorners(null);
    const by = Math.min(1, LAMP_SIDE / Math.max(film.width, film.height));
    frameOf(film, LAMP_SIDE)
      .then((bitmap) => wrap<FilmWorker>(own).find(transfer(bitmap, [bitmap]), part))
      .then((found) => found && found.map(([x, y]): Point => [x / by, y / by]))
      // Then they are placed by hand, as where none are found.
      .catch(() => null)
      .then((found) => {
        if (wanted) setCorners(found);
        own.terminate();
      });
    return () => {
      wanted = false;
      own.terminate();
    };
  }, [film, part]);
  return corners;
}

/** Takes films in, in a worker of their own; cancelling or leaving the page ends it. */
export function useFilm(): FilmState & {
  readonly start: (film: OpenFilm, task: FilmTask, frame: SurfaceFrame) => void;
  readonly cancel: () => void;
} {
  const [state, setState] = useState<FilmState>(IDLE);
  const worker = useRef<Worker | null>(null);
  const stop = (): void => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => stop, []);
  return {
    ...state,
    start: (film, task, frame) => {
      stop();
      const own = new Worker(new URL('./film.worker.ts', import.meta.url), { type: 'module' });
      worker.current = own;
      const live = (): boolean => worker.current === own;
      const say = (done: number, what: string, progress: FilmProgress | null): void => {
        if (live()) setState({ busy: { done, what, progress }, problem: null, made: null });
      };
      const end = (problem: Refusal | null, made: MadeSurface | null): void => {
        if (!live()) return;
        stop();
        setState({ busy: null, problem, made });
      };
      say(0, 'opening the film', null);
      takeIn(wrap<FilmWorker>(own), film, task, frame, say, live)
        .then((answer) => {
          if (answer) end(answer.ok ? null : answer.problem, answer.ok ? answer.value : null);
        })
        .catch(() =>
          end(
            {
              code: 'worker',
              sentence: 'The film could not be taken in here. It is kept as it is; nothing was read. Try another browser.',
            },
            null,
          ),
        );
    },
    cancel: () => {
      stop();
      setState(IDLE);
    },
  };
}

const TAKING_IN: Readonly<Record<FilmTask['kind'], string>> = {
  turn: 'following the turn',
  drawn: 'following the scope',
  lamp: 'taking the light out',
};

type Answer = Awaited<ReturnType<Remote<FilmWorker>['finish']>>;

async function takeIn(
  worker: Remote<FilmWorker>,
  film: OpenFilm,
  task: FilmTask,
  frame: SurfaceFrame,
  say: (done: number, what: string, progress: FilmProgress | null) => void,
  live: () => boolean,
): Promise<Answer | null> {
  const seconds = Math.min(MOST_SECONDS, film.seconds);
  const followed = task.kind !== 'lamp';
  const frames = Math.min(followed ? MOST_FRAMES : LAMP_FRAMES, Math.floor(seconds * FPS));
  const side = { turn: FOLLOWED_SIDE, drawn: SCOPE_SIDE, lamp: LAMP_SIDE }[task.kind];
  const long = Math.max(film.width, film.height);
  const small = Math.min(1, side / long);
  await worker.begin(task.kind === 'drawn' ? task : { ...task, corners: task.corners.map(([x, y]) => [x * small, y * small] as const) });
  for (let k = 0; k < frames; k++) {
    const timeS = (seconds * k) / frames;
    await seek(film.video, timeS);
    const bitmap = await frameOf(film, side);
    const answer = await worker.follow(transfer(bitmap, [bitmap]), timeS);
    if (!live()) return null;
    if (!answer.ok) return answer;
    say(((followed ? 0.6 : 0.9) * (k + 1)) / frames, TAKING_IN[task.kind], answer.value);
  }
  if (!followed) {
    say(0.92, 'reading the surface', null);
    return worker.finishLamp(frame);
  }
  const wanted = await worker.settle(Math.min(1, JOINED_SIDE / long) / small);
  if (!wanted.ok) return wanted;
  for (const [k, timeS] of wanted.value.entries()) {
    await seek(film.video, timeS);
    const bitmap = await frameOf(film, JOINED_SIDE);
    await worker.join(transfer(bitmap, [bitmap]), timeS);
    if (!live()) return null;
    say(0.6 + (0.35 * (k + 1)) / wanted.value.length, 'joining the surface', null);
  }
  say(0.96, 'reading the surface', null);
  return worker.finish(frame);
}
