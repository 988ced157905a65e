import { Module } from '@nestjs/common';
import { AcrossModule } from '../across/across.module.js';
import { CaseEngineController, EnginesController } from './engines.controller.js';
import { EnginesService } from './engines.service.js';
import { LaboratoryService } from './laboratory.service.js';

@Module({
  imports: [AcrossModule],
  controllers: [EnginesController, CaseEngineController],
  providers: [EnginesService, LaboratoryService],
  exports: [EnginesService],
})
export class EnginesModule {}
