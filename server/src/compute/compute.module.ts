import { Global, Module } from '@nestjs/common';
import { ComputeService } from './compute.service.js';

@Global()
@Module({ providers: [ComputeService], exports: [ComputeService] })
export class ComputeModule {}
