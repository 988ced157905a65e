import { Controller, ParseUUIDPipe, Query, Sse, type MessageEvent } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { interval, map, merge, type Observable } from 'rxjs';
import { EventsService } from './events.service.js';

/** Which case has grown to which number, as it happens in any server process. */
@ApiTags('ledger')
@Controller('api/events')
export class EventsController {
  constructor(private readonly events: EventsService) {}

  @ApiQuery({ name: 'case', required: false, description: 'One case; all when absent' })
  @Sse()
  stream(@Query('case', new ParseUUIDPipe({ optional: true })) caseId?: string): Observable<MessageEvent> {
    return merge(
      this.events.of(caseId).pipe(map((event): MessageEvent => ({ data: event }))),
      interval(25_000).pipe(map((): MessageEvent => ({ type: 'alive', data: {} }))),
    );
  }
}
