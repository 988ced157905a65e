import { Global, Module } from '@nestjs/common';
import { EventsController } from './events.controller.js';
import { EventsService } from './events.service.js';
import { LedgerController } from './ledger.controller.js';
import { RedactionsService } from './redactions.service.js';
import { LedgerService } from './ledger.service.js';
import { SummariesService } from './summaries.service.js';

@Global()
@Module({
  controllers: [LedgerController, EventsController],
  providers: [LedgerService, RedactionsService, EventsService, SummariesService],
  exports: [LedgerService, EventsService],
})
export class LedgerModule {}
