import type { Problem, Result } from '@true-ledger/core';
import { randomUUID } from 'node:crypto';
import { parentPort, Worker } from 'node:worker_threads';

interface Answer<A> {
  readonly id: string;
  readonly result: Result<A>;
}

/** A thread beside the one that answers requests: takes tasks one after the other, is made anew when it dies. */
export class TaskThread<Task, A> {
  private worker: Worker | null = null;
  private readonly waiting = new Map<string, (result: Result<A>) => void>();

  /** `stopped` is the answer to what was under way when the thread died. */
  constructor(
    private readonly file: string,
    private readonly stopped: Problem,
  ) {}

  run(task: Task): Promise<Result<A>> {
    return new Promise((done) => {
      const id = randomUUID();
      this.waiting.set(id, done);
      this.thread().postMessage({ id, task });
    });
  }

  /** Tasks not answered yet. */
  get load(): number {
    return this.waiting.size;
  }

  /** Starts the thread before the first task comes. */
  warm(): void {
    this.thread();
  }

  private thread(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(this.file);
    worker.unref();
    worker.on('message', ({ id, result }: Answer<A>) => {
      this.waiting.get(id)?.(result);
      this.waiting.delete(id);
    });
    const gone = (): void => {
      if (this.worker !== worker) return;
      this.worker = null;
      for (const done of this.waiting.values()) done({ ok: false, problem: this.stopped });
      this.waiting.clear();
    };
    worker.on('error', gone);
    worker.on('exit', gone);
    this.worker = worker;
    return worker;
  }

  async end(): Promise<void> {
    const worker = this.worker;
    this.worker = null;
    await worker?.terminate();
  }
}

/** The other side: answers tasks in a thread; a task that throws is answered with `fault`. */
export function answerTasks<Task, A>(work: (task: Task) => Promise<Result<A>>, fault: Problem): void {
  let last: Promise<unknown> = Promise.resolve();
  parentPort?.on('message', ({ id, task }: { id: string; task: Task }) => {
    last = last
      .then(() => work(task))
      .catch((): Result<A> => ({ ok: false, problem: fault }))
      .then((result) => parentPort?.postMessage({ id, result } satisfies Answer<A>));
  });
}
