import { Module } from '@nestjs/common';
import { PhotosModule } from '../photos/photos.module.js';
import { ShopModule } from '../shop/shop.module.js';
import { ReportsController } from './reports.controller.js';
import { ReportsService } from './reports.service.js';
import { SharedController, SharesController } from './shares.controller.js';
import { SharesService } from './shares.service.js';

@Module({
  imports: [PhotosModule, ShopModule],
  controllers: [ReportsController, SharesController, SharedController],
  providers: [ReportsService, SharesService],
  exports: [ReportsService],
})
export class ReportsModule {}
