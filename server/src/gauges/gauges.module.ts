import { Module } from '@nestjs/common';
import { GaugesController } from './gauges.controller.js';
import { GaugesGateway } from './gauges.gateway.js';
import { GaugesService } from './gauges.service.js';
import { PracticeModule } from '../practice/practice.module.js';
import { StandInsController } from './standIns.controller.js';

@Module({
  imports: [PracticeModule],
  controllers: [GaugesController, StandInsController],
  providers: [GaugesService, GaugesGateway],
  exports: [GaugesService],
})
export class GaugesModule {}
