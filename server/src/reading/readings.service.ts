import { shellConstructionAt } from '@true-ledger/core/engine';
import { Inject, Injectable, Logger, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import type { ReadingBatch } from '@true-ledger/contract';
import type { Author, EntryDraft } from '@true-ledger/core/ledger';
import type { CaseView, StationView } from '@true-ledger/core/case';
import { isFound, isRead, showsPieceOfTurn, USUAL_TURN, type ReadPicture } from '@true-ledger/core/photo';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import PgBoss from 'pg-boss';
import { DataSource, In } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { ReadingItemRow } from '../database/entities.js';
import { isConnectionFault, ProblemError } from '../http/problem.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { TaskThread } from '../threads/taskThread.js';
import { PatientPool } from './patientPool.js';
import type { ReadingTask } from './readingWorker.js';

const QUEUE = 'read-picture';
/** A picture whose reader has not been heard of for so long is taken up again, seconds. */
const STALE_SECONDS = 15;
const BEAT_MS = 4000;
/** Longer than asking the database for work takes, on a busy machine as well: the queue looks again after a second whether it is done. */
const ASKING_MS = 1200;

/** Reads all pictures of a case one after the other: jobs in a queue in the database, so that a killed server goes on where it was and several share the work. */
@Injectable()
export class ReadingsService implements OnModuleInit, OnApplicationShutdown {
  private readonly log = new Logger('readings');
  private readonly pool: PatientPool;
  private readonly boss: PgBoss;
  private readonly thread: TaskThread<ReadingTask, ReadPicture>;
  private ready: Promise<void> | null = null;
  private look: NodeJS.Timeout | null = null;
  private stopped = false;

  constructor(
    @Inject(CONFIG) config: ServerConfig,
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly photos: PhotosService,
  ) {
    this.pool = new PatientPool(config.databaseUrl);
    this.boss = new PgBoss({ db: this.pool, schedule: false });
    this.boss.on('error', (error) => this.log.warn(error.message));
    this.thread = new TaskThread(
      join(config.root, 'server', 'dist', 'reading', 'readingWorker.js'),
      { code: 'reading-stopped', sentence: 'The reading stopped without an answer. The picture is stored; nothing was graded.' },
      { timeMs: 90_000, memoryMb: 1024 },
    );
  }

  onModuleInit(): void {
    // Not waited for: nothing but the queue needs it.
    void this.begin().catch((error: unknown) =>
      this.log.warn(`the queue does not start: ${error instanceof Error ? error.message : String(error)}`),
    );
  }

  private begin(): Promise<void> {
    this.ready ??= (async () => {
      await this.boss.start();
      await this.boss.createQueue(QUEUE);
      await this.boss.work<{ item: string }>(QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
        for (const job of jobs)
          await this.readOne(job.data.item).catch((error: unknown) =>
            this.log.warn(error instanceof Error ? error.message : String(error)),
          );
      });
      await this.takeUpAgain();
      this.look = setInterval(() => void this.takeUpAgain().catch(() => undefined), STALE_SECONDS * 1000);
      this.look.unref();
    })().catch((error: unknown) => {
      this.ready = null;
      throw error;
    });
    return this.ready;
  }

  /** Sends jobs for what was left in the middle of a reading by a server that is gone. */
  private async takeUpAgain(): Promise<void> {
    if (this.stopped) return;
    const left = (await this.db.query(
      `UPDATE reading_items SET status = 'waiting' WHERE status = 'reading' AND taken < now() - interval '${STALE_SECONDS} seconds' RETURNING id`,
    )) as [Array<{ id: string }>, number];
    for (const { id } of left[0]) await this.boss.send(QUEUE, { item: id });
  }

  /** Files every picture that can be read and was not (or all of them) to be read. */
  async start(caseId: string, again: boolean, author: Author): Promise<ReadingBatch> {
    const { view } = await this.ledger.view(caseId);
    const batch = randomUUID();
    const wanted = readable(view).filter(({ station, sha256 }) => again || !station.reads.some((r) => r.value.sha256 === sha256));
    if (wanted.length === 0)
      throw new ProblemError({
        code: 'nothing-to-read',
        sentence:
          'No picture waits to be read. Half shells and pistons are found by themselves; other parts need their four corners first.',
      });
    await this.begin();
    const rows = wanted.map(({ station, sha256 }, n) => ({
      id: randomUUID(),
      caseId,
      batch,
      n,
      station: station.station.id,
      sha256,
      status: 'waiting' as const,
      note: '',
      byId: author.id,
      byName: author.name,
      made: new Date(),
      taken: null,
    }));
    await this.db.transaction(async (tx) => {
      // Two who press at once: the second finds the first's.
      await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', [`readings ${caseId}`]);
      if (await tx.getRepository(ReadingItemRow).existsBy({ caseId, status: In(['waiting', 'reading']) }))
        throw new ProblemError({
          code: 'batch-running',
          sentence: 'The pictures of this case are being read already. Wait for it or stop it.',
        });
      await tx.getRepository(ReadingItemRow).insert(rows);
      // The jobs stand or fall with their items: a server killed in between leaves neither.
      const db = { executeSql: async (text: string, values: unknown[]) => ({ rows: (await tx.query(text, values)) as unknown[] }) };
      await this.boss.insert(
        rows.map((r) => ({ name: QUEUE, data: { item: r.id }, retryLimit: 2, expireInSeconds: 120 })),
        { db },
      );
    });
    return this.state(caseId);
  }

  /** What was started last, picture by picture. */
  async state(caseId: string): Promise<ReadingBatch> {
    const items = this.db.getRepository(ReadingItemRow);
    const last = await items.findOne({ where: { caseId }, order: { made: 'DESC' } });
    const rows = last ? await items.find({ where: { batch: last.batch }, order: { n: 'ASC' } }) : [];
    return {
      started: last?.made.toISOString() ?? null,
      by: last?.byName ?? null,
      running: rows.some((r) => r.status === 'waiting' || r.status === 'reading'),
      pictures: rows.map((r) => ({ station: r.station, sha256: r.sha256, status: r.status, note: r.note })),
    };
  }

  /** Takes back what has not begun; a picture being read is finished. */
  async stop(caseId: string): Promise<ReadingBatch> {
    await this.db.getRepository(ReadingItemRow).update({ caseId, status: 'waiting' }, { status: 'stopped' });
    return this.state(caseId);
  }

  private async readOne(id: string): Promise<void> {
    const items = this.db.getRepository(ReadingItemRow);
    const claimed = (await this.db.query(
      `UPDATE reading_items SET status = 'reading', taken = now() WHERE id = $1 AND status = 'waiting' RETURNING id`,
      [id],
    )) as [unknown[], number];
    if (claimed[1] === 0) return;
    const item = await items.findOneByOrFail({ id });
    const beat = setInterval(() => void items.update({ id, status: 'reading' }, { taken: new Date() }).catch(() => undefined), BEAT_MS);
    try {
      const note = await this.read(item);
      await items.update({ id }, note === '' ? { status: 'read', note } : { status: 'refused', note });
    } catch (error) {
      const sentence =
        error instanceof ProblemError ? error.message : 'The reading failed on the server. The picture is stored; nothing was graded.';
      if (!(error instanceof ProblemError) && !isConnectionFault(error))
        this.log.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
      // Without a database the item stays as taken, and is taken up again when its beat has been missing for a while.
      if (!this.stopped && !isConnectionFault(error)) await items.update({ id }, { status: 'refused', note: sentence });
    } finally {
      clearInterval(beat);
    }
  }

  /** Reads one picture into the ledger in the name of who asked for it. Returns why not, or nothing. */
  private async read(item: ReadingItemRow): Promise<string> {
    const { view } = await this.ledger.view(item.caseId);
    const station = view.byId.get(item.station);
    const photo = station?.photos.find((p) => p.value.sha256 === item.sha256)?.value;
    if (!station || !photo) return 'The picture was taken away from this place meanwhile.';
    const { part, surface: frame } = station.station;
    if (!isRead(part) || !frame) return 'Pictures of this part are not read.';
    const placed = station.corners[item.sha256]?.value;
    const { bytes } = await this.photos.bytes(item.caseId, item.sha256, 'work');
    const result = await this.thread.run({
      bytes,
      sha256: item.sha256,
      corners: placed?.corners ?? null,
      original: { width: photo.width, height: photo.height },
      part,
      frame,
      turn: placed?.facingDeg === undefined ? null : { facingDeg: placed.facingDeg, arcDeg: placed.arcDeg ?? USUAL_TURN.arcDeg },
      construction: shellConstructionAt(view.layout, station.station.id),
    });
    if (!result.ok) return result.problem.sentence;
    const held = station.reads.find((r) => r.value.sha256 === item.sha256);
    const draft = (kind: 'corners-set' | 'surface-read', body: EntryDraft['body'], basedOn: string | null): EntryDraft => ({
      id: randomUUID(),
      kind,
      station: item.station,
      basedOn,
      body,
    });
    await this.ledger.append(
      item.caseId,
      [
        ...(result.value.cornersFound ? [draft('corners-set', { sha256: item.sha256, corners: result.value.corners }, null)] : []),
        draft('surface-read', result.value.read, held?.version.entry ?? null),
      ],
      { id: item.byId, name: item.byName },
    );
    return '';
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    if (this.look) clearInterval(this.look);
    await this.ready?.catch(() => undefined);
    // Who is just asking for work would wait for ever on a closed pool: the asking is ended first.
    await this.boss.offWork(QUEUE).catch(() => undefined);
    await new Promise((done) => setTimeout(done, ASKING_MS));
    await this.boss.stop({ graceful: false, wait: true, timeout: 2000 }).catch(() => undefined);
    await this.pool.end();
    await this.thread.end();
  }
}

/** Pictures that can be read as they are: parts that are found by themselves, and others whose corners were placed. Which arc of a journal a picture shows somebody must have said. */
function readable(view: CaseView): Array<{ station: StationView; sha256: string }> {
  return view.stations.flatMap((station) => {
    const { part, surface } = station.station;
    if (!surface || !isRead(part)) return [];
    return station.photos
      .map((p) => p.value.sha256)
      .filter((sha256) => (isFound(part) && !showsPieceOfTurn(part)) || station.corners[sha256] !== undefined)
      .map((sha256) => ({ station, sha256 }));
  });
}
