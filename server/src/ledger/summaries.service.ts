import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Subscription } from 'rxjs';
import { DataSource } from 'typeorm';
import { ComputeService } from '../compute/compute.service.js';
import { isConnectionFault, ProblemError } from '../http/problem.js';
import { CHANNEL, LedgerService } from './ledger.service.js';

/** Writing goes on for a moment before the figures are computed: many entries in a row cost one computation. */
const SETTLE_MS = 250;
/** Rest after a computation, in times it took: with everybody writing, the shelf grows older rather than those who write wait. */
const REST = 2;
/** How often cases are looked for whose figures another server left behind. */
const SWEEP_MS = 15_000;
/** The folded state beside the case is written again after this many entries. */
const SNAPSHOT_EVERY = 24;

/** Keeps the figures on the shelf after the ledgers: computed in a thread when a case has grown, and caught up with after an outage. */
@Injectable()
export class SummariesService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('summaries');
  /** Cases that have grown, the longest waiting first. */
  private readonly waiting = new Set<string>();
  private running: Promise<void> | null = null;
  private heard: Subscription | null = null;
  private sweeping: NodeJS.Timeout | null = null;
  private stopped = false;
  private wake: () => void = () => undefined;

  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly compute: ComputeService,
  ) {}

  onApplicationBootstrap(): void {
    this.heard = this.ledger.grown.subscribe((caseId) => this.soon(caseId));
    const sweep = (): void => void this.sweep().catch((error: unknown) => this.tell(error));
    this.sweeping = setInterval(sweep, SWEEP_MS).unref();
    sweep();
  }

  private soon(caseId: string): void {
    this.waiting.add(caseId);
    this.start();
  }

  private start(): void {
    if (this.stopped || this.waiting.size === 0) return;
    this.running ??= this.work().finally(() => {
      this.running = null;
      this.start();
    });
  }

  /** Brings the cases that wait after their ledgers, one after the other. */
  private async work(): Promise<void> {
    await this.pause(SETTLE_MS);
    for (const caseId of this.waiting) {
      if (this.stopped) return;
      this.waiting.delete(caseId);
      const from = performance.now();
      await this.bring(caseId).catch((error: unknown) => this.tell(error));
      await this.pause(REST * (performance.now() - from));
    }
  }

  /** Ends early when the server stops. */
  private pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      this.wake = resolve;
      setTimeout(resolve, this.stopped ? 0 : ms).unref();
    });
  }

  /** Cases left behind, by a server that was killed or by one whose database was away. */
  private async sweep(): Promise<void> {
    const rows = (await this.db.query('SELECT id FROM cases WHERE "summarySeq" < seq LIMIT 200')) as Array<{ id: string }>;
    for (const { id } of rows) this.soon(id);
  }

  /** Computes the figures of a case as it stands and writes them, unless newer ones are there. */
  private async bring(caseId: string): Promise<void> {
    if (this.stopped) return;
    const state = await this.ledger.state(caseId);
    const figures = await this.compute.run<'summary'>({ kind: 'summary', state }).catch(async (error: unknown) => {
      if (!(error instanceof ProblemError)) throw error;
      // Beyond what is given to it: the last figures stand, and are not tried again until the case grows.
      await this.db.query('UPDATE cases SET "summarySeq" = $2 WHERE id = $1 AND "summarySeq" < $2', [caseId, state.seq]);
      return null;
    });
    if (!figures) return;
    const written = (await this.db.query(
      `UPDATE cases SET summary = $2, facts = $4, "summarySeq" = $3 WHERE id = $1 AND "summarySeq" < $3 AND seq >= $3 RETURNING id`,
      [caseId, JSON.stringify(figures.summary), state.seq, figures.facts && JSON.stringify(figures.facts)],
    )) as [unknown[], number];
    const due = (await this.db.query('SELECT 1 FROM cases WHERE id = $1 AND "stateSeq" + $2 <= $3', [
      caseId,
      SNAPSHOT_EVERY,
      state.seq,
    ])) as unknown[];
    if (due.length > 0)
      await this.db.query('UPDATE cases SET state = $2, "stateSeq" = $3 WHERE id = $1 AND "stateSeq" < $3 AND seq >= $3', [
        caseId,
        JSON.stringify(state),
        state.seq,
      ]);
    if (written[1] > 0) await this.db.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify({ caseId, seq: state.seq })]);
  }

  private tell(error: unknown): void {
    if (!this.stopped && !isConnectionFault(error)) this.log.warn(error instanceof Error ? error.message : String(error));
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    this.heard?.unsubscribe();
    if (this.sweeping) clearInterval(this.sweeping);
    this.wake();
    await this.running;
  }
}
