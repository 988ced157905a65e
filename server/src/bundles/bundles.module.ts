import { Module } from '@nestjs/common';
import { ClipsModule } from '../clips/clips.module.js';
import { PhotosModule } from '../photos/photos.module.js';
import { ReportsModule } from '../reports/reports.module.js';
import { ShopModule } from '../shop/shop.module.js';
import { BundlesController, BundlesInController } from './bundles.controller.js';
import { ExportService } from './export.service.js';
import { ImportService } from './import.service.js';

@Module({
  imports: [PhotosModule, ClipsModule, ReportsModule, ShopModule],
  controllers: [BundlesController, BundlesInController],
  providers: [ImportService, ExportService],
  exports: [ImportService, ExportService],
})
export class BundlesModule {}
