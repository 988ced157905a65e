import { PhotosModule } from '../photos/photos.module.js';
import { Module } from '@nestjs/common';
import { ReferencesController } from './references.controller.js';
import { ReferencesService } from './references.service.js';

@Module({ imports: [PhotosModule], controllers: [ReferencesController], providers: [ReferencesService] })
export class ReferencesModule {}
