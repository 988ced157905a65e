import { Module } from '@nestjs/common';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PhotosModule } from '../photos/photos.module.js';
import { SurfacesController } from './surfaces.controller.js';
import { SurfacesService } from './surfaces.service.js';

@Module({ imports: [LedgerModule, PhotosModule], controllers: [SurfacesController], providers: [SurfacesService] })
export class SurfacesModule {}
