import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { SURFACE_WIDTHS, type SurfaceSize } from '@true-ledger/contract';
import { isFlattened, turnSaid, type FlattenedPart } from '@true-ledger/core/photo';
import { mergeReads, type WearMap } from '@true-ledger/core/damage';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { sha256Hex } from '@true-ledger/core/kit';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { SurfaceRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { TaskThread } from '../threads/taskThread.js';
import type { SurfaceTask } from './surfaceWorker.js';

/** Counts up when a surface is laid out in another way: what was kept before is made anew. */
const METHOD = 6;
/** Pictures of one place that are joined; more of a full turn add nothing. */
const MOST_PIECES = 8;

/** What a surface is to be laid out from, and the name of the result. */
interface Wanted {
  readonly key: string;
  readonly part: FlattenedPart;
  readonly frame: SurfaceFrame;
  readonly read: WearMap | null;
  readonly pieces: ReadonlyArray<Omit<SurfaceTask['pieces'][number], 'bytes'> & { readonly sha256: string }>;
}

const NONE = new ProblemError({
  code: 'not-found',
  sentence: 'No picture of this place has its corners set, so there is no surface to lay out.',
});

/** Photographed surfaces laid out on the frame of their place, in the sizes the bench asks for; made when first asked for and kept beside the case. */
@Injectable()
export class SurfacesService implements OnApplicationShutdown {
  private readonly thread: TaskThread<SurfaceTask, Uint8Array[]>;
  /** What is being made just now, by its name: asked for twice it is made once. */
  private readonly making = new Map<string, Promise<readonly Uint8Array[]>>();

  constructor(
    @Inject(CONFIG) config: ServerConfig,
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
  ) {
    this.thread = new TaskThread(
      join(config.root, 'server', 'dist', 'surfaces', 'surfaceWorker.js'),
      { code: 'surface-stopped', sentence: 'The surface was not laid out: it took too long. Its pictures are stored; ask again.' },
      { timeMs: 60_000, memoryMb: 1024, waiting: 400 },
    );
  }

  /** Name of the surface as it is now, for caches that ask again. `shared`: with what is blurred for others. */
  async wanted(caseId: string, stationId: string, shared: boolean): Promise<Wanted> {
    const { view } = await this.ledger.view(caseId);
    const station = view.byId.get(stationId);
    const { part, surface: frame } = station?.station ?? {};
    if (!station || !frame || part === undefined || !isFlattened(part)) throw NONE;
    const pieces = station.photos.flatMap(({ value: photo }) => {
      const placed = station.corners[photo.sha256]?.value;
      return placed ? [{ sha256: photo.sha256, corners: placed.corners, originalWidth: photo.width, turn: turnSaid(placed) }] : [];
    });
    const joined = pieces.slice(-MOST_PIECES);
    if (joined.length === 0) throw NONE;
    const tags = await Promise.all(joined.map((p) => this.photos.tag(caseId, p.sha256, shared ? 'shared-work' : 'work')));
    const reads = station.reads.map((r) => r.version.entry);
    return {
      key: sha256Hex(JSON.stringify([METHOD, part, frame.widthMm, frame.heightMm, joined, tags, reads])),
      part,
      frame,
      read: mergeReads(station.reads.map((r) => r.value)),
      pieces: joined,
    };
  }

  async bytes(caseId: string, stationId: string, wanted: Wanted, size: SurfaceSize, shared: boolean): Promise<Uint8Array> {
    const rows = this.db.getRepository(SurfaceRow);
    const where = { caseId, station: stationId, shared };
    const column = size;
    const held = await rows.findOne({ where: { ...where, key: wanted.key }, select: { caseId: true, [column]: true } });
    if (held) return held[column];
    const name = `${caseId} ${stationId} ${wanted.key}`;
    const made = this.making.get(name) ?? this.make(caseId, stationId, wanted, shared);
    this.making.set(name, made);
    try {
      return (await made)[Object.keys(SURFACE_WIDTHS).indexOf(size)]!;
    } finally {
      this.making.delete(name);
    }
  }

  private async make(caseId: string, station: string, wanted: Wanted, shared: boolean): Promise<readonly Uint8Array[]> {
    const pieces = await Promise.all(
      wanted.pieces.map(async ({ sha256, ...piece }) => ({
        ...piece,
        bytes: (await this.photos.bytes(caseId, sha256, shared ? 'shared-work' : 'work')).bytes,
      })),
    );
    const laid = await this.thread.run({
      part: wanted.part,
      frame: wanted.frame,
      read: wanted.read,
      pieces,
      widths: Object.values(SURFACE_WIDTHS),
    });
    if (!laid.ok) throw new ProblemError(laid.problem);
    const [large, middle, small] = laid.value.map((b) => Buffer.from(b));
    await this.db
      .getRepository(SurfaceRow)
      .upsert({ caseId, station, shared, key: wanted.key, large: large!, middle: middle!, small: small! }, ['caseId', 'station', 'shared']);
    return [large!, middle!, small!];
  }

  async onApplicationShutdown(): Promise<void> {
    await this.thread.end();
  }
}
