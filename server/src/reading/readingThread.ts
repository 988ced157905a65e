import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { ReadingAnswer, ReadingTask } from './readingWorker.js';

/** A thread that reads pictures one after the other; made anew when it dies. */
export class ReadingThread {
  private worker: Worker | null = null;
  private readonly waiting = new Map<string, (result: ReadingAnswer['result']) => void>();

  constructor(private readonly root: string) {}

  read(task: ReadingTask): Promise<ReadingAnswer['result']> {
    return new Promise((done) => {
      this.waiting.set(task.id, done);
      this.thread().postMessage(task);
    });
  }

  private thread(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(join(this.root, 'server', 'dist', 'reading', 'readingWorker.js'));
    worker.unref();
    worker.on('message', ({ id, result }: ReadingAnswer) => {
      this.waiting.get(id)?.(result);
      this.waiting.delete(id);
    });
    const gone = (): void => {
      if (this.worker !== worker) return;
      this.worker = null;
      for (const done of this.waiting.values())
        done({
          ok: false,
          problem: {
            code: 'reading-stopped',
            sentence: 'The reading stopped without an answer. The picture is stored; nothing was graded.',
          },
        });
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
