import { Logger, type OnModuleDestroy } from '@nestjs/common';
import { WebSocketGateway, type OnGatewayConnection, type OnGatewayInit } from '@nestjs/websockets';
import { gaugeCommandSchema, type Account, type GaugeCommand, type GaugeMessage } from '@true-ledger/contract';
import { parse } from 'cookie';
import type { IncomingMessage } from 'node:http';
import type { Subscription } from 'rxjs';
import type { WebSocket } from 'ws';
import { AccountsService, endsFor } from '../accounts/accounts.service.js';
import { sessionToken } from '../accounts/guard.js';
import { ProblemError } from '../http/problem.js';
import { EventsService } from '../ledger/events.service.js';
import { GaugesService } from './gauges.service.js';

/** Codes of a socket that was not let in. */
const SIGNED_OUT = 4401;
const OTHER_SITE = 4403;
/** The database cannot be asked who it is; the page tries again by itself. */
const STORE_AWAY = 1013;

/** The wire: pages say where a gauge is put and when its key is pressed, and hear what every gauge of the shop sends. */
@WebSocketGateway({ path: '/api/gauges/live', maxPayload: 4096 })
export class GaugesGateway implements OnGatewayInit, OnGatewayConnection<WebSocket>, OnModuleDestroy {
  private readonly log = new Logger('gauges');
  private readonly open = new Set<WebSocket>();
  private heard: Subscription | null = null;

  constructor(
    private readonly accounts: AccountsService,
    private readonly gauges: GaugesService,
    private readonly events: EventsService,
  ) {}

  afterInit(): void {
    this.heard = this.events.gauges.subscribe((message) => {
      const text = JSON.stringify(message);
      for (const socket of this.open) if (socket.readyState === socket.OPEN) socket.send(text);
    });
  }

  async handleConnection(socket: WebSocket, request: IncomingMessage): Promise<void> {
    socket.on('error', (error) => this.log.warn(error.message));
    // What is sent while the session is looked up is kept: the page may speak as soon as the socket opens.
    const early: string[] = [];
    let hear = (text: string): void => void (early.length < 20 && early.push(text));
    socket.on('message', (data: Buffer) => hear(data.toString('utf8')));
    const origin = request.headers.origin;
    if (origin === undefined || !URL.canParse(origin) || new URL(origin).host !== request.headers.host) return socket.close(OTHER_SITE);
    const token = sessionToken({ cookies: parse(request.headers.cookie ?? '') });
    const found = token ? await this.accounts.accountOfToken(token).catch(() => 'away' as const) : null;
    if (found === 'away') return socket.close(STORE_AWAY);
    if (!found) return socket.close(SIGNED_OUT);
    // Whoever sees chosen cases only hears no gauge: what it sends names the place it is on.
    if (found.account.role === 'reader' && !found.account.allCases) return socket.close(OTHER_SITE);
    this.open.add(socket);
    const leaves = this.accounts.ended.subscribe((ended) => {
      if (endsFor(ended, found.account.id, found.sessionId)) socket.close(SIGNED_OUT);
    });
    socket.on('close', () => {
      this.open.delete(socket);
      leaves.unsubscribe();
    });
    let turn: Promise<void> = Promise.resolve();
    // One after the other, so that a press is on the place that was said before it.
    hear = (text) => void (turn = turn.then(() => this.obey(socket, found.account, text)));
    for (const text of early) hear(text);
  }

  private async obey(socket: WebSocket, account: Account, text: string): Promise<void> {
    const refuse = (sentence: string): void => {
      if (socket.readyState === socket.OPEN) socket.send(JSON.stringify({ type: 'refused', sentence } satisfies GaugeMessage));
    };
    try {
      if (account.role === 'reader') return refuse('Readers take no readings. Nothing was sent.');
      const { error, value } = gaugeCommandSchema.validate(JSON.parse(text), { convert: false });
      if (error) return refuse('The gauge was told something it does not understand. Nothing was read; load the page again.');
      const command = value as GaugeCommand;
      if (command.type === 'press') await this.gauges.press(command.gauge, command.at);
      else await this.gauges.put(command.gauge, command.at);
    } catch (error) {
      refuse(error instanceof ProblemError ? error.body.sentence : 'The gauge gave no answer. Nothing was read; press again.');
      if (!(error instanceof ProblemError) && !(error instanceof SyntaxError)) this.log.warn(String(error));
    }
  }

  onModuleDestroy(): void {
    this.heard?.unsubscribe();
    for (const socket of this.open) socket.close(1001);
  }
}
