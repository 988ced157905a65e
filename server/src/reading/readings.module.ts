import { Module } from '@nestjs/common';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PhotosModule } from '../photos/photos.module.js';
import { ReadingsController } from './readings.controller.js';
import { ReadingsService } from './readings.service.js';

@Module({ imports: [LedgerModule, PhotosModule], controllers: [ReadingsController], providers: [ReadingsService] })
export class ReadingsModule {}
