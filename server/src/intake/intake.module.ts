import { Global, Module } from '@nestjs/common';
import { IntakeService } from './intake.service.js';

@Global()
@Module({ providers: [IntakeService], exports: [IntakeService] })
export class IntakeModule {}
