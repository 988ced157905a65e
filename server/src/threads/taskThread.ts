import type { Outcome, Refusal } from '@true-ledger/contract';

import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { parentPort, Worker } from 'node:worker_threads';

/** How far one task may go before whoever works on it is ended and made anew. */
export interface Bounds {
  /** Longest time a task may take, ms. */
  readonly timeMs: number;
  /** Most memory it may hold, MB: the heap of a thread; all of a process, what its libraries take included. */
  readonly memoryMb: number;
  /** Tasks that may wait; one more is told that the server is busy. */
  readonly waiting?: number;
}

/** Where tasks run: a thread for our own computation, a process for the bytes of others, whose decoders take memory no thread limit sees. */
export type Place = 'thread' | 'process';

interface Helper {
  send(task: unknown): void;
  end(): Promise<void>;
  /** Bytes held, null where a limit is set another way. */
  resident(): number | null;
}

interface Waiting<Task, A> {
  readonly task: Task;
  readonly done: (result: Outcome<A>) => void;
}

const MB = 1024 * 1024;
/** How often the memory of a process is looked at; a decoder fills some tens of MB in this time. */
const WATCH_MS = 40;
/** How long a helper may take to come up: on a machine that is busy it takes as long as its task, and no task is to answer for that. */
const STARTS_MS = 60_000;
/** What a helper says when it is up. */
const UP = 'up';

const BUSY: Refusal = {
  code: 'busy',
  sentence: 'The server has as much of this work as it takes on at once. Nothing was changed; try again in a moment.',
};

/**
 * A helper beside the thread that answers requests: takes tasks one after the other, each within bounds. A task that goes beyond them, or takes the helper
 * down with it, is answered with `stopped`; those behind it go on with a new helper.
 */
export class TaskThread<Task, A> {
  private helper: Helper | null = null;
  /** The helper has said that it is up; a task that was sent before is on the clock from then. */
  private isUp = false;
  private readonly queue: Array<Waiting<Task, A>> = [];
  private current: Waiting<Task, A> | null = null;
  private timer: NodeJS.Timeout | undefined;
  private watch: NodeJS.Timeout | undefined;
  private ended = false;

  constructor(
    private readonly file: string,
    private readonly stopped: Refusal,
    private readonly bounds: Bounds,
    private readonly place: Place = 'thread',
  ) {}

  run(task: Task): Promise<Outcome<A>> {
    if (this.ended) return Promise.resolve({ ok: false, problem: this.stopped });
    if (this.queue.length >= (this.bounds.waiting ?? 200)) return Promise.resolve({ ok: false, problem: BUSY });
    return new Promise((done) => {
      this.queue.push({ task, done });
      this.next();
    });
  }

  /** Tasks not answered yet. */
  get load(): number {
    return this.queue.length + (this.current ? 1 : 0);
  }

  /** Starts the helper before the first task comes. */
  warm(): void {
    this.helper ??= this.make();
  }

  private next(): void {
    if (this.current || this.ended) return;
    const task = this.queue.shift();
    if (!task) return;
    this.current = task;
    try {
      this.helper ??= this.make();
      this.setClock();
      this.watch = setInterval(() => {
        if ((this.helper?.resident() ?? 0) > this.bounds.memoryMb * MB) this.giveUp();
      }, WATCH_MS);
      this.helper.send(task.task);
    } catch {
      this.giveUp();
    }
  }

  private setClock(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.giveUp(), this.isUp ? this.bounds.timeMs : STARTS_MS);
  }

  private answer(result: Outcome<A>): void {
    clearTimeout(this.timer);
    clearInterval(this.watch);
    const { current } = this;
    this.current = null;
    current?.done(result);
    this.next();
  }

  private giveUp(): void {
    const { helper } = this;
    this.helper = null;
    void helper?.end();
    this.answer({ ok: false, problem: this.stopped });
  }

  private make(): Helper {
    this.isUp = false;
    const helper: Helper = (this.place === 'thread' ? threadHelper : processHelper)(
      this.file,
      this.bounds,
      (result) => {
        if (this.helper !== helper) return;
        if (result !== UP) return this.answer(result as Outcome<A>);
        this.isUp = true;
        if (this.current) this.setClock();
      },
      () => {
        if (this.helper !== helper) return;
        this.helper = null;
        if (this.current) this.answer({ ok: false, problem: this.stopped });
      },
    );
    return helper;
  }

  async end(): Promise<void> {
    this.ended = true;
    clearTimeout(this.timer);
    clearInterval(this.watch);
    const { helper, current } = this;
    this.helper = null;
    this.current = null;
    for (const { done } of [...(current ? [current] : []), ...this.queue.splice(0)]) done({ ok: false, problem: this.stopped });
    await helper?.end();
  }
}

function threadHelper(file: string, bounds: Bounds, heard: (result: unknown) => void, gone: () => void): Helper {
  const worker = new Worker(file, { resourceLimits: { maxOldGenerationSizeMb: bounds.memoryMb } });
  worker.unref();
  worker.on('message', heard);
  worker.on('error', gone);
  worker.on('exit', gone);
  return {
    send: (task) => worker.postMessage(task),
    end: async () => void (await worker.terminate()),
    resident: () => null,
  };
}

function processHelper(file: string, bounds: Bounds, heard: (result: unknown) => void, gone: () => void): Helper {
  const child: ChildProcess = fork(file, {
    serialization: 'advanced',
    execArgv: [`--max-old-space-size=${bounds.memoryMb}`],
    // It reads what strangers sent: it is told neither the database nor any key.
    env: { PATH: process.env['PATH'] ?? '', MALLOC_ARENA_MAX: '2' },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  child.unref();
  child.channel?.unref();
  child.on('message', heard);
  child.on('error', gone);
  child.on('exit', gone);
  return {
    send: (task) => void child.send(task as object, (error) => (error ? gone() : undefined)),
    end: () =>
      new Promise((done) => {
        if (child.exitCode !== null || child.signalCode !== null) return done();
        child.once('exit', () => done());
        child.kill('SIGKILL');
      }),
    resident: () => {
      try {
        // Second field: resident pages (proc(5)).
        return Number(readFileSync(`/proc/${child.pid}/statm`, 'latin1').split(' ')[1]) * 4096;
      } catch {
        return null;
      }
    },
  };
}

/** The other side: answers tasks in a thread or process; a task that throws is answered with `fault`. */
export function answerTasks<Task, A>(work: (task: Task) => Promise<Outcome<A>>, fault: Refusal): void {
  const reply = (result: Outcome<A> | typeof UP): void => {
    if (parentPort) parentPort.postMessage(result);
    else process.send?.(result);
  };
  const hear = (task: Task): void =>
    void work(task)
      .catch((): Outcome<A> => ({ ok: false, problem: fault }))
      .then(reply);
  if (parentPort) parentPort.on('message', hear);
  else {
    process.on('message', (task) => hear(task as Task));
    process.on('disconnect', () => process.exit());
  }
  reply(UP);
}
