import { Module } from '@nestjs/common';
import { ComputeModule } from '../compute/compute.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PracticeController } from './practice.controller.js';
import { PracticeEnginesController } from './practiceEngines.controller.js';
import { PracticeEnginesService } from './practiceEngines.service.js';

@Module({
  imports: [ComputeModule, LedgerModule],
  controllers: [PracticeController, PracticeEnginesController],
  providers: [PracticeEnginesService],
  exports: [PracticeEnginesService],
})
export class PracticeModule {}
