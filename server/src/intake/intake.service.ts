import type { Refusal } from '@true-ledger/contract';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { StampCheck, StampVerdict } from '@true-ledger/core/bundle';
import { join } from 'node:path';
import { CONFIG, type ServerConfig } from '../config.js';
import { ProblemError } from '../http/problem.js';
import type { StoredPicture } from '../photos/readPicture.js';
import { TaskThread, type Bounds } from '../threads/taskThread.js';
import type { AcceptedBundle, IntakeAnswer, IntakeTask } from './intakeWorker.js';

/** Most a file of each kind may take while it is looked at. A picture of 100 megapixels in the dearest format takes about 900 MB. */
const BOUNDS: Readonly<Record<IntakeTask['kind'], Bounds>> = {
  picture: { timeMs: 45_000, memoryMb: 1300, waiting: 300 },
  clip: { timeMs: 10_000, memoryMb: 500, waiting: 100 },
  bundle: { timeMs: 180_000, memoryMb: 1300, waiting: 10 },
  stamp: { timeMs: 30_000, memoryMb: 500, waiting: 20 },
};

const STOPPED: Readonly<Record<IntakeTask['kind'], Refusal>> = {
  picture: {
    code: 'image-damaged',
    sentence:
      'The picture was not stored: unpacking it takes more time or memory than any photograph does. Nothing else was lost. Save it anew as JPEG, or choose another.',
    field: 'file',
  },
  clip: {
    code: 'not-a-clip',
    sentence: 'The clip was not stored: it is not built as a sound or film is. Nothing else was lost. Record it again or choose the file.',
    field: 'file',
  },
  bundle: {
    code: 'bundle-refused',
    sentence: 'The bundle was refused: reading it takes more time or memory than any case does. Nothing was changed.',
    field: 'file',
  },
  stamp: {
    code: 'stamp-failed',
    sentence: 'The stamp was not kept: the answer of the authority takes more time or memory than any does. The seal stands as it was.',
  },
};

/** The one place where bytes that came from outside are looked into: in processes that are ended when a file asks for too much. */
@Injectable()
export class IntakeService implements OnApplicationShutdown {
  private readonly helpers: Readonly<Record<IntakeTask['kind'], TaskThread<IntakeTask, IntakeAnswer>>>;

  constructor(@Inject(CONFIG) config: ServerConfig) {
    const file = join(config.root, 'server', 'dist', 'intake', 'intakeWorker.js');
    const helper = (kind: IntakeTask['kind']): TaskThread<IntakeTask, IntakeAnswer> =>
      new TaskThread(file, STOPPED[kind], BOUNDS[kind], 'process');
    this.helpers = { picture: helper('picture'), clip: helper('clip'), bundle: helper('bundle'), stamp: helper('stamp') };
  }

  private async take<K extends IntakeTask['kind']>(task: Extract<IntakeTask, { kind: K }>): Promise<Extract<IntakeAnswer, { kind: K }>> {
    const result = await this.helpers[task.kind].run(task);
    if (!result.ok) throw ProblemError.of(result.problem);
    return result.value as Extract<IntakeAnswer, { kind: K }>;
  }

  /** A file as a picture with its renditions. Throws what is wrong with it. */
  async picture(bytes: Buffer): Promise<StoredPicture> {
    const { picture } = await this.take<'picture'>({ kind: 'picture', bytes });
    return { ...picture, work: Buffer.from(picture.work), thumb: Buffer.from(picture.thumb) };
  }

  /** Kind of a sound or film. Throws when it is none that is taken. */
  async clip(bytes: Buffer, said: string): Promise<string> {
    return (await this.take<'clip'>({ kind: 'clip', bytes, said })).mime;
  }

  /** A bundle on disk, checked whole and laid out in `out`. Throws what is wrong with it. */
  async bundle(path: string, out: string): Promise<AcceptedBundle> {
    return (await this.take<'bundle'>({ kind: 'bundle', path, out })).bundle;
  }

  /** What the answer of a time-stamp authority proves of some bytes. */
  async stamp(reply: Uint8Array, bytes: Uint8Array, check: StampCheck): Promise<StampVerdict> {
    return (await this.take<'stamp'>({ kind: 'stamp', reply, bytes, check })).verdict;
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all(Object.values(this.helpers).map((helper) => helper.end()));
  }
}
