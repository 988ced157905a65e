import { Module } from '@nestjs/common';
import { AcrossController } from './across.controller.js';
import { AcrossService } from './across.service.js';

@Module({ controllers: [AcrossController], providers: [AcrossService], exports: [AcrossService] })
export class AcrossModule {}
