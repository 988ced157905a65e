import { Module } from '@nestjs/common';
import { AcrossModule } from '../across/across.module.js';
import { PolicyModule } from '../policy/policy.module.js';
import { GradeBooksModule } from '../gradeBooks/gradeBooks.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { PricesModule } from '../prices/prices.module.js';
import { CasesController } from './cases.controller.js';
import { PresenceController } from './presence.controller.js';

@Module({
  imports: [AcrossModule, SheetsModule, GradeBooksModule, PolicyModule, PricesModule],
  controllers: [CasesController, PresenceController],
})
export class CasesModule {}
