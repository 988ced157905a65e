import { Module } from '@nestjs/common';
import { SealsController } from './seals.controller.js';
import { SealsService } from './seals.service.js';
import { WitnessService } from './witness.service.js';

@Module({ controllers: [SealsController], providers: [SealsService, WitnessService] })
export class SealsModule {}
