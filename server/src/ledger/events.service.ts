import { Inject, Injectable, Logger, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import type { CaseEvent, GaugeMessage } from '@true-ledger/contract';
import pg from 'pg';
import { Subject, filter, type Observable } from 'rxjs';
import { CONFIG, type ServerConfig } from '../config.js';
import { ACCOUNT_CHANNEL, AccountsService, type AccountEnded } from '../accounts/accounts.service.js';
import { CHANNEL } from './ledger.service.js';

export const GAUGE_CHANNEL = 'true_ledger_gauge';

/** Carries "this case has grown" from PostgreSQL to open browsers, whichever process wrote. Reconnects by itself. */
@Injectable()
export class EventsService implements OnModuleInit, OnApplicationShutdown {
  private readonly log = new Logger('events');
  private readonly events = new Subject<CaseEvent>();
  /** What the gauges of the shop send. */
  readonly gauges = new Subject<GaugeMessage>();
  private client: pg.Client | null = null;
  private stopped = false;

  constructor(
    @Inject(CONFIG) private readonly config: ServerConfig,
    private readonly accounts: AccountsService,
  ) {}

  onModuleInit(): void {
    void this.listen();
  }

  private async listen(): Promise<void> {
    if (this.stopped) return;
    const client = new pg.Client({ connectionString: this.config.databaseUrl });
    this.client = client;
    const again = (): void => {
      if (this.client !== client || this.stopped) return;
      this.client = null;
      setTimeout(() => void this.listen(), 1000).unref();
    };
    client.on('error', again);
    client.on('end', again);
    client.on('notification', (message) => {
      if (!message.payload) return;
      if (message.channel === ACCOUNT_CHANNEL) this.accounts.ended.next(JSON.parse(message.payload) as AccountEnded);
      else if (message.channel === GAUGE_CHANNEL) this.gauges.next(JSON.parse(message.payload) as GaugeMessage);
      else this.events.next(JSON.parse(message.payload) as CaseEvent);
    });
    try {
      await client.connect();
      await client.query(`LISTEN ${CHANNEL}; LISTEN ${GAUGE_CHANNEL}; LISTEN ${ACCOUNT_CHANNEL}`);
    } catch (error) {
      this.log.warn(`cannot listen: ${error instanceof Error ? error.message : String(error)}`);
      again();
    }
  }

  /** Every case, or one. */
  of(caseId?: string): Observable<CaseEvent> {
    return this.events.pipe(filter((event) => caseId === undefined || event.caseId === caseId));
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    this.events.complete();
    this.gauges.complete();
    await this.client?.end().catch(() => undefined);
  }
}
