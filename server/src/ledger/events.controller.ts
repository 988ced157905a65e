import { Controller, ParseUUIDPipe, Query, Req, Sse, type MessageEvent } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { filter, from, interval, map, merge, mergeMap, takeUntil, type Observable } from 'rxjs';
import type { Account } from '@true-ledger/contract';
import { AccountsService, endsFor } from '../accounts/accounts.service.js';
import { Who, type SignedRequest } from '../accounts/guard.js';
import { EventsService } from './events.service.js';

/** Which case has grown to which number, as it happens in any server process. */
@ApiTags('ledger')
@Controller('api/events')
export class EventsController {
  constructor(
    private readonly events: EventsService,
    private readonly accounts: AccountsService,
  ) {}

  @ApiQuery({ name: 'case', required: false, description: 'One case; all when absent' })
  @Sse()
  stream(
    @Who() account: Account,
    @Req() request: SignedRequest,
    @Query('case', new ParseUUIDPipe({ optional: true })) caseId?: string,
  ): Observable<MessageEvent> {
    return merge(
      this.events.of(caseId).pipe(
        mergeMap((event) =>
          from(this.accounts.maySee(account, event.caseId).catch(() => false)).pipe(
            filter(Boolean),
            map(() => event),
          ),
        ),
        map((event): MessageEvent => ({ data: event })),
      ),
      interval(25_000).pipe(map((): MessageEvent => ({ type: 'alive', data: {} }))),
      // Ends with the session or when the account changes; the page connects again as whoever it then is.
    ).pipe(takeUntil(this.accounts.ended.pipe(filter((ended) => endsFor(ended, account.id, request.sessionId ?? '')))));
  }
}
