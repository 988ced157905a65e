import pg from 'pg';
import { isConnectionFault } from '../http/problem.js';

const AGAIN_MS = 500;

/** Connections of the job queue. A statement that finds no database waits until it is back: the queue has nobody to hand a failure to. */
export class PatientPool {
  private readonly pool: pg.Pool;
  private ended = false;

  constructor(connectionString: string) {
    this.pool = new pg.Pool({ connectionString, max: 3, connectionTimeoutMillis: 4000, application_name: 'true-ledger-readings' });
    this.pool.on('error', () => undefined);
  }

  /** Once the pool is ended nothing is found and nothing is counted; a queue that ends a job just then asks for a count, and reads it unlooked. */
  async executeSql(text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
    for (;;) {
      try {
        return (await this.pool.query(text, values)) as { rows: unknown[] };
      } catch (error) {
        if (this.ended) return { rows: /select count\(/i.test(text) ? [{ count: 0 }] : [] };
        if (!isConnectionFault(error)) throw error;
        await new Promise((done) => setTimeout(done, AGAIN_MS).unref());
      }
    }
  }

  async end(): Promise<void> {
    if (this.ended) return;
    this.ended = true;
    await this.pool.end().catch(() => undefined);
  }
}
