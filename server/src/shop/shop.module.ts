import { Module } from '@nestjs/common';
import { PartiesController, ShopController } from './shop.controller.js';
import { ShopService } from './shop.service.js';

@Module({ controllers: [ShopController, PartiesController], providers: [ShopService], exports: [ShopService] })
export class ShopModule {}
