import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { join } from 'node:path';
import { CONFIG, type ServerConfig } from '../config.js';
import { ProblemError } from '../http/problem.js';
import { TaskThread } from '../threads/taskThread.js';
import type { ComputeAnswers, ComputeTask } from './computeWorker.js';

const LONGEST_MS = 30_000;
const HEAP_MB = 768;

/** Long computation in threads: one for what somebody waits for, one for the figures kept beside the cases, so that neither holds up the other. */
@Injectable()
export class ComputeService implements OnApplicationShutdown {
  private readonly asked: TaskThread<ComputeTask, ComputeAnswers[ComputeTask['kind']]>;
  private readonly behind: TaskThread<ComputeTask, ComputeAnswers[ComputeTask['kind']]>;

  constructor(@Inject(CONFIG) config: ServerConfig) {
    const thread = (waiting: number): TaskThread<ComputeTask, ComputeAnswers[ComputeTask['kind']]> =>
      new TaskThread(
        join(config.root, 'server', 'dist', 'compute', 'computeWorker.js'),
        {
          code: 'not-computed',
          sentence: `This takes longer than ${LONGEST_MS / 1000} s or more memory than is given to it, and was ended. Nothing was changed; what was recorded is safe.`,
        },
        { timeMs: LONGEST_MS, memoryMb: HEAP_MB, waiting },
      );
    this.asked = thread(60);
    this.behind = thread(1000);
  }

  /** Answer to a task; throws the problem it ended with. */
  async run<K extends ComputeTask['kind']>(task: Extract<ComputeTask, { kind: K }>): Promise<ComputeAnswers[K]> {
    const result = await (task.kind === 'summary' ? this.behind : this.asked).run(task);
    if (!result.ok) throw ProblemError.of(result.problem);
    return result.value as ComputeAnswers[K];
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([this.asked.end(), this.behind.end()]);
  }
}
